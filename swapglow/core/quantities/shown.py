"""A figure as it is shown: number and unit as an engineer writes them, and where it came from."""

from dataclasses import dataclass

from swapglow.core.quantities.provenance import Source
from swapglow.core.quantities.show import percent_number, plain_or_engineering
from swapglow.core.quantities.units import Unit


@dataclass(frozen=True)
class Shown:
    """A figure: SI value, number and unit as printed, and its origin in words."""

    value: float
    number: str
    unit: str
    source: Source
    origin: str

    @property
    def text(self) -> str:
        """Number and unit together; what has no unit stands alone."""
        return f"{self.number}\u00a0{self.unit}" if self.unit else self.number


def shown(value: float, unit: Unit | str, origin: str, source: Source = Source.COMPUTED, digits: int = 3) -> Shown:
    """A figure in engineering form.

    Args:
        value: in SI units.
        unit: the unit, or its symbol.
        origin: where it came from, in words.
        source: measured, marked, assumed or computed.
        digits: significant figures.

    Returns:
        The figure with its prefix folded into the unit.
    """
    symbol = unit if isinstance(unit, str) else unit.symbol
    number, prefix = plain_or_engineering(value, symbol, digits)
    return Shown(float(value), number, prefix + symbol, source, origin)


def percent_shown(share: float, origin: str, source: Source = Source.COMPUTED) -> Shown:
    """A share in whole per cent.

    Args:
        share: 0.4 for 40 %.
        origin: where it came from, in words.
        source: measured, marked, assumed or computed.

    Returns:
        The figure; its value is the share.
    """
    return Shown(share, percent_number(share), "%", source, origin)
