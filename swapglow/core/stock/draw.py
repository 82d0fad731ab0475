"""Parts taken out of the drawer for a lamp, and what is then left."""

from collections.abc import Sequence
from dataclasses import dataclass

from swapglow.core.stock.need import Need
from swapglow.core.stock.part import Part


@dataclass(frozen=True)
class Drawn:
    """What is taken.

    Attributes:
        counts: what is left in each counted compartment that something is taken from, by its id.
        lines: what is taken from where, in words.
        short: what is not there, in words.
    """

    counts: dict[str, int]
    lines: tuple[str, ...]
    short: tuple[str, ...]


def draw(asked: Sequence[Need], drawer: Sequence[Part]) -> Drawn:
    """Take a lamp's parts out.

    Args:
        asked: what it needs.
        drawer: every compartment.

    Returns:
        What is left. Of a compartment that nobody counts nothing is written down; a count never falls below
        nought: what is missing is said.
    """
    left = {p.id: p.count for p in drawer}
    counts: dict[str, int] = {}
    lines, short = [], []
    for need in asked:
        wanted = need.count
        for p in (p for p in drawer if need.met_by(p) and p.there):
            there = left[p.id]
            where = f" from {p.kept_in}" if p.kept_in else ""
            if there is None:
                lines.append(f"{wanted} × {p.label}{where}")
                wanted = 0
            else:
                take = min(wanted, there)
                if take:
                    left[p.id] = counts[p.id] = there - take
                    lines.append(f"{take} × {p.label}{where}, {there - take} left")
                wanted -= take
            if wanted == 0:
                break
        if wanted:
            short.append(f"{wanted} × {need.label}")
    return Drawn(counts, tuple(lines), tuple(short))
