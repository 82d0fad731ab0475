"""Preferred values found by trying the circuit itself, and the body that stands the heat."""

from collections.abc import Callable, Sequence

from swapglow.core.parts.resistor import rating_text, rating_to_fit, stands_text
from swapglow.core.quantities import WATT, show
from swapglow.core.values import preferred


def largest(holds: Callable[[float], bool], low: float, high: float, series: str = "E12") -> float | None:
    """The largest preferred value at which something holds; it must hold below that and not above.

    Args:
        holds: whether it does at so many ohms.
        low, high: the bounds, Ω.
        series: "E12" or another.

    Returns:
        Ω; None where it holds at none.
    """
    values = preferred.values(series, low, high).tolist()
    last = _last(values, holds)
    return None if last < 0 else float(values[last])


def smallest(holds: Callable[[float], bool], low: float, high: float, series: str = "E24") -> float | None:
    """The smallest preferred value at which something holds; it must hold above that and not below.

    Args:
        holds, low, high, series: as :func:`largest`.

    Returns:
        Ω; None where it holds at none.
    """
    values = preferred.values(series, low, high).tolist()
    last = _last(values, lambda v: not holds(v))
    return None if last + 1 == len(values) else float(values[last + 1])


def nearest(values: Sequence[float], off: Callable[[float], float]) -> float:
    """Of rising values the one at which what falls with them is nearest to nothing, by halving.

    Args:
        values: rising.
        off: more than nothing while the value is too small.

    Returns:
        One of them.
    """
    at = max(_last(values, lambda v: off(v) > 0), 0)
    return min(values[at : at + 2], key=lambda v: abs(off(v)))


def _last(values: Sequence[float], holds: Callable[[float], bool]) -> int:
    """Place of the last value at which it holds; -1 for none."""
    low, high = -1, len(values)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if holds(values[middle]) else (low, middle)
    return low


def body_text(watts: float, volts: float, celsius: float = 25.0) -> str:
    """Heat, and the body that stands it: "0.42 W: 1 W stands it".

    Args:
        watts, volts: in the resistor, and across it.
        celsius: the air around it.

    Returns:
        The clause.
    """
    return f"{show(watts, WATT)}: {stands_text(rating_to_fit(watts, volts, celsius))}"


def to_fit(watts: float, volts: float) -> str:
    """The rating to buy: "¼ W"; empty where no leaded body will do.

    Args:
        watts, volts: in it, and across it.

    Returns:
        The rating.
    """
    rating = rating_to_fit(watts, volts)
    return "" if rating is None else rating_text(rating)
