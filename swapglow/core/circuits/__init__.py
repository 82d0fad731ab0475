"""Circuits with LEDs in them and lamps that are part of a circuit. Each kind is a module in ``kinds``."""

from typing import Any

from swapglow.core.circuits import kinds
from swapglow.core.circuits.kind import CircuitKind
from swapglow.core.kinds.registry import Registry

CIRCUITS: Registry[CircuitKind[Any]] = Registry(CircuitKind, "circuit")  # type: ignore[type-abstract]
CIRCUITS.scan(kinds)
