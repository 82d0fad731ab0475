"""What feeds the lamp: each kind of supply as a value, and what it asks for."""

from swapglow.core.supply.kinds import KINDS, Kind, SupplyKind
from swapglow.core.supply.model import Supply

__all__ = ["KINDS", "Kind", "Supply", "SupplyKind"]
