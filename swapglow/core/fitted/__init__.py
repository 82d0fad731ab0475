"""Circuits whose LEDs are there already, and LEDs that need a heat sink. Each kind is a module here.

Lamps that are part of the circuit, in ``second_jobs``, are worked out in the same shape.
"""

import sys

from swapglow.core.fitted import second_jobs
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.kinds.registry import Registry

FITTED: Registry[FittedKind] = Registry(FittedKind, "fitted circuit")
FITTED.scan(sys.modules[__name__])
FITTED.scan(second_jobs)
