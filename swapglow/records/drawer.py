"""The drawer: what is at hand of every kind, and what goes in and out of it."""

from collections.abc import Iterable

from swapglow.core.quantities import OHM, InputError, show
from swapglow.core.quantities.inputs import read_single
from swapglow.core.stock.part import Part, same_ohms
from swapglow.inputs.stock import PartInput
from swapglow.inputs.stock_to_core import led_part_of, part_of
from swapglow.records import order
from swapglow.records.limits import check_room
from swapglow.records.models import BenchLed, StockPart
from swapglow.records.steps import keep, recorded

SCOPE = "drawer"

# Ω: what is sold as a resistor, and what can be told apart when it is printed with six figures.
LEAST, MOST = 1e-3, 1e9


def compartments() -> list[StockPart | BenchLed]:
    """The records of all compartments, the bench's own LEDs behind the rest."""
    return [*StockPart.objects.all(), *BenchLed.objects.all()]


def parts() -> list[Part]:
    """Every compartment, the bench's own LEDs among them; one that no longer reads is left out."""
    found: list[Part] = []
    for record in StockPart.objects.all():
        try:
            found.append(part_of(str(record.pk), record.input))
        except InputError:
            continue
    for led in BenchLed.objects.all():
        try:
            found.append(led_part_of(str(led.pk), led.input))
        except InputError:
            continue
    return found


def at_hand() -> frozenset[float]:
    """Resistor values at hand, Ω."""
    rows = StockPart.objects.filter(inputs__kind="resistor").values_list("inputs", flat=True)
    return frozenset(ohm for inputs in rows if (ohm := hand_of(inputs)) is not None)


def hand_of(inputs: dict[str, object]) -> float | None:
    """The value of a resistor of which some are left.

    Args:
        inputs: a part as it is kept.

    Returns:
        Ω; None for what is empty, unreadable or no resistor.
    """
    if inputs.get("kind") != "resistor":
        return None
    try:
        part = part_of("", PartInput.model_validate(inputs))
    except ValueError:
        return None
    return part.ohm if part.there else None


def change(add: Iterable[str], remove: Iterable[str]) -> None:
    """Put resistor values in and take values out, as one step.

    Args:
        add: as typed; those that are there stay, and are full again where they were empty.
        remove: as typed or printed; those that are not there are no fault.

    Raises:
        InputError: ``add`` or ``remove`` cannot be read, or there is no room; nothing is then changed.
    """
    more = sorted({_read("add", text) for text in add})
    less = [_read("remove", text) for text in remove]
    here = [(v, part_of("", v.input).ohm or 0.0) for v in StockPart.objects.filter(inputs__kind="resistor")]
    new = [ohm for ohm in more if not any(same_ohms(ohm, o) for _, o in here)]
    empty = [v for v, o in here if any(same_ohms(o, ohm) for ohm in more) and not part_of("", v.input).there]
    if new:
        check_room(StockPart(), len(new))
    gone = [v for v, o in here if any(same_ohms(o, ohm) for ohm in less)]
    said = [f"put in {show(o, OHM, 6)}" for o in new[:3]] + [f"take out {v}" for v in gone[:3]]
    with recorded(SCOPE, ", ".join(said) or "fill up", f"drawer:{more}:{sorted(less)}"):
        place = order.last(StockPart.objects)
        for k, ohm in enumerate(new):
            typed = PartInput(resistance=show(ohm, OHM, 6)).model_dump(mode="json")
            keep(StockPart(order=place + k, inputs=typed))
        for record in empty:
            record.join({"level": "full", "count": None})
            keep(record)
        for record in gone:
            record.delete()


def _read(field: str, text: str) -> float:
    ohm = read_single(field, text, OHM, above=0)
    if not LEAST <= ohm <= MOST:
        raise InputError(field, f'"{text}" is no resistor: 1 mΩ to 1 GΩ are taken.')
    return ohm
