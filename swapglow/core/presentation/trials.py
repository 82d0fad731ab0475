"""Section: looks at a lamp with a part in it, and what to try next."""

from collections.abc import Sequence
from dataclasses import dataclass

from swapglow.core.analysis.original_lamp import lamp_candela
from swapglow.core.analysis.solution import Solution
from swapglow.core.analysis.trials import Wanted, as_tried, wanted
from swapglow.core.design.changes import Changes
from swapglow.core.design.looks import ROOMS
from swapglow.core.design.trial import VERDICTS, Trial
from swapglow.core.photometry.intensity import sight_of
from swapglow.core.photometry.words import eye_text, ratio_text, step_text
from swapglow.core.presentation.glow_box import GlowLamp, Painted, painted
from swapglow.core.quantities import CANDELA, OHM, show, shown

# As many as are shown beside each other.
MOST_SHOWN = 8


@dataclass(frozen=True)
class TrialRow:
    """One look: what stood there, what was said, and how it looked beside the others.

    ``counts`` is False where it was seen in another light than the lamp's own, and says nothing here.
    """

    id: str
    ohm: str
    verdict: str
    at: str
    note: str
    counts: bool
    lamp: GlowLamp


@dataclass(frozen=True)
class Trials:
    """What the looks come to.

    Attributes:
        rows: the last of them, in the order they were made.
        line: the light wanted, as far as it is known.
        step: what this eye tells in this place.
        next_label: what to try next; empty where nothing is left.
        next_changes: that as changes of the position.
    """

    rows: tuple[TrialRow, ...]
    line: str
    step: str
    next_label: str
    next_changes: Changes


def trials_section(s: Solution, trials: Sequence[Trial], drawer: frozenset[float]) -> Trials | None:
    """What the looks come to.

    Args:
        s: the solved position.
        trials: in the order they were made.
        drawer: resistors at hand, Ω.

    Returns:
        The section; None without a look, or where the resistor decides nothing.
    """
    found = wanted(s, trials, drawer)
    if found is None:
        return None
    p = s.position
    lights = [2.0**o if o is not None else None for o in found.shown]
    old = lamp_candela(p)
    last = [(t, cd) for t, cd in zip(trials, lights, strict=True)][-MOST_SHOWN:]
    ratios = ["" if not cd or not old else ratio_text(cd / old) for _, cd in last]
    sources = [
        Painted(t.id, show(t.ohm, OHM), cd or 0.0, sight_of(as_tried(p, t)), ratio, "tip",
                shown(cd or 0.0, CANDELA, f"with {show(t.ohm, OHM)}, usual rail"))
        for (t, cd), ratio in zip(last, ratios, strict=True)
    ]  # fmt: skip
    lamps = painted(sources, p, max(*(x.candela for x in sources), 1e-9))
    rows = tuple(
        TrialRow(t.id, show(t.ohm, OHM), VERDICTS[t.verdict], t.at, t.note, cd is not None, lamp)
        for (t, cd), lamp in zip(last, lamps, strict=True)
    )
    return Trials(rows, _line(found, old, s), step_text(found.step), *_next(found))


def _line(found: Wanted, old: float | None, s: Solution) -> str:
    b = found.belief
    low, middle, high = (2.0**x for x in (b.low, b.median, b.high))
    room = ROOMS[s.position.looks.room].lower()
    if found.settled is not None:
        return f"{show(found.settled, OHM)} was right in the {room}."
    if old:
        ends = f"{eye_text(low / old)} to {eye_text(high / old)}"
        return f"In the {room} this eye wants about {eye_text(middle / old)} × the old lamp ({ends})."
    ends = f"{show(low, CANDELA, 2)} to {show(high, CANDELA, 2)}"
    return f"In the {room} this eye wants about {show(middle, CANDELA, 2)} ({ends})."


def _next(found: Wanted) -> tuple[str, Changes]:
    if found.settled is not None or found.ohm is None:
        return "", {}
    return f"Try {show(found.ohm, OHM)} next", {"resistor_ohm": found.ohm}
