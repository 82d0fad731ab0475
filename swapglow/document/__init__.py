"""One JSON document per equipment: its shape, its checks, and its way to the core's values."""
