"""A clip for the blind: one LED, one resistor and one diode that survive every supply a wire may still have."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import LEAST_A, CircuitResult, Figure, Row, Table
from swapglow.core.circuits.toolkit import asks, values
from swapglow.core.circuits.toolkit.solved import States, solve_states
from swapglow.core.circuits.toolkit.wiring import Wiring
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.measurement.clip_first import EXTRA_LOW_V, UNLOADED, USUAL_V, clip_ohm, crest_of
from swapglow.core.parts.led import Led
from swapglow.core.photometry.light_law import candela_at
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.quantities import AMPERE, OHM, VOLT, WATT, InputError, show, shown

FloatArray = NDArray[np.float64]

MOST = Detail("most", "The most that could be there", VOLT, "30V; empty takes 30 V, DC or AC")

# What wires of equipment mostly carry, V.
_USUALLY = (1.5, 3.0, 5.0, 6.3, 9.0, 12.0, 15.0, 24.0, 30.0, 48.0)
_PHASES = 400


@dataclass(frozen=True)
class Clip:
    """The clip: the most that could be there, V, its resistor, Ω, and its LED."""

    most: float
    ohm: float
    led: Led

    @property
    def peak(self) -> float:
        """The highest instant of an unloaded winding of that voltage."""
        return crest_of(self.most)


def solve(c: Clip, volts: FloatArray) -> States:
    """The clip on a wire at these voltages, either way round, in one batch.

    Args:
        c: the clip.
        volts: of the wire, either way round, V, (samples,).

    Returns:
        The states, one a voltage.
    """
    w = Wiring("a clip for the blind")
    w.source("Vwire", "wire", volts)
    w.resistor("Rclip", "wire", "top", c.ohm)
    w.led("Dled", "top", "0", c.led)
    w.diode("Dguard", "0", "top", "signal")
    return solve_states(w, *(f"At {show(float(v), VOLT)}" for v in volts))


def led_amps(c: Clip, volts: FloatArray) -> FloatArray:
    """Through the LED, A, never less than nothing, (samples,).

    Args:
        c: the clip.
        volts: of the wire, V, (samples,).

    Returns:
        A, (samples,).
    """
    return np.maximum(solve(c, volts).amps("Dled"), 0.0)


class BlindClip(CircuitKind[Clip]):
    """A wire of which nothing is known, and no meter at hand, or one that pulses too fast for it."""

    id = "blind_clip"
    order = 22
    label = "A clip for an unknown wire"
    looks = (
        "Before anything is read: a wire that may be DC or AC, either way round, steady or pulsing. One resistor, one "
        "LED and a diode turned round across it, on two clips."
    )
    never = (
        "Only where the equipment is known to hold no more than extra-low voltage: no plug in the wall, no flyback, no "
        "ignition, no charged capacitor. What is not known to be so is for someone qualified."
    )
    parts = (("Vwire", "the wire", "most"), ("Rclip", "resistor", ""), ("Dled", "LED", "led"), ("Dguard", "diode", ""))
    details = (MOST, asks.led_detail("LED on the clip"))

    def case(self, typed: Details) -> Clip:
        """The clip for what could be there."""
        most, led = typed.value(MOST.id) or USUAL_V, asks.read_led(typed)
        if most > EXTRA_LOW_V:
            raise InputError(
                MOST.id, f"{show(most, VOLT)} may be past extra-low voltage (50 V AC): no clip goes on it."
            )
        if most <= led.vf_high:
            raise InputError(
                MOST.id, f"{show(most, VOLT)} light no LED of {led.vf_high:g} V: type the most there could be."
            )
        return Clip(most, clip_ohm(led, crest_of(most)), led)

    def states(self, case: Clip) -> tuple[States, ...]:
        """The very most that could be there, either way round."""
        return (solve(case, np.array([case.peak, -case.peak])),)

    def report(self, job: Job[Clip]) -> CircuitResult:
        """The parts that survive all that could be there, and what each glow rules out."""
        c = job.now
        watts = (c.most * UNLOADED) ** 2 / c.ohm
        fit = values.to_fit(watts, c.peak)
        worst = self.states(c)[0]
        return CircuitResult(
            line=f"{show(c.ohm, OHM)}{f', {fit}' if fit else ''}, {c.led.label}, and a signal diode turned round "
            "across the LED.",
            figures=(
                Figure(
                    "most",
                    "At the very most",
                    shown(
                        float(led_amps(c, np.array([c.peak]))[0]),
                        AMPERE,
                        f"{show(c.peak, VOLT)}: an unloaded winding's crest",
                    ),
                ),
                Figure(
                    "heat", "Heat in the resistor", shown(watts, WATT, "the most that could be there, squared, over it")
                ),
            ),
            tables=(_glows(c),),
            findings=_rules_out(c, float(worst.load("Dled").reverse_v[1])),
            spice=worst.deck(),
        )


KIND = BlindClip()


def _glows(c: Clip) -> Table:
    """Nothing in the clip remembers, so that on AC each moment is a level of its own."""
    phases = np.sin((np.arange(_PHASES) + 0.5) * 2 * np.pi / _PHASES)
    rows = []
    for volts in (v for v in _USUALLY if v <= c.most * (1 + 1e-9)):
        amps = led_amps(c, np.append(volts * np.sqrt(2) * phases, volts))
        both = (float(amps[-1]), float(amps[:-1].mean()))
        seen = [WORDS[visibility(candela_at(c.led, a))] for a in both]
        cells = tuple(shown(a if a > LEAST_A else 0.0, AMPERE, "solved at this level") for a in both)
        words = f"DC: {seen[0]}; AC: {seen[1]}, a broken streak when waved"
        rows.append(Row(f"{volts:g}V", show(volts, VOLT), cells, words))
    return Table("glows", "What it shows", ("DC, right way round", "AC, on average"), tuple(rows))


def _least(c: Clip) -> float:
    """The least DC at which it is plain in a lit room, V, by halving."""
    low, high = 0.0, c.most
    for _ in range(40):
        middle = (low + high) / 2
        amps = float(led_amps(c, np.array([middle]))[0])
        low, high = (low, middle) if visibility(candela_at(c.led, amps)) == "lit_room" else (middle, high)
    return high


def _rules_out(c: Clip, turned: float) -> tuple[Finding, ...]:
    plain = show(_least(c), VOLT, 2)
    said = (
        (
            "steady",
            f"Bright and steady: DC, this way round, over some {plain}.",
            "A streak that is whole when the clip is waved rules out AC and pulses.",
        ),
        (
            "broken",
            "A broken streak: AC, or pulses.",
            "Then read it on the AC range; on a wire that pulses count them.",
        ),
        (
            "dim",
            f"Dim: this way round, about {plain}, or behind kilohms.",
            "A second clip beside the first makes a wire behind kilohms dimmer still.",
        ),
        (
            "dark",
            f"Dark: nothing there, under {plain}, or turned round.",
            "Turn the clip; then clip its other end to another ground: paint is none.",
        ),
        (
            "turned",
            f"Turned round the LED stands {show(turned, VOLT, 2)}: its diode carries the rest.",
            "Without that diode it would stand the whole crest, and five volts are what it is for.",
        ),
    )
    return tuple(Finding(id_, "note", message, why=why) for id_, message, why in said)
