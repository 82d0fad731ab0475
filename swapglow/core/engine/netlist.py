"""A circuit as a value: named nodes, elements, a temperature.

Any numeric parameter may be a float or an array of shape (samples,): the same topology is then
solved for every sample at once. Node "0" (or "gnd") is ground.
"""

import math
from dataclasses import dataclass, field, fields
from typing import Any, ClassVar

import numpy as np
from numpy.typing import NDArray

from swapglow.core.constants import NOMINAL_C

FloatArray = NDArray[np.float64]
Param = float | FloatArray

GROUND_NAMES = ("0", "gnd", "GND", "Gnd")


class CircuitError(ValueError):
    """A circuit that has no answer, said in words a technician can act on."""


@dataclass(frozen=True)
class Dc:
    """A steady level."""

    level: Param = 0.0


@dataclass(frozen=True)
class Sine:
    """offset + amplitude·sin(2πf(t − delay) + phase), damped by e^(−damping·(t − delay))."""

    offset: Param
    amplitude: Param
    hertz: float
    delay: float = 0.0
    damping: float = 0.0
    phase_deg: float = 0.0


@dataclass(frozen=True)
class FullWave:
    """|amplitude·sin(2πft)|: a sine as an even bridge hands it on. It repeats at twice ``hertz``."""

    amplitude: Param
    hertz: float


@dataclass(frozen=True)
class Pulse:
    """SPICE's PULSE: initial, pulsed, delay, rise, fall, width, period (seconds)."""

    initial: Param
    pulsed: Param
    delay: float = 0.0
    rise: float = 1e-9
    fall: float = 1e-9
    width: float = math.inf
    period: float = math.inf


@dataclass(frozen=True)
class Pwl:
    """Straight lines between (seconds, level) points, level held outside them."""

    points: tuple[tuple[float, float], ...]


Wave = Dc | Sine | FullWave | Pulse | Pwl


@dataclass(frozen=True)
class DiodeModel:
    """SPICE's junction diode without its charge: defaults are SPICE's.

    Attributes:
        i_s: saturation current, A, at ``nominal_c``.
        n: emission coefficient.
        r_s: series resistance, Ω.
        bv, ibv: reverse breakdown voltage (V) and the current there (A); infinite for none.
        e_g, x_ti: energy gap (eV) and temperature exponent of the saturation current.
    """

    i_s: Param = 1e-14
    n: Param = 1.0
    r_s: Param = 0.0
    bv: float = math.inf
    ibv: float = 1e-3
    e_g: float = 1.11
    x_ti: float = 3.0
    nominal_c: float = NOMINAL_C


@dataclass(frozen=True)
class BjtModel:
    """Ebers-Moll transistor in transport form; defaults are SPICE's.

    ``polarity`` is +1 for NPN, −1 for PNP. ``v_af`` is the forward Early voltage.
    """

    polarity: int = 1
    i_s: Param = 1e-16
    b_f: Param = 100.0
    b_r: Param = 1.0
    n_f: float = 1.0
    n_r: float = 1.0
    v_af: float = math.inf
    e_g: float = 1.11
    x_ti: float = 3.0
    x_tb: float = 0.0
    nominal_c: float = NOMINAL_C


@dataclass(frozen=True)
class SwitchModel:
    """SPICE's voltage-controlled switch: on above threshold + hysteresis, off below minus."""

    r_on: Param = 1.0
    r_off: Param = 1e12
    threshold: float = 0.0
    hysteresis: float = 0.0


@dataclass(frozen=True)
class Resistor:
    """Ohms between two nodes."""

    name: str
    a: str
    b: str
    ohms: Param
    terminals: ClassVar[tuple[str, ...]] = ("a", "b")


@dataclass(frozen=True)
class Capacitor:
    """Farads between two nodes; open at DC. ``initial`` is used only where a run asks for it."""

    name: str
    a: str
    b: str
    farads: Param
    initial: float | None = None
    terminals: ClassVar[tuple[str, ...]] = ("a", "b")


@dataclass(frozen=True)
class Inductor:
    """Henries between two nodes; a short at DC."""

    name: str
    a: str
    b: str
    henries: Param
    initial: float | None = None
    terminals: ClassVar[tuple[str, ...]] = ("a", "b")


@dataclass(frozen=True)
class VoltageSource:
    """A voltage from ``plus`` to ``minus``. ``dc`` overrides the wave at the operating point."""

    name: str
    plus: str
    minus: str
    wave: Wave = field(default_factory=Dc)
    dc: Param | None = None
    terminals: ClassVar[tuple[str, ...]] = ("plus", "minus")


@dataclass(frozen=True)
class CurrentSource:
    """A current that leaves the circuit at ``plus`` and returns at ``minus`` (SPICE's sign)."""

    name: str
    plus: str
    minus: str
    wave: Wave = field(default_factory=Dc)
    dc: Param | None = None
    terminals: ClassVar[tuple[str, ...]] = ("plus", "minus")


@dataclass(frozen=True)
class Diode:
    """A junction; ``area`` scales it as SPICE does."""

    name: str
    anode: str
    cathode: str
    model: DiodeModel = field(default_factory=DiodeModel)
    area: float = 1.0
    terminals: ClassVar[tuple[str, ...]] = ("anode", "cathode")


@dataclass(frozen=True)
class Bjt:
    """A bipolar transistor. A Darlington is two of them."""

    name: str
    collector: str
    base: str
    emitter: str
    model: BjtModel = field(default_factory=BjtModel)
    area: float = 1.0
    terminals: ClassVar[tuple[str, ...]] = ("collector", "base", "emitter")


@dataclass(frozen=True)
class Switch:
    """A contact between ``a`` and ``b`` that follows the voltage from ``plus`` to ``minus``.

    A plain contact, set by hand, has both at ground and stays as ``starts_on`` says.
    """

    name: str
    a: str
    b: str
    plus: str
    minus: str
    model: SwitchModel = field(default_factory=SwitchModel)
    starts_on: bool = False
    terminals: ClassVar[tuple[str, ...]] = ("a", "b", "plus", "minus")


@dataclass(frozen=True)
class Regulator:
    """A behavioural three-terminal regulator: holds ``out`` at ``volts`` above ``ground``.

    It passes current one way only, up to ``limit``; below ``dropout`` of head it follows the input.
    """

    name: str
    input: str
    output: str
    ground: str
    volts: Param
    dropout: Param = 2.0
    quiescent: Param = 5e-3
    limit: Param = 1.5
    terminals: ClassVar[tuple[str, ...]] = ("input", "output", "ground")


@dataclass(frozen=True)
class CurrentRegulator:
    """A behavioural two-terminal current source: ``amps`` once ``dropout`` stands across it."""

    name: str
    a: str
    b: str
    amps: Param
    dropout: Param = 1.5
    terminals: ClassVar[tuple[str, ...]] = ("a", "b")


Element = (
    Resistor
    | Capacitor
    | Inductor
    | VoltageSource
    | CurrentSource
    | Diode
    | Bjt
    | Switch
    | Regulator
    | CurrentRegulator
)


@dataclass(frozen=True)
class Circuit:
    """Elements and the temperature they stand at (27 °C, SPICE's default)."""

    elements: tuple[Element, ...]
    celsius: float = NOMINAL_C
    title: str = "circuit"

    def element(self, name: str) -> Element:
        """The element of that name.

        Raises:
            CircuitError: there is none.
        """
        found = next((e for e in self.elements if e.name.lower() == name.lower()), None)
        if found is None:
            raise CircuitError(f'There is no part called "{name}" in the circuit.')
        return found


def nodes_of(element: Element) -> tuple[str, ...]:
    """Node names in terminal order; every spelling of ground comes out as "0"."""
    names = (getattr(element, t) for t in element.terminals)
    return tuple("0" if n in GROUND_NAMES else n for n in names)


def samples_of(circuit: Circuit) -> int:
    """Number of samples the parameters ask for: 1 where all are plain numbers.

    Raises:
        CircuitError: two parameters are arrays of different length.
    """
    counts = {len(a) for e in circuit.elements for a in _arrays(e)}
    if len(counts) > 1:
        raise CircuitError("Two parts are given different numbers of samples.")
    return counts.pop() if counts else 1


def _arrays(thing: Any) -> list[FloatArray]:
    out: list[FloatArray] = []
    for f in fields(thing):
        value = getattr(thing, f.name)
        if isinstance(value, np.ndarray):
            out.append(value)
        elif hasattr(value, "__dataclass_fields__"):
            out.extend(_arrays(value))
    return out
