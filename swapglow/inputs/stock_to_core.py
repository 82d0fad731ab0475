"""The drawer from what was typed to the core's plain values."""

from typing import Any

from swapglow.core.parts.lamp import catalogue as lamps
from swapglow.core.parts.led import Led
from swapglow.core.parts.ready_made import ready_made
from swapglow.core.parts.regulator import regulators
from swapglow.core.parts.resistor import check_resistor, rating_text
from swapglow.core.parts.sweep import fitted_led
from swapglow.core.quantities import FARAD, OHM, VOLT, InputError, percent, show
from swapglow.core.quantities.everyday import read_money
from swapglow.core.stock.part import KINDS, Part
from swapglow.inputs.stock import BenchLedInput, PartInput, Stocked
from swapglow.inputs.to_core import own_led, plain, sweep_of


def part_of(id_: str, p: PartInput) -> Part:
    """A part in the drawer.

    Args:
        id_: the record's own.
        p: as typed.

    Returns:
        The core's value.

    Raises:
        InputError: for the field that cannot be read, or that its kind needs.
    """
    figures = plain(p, "part")
    if p.kind == "resistor":
        if figures["ohm"] is None:
            raise InputError("resistance", "A resistor needs its value, like 4k7 or its bands.")
        check_resistor("resistance", figures["ohm"])
    if p.kind == "capacitor" and figures["farad"] is None:
        raise InputError("capacitance", "A capacitor needs its value, like 100nF or 47µF.")
    if p.catalogue_id and p.catalogue_id not in of_catalogue(p.kind):
        raise InputError("catalogue_id", f'The catalogue has no "{p.catalogue_id}" of this kind.')
    return Part(id_, p.kind, label_of(p), **figures, **_stock(p))  # type: ignore[arg-type]  # one of the kinds


def led_part_of(id_: str, p: BenchLedInput) -> Part:
    """An LED of the bench's own as a compartment of the drawer.

    Args:
        id_: the record's own.
        p: as typed.

    Returns:
        The core's value.

    Raises:
        InputError: for ``price``.
    """
    return Part(id_, "led", p.name, of=p.led_id, **_stock(p))


def _stock(p: Stocked) -> dict[str, Any]:
    return {**plain(p, "stock"), "price": read_money("price", p.price)}


def label_of(p: PartInput) -> str:
    """A part as it is called: by its name, else by its value or the catalogue's words."""
    if p.name.strip():
        return p.name.strip()
    figures = plain(p, "part")
    said = []
    if p.kind == "resistor" and figures["ohm"] is not None:
        said.append(show(figures["ohm"], OHM, 6))
    if p.kind == "capacitor" and figures["farad"] is not None:
        said.append(show(figures["farad"], FARAD))
    if figures["volts"] is not None:
        said.append(show(figures["volts"], VOLT))
    if p.rating_w is not None:
        said.append(rating_text(p.rating_w))
    if p.tolerance is not None:
        said.append(percent(p.tolerance))
    if not said and p.catalogue_id:
        said.append(of_catalogue(p.kind).get(p.catalogue_id, p.catalogue_id))
    return ", ".join(said) or KINDS[p.kind]  # type: ignore[index]  # one of the kinds


def of_catalogue(kind: str) -> dict[str, str]:
    """What the catalogue has of a kind, by id; nothing of kinds that it has not."""
    if kind == "lamp":
        return {k: f"{v.label}, {v.base}" for k, v in lamps().items()}
    if kind == "module":
        return {k: v.label for k, v in ready_made().items()}
    if kind == "regulator":
        return {k: v.label for k, v in regulators().items()}
    return {}


def bench_led_of(p: BenchLedInput) -> Led:
    """A bench's own LED with its figures, and its curve where it was swept.

    Raises:
        InputError: for the field that cannot be read.
    """
    led, _ = own_led(p)
    return fitted_led(led, sweep_of(p)) if p.sweep.strip() else led
