"""Filament lamps: rating, and what the handbook says of them off their rating."""

from dataclasses import dataclass, replace
from functools import cache

from swapglow.core.parts.catalogue import rows
from swapglow.core.quantities import InputError

# Exponents on V/Vrated (miniature lamp handbooks, from memory).
CURRENT_EXPONENT = 0.55
LIGHT_EXPONENT = 3.5
COLOUR_EXPONENT = 0.42

# The id of a lamp that is known by its own figures.
OWN = "own"

# Of an indicator lamp at its rating (2100 to 2600 K, common practice).
USUAL_K = 2300.0
# What a light guessed from volts and amps may be off by: 4 to 12 lm/W about the 6 that are taken.
GUESSED = 2.0

# 1 MSCP is 4π lm, so an even radiator of 1 MSCP shows 1 cd in every direction.


@dataclass(frozen=True)
class Bulb:
    """The outside of a filament lamp, as far as it is known.

    Attributes:
        across_m: its thickest place.
        long_m: with its base.
        below_m: how far the filament sits under the tip.
    """

    across_m: float | None = None
    long_m: float | None = None
    below_m: float | None = None


@dataclass(frozen=True)
class Lamp:
    """A filament lamp by its rating.

    Attributes:
        volts, amps: rated.
        candela: mean spherical, new.
        base: in words.
        colour_k: colour temperature at its rating, K.
        kept: share of its light that age and a blackened glass have left.
        light_doubt: its light may be so many times more or less (lamps of one type, from memory).
        bulb: its outside.
    """

    id: str
    label: str
    volts: float
    amps: float
    candela: float | None
    base: str
    colour_k: float = USUAL_K
    kept: float = 1.0
    light_doubt: float = 1.3
    bulb: Bulb = Bulb()

    def amps_at(self, volts: float) -> float:
        """Current off the rating: I ∝ V^0.55."""
        return self.amps * float((max(volts, 0.0) / self.volts) ** CURRENT_EXPONENT)

    def candela_at(self, volts: float) -> float | None:
        """Intensity off the rating: light ∝ V^3.5, less what age took; None where it is not known."""
        if self.candela is None:
            return None
        return self.kept * self.candela * float((max(volts, 0.0) / self.volts) ** LIGHT_EXPONENT)

    def times(self, count: int) -> "Lamp":
        """So many of it side by side, as one: current and light together."""
        if count == 1:
            return self
        light = None if self.candela is None else self.candela * count
        return replace(self, label=f"{count} × {self.label}", amps=self.amps * count, candela=light)

    def kelvin_at(self, volts: float) -> float:
        """Colour temperature off the rating: T ∝ V^0.42; never below a dull glow of 800 K."""
        ratio = max(volts, 0.0) / self.volts
        return max(800.0, min(3400.0, self.colour_k * float(ratio**COLOUR_EXPONENT)))


@cache
def catalogue() -> dict[str, Lamp]:
    """Common miniature lamps by id."""
    return {
        r["id"]: Lamp(
            r["id"],
            r["label"],
            float(r["volts"]),
            float(r["amps"]),
            float(r["mscp"]) if r["mscp"] else None,
            r["base"],
            float(r["colour_k"]),
            bulb=Bulb(*(float(r[k]) / 1000 if r[k] else None for k in ("across_mm", "long_mm", "below_mm"))),
        )
        for r in rows("lamps")
    }


def estimate_candela(volts: float, amps: float) -> float:
    """A guess of a lamp's light from its rating: 6 lm/W over the whole sphere.

    Typical indicator lamps give 4 to 12 lm/W (common practice); 1 MSCP = 4π lm.

    Args:
        volts: rated, V.
        amps: rated, A.

    Returns:
        Mean spherical candela.
    """
    return volts * amps * 6.0 / 12.566370614359172


def choose_lamp(id_: str) -> Lamp | None:
    """A lamp of the catalogue; None for an empty text.

    Raises:
        InputError: ``lamp_id``: there is no such lamp.
    """
    if not id_:
        return None
    found = catalogue().get(id_)
    if found is None:
        raise InputError("lamp_id", f'There is no lamp "{id_}" in the catalogue.')
    return found


def own_lamp(volts: float, amps: float, candela: float | None, base: str) -> Lamp:
    """A lamp by its own figures.

    Args:
        volts, amps: its rating.
        candela: mean spherical, cd; None guesses from the rating.
        base: in words.

    Returns:
        The lamp.
    """
    light = estimate_candela(volts, amps) if candela is None else candela
    return Lamp(OWN, "Own lamp", volts, amps, light, base, light_doubt=GUESSED if candela is None else 1.3)
