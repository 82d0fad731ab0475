"""Values as people write them, and where each came from."""

from swapglow.core.quantities.parse import Parsed, QuantityError, parse, parse_single
from swapglow.core.quantities.provenance import Figure, Source
from swapglow.core.quantities.show import engineering, show
from swapglow.core.quantities.units import (
    AMPERE,
    AMPERE_HOUR,
    CANDELA,
    CELSIUS,
    FARAD,
    HERTZ,
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
    "FARAD",
    "HERTZ",
    "OHM",
    "SECOND",
    "VOLT",
    "WATT",
    "Figure",
    "Parsed",
    "QuantityError",
    "Source",
    "Unit",
    "engineering",
    "parse",
    "parse_single",
    "show",
]
