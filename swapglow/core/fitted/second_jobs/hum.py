"""A lamp near audio or a receiver: what an LED's pulses put into the winding that feeds it, and what is quiet."""

import math
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Capacitor, Circuit, Diode, Element, Resistor, Sine, VoltageSource
from swapglow.core.engine.periodic import SteadyState, steady_state
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.ratings import led_current
from swapglow.core.fitted.worked import Figure, Judged, Row, Table, Way, Worked, gravest_first, picked
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.led_model import led_model
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.quantities import AMPERE, FARAD, HERTZ, OHM, VOLT, InputError, show, shown, times_text

FloatArray = NDArray[np.float64]

VOLTS = Detail("volts", "The winding, RMS", VOLT, "6.3V")
HERTZ_ = Detail("hertz", "Frequency", HERTZ, "50Hz or 60Hz; empty takes 50 Hz")
SOURCE = Detail("source", "What stands behind it", OHM, "0.4R, from open and loaded volts; empty takes 0.5 Ω")
LAMP_A = Detail("lamp_amps", "The old lamp's amps there", AMPERE, "150mA; empty: not compared")
LED = led_detail()
LED_OHM = Detail("ohm", "Its resistor", OHM, "330R", none="link")
Fed = Literal["half", "bridge", "smoothed", "pair"]
WAYS: tuple[tuple[Fed, str], ...] = (
    ("half", "Half a wave: one diode"),
    ("bridge", "A bridge, nothing stored"),
    ("smoothed", "A bridge and a capacitor"),
    ("pair", "Two LEDs head to tail"),
)
FED = Detail("fed", "How it is rectified", None, "", WAYS)
STORE = Detail("store", "That capacitor", FARAD, "100uF; empty takes that")
ALSO = Detail("also", "The winding also feeds", None, "", (
    ("nothing", "Lamps alone"), ("heaters", "Heaters of valves, or audio"), ("receiver", "A receiver"),
))  # fmt: skip

_USUAL_OHM = 0.5
_USUAL_STORE = 100e-6
# Where such figures are from (Fourier).
_TAKEN = "the settled cycle, taken apart"
_ORDERS = (1, 2, 3, 5, 7)
_SAMPLES = 4096
# A direct current in a winding of less than this share of what it carries on AC does not bias its core to speak of
# (ours; from memory a hundredth of the magnetising current's order).
_DC_SHARE = 0.01
_HERTZ_BOUNDS = (16.0, 1000.0)


@dataclass(frozen=True)
class Feed:
    """An LED on a winding.

    Attributes:
        volts, hertz, source: of the winding, RMS, and what stands behind it, Ω.
        led, ohm: the LED and its resistor.
        fed: how it is rectified.
        store: the capacitor where one is meant, F.
    """

    volts: float
    hertz: float
    source: float
    led: Led
    ohm: float
    fed: Fed
    store: float


def circuit(f: Feed) -> Circuit:
    """The LED on its winding.

    Args:
        f: how it is fed.

    Returns:
        The circuit; the winding's current is that of "Rsource", the LED's that of "Dled".
    """
    model, power = led_model(f.led), rectifier("power").chain(1, REFERENCE_C)
    parts: list[Element] = [
        VoltageSource("Vwinding", "emf", "0", Sine(0.0, f.volts * math.sqrt(2), f.hertz)),
        Resistor("Rsource", "emf", "top", f.source),
    ]
    if f.fed == "half":
        # A diode in series and one across draw the same half; the series one is drawn.
        parts += [
            Diode("D1", "top", "plus", power), Resistor("Rled", "plus", "led", f.ohm),
            Diode("Dled", "led", "0", model),
        ]  # fmt: skip
    elif f.fed == "pair":
        parts += [
            Resistor("Rled", "top", "led", f.ohm), Diode("Dled", "led", "0", model), Diode("Dother", "0", "led", model),
        ]  # fmt: skip
    else:
        parts += [
            Diode("D1", "top", "plus", power), Diode("D2", "0", "plus", power),
            Diode("D3", "minus", "top", power), Diode("D4", "minus", "0", power),
            Resistor("Rled", "plus", "led", f.ohm), Diode("Dled", "led", "minus", model),
        ]  # fmt: skip
        if f.fed == "smoothed":
            parts.append(Capacitor("Cstore", "plus", "minus", f.store))
    return Circuit(tuple(parts), celsius=REFERENCE_C, title="an LED on a winding")


@dataclass(frozen=True)
class Heard:
    """What the winding carries over a settled cycle.

    Attributes:
        dc_a: the mean.
        harmonics_a: RMS of each order of :data:`_ORDERS`.
        led_a: the LED's mean.
        crest_a: the highest.
    """

    dc_a: float
    harmonics_a: tuple[float, ...]
    led_a: float
    crest_a: float


def heard(f: Feed) -> Heard:
    """Solve the settled cycle and take it apart (Fourier).

    Args:
        f: how it is fed.

    Returns:
        What the winding carries.

    Raises:
        NotConverged: there is no settled cycle.
    """
    cycle: SteadyState = steady_state(circuit(f))
    amps = cycle.current("Rsource")
    even = np.interp(np.arange(_SAMPLES) / _SAMPLES * cycle.period, np.append(cycle.t, cycle.period),
                     np.append(amps, amps[0]))  # fmt: skip
    spectrum = np.abs(np.fft.rfft(even)) / _SAMPLES
    harmonics = tuple(float(spectrum[k] * math.sqrt(2)) for k in _ORDERS)
    led_a = cycle.average(np.maximum(cycle.current("Dled"), 0.0))
    return Heard(cycle.average(amps), harmonics, led_a, float(np.abs(amps).max()))


class HumLamp(FittedKind):
    """Dial lamps on heater windings, lamps beside pick-ups and receivers."""

    id = "hum"
    order = 21
    label = "LED near audio or a receiver"
    looks = (
        "The lamp hangs on the winding that heats valves, or its wires run beside a pick-up, an input or a receiver. A "
        "filament took a clean sine; an LED takes pulses."
    )
    never = (
        "Valve equipment holds hundreds of volts after it is switched off: qualified people, unplugged and discharged. "
        "A winding whose middle or one leg is on the frame takes no bridge with its negative there."
    )
    details = (VOLTS, HERTZ_, SOURCE, LAMP_A, LED, LED_OHM, FED, STORE, ALSO)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """Direct current and harmonics that each way of feeding it puts into the winding."""
        volts, ohm = typed.needed(VOLTS, LED_OHM)
        hertz = typed.value(HERTZ_.id) or 50.0
        if not _HERTZ_BOUNDS[0] <= hertz <= _HERTZ_BOUNDS[1]:
            raise InputError(HERTZ_.id, f"{show(hertz, HERTZ)} is no winding's: 16 Hz to 1 kHz.")
        led = catalogue()[typed.choice(LED.id)]
        if volts * math.sqrt(2) <= led.vf_high + 2:
            raise InputError(
                VOLTS.id, f"{show(volts, VOLT)} AC hardly light {led.vf_high:g} V behind a rectifier."
            )
        fed: Fed = typed.choice(FED.id)  # type: ignore[assignment]  # one of its options
        f = Feed(volts, hertz, typed.value(SOURCE.id) or _USUAL_OHM, led, ohm, fed,
                 typed.value(STORE.id) or _USUAL_STORE)  # fmt: skip
        each = {way: heard(replace(f, fed=way)) for way, _ in WAYS}
        ways = _ways(f, each, typed.choice(ALSO.id))
        way = picked(ways, chosen)
        after = None if way is None else each[_fed_of(way)]
        now = each[fed]
        return Worked(
            line=f"{show(now.dc_a, AMPERE)} of DC in the winding, {show(_buzz(now), AMPERE)} of harmonics.",
            figures=_figures(f, now, after),
            tables=(_table(f, each),),
            ways=ways,
            judged=_judged(typed, f, now),
            spice=write_deck(circuit(f), (f".tran {1 / hertz / 200:.6g} {40 / hertz:.6g}",)),
        )


KIND = HumLamp()


def _fed_of(way: Way) -> Fed:
    return way.changes[FED.id]  # type: ignore[return-value]  # one of its options


def _buzz(h: Heard) -> float:
    """All harmonics over the first together, RMS."""
    return math.sqrt(sum(a**2 for a in h.harmonics_a[1:]))


def _figures(f: Feed, now: Heard, after: Heard | None) -> tuple[Figure, ...]:
    def pair(label: str, of: str) -> Figure:
        def one(h: Heard) -> float:
            return {"dc": abs(h.dc_a), "buzz": _buzz(h), "led": h.led_a}[of]

        return Figure(label, shown(one(now), AMPERE, _TAKEN),
                      None if after is None else shown(one(after), AMPERE, _TAKEN))  # fmt: skip

    volts = shown(_buzz(now) * f.source, VOLT, "harmonics over what stands behind the winding")
    return (
        pair("DC in the winding", "dc"), pair("Harmonics in the winding, RMS", "buzz"), pair("LED, mean", "led"),
        Figure("They put on the winding, RMS", volts,
               None if after is None else shown(_buzz(after) * f.source, VOLT, "as the one beside it")),
    )  # fmt: skip


def _ways(f: Feed, each: dict[Fed, Heard], also: str) -> tuple[Way, ...]:
    """All four, the quietest first: by DC where it counts, then by harmonics."""

    def noise(way: Fed) -> float:
        h = each[way]
        return abs(h.dc_a) * 10 + _buzz(h)

    quiet = sorted((way for way, _ in WAYS), key=noise)
    best = quiet[0]
    wanted = also != "nothing" and best != f.fed
    labels = dict(WAYS)
    return tuple(
        Way(labels[w], f"{show(abs(each[w].dc_a), AMPERE)} of DC, {show(_buzz(each[w]), AMPERE)} of harmonics.",
            shown(each[w].led_a, AMPERE, "the LED's mean"), "", "", wanted and w == best, {FED.id: w})
        for w in quiet if w != f.fed
    )  # fmt: skip


def _table(f: Feed, each: dict[Fed, Heard]) -> Table:
    rows = []
    for way, label in WAYS:
        h = each[way]
        values = (abs(h.dc_a), *h.harmonics_a)
        cells = tuple(shown(v if v > 1e-7 else 0.0, AMPERE, _TAKEN) for v in values)
        rows.append(Row(label, cells, f"LED {show(h.led_a, AMPERE)}, crest {show(h.crest_a, AMPERE)}"))
    heads = ("DC", *(show(f.hertz * k, HERTZ) for k in _ORDERS))
    return Table("What each puts into the winding, RMS", heads, tuple(rows))


def _judged(typed: Details, f: Feed, now: Heard) -> tuple[Judged, ...]:
    out = [*led_current(f.led, now.led_a, "On average")]
    also, lamp = typed.choice(ALSO.id), typed.value(LAMP_A.id)
    first = now.harmonics_a[0]
    if abs(now.dc_a) > _DC_SHARE * max(first, lamp or 0.0) and f.fed == "half":
        out.append(Judged(
            "mind" if also != "nothing" else "note", f"{show(abs(now.dc_a), AMPERE)} of DC in the winding.",
            "It biases the core: hum, and heat where it is small. Both halves of the wave: a bridge, or two LEDs head "
            "to tail.",
        ))  # fmt: skip
    if f.fed == "smoothed" and also != "nothing":
        out.append(Judged(
            "mind", f"Its capacitor is charged in pulses of {show(now.crest_a, AMPERE)}, "
            f"{times_text(now.crest_a / max(now.led_a, 1e-12))} times what the LED takes.",
            "They are heard, by the wire and by the winding. Smoothed behind its resistor, or not at all.",
        ))  # fmt: skip
    if also == "receiver":
        out.append(Judged(
            "mind", "A lamp with a converter or pulses inside is heard in a receiver; that is not worked out here.",
            "Linear parts first: resistor and rectifier, wires twisted, and a try with the aerial in.",
        ))  # fmt: skip
    if lamp is not None:
        out.append(Judged("note", f"The old lamp took {show(lamp, AMPERE)}, all of it a sine: no DC, no harmonics.",
                          "A filament's lag is far longer than a cycle."))  # fmt: skip
    return gravest_first(out)
