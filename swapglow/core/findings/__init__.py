"""Judgements on a position, one rule a function, gathered by a registry."""

from swapglow.core.findings import (  # noqa: F401
    alternating,
    drive,
    flasher,
    headroom,
    heat,
    light,
    lines,
    measured,
    modules,
    neighbours,
    off,
    polarity,
    pulses,
    supplies,
    unknown,
    wiring,
)
from swapglow.core.findings.registry import Context, judge

__all__ = ["Context", "judge"]
