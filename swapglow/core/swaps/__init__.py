"""The search for the best swap: what could be done, what each comes to, and why one wins."""

from swapglow.core.swaps.ranked import Swap, Swaps, Weight, search

__all__ = ["Swap", "Swaps", "Weight", "search"]
