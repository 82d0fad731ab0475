"""A look at a lamp with a part in it, and what the eye said."""

from dataclasses import dataclass
from typing import Literal

from swapglow.core.design.looks import Optics, Room
from swapglow.core.parts.resistor import check_resistor

Verdict = Literal["dim", "right", "bright", "blue", "uneven", "same"]

VERDICTS = {
    "dim": "Too dim",
    "right": "Right",
    "bright": "Too bright",
    "blue": "Too blue",
    "uneven": "Uneven",
    "same": "No change seen",
}


# What is said of an LED that is there already and too bright: its colour and its evenness stay.
DIM_VERDICTS = {key: label for key, label in VERDICTS.items() if key not in ("blue", "uneven")}


@dataclass(frozen=True)
class Photographed:
    """What one photograph of the old lamp and this one in the same frame said.

    Attributes:
        ratio: light of this one beside the old lamp's.
        doubt: the factor that it may be off by, either way.
    """

    ratio: float
    doubt: float


@dataclass(frozen=True)
class Trial:
    """One look.

    Attributes:
        ohm: the resistor in it.
        verdict: what the eye said; "same" of two trials is said of the one and the one before it.
        room: the light it was seen in.
        optics: what was done to the LED.
        led_id: the LED it was made with, of the catalogue; empty is the position's own.
        screen: share of the light that a screen held before it let through.
        id: the record's own.
        at: when, as it was noted.
        note: in words.
        photographed: beside the old lamp in one frame; None where nobody took one.

    Raises:
        InputError: ``resistor``: no resistor is so small or so large.
    """

    ohm: float
    verdict: Verdict
    room: Room = "workshop"
    optics: Optics = "as-is"
    led_id: str = ""
    screen: float = 1.0
    id: str = ""
    at: str = ""
    note: str = ""
    photographed: Photographed | None = None

    def __post_init__(self) -> None:
        check_resistor("resistor", self.ohm)
