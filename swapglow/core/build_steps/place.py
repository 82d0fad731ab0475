"""Where the LED must stand for lens and reflector to find its light where the filament's was."""

from dataclasses import dataclass

from swapglow.core.parts.lamp import Bulb
from swapglow.core.parts.led import Led


@dataclass(frozen=True)
class Body:
    """An LED's outside.

    Attributes:
        across_m: its thickest place, the rim.
        tall_m: from the legs' seat to the tip.
        below_m: how far the chip sits under the tip.
    """

    across_m: float
    tall_m: float
    below_m: float


# By size (data sheets of common parts, from memory).
BODIES = {
    "3 mm": Body(3.8e-3, 5.3e-3, 3.3e-3),
    "5 mm": Body(5.8e-3, 8.6e-3, 5.2e-3),
    "chip 0805": Body(2.4e-3, 0.8e-3, 0.4e-3),
    "chip 3528": Body(4.5e-3, 1.9e-3, 0.8e-3),
}
# Nearer than this nobody sees a difference, nor measures it with a rule (common practice).
_SAME_M = 0.5e-3


def old_and_new(bulb: Bulb, led: Led) -> tuple[tuple[str, str], ...]:
    """Height of the tip and bore, the LED beside the old bulb.

    Args:
        bulb: the old one's outside.
        led: what is put in its place.

    Returns:
        Labels with texts; only what both are known of.
    """
    body = BODIES.get(led.size)
    out = []
    size = [f"{_mm(m)} {word}" for m, word in ((bulb.across_m, "across"), (bulb.long_m, "long")) if m]
    if size:
        out.append(("Old lamp", ", ".join(size)))
    if body is None:
        return tuple(out)
    out.append(("LED", f"{_mm(body.across_m)} across, {_mm(body.tall_m)} tall"))
    if bulb.below_m is not None:
        out.append(("Its tip", _tip(bulb.below_m - body.below_m)))
    if bulb.across_m is not None:
        out.append(("In the old bore", _bore(bulb.across_m - body.across_m)))
    return tuple(out)


def _mm(metres: float) -> str:
    """To a tenth of a millimetre, as a rule or caliper gives it."""
    return f"{round(metres * 1000, 1):g} mm"


def _tip(lower_m: float) -> str:
    if abs(lower_m) < _SAME_M:
        return "where the old lamp's tip stood"
    return f"{_mm(abs(lower_m))} {'under' if lower_m > 0 else 'over'} where the old lamp's tip stood"


def _bore(spare_m: float) -> str:
    if spare_m < 0:
        return f"{_mm(-spare_m)} too thick: file the rim, or take a smaller LED"
    if spare_m < 2 * _SAME_M:
        return "fits as it is"
    return f"{_mm(spare_m / 2)} of play all round: a sleeve or collar centres it"
