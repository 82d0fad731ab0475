"""The measuring plan: which reading to take next, by what is lost without it, then by what it does to the current.

Each reading still owed is a candidate with a stake, what dies if the figure is wrong, and a weight in amps: how far the
usual current moves between the ends of what is not known, solved by the engine. The dearest comes first, of equally
dear ones the heaviest; one that costs nothing and moves the current by less than a twentieth is not worth a reading of
its own. What a supply asks for beyond its levels its kind says itself.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace

import numpy as np

from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.solution import Solution, current
from swapglow.core.design.position import Position
from swapglow.core.kinds.step import Meaning, NextStep
from swapglow.core.network.cases import Block, Cases, places
from swapglow.core.parts.meter import volt_range
from swapglow.core.quantities import AMPERE, VOLT, Source, show
from swapglow.core.supplies import plain_supply
from swapglow.core.supplies.kind import Circumstances, Owed
from swapglow.core.supplies.waveform import Waveform
from swapglow.core.uncertainty.stakes import NO_STAKE, Stake, stake_of
from swapglow.core.uncertainty.uncertainty import RAIL_SHARE, Uncertainty

# A pencilled figure that moves the current less than this is not worth a reading of its own.
WORTH_READING = 0.05
# The name of the sine's instants among a solution's further blocks.
BLOCK = "if_alternating"

_READ = (Source.MEASURED, Source.COMPUTED)
# Instants of a quarter of a sine.
_QUARTER = 16


@dataclass(frozen=True)
class _Ask:
    weight: float
    step: NextStep
    stake: Stake = NO_STAKE


def plan(s: Solution, uncertain: Uncertainty) -> tuple[NextStep, ...]:
    """Readings still worth taking, the weightiest first; none for what is mains-connected.

    Args:
        s: solved with :func:`if_alternating` as its further block :data:`BLOCK`.
        uncertain: what the result rests on.

    Returns:
        Steps in order.

    Raises:
        NotConverged: a case has no answer.
    """
    if s.position.live_danger:
        return ()
    swings = {i.id: i.swing_a for i in uncertain.items if i.source.is_assumed}
    stakes = {i.id: i.stake for i in uncertain.items}
    asks = [*_owed(s), *(_staked(a, stakes) for a in (*_rails(s, swings), *_from_assumed(s, swings)))]
    floor = WORTH_READING * max(float(s.usual[1]), 1e-9)
    owed = sorted((a for a in asks if a.weight > floor or a.stake.rank > 0), key=lambda a: (-a.stake.rank, -a.weight))
    return tuple(_said(a) for a in owed)


def _staked(ask: _Ask, stakes: Mapping[str, Stake]) -> _Ask:
    """A reading with what its figure costs."""
    return replace(ask, stake=stakes.get(ask.step.id, NO_STAKE))


def _said(ask: _Ask) -> NextStep:
    """A step that says what is lost without it."""
    if not ask.stake.line:
        return ask.step
    return replace(ask.step, why=f"{ask.step.why} If it is wrong it may cost {ask.stake.line}.")


def _owed(s: Solution) -> Iterable[_Ask]:
    """What the supply's own kind holds worth reading."""
    p = s.position
    reservoir = p.rail.supply.alternates and p.rectification.reservoir
    about = Circumstances(p.rail, p.lamp, s.string_current_max, p.on_frame, p.by_frame, reservoir)
    for owed in p.rail.supply.kind.owed(about):
        weight = _weight(s, owed)
        if owed.otherwise is not None:
            stake = stake_of(s, float(s.usual[1]) + weight, s.position.rail.volts[1])
        else:
            stake = Stake(owed.loss, owed.costs)
        yield _Ask(weight, owed.step, stake)


def _weight(s: Solution, owed: Owed) -> float:
    if owed.otherwise is not None:
        rail = replace(s.position.rail, supply=owed.otherwise)
        return _moved(s, replace(s.position, rail=rail))
    return owed.share_of_usual * max(float(s.usual[1]), 1e-9) + owed.share_of_most * s.string_current_max


def _moved(s: Solution, other: Position) -> float:
    """How far the usual current moves if the position is really ``other``."""
    p = other
    case = Cases(np.array([p.rail.volts[1]]), np.array([p.led.vf_typ]), np.array([s.sizing.total_ohm]), p.drop_v)
    return abs(float(current(p, case)[0]) - float(s.usual[1]))


def _rails(s: Solution, swings: dict[str, float]) -> Iterable[_Ask]:
    p = s.position
    for which in ("rail_usual", "rail_low", "rail_high"):
        weight = swings.get(which, 0.0)
        if which == "rail_usual" and p.rail.usual.source not in _READ:
            # A nominal rail is a name: nobody knows yet that it is DC, or AC.
            weight = max(weight, _if_the_other(s), RAIL_SHARE * float(s.usual[1]))
        if which != "rail_usual" and not p.rail.supply.kind.ends_worth_reading:
            continue
        if weight:
            yield _Ask(weight, _read_rail(which, p))


def if_alternating(position: Position) -> Block:
    """A steady rail that nobody has read, as the sine it may be: instants of a quarter of its cycle.

    They are solved with the position's other cases; the other half-cycle does not light the LED. Empty
    where the rail was read, or is what it is for sure.
    """
    p = position
    count = _QUARTER if p.rail.supply.kind.may_be_other and p.rail.usual.source not in _READ else 0
    share = np.sqrt(2) * np.sin((np.arange(count) + 0.5) / _QUARTER * np.pi / 2)
    one = np.ones(count)
    return Block({"instant": places(count)}, p.rail.volts[1] * share, p.led.vf_typ * one, size(p).total_ohm * one)


def _if_the_other(s: Solution) -> float:
    """Nobody has read the rail, so nobody knows that it is DC, or AC: what if it is the other."""
    p = s.position
    if p.rail.supply.kind.may_be_other:
        return abs(float(s.further[BLOCK].mean()) / 2 - float(s.usual[1]))
    if p.rail.supply.waveform is Waveform.SINE:
        return _moved(s, replace(p, rail=replace(p.rail, supply=plain_supply())))
    return 0.0


_ACTS = {
    "rail_usual": ("Read the rail", "as it usually runs"),
    "rail_low": ("Read the rail at its lowest", "everything on that loads it"),
    "rail_high": ("Read the rail at its highest", "everything off that loads it, or charging"),
}


def _read_rail(which: str, p: Position) -> NextStep:
    rail, kind = p.rail, p.rail.supply.kind
    figure = {"rail_usual": rail.usual, "rail_low": rail.low, "rail_high": rail.high}[which]
    level = kind.levels[{"rail_low": 0, "rail_usual": 1, "rail_high": 2}[which]]
    act, state = _ACTS[which]
    if kind.level_states and which != "rail_usual":
        state = level
    ac = kind.waveform is Waveform.SINE
    lamp = rail.read_at == "lamp" or kind.lamp_points
    points = "across the lamp's own contacts" if lamp else kind.rail_points()
    return NextStep(
        which,
        act,
        volt_range(figure.value * 1.2, ac=ac),
        points,
        f"lamp in and lit, {state}" if lamp else state,
        f"about {show(figure.value, VOLT)}",
        which,
        "The resistor is sized on it, and it is still pencil.",
        kind.caution,
        _meanings(which, p, show(figure.value, VOLT)),
        f"{figure.value:.3g}V",
    )


def _meanings(which: str, p: Position, volts: str) -> tuple[Meaning, ...]:
    if which == "rail_usual":
        return p.rail.supply.kind.usual_meanings(volts)
    if which == "rail_high":
        return (
            Meaning(f"at or under {volts}", "the resistor holds as it is sized"),
            Meaning(f"over {volts}", "the drive rises past what is shown: the resistor is sized anew"),
        )
    return (
        Meaning(f"at or over {volts}", "it stays as bright as shown"),
        Meaning(f"under {volts}", "it dims there: fewer LEDs in series, or a current source"),
    )


def _from_assumed(s: Solution, swings: dict[str, float]) -> Iterable[_Ask]:
    p = s.position
    if "driver_drop" in swings and p.rail.read_at == "feed":
        yield _Ask(
            swings["driver_drop"],
            NextStep(
                "driver_drop",
                "Read what the driver keeps",
                volt_range(2.0),
                "across switch or transistor",
                "lamp in and lit",
                f"about {show(p.driver.drop.value, VOLT)}",
                "driver_drop",
                "0.1 to 0.3 V for a transistor, 0.7 to 1.1 V for a Darlington.",
                "",
                (
                    Meaning("under 0.05 V", "a contact"),
                    Meaning("0.1 to 0.3 V", "a transistor"),
                    Meaning("0.7 to 1.1 V", "a Darlington"),
                    Meaning("the whole rail", "it is off, or open"),
                ),
                "0.15V",
            ),
        )
    if "led_vf" in swings:
        led = p.led
        yield _Ask(
            swings["led_vf"],
            NextStep(
                "led_vf",
                "Read this LED's forward voltage",
                volt_range(led.vf_high),
                "across the LED, on its clips",
                f"at about {show(p.target.value, AMPERE)}",
                f"{led.vf_low:g} to {led.vf_high:g}\u00a0V",
                "led_vf",
                "Its range moves the current more than anything else that is pencilled.",
                "LED light can hurt eyes at close range.",
                (
                    Meaning(f"{led.vf_low:g} to {led.vf_high:g}\u00a0V", "this LED, with its own place in the range"),
                    Meaning("far off", "another kind: pick it, or type its range"),
                    Meaning("the whole supply", "it is turned round or open"),
                ),
                "2.85V",
            ),
        )
