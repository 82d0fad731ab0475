"""The rules, found by scanning their folder, and what they are given."""

import importlib
import pkgutil
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from types import ModuleType

from swapglow.core.analysis.sizing import Sizing
from swapglow.core.analysis.solution import Solution
from swapglow.core.analysis.states import StateSolution
from swapglow.core.design.position import Position
from swapglow.core.drivers.driver import State
from swapglow.core.findings.finding import GRADES, Finding


@dataclass(frozen=True)
class Context:
    """What every rule may look at.

    Attributes:
        position: the swap.
        sizing: exact, preferred and fitted resistance.
        current_low, current_usual, current_high: one string, typical LED, at the three rails, A.
        string_current_min, string_current_max: the ends of all corners of one string, A.
        supply_current_max: the most the whole circuit takes from its supply, A.
        power_w: most heat in each resistor part, W.
        old_candela: the original lamp at the usual rail, where known.
        solution: what was solved, where it was solved by the engine.
        states: every state of the driver, solved.
    """

    position: Position
    sizing: Sizing
    current_low: float
    current_usual: float
    current_high: float
    string_current_min: float
    string_current_max: float
    supply_current_max: float
    power_w: float
    old_candela: float | None = None
    solution: Solution | None = None
    states: tuple[StateSolution, ...] = ()

    def state(self, state: State) -> StateSolution | None:
        """How the position stands in a state, where it has it."""
        return next((t for t in self.states if t.state == state), None)


# A judgement: none, one or several findings.
Rule = Callable[[Context], Iterable[Finding]]

_RULES: list[Rule] = []


def rule(function: Rule) -> Rule:
    """Register a rule."""
    _RULES.append(function)
    return function


def scan(package: ModuleType) -> None:
    """Import every module of a package, so that its rules are registered."""
    for found in pkgutil.iter_modules(package.__path__, f"{package.__name__}."):
        importlib.import_module(found.name)


def judge(context: Context) -> tuple[Finding, ...]:
    """All findings, the gravest first."""
    found = [f for r in _RULES for f in r(context)]
    return tuple(sorted(found, key=lambda f: GRADES.index(f.grade)))
