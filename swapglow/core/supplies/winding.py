"""A transformer's winding."""

from collections.abc import Iterable

from swapglow.core.kinds.detail import Detail
from swapglow.core.quantities import HERTZ
from swapglow.core.supplies.grounding import grounding_owed
from swapglow.core.supplies.kind import GROUNDED, LOAD, MAINS_CASE, OPEN, Circumstances, Owed
from swapglow.core.supplies.sagging import Sagging
from swapglow.core.supplies.waveform import Waveform


class Winding(Sagging):
    """A sine at the mains' frequency."""

    id = "winding"
    order = 4
    label = "AC winding"
    expect = (
        "A sine: its peak is 1.414 times what the meter reads. Unloaded windings read 10 to 30 % "
        "high, and follow the mains."
    )
    waveform = Waveform.SINE
    details = (Detail("hertz", "Frequency", HERTZ, "50Hz, 60Hz, 400Hz. Empty takes 50 Hz"), OPEN, LOAD, GROUNDED)
    shows_halfway = True
    read_at_offered = False
    caution = MAINS_CASE
    # What it is was said; a better reading may still say what stands behind it.
    may_be_renamed = True

    def owed(self, about: Circumstances) -> Iterable[Owed]:
        """Its frame, then its sag."""
        ground = grounding_owed(about)
        if ground is not None:
            yield ground
        yield from super().owed(about)


KIND = Winding()
