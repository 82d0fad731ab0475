"""The search for the best swap: what could be done, what each comes to, and why one wins."""

from swapglow.core.search.rank import WEIGHTS, Swap, Swaps, Weight, search

__all__ = ["WEIGHTS", "Swap", "Swaps", "Weight", "search"]
