"""Rectified and smoothed, and no more: it sags with its load and follows the mains."""

from typing import ClassVar

from swapglow.core.supplies.kind import FRAME_POLE, LOAD, MAINS_CASE, OPEN
from swapglow.core.supplies.sagging import Sagging


class Unregulated(Sagging):
    """A DC rail that sags."""

    id = "unregulated"
    order = 1
    label = "Unregulated DC"
    expect = (
        "Sags 10 to 30 % from open to loaded, and follows the mains by ±10 %. Open and loaded "
        "readings give its source resistance."
    )
    details = (OPEN, LOAD, FRAME_POLE)
    may_be_other: ClassVar[bool] = True
    may_be_renamed: ClassVar[bool] = True
    caution = "Its reservoir capacitor holds its charge after switching off: discharge before solder. " + MAINS_CASE


KIND = Unregulated()
