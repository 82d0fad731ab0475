"""A switching converter that feeds LEDs: what it gives is known by reading, and less is had by another driver."""

import math
from dataclasses import dataclass

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import CircuitResult, Fault, Figure
from swapglow.core.circuits.toolkit.light import as_seen
from swapglow.core.circuits.toolkit.ratings import StatedAmps
from swapglow.core.circuits.toolkit.read_after import PLUG_SHARE
from swapglow.core.circuits.toolkit.wiring import Wiring
from swapglow.core.engine.netlist import CurrentSource, Dc
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import catalogue
from swapglow.core.photometry.light_law import light_ratio
from swapglow.core.quantities import AMPERE, VOLT, WATT, InputError, Shown, show, shown
from swapglow.core.quantities.inputs import read_share

STRING = Detail("string", "Volts over all LEDs, lit", VOLT, "36V, as marked, or LEDs times 3 V; not read live")
READ = Detail("read", "Current through them", AMPERE, "300mA, as marked; or 10W of LEDs at those volts", at="string")
PLUG = Detail("plug", "Power at the plug", WATT, "11W, off a plug-in meter, where no current is marked")
WANTED = Detail("wanted", "Of the light there is now", None, "50 %; empty takes half")

_WHITE = catalogue()["white-3-diffused"]
# A driver's window should hold the string's volts with so much to spare on either side (ours).
_WINDOW = 0.15


@dataclass(frozen=True)
class ConverterCase:
    """What it feeds: volts over all LEDs, what flows now, and the share of the light that is wanted."""

    volts: float
    now: Shown
    wanted: float

    @property
    def less_a(self) -> float:
        """The current at which so much of the light is left, A, by halving."""
        low, high = self.now.value * 1e-4, self.now.value
        for _ in range(50):
            middle = math.sqrt(low * high)
            low, high = (middle, high) if light_ratio(_WHITE, middle, self.now.value) < self.wanted else (low, middle)
        return high


class ConverterBoard(CircuitKind[ConverterCase]):
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
    parts = (("Igiven", "converter", "read"), ("Vmeter", "meter", ""), ("Dleds", "LEDs", "string"))
    details = (STRING, READ, PLUG, WANTED)

    def case(self, typed: Details) -> ConverterCase:
        """What it feeds, as typed: the current as marked, or by the power at the plug."""
        (volts,) = typed.needed(STRING)
        marked, plug = typed.figure(READ.id), typed.figure(PLUG.id)
        if marked is not None:
            now = shown(marked.value, AMPERE, "as typed", marked.source)
        elif plug is not None:
            origin = f"{PLUG_SHARE * 100:.0f} % of {show(plug.value, WATT)} at the plug over {show(volts, VOLT)}"
            now = shown(PLUG_SHARE * plug.value / volts, AMPERE, origin, digits=2)
        else:
            raise InputError(READ.id, f"Type this too: {READ.hint}.")
        wanted = read_share(WANTED.id, typed.text(WANTED.id), 0.5)
        if not 0.02 <= wanted < 1:
            raise InputError(WANTED.id, "Between 2 and 99 % of the light there is now: 50 % is half.")
        return ConverterCase(volts, now, wanted)

    def states(self, case: ConverterCase) -> tuple[StatedAmps, ...]:
        """The kind and the rating of its LEDs are not known: their current is not judged."""
        return ()

    def wired(self, case: ConverterCase) -> Wiring:
        """What sets its current, and the string."""
        return _wiring(case)

    def report(self, job: Job[ConverterCase]) -> CircuitResult:
        """What it gives now, and the driver that gives less."""
        c = job.now
        amps, less, volts = c.now.value, c.less_a, c.volts
        low, high = show(volts * (1 - _WINDOW), VOLT, 2), show(volts * (1 + _WINDOW), VOLT, 2)
        origin = "volts times amps"
        return CircuitResult(
            line=f"Leave its resistors. A driver of {show(less, AMPERE, 2)} with {show(volts, VOLT)} in its window: "
            f"{as_seen(_WHITE, amps, less)}",
            figures=(
                Figure(
                    "current",
                    "Through the LEDs",
                    c.now,
                    shown(less, AMPERE, "by the light law of white LEDs", digits=2),
                ),
                Figure(
                    "power", "Power in the LEDs", shown(volts * amps, WATT, origin), shown(volts * less, WATT, origin)
                ),
            ),
            faults=_FAULTS,
            findings=(
                _LEAVE,
                Finding(
                    "another-driver",
                    "note",
                    f"Another driver: {show(less, AMPERE, 2)}, with a window from under {low} to over {high}.",
                    why="Matched in current and in window (ours: 15 % to spare on either side). Approval is its "
                    "maker's.",
                ),
            ),
            spice=_wiring(c).deck(),
        )


KIND = ConverterBoard()

_FAULTS = (
    Fault(
        "led-shorted",
        "An LED is a short",
        "The same current in the others, so long as the volts left stay in its window.",
    ),
    Fault(
        "led-open",
        "An LED is open",
        "All of its string is dark; the output climbs to its limit: mind that capacitor's rating.",
    ),
    Fault(
        "hiccups",
        "It blinks once a second or so",
        "It starts and gives up: a short, an open string, or volts out of its window.",
    ),
)
_LEAVE = Finding(
    "leave",
    "stop",
    "Nothing on it is to be changed here.",
    why="Whether a resistor sets a peak, a mean or a limit is the chip's affair, and its feedback may run away.",
)


def _wiring(c: ConverterCase) -> Wiring:
    """The string on the current it is given: so many dice as make its volts, each as large as its current."""
    w, amps = Wiring("switching converter"), c.now.value
    w.add(CurrentSource("Igiven", "0", "out", Dc(amps)))
    w.source("Vmeter", "out", 0.0, "leds")
    w.led("Dleds", "leds", "0", _WHITE, series=max(round(c.volts / _WHITE.vf_typ), 1), parallel=amps / _WHITE.vf_a)
    return w
