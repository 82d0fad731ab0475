"""Circuits whose LEDs are there already, and LEDs that need a heat sink. Each kind is a module here."""

import sys

from swapglow.core.fitted.kind import FittedKind
from swapglow.core.kinds.registry import Registry

FITTED: Registry[FittedKind] = Registry(FittedKind, "fitted circuit")
FITTED.scan(sys.modules[__name__])
