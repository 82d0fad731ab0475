"""SPICE text as numbered logical lines of words, and its numbers."""

import math
import re
from dataclasses import dataclass

_SUFFIXES = {
    "t": 1e12,
    "g": 1e9,
    "meg": 1e6,
    "k": 1e3,
    "mil": 25.4e-6,
    "m": 1e-3,
    "u": 1e-6,
    "µ": 1e-6,
    "n": 1e-9,
    "p": 1e-12,
    "f": 1e-15,
}
_NUMBER = re.compile(r"([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)([a-zµ°Ω]*)")


class SpiceError(ValueError):
    """A line that cannot be read, with its number and the reason."""

    def __init__(self, line: int, reason: str) -> None:
        super().__init__(f"line {line}: {reason}")
        self.line = line
        self.reason = reason


@dataclass(frozen=True)
class Line:
    """A logical line: the number of its first physical line, and its words in lower case."""

    number: int
    words: tuple[str, ...]

    def refuse(self, reason: str) -> SpiceError:
        """An error at this line."""
        return SpiceError(self.number, reason)


LONGEST_TEXT = 2_000_000


def logical_lines(text: str) -> tuple[str, list[Line]]:
    """Title and logical lines: comments gone, continuations joined, ``.end`` obeyed.

    Parentheses, commas and equals signs become words or spaces, so that ``SIN(0 1)`` and
    ``IS=1e-14`` fall apart into plain words with ``=`` between.
    """
    if len(text) > LONGEST_TEXT:
        raise SpiceError(1, "the file is larger than 2 MB")
    physical = text.replace("\r\n", "\n").replace("\r", "\n").split("\n")
    title = physical[0].strip() if physical else ""
    joined: list[tuple[int, str]] = []
    for number, raw in enumerate(physical[1:], start=2):
        line = re.split(r";|\$\s|//", raw, maxsplit=1)[0].strip()
        if not line or line.startswith("*"):
            continue
        if line.startswith("+"):
            if not joined:
                raise SpiceError(number, "a continuation with nothing before it")
            joined[-1] = (joined[-1][0], joined[-1][1] + " " + line[1:])
            continue
        joined.append((number, line))
    out = []
    for number, line in joined:
        words = re.sub(r"[(),]", " ", line.lower()).replace("=", " = ").split()
        if not words:
            raise SpiceError(number, "nothing on the line can be read")
        if words[0] == ".end":
            break
        out.append(Line(number, tuple(words)))
    return title, out


def number(line: Line, word: str, what: str) -> float:
    """A SPICE number: "4k7" is none, "4.7k", "1meg", "10uF" and "1e-3" are.

    Args:
        line: where it stands, for the refusal.
        word: the text.
        what: what it should be, for the refusal.

    Returns:
        The number, its suffix multiplied in.

    Raises:
        SpiceError: it is no SPICE number.
    """
    found = _NUMBER.fullmatch(word)
    if not found:
        raise line.refuse(f'{what} "{word}" is no number; write it like 4.7k, 1meg or 1e-3')
    digits, tail = found.groups()
    scale = 1.0
    for suffix in ("meg", "mil"):
        if tail.startswith(suffix):
            scale = _SUFFIXES[suffix]
            break
    else:
        if tail[:1] in _SUFFIXES:
            scale = _SUFFIXES[tail[0]]
    value = float(digits) * scale
    if not math.isfinite(value):
        raise line.refuse(f'{what} "{word}" is too large')
    return value
