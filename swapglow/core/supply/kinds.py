"""The kinds of supply: what to expect of each, which readings it needs, what may stand in for them.

Figures are common practice unless a source is named.
"""

from dataclasses import dataclass
from typing import Literal

from swapglow.core.quantities import AMPERE, AMPERE_HOUR, HERTZ, OHM, VOLT, Unit

SupplyKind = Literal[
    "regulated", "unregulated", "vehicle", "battery", "winding", "stator", "reversing", "digital",
    "logic", "sense",
]  # fmt: skip

# How current runs: one way; as a sine; one way or the other; both ways by turns, flat.
Flow = Literal["dc", "sine", "reversing", "pulses"]


@dataclass(frozen=True)
class Detail:
    """A further figure a kind of supply asks for.

    Attributes:
        id: its name in records and documents.
        unit: None for a choice among ``options``, or a plain count.
        hint: how to write it, or what stands in for it when it is left empty.
    """

    id: str
    label: str
    unit: Unit | None
    hint: str
    options: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True)
class Kind:
    """A kind of supply.

    Attributes:
        expect: what to expect of it, in a line.
        levels: names of its lowest, usual and highest level.
        low_share, high_share: ends that stand in for readings nobody took, as shares of the usual;
            None where one value then stands for all three.
    """

    id: SupplyKind
    label: str
    flow: Flow
    expect: str
    levels: tuple[str, str, str]
    details: tuple[Detail, ...] = ()
    low_share: float | None = None
    high_share: float | None = None


_OPEN = Detail("open", "Open reading", VOLT, "With the lamp out. Empty: no sag is reckoned with")
_LOAD = Detail(
    "load", "Load while reading", AMPERE, "Current of the loaded reading. Empty takes the old lamp's"
)
_HERTZ = Detail("hertz", "Frequency", HERTZ, "50Hz, 60Hz, 400Hz. Empty takes 50 Hz")
_GROUNDED = Detail(
    "grounded", "One leg on the frame?", None, "Continuity from each leg to the frame, supply off",
    (("unknown", "Not known"), ("yes", "Yes"), ("no", "No")),
)  # fmt: skip

KINDS: dict[SupplyKind, Kind] = {
    k.id: k
    for k in (
        Kind(
            "regulated", "Regulated DC", "dc",
            "Steady within a few per cent. What decides is the measured value and its tolerance.",
            ("lowest", "usual", "highest"),
        ),
        Kind(
            "unregulated", "Unregulated DC", "dc",
            "Sags 10 to 30 % from open to loaded, and follows the mains by ±10 %. Open and loaded "
            "readings give its source resistance.",
            ("mains low", "usual", "mains high"), (_OPEN, _LOAD), 0.9, 1.1,
        ),
        Kind(
            "vehicle", "Vehicle battery and charger", "dc",
            "At rest, charging and cranking it stands at three levels; surges go far above. Size at "
            "the charging voltage, never at the battery's name.",
            ("at rest", "running", "charging"),
            (
                Detail("system", "System", None, "", (("12", "12 V"), ("6", "6 V"), ("24", "24 V"))),
                Detail("crank", "While cranking", VOLT, "6V. Empty takes half the system's name"),
            ),
        ),
        Kind(
            "battery", "Battery", "dc",
            "Falls through its life. Its own resistance may be all that limits the current.",
            ("spent", "half used", "fresh"),
            (
                Detail("chemistry", "Cells", None, "", ()),
                Detail("cells", "Cells in series", None, "1, 3; 6 for a 9 V block"),
                Detail("capacity", "Capacity", AMPERE_HOUR, "220mAh. Empty takes the kind's usual"),
                Detail("source", "Resistance of all cells", OHM, "Empty takes the kind's usual"),
            ),
        ),
        Kind(
            "winding", "AC winding", "sine",
            "A sine: its peak is 1.414 times what the meter reads. Unloaded windings read 10 to 30 % "
            "high, and follow the mains.",
            ("mains low", "usual", "mains high"), (_HERTZ, _OPEN, _LOAD, _GROUNDED), 0.9, 1.1,
        ),
        Kind(
            "stator", "Stator AC, no battery", "sine",
            "Volts and frequency follow the speed. The peak at full speed decides every rating, the "
            "idle decides the flicker.",
            ("idle", "running", "full speed"),
            (
                Detail("hertz_low", "Frequency at idle", HERTZ, "60Hz. Empty goes with the volts"),
                Detail("hertz", "Frequency running", HERTZ, "150Hz. Empty takes 100 Hz"),
                Detail("hertz_high", "Frequency at full speed", HERTZ, "400Hz. Empty goes with the volts"),
                _GROUNDED,
            ),
        ),
        Kind(
            "reversing", "Reversing DC, model track", "reversing",
            "Turns round with the direction of travel. Reverse volts on the LED, and the least "
            "voltage that lights it, decide.",
            ("crawl", "running", "full"), (),
        ),
        Kind(
            "digital", "Digital model track", "pulses",
            "Neither DC nor ordinary AC: flat pulses of both signs. A meter's AC reading is not to be "
            "trusted on it. Rectify; or dim by the decoder's own settings, with no solder at all.",
            ("lowest", "usual", "highest"), (),
        ),
        Kind(
            "logic", "Logic output", "dc",
            "3.3 or 5 V and a few milliamps: the pin's current decides, not the LED's. A common limit "
            "is 16 mA, a sane budget 2 to 8 mA.",
            ("lowest", "usual", "highest"),
            (
                Detail("pin", "Allowed pin current", AMPERE, "From the data sheet. Empty takes 8 mA"),
                Detail("source", "Output resistance", OHM, "Empty: none is reckoned with"),
            ),
        ),
        Kind(
            "sense", "Switch or sense line", "dc",
            "Read by the equipment and not meant to feed anything. What decides is the current at "
            "which it is taken for closed.",
            ("lowest", "open", "highest"),
            (
                Detail("source", "Source resistance", OHM, "Kilohms; from open volts and shorted amps"),
                Detail("trip", "Trips at", AMPERE, "Current taken for a closed contact, 1.2mA"),
                Detail("works", "Trial: still switches with", OHM, "Least resistor it still ignored, 6k2"),
                Detail("fails", "Trial: no longer with", OHM, "Largest that it took for closed, 5k1"),
                Detail("trial_with", "The trials were with", None, "",
                       (("led", "This LED in series"), ("alone", "The resistor alone"))),
            ),
        ),
    )
}  # fmt: skip

# Usual, lowest and highest volts by the system's name, and while cranking (common practice; 6 and
# 24 V cranking in proportion to the 12 V system's 6 V).
VEHICLE_LEVELS: dict[str, tuple[float, float, float, float]] = {
    "6": (5.5, 6.9, 7.4, 3.0),
    "12": (11.5, 13.8, 14.7, 6.0),
    "24": (22.0, 27.6, 29.0, 12.0),
}
# Suppressed load dump, volts (ISO 16750-2, test B; from memory).
VEHICLE_SURGE: dict[str, float] = {"6": 18.0, "12": 35.0, "24": 58.0}

USUAL_PIN_A = 8e-3
USUAL_HERTZ = 50.0
STATOR_HERTZ = 100.0
