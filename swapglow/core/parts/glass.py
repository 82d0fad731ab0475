"""What stands before a lamp: lens, filter, dial glass, lacquer, sleeve or gel, by what it lets through."""

import csv
import io
from dataclasses import dataclass
from functools import cache
from importlib.resources import files

from swapglow.core.quantities import InputError

OWN_GLASS = "own"
# Where three numbers of an own glass stand: in blue, green and red light, nm.
THREE_NM = (460.0, 540.0, 640.0)
_LEAST_NM, _MOST_NM = 300.0, 1100.0
_MOST_ROWS = 1000


@dataclass(frozen=True)
class Glass:
    """A clear or coloured sheet by its transmission.

    Attributes:
        id, label: what it is called.
        nm: wavelengths, rising.
        share: what is let through there, 0 to 1; straight between them, level outside.
    """

    id: str
    label: str
    nm: tuple[float, ...]
    share: tuple[float, ...]


@cache
def glasses() -> dict[str, Glass]:
    """The generic ones by id."""
    text = files("swapglow.core.parts").joinpath("data", "glasses.csv").read_text("utf-8")
    head, labels, *lines = list(csv.reader(x for x in text.splitlines() if not x.startswith("#")))
    nm = tuple(float(r[0]) for r in lines)
    return {id_: Glass(id_, labels[k], nm, tuple(float(r[k]) for r in lines)) for k, id_ in enumerate(head) if k > 0}


def own_glass(field: str, text: str) -> Glass:
    """A glass by what somebody knows of it.

    Args:
        field: the field, for a refusal.
        text: three shares for blue, green and red light ("2, 5, 80 %"), or a table of wavelength in nm and
            share or per cent, a pair on each line.

    Returns:
        The glass.

    Raises:
        InputError: it is neither.
    """
    rows = [r for r in _rows(text) if r]
    if len(rows) == 1 and len(rows[0]) == len(THREE_NM):
        shares = _shares(field, [_number(field, cell) for cell in rows[0]])
        return Glass(OWN_GLASS, "Own glass", THREE_NM, shares)
    if rows and not _is_number(rows[0][0]):
        rows = rows[1:]
    if len(rows) < 2 or any(len(r) != 2 for r in rows):
        raise InputError(
            field,
            "Type what comes through of blue, green and red light, like 2, 5, 80 %, or a table of nm and "
            "per cent, a pair on each line.",
        )
    if len(rows) > _MOST_ROWS:
        raise InputError(field, f"{len(rows)} lines are more than {_MOST_ROWS}.")
    pairs = sorted((_number(field, r[0]), _number(field, r[1])) for r in rows)
    nm = tuple(p[0] for p in pairs)
    if len(set(nm)) < len(nm) or not (nm[0] >= _LEAST_NM and nm[-1] <= _MOST_NM):
        raise InputError(
            field,
            f"Wavelengths stand once each, between {_LEAST_NM:g} and {_MOST_NM:g} nm: {nm[0]:g} to {nm[-1]:g} "
            "were read.",
        )
    return Glass(OWN_GLASS, "Own glass", nm, _shares(field, [p[1] for p in pairs]))


def _rows(text: str) -> list[list[str]]:
    """Cells of each line: parted by semicolon or tab where there are any, else by comma or blanks."""
    out = []
    for line in io.StringIO(text.replace("%", " ")):
        for mark in (";", "\t", ","):
            if mark in line:
                out.append([c.strip() for c in line.strip().strip(mark).split(mark)])
                break
        else:
            out.append(line.split())
    return out


def _is_number(text: str) -> bool:
    try:
        float(text.replace(",", "."))
    except ValueError:
        return False
    return True


def _number(field: str, text: str) -> float:
    if not _is_number(text) or "nan" in text.lower() or "inf" in text.lower():
        raise InputError(field, f'"{text}" is no number: write 2, 5, 80 % or lines like 460; 2.')
    return float(text.replace(",", "."))


def _shares(field: str, values: list[float]) -> tuple[float, ...]:
    """Shares of 1; figures over 1 anywhere are per cent."""
    most = max(values)
    if min(values) < 0 or most > 100:
        raise InputError(field, f"What comes through lies between 0 and 100 %: {min(values):g} to {most:g} were read.")
    return tuple(v / 100 if most > 1 else v for v in values)
