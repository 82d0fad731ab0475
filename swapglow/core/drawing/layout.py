"""Where each part of a circuit is drawn.

Each node is an upright line at a place of its own across, in the order of the current's way from the feed; each part
lies across between its two nodes, on a row of its own where another would be in the way.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from swapglow.core.engine.netlist import Bjt, Circuit, CurrentSource, Element, VoltageSource
from swapglow.core.engine.netlist import nodes_of as nodes_of_element


@dataclass(frozen=True)
class Placed:
    """A part where it is drawn: between two nodes' places across, on a row; ``base`` is a transistor's third node."""

    element: Element
    left: str
    right: str
    row: int
    base: str = ""


@dataclass(frozen=True)
class Layout:
    """Where everything is: each node's place across, each part's row, and the rows on which something meets a node."""

    across: dict[str, int]
    parts: tuple[Placed, ...]
    rows: dict[str, tuple[int, ...]]


def ends(e: Element) -> tuple[str, str]:
    """The two nodes between which a part is drawn.

    Args:
        e: any element; a transistor lies between collector and emitter.

    Returns:
        Its first and its second node.
    """
    if isinstance(e, Bjt):
        return e.collector, e.emitter
    a, b = nodes_of_element(e)[:2]
    # A current source's current comes out at its second node.
    return (b, a) if isinstance(e, CurrentSource) else (a, b)


def layout(circuit: Circuit, of_the_way: Callable[[Element], bool] = lambda e: True) -> Layout:
    """A place for every node and part.

    Args:
        circuit: what to draw; its first source is the feed, and closes the loop on the last row.
        of_the_way: which parts stand in the way of the lamp's own current: they get the first row where they can.

    Returns:
        The layout: branches side by side share their places across where no two nodes then get in each other's way.
    """
    sources = [e for kind in (VoltageSource, CurrentSource) for e in circuit.elements if isinstance(e, kind)]
    feed = sources[0] if sources else circuit.elements[0]
    others = [e for e in circuit.elements if e is not feed]
    order = _order(circuit.elements, feed)
    apart = {node: k for k, node in enumerate(order)}
    across = _ranks(others, feed, apart)
    placed = _side_by_side(others, apart, across, of_the_way)
    if placed is None:
        placed, across = _one_below_another(others, apart, of_the_way), apart
    last = max((p.row + bool(p.base) for p in placed), default=-1) + 1
    left, right = sorted(ends(feed), key=lambda n: across[n])
    placed.append(Placed(feed, left, right, last))
    return Layout(across, tuple(placed), {n: tuple(sorted(_rows(placed, n))) for n in order})


def _one_below_another(
    others: list[Element], across: dict[str, int], of_the_way: Callable[[Element], bool]
) -> list[Placed]:
    """Every node at a place of its own: short parts first, so that what spans more comes to lie below."""
    placed: list[Placed] = []
    for e in sorted(others, key=lambda e: (not of_the_way(e), abs(across[ends(e)[0]] - across[ends(e)[1]]))):
        part = next(p for p in _ways(e, across, range(len(others) * 2 + 2)) if _free(p, placed, across))
        placed.append(part)
    return placed


def _side_by_side(
    others: list[Element], apart: dict[str, int], across: dict[str, int], of_the_way: Callable[[Element], bool]
) -> list[Placed] | None:
    """Branch after branch, each on a row of its own; None where two nodes would lie over each other."""
    leaving: dict[str, list[Element]] = {}
    for e in sorted(others, key=lambda e: not of_the_way(e)):
        leaving.setdefault(min(ends(e), key=lambda n: apart[n]), []).append(e)
    placed: list[Placed] = []

    def walk(node: str) -> bool:
        for e in leaving.pop(node, []):
            own = sorted({p.row for p in placed if p.right == node})
            rows = [*own, *range(len(others) + 2)]
            part = next(
                (p for p in _ways(e, across, rows) if _free(p, placed, across) and _clear(p, placed, across)), None
            )
            if part is None:
                return False
            placed.append(part)
            if not walk(part.right):
                return False
        return True

    return placed if all(walk(n) for n in sorted(apart, key=lambda n: apart[n])) else None


def _ranks(others: list[Element], feed: Element, apart: dict[str, int]) -> dict[str, int]:
    """How many parts lie before each node on the longest way to it; the feed's sides are the first and last of all."""
    rank = {n: int(n != ends(feed)[0]) for n in apart}
    for node in sorted(apart, key=lambda n: apart[n]):
        for e in others:
            first, second = sorted(ends(e), key=lambda n: apart[n])
            if first == node:
                rank[second] = max(rank[second], rank[node] + 1)
    back = ends(feed)[1]
    rank[back] = max(rank[back], *(r + 1 for n, r in rank.items() if n != back))
    return rank


def _ways(e: Element, across: dict[str, int], rows: Iterable[int]) -> Iterable[Placed]:
    left, right = sorted(ends(e), key=lambda n: across[n])
    base = e.base if isinstance(e, Bjt) else ""
    return (Placed(e, left, right, row, base) for row in rows)


def _lies(p: Placed, across: dict[str, int]) -> list[tuple[int, int, int]]:
    """Row, from and to of a part, and of its third wire, which runs on the row under it."""
    lies = [(p.row, across[p.left], across[p.right])]
    if p.base:
        at = across[p.left]
        lies.append((p.row + 1, min(at, across[p.base]), max(at + 1, across[p.base])))
    return lies


def _free(p: Placed, placed: list[Placed], across: dict[str, int]) -> bool:
    """Whether nothing lies where a part would."""
    taken = [lie for q in placed for lie in _lies(q, across)]
    return not any(row == r and a < right and left < b for row, left, right in _lies(p, across) for r, a, b in taken)


def _clear(p: Placed, placed: list[Placed], across: dict[str, int]) -> bool:
    """Whether no node's line then lies over another node's at the same place across."""
    now = [*placed, p]
    own = [n for n in (p.left, p.right, p.base) if n]
    spans = {n: _rows(now, n) for q in now for n in (q.left, q.right, q.base) if n}
    return not any(
        n != m and across[n] == across[m] and min(spans[n]) <= max(spans[m]) and min(spans[m]) <= max(spans[n])
        for n in own
        for m in spans
    )


def _rows(placed: Iterable[Placed], node: str) -> set[int]:
    """The rows on which something meets a node."""
    return {p.row + (node == p.base) for p in placed if node in (p.left, p.right, p.base)}


def _order(elements: Iterable[Element], source: Element) -> list[str]:
    """The nodes in the order of the current's way: each behind all that lead to it; the feed's other side last."""
    feed, back = ends(source)
    ways: dict[str, list[str]] = {}
    for e in elements:
        if e is source:
            continue
        a, b = ends(e)
        ways.setdefault(a, []).append(b)
        ways.setdefault(b, [])
        if isinstance(e, Bjt):
            ways.setdefault(e.base, []).append(b)
    out: list[str] = []
    seen: set[str] = set()

    def walk(node: str) -> None:
        seen.add(node)
        for after in ways.get(node, ()):
            if after not in seen and after != back:
                walk(after)
        out.append(node)

    for start in (feed, *ways):
        if start not in seen and start != back:
            walk(start)
    return [*reversed([n for n in out if n != feed] + [feed]), back]
