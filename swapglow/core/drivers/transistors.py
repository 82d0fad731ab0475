"""What transistors that switch a lamp have in common."""

from typing import ClassVar, Literal

from swapglow.core.drivers.kind import HANGS_ON, KEEP_WARM, LEAK, DriverKind
from swapglow.core.engine.netlist import Bjt, Element, Resistor
from swapglow.core.parts.transistor import transistor

# Base to emitter of a driver that is off (common practice).
BASE_OHM = 10e3


class Transistor(DriverKind):
    """A junction transistor that is cut off by a resistor from base to emitter."""

    part = "Transistor"
    detail = "transistor"
    usual_drop = (0.1, 0.2, 0.3)
    details = (KEEP_WARM, LEAK, HANGS_ON)
    contact = False
    polarity: ClassVar[Literal["npn", "pnp"]] = "npn"

    def open_parts(self, a: str, b: str) -> tuple[Element, ...]:
        """The transistor cut off: an NPN's emitter is at ground, a PNP's at the feed."""
        collector, emitter = (a, b) if self.polarity == "npn" else (b, a)
        return (
            Bjt("Qdriver", collector, "base", emitter, transistor(self.polarity)),
            Resistor("Rbase", "base", emitter, BASE_OHM),
        )
