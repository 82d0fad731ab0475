"""A digital model track: flat pulses of both signs."""

from swapglow.core.supplies.kind import SupplyKind
from swapglow.core.supplies.waveform import Waveform


class Digital(SupplyKind):
    """Neither DC nor ordinary AC."""

    id = "digital"
    order = 7
    label = "Digital model track"
    guess = "16V"
    expect = (
        "Neither DC nor ordinary AC: flat pulses of both signs. A meter's AC reading is not to be "
        "trusted on it. Rectify; or dim by the decoder's own settings, with no solder at all."
    )
    waveform = Waveform.SQUARE
    read_at_offered = False


KIND = Digital()
