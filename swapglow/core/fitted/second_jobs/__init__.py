"""Lamps that are part of the circuit, each solved before and after its swap, and the part that takes the second job."""
