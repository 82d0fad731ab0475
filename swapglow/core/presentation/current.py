"""Section: what the LED carries at every corner, and what the supply gives."""

from dataclasses import dataclass, replace
from typing import Literal

from swapglow.core.analysis.inrush import fuse_of
from swapglow.core.analysis.sizing import turned
from swapglow.core.analysis.solution import CORNERS, Solution, solve
from swapglow.core.parts.fuse import LOADED
from swapglow.core.quantities import AMPERE, OHM, VOLT, Shown, show, shown


@dataclass(frozen=True)
class Corner:
    """The current at one rail level with one LED."""

    rail: Literal["low", "usual", "high"]
    led: Literal["highest", "typical", "lowest"]
    current: Shown


@dataclass(frozen=True)
class OtherString:
    """Another string in the same place: what it carries, and through which resistor."""

    name: str
    count: int
    usual: Shown
    most: Shown
    each: Shown


@dataclass(frozen=True)
class SweptInside:
    """Where a whole part was swept: its strings, what each carries, and what stands over each LED of it.

    ``volts`` is nothing where the supply alternates: no volts belong to an average current.
    """

    strings: int
    amps: Shown
    volts: Shown | None


@dataclass(frozen=True)
class CurrentReport:
    """Currents of one string: typical LED at three rails, and every corner.

    ``lamp`` is what all strings together take at the usual rail, ``supply`` the most that the whole circuit
    does, ``fuse`` the smallest fuse that carries that for good. ``strings`` are those of other LEDs in the place, and a
    two-colour LED's other die. ``inside`` is a swept part's own.
    """

    low: Shown
    usual: Shown
    high: Shown
    supply: Shown
    fuse: Shown | None
    lamp: Shown
    strings: tuple[OtherString, ...]
    inside: SweptInside | None
    corners: tuple[Corner, ...]


def current_section(s: Solution) -> CurrentReport:
    """Every current with the corner it is of."""
    p = s.position
    fitted = show(s.sizing.total_ohm, OHM) + ("" if p.ohm_doubt is None else ", as read")
    rails = p.rail.volts
    vfs = (p.led.vf_high, p.led.vf_typ, p.led.vf_low)

    def origin(rail: float, vf: float) -> str:
        return f"{show(rail, VOLT)} rail, {show(vf, VOLT)} LED, {fitted}"

    nominal = CORNERS["ohms"].index("nominal")
    corners = tuple(
        Corner(rail, led, shown(float(s.amps[i, j, nominal]), AMPERE, origin(rails[i], vfs[j])))  # type: ignore[arg-type]  # the axes' own names
        for i, rail in enumerate(CORNERS["rail"])
        for j, led in enumerate(CORNERS["led"])
    )
    low, usual, high = (shown(float(s.usual[i]), AMPERE, origin(rails[i], vfs[1])) for i in range(3))
    together = f"{p.branches} strings and what else hangs on them" if p.branches > 1 else "the whole circuit"
    supply = shown(s.supply_current_max, AMPERE, f"{together}, at its most" + (", RMS" if s.ac else ""))
    strings = _others(s)
    together_a = float(s.usual[1]) * p.branches + sum(t.usual.value * t.count for t in strings)
    lamp = shown(together_a, AMPERE, "every string together, usual rail, typical LEDs")
    return CurrentReport(low, usual, high, supply, _fuse(s), lamp, strings, _inside(s), corners)


def _fuse(s: Solution) -> Shown | None:
    fuse = fuse_of(s)
    if fuse is None:
        return None
    by = f"loaded to {LOADED:.0%} at most by {show(s.supply_current_max, AMPERE)}"
    return shown(fuse.rated_a, AMPERE, by + (", time-lag for its capacitor's first charge" if fuse.time_lag else ""))


def _inside(s: Solution) -> SweptInside | None:
    """A swept part's strings and LEDs at the usual rail."""
    led, amps = s.position.led, float(s.usual[1])
    if led.inside.single:
        return None
    whole = float(led.junction(led.vf_typ, s.position.celsius).volts(amps))
    volts, each = led.inside.of_one(whole, amps)
    by = f"{led.inside.strings} × {led.inside.in_series} LEDs as typed, {show(led.inside.ohm, OHM)} in each string"
    over = None if s.ac is not None else shown(volts, VOLT, by)
    return SweptInside(led.inside.strings, shown(each, AMPERE, by), over)


def _others(s: Solution) -> tuple[OtherString, ...]:
    """The other strings, each solved in the main one's place in the same circuit."""
    p, out = s.position, []
    turns = [(b.name, turned(p, k), b.count) for k, b in enumerate(p.beside)]
    if p.second_led is not None and p.rail.supply.alternates and p.rectification.second_colour:
        other = replace(p, led=p.second_led, second_led=p.led, resistor_ohm=s.sizing.each_ohm)
        turns.append((f"Other die, {p.second_led.label[0].lower()}{p.second_led.label[1:]}", other, p.branches))
    for name, position, count in turns:
        t = solve(position, rule=False)
        own = t.sizing.each_ohm if position.resistor_ohm is None else position.resistor_ohm
        out.append(
            OtherString(
                name,
                count,
                shown(float(t.usual[1]), AMPERE, f"{name}, usual rail, typical LED"),
                shown(t.string_current_max, AMPERE, f"{name}, highest rail and lowest Vf"),
                shown(own, OHM, f"{name}, its own resistor"),
            )
        )
    return tuple(out)
