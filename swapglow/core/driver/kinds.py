"""The kinds of driver: what switches, watches or shares the lamp's circuit, and what to ask of each.

Figures are common practice unless a source is named.
"""

from dataclasses import dataclass
from typing import Literal

from swapglow.core.quantities import AMPERE, OHM, SECOND, VOLT
from swapglow.core.supply.kinds import Detail

DriverKind = Literal[
    "direct", "low_side", "high_side", "darlington", "series_lamps", "shared", "flasher", "lamp_check",
]  # fmt: skip

Side = Literal["low", "high"]


@dataclass(frozen=True)
class DriverAbout:
    """A kind of driver.

    Attributes:
        part: its step on the staircase, in a word or two.
        expect: how an LED upsets it, in a line.
        side: where it stands: between lamp and ground, or between feed and lamp.
        keeps: what it keeps while on, lowest, usual, highest, V, where nobody read it.
        on, off: names of its two states.
    """

    id: DriverKind
    label: str
    part: str
    expect: str
    side: Side
    keeps: tuple[float, float, float]
    details: tuple[Detail, ...] = ()
    on: str = "On"
    off: str = "Off"


_KEEP_WARM = Detail(
    "keep_warm", "Keep-warm resistor", OHM, "Across the driver: 330R. Empty where there is none"
)
_LEAK = Detail("leak", "Leakage when off", AMPERE, "Read with the lamp out; empty takes none")
_HANGS = Detail("hangs_on", "What hangs on it", None, "A delay, a sense input; empty if nothing is known")
_COUNTS = Detail(
    "counts", "Does it watch the current?", None, "",
    (("yes", "Yes"), ("no", "No: electronic, or coded not to")),
)  # fmt: skip
_TRIP = Detail("trip", "Taken for failed below", AMPERE, "Current; empty takes the old lamp's own")
_REST = Detail(
    "rest", "Other lamps on it draw", AMPERE, "Current of the lamps left as they are, all together"
)
_THERE = Detail("there", "Load resistors in one space", None, "Count, this one included: 1, 2, 4")
_PLACE = Detail(
    "place", "Where a load would sit", None, "What it is fixed to",
    (("unknown", "Not settled"), ("metal", "Bare metal"), ("closed", "Closed, on metal"),
     ("plastic", "Plastic or trim")),
)  # fmt: skip

DRIVERS: dict[DriverKind, DriverAbout] = {
    k.id: k
    for k in (
        DriverAbout(
            "direct", "Straight from the rail or a switch", "Switch",
            "Nothing to upset, but what stands across the contact.", "high", (0.0, 0.0, 0.0),
            (_KEEP_WARM, _HANGS),
        ),
        DriverAbout(
            "low_side", "Transistor to ground", "Transistor",
            "Keeps 0.1 to 0.3 V while on. A keep-warm resistor across it lights an LED that should be off.",
            "low", (0.1, 0.2, 0.3), (_KEEP_WARM, _LEAK, _HANGS),
        ),
        DriverAbout(
            "high_side", "Transistor from the rail", "Transistor",
            "Keeps 0.1 to 0.3 V while on. A keep-warm resistor across it lights an LED that should be off.",
            "high", (0.1, 0.2, 0.3), (_KEEP_WARM, _LEAK, _HANGS),
        ),
        DriverAbout(
            "darlington", "Darlington to ground", "Darlington",
            "Keeps 0.7 to 1.1 V while on. A keep-warm resistor across it lights an LED that should be off.",
            "low", (0.7, 0.9, 1.1), (_KEEP_WARM, _LEAK, _HANGS),
        ),
        DriverAbout(
            "series_lamps", "In series with lamps left in place", "Switch",
            "Each lamp saw a share of the rail. An LED's current leaves the others dark.",
            "high", (0.0, 0.0, 0.0),
            (
                Detail("others", "Lamps left in the loop", None, "Count: 1, 2"),
                Detail("other_volts", "Each is marked", VOLT, "6.3V; empty takes the old lamp's"),
                Detail("other_amps", "and draws", AMPERE, "0.15A; empty takes the old lamp's"),
                Detail("changed", "Are they changed too?", None, "",
                       (("no", "No, they stay"), ("yes", "Yes, all of them"))),
            ),
        ),
        DriverAbout(
            "shared", "Behind a dropping resistor that feeds others", "Switch",
            "Less current here means more volts on everything else it feeds.", "high", (0.0, 0.0, 0.0),
            (
                Detail("dropper", "Dropping resistor", OHM, "68R; between the rail and the shared point"),
                Detail("loads", "What else it feeds", None,
                       "One a line: meter lamp 6V 0.1A max 6.6V; relay 470R; clock 20mA; capacitor max 10V"),
            ),
            "Switched on", "Switched off",
        ),
        DriverAbout(
            "flasher", "Flasher that counts current", "Flasher",
            "Too little current reads as a failed lamp: it flashes fast.", "high", (0.0, 0.1, 0.3),
            (
                _COUNTS, _TRIP, _REST,
                Detail("rate", "Flashes a minute", None, "As it should be: 85. Empty takes 60 to 120"),
                Detail("duty", "Lit share", None, "50 %; 100 % where it also burns steadily, as a brake lamp"),
                _PLACE, _THERE,
                Detail("still_fast", "Still fast after the swap?", None, "",
                       (("", "Not tried"), ("no", "No"), ("yes", "Yes"))),
            ),
            "Flash", "Between flashes",
        ),
        DriverAbout(
            "lamp_check", "Watched by check pulses", "Controller",
            "It pulses the lamp for milliseconds to see that it is whole. A filament is too slow to show it.",
            "high", (0.1, 0.2, 0.3),
            (
                Detail("pulse", "Pulse lasts", SECOND, "2ms"),
                Detail("period", "and comes every", SECOND, "250ms"),
                Detail("pulse_source", "Resistance behind the pulse", OHM, "Empty: the full feed"),
                _COUNTS, _TRIP, _REST, _PLACE, _THERE,
            ),
        ),
    )
}  # fmt: skip

# Flashes a minute that law allows a turn lamp (UN R48, FMVSS 108).
LEGAL_RATE = (60.0, 120.0)
