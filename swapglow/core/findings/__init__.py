"""Judgements on a position. Each file holds rules with their wording and remedies; new ones are found here."""

import sys

from swapglow.core.findings.registry import Context, judge, scan

scan(sys.modules[__name__])

__all__ = ["Context", "judge"]
