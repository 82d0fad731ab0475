"""What drives the lamp. Each kind of driver is a module here; all others ask the kind, by what it can."""

import sys

from swapglow.core.drivers.driver import Driver
from swapglow.core.drivers.kind import DriverKind
from swapglow.core.kinds.registry import Registry
from swapglow.core.quantities import Figure

DRIVERS: Registry[DriverKind] = Registry(DriverKind, "driver")
DRIVERS.scan(sys.modules[__name__])


def plain_driver() -> Driver:
    """A driver of the usual kind that keeps nothing."""
    return Driver(DRIVERS.usual, Figure(0.0))
