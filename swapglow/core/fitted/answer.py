"""A fitted circuit worked out, or why it cannot be."""

from dataclasses import dataclass, replace

from swapglow.core.engine.netlist import CircuitError
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.worked import Judged, Way, Worked
from swapglow.core.kinds.detail import Details
from swapglow.core.quantities import InputError


@dataclass(frozen=True)
class FittedAnswer:
    """What it comes to; ``problem`` says what is missing where there is nothing yet."""

    problem: str
    worked: Worked | None


def answer(kind: FittedKind, typed: Details, chosen: str) -> FittedAnswer:
    """Work a fitted circuit out.

    Args:
        kind: what it is.
        typed: what was typed of it.
        chosen: the label of the way that somebody decided on.

    Returns:
        The answer.
    """
    try:
        worked = kind.work(typed, chosen)
        worked = replace(worked, ways=tuple(_once_done(kind, typed, w) for w in worked.ways))
        if chosen and not any(w.label == chosen for w in worked.ways):
            why = "Something typed has changed since: what stands afterwards follows ours. Choose again."
            gone = Judged("mind", f"What was chosen, {chosen}, is none of these any more.", why)
            worked = replace(worked, judged=(gone, *worked.judged))
        return FittedAnswer("", worked)
    except (InputError, CircuitError) as problem:
        return FittedAnswer(str(problem), None)


def _once_done(kind: FittedKind, typed: Details, way: Way) -> Way:
    """A way whose changes are all that is so once it is done: what was read afterwards is then what is read now."""
    if not way.changes or not typed.asks(kind.read_after):
        return way
    read = {kind.read_now: typed.text(kind.read_after)} if kind.read_now else {}
    gone = dict.fromkeys(kind.stale, "")
    return replace(way, changes={**way.changes, **gone, **read, kind.read_after: ""})
