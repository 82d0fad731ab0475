"""A board whose current is set by a capacitor in its feed, for understanding: solved over its cycle.

Textbook: I = 2π·f·C·V, less what the LEDs' volts take of the crest. The capacitor, a bridge and the string are solved
to their settled cycle; the rule stands beside with its error.
"""

import math

import numpy as np

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import (
    Capacitor,
    Circuit,
    Diode,
    DiodeModel,
    Element,
    Resistor,
    Sine,
    VoltageSource,
)
from swapglow.core.engine.periodic import steady_state
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.worked import Fault, Figure, Judged, Worked
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import catalogue
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.quantities import (
    AMPERE,
    FARAD,
    HERTZ,
    OHM,
    SECOND,
    VOLT,
    WATT,
    InputError,
    Source,
    show,
    shown,
)

VOLTS = Detail("volts", "Volts of the feed", VOLT, "230V or 120V, RMS")
HERTZ_ = Detail("hertz", "Frequency", HERTZ, "50Hz or 60Hz; empty takes 50 Hz")
DROP = Detail("drop", "Capacitor in the feed", FARAD, "As marked: 470nF; 474 is 470 nF")
STRING = Detail("string", "Volts of the LED string", VOLT, "LEDs times their volts: 24 × 3V is 72V")
BLEED = Detail(
    "bleed", "Resistor across it", OHM, "470k; it empties the capacitor. Empty: none seen", none="absent"
)
FUSE = Detail(
    "fuse",
    "Resistor before it",
    OHM,
    "100R; it takes the rush and acts as a fuse. Empty: none seen",
    none="absent",
)
SMOOTH = Detail("smooth", "Capacitor across the string", FARAD, "10uF; empty where there is none")

# Under this a touch is no danger (IEC 62368-1, from memory: 60 V).
_SAFE_V = 60.0
_LEAK_OHM = 1e9
# What such boards have and hang on (from memory).
_FARADS, _HERTZ, _SMOOTH = (22e-9, 22e-6), (16.0, 500.0), (0.1e-6, 10e-3)


# Metallised film heals itself and loses some of its area each time (common practice).
_AGED = 0.1


class Dropper(FittedKind):
    """A film capacitor in the feed, a bridge, a string of LEDs."""

    id = "dropper"
    order = 2
    label = "Dropper capacitor in the feed"
    looks = (
        "A box-shaped film capacitor in one mains wire, often with a resistor of some hundred kiloohms across it, "
        "four diodes or a bridge, perhaps an electrolytic, and no chip."
    )
    never = (
        "Shown for understanding only. Its whole circuit is live on the mains and its capacitor stays charged: "
        "unplugged, discharged, by qualified people only. There is nothing here for anyone else to change."
    )
    details = (VOLTS, HERTZ_, DROP, STRING, BLEED, FUSE, SMOOTH)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """What flows, what the rule says, what stays charged."""
        volts, farads, string = typed.value(VOLTS.id), typed.value(DROP.id), typed.value(STRING.id)
        if volts is None or farads is None or string is None:
            missing = VOLTS if volts is None else DROP if farads is None else STRING
            raise InputError(missing.id, f"Type this too: {missing.hint}.")
        hertz = typed.value(HERTZ_.id) or 50.0
        crest = volts * math.sqrt(2)
        limits = ((DROP, farads, _FARADS), (HERTZ_, hertz, _HERTZ), (SMOOTH, typed.value(SMOOTH.id), _SMOOTH))
        for detail, value, (least, most) in limits:
            if value is not None and not least <= value <= most and detail.unit is not None:
                raise InputError(
                    detail.id, f"{show(value, detail.unit)} is no dropper's: {show(least, detail.unit)} to "
                    f"{show(most, detail.unit)}.",
                )  # fmt: skip
        if string >= crest:
            raise InputError(
                STRING.id, f"{show(string, VOLT)} of LEDs do not light on a crest of {show(crest, VOLT)}."
            )
        # The string stands at its volts at the current that flows: found in turn with it.
        mean = 2 * math.pi * hertz * farads * volts
        for _ in range(3):
            made = _circuit(typed, volts, hertz, farads, string, mean)
            cycle = steady_state(made)
            leds = np.maximum(cycle.current("Dleds"), 0.0)
            mean, top = cycle.average(leds), float(leds.max())
        rms = math.sqrt(cycle.average(cycle.current("Rfuse") ** 2))
        rule = 2 * math.pi * hertz * farads * volts
        fuse = typed.value(FUSE.id)
        figures = [
            Figure("Through the LEDs", shown(mean, AMPERE, "mean over the settled cycle")),
            Figure("At the crest", shown(top, AMPERE, "the highest instant of the settled cycle")),
            Figure(
                "By the rule",
                shown(rule, AMPERE, f"2π × {hertz:g} Hz × {show(farads, FARAD)} × {show(volts, VOLT)}"),
            ),
        ]
        if fuse is not None:
            figures.append(
                Figure("Heat in the resistor before it", shown(rms**2 * fuse, WATT, "I²R, RMS", digits=2))
            )
        return Worked(
            line=(
                f"About {show(mean, AMPERE, 2)} flow; the rule of 2πfCV says {show(rule, AMPERE, 2)}, "
                f"{(rule / mean - 1) * 100:+.0f} %."
            ),
            figures=tuple(figures),
            faults=_faults(typed, string, crest),
            judged=_judged(typed, farads, crest),
            spice=write_deck(made, (f".tran {1 / hertz / 200:.6g} {40 / hertz:.6g}",)),
        )


KIND = Dropper()


def _circuit(
    typed: Details, volts: float, hertz: float, farads: float, string: float, amps: float
) -> Circuit:
    """Feed, resistor, capacitor, bridge, string; the string as one junction of so many LEDs."""
    led = catalogue()["white-3-diffused"]
    count = string / led.vf_typ
    usual = led.junction(led.vf_typ)
    junction = led.junction(2 * led.vf_typ - float(usual.volts(amps)))
    model = DiodeModel(float(junction.i_s), junction.n * count, junction.r_s * count, nominal_c=REFERENCE_C)
    diode = rectifier("power").model
    parts: list[Element] = [
        VoltageSource("Vmains", "line", "neutral", Sine(0.0, volts * math.sqrt(2), hertz)),
        Resistor("Rfuse", "line", "before", typed.value(FUSE.id) or 0.1),
        Capacitor("Cdrop", "before", "after", farads),
        Resistor("Rbleed", "before", "after", typed.value(BLEED.id) or _LEAK_OHM),
        Diode("D1", "after", "dc", diode), Diode("D2", "neutral", "dc", diode),
        Diode("D3", "0", "after", diode), Diode("D4", "0", "neutral", diode),
        Resistor("Rinsulation", "neutral", "0", 1e8),
        Diode("Dleds", "dc", "0", model),
    ]  # fmt: skip
    smooth = typed.value(SMOOTH.id)
    if smooth is not None:
        parts.append(Capacitor("Csmooth", "dc", "0", smooth))
    return Circuit(tuple(parts), celsius=REFERENCE_C, title="dropper capacitor")


def _faults(typed: Details, string: float, crest: float) -> tuple[Fault, ...]:
    """What a fault does to the others, for understanding (charge; the crest where nothing flows)."""
    count = max(round(string / catalogue()["white-3-diffused"].vf_typ), 1)
    out = [
        Fault(
            "The dropper is a short", "All of the mains stands over LEDs and resistor: one of them ends it."
        )
    ]
    if count > 1:
        # The string's volts hardly count: I = 4·f·C·(√2·V − Vstring).
        share = (crest - string * (count - 1) / count) / (crest - string)
        out.append(
            Fault(
                "An LED is a short",
                f"{share * 100:.0f} % of the current in the others: hardly a change.",
            )
        )
    if typed.value(SMOOTH.id) is None:
        opened = "All of it is dark; the dropper stays charged."
    else:
        opened = (
            f"Dark, and the smoothing capacitor climbs to {show(crest, VOLT)}: one that was made for the string's "
            "volts bursts."
        )
    out.append(Fault("An LED is open", opened))
    shrunk = (
        f"{(1 - _AGED) * 100:.0f} % of the current: such capacitors shrink with every surge, the light too."
    )
    out.append(Fault("The dropper has lost a tenth of itself", shrunk))
    return tuple(out)


def _judged(typed: Details, farads: float, crest: float) -> tuple[Judged, ...]:
    out = [Judged("stop", "Nothing is to be done to it here.", "Live on the mains throughout: qualified people, "
        "unplugged, discharged.")]  # fmt: skip
    bleed = typed.value(BLEED.id)
    if bleed is None:
        out.append(Judged("stop", f"No resistor empties its capacitor: it may hold {show(crest, VOLT)} after "
                                  f"unplugging.",
                          "It may stay charged for days."))  # fmt: skip
    else:
        seconds = bleed * farads * math.log(crest / _SAFE_V) if crest > _SAFE_V else 0.0
        told = shown(seconds, SECOND, "R·C·ln(crest/60 V)", Source.COMPUTED, digits=2).text
        out.append(Judged("mind", f"After unplugging its capacitor takes {told} to fall under 60 V.",
                          "By R·C; a bleeder may be open. Wait, then have it measured."))  # fmt: skip
    return tuple(out)
