"""In series with other lamps, which stay or are changed with it."""

from typing import Any

from swapglow.core.drivers.driver import Driver
from swapglow.core.drivers.kind import DriverKind, Unknown
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.lamp import Lamp
from swapglow.core.quantities import AMPERE, VOLT

MOST_OTHERS = 50


class SeriesLamps(DriverKind):
    """A loop of filaments with one place taken out of it."""

    id = "series_lamps"
    order = 4
    label = "In series with lamps left in place"
    expect = "Each lamp saw a share of the rail. An LED's current leaves the others dark."
    details = (
        Detail("others", "Lamps left in the loop", None, "Count: 1, 2"),
        Detail("other_volts", "Each is marked", VOLT, "6.3V; empty takes the old lamp's"),
        Detail("other_amps", "and draws", AMPERE, "0.15A; empty takes the old lamp's", at="other_volts"),
        Detail("changed", "Are they changed too?", None, "", (("no", "No, they stay"), ("yes", "Yes, all of them"))),
    )
    has_off = "no"
    detail_of = {"others_changed": "changed"}  # noqa: RUF012  # read only, as its base says

    def facts(self, details: Details, lamp: Lamp | None) -> dict[str, Any]:
        """The other lamps, taken to equal the old one where nobody says what they are."""
        count = details.count("others", MOST_OTHERS)
        volts = details.value("other_volts") or (lamp.volts if lamp else None)
        amps = details.value("other_amps") or (lamp.amps if lamp else None)
        others: tuple[Lamp, ...] = ()
        # Nothing else is lost by not knowing them yet: a finding asks.
        if volts is not None and amps is not None:
            candela = lamp.candela if lamp and (volts, amps) == (lamp.volts, lamp.amps) else None
            others = (Lamp("left", "Lamp left in place", volts, amps, candela, ""),) * count
        return {"others": others, "others_changed": details.choice("changed") == "yes"}

    def unknown(self, driver: Driver, lamp: Lamp | None) -> Unknown | None:
        """What the others are."""
        if driver.others:
            return None
        return Unknown("what the lamps left in the loop are marked with", "whether they stay lit")


KIND = SeriesLamps()
