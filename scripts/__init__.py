"""Project chores that need Python: screenshots, bench."""
