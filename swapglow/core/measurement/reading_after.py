"""A reading taken after the swap."""

import math
from dataclasses import dataclass
from typing import Literal

from swapglow.core.drivers.driver import State
from swapglow.core.quantities import AMPERE, CELSIUS, OHM, VOLT, InputError, Unit, show
from swapglow.core.quantities.inputs import read_single

ReadingKind = Literal[
    "current",
    "resistor_volts",
    "led_volts",
    "supply_volts",
    "plus_volts",
    "minus_volts",
    "lamp_volts",
    "resistor_ohms",
    "led_straight",
    "led_turned",
    "resistor_celsius",
    "led_celsius",
    "regulator_celsius",
    "look",
    "look_other",
]
ReadingOf = Literal["one", "all"]
# What a reading is of, where several strings stand side by side.
READS: dict[ReadingOf, str] = {"one": "One string", "all": "All of them together"}
# Whose a reading is.
Whose = Literal["this", "sister"]
WHOSE: dict[Whose, str] = {"this": "This lamp", "sister": "Its sister, a good one"}
# What is read after the swap, as it is called.
KINDS: dict[ReadingKind, str] = {
    "current": "Current",
    "resistor_volts": "Volts across the resistor",
    "led_volts": "Volts across the LEDs",
    "supply_volts": "The rail with the LED in",
    "plus_volts": "The lamp's plus wire to ground",
    "minus_volts": "The lamp's minus wire to ground",
    "lamp_volts": "Volts at the lamp's wires",
    "resistor_ohms": "The resistor's ohms, power off",
    "led_straight": "An LED on the diode range",
    "led_turned": "An LED on the diode range, leads turned round",
    "resistor_celsius": "The resistor's temperature",
    "led_celsius": "The LED's temperature",
    "regulator_celsius": "The regulator's temperature",
    "look": "What you see, switched on",
    "look_other": "What you see with another LED in its place",
}
# What is compared on a supply that alternates besides what is taken with the power off: averages, as a DC range
# shows them, and the volts of the feed and at the lamp's wires as an AC range does.
ON_AC: frozenset[ReadingKind] = frozenset({"current", "led_volts", "supply_volts", "lamp_volts"})
# Taken with the power off, one part at a time.
DIODE_RANGE: frozenset[ReadingKind] = frozenset({"led_straight", "led_turned"})
POWER_OFF: frozenset[ReadingKind] = DIODE_RANGE | {"resistor_ohms"}
# Taken with a thermocouple on the part, lit for half an hour.
WARM: frozenset[ReadingKind] = frozenset({"resistor_celsius", "led_celsius", "regulator_celsius"})
# Seen by eye, without a meter; what may be seen, the least light first.
LOOKS: frozenset[ReadingKind] = frozenset({"look", "look_other"})
SEEN: dict[str, str] = {"dark": "Dark", "faint": "Faint", "part": "Some dark, some lit", "lit": "Lit as it should be"}
_SEEN = Unit("", "what is seen", (), (), ", ".join(SEEN), len(SEEN))
# The states a fitted lamp is read in, as they are called.
STATES: dict[State, str] = {"on": "Lit", "off": "Switched off", "closed": "Its line closed"}
# What a meter writes where nothing flows; it is kept as this many ohms or volts.
NO_END = ("OL", "0L", "O.L", "INF")
ENDLESS = 1e9


@dataclass(frozen=True)
class ReadingAfter:
    """A reading taken after the swap.

    Attributes:
        id: the record's own.
        kind: one of :data:`KINDS`.
        value: SI units; of a look its place in :data:`SEEN`.
        burden_ohm: what the meter put in series, Ω; 0 for volts.
        of: whether a current is one string's, or all of the lamp's.
        note: meter, range, condition.
        state: the driver's state it was read in.
        whose: this lamp's, or its sister's: a good one of its kind on the same rail.
        fitted: what stood in the lamp then (:mod:`fitted`); "" where nobody noted it.
    """

    id: str
    kind: ReadingKind
    value: float
    burden_ohm: float = 0.0
    note: str = ""
    of: ReadingOf = "one"
    state: State = "on"
    whose: Whose = "this"
    fitted: str = ""

    def __post_init__(self) -> None:
        if not math.isfinite(self.value):
            raise InputError("text", "A reading must be a finite number.")
        if self.burden_ohm < 0:
            raise InputError("burden", "A meter's burden cannot be negative.")

    @property
    def unit(self) -> Unit:
        """The reading's unit."""
        return unit_of(self.kind)

    @property
    def seen(self) -> str:
        """What was seen, one of :data:`SEEN`; of a look only."""
        return list(SEEN)[int(self.value)]

    @property
    def text(self) -> str:
        """The reading as printed; a meter that shows no end says so, and a look what was seen."""
        if self.kind in LOOKS:
            return in_sentence(self.seen)
        return "OL" if self.value >= ENDLESS else show(self.value, self.unit)


def in_sentence(seen: str) -> str:
    """What was seen, as it stands in a sentence: "some dark, some lit"."""
    label = SEEN[seen]
    return label[0].lower() + label[1:]


def unit_of(kind: ReadingKind) -> Unit:
    """The unit of a kind of reading."""
    if kind in WARM:
        return CELSIUS
    if kind in LOOKS:
        return _SEEN
    return AMPERE if kind == "current" else OHM if kind == "resistor_ohms" else VOLT


def read_after(
    id_: str,
    kind: ReadingKind,
    text: str,
    burden: str,
    note: str,
    of: ReadingOf = "one",
    state: State = "on",
    whose: Whose = "this",
    fitted: str = "",
) -> ReadingAfter:
    """A reading after the swap from its texts.

    Args:
        id_: the record's own.
        kind: what was read.
        text: the reading as typed.
        burden: what the meter adds as typed; counts for a current only.
        note: meter, range, condition.
        of: whether a current is one string's or all of the lamp's.
        state: the driver's state it was read in.
        whose: this lamp's, or its sister's.
        fitted: what stood in the lamp then.

    Returns:
        The reading in SI units.

    Raises:
        InputError: for ``text`` or ``burden``.
    """
    if kind in LOOKS:
        return ReadingAfter(id_, kind, _place_seen(text), 0.0, note, "one", state, whose, fitted)
    if kind in POWER_OFF and text.strip().upper() in NO_END:
        return ReadingAfter(id_, kind, ENDLESS, 0.0, note, of, state, whose, fitted)
    value = read_single("text", text, unit_of(kind), minimum=None if kind in WARM else 0)
    ohm = read_single("burden", burden, OHM, minimum=0) if burden.strip() else 0.0
    return ReadingAfter(id_, kind, value, ohm if kind == "current" else 0.0, note, of, state, whose, fitted)


def _place_seen(text: str) -> float:
    said = text.strip().casefold()
    for place, (seen, label) in enumerate(SEEN.items()):
        if said in (seen, label.casefold()):
            return float(place)
    raise InputError("text", f'"{text.strip()[:40]}" is none of these: {", ".join(SEEN)}.')
