"""Swap Glow: the bench instrument for putting LEDs where filament lamps were."""

__version__ = "0.1.0"
