"""An LED on a feed that is switched many times a second: a lamp matrix, pulses that dim, a dimmer that cuts the phase.

While it is on it carries what Ohm and Shockley say of the feed; on average that times its share of the time. Light
follows the curve at the current that flows while it is on, and its mean is what an eye sees (Talbot-Plateau).
"""

import math

import numpy as np

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import (
    Circuit,
    Dc,
    Diode,
    DiodeModel,
    Element,
    Pulse,
    Resistor,
    VoltageSource,
    Wave,
)
from swapglow.core.engine.operating_point import operating_point
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.worked import Fault, Figure, Judged, Way, Worked, gravest_first, picked
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.photometry.flicker import flicker_limit
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.photometry.words import eye_text
from swapglow.core.quantities import (
    AMPERE,
    CANDELA,
    HERTZ,
    OHM,
    SECOND,
    VOLT,
    WATT,
    InputError,
    Shown,
    Source,
    number_text,
    show,
    shown,
)
from swapglow.core.quantities.inputs import read_share
from swapglow.core.values import preferred

FEED = Detail("feed", "What switches it", None, "", (
    ("matrix", "Rows and columns in turn"), ("pwm", "Pulses that dim"), ("phase", "A dimmer that cuts the phase"),
))  # fmt: skip
VOLTS = Detail(
    "volts",
    "Volts while it is on",
    VOLT,
    "24V at its contacts; behind a phase dimmer the DC after its rectifier, undimmed",
)
DUTY = Detail("duty", "Share of the time it is on", None, "1/8 of a matrix of eight; 40 %")
HERTZ_ = Detail("hertz", "How often a second", HERTZ, "120Hz, 1kHz; behind a phase dimmer twice the mains")
LED = led_detail()
OHM_ = Detail("ohm", "Its resistor", OHM, "1k; empty sizes one", none="link")
DIODE = Detail("diode", "Diode in series, one a lamp", None, "", (("no", "None"), ("yes", "One")))
MEAN = Detail("mean", "Mean current wanted", AMPERE, "2mA; empty takes that")
LEAK = Detail(
    "leak", "Resistance past the open switch", OHM, "47k from volts and amps with it off; empty: none known"
)
FALL = Detail("fall", "Time it takes to switch off", SECOND, "20us; empty: not known")
LEAST = Detail("least", "Least load of the dimmer", WATT, "25W, as marked on it; behind a phase dimmer")

_USUAL_A = 2e-3
# Peak over rated that short pulses allow: by the share of the time, never over five (data sheets, from memory).
_MOST_PEAK = 5.0
_FLOOR = 0.01
# Of another's light, less is not seen beside it (ours).
_SEEN_SHARE = 0.01


class Strobed(FittedKind):
    """Displays, pinball and crosspoint panels, pulse dimmers, lighting desks."""

    id = "strobed"
    order = 7
    label = "LED on pulses or a strobe"
    looks = (
        "Many lamps on few wires, rows one way and columns the other, a diode beside each; or a feed that a meter "
        "shows at half its volts and a test lamp as a dim glow. A slow meter reads the mean: read the peak with a "
        "scope, or from the supply behind the switches."
    )
    never = (
        "Take out no diode of a matrix: without it other lamps glow through this one. A phase dimmer is on the mains: "
        "unplugged, qualified people only. Local codes come first."
    )
    details = (FEED, VOLTS, DUTY, HERTZ_, LED, OHM_, DIODE, MEAN, LEAK, FALL, LEAST)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """Peak and mean, light, ghosts, flicker, and what the dimmer makes of it."""
        volts = typed.value(VOLTS.id)
        if volts is None:
            raise InputError(VOLTS.id, f"Type the {VOLTS.label.lower()}: {VOLTS.hint}.")
        duty = read_share(DUTY.id, typed.text(DUTY.id), 1.0)
        if not _FLOOR <= duty <= 1:
            raise InputError(DUTY.id, "Between 1 % and all of the time: 1/8, or 12.5 %.")
        led = catalogue()[typed.choice(LED.id)]
        wanted = typed.value(MEAN.id) or _USUAL_A
        diode = typed.choice(DIODE.id) == "yes"
        sized = _resistor(volts, led, diode, wanted / duty)
        ohm = typed.value(OHM_.id)
        fitted = sized if ohm is None else ohm
        if fitted is None:
            raise InputError(
                MEAN.id, f"{show(wanted / duty, AMPERE)} while it is on do not flow on {show(volts, VOLT)}."
            )
        peak = _peak(volts, led, diode, fitted)
        ways = _ways(volts, led, diode, duty, peak, sized, wanted)
        way = picked(ways, chosen)
        after = None if way is None or ohm is None else peak * way.share.value
        return Worked(
            line=(
                f"{show(peak, AMPERE)} while it is on, {show(peak * duty, AMPERE)} on average, behind "
                f"{show(fitted, OHM)}."
            ),
            figures=_figures(led, duty, peak, after),
            ways=ways if ohm is not None else (),
            faults=(*_ghosts(typed, volts, led, diode, duty, fitted), *_stuck(led, peak)),
            judged=_judged(typed, volts, led, duty, peak),
            spice=_deck(typed, volts, led, diode, fitted, duty),
        )


KIND = Strobed()


def _circuit(wave: Wave, led: Led, diode: bool, ohm: float) -> Circuit:
    junction = led.junction(led.vf_typ)
    parts: list[Element] = [
        VoltageSource("Vfeed", "feed", "0", wave),
        Resistor("R1", "feed", "string", max(ohm, 1e-3)),
    ]
    node = "string"
    if diode:
        parts.append(Diode("Dmatrix", node, "leds", rectifier("signal").chain(1, REFERENCE_C)))
        node = "leds"
    model = DiodeModel(float(junction.i_s), junction.n, junction.r_s, nominal_c=REFERENCE_C)
    return Circuit((*parts, Diode("Dleds", node, "0", model)), celsius=REFERENCE_C, title="strobed feed")


def _peak(volts: float, led: Led, diode: bool, ohm: float) -> float:
    point = operating_point(_circuit(Dc(volts), led, diode, ohm)).require()
    return max(float(point.current("Dleds")[0]), 0.0)


def _resistor(volts: float, led: Led, diode: bool, amps: float) -> float | None:
    """The next higher value at which so much flows while it is on (Ohm)."""
    drop = float(led.junction(led.vf_typ).volts(amps)) + (
        rectifier("signal").volts(amps, 1, REFERENCE_C) if diode else 0
    )
    exact = (volts - drop) / amps
    return preferred.prefer(exact, "E24", "up") if exact >= 1 else None


def _light(led: Led, peak: float, duty: float) -> float:
    """Mean light, cd: what flows while it is on, for its share of the time (Talbot-Plateau)."""
    return float(relative_light(led, np.array([peak]))[0]) * led.candela * duty


def _figures(led: Led, duty: float, peak: float, after: float | None) -> tuple[Figure, ...]:
    steady = float(relative_light(led, np.array([peak * duty]))[0]) * led.candela
    light = _light(led, peak, duty)

    def pair(value: float, unit: object, origin: str, scale: float = 1.0) -> tuple[Shown, Shown | None]:
        now = shown(value, unit, origin)  # type: ignore[arg-type]  # a unit
        return now, None if after is None else shown(after * scale, unit, origin)  # type: ignore[arg-type]  # likewise

    on, then = pair(peak, AMPERE, "while it is on")
    mean, mean_then = pair(peak * duty, AMPERE, f"{duty * 100:.3g} % of the time", duty)
    beside = eye_text(light / steady) if steady > 0 else "0"
    return (
        Figure("While it is on", on, then), Figure("On average", mean, mean_then),
        Figure("Light", shown(light, CANDELA, f"mean; {beside} × that of its mean current flowing steadily"),
               None if after is None else shown(_light(led, after, duty), CANDELA, "mean")),
    )  # fmt: skip


def _ways(volts: float, led: Led, diode: bool, duty: float, peak: float, sized: float | None,
          wanted: float) -> tuple[Way, ...]:  # fmt: skip
    if sized is None or peak <= 0:
        return ()
    then = _peak(volts, led, diode, sized)
    share = then / peak
    light = _light(led, then, duty) / max(_light(led, peak, duty), 1e-15)
    return (Way(
        f"Fit {show(sized, OHM)}", f"{show(wanted, AMPERE)} on average, {show(wanted / duty, AMPERE)} while it is on",
        Shown(share, f"{share * 100:.0f}", "%", Source.COMPUTED, "of the current"), f"{eye_text(light)} × the light.",
        "",
        True, {OHM_.id: show(sized, OHM)},
    ),)  # fmt: skip


def _ghosts(
    typed: Details, volts: float, led: Led, diode: bool, duty: float, ohm: float
) -> tuple[Fault, ...]:
    out = []
    leak, fall, hertz = typed.value(LEAK.id), typed.value(FALL.id), typed.value(HERTZ_.id)
    if leak is not None:
        amps = _peak(volts, led, diode, ohm + leak)
        seen = visibility(float(relative_light(led, np.array([amps]))[0]) * led.candela)
        bleed = preferred.prefer(max(leak / 20, 10.0), "E24", "nearest")
        helps = "" if seen == "dark" else f" {show(bleed, OHM)} across LED and resistor leads it past."
        out.append(
            Fault("While it should be dark", f"{show(amps, AMPERE)} leak through it: {WORDS[seen]}.{helps}")
        )
    if fall is not None and hertz is not None:
        share = min(fall * hertz / duty, 1.0)
        cure = (
            "; a stronger pull-down or a pause between rows ends it."
            if share > _SEEN_SHARE
            else ": not seen."
        )
        lit = f"The next row's lamps light for {number_text(share * 100)} % of this one's light{cure}"
        out.append(Fault("Slow to switch off", lit))
    return tuple(out)


def _stuck(led: Led, peak: float) -> tuple[Fault, ...]:
    """A feed that stays on carries its peak for good."""
    over = f", over its rated {show(led.rated_a, AMPERE)}" if peak > led.rated_a else ": within its rating"
    return (
        Fault("Its switch stays on", f"{show(peak, AMPERE)} all the time{over}."),
        Fault("Its switch stays off, or its diode is open", "Dark; nothing else changes."),
    )


def _judged(typed: Details, volts: float, led: Led, duty: float, peak: float) -> tuple[Judged, ...]:
    out = [*_over(led, duty, peak), *_flickers(typed, duty)]
    if typed.choice(FEED.id) == "matrix" and typed.choice(DIODE.id) == "no":
        message = "No diode in series: in a matrix every lamp needs one."
        why = "An LED is a diode, but stands only some 5 V in reverse: keep the lamp's own diode."
        out.append(Judged("mind", message, why))
    if typed.choice(FEED.id) == "phase":
        message = "What the dimmer makes of it while it dims is another kind here: LED behind a phase dimmer."
        out.append(
            Judged(
                "note",
                message,
                "All figures are of it undimmed, on the DC behind its rectifier and capacitor.",
            )
        )
    least = typed.value(LEAST.id)
    takes = volts * peak * duty
    if typed.choice(FEED.id) == "phase" and least is not None and takes < least:
        ohm = volts**2 / (least - takes)
        message = (
            f"It takes {show(takes, WATT, 2)} where the dimmer wants {show(least, WATT, 2)}: it may flicker, "
            "not dim, or drop out."
        )
        why = (
            f"One filament lamp left on it, or {show(ohm, OHM, 2)} of {show(least - takes, WATT, 2)} heat (V²/R); a "
            "dimmer made for LEDs is the cool way."
        )
        out.append(Judged("mind", message, why))
    return gravest_first(out)


def _over(led: Led, duty: float, peak: float) -> list[Judged]:
    most = led.rated_a * min(1 / math.sqrt(duty), _MOST_PEAK)
    if peak <= most:
        return []
    message = f"{show(peak, AMPERE)} while it is on is over the {show(most, AMPERE)} allowed at this duty."
    return [
        Judged(
            "stop",
            message,
            "Rated current over the root of its share of the time, never five times (from memory).",
        )
    ]


def _flickers(typed: Details, duty: float) -> list[Judged]:
    hertz = typed.value(HERTZ_.id)
    if hertz is None or duty >= 1:
        return []
    limit = flicker_limit(hertz)
    message = f"It goes out {show(hertz, HERTZ)}: wholly modulated; low-risk is up to {limit:.0f} %."
    why = "A filament smoothed it (IEEE 1789-2015 for the limit). Moving eyes see the pulses as dots."
    return [Judged("mind" if limit < 100 else "note", message, why)]


def _deck(typed: Details, volts: float, led: Led, diode: bool, ohm: float, duty: float) -> str:
    hertz = typed.value(HERTZ_.id) or 100.0
    if duty >= 1:
        return write_deck(_circuit(Dc(volts), led, diode, ohm))
    wave = Pulse(0.0, volts, 0.0, 1e-7, 1e-7, duty / hertz, 1 / hertz)
    return write_deck(_circuit(wave, led, diode, ohm), (f".tran {1 / hertz / 500:.6g} {3 / hertz:.6g}",))
