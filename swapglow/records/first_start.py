"""The first start: what somebody says of their workshop before there is anything on the bench, used from then on."""

from dataclasses import dataclass

from swapglow.core.planning.field_of_work import FIELDS_OF_WORK
from swapglow.core.quantities import OHM, show
from swapglow.core.values import preferred
from swapglow.records import drawer
from swapglow.records.models import Equipment, Shop
from swapglow.records.steps import keep, recorded

# An assortment as it is sold, Ω (common practice).
LEAST_OHM, MOST_OHM = 10.0, 1e6


@dataclass(frozen=True)
class FirstStart:
    """Whether a bench is new.

    Attributes:
        new: nothing is on it and nobody has been asked.
        rail: the supply that a first sum begins with.
    """

    new: bool
    rail: str


def first_start() -> FirstStart:
    """How it stands here."""
    shop = Shop.own().input
    return FirstStart(shop.asked == "no" and not Equipment.objects.exists(), FIELDS_OF_WORK[shop.work].rail)


def begin(work: str, meter: str, series: str) -> FirstStart:
    """Take over what was said: habits, and for a series its whole assortment in the drawer. One step each.

    Args:
        work: a key of FIELDS_OF_WORK.
        meter: as the shop's habit.
        series: the series that is kept, such as "E12"; "" for not said.

    Returns:
        How it stands now.

    Raises:
        pydantic.ValidationError: one of them is no answer.
        InputError: the drawer has no room.
    """
    shop = Shop.own()
    said = {"work": work, "meter": meter, "asked": "yes"}
    # First, for it refuses what is no answer.
    shop.join({**said, "series": series} if series else said)
    if series:
        ohms = preferred.values(series, LEAST_OHM, MOST_OHM)
        drawer.change([show(float(ohm), OHM, 6) for ohm in ohms], [])
    with recorded("", "say what the workshop works on", "shop:first"):
        keep(shop)
    return first_start()
