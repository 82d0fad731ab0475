"""What stands inside a part that was swept as a whole: strings side by side, each of LEDs and a resistor."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Assembly:
    """What is known of a swept part's inside.

    Attributes:
        strings: equal strings side by side.
        in_series: LEDs one after another in each.
        ohm: the resistor in each, where known, Ω.
    """

    strings: int = 1
    in_series: int = 1
    ohm: float = 0.0

    @property
    def single(self) -> bool:
        """Whether it is one LED and nothing else."""
        return self == ONE_LED

    def of_one(self, volts: float, amps: float) -> tuple[float, float]:
        """One LED's share of what the whole has: V over it, A through it (Kirchhoff).

        Args:
            volts: across the whole, V.
            amps: into the whole, A.

        Returns:
            V and A.
        """
        each = amps / self.strings
        return (volts - each * self.ohm) / self.in_series, each


# The part itself.
ONE_LED = Assembly()
