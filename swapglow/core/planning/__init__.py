"""The bench day: what can be done now, together, in the hours there are."""
