"""The swap as a value: a lamp position, its rail, and changes to it."""
