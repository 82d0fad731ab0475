"""What heat does to an LED: its junction, and how long it lasts beside now."""

from dataclasses import dataclass

# What of its electrical power an LED gives off as light: white, generic (from memory).
LIGHT_SHARE = 0.3
# Life doubles for so many kelvin less at the junction (common practice, after Arrhenius; 8 to 15 by material).
DOUBLING_K = (15.0, 10.0, 8.0)
MOST_C = 125.0
LONG_C = 85.0
# Past this the rule says nothing any more.
_FAR_K = 200.0


@dataclass(frozen=True)
class Chain:
    """Heat's way from the junction to the air, K/W, each with a doubt as a share."""

    parts: tuple[tuple[str, float, float], ...]

    @property
    def k_w(self) -> float:
        """All of it."""
        return sum(k for _, k, _ in self.parts)

    @property
    def ends(self) -> tuple[float, float]:
        """Least and most: doubts of parts that know nothing of each other add as squares."""
        spread = sum((k * d) ** 2 for _, k, d in self.parts) ** 0.5
        return self.k_w - spread, self.k_w + spread


def times_the_life(cooler_k: float) -> tuple[float, float, float]:
    """Life beside now with a junction so many kelvin cooler: least, usual, most.

    Args:
        cooler_k: K; less than nothing is warmer.

    Returns:
        Factors, rising.
    """
    cooler = min(max(cooler_k, -_FAR_K), _FAR_K)
    found = sorted(2.0 ** (cooler / k) for k in DOUBLING_K)
    return found[0], found[1], found[2]
