"""An LED behind a dimmer that cuts the phase: what is left of every half-cycle, over the knob's way."""

import math
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import (
    Circuit,
    Dc,
    Diode,
    DiodeModel,
    Element,
    Resistor,
    VoltageSource,
)
from swapglow.core.engine.operating_point import operating_point
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.worked import Fault, Figure, Judged, Row, Table, Way, Worked, gravest_first, picked
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.network.sources import sine
from swapglow.core.parts.lamp import LIGHT_EXPONENT
from swapglow.core.parts.led import MOST_IN_SERIES, Led, catalogue
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.parts.resistor import rating_to_fit
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.quantities import (
    AMPERE,
    HERTZ,
    OHM,
    VOLT,
    WATT,
    InputError,
    Shown,
    Source,
    percent,
    show,
    shown,
)
from swapglow.core.values import preferred

FloatArray = NDArray[np.float64]

VOLTS = Detail("volts", "Volts behind it, knob right up", VOLT, "24Vac, RMS, with the lamp on it")
HERTZ_ = Detail("hertz", "Of the supply", HERTZ, "50Hz; empty takes that")
WAY = Detail("way", "What rectifies", None, "", (
    ("bridge", "Bridge"), ("half", "One diode"), ("capacitor", "Bridge and capacitor"),
))  # fmt: skip
LED = led_detail()
SERIES = Detail("series", "LEDs in series", None, "How many; empty: one")
OHM_ = Detail("ohm", "Its resistor", OHM, "1k; empty sizes one", none="link")
MEAN = Detail("mean", "Mean current wanted, knob right up", AMPERE, "8mA; empty takes half its rating")
LEAST = Detail("least", "Least load of the dimmer", WATT, "20W, as marked on it; empty: not known")
HOLD = Detail(
    "hold", "Least current its switch holds on by", AMPERE, "25mA, from its data sheet; empty: not known"
)

_USUAL_HZ = 50.0
# Instants of a half-cycle.
_INSTANTS = 400
# What of each half-cycle the knob leaves.
_KNOB = (1.0, 0.75, 0.5, 0.35, 0.25)


@dataclass(frozen=True)
class Behind:
    """A string behind a dimmer.

    Attributes:
        crest: of the supply, V.
        led, in_series: its LEDs.
        ohm: its resistor, Ω.
        bridge: whether both half-cycles light it; else one does.
    """

    crest: float
    led: Led
    in_series: int
    ohm: float
    bridge: bool


class PhaseDimmer(FittedKind):
    """Stage and wall dimmers, triac speed knobs, chopped lighting circuits."""

    id = "phase_dimmer"
    order = 9
    label = "LED behind a phase dimmer"
    looks = (
        "A knob or a desk on alternating current, a triac or thyristors on a sink, a choke beside them. With a "
        "filament it hums as it dims. An RMS meter follows the knob, an averaging one does not."
    )
    never = (
        "A phase dimmer is on the mains: unplugged, qualified people only. Put no bare capacitor behind it: every "
        "half-cycle then begins with a blow. Local codes come first."
    )
    details = (VOLTS, HERTZ_, WAY, LED, SERIES, OHM_, MEAN, LEAST, HOLD)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """Mean and crest over the knob's way, beside a filament's; what the dimmer makes of so little."""
        if typed.choice(WAY.id) == "capacitor":
            raise InputError(
                WAY.id, "A capacitor behind a dimmer that cuts the phase is charged at a blow in every half-cycle: the "
                "switch, the diodes and the capacitor suffer, and no steady figure stands for it. Take a bridge alone.",
            )  # fmt: skip
        behind, sized, wanted = _behind(typed)
        full = over_the_knob(behind, 1.0)
        ways = _ways(behind, sized, wanted, full.mean) if typed.value(OHM_.id) is not None else ()
        way = picked(ways, chosen)
        return Worked(
            line=f"{show(full.mean, AMPERE)} on average with the knob right up, {show(full.peak, AMPERE)} at the "
                 f"crest, behind {show(behind.ohm, OHM)}.",
            figures=_figures(behind, full, None if way is None or sized is None else replace(behind, ohm=sized)),
            tables=(_table(behind),),
            ways=ways,
            faults=(Fault("An LED is open", "All of the string is dark, and the dimmer has no load left."),
                    Fault("The dimmer's switch is a short", "It no longer dims: all of the cycle, all of the time.")),
            judged=_judged(typed, behind, full),
            spice=_deck(behind, typed.value(HERTZ_.id) or _USUAL_HZ),
        )  # fmt: skip


KIND = PhaseDimmer()


@dataclass(frozen=True)
class Dimmed:
    """A string at one place of the knob.

    Attributes:
        mean: current over the cycle, A; ``peak`` its highest instant, ``rms`` of it all.
        light: mean light beside that of its rated current flowing steadily.
        watts: what it takes, W.
        lit: share of each half-cycle in which current flows.
    """

    mean: float
    peak: float
    rms: float
    light: float
    watts: float
    lit: float


def over_the_knob(behind: Behind, share: float) -> Dimmed:
    """A string behind a dimmer that leaves the last share of every half-cycle (leading edge).

    Args:
        behind: the string.
        share: of the half-cycle that is left, over 0 up to 1.

    Returns:
        What its cycle comes to.

    Raises:
        NotConverged: it has no answer.
    """
    phase = (np.arange(_INSTANTS) + 0.5) / _INSTANTS
    volts = np.where(phase >= 1 - share, behind.crest * np.sin(np.pi * phase), 0.0)
    point = operating_point(_circuit(behind, volts)).require()
    amps = np.maximum(point.current("D1"), 0.0)
    # Of the other half-cycle a bridge makes the same, one diode nothing.
    halves = 1.0 if behind.bridge else 0.5
    light = relative_light(behind.led, amps)
    steady = float(relative_light(behind.led, np.array([behind.led.rated_a]))[0])
    return Dimmed(
        float(amps.mean()) * halves, float(amps.max()), math.sqrt(float((amps**2).mean()) * halves),
        float(light.mean()) * halves / steady, float((volts * amps).mean()) * halves,
        float((amps > 0.01 * max(amps.max(), 1e-12)).mean()),
    )  # fmt: skip


def _circuit(behind: Behind, volts: FloatArray | float) -> Circuit:
    junction = behind.led.junction(behind.led.vf_typ)
    n = behind.in_series
    model = DiodeModel(float(junction.i_s), junction.n * n, junction.r_s * n, nominal_c=REFERENCE_C)
    diodes = rectifier("power").chain(2 if behind.bridge else 1, REFERENCE_C)
    parts: tuple[Element, ...] = (
        VoltageSource("Vdimmed", "feed", "0", Dc(volts)), Diode("Drectifier", "feed", "dc", diodes),
        Resistor("R1", "dc", "string", max(behind.ohm, 1e-3)), Diode("D1", "string", "0", model),
    )  # fmt: skip
    return Circuit(parts, celsius=REFERENCE_C, title="behind a dimmer")


def _behind(typed: Details) -> tuple[Behind, float | None, float]:
    volts = typed.value(VOLTS.id)
    if volts is None:
        raise InputError(VOLTS.id, f"Type the {VOLTS.label.lower()}: {VOLTS.hint}.")
    led, count = catalogue()[typed.choice(LED.id)], typed.count(SERIES.id, MOST_IN_SERIES)
    wanted = typed.value(MEAN.id) or led.rated_a / 2
    bare = Behind(volts * math.sqrt(2), led, count, 1.0, typed.choice(WAY.id) != "half")
    sized = _sized(bare, wanted)
    ohm = typed.value(OHM_.id) or sized
    if ohm is None:
        raise InputError(
            MEAN.id, f"{show(wanted, AMPERE)} on average do not flow on {show(volts, VOLT)} RMS."
        )
    return replace(bare, ohm=ohm), sized, wanted


def _sized(bare: Behind, wanted: float) -> float | None:
    """The next higher value at which its mean is what is wanted, knob right up, by halving."""
    low, high = 1.0, 1e6

    def mean(ohm: float) -> float:
        return over_the_knob(replace(bare, ohm=ohm), 1.0).mean

    if mean(low) < wanted:
        return None
    for _ in range(40):
        middle = math.sqrt(low * high)
        low, high = (middle, high) if mean(middle) > wanted else (low, middle)
    return preferred.prefer(low, "E24", "up")


def filament_volts(share: float) -> float:
    """RMS volts that are left beside all of them: √(s + sin(2π(1 − s))/2π) (textbook).

    Args:
        share: of each half-cycle that is left.

    Returns:
        The ratio.
    """
    cut = math.pi * (1 - share)
    return math.sqrt(max(share + math.sin(2 * cut) / (2 * math.pi), 0.0))


def _figures(behind: Behind, full: Dimmed, after: Behind | None) -> tuple[Figure, ...]:
    then = None if after is None else over_the_knob(after, 1.0)
    up = "knob right up"

    def heat(of: Behind, at: Dimmed) -> Shown:
        watts = at.rms**2 * of.ohm
        fit = rating_to_fit(watts, at.rms * of.ohm)
        return shown(
            watts,
            WATT,
            f"I²R over the cycle; fit {fit:g} W or more" if fit is not None else "I²R over the cycle",
        )

    return (
        Figure("On average", shown(full.mean, AMPERE, up), None if then is None else shown(then.mean, AMPERE, up)),
        Figure("At the crest", shown(full.peak, AMPERE, up), None if then is None else shown(then.peak, AMPERE, up)),
        Figure("Heat in its resistor", heat(behind, full),
               None if then is None or after is None else heat(after, then)),
        Figure("Load on the dimmer", shown(full.watts, WATT, "volts times amps over the cycle"),
               None if then is None else shown(then.watts, WATT, "volts times amps over the cycle")),
    )  # fmt: skip


def _table(behind: Behind) -> Table:
    """Knob by knob: mean, crest, and light beside a filament's, each beside its own with the knob right up."""
    full, rows = over_the_knob(behind, 1.0), []
    for share in _KNOB:
        at = over_the_knob(behind, share)
        old = filament_volts(share)
        light = at.light / max(full.light, 1e-15)
        rows.append(Row(
            f"{percent(share)} of each half-cycle",
            (
                shown(at.mean, AMPERE, "over the cycle"), shown(at.peak, AMPERE, "at its highest instant"),
                _share(light, "of its light, knob right up"),
                _share(old**LIGHT_EXPONENT, f"of a filament's, ∝ V^{LIGHT_EXPONENT:g} at {old:.0%} of its volts"),
            ),
        ))  # fmt: skip
    return Table(
        "As the knob goes down", ("On average", "At the crest", "LED's light", "A filament's"), tuple(rows)
    )


def _share(value: float, origin: str) -> Shown:
    return Shown(value, f"{value * 100:.2g}" if value < 0.995 else "100", "%", Source.COMPUTED, origin)


def _ways(behind: Behind, sized: float | None, wanted: float, mean: float) -> tuple[Way, ...]:
    if sized is None or mean <= 0:
        return ()
    then = over_the_knob(replace(behind, ohm=sized), 1.0).mean
    share = then / mean
    return (Way(
        f"Fit {show(sized, OHM)}", f"{show(then, AMPERE)} on average where {show(wanted, AMPERE)} are wanted",
        Shown(share, f"{share * 100:.0f}", "%", Source.COMPUTED, "of the current"), "Knob right up.", "", True,
        {OHM_.id: show(sized, OHM)},
    ),)  # fmt: skip


def _judged(typed: Details, behind: Behind, full: Dimmed) -> tuple[Judged, ...]:
    out: list[Judged] = []
    if full.mean > behind.led.rated_a:
        message = (
            f"{show(full.mean, AMPERE)} on average is over its rated {show(behind.led.rated_a, AMPERE)}."
        )
        out.append(Judged("stop", message, "A larger resistor."))
    least, hold = typed.value(LEAST.id), typed.value(HOLD.id)
    if least is not None and full.watts < least:
        volts = behind.crest / math.sqrt(2)
        ohm, missing = volts**2 / (least - full.watts), least - full.watts
        message = (
            f"It takes {show(full.watts, WATT, 2)} where the dimmer wants {show(least, WATT, 2)}: it may flicker, not "
            "dim, or drop out."
        )
        why = (
            f"One filament lamp left on it, or {show(ohm, OHM, 2)} of {show(missing, WATT, 2)} heat (V²/R); a dimmer "
            "made for LEDs is the cool way."
        )
        out.append(Judged("mind", message, why))
    if hold is not None and full.peak < hold:
        message = (
            f"Its switch lets go under {show(hold, AMPERE)}; the string's crest is {show(full.peak, AMPERE)}."
        )
        load = behind.crest / math.sqrt(2) / hold
        out.append(Judged("mind", message, f"{show(load, OHM, 2)} beside it holds the switch on at the crest at least "
                                           "(Ohm)."))  # fmt: skip
    quarter = over_the_knob(behind, 0.25).light / max(full.light, 1e-15)
    old = filament_volts(0.25) ** LIGHT_EXPONENT
    message = (
        f"At a quarter of its way {percent(quarter)} of its light is left; of a filament's {percent(old)}."
    )
    why = (
        "An LED goes with the current, not with a power of the volts: the knob's way is another. It goes out "
        "at once where the volts left stay under its own."
    )
    out.append(Judged("note", message, why))
    return gravest_first(out)


def _deck(behind: Behind, hertz: float) -> str:
    """The string on the whole cycle, knob right up."""
    wave = sine(behind.crest, hertz, folded=behind.bridge)
    parts = tuple(
        VoltageSource(e.name, e.plus, e.minus, wave) if isinstance(e, VoltageSource) else e
        for e in _circuit(behind, 0.0).elements
    )
    made = Circuit(parts, celsius=REFERENCE_C, title="behind a dimmer")
    return write_deck(made, (f".tran {1 / hertz / 500:.6g} {3 / hertz:.6g}",))
