"""The registry of rules and what they are given."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from swapglow.core.driver import State
from swapglow.core.position.model import Position
from swapglow.core.position.sizing import Sizing
from swapglow.core.position.solution import Solution
from swapglow.core.position.states import Standing
from swapglow.core.report import Finding


@dataclass(frozen=True)
class Context:
    """What every rule may look at.

    Attributes:
        position: the swap.
        sizing: exact, preferred and fitted resistance.
        low_a, usual_a, high_a: typical LED at the three rails, A.
        least_a, most_a: the ends of all corners, A.
        power_w: most heat in each resistor part, W.
        old_candela: the original lamp at the usual rail, where known.
        solution: what was solved, where it was solved by the engine.
        standings: every state of the driver, solved.
    """

    position: Position
    sizing: Sizing
    low_a: float
    usual_a: float
    high_a: float
    least_a: float
    most_a: float
    power_w: float
    old_candela: float | None = None
    solution: Solution | None = None
    standings: tuple[Standing, ...] = ()

    def standing(self, state: State) -> Standing | None:
        """How the position stands in a state, where it has it."""
        return next((t for t in self.standings if t.state == state), None)


# A judgement: none, one or several findings.
Rule = Callable[[Context], Iterable[Finding]]

_RULES: list[Rule] = []
_ORDER = {"stop": 0, "mind": 1, "note": 2}


def rule(function: Rule) -> Rule:
    """Register a rule."""
    _RULES.append(function)
    return function


def judge(context: Context) -> tuple[Finding, ...]:
    """All findings, the gravest first."""
    found = [f for r in _RULES for f in r(context)]
    return tuple(sorted(found, key=lambda f: _ORDER[f.grade]))
