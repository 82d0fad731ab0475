"""Cells of a CSV file that no spreadsheet takes for a formula."""

# A spreadsheet takes a cell that begins so for a formula; the apostrophe is what a guard begins with.
_FORMULA = ("=", "+", "-", "@", "\t", "\r", "\n", "'")


def guarded(text: str) -> str:
    """A cell with an apostrophe before what would be taken for a formula."""
    return f"'{text}" if text.startswith(_FORMULA) else text


def bare(text: str) -> str:
    """A cell without the guard that was put before it."""
    return text[1:] if text.startswith("'") and text[1:].startswith(_FORMULA) else text
