"""Resistors: what power a part may take, which to fit, and splits into two."""

from dataclasses import dataclass
from functools import cache

from swapglow.core.parts.catalogue import rows
from swapglow.core.quantities import InputError
from swapglow.core.values import preferred

# Keep to half the rating in a closed case (common practice).
WORKING_FRACTION = 0.5
# Full power up to the first, none at the second.
FULL_C, DEAD_C = 70.0, 155.0


LEAST_OHM, MOST_OHM = 1e-3, 1e9


def check_resistor(field: str, ohm: float) -> None:
    """Refuse what no resistor is.

    Args:
        field: for a refusal.
        ohm: its value.

    Raises:
        InputError: it is no resistor's.
    """
    if not LEAST_OHM <= ohm <= MOST_OHM:
        raise InputError(field, "A fitted resistor must lie between 1 mΩ and 1 GΩ.")


@dataclass(frozen=True)
class Package:
    """A body a resistor comes in.

    Attributes:
        power_w: its rating at 70 °C, on a heat sink where it is made for one.
        volts: the most across it, V.
        free_w: what it takes in free air.
        body_mm, length_mm: a common body's thickness and length.
    """

    id: str
    label: str
    power_w: float
    mount: str
    volts: float
    free_w: float
    body_mm: float
    length_mm: float


@cache
def packages() -> tuple[Package, ...]:
    """The packages of the catalogue, weakest first."""
    return tuple(
        Package(
            r["id"],
            r["label"],
            float(r["power_w"]),
            r["mount"],
            float(r["volts"]),
            float(r["free_w"]),
            float(r["body_mm"]),
            float(r["length_mm"]),
        )
        for r in rows("packages")
    )


def body_of(rating_w: float) -> Package:
    """The leaded or clad body that goes by a rating, the next larger where none does exactly."""
    bodies = [b for b in packages() if b.mount != "chip"]
    return next((b for b in bodies if b.power_w >= rating_w * (1 - 1e-9)), bodies[-1])


def takes_w(rating_w: float, celsius: float, *, on_sink: bool = False) -> float:
    """What a resistor of a rating takes where it sits.

    A part made for a heat sink takes its free-air power without one. All hold to 70 °C and fall in a
    straight line to nothing at 155 °C (film resistors' data sheets, from memory).

    Args:
        rating_w: its rating, W.
        celsius: the air around it.
        on_sink: whether it is on bare metal.

    Returns:
        W.
    """
    body = body_of(rating_w)
    free = rating_w if on_sink or body.mount != "sink" else min(rating_w, body.free_w)
    return free * min(1.0, max(0.0, (DEAD_C - celsius) / (DEAD_C - FULL_C)))


def body_celsius(watts: float, rating_w: float, celsius: float) -> float:
    """How hot a film resistor's body gets at rest.

    Its derating says it: at full power in air of 70 °C it stands at 155 °C (film resistors' data sheets, from
    memory), so that its rise goes by (155 − 70) K over its rating.

    Args:
        watts: the heat in it.
        rating_w: its rating, W.
        celsius: the air around it.

    Returns:
        °C.
    """
    return celsius + watts * (DEAD_C - FULL_C) / rating_w


_FRACTIONS = {0.125: "⅛", 0.25: "¼", 0.5: "½"}


def rating_text(watts: float) -> str:
    """A rating as the part is called: "¼ W", "2 W"."""
    return f"{_FRACTIONS.get(watts, f'{watts:g}')} W"


def stands_text(rating: float | None) -> str:
    """Which body stands a heat: "2 W stands it"; None where no leaded one does."""
    return "no leaded body stands it" if rating is None else f"{rating_text(rating)} stands it"


ALL_RATINGS_W: tuple[float, ...] = tuple(sorted({p.power_w for p in packages() if p.mount != "chip"}))
RATINGS_W: tuple[float, ...] = tuple(sorted({p.power_w for p in packages() if p.mount == "leaded"}))


def rating_to_fit(
    power_w: float, volts: float, celsius: float = 25.0, fraction: float = WORKING_FRACTION
) -> float | None:
    """The smallest leaded rating that runs at no more than ``fraction`` of what it takes, in watts.

    Every rating that is named anywhere comes from here: heat, volts and air all decide.

    Args:
        power_w: what it dissipates, W.
        volts: the most across it, V.
        celsius: the air around it.
        fraction: of what it takes it may run at.

    Returns:
        W; None where no leaded part of the catalogue will do.
    """
    return next(
        (r for r in RATINGS_W if power_w <= takes_w(r, celsius) * fraction * (1 + 1e-9) and volts <= body_of(r).volts),
        None,
    )


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
