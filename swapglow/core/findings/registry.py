"""The rules, found by scanning their folder, and what they are given."""

import importlib
import pkgutil
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, replace
from functools import lru_cache
from types import ModuleType

from swapglow.core.analysis.load_resistor import load_rating
from swapglow.core.analysis.original_lamp import lamp_candela
from swapglow.core.analysis.sizing import Sizing, turned
from swapglow.core.analysis.solution import Solution, solve
from swapglow.core.analysis.states import StateSolution, state_solutions
from swapglow.core.design.changes import exposes_crest, with_changes
from swapglow.core.design.position import Position
from swapglow.core.drivers.driver import State
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.findings.finding import GRADES, Finding, Grade, Remedy
from swapglow.core.parts.resistor import rating_to_fit
from swapglow.core.quantities import InputError


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
        bare: whether only the judgement is wanted, and no remedy.
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
    bare: bool = False

    def state(self, state: State) -> StateSolution | None:
        """How the position stands in a state, where it has it."""
        return next((t for t in self.states if t.state == state), None)

    @property
    def resistor_v(self) -> float:
        """The most volts across each resistor part, V: what its heat comes to in its own ohms (Ohm)."""
        if self.solution is None:
            return 0.0
        return self.solution.resistor_v

    @property
    def shunt_w(self) -> tuple[float, str]:
        """Most heat in the shunt over all states, W, and the state's name where it is not the lit one."""
        p, s = self.position, self.solution
        if p.shunt_ohm is None or s is None:
            return 0.0, ""
        most, where = s.shunt_w, ""
        for t in self.states[1:]:
            if t.state == "pulse" or "Rshunt" not in {e.name for e in t.point.circuit.elements}:
                # A pulse is short beside the warming of a part.
                continue
            watts = float((t.point.across("Rshunt") ** 2).max()) / p.shunt_ohm
            if watts > most:
                most, where = watts, f", {t.label[0].lower()}{t.label[1:]}"
        return most, where

    def shunt_rating(self, watts: float) -> float | None:
        """The part to fit as a shunt or load: a clad one where a load is fixed to metal, W; None for none."""
        p = self.position
        if p.driver.kind.watches and p.shunt_across == "assembly":
            return load_rating(watts, p.driver.place)
        return rating_to_fit(watts, 0.0, p.celsius)

    def offer(self, remedies: Callable[[], Iterable[Remedy]]) -> tuple[Remedy, ...]:
        """Remedies that cost a sum of their own, worked out where they are wanted."""
        return () if self.bare else tuple(remedies())


# A judgement: none, one or several findings.
Rule = Callable[[Context], Iterable[Finding]]

_RULES: list[Rule] = []
_OF_EACH_STRING: list[Rule] = []


def rule(function: Rule) -> Rule:
    """Register a rule."""
    _RULES.append(function)
    return function


def scan(package: ModuleType) -> None:
    """Import every module of a package, so that its rules are registered."""
    for found in pkgutil.iter_modules(package.__path__, f"{package.__name__}."):
        importlib.import_module(found.name)


def of_each_string(function: Rule) -> Rule:
    """Register a rule that judges a string by itself: it is asked of every string in the place."""
    _OF_EACH_STRING.append(function)
    return rule(function)


def context_of(s: Solution, states: tuple[StateSolution, ...] | None = None, *, bare: bool = False) -> Context:
    """What the rules look at.

    Args:
        s: the solved position.
        states: its states, solved; solved here where not given.
        bare: whether only the judgement is wanted.

    Returns:
        The context.

    Raises:
        NotConverged: a state has no answer.
    """
    states = state_solutions(s) if states is None else states
    low, usual, high = (float(a) for a in s.usual)
    return Context(
        s.position,
        s.sizing,
        low,
        usual,
        high,
        s.string_current_min,
        s.string_current_max,
        s.supply_current_max,
        s.power_w,
        lamp_candela(s.position),
        s,
        states,
        bare,
    )


def judge(context: Context) -> tuple[Finding, ...]:
    """All findings, the gravest first, each with the remedies that cure it.

    A remedy is offered only where the position with it has the finding no more, and nothing graver in its
    place: each is taken on trial, solved and judged.

    Raises:
        NotConverged: another string has no answer.
    """
    found = [*_judged(context), *(f for other in _others(context) for f in other)]
    found.sort(key=lambda f: GRADES.index(f.grade))
    if context.bare:
        return tuple(found)
    before = {f.id: f.grade for f in found}
    return tuple(
        replace(f, remedies=tuple(r for r in f.remedies if _cures(context.position, f, r, before))) for f in found
    )


def _judged(context: Context) -> Iterable[Finding]:
    return (f for r in _RULES for f in r(context))


def _others(context: Context) -> Iterable[list[Finding]]:
    """What is to be said of the other strings in the place, and of a two-colour LED's other die."""
    p = context.position
    for k, b in enumerate(p.beside):
        yield _of_string(turned(p, k), f"beside-{k + 1}", b.name)
    if p.second_led is not None and p.rail.supply.alternates and p.rectification.second_colour:
        other = replace(p, led=p.second_led, second_led=p.led, resistor_ohm=context.sizing.each_ohm)
        yield _of_string(other, "second", f"The other die, {p.second_led.label[0].lower()}{p.second_led.label[1:]}")


def _of_string(position: Position, key: str, name: str) -> list[Finding]:
    c = context_of(solve(position, rule=False), (), bare=True)
    return [
        replace(f, id=f"{f.id}-{key}", message=f"{name}: {f.message[0].lower()}{f.message[1:]}", remedies=())
        for r in _OF_EACH_STRING
        for f in r(c)
    ]


def _cures(position: Position, f: Finding, remedy: Remedy, before: Mapping[str, Grade]) -> bool:
    """Whether a remedy clears its finding and raises no stop, nor anything graver than what it clears."""
    if exposes_crest(position, remedy.changes):
        return False
    try:
        after = verdict(with_changes(position, remedy.changes))
    except (CircuitError, InputError):
        return False
    grades = {g.id: g.grade for g in after}
    if f.id in grades:
        return False
    worst = max(GRADES.index(f.grade) - 1, 0)
    return not any(
        GRADES.index(grade) <= worst and GRADES.index(before.get(key, "note")) > GRADES.index(grade)
        for key, grade in grades.items()
    )


@lru_cache(maxsize=1024)
def solvable(position: Position) -> None:
    """See that a position can be worked out.

    Raises:
        NotConverged: it has no answer.
        CannotBuild: a part of it is not worked out on its supply.
    """
    solve(position, rule=False)


@lru_cache(maxsize=2048)
def verdict(position: Position) -> tuple[Finding, ...]:
    """All findings on a position, without remedies.

    Args:
        position: the swap.

    Returns:
        The findings, the gravest first.

    Raises:
        NotConverged: it has no answer.
        CannotBuild: a part of it is not worked out on its supply.
    """
    return judge(context_of(solve(position, rule=False), bare=True))
