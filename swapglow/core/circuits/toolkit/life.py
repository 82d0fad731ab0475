"""What heat does to an LED: its junction, and how long it lasts beside now."""

from dataclasses import dataclass

# What of its electrical power an LED gives off as light: white, generic (from memory).
LIGHT_SHARE = 0.3
# Life doubles for so many kelvin less at the junction (common practice, after Arrhenius; 8 to 15 by material).
DOUBLING_K = (15.0, 10.0, 8.0)
MOST_C = 125.0
LONG_C = 85.0
# The rule is made from life tests some tens of kelvin apart: further on it says nothing any more (ours).
FAR_K = 40.0


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
        Factors, rising; past :data:`FAR_K` those at it.
    """
    cooler = min(max(cooler_k, -FAR_K), FAR_K)
    found = sorted(2.0 ** (cooler / k) for k in DOUBLING_K)
    return found[0], found[1], found[2]


def life_text(hot: float, cool: float) -> str:
    """What a cooler junction does to how long it lasts, in words.

    Args:
        hot: the junction now, °C.
        cool: after the change, °C.

    Returns:
        A clause: "1.6 to 2.4 times the life, 2.0 by the rule".
    """
    if cool > MOST_C:
        return "that is too hot still"
    if hot > MOST_C:
        return "now it is too hot to last at all, and no rule says how much longer it does then"
    least, usual, most = times_the_life(hot - cool)
    if abs(hot - cool) > FAR_K:
        return f"{least:.0f} times the life or more" if hot > cool else f"{most:.2g} of the life or less"
    return f"{least:.1f} to {most:.0f} times the life, {usual:.1f} by the rule"
