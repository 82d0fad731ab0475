"""What a supply's waveform is as a source."""

from swapglow.core.engine.netlist import FullWave, Param, Sine, Wave


def sine(peak: Param, hertz: float, *, folded: bool) -> Wave:
    """The source of a winding.

    Args:
        peak: its crest, V; scalar or (samples,).
        hertz: its frequency.
        folded: whether it is what an even bridge makes of it.

    Returns:
        A sine, or its absolute value.
    """
    return FullWave(peak, hertz) if folded else Sine(0.0, peak, hertz)
