"""What drives a lamp: the kinds, and one as a value."""

from swapglow.core.driver.kinds import DRIVERS, DriverKind
from swapglow.core.driver.model import Driver, Load, State

__all__ = ["DRIVERS", "Driver", "DriverKind", "Load", "State"]
