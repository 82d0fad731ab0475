"""A report as lines, one a figure or a sentence, by where it stands: what is kept of the demo's lamps and compared.

It does not say that an answer is right, which the checks against outside references do. It says that one has
moved: any text, grade, order, remedy or figure. A move that is meant is seen in the difference: ``make approve``.
"""

import zlib
from collections.abc import Iterator
from pathlib import Path
from typing import Any

ROOM = Path(__file__).parent
# A row of more numbers than this is a curve: its ends, its middle and its sum stand for it.
CURVE = 8
# No line is longer than this many characters, but for a sentence.
WIDE = 400
# Pictures in base64 stand by their size and a checksum; ramps of colours by their ends and their middle.
PICTURES = {"levels"}
RAMPS = {"ramp"}
# What rounding leaves of nothing.
NOTHING = 1e-11
# A figure with where it comes from.
SHOWN = {"value", "number", "unit", "source", "origin"}


def _flat(of: Any) -> str | None:
    """A value that fits a line: a text, a number, a figure with its source, or a few of them; None for more."""
    if isinstance(of, dict):
        if set(of) == SHOWN:
            return f"{of['number']} {of['unit']} <{of['source']}: {of['origin']}>"
        parts = [(key, _picture(key, value) or _flat(value)) for key, value in of.items()]
        if any(text is None for _, text in parts):
            return None
        text = "; ".join(f"{key} {value}" for key, value in parts if value not in ("''", "None", "False"))
        return text if len(text) < WIDE else None
    if isinstance(of, list):
        if len(of) > CURVE and all(isinstance(v, int | float) for v in of):
            return f"a curve, {' '.join(_number(v) for v in (len(of), of[0], of[len(of) // 2], of[-1], sum(of)))}"
        parts_ = [_flat(value) for value in of]
        text = ", ".join(str(part) for part in parts_)
        return f"[{text}]" if None not in parts_ and len(text) < WIDE else None
    if isinstance(of, float):
        return _number(of)
    return f"{of}" if of != "" else "''"


def _number(of: float) -> str:
    return "0" if abs(of) < NOTHING else f"{of:.4g}"


def _picture(key: str, value: Any) -> str | None:
    if key in PICTURES and isinstance(value, str):
        return f"{len(value)} letters, {zlib.crc32(value.encode()):08x}"
    return f"{value[0]} {value[len(value) // 2]} {value[-1]}" if key in RAMPS and value else None


def lines(of: Any, where: str) -> Iterator[str]:
    """Each part of plain data that fits a line, with its place."""
    flat = _flat(of)
    if flat is not None:
        yield f"{where}: {flat}"
    elif isinstance(of, dict):
        for key, value in of.items():
            yield from lines(value, f"{where}.{key}")
    else:
        step = max(1, len(of) // CURVE)
        if step > 1:
            yield f"{where}: {len(of)} rows"
        for n in range(0, len(of), step):
            value = of[n]
            name = value["id"] if isinstance(value, dict) and "id" in value else str(n)
            yield from lines(value, f"{where}[{name}]")


def approved(name: str) -> Path:
    """Where a lamp's lines are kept."""
    return ROOM / f"{''.join(c if c.isalnum() else '-' for c in name.lower())}.txt"
