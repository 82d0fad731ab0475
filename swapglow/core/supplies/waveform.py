"""How a supply's current runs."""

import math
from enum import StrEnum


class Waveform(StrEnum):
    """One way; as a sine; one way or the other; both ways by turns, flat."""

    DC = "dc"
    SINE = "sine"
    EITHER_WAY = "either_way"
    SQUARE = "square"

    @property
    def alternates(self) -> bool:
        """Whether the lamp's two leads ever change places."""
        return self is not Waveform.DC

    @property
    def crest_factor(self) -> float:
        """Highest instant over what a meter reads: √2 for a sine, which reads RMS."""
        return math.sqrt(2) if self is Waveform.SINE else 1.0

    @property
    def turns_by_itself(self) -> bool:
        """Whether it goes both ways within every cycle."""
        return self in (Waveform.SINE, Waveform.SQUARE)
