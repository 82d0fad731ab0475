"""Where the meter's leads go for each reading at the lamp, so that it can be drawn."""

from dataclasses import dataclass
from typing import Literal

Node = Literal["rail", "after_driver", "after_resistor", "ground"]


@dataclass(frozen=True)
class Leads:
    """Where two leads go.

    Attributes:
        label: what is read, as it is offered.
        mode: "across" parts, or in "series" where the loop is opened.
        red, black: the points of the loop, in the order of the current's way.
        meter: what the meter is set to.
        unit: what a bare number is taken in.
        line: the same in words.
    """

    label: str
    mode: Literal["across", "series"]
    red: Node
    black: Node
    meter: Literal["V", "A"]
    unit: Literal["V", "mA"]
    line: str


def _volts(label: str, red: Node, black: Node, line: str) -> Leads:
    return Leads(label, "across", red, black, "V", "V", line)


_RAIL = "Red lead on the rail, black on its other side"
_LED = "Red lead between resistor and LED, black on the LED's other side"

# By what is read, as a bench reading names it (common practice).
LEADS: dict[str, Leads] = {
    "current": Leads(
        "Current", "series", "after_resistor", "after_resistor", "A", "mA",
        "Loop opened between resistor and LED, the meter in the gap",
    ),
    "resistor_volts": _volts("Volts across the resistor", "after_driver", "after_resistor",
                             "Red lead before the resistor, black behind it"),
    "led_volts": _volts("Volts across the LEDs", "after_resistor", "ground", _LED),
    "rail_usual": _volts("Rail, usual", "rail", "ground", _RAIL),
    "rail_low": _volts("Rail, lowest", "rail", "ground", _RAIL),
    "rail_high": _volts("Rail, highest", "rail", "ground", _RAIL),
    "driver_drop": _volts("Across the driver, lit", "rail", "after_driver",
                          "Red lead before the driver, black behind it"),
    "led_vf": _volts("One LED on clips", "after_resistor", "ground", _LED),
    "source_short": Leads(
        "Current, shorted", "across", "after_driver", "ground", "A", "mA",
        "Meter in the lamp's place: red lead on the line, black on its other side",
    ),
}  # fmt: skip
