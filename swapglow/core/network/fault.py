"""What may be wrong in a lamp's circuit, and the meter that reads it."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, fields, replace
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from swapglow.core.engine.netlist import Capacitor, Circuit, Diode, Element, Param, Resistor

# What is open still leaks: a joint that has let go, an LED whose bond has.
OPEN_OHM = 1e10
# A part whose junction has melted through, or that a splash of solder bridges.
SHORT_OHM = 0.1

FloatArray = NDArray[np.float64]
# "share" is a part of another value: ohms or farads times the size, and of a junction the count in series.
# "bridge" lies between two nodes that no part joins; its part is named by both, "feed~string".
How = Literal["open", "short", "leaky", "joint", "turned", "share", "bridge"]
JOINED = "~"


@dataclass(frozen=True)
class PartFault:
    """One element that is not as it should be.

    Attributes:
        part: its name in the netlist.
        how: what is wrong with it.
        size: what leaks across it or stands in its lead, Ω, or its share of the right value, (samples,) or a plain
            number; of an open or shorted one what it is then, Ω, where one is not the usual.
    """

    part: str
    how: How
    size: Param = 1.0

    def on(self, e: Element) -> tuple[Element, ...]:
        """What stands in the element's place.

        Args:
            e: the element as it should be.

        Returns:
            One element or two.

        Raises:
            TypeError: it is no element that can have this.
        """
        first, second = (getattr(e, t) for t in e.terminals[:2])
        if self.how in ("open", "short"):
            usual = OPEN_OHM if self.how == "open" else SHORT_OHM
            return (Resistor(e.name, first, second, usual if np.all(np.asarray(self.size) == 1.0) else self.size),)
        if self.how == "leaky":
            return e, Resistor(f"Rleak{e.name}", first, second, self.size)
        if self.how == "joint":
            at = f"{e.name}joint"
            moved: Element = replace(e, **{e.terminals[0]: at})  # type: ignore[arg-type]  # a node by its terminal
            return Resistor(f"Rjoint{e.name}", first, at, self.size), moved
        if isinstance(e, Diode):
            if self.how == "turned":
                return (replace(e, anode=e.cathode, cathode=e.anode),)
            return (replace(e, model=replace(e.model, n=e.model.n * self.size, r_s=e.model.r_s * self.size)),)
        if isinstance(e, Resistor) and self.how == "share":
            return (replace(e, ohms=e.ohms * self.size),)
        if isinstance(e, Capacitor) and self.how == "share":
            return (replace(e, farads=e.farads * self.size),)
        raise TypeError(f"{e.name} cannot be {self.how}.")


@dataclass(frozen=True)
class Fault:
    """Parts that are not as they should be, and resistances that do not belong there, Ω.

    Each resistance is (samples,) or a plain number; None where there is none.

    Attributes:
        string: in series with a string's resistor.
        plus, minus: in the lamp's own wires.
        across: between the lamp's wires.
        past: across the driver while it is off.
        parts: elements of the circuit.
        over_leds, over_lamp: a meter on a volts range across these.
        over_supply, over_plus, over_minus: one from these to the supply's other side.
    """

    string: Param | None = None
    plus: Param | None = None
    minus: Param | None = None
    across: Param | None = None
    past: Param | None = None
    parts: tuple[PartFault, ...] = ()
    over_leds: Param | None = None
    over_lamp: Param | None = None
    over_supply: Param | None = None
    over_plus: Param | None = None
    over_minus: Param | None = None

    @property
    def ohms(self) -> dict[str, Param]:
        """The resistances there are, by their names."""
        values = {f.name: getattr(self, f.name) for f in fields(self) if f.name != "parts"}
        return {n: v for n, v in values.items() if v is not None}

    @property
    def empty(self) -> bool:
        """Whether nothing is wrong and no meter is there."""
        return not self.parts and not self.ohms

    @property
    def unfolds(self) -> bool:
        """Whether a bridge has to be drawn whole: one of its own diodes is not as the others are."""
        return any(f.part.startswith("Dbridge") for f in self.parts)

    def each(self, change: Callable[[FloatArray], Param]) -> "Fault":
        """The fault with every value that differs among the cases changed.

        Args:
            change: from values, (samples,), to what they become.

        Returns:
            The fault; plain numbers stay.
        """

        def changed(v: Any) -> Any:
            return change(v) if isinstance(v, np.ndarray) else v

        parts = tuple(replace(f, size=changed(f.size)) for f in self.parts)
        return Fault(parts=parts, **{n: changed(v) for n, v in self.ohms.items()})

    @property
    def of_string(self) -> "Fault":
        """What of it lies in the string itself, behind a regulator."""
        return Fault(string=self.string, parts=self.parts, over_leds=self.over_leds)

    @property
    def samples(self) -> int:
        """How many cases it tells apart."""
        values = (*self.ohms.values(), *(f.size for f in self.parts))
        return max((np.asarray(v).size for v in values), default=1)


def with_part_faults(circuit: Circuit, parts: Iterable[PartFault]) -> Circuit:
    """A circuit with some of its elements damaged.

    Args:
        circuit: as it should be.
        parts: what is wrong; an element that is not there has nothing wrong with it.

    Returns:
        The circuit.
    """
    wrong = {f.part: f for f in parts}
    if not wrong:
        return circuit
    extra = [e for f in wrong.values() if f.how == "bridge" for e in _between(circuit, f)]
    elements = [out for e in circuit.elements for out in (wrong[e.name].on(e) if e.name in wrong else (e,))]
    return replace(circuit, elements=(*elements, *extra))


def _between(circuit: Circuit, f: PartFault) -> Iterable[Resistor]:
    """What joins two nodes; nothing where one of them is not there."""
    a, _, b = f.part.partition(JOINED)
    if {a, b} <= {getattr(e, t) for e in circuit.elements for t in e.terminals[:2]}:
        yield Resistor(f"Rbridge{a}{b}", a, b, f.size)
