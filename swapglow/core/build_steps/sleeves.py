"""Heat-shrink sleeve over a joint or a part: bore and length."""

from dataclasses import dataclass

# Bores of common sleeve that shrinks to half, mm (common practice).
BORES_MM = (1.2, 1.6, 2.4, 3.2, 4.8, 6.4, 9.5, 12.7, 19.1)
# It must go over with a little to spare, and reach past each joint.
_SPARE_MM, _PAST_MM = 0.3, 5.0
# The legs of a leaded LED, and hook-up wire over its insulation, mm (common practice).
LEG_MM, WIRE_MM = 0.6, 1.2


@dataclass(frozen=True)
class Sleeve:
    """A piece of sleeve: bore before it shrinks, and length, mm."""

    bore_mm: float
    length_mm: float

    @property
    def text(self) -> str:
        """ "3.2 mm bore, 17 mm long" """
        return f"{self.bore_mm:g} mm bore, {self.length_mm:.0f} mm long"


def sleeve_over(thick_mm: float, long_mm: float) -> Sleeve | None:
    """The piece that goes over something and shrinks onto it.

    Args:
        thick_mm: its thickest place.
        long_mm: its length, joints not counted.

    Returns:
        The piece; None where no common bore goes over it.
    """
    bore = next((b for b in BORES_MM if b >= thick_mm + _SPARE_MM), None)
    return None if bore is None else Sleeve(bore, long_mm + 2 * _PAST_MM)
