"""Readings: what the meter does to them, what they say, what to read next, what is wrong."""
