"""A reversing DC track."""

from swapglow.core.supplies.kind import SupplyKind
from swapglow.core.supplies.waveform import Waveform


class Reversing(SupplyKind):
    """One way or the other, with the direction of travel."""

    id = "reversing"
    order = 6
    label = "Reversing DC, model track"
    guess = "12V"
    expect = (
        "Turns round with the direction of travel. Reverse volts on the LED, and the least "
        "voltage that lights it, decide."
    )
    waveform = Waveform.EITHER_WAY
    levels = ("crawl", "running", "full")
    read_at_offered = False


KIND = Reversing()
