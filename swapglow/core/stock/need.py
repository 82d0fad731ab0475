"""What a lamp's swap takes out of the drawer: each part that is fitted, and how many of it."""

from collections.abc import Iterable
from dataclasses import dataclass

from swapglow.core.analysis.solution import Solution
from swapglow.core.build_steps.sleeves import sleeve_over
from swapglow.core.build_steps.steps import Fact
from swapglow.core.design.branch import Branch
from swapglow.core.parts.led import Led
from swapglow.core.parts.resistor import body_of, rating_text
from swapglow.core.quantities import FARAD, OHM, VOLT, show
from swapglow.core.stock.part import Part, PartKind, same_ohms


@dataclass(frozen=True)
class Need:
    """Parts of one kind that a lamp takes.

    Attributes:
        kind, label: what it is.
        count: how many.
        ohm, farad, volts: its value, and the most that stands across it.
        rating_w: the least that will do.
        tolerance: the most that was reckoned with.
        of: its id in the catalogue, "" for none.
    """

    kind: PartKind
    label: str
    count: int
    ohm: float | None = None
    farad: float | None = None
    volts: float | None = None
    rating_w: float | None = None
    tolerance: float | None = None
    of: str = ""

    @property
    def key(self) -> str:
        """What is the same part."""
        return f"{self.kind}:{self.label}"

    def met_by(self, part: Part) -> bool:
        """Whether a part in the drawer will do; what is not known of it is taken to be right.

        Args:
            part: one compartment.
        """
        if part.kind != self.kind:
            return False
        if self.ohm is not None:
            fits = part.ohm is not None and same_ohms(part.ohm, self.ohm)
            return fits and _least(part.rating_w, self.rating_w) and _most(part.tolerance, self.tolerance)
        if self.farad is not None:
            return part.farad is not None and _least(part.farad, self.farad) and _least(part.volts, self.volts)
        if self.of:
            return part.of == self.of
        return part.label.casefold() == self.label.casefold()


def _least(has: float | None, asked: float | None) -> bool:
    return has is None or asked is None or has >= asked * (1 - 1e-9)


def _most(has: float | None, asked: float | None) -> bool:
    return has is None or asked is None or has <= asked * (1 + 1e-9)


# One of each kind, as a step of the build calls it.
_ONE = {
    "resistor": "Resistor",
    "led": "LED",
    "lamp": "Lamp",
    "module": "LED lamp",
    "regulator": "Regulator",
    "diode": "Diode",
    "capacitor": "Capacitor",
    "driver": "Driver",
}


def on_clips(found: tuple[Need, ...]) -> tuple[Fact, ...]:
    """Everything electrical that a circuit needs, as a step of the build lists it: none of it may be missing.

    Args:
        found: as :func:`needs` gives them.
    """
    return tuple(
        Fact(_ONE[n.kind], n.label if n.count == 1 else f"{n.count} × {n.label}") for n in found if n.kind in _ONE
    )


def needs(s: Solution) -> tuple[Need, ...]:
    """Everything that a lamp's swap takes.

    Args:
        s: the solved position.

    Returns:
        Its parts, of each kind how many.
    """
    return tuple(_needs(s))


def _needs(s: Solution) -> Iterable[Need]:
    p = s.position
    if p.module is not None:
        yield Need("module", "Ready-made LED lamp" if p.band_v is None else _lamp(p.band_v), 1)
    else:
        yield _led(p.led, p.in_series * p.branches)
        if p.rail.supply.alternates and p.rectification.guard == "led":
            other = p.second_led if p.rectification.second_colour else None
            yield _led(other or p.led, p.in_series * p.branches)
    if not p.bare:
        watts = p.rating_w or s.rating_to_fit_w
        yield _resistor(s.sizing.each_ohm, p.resistor_parts * p.branches, watts, p.resistor_tolerance)
        if watts is not None and (piece := sleeve_over(body_of(watts).body_mm, body_of(watts).length_mm)):
            pieces = p.resistor_parts * p.branches
            yield Need("sundry", f"Sleeve, {piece.bore_mm:g} mm bore", pieces)
    for branch in p.beside:
        yield from _branch(branch, p.rectification.guard if p.rail.supply.alternates else "none")
    if p.shunt_ohm is not None:
        yield _resistor(p.shunt_ohm, p.branches if p.shunt_across == "leds" else 1, p.shunt_w, None)
    yield from _rectifier(s)
    if p.swallows_pulses and p.capacitor_f is not None:
        yield _capacitor(p.capacitor_f, p.capacitor_v)
    if p.series_diodes:
        yield Need("diode", "Silicon diode", p.series_diodes)
    if p.regulator is not None:
        yield Need("regulator", p.regulator.label, 1, of=p.regulator.id)


def _lamp(band: tuple[float, float]) -> str:
    return f"Ready-made LED lamp, {band[0]:g} to {band[1]:g} V"


def _led(led: Led, count: int) -> Need:
    return Need("led", led.label, count, of=led.id)


def _resistor(ohm: float, count: int, watts: float | None, tolerance: float | None) -> Need:
    rated = "" if watts is None else f", {rating_text(watts)}"
    return Need("resistor", f"{show(ohm, OHM)}{rated}", count, ohm=ohm, rating_w=watts, tolerance=tolerance)


def _branch(b: Branch, guard: str) -> Iterable[Need]:
    yield _led(b.led, b.in_series * b.count)
    if guard == "led" or b.second is not None:
        yield _led(b.second or b.led, b.in_series * b.count)
    if guard == "diode":
        yield Need("diode", "Silicon diode", b.count)
    if b.ohm is not None:
        yield _resistor(b.ohm, b.count, b.rating_w, None)
    if b.diodes:
        yield Need("diode", "Silicon diode", b.diodes * b.count)


def _rectifier(s: Solution) -> Iterable[Need]:
    p = s.position
    if not p.rail.supply.alternates:
        return
    way = p.rectification
    if way.topology == "bridge" and way.parts:
        yield Need("diode", "Bridge of four", 1)
    elif way.topology == "series" and way.parts:
        yield Need("diode", "Silicon diode", 1)
    if way.guard == "diode":
        yield Need("diode", "Silicon diode", p.branches)
    if way.reservoir and s.sizing.farads:
        yield _capacitor(s.sizing.farads, p.capacitor_v)


def _capacitor(farads: float, volts: float | None) -> Need:
    rated = "" if volts is None else f", {show(volts, VOLT)}"
    return Need("capacitor", f"{show(farads, FARAD)}{rated}", 1, farad=farads, volts=volts)
