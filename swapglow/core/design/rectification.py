"""How an LED is made to live on a supply that alternates or reverses: a table of its ways."""

from dataclasses import dataclass
from typing import Literal

from swapglow.core.supplies.waveform import Waveform

_ALL = (Waveform.SINE, Waveform.EITHER_WAY, Waveform.SQUARE)
_SINE = (Waveform.SINE,)
_STRIPE = "The capacitor's marked stripe is its negative: it goes to the LED's return."


@dataclass(frozen=True)
class Rectification:
    """A way to rectify, or to guard.

    Attributes:
        id, label, why: its name and its point.
        halves: half-cycles that light it: 1 or 2.
        reservoir: whether a capacitor holds it up.
        topology: what stands between supply and LED: nothing, one diode in series, or a bridge of four.
        guard: what stands across the LED, turned round: nothing, a diode, or LEDs of its own.
        suits: the waveforms it is for.
        polarity: which way round its parts go.
        parts: how many parts it adds; a bridge comes as one.
        turned: what conducts in place of the LED when the supply has turned.
        proposed: whether the search proposes it.
    """

    id: str
    label: str
    why: str
    halves: Literal[1, 2]
    reservoir: bool
    topology: Literal["none", "series", "bridge"]
    guard: Literal["none", "diode", "led"]
    suits: tuple[Waveform, ...]
    polarity: str
    parts: int
    turned: str = "LED, in reverse"
    second_colour: bool = False
    proposed: bool = True

    @property
    def asks(self) -> tuple[str, ...]:
        """The fields of a position that only this way needs."""
        return ("capacitor", "capacitor_v") * self.reservoir + ("second_led_id",) * self.second_colour

    @property
    def folds(self) -> bool:
        """Whether both half-cycles reach the LED the same way round."""
        return self.topology == "bridge"

    @property
    def diodes(self) -> int:
        """Rectifier diodes that the lamp's current passes through."""
        return {"none": 0, "series": 1, "bridge": 2}[self.topology] if self.parts else 0


RECTIFICATIONS: dict[str, Rectification] = {
    r.id: r
    for r in (
        Rectification(
            "bridge_cap",
            "Bridge and capacitor",
            "Steady light both ways round; the peak decides the capacitor.",
            2,
            True,
            "bridge",
            "none",
            _SINE,
            f"The bridge's + to the capacitor's positive and on to the LED. {_STRIPE}",
            2,
        ),
        Rectification(
            "bridge",
            "Bridge",
            "Both half-cycles, no reverse volts; flickers at twice the line.",
            2,
            False,
            "bridge",
            "none",
            _ALL,
            "The bridge's + to the LED's long leg; its ~ legs to the supply, either way round.",
            1,
        ),
        Rectification(
            "half_wave_cap",
            "Half-wave and capacitor",
            "One diode; a common negative may stay on the frame.",
            1,
            True,
            "series",
            "none",
            _SINE,
            f"The diode's ring points to the capacitor's positive. {_STRIPE}",
            2,
        ),
        Rectification(
            "half_wave",
            "Half-wave diode in series",
            "One diode; flickers at line frequency.",
            1,
            False,
            "series",
            "none",
            _ALL,
            "The diode's ring points to the LED's long leg.",
            1,
        ),
        Rectification(
            "inverse_diode",
            "Inverse diode across the LED",
            "One part holds the reverse to a diode's drop; the resistor works both half-cycles.",
            1,
            False,
            "none",
            "diode",
            _ALL,
            "Across the LED, turned round: the diode's ring to the LED's long leg.",
            1,
            "Inverse diode",
        ),
        Rectification(
            "back_to_back",
            "Two LEDs back to back",
            "Each guards the other; both half-cycles light.",
            2,
            False,
            "none",
            "led",
            _ALL,
            "One LED each way: long leg to short leg at both ends.",
            0,
            "Other LED",
        ),
        Rectification(
            "two_colour",
            "Two-colour LED",
            "Two dice back to back: on a reversing track it shows the direction.",
            2,
            False,
            "none",
            "led",
            _ALL,
            "Either way round; swap the leads where the colours come out exchanged.",
            0,
            "Other die",
            second_colour=True,
            proposed=False,
        ),
        Rectification(
            "own_bridge",
            "Its own bridge inside",
            "A lamp that lights either way round has a bridge of its own: nothing is added.",
            2,
            False,
            "bridge",
            "none",
            _ALL,
            "Either way round.",
            0,
            proposed=False,
        ),
        Rectification(
            "bare",
            "Nothing",
            "The LED itself takes the reverse volts.",
            1,
            False,
            "none",
            "none",
            _ALL,
            "",
            0,
            proposed=False,
        ),
    )
}


OWN_BRIDGE = RECTIFICATIONS["own_bridge"]


def usual_rectification(waveform: Waveform) -> Rectification:
    """Ours for a waveform, until another is chosen: steady light on a sine, a bridge on all others."""
    ours = (r for r in RECTIFICATIONS.values() if r.folds and r.reservoir is (waveform is Waveform.SINE))
    return next(ours)


def without_bridge(waveform: Waveform) -> Rectification:
    """The half-wave way that a grounded source allows, with a capacitor on a sine."""
    ways = (r for r in RECTIFICATIONS.values() if r.topology == "series")
    return next(r for r in ways if r.reservoir is (waveform is Waveform.SINE))
