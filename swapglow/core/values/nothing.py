"""Words and figures for no resistor at all."""

import re

# What wire and joints come to where a link stands in a resistor's place (common practice).
LINK_OHM = 0.1

_NONE = re.compile(
    r"(?:none|no|nothing|no resistor|without|link|wire|0+(?:[.,]0*)?\s*(?:k|r|k?ohms?|k?ω|k?Ω)?)", re.IGNORECASE
)


def says_none(text: str) -> bool:
    """Whether a text says that there is no resistor: "none", "0", "0R", "link".

    Args:
        text: as typed.
    """
    return _NONE.fullmatch(text.replace("\u00a0", " ").strip()) is not None
