"""What a kind of driver says of itself; the rest of the house asks here and never by a kind's name."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, ClassVar, Literal

from swapglow.core.drivers.driver import Driver, State
from swapglow.core.engine.netlist import Element, Param, Resistor
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.lamp import Lamp
from swapglow.core.quantities import AMPERE, OHM, VOLT, Figure, Input, Source
from swapglow.core.quantities.inputs import read_quantity

Side = Literal["low", "high"]

# An open contact's insulation: it ties a node down that nothing else does.
OPEN_OHM = 1e10

KEEP_WARM = Detail(
    "keep_warm", "Keep-warm resistor", OHM, "Across the driver: 330R. Empty where there is none", none="absent"
)
LEAK = Detail("leak", "Leakage when off", AMPERE, "Read with the lamp out; empty takes none")
HANGS_ON = Detail("hangs_on", "What hangs on it", None, "A delay, a sense input; empty if nothing is known")


@dataclass(frozen=True)
class Unknown:
    """A figure without which the driver's own trouble cannot be worked out.

    Attributes:
        what: the figure, in words.
        decides: what it decides.
    """

    what: str
    decides: str


class DriverKind:
    """A kind of driver. A module binds one to ``KIND``; figures are common practice unless sourced.

    Attributes:
        id: its name in records and documents.
        order: its place among the kinds.
        label: what it is called.
        part: its step on the staircase, in a word or two; ``detail`` what stands under it.
        expect: how an LED upsets it, in a line.
        side: where it stands: between lamp and ground, or between feed and lamp.
        usual_drop: what it keeps while on, lowest, usual, highest, V, where nobody read it.
        details: what it asks for besides its drop.
        on, off: names of its two states.
        has_off: whether its off state is ever worth a look; "leads" only where something leads past it.
        contact: whether it is a contact, which carries current either way.
        watches: whether it counts the lamp's current.
        pulses: whether it pulses the lamp.
        flashes: whether it switches by itself, faster than a meter follows.
        misses: what it does where it misses current; ``cool`` the cure that burns nothing, ``cool_way``
            the same as a swap.
        detail_of: fields of :class:`Driver` that a remedy may change, and the details they are.
        big_base: a base that ready-made lamps for it have, besides the old lamp's own.
    """

    id: ClassVar[str]
    order: ClassVar[int]
    label: ClassVar[str]
    part: ClassVar[str] = "Switch"
    detail: ClassVar[str] = "switch"
    expect: ClassVar[str]
    side: ClassVar[Side] = "high"
    usual_drop: ClassVar[tuple[float, float, float]] = (0.0, 0.0, 0.0)
    details: ClassVar[tuple[Detail, ...]] = ()
    on: ClassVar[str] = "On"
    off: ClassVar[str] = "Off"
    has_off: ClassVar[Literal["yes", "no", "leads"]] = "yes"
    contact: ClassVar[bool] = True
    watches: ClassVar[bool] = False
    pulses: ClassVar[bool] = False
    flashes: ClassVar[bool] = False
    misses: ClassVar[str] = ""
    cool: ClassVar[str] = ""
    detail_of: ClassVar[Mapping[str, str]] = {"keep_warm_ohm": KEEP_WARM.id}
    big_base: ClassVar[str] = ""

    def driver(self, drop: Input, details: Details, lamp: Lamp | None) -> Driver:
        """The driver from what was typed.

        Args:
            drop: what it keeps while on; empty takes the kind's usual.
            details: what this kind asked for.
            lamp: the old lamp, which lamps left in the loop are taken to equal.

        Returns:
            The driver.

        Raises:
            InputError: for the detail that cannot be read.
        """
        on_drop = self.usual_drop
        figure = Figure(on_drop[1], Source.ASSUMED, "common practice" if on_drop[1] else "")
        if not drop.empty:
            read = read_quantity("driver_drop", drop.text, VOLT, minimum=0)
            on_drop = read.low, read.usual, read.high
            figure = Figure(read.usual, drop.source, drop.note)
        return Driver(self, figure, on_drop, **self.facts(details, lamp))

    def facts(self, details: Details, lamp: Lamp | None) -> dict[str, Any]:
        """Further attributes of :class:`Driver` that this kind's details give, by name.

        Args:
            details: what this kind asked for.
            lamp: the old lamp.

        Returns:
            Names and values.

        Raises:
            InputError: for the detail that cannot be read.
        """
        return {
            "keep_warm_ohm": details.value(KEEP_WARM.id),
            "leak_a": details.value(LEAK.id, above=None) or 0.0,
            "hangs_on": details.text(HANGS_ON.id),
        }

    def off_parts(self, driver: Driver, a: str, b: str, rail: Param) -> tuple[Element, ...]:
        """What stands between its ends while it is off.

        Args:
            driver: the driver.
            a, b: the nodes it stands between, from feed to ground.
            rail: open volts of the rail, V, for what leaks at it.

        Returns:
            Elements: an open contact, and what leads past it.
        """
        return (*self.open_parts(a, b), *past(driver, a, b, rail))

    def open_parts(self, a: str, b: str) -> tuple[Element, ...]:
        """The driver itself while it is off.

        Args:
            a, b: the nodes it stands between, from feed to ground.

        Returns:
            Elements; an open contact's insulation.
        """
        return (Resistor("Ropen", a, b, OPEN_OHM),)

    def states(self, driver: Driver) -> tuple[tuple[State, str], ...]:
        """The states worth a look with their names, the lit one first."""
        if self.has_off == "no" or (self.has_off == "leads" and not driver.leads_off):
            return (("on", self.on),)
        return ("on", self.on), ("off", self.off)

    def unknown(self, driver: Driver, lamp: Lamp | None) -> Unknown | None:
        """What is not yet known of it and decides.

        Args:
            driver: the driver.
            lamp: the old lamp, which may stand in.

        Returns:
            The figure; None where nothing is missing.
        """
        return None


def past(driver: Driver, a: str, b: str, rail: Param) -> tuple[Element, ...]:
    """What leads past a driver that is off.

    Args:
        driver: the driver.
        a, b: the nodes it stands between.
        rail: open volts at which its leakage was read, V.

    Returns:
        A keep-warm resistor, and its leakage as the resistor that makes it.
    """
    out: list[Element] = []
    if driver.keep_warm_ohm is not None:
        out.append(Resistor("Rkeepwarm", a, b, driver.keep_warm_ohm))
    if driver.leak_a > 0:
        out.append(Resistor("Rleak", a, b, rail / driver.leak_a))
    return tuple(out)
