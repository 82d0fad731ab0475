"""Ink and pencil: how much of the result rests on figures nobody has read."""
