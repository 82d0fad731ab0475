"""Where the meter's leads go for each reading at the lamp, so that it can be drawn."""

from dataclasses import dataclass
from typing import Literal

from swapglow.core.measurement.reading_after import KINDS, ReadingKind

Node = Literal["rail", "after_driver", "after_resistor", "ground"]


@dataclass(frozen=True)
class Leads:
    """Where two leads go.

    Attributes:
        label: what is read, as it is offered.
        mode: "across" parts, in "series" where the loop is opened, a thermocouple that "touches" one, or an eye that
            "looks".
        red, black: the points of the loop, in the order of the current's way.
        meter: what the meter is set to.
        unit: what a bare number is taken in.
        line: the same in words.
    """

    label: str
    mode: Literal["across", "series", "touches", "looks"]
    red: Node
    black: Node
    meter: Literal["V", "A", "Ω", "°C", "eye"]
    unit: Literal["V", "mA", "Ω", "°C", ""]
    line: str


def _volts(label: str, red: Node, black: Node, line: str) -> Leads:
    return Leads(label, "across", red, black, "V", "V", line)


def _warm(kind: ReadingKind, part: str) -> Leads:
    return Leads(
        KINDS[kind],
        "touches",
        "after_resistor",
        "after_resistor",
        "°C",
        "°C",
        f"Thermocouple on {part}, held by tape or a drop of paste, lit for half an hour",
    )


def _look(kind: ReadingKind, line: str) -> Leads:
    return Leads(KINDS[kind], "looks", "after_resistor", "after_resistor", "eye", "", line)


_RAIL = "Red lead on the rail, black on its other side"
_LED = "Red lead between resistor and LED, black on the LED's other side"

# By what is read, as a bench reading names it (common practice).
LEADS: dict[str, Leads] = {
    "current": Leads(
        KINDS["current"],
        "series",
        "after_resistor",
        "after_resistor",
        "A",
        "mA",
        "Loop opened between resistor and LED, the meter in the gap",
    ),
    "resistor_volts": _volts(
        KINDS["resistor_volts"], "after_driver", "after_resistor", "Red lead before the resistor, black behind it"
    ),
    "led_volts": _volts(KINDS["led_volts"], "after_resistor", "ground", _LED),
    "lamp_volts": _volts(
        KINDS["lamp_volts"],
        "after_driver",
        "ground",
        "Red lead on the wire that comes to the lamp, black on the one that leaves it, lit",
    ),
    "supply_volts": _volts(KINDS["supply_volts"], "rail", "ground", "As the rail is read, while the LED is on it"),
    "plus_volts": _volts(
        KINDS["plus_volts"],
        "after_driver",
        "ground",
        "Black lead stays on ground, red on the wire that comes to the lamp, lit",
    ),
    "minus_volts": _volts(
        KINDS["minus_volts"],
        "ground",
        "ground",
        "Black lead stays on ground, red on the wire that leaves the lamp, lit",
    ),
    "resistor_ohms": Leads(
        KINDS["resistor_ohms"],
        "across",
        "after_driver",
        "after_resistor",
        "Ω",
        "Ω",
        "Power off, one of its leads lifted",
    ),
    "led_straight": _volts(
        KINDS["led_straight"],
        "after_resistor",
        "ground",
        "Power off, diode range, red lead on the side that should be positive; each LED in turn. OL for none",
    ),
    "led_turned": _volts(
        KINDS["led_turned"],
        "ground",
        "after_resistor",
        "Power off, diode range, red lead on the side that should be negative; each LED in turn. OL for none",
    ),
    "resistor_celsius": _warm("resistor_celsius", "the middle of the resistor's body"),
    "led_celsius": _warm("led_celsius", "the LED's minus leg, close to the body"),
    "regulator_celsius": _warm("regulator_celsius", "the regulator's tab"),
    "look": _look("look", "Switched on, from where it is looked at"),
    "look_other": _look(
        "look_other", "Power off: another LED of its kind on clips in its place, the same way round. Then switched on"
    ),
    "rail_usual": _volts("Rail, usual", "rail", "ground", _RAIL),
    "rail_low": _volts("Rail, lowest", "rail", "ground", _RAIL),
    "rail_high": _volts("Rail, highest", "rail", "ground", _RAIL),
    "driver_drop": _volts(
        "Across the driver, lit", "rail", "after_driver", "Red lead before the driver, black behind it"
    ),
    "led_vf": _volts("One LED on clips", "after_resistor", "ground", _LED),
    "source_short": Leads(
        "Current, shorted",
        "across",
        "after_driver",
        "ground",
        "A",
        "mA",
        "Meter in the lamp's place: red lead on the line, black on its other side",
    ),
}
