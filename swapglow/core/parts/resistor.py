"""Resistors: what power a part may take, which to fit, and splits into two."""

from dataclasses import dataclass

from swapglow.core.parts import preferred
from swapglow.core.parts.catalogue import rows

# Keep to half the rating in a closed case (common practice).
WORKING_FRACTION = 0.5


@dataclass(frozen=True)
class Package:
    """A body a resistor comes in; the power is its rating in free air at 70 °C."""

    id: str
    label: str
    power_w: float
    mount: str


def packages() -> tuple[Package, ...]:
    """The packages of the catalogue, weakest first."""
    return tuple(Package(r["id"], r["label"], float(r["power_w"]), r["mount"]) for r in rows("packages"))


_FRACTIONS = {0.125: "⅛", 0.25: "¼", 0.5: "½"}


def rating_text(watts: float) -> str:
    """A rating as the part is called: "¼ W", "2 W"."""
    return f"{_FRACTIONS.get(watts, f'{watts:g}')} W"


RATINGS_W: tuple[float, ...] = tuple(sorted({p.power_w for p in packages() if p.mount == "leaded"}))


def rating_to_fit(power_w: float, fraction: float = WORKING_FRACTION) -> float | None:
    """The smallest leaded rating that runs at no more than ``fraction`` of itself, in watts.

    Returns None where no leaded part of the catalogue will do.

    Args:
        power_w: what it dissipates, W.
        fraction: of its rating it may run at.

    Returns:
        W; None where no leaded part of the catalogue will do.
    """
    return next((r for r in RATINGS_W if power_w <= r * fraction * (1 + 1e-9)), None)


@dataclass(frozen=True)
class Split:
    """Two parts in series in place of one."""

    first_ohm: float
    second_ohm: float

    @property
    def total_ohm(self) -> float:
        """Resistance of the pair."""
        return self.first_ohm + self.second_ohm


def halves(ohms: float, series: str, rounding: preferred.Rounding = "up") -> Split:
    """Two equal parts, one for each lead: each near half of ``ohms``, rounded by the rule.

    Args:
        ohms: the total wanted, Ω.
        series: "E3" to "E192".
        rounding: as for one part.

    Returns:
        The two.
    """
    half = preferred.prefer(ohms / 2, series, rounding)
    return Split(half, half)
