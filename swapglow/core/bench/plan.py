"""The measuring plan: which reading to take next, by what its doubt does to the current.

Each reading still owed is a candidate with a weight in amps: how far the usual current moves
between the ends of what is not known, solved by the engine. The heaviest comes first; one that
moves the current by less than a twentieth is not worth a reading of its own.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace

import numpy as np

from swapglow.core.bench.meter import amp_range, volt_range
from swapglow.core.bench.pencil import RAIL_DOUBT
from swapglow.core.position.circuit import Cases
from swapglow.core.position.model import Position
from swapglow.core.position.sizing import size
from swapglow.core.position.solution import Solution, current
from swapglow.core.quantities import AMPERE, HERTZ, VOLT, Source, show
from swapglow.core.report import Meaning, NextStep, Pencil
from swapglow.core.supply import Supply

# A pencilled figure that moves the current less than this is not worth a reading of its own.
WORTH_READING = 0.05
# Unread sag (common practice: 10 to 30 % from open to loaded).
USUAL_SAG = 0.2

MAINS_CASE = "Mains or high tension in the case: leave it to someone qualified."
CAUTIONS = {
    "vehicle": "Work by the battery: negative lead off first before any wire is opened; no rings, no sparks.",
    "stator": "The engine is running: hands and leads clear of belts and hot metal.",
    "battery": "Mind the polarity; a shorted cell gets hot.",
    "logic": "Static: touch the frame first, strap on for old logic.",
    "unregulated": "Its reservoir capacitor holds its charge after switching off: discharge before solder. "
    + MAINS_CASE,
}


_READ = (Source.MEASURED, Source.COMPUTED)


@dataclass(frozen=True)
class _Ask:
    weight: float
    step: NextStep


def plan(s: Solution, pencil: Pencil) -> tuple[NextStep, ...]:
    """Readings still worth taking, the weightiest first; none for what is mains-connected.

    Args:
        s: solved with :func:`if_alternating` as the last of its further cases.
    """
    if s.position.mains:
        return ()
    swings = {i.id: i.swing_a for i in pencil.items if i.source.is_pencil}
    asks = [a for maker in _MAKERS for a in maker(s, swings)]
    floor = WORTH_READING * max(float(s.usual[1]), 1e-9)
    worth = sorted((a for a in asks if a.weight > floor), key=lambda a: -a.weight)
    return tuple(a.step for a in worth)


def _caution(p: Position) -> str:
    return CAUTIONS.get(p.rail.supply.kind, MAINS_CASE)


def _moved(s: Solution, other: Position) -> float:
    """How far the usual current moves if the position is really ``other``."""
    p = other
    amps = current(
        p,
        Cases(
            np.array([p.rail.volts[1]]), np.array([p.led.vf_typ]), np.array([s.sizing.total_ohm]), p.drop_v
        ),
    )
    return abs(float(amps[0]) - float(s.usual[1]))


def _rails(s: Solution, swings: dict[str, float]) -> Iterable[_Ask]:
    p = s.position
    for which in ("rail_usual", "rail_low", "rail_high"):
        weight = swings.get(which, 0.0)
        if which == "rail_usual" and p.rail.usual.source not in _READ:
            # A nominal rail is a name: nobody knows yet that it is DC, or AC.
            weight = max(weight, _if_the_other_kind(s), RAIL_DOUBT * float(s.usual[1]))
        if p.rail.supply.battery is not None and which != "rail_usual":
            # Fresh and spent are the chemistry's; nobody runs a cell down to read it.
            continue
        if weight:
            yield _Ask(weight, _read_rail(s, which, p))


def _may_be_ac(p: Position) -> bool:
    """A DC rail that is only thought to be one; a cell, a vehicle, a pin or a line is DC for sure."""
    return p.rail.supply.kind in ("regulated", "unregulated")


# Instants of a quarter of a sine.
_QUARTER = 16


def if_alternating(position: Position) -> Cases:
    """A steady rail that nobody has read, as the sine it may be: instants of a quarter of its cycle.

    They are solved with the position's other cases; the other half-cycle does not light the LED.
    """
    p = position
    if not _may_be_ac(p) or p.rail.usual.source in _READ:
        return Cases(np.zeros(0), np.zeros(0), np.zeros(0))
    share = np.sqrt(2) * np.sin((np.arange(_QUARTER) + 0.5) / _QUARTER * np.pi / 2)
    one = np.ones(_QUARTER)
    return Cases(
        p.rail.volts[1] * share, p.led.vf_typ * one, size(p).total_ohm * one, p.drop_v,
        p.rail.supply.source_ohm.value * one,
    )  # fmt: skip


def _if_the_other_kind(s: Solution) -> float:
    """Nobody has read the rail, so nobody knows that it is DC, or AC: what if it is the other."""
    p = s.position
    if _may_be_ac(p):
        return abs(float(s.further[-_QUARTER:].mean()) / 2 - float(s.usual[1]))
    if p.rail.supply.flow == "sine":
        return _moved(s, replace(p, rail=replace(p.rail, supply=Supply())))
    return 0.0


def _read_rail(s: Solution, which: str, p: Position) -> NextStep:
    rail, supply = p.rail, p.rail.supply
    figure = {"rail_usual": rail.usual, "rail_low": rail.low, "rail_high": rail.high}[which]
    level = supply.about.levels[{"rail_low": 0, "rail_usual": 1, "rail_high": 2}[which]]
    acts = {
        "rail_usual": ("Read the rail", "as it usually runs"),
        "rail_low": ("Read the rail at its lowest", "everything on that loads it"),
        "rail_high": ("Read the rail at its highest", "everything off that loads it, or charging"),
    }
    act, state = acts[which]
    if supply.kind not in ("regulated", "logic", "sense") and which != "rail_usual":
        state = level
    ac = supply.flow == "sine"
    lamp = rail.read_at == "lamp" or supply.kind in ("unregulated", "winding")
    points = "across the lamp's own contacts" if lamp else "feed, before the switch, to ground"
    if supply.kind == "sense":
        points = "across the open contact, lamp out"
    meanings: tuple[Meaning, ...] = ()
    if which == "rail_usual":
        meanings = _rail_meanings(p, show(figure.value, VOLT))
    elif which == "rail_high":
        most = show(figure.value, VOLT)
        meanings = (
            Meaning(f"at or under {most}", "the resistor holds as it is sized"),
            Meaning(f"over {most}", "the drive rises past what is shown: the resistor is sized anew"),
        )
    elif which == "rail_low":
        least = show(figure.value, VOLT)
        meanings = (
            Meaning(f"at or over {least}", "it stays as bright as shown"),
            Meaning(f"under {least}", "it dims there: fewer LEDs in series, or a current source"),
        )
    return NextStep(
        which, act, volt_range(figure.value * 1.2, ac=ac), points,
        f"lamp in and lit, {state}" if lamp else state,
        f"about {show(figure.value, VOLT)}", which,
        "The resistor is sized on it, and it is still pencil.", _caution(p), meanings,
    )  # fmt: skip


def _rail_meanings(p: Position, volts: str) -> tuple[Meaning, ...]:
    if p.rail.supply.battery is not None:
        return (
            Meaning(f"about {volts}", "half used"),
            Meaning("well under it", "spent, or a bad contact: read at the cells themselves"),
        )
    nothing = "it is off, or its fuse has gone"
    if _may_be_ac(p) or p.rail.supply.flow == "sine":
        other = "DC" if p.rail.supply.flow == "sine" else "AC"
        nothing = f"it is {other}: read the same points on {other} volts; or it is off"
    return (
        Meaning(f"about {volts}", "the rail is what it is taken for"),
        Meaning("next to nothing", nothing),
        Meaning(f"half of {volts}", "two lamps in series share it"),
    )


def _sag(s: Solution, _: dict[str, float]) -> Iterable[_Ask]:
    p = s.position
    supply = p.rail.supply
    if supply.kind not in ("unregulated", "winding"):
        return
    if supply.lift == 1.0:
        lifted = replace(supply, lift=1 / (1 - USUAL_SAG))
        weight = _moved(s, replace(p, rail=replace(p.rail, supply=lifted)))
        at = p.rail.usual.value
        yield _Ask(weight, NextStep(
            "source_open", "Read the contacts once with the lamp out", volt_range(at * 1.5, ac=supply.flow == "sine"),
            "across the lamp's own contacts", "lamp out, switch on",
            f"{show(at, VOLT)} to {show(at / (1 - 0.3), VOLT)}", "source_open",
            "With the loaded reading it gives the source resistance: the LED, a lighter load, will see "
            "more than the lamp did.", _caution(p),
            (Meaning(f"as loaded, {show(at, VOLT)}", "regulated, or the lamp was out both times"),
             Meaning("10 to 30 % more", "an ordinary winding or unregulated supply")),
        ))  # fmt: skip
    elif supply.source_ohm.value == 0 and supply.lift > 1.0:
        tight = replace(supply, lift=1.0)
        weight = _moved(s, replace(p, rail=replace(p.rail, supply=tight)))
        amps = p.lamp.amps if p.lamp else 0.1
        yield _Ask(weight, NextStep(
            "source_load", "Read the old lamp's current", amp_range(amps * 1.5), "in series with the old lamp",
            "lamp in and lit", f"about {show(amps, AMPERE)}" if p.lamp else "as marked on the lamp", "source_load",
            "It turns the sag into a resistance.", "Supply off while the clips go on.",
            (Meaning("as marked", "the lamp alone made the sag"),
             Meaning("twice as marked", "two lamps hang on these wires"),
             Meaning("nothing", "the lamp is open, or the meter's fuse has gone")),
        ))  # fmt: skip


def _from_pencil(s: Solution, swings: dict[str, float]) -> Iterable[_Ask]:
    p = s.position
    if "driver_drop" in swings and p.rail.read_at == "feed":
        yield _Ask(swings["driver_drop"], NextStep(
            "driver_drop", "Read what the driver keeps", volt_range(2.0), "across switch or transistor",
            "lamp in and lit", f"about {show(p.driver_drop.value, VOLT)}", "driver_drop",
            "0.1 to 0.3 V for a transistor, 0.7 to 1.1 V for a Darlington.", "",
            (Meaning("under 0.05 V", "a contact"), Meaning("0.1 to 0.3 V", "a transistor"),
             Meaning("0.7 to 1.1 V", "a Darlington"), Meaning("the whole rail", "it is off, or open")),
        ))  # fmt: skip
    if "led_vf" in swings:
        led = p.led
        yield _Ask(swings["led_vf"], NextStep(
            "led_vf", "Read this LED's forward voltage", volt_range(led.vf_high),
            "across the LED, on its clips", f"at about {show(p.target.value, AMPERE)}",
            f"{led.vf_low:g} to {led.vf_high:g}\u00a0V", "led_vf",
            "Its range moves the current more than anything else that is pencilled.",
            "LED light can hurt eyes at close range.",
            (Meaning(f"{led.vf_low:g} to {led.vf_high:g}\u00a0V", "this LED, with its own place in the range"),
             Meaning("far off", "another kind: pick it, or type its range"),
             Meaning("the whole supply", "it is turned round or open")),
        ))  # fmt: skip


def _lines(s: Solution, _: dict[str, float]) -> Iterable[_Ask]:
    p = s.position
    supply = p.rail.supply
    if supply.kind == "sense" and supply.trip is None:
        # All of the LED's current is in question: nothing says that the unit still switches.
        guess = max(s.most, 1e-3)
        yield _Ask(2 * s.most, NextStep(
            "trip", "Find the current at which the line trips", amp_range(guess), "across the contact",
            "contact open, the unit on; resistors from the largest down", "the last current it still ignores",
            "trip", "The equipment reads this line: past its trip current it takes the LED for a closed contact.",
            "A line is not a feed: never short it to another rail.",
            (Meaning("ignores it at every value", "the line trips far above the LED's current"),
             Meaning("switches at the first", "it needs a transistor from a real rail")),
        ))  # fmt: skip
    if supply.kind == "sense" and supply.source_ohm.value == 0:
        stiff = replace(supply, source_ohm=replace(supply.source_ohm, value=3300.0))
        weight = _moved(s, replace(p, rail=replace(p.rail, supply=stiff)))
        yield _Ask(weight, NextStep(
            "source_short", "Read the line's shorted current", amp_range(5e-3), "across the contact",
            "contact open: the meter closes it", "0.5 to 5\u00a0mA", "source_short",
            "Open volts over shorted amps is the line's source resistance.",
            "The unit will take it for a closed contact while you read.",
            (Meaning("a milliamp or so", "a line behind kilohms"),
             Meaning("tens of milliamps", "no sense line: a feed, and the LED may take more")),
        ))  # fmt: skip


def _cycle(s: Solution, _: dict[str, float]) -> Iterable[_Ask]:
    p = s.position
    supply = p.rail.supply
    if supply.alternates and p.chassis_negative and supply.grounded == "unknown":
        # A short circuit is not weighed against a drift: it comes first.
        yield _Ask(10 * max(float(s.usual[1]), 1e-9), NextStep(
            "grounded", "Find out whether the supply has a leg on the frame", "Ohms, continuity",
            "each leg of the supply to the frame", "supply off, capacitors discharged", "open on both legs",
            "grounded", "The LED's negative meets the frame: with a bridge one half-cycle would be a short.", "",
            (Meaning("one leg beeps", "grounded: half-wave with a common negative, or keep it all off the frame"),
             Meaning("both open", "floating: a bridge may stand on the frame")),
        ))  # fmt: skip
    if supply.kind == "stator" and supply.hertz_source is Source.ASSUMED and p.treated.reservoir:
        yield _Ask(0.2 * float(s.usual[1]), NextStep(
            "hertz", "Read the frequency as it runs", "Hz, on AC volts", "across the lamp's contacts",
            supply.about.levels[1], f"about {show(supply.hertz[1], HERTZ)}", "hertz",
            "The capacitor is sized for the slowest.", _caution(p),
            (Meaning("lower than taken", "a larger capacitor is needed"),
             Meaning("not steady", "the meter cannot follow it: take the engine's speed and pole pairs")),
        ))  # fmt: skip


_MAKERS: tuple[Callable[[Solution, dict[str, float]], Iterable[_Ask]], ...] = (
    _cycle, _lines, _rails, _sag, _from_pencil,
)  # fmt: skip
