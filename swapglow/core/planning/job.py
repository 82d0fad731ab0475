"""What a job took, in hours and money, beside what was estimated and what others like it took."""

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median

from swapglow.core.planning.durations import ENOUGH
from swapglow.core.quantities.everyday import hours_worked_text, money_text


@dataclass(frozen=True)
class Job:
    """An item's time and money.

    Attributes:
        hours, price: what was written down so far, in words; "" for nothing.
        beside: against the estimate, "" where there is none.
        like: what lamps that are done took here, "" where too few are written down.
    """

    hours: str
    price: str
    beside: str
    like: str


def job(
    hours: Sequence[float],
    prices: Sequence[float],
    expected_h: float | None,
    expected_price: float | None,
    done: Sequence[float],
) -> Job:
    """Add a job up.

    Args:
        hours, prices: of each lamp, as far as they were written down; h, and the shop's own money.
        expected_h, expected_price: as estimated at take-in; None where nobody did.
        done: hours of lamps of other items that are done.

    Returns:
        The job in words.
    """
    took, paid = sum(hours), sum(prices)
    beside = []
    if hours and expected_h:
        beside.append(f"{took:.3g} h of {expected_h:.3g} h estimated{_over(took, expected_h)}")
    if prices and expected_price:
        beside.append(f"{money_text(paid)} of {money_text(expected_price)} for parts{_over(paid, expected_price)}")
    like = ""
    if len(done) >= ENOUGH:
        ends = f"{min(done):.2g} to {max(done):.2g} h"
        like = f"{len(done)} lamps that are done took {median(done):.2g} h each, {ends}."
    return Job(
        hours_worked_text(took) if hours else "",
        money_text(paid) if prices else "",
        "; ".join(beside) + ("." if beside else ""),
        like,
    )


def _over(took: float, expected: float) -> str:
    return f", {took / expected - 1:.0%} over" if took > expected * 1.005 else ""
