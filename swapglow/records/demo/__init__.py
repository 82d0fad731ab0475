"""The demo: a volunteer workshop that looks after an old observatory. All of it is invented."""

from swapglow.records.demo.load import is_loaded, load

__all__ = ["is_loaded", "load"]
