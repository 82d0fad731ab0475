"""How far a lamp's job has come."""

STAGES = {"sizing": "Sizing", "trial": "On trial", "fitted": "Fitted", "done": "Done"}
DONE = "done"
