"""How an LED is made to live on a supply that alternates or reverses."""

from dataclasses import dataclass
from typing import Literal

TreatmentId = Literal[
    "bare", "inverse_diode", "back_to_back", "two_colour", "half_wave", "half_wave_cap", "bridge",
    "bridge_cap",
]  # fmt: skip


@dataclass(frozen=True)
class Treatment:
    """A treatment.

    Attributes:
        halves: half-cycles that light it: 1 or 2.
        reservoir: whether a capacitor holds it up.
        rectifier: diodes the lamp's current passes through.
        flows: kinds of alternation it suits.
    """

    id: TreatmentId
    label: str
    why: str
    halves: int
    reservoir: bool
    rectifier: int
    flows: tuple[str, ...]


_ALL = ("sine", "reversing", "pulses")

TREATMENTS: dict[TreatmentId, Treatment] = {
    t.id: t
    for t in (
        Treatment("bridge_cap", "Bridge and capacitor",
                  "Steady light both ways round; the peak decides the capacitor.", 2, True, 2, ("sine",)),
        Treatment("bridge", "Bridge", "Both half-cycles, no reverse volts; flickers at twice the line.",
                  2, False, 2, _ALL),
        Treatment("half_wave_cap", "Half-wave and capacitor",
                  "One diode; a common negative may stay on the frame.", 1, True, 1, ("sine",)),
        Treatment("half_wave", "Half-wave diode in series",
                  "One diode; flickers at line frequency.", 1, False, 1, _ALL),
        Treatment("inverse_diode", "Inverse diode across the LED",
                  "One part holds the reverse to a diode's drop; the resistor works both half-cycles.",
                  1, False, 0, _ALL),
        Treatment("back_to_back", "Two LEDs back to back",
                  "Each guards the other; both half-cycles light.", 2, False, 0, _ALL),
        Treatment("two_colour", "Two-colour LED",
                  "Two dice back to back: on a reversing track it shows the direction.", 2, False, 0, _ALL),
        Treatment("bare", "Nothing", "The LED itself takes the reverse volts.", 1, False, 0, _ALL),
    )
}  # fmt: skip


def usual_treatment(flow: str) -> TreatmentId:
    """Ours for a kind of alternation, until another is chosen."""
    return "bridge_cap" if flow == "sine" else "bridge"
