"""Resistors as they are read off a board: values, chip marks, several side by side."""

import re

from swapglow.core.parts.resistor import check_resistor
from swapglow.core.quantities import OHM, InputError, show
from swapglow.core.quantities.inputs import read_single

# Signs that people put between parts side by side.
_BESIDE = re.compile(r"\s*(?:‖|∥|\|\|?|//|&)\s*")
_MOST = 8


def resistors(field: str, text: str) -> tuple[float, ...]:
    """Resistors side by side, as typed: "68 ‖ 91", "6R8 // 9R1", "1R0".

    So are a chip's marks ("mark 680" is 68 Ω, "01C" is 10 kΩ) and bands ("blue grey black gold"); three or four
    digits alone are asked about, for on a chip the last of them is a power of ten.

    Args:
        field: for a refusal.
        text: as typed.

    Returns:
        Ω of each, in the order typed.

    Raises:
        InputError: one of them cannot be read, or there are too many.
    """
    parts = [p for p in _BESIDE.split(text.strip()) if p]
    if not parts:
        raise InputError(field, "Type what is on the board: 6R8, or 68 ‖ 91 for two side by side.")
    if len(parts) > _MOST:
        raise InputError(field, f"{len(parts)} side by side are more than the {_MOST} taken here.")
    out = []
    for part in parts:
        ohm = one_resistor(field, part)
        check_resistor(field, ohm)
        out.append(ohm)
    return tuple(out)


def one_resistor(field: str, text: str) -> float:
    """One resistor as it is read off a board: a value, a chip's mark, or colour bands.

    What stands on a board is mostly a mark: there three or four digits alone are always asked about.

    Args:
        field: for a refusal.
        text: as typed.

    Returns:
        Ω.

    Raises:
        InputError: it cannot be read, or may be two things.
    """
    text = text.strip()
    if re.fullmatch(r"\d{3,4}", text):
        as_mark = read_single(field, f"mark {text}", OHM, above=0)
        raise InputError(
            field,
            f'"{text}" may be {show(float(text), OHM)}, or a chip\'s mark for {show(as_mark, OHM, 4)}: '
            f"write {text}R, or mark {text}.",
        )
    return read_single(field, text, OHM, above=0)


def together(ohms: tuple[float, ...]) -> float:
    """Side by side: 1/R = Σ 1/Rk (Kirchhoff)."""
    return 1 / sum(1 / o for o in ohms)


def side_by_side(ohms: tuple[float, ...]) -> str:
    """As they are typed again."""
    return " ‖ ".join(show(o, OHM, 4) for o in ohms)
