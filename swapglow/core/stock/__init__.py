"""The drawer: what is at hand, what can be made of it, and what work still needs."""
