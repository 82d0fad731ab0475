"""The units the bench uses, and how each may be written."""

from dataclasses import dataclass

PREFIXES: dict[str, float] = {
    "p": 1e-12,
    "n": 1e-9,
    "u": 1e-6,
    "m": 1e-3,
    "": 1.0,
    "k": 1e3,
    "K": 1e3,
    "M": 1e6,
    "G": 1e9,
}


@dataclass(frozen=True)
class Unit:
    """A unit with the ways people write it.

    Attributes:
        symbol: printed symbol, "Ω".
        noun: what a value of it is called in messages, with its article.
        spellings: accepted spellings after the SI prefix, compared without case.
        infix: letters that may stand for the decimal point, "4R7".
        examples: what to show when a text cannot be read.
        largest: magnitude beyond which a value is refused as a slip.
    """

    symbol: str
    noun: str
    spellings: tuple[str, ...]
    infix: tuple[str, ...]
    examples: str
    largest: float


VOLT = Unit("V", "a voltage", ("v", "volt", "volts"), ("v",), "24V, 13.8, 12.0-14.4V or 5V±5%", 100e3)
AMPERE = Unit("A", "a current", ("a", "amp", "amps", "ampere", "amperes"), ("a",), "20mA, .02A or 5-10mA", 1e4)
OHM = Unit("Ω", "a resistance", ("ohm", "ohms", "r", "ω"), ("r", "ω"), "470R, 4k7, 4,7 k, 1M or 1.2kΩ", 1e12)
WATT = Unit("W", "a power", ("w", "watt", "watts"), ("w",), "0.25W or 250mW", 1e6)
CANDELA = Unit("cd", "a luminous intensity", ("cd", "candela", "mscp"), (), "800mcd or 1.2cd", 1e6)
HERTZ = Unit("Hz", "a frequency", ("hz", "hertz"), (), "50Hz, 400Hz or 60-240Hz", 1e9)
FARAD = Unit("F", "a capacitance", ("f", "fd", "farad", "farads"), (), "100uF, 47µF, 10MFD or 2.2mF", 10.0)
SECOND = Unit("s", "a time", ("s", "sec", "second", "seconds"), (), "2ms, 0.25s or 40us", 1e9)
AMPERE_HOUR = Unit("Ah", "a capacity", ("ah",), (), "220mAh or 1.2Ah", 1e6)
METRE = Unit("m", "a length", ("m", "metre", "metres"), (), "12mm or 0.3m", 1e3)
DEGREE = Unit("°", "an angle", ("°", "deg", "degree", "degrees"), (), "30° or 60", 360.0)
LUMEN = Unit("lm", "a luminous flux", ("lm", "lumen", "lumens"), (), "3lm or 800mlm", 1e7)
NIT = Unit("cd/m²", "a luminance", ("cd/m²", "nit"), (), "300cd/m²", 1e12)
CELSIUS = Unit("°C", "a temperature", ("°c", "c", "degc", "celsius"), (), "25°C or 60", 1e4)
HENRY = Unit("H", "an inductance", ("h", "henry", "henries"), (), "500mH or 1.2H", 1e4)
KELVIN_PER_WATT = Unit("K/W", "a thermal resistance", ("k/w", "c/w", "°c/w"), (), "1.8K/W or 0.6", 1e4)
