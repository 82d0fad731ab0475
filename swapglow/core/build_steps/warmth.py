"""What each part should feel like after half an hour: its temperature from its heat and its body."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import Solution
from swapglow.core.engine.netlist import nodes_of
from swapglow.core.evidence.expected import Diagnosis, band
from swapglow.core.evidence.metered import as_shown
from swapglow.core.kinds.step import NextStep
from swapglow.core.measurement.leads import LEADS
from swapglow.core.measurement.reading_after import ReadingAfter, ReadingKind
from swapglow.core.network.solve import resistor_amps, string_amps
from swapglow.core.parts.meter import amp_range, volt_range
from swapglow.core.parts.resistor import body_celsius
from swapglow.core.quantities import CELSIUS, Shown, shown
from swapglow.core.quantities.part_heat import part_shown

FloatArray = NDArray[np.float64]

WarmPart = Literal["resistor", "led", "regulator"]
READ_AS: dict[WarmPart, ReadingKind] = {
    "resistor": "resistor_celsius",
    "led": "led_celsius",
    "regulator": "regulator_celsius",
}
LABELS: dict[WarmPart, str] = {"resistor": "Each resistor", "led": "Each LED", "regulator": "The regulator"}
# A body's rise is known no better than this, either way; still air, leads and neighbours differ (common practice).
DOUBT = 0.35
# What a thermocouple or the air's own figure may be off.
ALLOWED_K = 4.0
# An LED's junction over the air, K/W: leaded parts on wires, and chips on a small board (data sheets, from memory).
LED_K_W, CHIP_K_W = 300.0, 400.0
# Up to these, in order, a finger says so (common practice; from 60 °C on skin is hurt within seconds).
FINGER = (
    (35.0, "no warmer than the hand"),
    (45.0, "warm"),
    (52.0, "hot, and can be held"),
    (60.0, "held for a few seconds"),
)
HOTTER = (
    "Hotter: it carries more than it should, sits in still air, or is a smaller part than it was sized for. Read the "
    "volts across it."
)
COOLER = "Cooler: it carries less than it should, or has not been lit for half an hour. Read the current."
TOO_HOT = "too hot to touch: use a thermocouple, never a finger"


@dataclass(frozen=True)
class Warmth:
    """A part after half an hour.

    Attributes:
        part, label: which.
        usual, low, high: its temperature, with the band a reading should lie in.
        finger: what a finger should find.
        hotter, cooler: what it means when it does not.
        reading: the kind of reading a thermocouple takes of it.
    """

    part: WarmPart
    label: str
    usual: Shown
    low: Shown
    high: Shown
    finger: str
    hotter: str
    cooler: str
    reading: ReadingKind


def finger(celsius: float) -> str:
    """What a finger finds at a temperature."""
    return next((words for most, words in FINGER if celsius < most), TOO_HOT)


def warmth(s: Solution) -> tuple[Warmth, ...]:
    """Every part's temperature after half an hour at the usual rail.

    Args:
        s: the solved position.

    Returns:
        A row for each part that has a body to feel.
    """
    return tuple(_row(s, part, rise) for part, rise in _rises(s))


def feel(warm: Sequence[Warmth], readings: Sequence[ReadingAfter]) -> tuple[Diagnosis, ...]:
    """Temperatures that were read, against what each part should have.

    Args:
        warm: every part's temperature.
        readings: those taken after the swap.

    Returns:
        Each judged, in their order; of a part that is no longer there none.
    """
    rows = {w.reading: w for w in warm}
    return tuple(_felt(rows[r.kind], r) for r in readings if r.kind in rows)


def _felt(w: Warmth, reading: ReadingAfter) -> Diagnosis:
    agrees = w.low.value <= reading.value <= w.high.value
    between = f"expected {w.usual.text}, {w.low.text} to {w.high.text}."
    line = f"{reading.text} agrees: {between}"
    if not agrees:
        over = reading.value > w.high.value
        line = f"{reading.text} is {'over' if over else 'under'} the {between} {w.hotter if over else w.cooler}"
    read = shown(reading.value, CELSIUS, reading.note or "read at the bench")
    return Diagnosis(reading.id, reading.kind, reading.state, read, w.usual, w.low, w.high, agrees, line, "")


def chase_heat(s: Solution, felt: Sequence[Diagnosis]) -> NextStep | None:
    """What to read about a part that is warmer or colder than it should be.

    Args:
        s: the solved position.
        felt: its temperatures, judged, the newest last.

    Returns:
        The step; None where the newest of each part agrees.
    """
    newest = {d.kind: d for d in felt}
    off = [d for d in felt if not d.agrees and newest[d.kind] is d]
    if not off:
        return None
    hotter = off[-1].reading.value > off[-1].high.value
    across = hotter and s.position.module is None and not s.position.rail.supply.alternates
    kind: ReadingKind = "resistor_volts" if across else "current"
    low, usual, high = band(s, ReadingAfter("", kind, 0.0))
    expect, least, most = (as_shown(v, kind, "").text for v in (usual, low, high))
    return NextStep(
        "chase-heat",
        f"Find out why it is {'hotter' if hotter else 'cooler'} than it should be",
        volt_range(high * 1.2) if across else amp_range(high * 1.2),
        LEADS[kind].line,
        "warm, as it was felt",
        f"{expect} ({least} to {most})",
        kind,
        off[-1].line,
        "Too hot to touch stays hot for minutes.",
    )


def _row(s: Solution, part: WarmPart, rise: tuple[float, float, float, str]) -> Warmth:
    least, usual, most, origin = rise
    air = s.position.celsius
    low, high = air + least * (1 - DOUBT) - ALLOWED_K, air + most * (1 + DOUBT) + ALLOWED_K
    ends = f"{origin}; lowest to highest rail, the rise within {DOUBT:.0%}, and {ALLOWED_K:g} K of thermometer"
    return Warmth(
        part,
        LABELS[part],
        part_shown(air + usual, origin),
        part_shown(low, ends),
        part_shown(high, ends),
        finger(air + usual),
        HOTTER,
        COOLER,
        READ_AS[part],
    )


def _rises(s: Solution) -> Iterable[tuple[WarmPart, tuple[float, float, float, str]]]:
    """Kelvin over the air at the low, usual and high rail, and how they were found."""
    p = s.position
    through, leds = _amps(s)
    if not p.bare:
        watts = through**2 * s.sizing.total_ohm / s.sizing.parts
        rating = p.rating_w or s.rating_to_fit_w
        if rating is not None:
            low, usual, high = (body_celsius(float(w), rating, 0.0) for w in watts)
            yield "resistor", (low, usual, high, f"its heat in a {rating:g} W body, 85 K over its rating")
    if p.module is None:
        k_w = CHIP_K_W if "chip" in p.led.id else LED_K_W
        volts = p.led.junction(p.led.vf_typ, p.celsius).volts(np.maximum(leds, 1e-9))
        low, usual, high = (float(x) for x in leds * volts * k_w)
        yield ("led", (low, usual, high, f"its junction, by its volts times its current and {k_w:g} K/W to the air"))
    if p.regulator is not None:
        k_w = p.regulator.sink_k_w if p.sink else p.regulator.heat_k_w
        low, usual, high = (float(max(w, 0.0)) * k_w for w in _regulator_watts(s))
        yield ("regulator", (low, usual, high, f"the volts it keeps times its current, and {k_w:g} K/W to the air"))


def _regulator_watts(s: Solution) -> FloatArray:
    """Heat in the regulator at the three rails, its own working current with it, its set resistor not."""
    p = s.position
    r = p.regulator
    assert r is not None
    if s.ac is not None:
        assert s.ac.typical.regulator is not None
        whole = s.ac.typical.regulator.watts
        own = np.zeros(3)
    else:
        assert s.point is not None and s.typical is not None
        before = s.point.voltage(nodes_of(s.point.circuit.element("Vkept"))[0])[s.typical]
        whole = (s.point.across("Vkept") * s.point.current("Vkept"))[s.typical]
        own = np.zeros(3) if p.set_by_ohms else before * r.quiescent
    in_resistor = s.usual * p.branches * r.volts if p.set_by_ohms else 0.0
    return np.asarray(whole + own - in_resistor)


def _amps(s: Solution) -> tuple[FloatArray, FloatArray]:
    """Current of one resistor and of one LED at the three rails; RMS and mean over a cycle."""
    if s.ac is not None:
        return s.ac.typical.rms, s.ac.typical.average
    assert s.point is not None and s.typical is not None
    return resistor_amps(s.position, s.point)[s.typical], string_amps(s.position, s.point)[s.typical]
