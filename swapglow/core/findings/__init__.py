"""Judgements on a position. Each file holds rules with their wording and remedies; new ones are found here."""

import sys

from swapglow.core.findings.registry import Context, context_of, judge, scan, solvable, verdict

scan(sys.modules[__name__])

__all__ = ["Context", "context_of", "judge", "solvable", "verdict"]
