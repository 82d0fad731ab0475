"""At the bench: what rests on pencil, what to read next, and what a reading means."""
