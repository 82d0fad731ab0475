"""A circuit worked out, or why it cannot be."""

from dataclasses import dataclass, replace
from typing import Any

from swapglow.core.circuits.kind import CircuitKind
from swapglow.core.circuits.result import CircuitResult, Option
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Details
from swapglow.core.quantities import InputError


@dataclass(frozen=True)
class CircuitAnswer:
    """What it comes to; ``problem`` says what is missing where there is nothing yet."""

    problem: str
    result: CircuitResult | None


def answer(kind: CircuitKind[Any], typed: Details, chosen: str) -> CircuitAnswer:
    """Work a circuit out.

    Args:
        kind: what it is.
        typed: what was typed of it.
        chosen: the id of the option that somebody decided on.

    Returns:
        The answer.
    """
    try:
        result = kind.work(typed, chosen)
    except (InputError, CircuitError) as problem:
        return CircuitAnswer(str(problem), None)
    result = replace(result, options=tuple(_once_done(kind, typed, o) for o in result.options))
    if chosen and not any(o.id == chosen for o in result.options):
        gone = Finding(
            "choice-gone",
            "mind",
            "What was chosen is none of these options any more.",
            why="Something typed has changed since: what stands afterwards follows ours. Choose again.",
        )
        result = replace(result, findings=(gone, *result.findings))
    return CircuitAnswer("", result)


def _once_done(kind: CircuitKind[Any], typed: Details, option: Option) -> Option:
    """An option whose changes hold once it is done: what was read afterwards is then what is read now."""
    if not option.changes or not typed.asks(kind.read_after):
        return option
    read = {kind.read_now: typed.text(kind.read_after)} if kind.read_now else {}
    gone = dict.fromkeys(kind.stale, "")
    return replace(option, changes={**option.changes, **gone, **read, kind.read_after: ""})
