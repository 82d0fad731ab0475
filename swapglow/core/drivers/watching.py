"""What drivers that watch the lamp's current have in common."""

from typing import Any, cast

from swapglow.core.drivers.driver import Place
from swapglow.core.drivers.kind import DriverKind
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.lamp import Lamp
from swapglow.core.quantities import AMPERE

MOST_THERE = 100

COUNTS = Detail(
    "counts", "Does it watch the current?", None, "", (("yes", "Yes"), ("no", "No: electronic, or coded not to"))
)
TRIP = Detail("trip", "Taken for failed below", AMPERE, "Current; empty takes the old lamp's own")
REST = Detail("rest", "Other lamps on it draw", AMPERE, "1.75A or 12V 21W: the lamps left as they are, all together")
PLACE = Detail(
    "place",
    "Where a load would sit",
    None,
    "What it is fixed to",
    (
        ("unknown", "Not settled"),
        ("metal", "Bare metal"),
        ("closed", "Closed, on metal"),
        ("plastic", "Plastic or trim"),
    ),
)
THERE = Detail("there", "Load resistors in one space", None, "Count, this one included: 1, 2, 4")


class Watching(DriverKind):
    """Too little current reads as a failed lamp."""

    watches = True
    detail_of = {"monitors_current": COUNTS.id}  # noqa: RUF012  # read only, as its base says
    contact = False

    def facts(self, details: Details, lamp: Lamp | None) -> dict[str, Any]:
        """What it counts, wants, and where a load resistor would sit."""
        return {
            "monitors_current": details.choice(COUNTS.id) == "yes",
            "trip": details.figure(TRIP.id),
            "rest_a": details.value(REST.id, above=None) or 0.0,
            "place": cast(Place, details.choice(PLACE.id)),
            "there": details.count(THERE.id, MOST_THERE),
        }
