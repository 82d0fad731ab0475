"""The drawer: resistor values at hand."""

from collections.abc import Iterable

from swapglow.core.quantities import OHM, InputError, show
from swapglow.core.quantities.inputs import read_single
from swapglow.records.limits import check_room
from swapglow.records.models import DrawerValue
from swapglow.records.steps import keep, recorded

SCOPE = "drawer"

# Ω: what is sold as a resistor, and what can be told apart when it is printed with six figures.
LEAST, MOST = 1e-3, 1e12


def at_hand() -> frozenset[float]:
    """Resistor values at hand, Ω."""
    return frozenset(DrawerValue.objects.values_list("ohm", flat=True))


def change(add: Iterable[str], remove: Iterable[str]) -> None:
    """Put values in and take values out, as one step.

    Args:
        add: as typed; those that are there stay.
        remove: as typed or printed; those that are not there are no fault.

    Raises:
        InputError: ``add`` or ``remove`` cannot be read, or there is no room; nothing is then changed.
    """
    more = {_read("add", text) for text in add}
    less = {show(_read("remove", text), OHM, 6) for text in remove}
    here = {v.ohm: v for v in DrawerValue.objects.all()}
    new = sorted(ohm for ohm in more if show(ohm, OHM, 6) not in {show(o, OHM, 6) for o in here})
    if new:
        check_room(DrawerValue(), len(new))
    gone = [v for ohm, v in here.items() if show(ohm, OHM, 6) in less]
    said = [f"put in {show(o, OHM, 6)}" for o in new[:3]] + [
        f"take out {show(v.ohm, OHM, 6)}" for v in gone[:3]
    ]
    with recorded(SCOPE, ", ".join(said), f"drawer:{sorted(more)}:{sorted(less)}"):
        for ohm in new:
            keep(DrawerValue(ohm=ohm))
        for value in gone:
            value.delete()


def _read(field: str, text: str) -> float:
    ohm = read_single(field, text, OHM, above=0)
    if not LEAST <= ohm <= MOST:
        raise InputError(field, f'"{text}" is no resistor: 1 mΩ to 1 TΩ are taken.')
    return ohm
