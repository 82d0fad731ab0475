"""Symbols of IEC 60617 as SVG paths around the origin, their ends 22 to either side (numbers from memory)."""

from collections.abc import Mapping
from typing import Literal

Symbol = Literal[
    "resistor",
    "lamp",
    "diode",
    "led",
    "capacitor",
    "coil",
    "contact",
    "supply",
    "alternating",
    "current",
    "transistor",
    "block",
]

# 07-02-01 while it is closed.
CLOSED = "M-22 0H22M-12 -4V4M12 -4V4"
# Half a symbol's length.
HALF = 22.0
_ROUND = "M13 0A13 13 0 1 1 -13 0A13 13 0 1 1 13 0Z"
_LEADS = "M-22 0H-13M13 0H22"
_DIODE = "M-22 0H-9M9 0H22M9 -10V10M-9 -10L9 0L-9 10Z"

SHAPES: Mapping[Symbol, str] = {
    # 04-01-01
    "resistor": "M-22 -8H22V8H-22Z",
    # 08-10-01
    "lamp": f"{_ROUND}M-9.2 -9.2L9.2 9.2M9.2 -9.2L-9.2 9.2{_LEADS}",
    # 05-03-01 and 05-03-02
    "diode": _DIODE,
    "led": f"{_DIODE}M1 -12L8 -21M8 -21l-5 2.5M8 -21l-1.5 5.5M9 -10L16 -19M16 -19l-5 2.5M16 -19l-1.5 5.5",
    # 04-02-01
    "capacitor": "M-22 0H-4M-4 -12V12M4 -12V12M4 0H22",
    # 04-03-01
    "coil": "M-22 0a5.5 5.5 0 0 1 11 0a5.5 5.5 0 0 1 11 0a5.5 5.5 0 0 1 11 0a5.5 5.5 0 0 1 11 0",
    # 07-02-01
    "contact": "M-22 0H-12M12 0H22M-12 0L11 -11",
    # 02-16-01, with what flows in it
    "supply": f"{_ROUND}{_LEADS}M-9 0h5M-6.5 -2.5v5M4 0h5",
    "alternating": f"{_ROUND}{_LEADS}M-7 0q3.5 -9 7 0t7 0",
    # 02-16-02
    "current": f"{_ROUND}{_LEADS}M0 -13V13",
    # 05-05-02, its base downwards
    "transistor": "M-22 0H-9L-4 7M22 0H9L4 7M9 0l-1.5 5.2M9 0l-4.6 2.8M-10 7H10M0 7V22",
    # a block that keeps some volts
    "block": "M-22 -11H22V11H-22Z",
}
