"""SPICE text in and out."""

from swapglow.core.engine.spice.read import Deck, SpiceError, read_deck
from swapglow.core.engine.spice.write import write_deck

__all__ = ["Deck", "SpiceError", "read_deck", "write_deck"]
