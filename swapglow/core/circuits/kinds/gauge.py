"""A lamp whose brightness is the reading: light over what it shows, old and new, and two resistors that follow it."""

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import BranchStair, CircuitResult, Figure, Option, Picture, Row, Table, curve
from swapglow.core.circuits.toolkit import asks, values
from swapglow.core.circuits.toolkit.solved import States, solve_states
from swapglow.core.circuits.toolkit.stairs import stair
from swapglow.core.circuits.toolkit.wiring import Wiring
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.lamp import LIGHT_EXPONENT, Lamp
from swapglow.core.parts.led import Led
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.quantities import (
    AMPERE,
    OHM,
    VOLT,
    WATT,
    InputError,
    number_text,
    percent,
    percent_shown,
    show,
    shown,
)
from swapglow.core.values import preferred

FloatArray = NDArray[np.float64]

LOW = Detail("low", "The lowest it must tell", VOLT, "4.2V: flat, or no signal")
USUAL = Detail("usual", "What counts as good", VOLT, "6V")
HIGH = Detail("high", "The highest there is", VOLT, "6.6V; empty takes a tenth more")
LAMP_V, LAMP_A = asks.lamp_details("6V", "50mA")
COUNT = Detail("count", "LEDs in series", None, "1; empty takes one")
LED_OHM = asks.led_ohm("680R", "Resistor in series")
ACROSS = Detail("across", "Resistor across the LED", OHM, "470R; empty for none", none="absent")

_MOST = 8
_POINTS = 25
# A light that follows within so many octaves tells the same (side by side a fifth is seen, common practice).
FAITHFUL_OCTAVES = 0.5
# Under this share of its light at what counts as good a lamp is dark beside itself (ours: a fiftieth).
_DARK = 0.02


@dataclass(frozen=True)
class GaugeNet:
    """The LED and its resistors, and what they tell.

    Attributes:
        low, usual, high: volts as typed, V.
        old: the old lamp.
        led, count: one LED, and how many in series.
        ohm: in series.
        across: across the LEDs, Ω; None for none.
    """

    low: float
    usual: float
    high: float
    old: Lamp
    led: Led
    count: int
    ohm: float
    across: float | None

    @property
    def volts(self) -> FloatArray:
        """What it must tell, (points,)."""
        return np.linspace(self.low, self.high, _POINTS)

    @property
    def old_light(self) -> FloatArray:
        """The old lamp's light beside that at what counts as good, (points,)."""
        return np.asarray((self.volts / self.usual) ** LIGHT_EXPONENT)


def _wired(n: GaugeNet, ohm: FloatArray | float, across: FloatArray | float | None, volts: FloatArray) -> Wiring:
    w = Wiring("a lamp that is read by its brightness")
    w.source("Vin", "in", volts)
    w.resistor("Rseries", "in", "led", ohm)
    w.led("Dled", "led", "0", n.led, series=n.count)
    if across is not None:
        w.resistor("Racross", "led", "0", across)
    return w


@lru_cache(maxsize=256)
def solve(n: GaugeNet) -> States:
    """What it must tell, from the lowest to the highest, and what counts as good, in one batch."""
    volts = np.append(n.volts, n.usual)
    return solve_states(_wired(n, n.ohm, n.across, volts), *(f"At {show(float(v), VOLT)}" for v in volts))


def led_amps(n: GaugeNet) -> FloatArray:
    """Through the LED, A, (points + 1,): the last at what counts as good."""
    return np.maximum(solve(n).amps("Dled"), 0.0)


def led_share(n: GaugeNet) -> FloatArray:
    """The LED's light beside that at what counts as good, (points,)."""
    light = relative_light(n.led, led_amps(n))
    return np.asarray(light[:-1] / light[-1] if light[-1] > 0 else np.zeros(_POINTS))


def off_by(n: GaugeNet) -> float:
    """How far its light is from the old lamp's; what is dark counts as a fiftieth. RMS, octaves."""
    logs = np.log2(np.maximum(led_share(n), _DARK) / np.maximum(n.old_light, _DARK))
    return float(np.sqrt(np.mean(logs**2)))


def follower(n: GaugeNet) -> GaugeNet | None:
    """Two resistors of E12 with which the LED follows the old lamp best.

    The two are one source of V·b/(a + b) behind a ‖ b: a part of the volts pushes the knee up to where the light's
    slope is the lamp's (Thévenin). All pairs that keep the LED's current at what counts as good within a third of
    what it is now are tried.

    Args:
        n: LEDs; their resistors are replaced.

    Returns:
        The network; None where no pair gives that current.
    """
    e12 = np.array(preferred.values("E12", 10.0, 100e3))
    series, across = (v.ravel() for v in np.meshgrid(e12, e12, indexing="ij"))
    tried = solve_states(_wired(n, series, across, np.full(len(series), n.usual)), *[""] * len(series))
    at_usual = np.maximum(tried.amps("Dled"), 0.0)
    near = np.abs(np.log(np.maximum(at_usual, 1e-12) / float(led_amps(n)[-1]))) < np.log(4 / 3)
    nets = [replace(n, ohm=a, across=b) for a, b in zip(series[near].tolist(), across[near].tolist(), strict=True)]
    return min(nets, key=off_by, default=None)


class GaugeLamp(CircuitKind[GaugeNet]):
    """Battery checks, signal and tuning lamps: bright is good, dim is not."""

    id = "gauge"
    order = 19
    label = "Lamp read by its brightness"
    looks = (
        "A lamp that goes from dim to bright with a battery, a signal or a speed, and is judged by that. A filament "
        "fades long before its volts are gone; an LED stays bright until it is dark."
    )
    never = "Trust no battery by an LED alone: its knee says good until it is empty."
    parts = (
        ("Vin", "rail", "usual"),
        ("Rseries", "resistor", "ohm"),
        ("Dled", "LED", "led"),
        ("Racross", "across the LED", "across"),
    )
    details = (LOW, USUAL, HIGH, LAMP_V, LAMP_A, asks.led_detail(), COUNT, LED_OHM, ACROSS)

    def case(self, typed: Details) -> GaugeNet:
        """The network as typed."""
        low, usual, lamp_v, lamp_a, ohm = typed.needed(LOW, USUAL, LAMP_V, LAMP_A, LED_OHM)
        high = typed.value(HIGH.id) or usual * 1.1
        if not low < usual <= high:
            raise InputError(
                USUAL.id,
                f"{show(usual, VOLT)} must lie over the lowest, {show(low, VOLT)}, and not over "
                f"the highest, {show(high, VOLT)}.",
            )
        n = GaugeNet(
            low,
            usual,
            high,
            asks.rated_lamp(lamp_v, lamp_a),
            asks.read_led(typed),
            typed.count(COUNT.id, _MOST),
            ohm,
            typed.value(ACROSS.id),
        )
        if float(led_amps(n)[-1]) < 1e-6:
            raise InputError(COUNT.id, f"{show(usual, VOLT)} do not light {n.count} of {n.led.vf_typ:g} V in series.")
        return n

    def states(self, case: GaugeNet) -> tuple[States, ...]:
        """All that it must tell."""
        return (solve(case),)

    def options(self, now: GaugeNet, typed: Details, chosen: str) -> list[Option]:
        """Two resistors that follow the old lamp, where they come closer than those there are."""
        better, was = follower(now), off_by(now)
        if better is None or better.across is None or off_by(better) >= was:
            return []
        drop = better.high - float(solve(better).volts("led")[-2])
        watts, fit = drop**2 / better.ohm, values.to_fit(drop**2 / better.ohm, drop)
        what = (
            f"Off by {number_text(off_by(better))} octaves where it is {number_text(was)} now; {show(watts, WATT)} in "
            f"the series one at the highest{f', {fit}' if fit else ''}; {show(drop / better.ohm, AMPERE)} from what "
            "feeds it."
        )
        return [
            Option(
                "follow",
                f"{show(better.ohm, OHM)} in series and {show(better.across, OHM)} across",
                what,
                percent_shown(float(led_share(better)[0]), "light at the lowest, beside that at what counts as good"),
                "light_ratio",
                advised=was > FAITHFUL_OCTAVES,
                changes={LED_OHM.id: show(better.ohm, OHM), ACROSS.id: show(better.across, OHM)},
            )
        ]

    def report(self, job: Job[GaugeNet]) -> CircuitResult:
        """Light over what it tells, old and new, and the two resistors that follow best."""
        n = job.now
        origin = "beside its own at what counts as good"
        old = percent_shown(float(n.old_light[0]), f"light ∝ V^3.5, {origin}")
        tells = "it tells as it did" if off_by(n) <= FAITHFUL_OCTAVES else "it does not tell as it did"
        return CircuitResult(
            line=f"At {show(n.low, VOLT)} the old lamp has {percent(n.old_light[0])} of its light at "
            f"{show(n.usual, VOLT)}, the LED {percent(led_share(n)[0])}: {tells}.",
            figures=(
                Figure("old-low", "Old lamp at the lowest", old),
                job.pair(
                    "led-low", "LED at the lowest", lambda x: percent_shown(float(led_share(x)[0]), f"solved, {origin}")
                ),
                Figure(
                    "old-amps",
                    "Old lamp's current at what counts as good",
                    shown(n.old.amps_at(n.usual), AMPERE, "I ∝ V^0.55"),
                ),
                job.pair(
                    "led-high",
                    "In the LED at the highest",
                    lambda x: shown(float(led_amps(x)[-2]), AMPERE, "solved at the highest"),
                ),
            ),
            pictures=(_picture(job),),
            stairs=_stairs(job.then),
            tables=(_table(job),),
            findings=tuple(_findings(n)),
            spice=solve(job.then).deck(_POINTS),
        )


KIND = GaugeLamp()


def _picture(job: Job[GaugeNet]) -> Picture:
    volts = job.now.volts
    curves = [
        curve("Old lamp", "old", volts, 100 * job.now.old_light),
        curve("LED", "new", volts, 100 * led_share(job.now)),
    ]
    if job.after is not None:
        curves.append(curve("LED with the two resistors", "after", volts, 100 * led_share(job.after)))
    return Picture("light", "Light over what it tells", "V", "% of its light when good", tuple(curves))


def _stairs(n: GaugeNet) -> tuple[BranchStair, ...]:
    """What counts as good: the old lamp has all of it, the LED what its resistor leaves."""
    at_led, amps = float(solve(n).volts("led")[-1]), float(led_amps(n)[-1])
    origin = "solved at what counts as good"
    return (
        stair("old", "Old lamp", (("lamp", n.usual),), n.old.amps_at(n.usual), "I ∝ V^0.55", origin),
        stair("led", "LED", (("resistor", n.usual - at_led), ("LED", at_led)), amps, "in the LED", origin),
    )


def _table(job: Job[GaugeNet]) -> Table:
    n = job.now
    rows = []
    for id_, label, k, volts in (
        ("low", "Lowest", 0, n.low),
        ("good", "Good", -1, n.usual),
        ("high", "Highest", -2, n.high),
    ):
        cells = [percent_shown(float((volts / n.usual) ** LIGHT_EXPONENT), "light ∝ V^3.5")]
        cells += [percent_shown(float(np.append(led_share(x), 1.0)[k]), "solved") for x in job.cases]
        amps = " and ".join(show(float(led_amps(x)[k]), AMPERE) for x in job.cases)
        rows.append(Row(id_, f"{label}, {show(volts, VOLT)}", tuple(cells), f"{amps} in the LED"))
    heads = ("Old lamp", "LED", "Afterwards")[: 1 + len(job.cases)]
    return Table("light", "Light, of what it is when good", heads, tuple(rows))


def _findings(n: GaugeNet) -> list[Finding]:
    out = []
    miss, share = off_by(n), led_share(n)
    if miss > FAITHFUL_OCTAVES:
        out.append(
            Finding(
                "misread",
                "mind",
                f"Its light is off the old lamp's by {number_text(miss)} octaves: who knew the lamp misreads it.",
                number_text(miss),
                number_text(FAITHFUL_OCTAVES),
                f"Over {FAITHFUL_OCTAVES:g} (ours). Two resistors that follow, or a meter beside it.",
            )
        )
    dark = n.volts[share < _DARK]
    if len(dark) and n.old_light[len(dark) - 1] >= _DARK:
        out.append(
            Finding(
                "dark-early",
                "mind",
                f"Under {show(float(dark[-1]), VOLT)} the LED is dark where the old lamp still glowed.",
                why="Its knee: fewer LEDs in series, or another colour.",
            )
        )
    return out
