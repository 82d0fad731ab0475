"""What may be wrong with a fitted lamp, by solving its circuit with each fault in it."""
