"""What feeds the lamp. Each kind of supply is a module here; all others ask the kind, by what it can."""

import sys

from swapglow.core.kinds.registry import Registry
from swapglow.core.supplies.kind import SupplyKind
from swapglow.core.supplies.supply import Supply
from swapglow.core.supplies.waveform import Waveform

SUPPLIES: Registry[SupplyKind] = Registry(SupplyKind, "supply")
SUPPLIES.scan(sys.modules[__name__])


def sagging_kind(waveform: Waveform) -> SupplyKind:
    """The kind that a rail of a waveform is taken for once open and loaded readings differ."""
    return next(k for k in SUPPLIES.values() if k.sags and k.waveform is waveform)


def plain_supply() -> Supply:
    """A stiff supply of the usual kind."""
    return Supply(SUPPLIES.usual)
