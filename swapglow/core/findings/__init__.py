"""Judgements on a position, one rule a function, gathered by a registry."""

from swapglow.core.findings import (  # noqa: F401
    alternating,
    drive,
    headroom,
    heat,
    light,
    lines,
    measured,
    modules,
    polarity,
    supplies,
)
from swapglow.core.findings.registry import Context, judge

__all__ = ["Context", "judge"]
