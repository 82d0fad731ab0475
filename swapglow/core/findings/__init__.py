"""Judgements on a position, one rule a function, gathered by a registry."""

from swapglow.core.findings import drive, headroom, heat, light, measured, polarity  # noqa: F401
from swapglow.core.findings.registry import Context, judge

__all__ = ["Context", "judge"]
