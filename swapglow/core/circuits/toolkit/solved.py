"""A wiring solved in all its states at once, or over its settled cycle; and every part of it judged."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuits.toolkit.ratings import Load, Over
from swapglow.core.circuits.toolkit.wiring import OFF_OHM, ON_OHM, Wiring
from swapglow.core.engine.netlist import Resistor, nodes_of
from swapglow.core.engine.operating_point import OperatingPoint, subset
from swapglow.core.engine.periodic import SteadyState, steady_state
from swapglow.core.engine.spice import write_deck
from swapglow.core.network.filaments import settled

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class States:
    """Steady states, solved as one batch with filaments at rest.

    Attributes:
        wiring: what was solved.
        names: what each state is called, as a sentence begins.
        point: the solution, a sample a state.
    """

    wiring: Wiring
    names: tuple[str, ...]
    point: OperatingPoint

    def amps(self, name: str) -> FloatArray:
        """Through an element from its first terminal, A, (states,)."""
        return self.point.current(name)

    def volts(self, node: str) -> FloatArray:
        """Of a node against ground, V, (states,)."""
        return self.point.voltage(node)

    def across(self, name: str) -> FloatArray:
        """From an element's first to its second terminal, V, (states,)."""
        return self.point.across(name)

    def closed(self, name: str, state: int) -> bool:
        """Whether an element is a contact that is closed in a state.

        Args:
            name: of the element.
            state: which, from 0.

        Returns:
            False if the element is not a contact.
        """
        e = self.wiring.part(name)
        if not isinstance(e, Resistor):
            return False
        ohms = np.broadcast_to(e.ohms, (len(self.names),))
        return bool(ohms[state] <= ON_OHM and (name in self.wiring.switches or ohms.max() >= OFF_OHM))

    def load(self, name: str) -> Load:
        """What an element carries."""
        amps, volts = self.amps(name), self.across(name)
        return Load(amps, amps, np.maximum(-volts, 0.0), np.abs(volts))

    def judged(self) -> Iterator[Over]:
        """Every rated part against what it can stand."""
        for rating in self.wiring.ratings:
            yield from rating.over(self.load(rating.element), self.names)

    def deck(self, state: int = 0) -> str:
        """One state as text for a simulator, filaments at rest."""
        ohms = {n: law(np.abs(self.across(n))) for n, law in self.wiring.laws.items()}
        return write_deck(subset(self.wiring.circuit(ohms), state))


def solve_states(wiring: Wiring, *names: str, cold: bool = False) -> States:
    """Solve a wiring.

    Args:
        wiring: its parameters are arrays over the states where they differ.
        names: what each state is called.
        cold: whether filaments are still cold, as at the first moment; else they are at rest.

    Returns:
        The states.

    Raises:
        NotConverged: one has no answer.
    """
    if cold:
        ohms = {name: float(law(np.zeros(1))[0]) for name, law in wiring.laws.items()}
        return States(wiring, names, settled(lambda _: wiring.circuit(ohms), {}, len(names)))
    return States(wiring, names, settled(wiring.circuit, wiring.laws, len(names)))


@dataclass(frozen=True)
class Cycle:
    """A settled cycle.

    Attributes:
        wiring: what was solved.
        name: what the state is called.
        steady: the cycle.
    """

    wiring: Wiring
    name: str
    steady: SteadyState

    def amps(self, name: str) -> FloatArray:
        """Through an element at every instant, A, (instants,)."""
        return self.steady.current(name)

    def mean(self, name: str) -> float:
        """Mean of an element's forward current, A."""
        return self.steady.average(np.maximum(self.amps(name), 0.0))

    def rms(self, name: str) -> float:
        """RMS of an element's current, A."""
        return self.steady.rms(self.amps(name))

    def across(self, name: str) -> FloatArray:
        """From an element's first to its second terminal at every instant, V, (instants,)."""
        a, b = nodes_of(self.wiring.circuit().element(name))[:2]
        return self.volts(a) - self.volts(b)

    def volts(self, node: str) -> FloatArray:
        """Of a node against ground at every instant, V, (instants,)."""
        return np.zeros_like(self.steady.t) if node == "0" else self.steady.voltage(node)

    def load(self, name: str) -> Load:
        """What an element carries."""
        volts = self.across(name)
        return Load(
            np.array([self.mean(name)]),
            np.array([float(self.amps(name).max())]),
            np.array([max(float(-volts.min()), 0.0)]),
            np.array([self.steady.rms(volts)]),
        )

    def judged(self) -> Iterator[Over]:
        """Every rated part against what it can stand."""
        for rating in self.wiring.ratings:
            yield from rating.over(self.load(rating.element), (self.name,))


def solve_cycle(wiring: Wiring, name: str) -> Cycle:
    """Solve a wiring to its settled cycle.

    Args:
        wiring: with one source that repeats.
        name: what the state is called.

    Returns:
        The cycle.

    Raises:
        NotConverged: there is none.
    """
    return Cycle(wiring, name, steady_state(wiring.circuit()))


@dataclass(frozen=True)
class Sampled:
    """A wave in which nothing remembers: each state is an even instant of the part of the cycle that is lit.

    Attributes:
        states: the instants.
        name: what the state is called.
        lit: share of the cycle that the instants are of; in the rest nothing flows.
    """

    states: States
    name: str
    lit: float = 1.0

    @property
    def wiring(self) -> Wiring:
        """What was solved."""
        return self.states.wiring

    def judged(self) -> Iterator[Over]:
        """Every rated part against what it can stand: its mean, its crest, its highest reverse voltage."""
        for rating in self.states.wiring.ratings:
            load = self.states.load(rating.element)
            rms = float((load.rms_v**2).mean() * self.lit) ** 0.5
            mean = float(np.maximum(load.mean_a, 0.0).mean()) * self.lit
            over = Load(*(np.array([v]) for v in (mean, float(load.crest_a.max()), float(load.reverse_v.max()), rms)))
            yield from rating.over(over, (self.name,))
