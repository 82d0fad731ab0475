"""Section: looks at a lamp with a part in it, and what to try next."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from swapglow.core.analysis.better_looks import evener, warmer
from swapglow.core.analysis.original_lamp import lamp_candela
from swapglow.core.analysis.solution import Solution
from swapglow.core.analysis.trials import Tried, Wanted, as_tried, wanted
from swapglow.core.design.changes import Changes
from swapglow.core.design.looks import ROOMS
from swapglow.core.design.position import Position
from swapglow.core.design.trial import VERDICTS, Trial
from swapglow.core.photometry.intensity import sight_of
from swapglow.core.photometry.words import beside_text, eye_text, ratio_text, step_text
from swapglow.core.presentation.glow_box import GlowLamp, Painted, painted
from swapglow.core.quantities import CANDELA, OHM, show, shown

# As many as are shown beside each other.
MOST_SHOWN = 8
# A photographed light within a fifth of the computed one teaches nothing.
TOLD = 1.2


@dataclass(frozen=True)
class TrialRow:
    """One look: what stood there, what was said, and how it looked beside the others.

    ``counts`` is False where it was seen in another light than the lamp's own, and says nothing here.
    ``photographed`` is what one frame with the old lamp said of it, and ``taught`` the changes that take the light
    it had there for its own; none where its figures say the same.
    """

    id: str
    ohm: str
    verdict: str
    at: str
    note: str
    counts: bool
    lamp: GlowLamp
    photographed: str
    taught: Changes


@dataclass(frozen=True)
class Proposal:
    """What to try next, as it is called and as changes of the position."""

    label: str
    changes: Changes


@dataclass(frozen=True)
class Trials:
    """What the looks come to.

    Attributes:
        rows: the last of them, in the order they were made.
        line: the light wanted, as far as it is known.
        step: what this eye tells in this place.
        proposals: what to try next, the first first; none where nothing is left.
    """

    rows: tuple[TrialRow, ...]
    line: str
    step: str
    proposals: tuple[Proposal, ...]


def trials_section(
    s: Solution, trials: Sequence[Trial], drawer: frozenset[float], others: Sequence[Tried] = ()
) -> Trials | None:
    """What the looks come to.

    Args:
        s: the solved position.
        trials: in the order they were made.
        drawer: resistors at hand, Ω.
        others: the item's other lamps with their looks.

    Returns:
        The section; None where nobody looked, here or at another lamp of the item, or where the resistor decides
        nothing.
    """
    found = wanted(s, trials, drawer, others)
    if found is None:
        return None
    p = s.position
    lights = [2.0**o if o is not None else None for o in found.shown]
    old = lamp_candela(p)
    last = [(t, cd) for t, cd in zip(trials, lights, strict=True)][-MOST_SHOWN:]
    ratios = ["" if not cd or not old else ratio_text(cd / old) for _, cd in last]
    sources = [
        Painted(
            t.id,
            show(t.ohm, OHM),
            cd or 0.0,
            sight_of(as_tried(p, t)),
            ratio,
            "tip",
            shown(cd or 0.0, CANDELA, f"with {show(t.ohm, OHM)}, usual rail"),
        )
        for (t, cd), ratio in zip(last, ratios, strict=True)
    ]
    lamps = painted(sources, p, max(1e-9, *(x.candela for x in sources)) if sources else 1.0)
    rows = tuple(
        TrialRow(
            t.id,
            show(t.ohm, OHM),
            VERDICTS[t.verdict],
            t.at,
            t.note,
            cd is not None,
            lamp,
            _photographed(t),
            _taught(p, t, cd, old),
        )
        for (t, cd), lamp in zip(last, lamps, strict=True)
    )
    return Trials(rows, _line(found, old, s), step_text(found.step), _proposals(s, found, trials))


def _photographed(trial: Trial) -> str:
    photo = trial.photographed
    return "" if photo is None else beside_text(photo.ratio, photo.doubt)


def _taught(p: Position, trial: Trial, candela: float | None, old: float | None) -> Changes:
    """The photographed light as the LED's own, where its figures say otherwise."""
    photo = trial.photographed
    if photo is None or not candela or not old or as_tried(p, trial).led != p.led:
        return {}
    more = photo.ratio / (candela / old)
    if abs(math.log(more)) <= math.log(TOLD):
        return {}
    return {"looks.trim": float(f"{p.looks.trim * more:.4g}")}


def _line(found: Wanted, old: float | None, s: Solution) -> str:
    b = found.belief
    low, middle, high = (2.0**x for x in (b.low, b.median, b.high))
    room = ROOMS[s.position.looks.room].lower()
    if found.settled is not None:
        return f"{show(found.settled, OHM)} was right in the {room}."
    if old and found.others is not None and not any(o is not None for o in found.shown):
        ends = f"{eye_text(low / old)} to {eye_text(high / old)}"
        many = found.others.lamps
        where = "the other lamp" if many == 1 else f"{many} other lamps"
        return f"By {where} tried here, it is to show about {eye_text(middle / old)} × the old lamp ({ends})."
    if old:
        ends = f"{eye_text(low / old)} to {eye_text(high / old)}"
        return f"In the {room} this eye wants about {eye_text(middle / old)} × the old lamp ({ends})."
    ends = f"{show(low, CANDELA, 2)} to {show(high, CANDELA, 2)}"
    return f"In the {room} this eye wants about {show(middle, CANDELA, 2)} ({ends})."


def _proposals(s: Solution, found: Wanted, trials: Sequence[Trial]) -> tuple[Proposal, ...]:
    """What mends what was said last; of a light that is only too much or too little, the next resistor."""
    last = trials[-1].verdict if trials else "right"
    ways = {"blue": warmer, "uneven": evener}
    if last in ways:
        better = tuple(Proposal(label, changes) for label, changes in ways[last](s.position))
        if better:
            return better
    if found.settled is not None or found.ohm is None:
        return ()
    begin = "Begin with" if found.others is not None and not any(o is not None for o in found.shown) else "Try"
    label = f"{begin} {show(found.ohm, OHM)}" + (" next" if begin == "Try" else "")
    return (Proposal(label, {"resistor_ohm": found.ohm}),)
