"""Lamps that are alike, judged by a few readings: how far parts alone let them differ, and which one stands out."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.stats import chi2, t

from swapglow.core.analysis.solution import solve
from swapglow.core.design.position import Position
from swapglow.core.evidence.alike import PART_OF_LOT
from swapglow.core.evidence.hypotheses import lot_v, nothing_wrong, one_string
from swapglow.core.evidence.metered import as_shown, last_digit
from swapglow.core.evidence.predict import LED, OHMS, UNKNOWNS, Draws, led_sigma, predict
from swapglow.core.measurement.reading_after import KINDS, ReadingAfter, ReadingKind
from swapglow.core.quantities import Shown

FloatArray = NDArray[np.float64]
Verdict = Literal["one", "alike", "odd", "wide"]

# Readings by which lamps are compared: live figures of the lamp's own.
COMPARED: tuple[ReadingKind, ...] = ("current", "led_volts", "resistor_volts")
# So many draws of parts tell how far lamps differ.
_DRAWS = 64
# A lamp so many sigmas from the others is one that differs: of a thousand sound lamps two or three do (normal).
_STANDS_OUT = 3.0
# Readings with one meter differ by this share where nothing does (common practice).
_REPEATS = 0.005
# The spread counts as too wide if parts alone would reach it this rarely.
_RARE = 0.01
# Of lamps that were not read, this share lies within what is said.
_WITHIN = 0.95


@dataclass(frozen=True)
class OneOfLot:
    """A lamp of the lot that was read.

    Attributes:
        id, name: the record's own.
        reading: what it read.
        odd: whether it stands out.
    """

    id: str
    name: str
    reading: Shown
    odd: bool


@dataclass(frozen=True)
class Lot:
    """Alike lamps by one kind of reading.

    Attributes:
        kind: what was read, and how it is called.
        read: those that were read.
        of: how many lamps there are.
        low, high: 95 of 100 of the other lamps read between these; None with fewer than two readings that agree.
        parts: how far parts alone let two lamps differ: one sigma.
        verdict: "one" reading only; "alike"; some are "odd"; the spread is too "wide" for the parts.
        line: the same in words.
    """

    kind: ReadingKind
    label: str
    read: tuple[OneOfLot, ...]
    of: int
    low: Shown | None
    high: Shown | None
    parts: Shown
    verdict: Verdict
    line: str


def judge(position: Position, reading: ReadingAfter, read: Sequence[tuple[str, str, float]], of: int) -> Lot:
    """Judge lamps that are alike by those that were read.

    Args:
        position: one of them, as it was typed.
        reading: one of theirs, of a kind in :data:`COMPARED`; its value does not matter.
        read: id, name and value of each that was read, SI units; at least one.
        of: how many lamps there are.

    Returns:
        The lot. What stands out does not count for the others.

    Raises:
        NotConverged: the lamp has no answer.
    """
    kind, values = reading.kind, np.array([v for _, _, v in read])
    parts = _between(position, replace(reading, id="", value=0.0, note="", fitted=""))
    sigma = float(np.hypot(parts, max(_REPEATS * abs(np.median(values)), last_digit(kind))))
    odd = _odd(values, sigma)
    kept = values[~odd]
    # Of two that differ nothing says which is as it should be.
    unclear = len(kept) == 0
    wide = len(kept) > 2 and _is_wide(kept, sigma)
    low, high = (None, None) if len(kept) < 2 else _others(kept, sigma, wide=wide)
    origin = "what was read, and how far parts let lamps differ"
    ends = (None, None) if low is None or high is None else (as_shown(low, kind, origin), as_shown(high, kind, origin))
    names = [name for (_, name, _), o in zip(read, odd, strict=True) if o]
    verdict: Verdict = "one" if len(values) == 1 else "odd" if odd.any() else "wide" if wide else "alike"
    return Lot(
        kind,
        KINDS[kind],
        tuple(
            OneOfLot(id_, name, as_shown(v, kind, "read at the bench"), bool(o))
            for (id_, name, v), o in zip(read, odd, strict=True)
        ),
        of,
        ends[0],
        ends[1],
        as_shown(sigma, kind, "LEDs of one lot and resistors within their tolerance, solved", 2),
        verdict,
        _line(verdict, names, len(values), of, ends, unclear=unclear),
    )


@lru_cache(maxsize=128)
def _between(position: Position, reading: ReadingAfter) -> float:
    """How far parts alone let lamps of one lot differ: one sigma of the reading, A or V."""
    s = solve(position, rule=False)
    p = one_string(s)
    sound = next(iter(nothing_wrong(p)))
    z = np.random.default_rng(1).standard_normal((_DRAWS, 2))
    # Of few draws mean and spread are made exact.
    z = (z - z.mean(axis=0)) / z.std(axis=0)
    at = np.zeros((_DRAWS, len(UNKNOWNS)))
    at[:, LED] = z[:, 0] * PART_OF_LOT * lot_v(p) / led_sigma(p, sound)
    at[:, OHMS] = z[:, 1]
    return float(np.std(predict(s, [Draws(sound, at)], [reading])[0][:, 0]))


def _odd(values: FloatArray, sigma: float) -> NDArray[np.bool_]:
    """Which of the readings stand out from the others; both of two that differ."""
    n = len(values)
    if n < 2:
        return np.zeros(n, dtype=bool)
    if n == 2:
        return np.full(2, abs(values[0] - values[1]) > _STANDS_OUT * sigma * np.sqrt(2))
    # The median: one that is far off moves it little.
    return np.asarray(np.abs(values - np.median(values)) > _STANDS_OUT * sigma * np.sqrt(1 + 1 / n))


def _is_wide(kept: FloatArray, sigma: float) -> bool:
    """Whether readings spread further than parts let them (the chi-square test of a variance)."""
    free = len(kept) - 1
    return float(np.var(kept, ddof=1)) * free / sigma**2 > float(chi2.ppf(1 - _RARE, free))


def _others(kept: FloatArray, sigma: float, *, wide: bool) -> tuple[float, float]:
    """Where a lamp that was not read will read: by the spread of its parts, or by what was read where that is more."""
    n = len(kept)
    spread, reach = sigma, 1.96
    if wide:
        spread, reach = float(np.std(kept, ddof=1)), float(t.ppf((1 + _WITHIN) / 2, n - 1))
    middle, away = float(np.mean(kept)), reach * spread * np.sqrt(1 + 1 / n)
    return middle - away, middle + away


def _line(
    verdict: Verdict, odd: Sequence[str], n: int, of: int, ends: tuple[Shown | None, Shown | None], *, unclear: bool
) -> str:
    low, high = ends
    rest = (
        ""
        if low is None or high is None or n == of
        else f" 95 of 100 of the others will read {low.text} to {high.text}."
    )
    if verdict == "one":
        return "One lamp of these was read. Read two more of them, and they can be compared."
    if unclear:
        return f"{' and '.join(odd)} differ by more than their parts let them. Read a third lamp to see which is wrong."
    if verdict == "odd":
        them = "differs" if len(odd) == 1 else "differ"
        return (
            f"{' and '.join(odd)} {them} from the others by more than the parts let them: look for what is wrong.{rest}"
        )
    if verdict == "wide":
        return f"These {n} differ by more than their parts explain. They may be of mixed lots: read more of them.{rest}"
    return f"These {n} of {of} lamps read alike, as far as their parts let them.{rest}"
