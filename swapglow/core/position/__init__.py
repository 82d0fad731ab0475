"""The whole swap as a value, and the circuit it makes."""

from swapglow.core.position.circuit import Cases, to_circuit
from swapglow.core.position.model import (
    Changes,
    Position,
    PositionError,
    Rail,
    with_changes,
)

__all__ = ["Cases", "Changes", "Position", "PositionError", "Rail", "to_circuit", "with_changes"]
