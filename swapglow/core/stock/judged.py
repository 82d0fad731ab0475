"""Combinations judged where they would be fitted: by the solved circuit at its corners, not by the nominal value."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from swapglow.core.analysis.solution import solve
from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.findings import context_of, judge
from swapglow.core.parts.resistor import rating_to_fit
from swapglow.core.quantities import AMPERE, OHM, percent, show
from swapglow.core.stock.combination import WAYS, Combination, combinations

Grade = Literal["stop", "mind", "fits", ""]
# A drawer's resistors are of this where nothing is known of them.
_USUAL_W = 0.25


@dataclass(frozen=True)
class Made:
    """A combination as it is shown.

    Attributes:
        parts: each value, in the order of its way.
        way: how they are put together, in words.
        drawn: the way's name, for the drawing.
        text: what they come to.
        error: how far that is from what was asked.
        shares: of the heat, each part's.
        current: at the low, usual and high rail; "" where no lamp was named.
        grade, why: the gravest of its findings there; "" where no lamp was named, or it raises none.
        typed: the value as it may be typed into a field.
    """

    parts: tuple[str, ...]
    way: str
    drawn: str
    text: str
    error: str
    shares: tuple[str, ...]
    current: str
    grade: Grade
    why: str
    typed: str


def made_of(
    target: float, drawer: Mapping[float, int | None], tolerance: float, position: Position | None = None
) -> tuple[Made, ...]:
    """What a resistance can be made of, each judged in its place.

    Args:
        target: what is asked, Ω.
        drawer: values at hand, Ω, with how many of each; None for enough.
        tolerance: of the parts, 0.05 for 5 %.
        position: where it would be fitted; None judges none.

    Returns:
        The few, the best first; what something forbids comes last.
    """
    made = [_made(c, position, tolerance) for c in combinations(target, drawer, tolerance)]
    return tuple(sorted(made, key=lambda m: m.grade == "stop"))


def _made(c: Combination, position: Position | None, tolerance: float) -> Made:
    text = show(c.ohm, OHM)
    current, why = "", ""
    grade: Grade = ""
    if position is not None:
        current, grade, why = _judged(c, position, tolerance)
    return Made(
        tuple(show(r, OHM, 6) for r in c.ohms),
        WAYS[c.way],
        c.way,
        text,
        "0 %" if abs(c.error) < 5e-5 else f"{c.error * 100:+.1f} %",
        tuple(percent(x) for x in c.shares),
        current,
        grade,
        why,
        show(c.ohm, OHM, 6),
    )


def _judged(c: Combination, p: Position, tolerance: float) -> tuple[str, Grade, str]:
    """The lamp with it: what it draws, and what is found then. Each part runs at its own share of the heat."""
    fitted = replace(p.with_resistor(c.ohm), resistor_tolerance=max(tolerance, p.resistor_tolerance), rating_w=None)
    try:
        plain = solve(fitted)
        # A body each: the whole may carry what its hottest part can at that part's share.
        each = rating_to_fit(plain.power_w * max(c.shares), plain.resistor_v, p.celsius)
        hottest = max(c.shares)
        body = max(_USUAL_W, p.rating_w or 0.0)
        s = solve(replace(fitted, rating_w=body / hottest))
        found = [f for f in judge(context_of(s)) if f.grade in ("stop", "mind")]
    except CircuitError as problem:
        return "", "stop", str(problem)
    low, usual, high = (show(float(v), AMPERE) for v in s.usual)
    worst = sorted(found, key=lambda f: f.grade != "stop")
    needs = "" if each is None or each <= body else f" Each needs {each:g} W."
    if not worst:
        return f"{low}, {usual}, {high}", "fits", needs.strip()
    return f"{low}, {usual}, {high}", worst[0].grade, worst[0].message + needs  # type: ignore[return-value]  # stop or mind


def values_at_hand(parts: Sequence[tuple[float, int | None, bool]]) -> dict[float, int | None]:
    """Resistor values with how many of each.

    Args:
        parts: value in Ω, count or None for enough, and whether any is left.

    Returns:
        Counts of one value together; None where one compartment of it is not counted.
    """
    out: dict[float, int | None] = {}
    for ohm, count, there in parts:
        if not there:
            continue
        before = out.get(ohm, 0)
        out[ohm] = None if before is None or count is None else before + count
    return out
