"""Quantities as the demo's records keep them."""


def quantity(text: str, source: str = "assumed", note: str = "") -> dict[str, str]:
    """A quantity with its source; assumed where nothing else is said."""
    return {"text": text, "source": source, "note": note}


def reading(text: str, note: str) -> dict[str, str]:
    """A measured quantity."""
    return quantity(text, "measured", note)
