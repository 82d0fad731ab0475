"""A clip for the blind: one LED, one resistor and one diode that survive every supply a wire may still have."""

import math

import numpy as np
from numpy.typing import NDArray

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Circuit, Dc, Diode, Param, Resistor, VoltageSource
from swapglow.core.engine.operating_point import operating_point
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.worked import LEAST_A, Figure, Judged, Row, Table, Worked
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.measurement.clip_first import EXTRA_LOW_V, UNLOADED, USUAL_V, clip_ohm, crest_of
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.led_model import led_model
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.parts.resistor import rating_text, rating_to_fit
from swapglow.core.photometry.light_law import candela_at
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.quantities import AMPERE, OHM, VOLT, WATT, InputError, show, shown

FloatArray = NDArray[np.float64]

MOST = Detail("most", "The most that could be there", VOLT, "30V; empty takes 30 V, DC or AC")
LED = led_detail("LED on the clip")

# What wires of equipment mostly carry, V.
_USUALLY = (1.5, 3.0, 5.0, 6.3, 9.0, 12.0, 15.0, 24.0, 30.0, 48.0)
_PHASES = 400


def circuit(ohm: float, led: Led, volts: Param) -> Circuit:
    """The clip on a wire.

    Args:
        ohm: its resistor.
        led: its LED.
        volts: of the wire against the other, either way round.

    Returns:
        The circuit; the LED's current is that of "Vled".
    """
    return Circuit((
        VoltageSource("Vwire", "wire", "0", Dc(volts)), Resistor("Rclip", "wire", "top", ohm),
        VoltageSource("Vled", "top", "led", Dc(0.0)), Diode("Dled", "led", "0", led_model(led)),
        Diode("Dguard", "0", "top", rectifier("signal").chain(1, REFERENCE_C)),
    ), celsius=REFERENCE_C, title="a clip for the blind")  # fmt: skip


def led_amps(ohm: float, led: Led, volts: FloatArray) -> tuple[FloatArray, FloatArray]:
    """What the LED carries, and what it stands in reverse.

    Args:
        ohm: the clip's resistor.
        led: its LED.
        volts: of the wire, (samples,).

    Returns:
        A, never less than nothing, and V, (samples,) each.

    Raises:
        NotConverged: it has no answer.
    """
    point = operating_point(circuit(ohm, led, volts)).require()
    return np.maximum(point.current("Vled"), 0.0), np.maximum(-point.across("Dled"), 0.0)


class BlindClip(FittedKind):
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
    details = (MOST, LED)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """The parts that survive all that could be there, and what each glow rules out."""
        most, led = typed.value(MOST.id) or USUAL_V, catalogue()[typed.choice(LED.id)]
        if most > EXTRA_LOW_V:
            raise InputError(
                MOST.id, f"{show(most, VOLT)} may be past extra-low voltage (50 V AC): no clip goes on it."
            )
        if most <= led.vf_high:
            raise InputError(
                MOST.id,
                f"{show(most, VOLT)} light no LED of {led.vf_high:g} V: type the most there could be.",
            )
        peak = crest_of(most)
        ohm = clip_ohm(led, peak)
        amps = float(led_amps(ohm, led, np.array([peak]))[0][0])
        watts = (most * UNLOADED) ** 2 / ohm
        rating = rating_to_fit(watts, peak)
        body = "" if rating is None else f", {rating_text(rating)}"
        return Worked(
            line=f"{show(ohm, OHM)}{body}, {led.label}, and a signal diode turned round across the LED.",
            figures=(
                Figure("At the very most", shown(amps, AMPERE, f"{show(peak, VOLT)}: an unloaded winding's crest")),
                Figure("Heat in the resistor", shown(watts, WATT, "the most that could be there, squared, over it")),
            ),
            tables=(_glows(ohm, led, most),),
            judged=_rules_out(ohm, led, most),
            spice=write_deck(circuit(ohm, led, peak)),
        )  # fmt: skip


KIND = BlindClip()


def _over_a_cycle(ohm: float, led: Led, volts: float) -> float:
    """The LED's mean current on AC, A: nothing in the clip remembers, so that each moment is a level of its own."""
    phases = (np.arange(_PHASES) + 0.5) * 2 * np.pi / _PHASES
    return float(led_amps(ohm, led, volts * math.sqrt(2) * np.sin(phases))[0].mean())


def _glows(ohm: float, led: Led, most: float) -> Table:
    rows = []
    for volts in (v for v in _USUALLY if v <= most * (1 + 1e-9)):
        steady = float(led_amps(ohm, led, np.array([volts]))[0][0])
        mean = _over_a_cycle(ohm, led, volts)
        seen = [WORDS[visibility(candela_at(led, a))] for a in (steady, mean)]
        cells = tuple(
            shown(a if a > LEAST_A else 0.0, AMPERE, "solved at this level") for a in (steady, mean)
        )
        rows.append(
            Row(show(volts, VOLT), cells, f"DC: {seen[0]}; AC: {seen[1]}, a broken streak when waved")
        )
    return Table("What it shows", ("DC, right way round", "AC, on average"), tuple(rows))


def _least(ohm: float, led: Led, most: float) -> float:
    """The least DC at which it is plain in a lit room, V, by halving."""
    low, high = 0.0, most
    for _ in range(40):
        middle = (low + high) / 2
        amps = float(led_amps(ohm, led, np.array([middle]))[0][0])
        low, high = (low, middle) if visibility(candela_at(led, amps)) == "lit_room" else (middle, high)
    return high


def _rules_out(ohm: float, led: Led, most: float) -> tuple[Judged, ...]:
    plain = show(_least(ohm, led, most), VOLT, 2)
    turned = float(led_amps(ohm, led, np.array([-crest_of(most)]))[1][0])
    said = (
        (f"Bright and steady: DC, this way round, over some {plain}.",
         "A streak that is whole when the clip is waved rules out AC and pulses."),
        ("A broken streak: AC, or pulses.", "Then read it on the AC range; on a wire that pulses count them."),
        (f"Dim: this way round, about {plain}, or behind kilohms.",
         "A second clip beside the first makes a wire behind kilohms dimmer still."),
        (f"Dark: nothing there, under {plain}, or turned round.",
         "Turn the clip; then clip its other end to another ground: paint is none."),
        (f"Turned round the LED stands {show(turned, VOLT, 2)}: its diode carries the rest.",
         "Without that diode it would stand the whole crest, and five volts are what it is for."),
    )  # fmt: skip
    return tuple(Judged("note", message, why) for message, why in said)
