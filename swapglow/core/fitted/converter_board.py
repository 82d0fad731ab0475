"""A switching converter that feeds LEDs: what it gives is known by reading, and less is had by another driver."""

import math

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Circuit, CurrentSource, Dc, Diode, DiodeModel, VoltageSource
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.afterwards import PLUG_SHARE
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.light import as_seen
from swapglow.core.fitted.worked import Fault, Figure, Judged, Worked
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.photometry.light_law import light_ratio
from swapglow.core.quantities import AMPERE, VOLT, WATT, InputError, Shown, show, shown
from swapglow.core.quantities.inputs import read_share

STRING = Detail(
    "string", "Volts over all LEDs, lit", VOLT, "36V, as marked, or LEDs times 3 V; not read live"
)
READ = Detail(
    "read", "Current through them", AMPERE, "300mA, as marked; or 10W of LEDs at those volts", at="string"
)
PLUG = Detail("plug", "Power at the plug", WATT, "11W, off a plug-in meter, where no current is marked")
WANTED = Detail("wanted", "Of the light there is now", None, "50 %; empty takes half")

_WHITE = "white-3-diffused"
# A driver's window should hold the string's volts with so much to spare on either side (ours).
_WINDOW = 0.15


class ConverterBoard(FittedKind):
    """Boards with a coil or a transformer that switch their feed many thousand times a second."""

    id = "converter_board"
    order = 1
    label = "Switching converter"
    looks = (
        "A coil or small transformer, a fast diode, electrolytics on both sides, often a chip of six or eight legs and "
        "an optocoupler. It runs on a wide range of volts and gives one current."
    )
    never = (
        "Its mains side is live throughout and its first capacitor holds some three hundred volts: qualified people "
        "only, unplugged, discharged. Clip no resistor on it: which sets the current, and how, differs by chip."
    )
    details = (STRING, READ, PLUG, WANTED)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """What it gives now, and the driver that gives less."""
        (volts,) = typed.needed(STRING)
        now = _now(typed, volts)
        amps = now.value
        wanted = read_share(WANTED.id, typed.text(WANTED.id), 0.5)
        if not 0.02 <= wanted < 1:
            raise InputError(WANTED.id, "Between 2 and 99 % of the light there is now: 50 % is half.")
        led = catalogue()[_WHITE]
        less = _for_light(led, amps, wanted)
        watts = "volts times amps"
        return Worked(
            line=(
                f"Leave its resistors. A driver of {show(less, AMPERE, 2)} with {show(volts, VOLT)} in its window: "
                f"{as_seen(led, amps, less)}"
            ),
            figures=(
                Figure(
                    "Through the LEDs", now,
                    shown(less, AMPERE, "by the light law of white LEDs", digits=2),
                ),
                Figure("Power in the LEDs", shown(volts * amps, WATT, watts), shown(volts * less, WATT, watts)),
            ),
            faults=_FAULTS,
            judged=(_LEAVE, _driver(less, volts)),
            spice=_deck(led, volts, amps),
        )  # fmt: skip


KIND = ConverterBoard()


_FAULTS = (
    Fault(
        "An LED is a short", "The same current in the others, so long as the volts left stay in its window."
    ),
    Fault(
        "An LED is open",
        "All of its string is dark; the output climbs to its limit: mind that capacitor's rating.",
    ),
    Fault(
        "It blinks once a second or so",
        "It starts and gives up: a short, an open string, or volts out of its window.",
    ),
)
_LEAVE = Judged(
    "stop",
    "Nothing on it is to be changed here.",
    "Whether a resistor sets a peak, a mean or a limit is the chip's affair, and its feedback may run away.",
)


def _now(typed: Details, volts: float) -> Shown:
    """What flows now: as marked, or by the power at the plug."""
    marked, plug = typed.figure(READ.id), typed.figure(PLUG.id)
    if marked is not None:
        return shown(marked.value, AMPERE, "as typed", marked.source)
    if plug is None:
        raise InputError(READ.id, f"Type this too: {READ.hint}.")
    origin = f"{PLUG_SHARE * 100:.0f} % of {show(plug.value, WATT)} at the plug over {show(volts, VOLT)}"
    return shown(PLUG_SHARE * plug.value / volts, AMPERE, origin, digits=2)


def _driver(amps: float, volts: float) -> Judged:
    low, high = show(volts * (1 - _WINDOW), VOLT, 2), show(volts * (1 + _WINDOW), VOLT, 2)
    return Judged(
        "note",
        f"Another driver: {show(amps, AMPERE, 2)}, with a window from under {low} to over {high}.",
        "Matched in current and in window (ours: 15 % to spare on either side). Approval is its maker's.",
    )


def _for_light(led: Led, amps: float, share: float) -> float:
    """The current at which so much of the light is left, A, by halving."""
    low, high = amps * 1e-4, amps
    for _ in range(50):
        middle = math.sqrt(low * high)
        low, high = (middle, high) if light_ratio(led, middle, amps) < share else (low, middle)
    return high


def _deck(led: Led, volts: float, amps: float) -> str:
    """The string on the current it is given: so many dice as make its volts, each as large as its current."""
    dice, size = max(round(volts / led.vf_typ), 1), amps / led.vf_a
    junction = led.junction(led.vf_typ)
    model = DiodeModel(
        float(junction.i_s) * size, junction.n * dice, junction.r_s * dice / size, nominal_c=REFERENCE_C
    )
    parts = (
        CurrentSource("Igiven", "0", "out", Dc(amps)),
        VoltageSource("Vmeter", "out", "leds", Dc(0.0)),
        Diode("Dleds", "leds", "0", model),
    )
    return write_deck(Circuit(parts, celsius=REFERENCE_C, title="switching converter"))
