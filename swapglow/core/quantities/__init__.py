"""Values as people write them, and where each came from."""

from swapglow.core.quantities.echo import echo
from swapglow.core.quantities.inputs import Input, InputError
from swapglow.core.quantities.parse import Parsed, QuantityError, parse, parse_single
from swapglow.core.quantities.provenance import Figure, Source
from swapglow.core.quantities.show import engineering, hours_text, number_text, percent, show, times_text
from swapglow.core.quantities.shown import Shown, percent_shown, shown
from swapglow.core.quantities.units import (
    AMPERE,
    AMPERE_HOUR,
    CANDELA,
    CELSIUS,
    DEGREE,
    FARAD,
    HENRY,
    HERTZ,
    KELVIN_PER_WATT,
    LUMEN,
    METRE,
    NIT,
    OHM,
    SECOND,
    VOLT,
    WATT,
    Unit,
)

__all__ = [
    "AMPERE",
    "AMPERE_HOUR",
    "CANDELA",
    "CELSIUS",
    "DEGREE",
    "FARAD",
    "HENRY",
    "HERTZ",
    "KELVIN_PER_WATT",
    "LUMEN",
    "METRE",
    "NIT",
    "OHM",
    "SECOND",
    "VOLT",
    "WATT",
    "Figure",
    "Input",
    "InputError",
    "Parsed",
    "QuantityError",
    "Shown",
    "Source",
    "Unit",
    "echo",
    "engineering",
    "hours_text",
    "number_text",
    "parse",
    "parse_single",
    "percent",
    "percent_shown",
    "show",
    "shown",
    "times_text",
]
