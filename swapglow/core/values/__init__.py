"""Values that parts are made in, and how a part is marked with its value."""
