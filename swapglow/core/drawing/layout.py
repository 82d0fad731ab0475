"""Where each part of a circuit is drawn.

Each node is an upright line at a place of its own across, in the order of the current's way from the feed; each part
lies across between its two nodes, on a row of its own where another would be in the way.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from swapglow.core.engine.netlist import Bjt, Circuit, Element, VoltageSource
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
    """Where everything is: each node's place across, each part's row, and from which row to which a node runs."""

    across: dict[str, int]
    parts: tuple[Placed, ...]
    rows: dict[str, tuple[int, int]]


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
    return a, b


def layout(circuit: Circuit, of_the_way: Callable[[Element], bool] = lambda e: True) -> Layout:
    """A place for every node and part.

    Args:
        circuit: what to draw; its first voltage source is the feed, and closes the loop on the last row.
        of_the_way: which parts stand in the way of the lamp's own current: they get the first row where they can.

    Returns:
        The layout.
    """
    feed = next(e for e in circuit.elements if isinstance(e, VoltageSource))
    order = _order(circuit.elements, feed)
    across = {node: k for k, node in enumerate(order)}
    placed: list[Placed] = []
    taken: dict[int, list[tuple[int, int]]] = {}
    # The lamp's own way on the first row; then short ones first, so that what spans more comes to lie below.
    others = sorted(
        (e for e in circuit.elements if e is not feed),
        key=lambda e: (not of_the_way(e), abs(across[ends(e)[0]] - across[ends(e)[1]])),
    )
    for e in others:
        left, right = sorted(ends(e), key=lambda n: across[n])
        base = e.base if isinstance(e, Bjt) else ""
        wide = across[left], across[right]
        # A transistor's third wire runs on the row under it.
        under = _reach(across, left, base) if base else wide
        row = 0
        while _in_the_way(taken, row, wide) or (base and _in_the_way(taken, row + 1, under)):
            row += 1
        taken.setdefault(row, []).append(wide)
        if base:
            taken.setdefault(row + 1, []).append(under)
        placed.append(Placed(e, left, right, row, base))
    last = max(taken, default=-1) + 1
    left, right = sorted(ends(feed), key=lambda n: across[n])
    placed.append(Placed(feed, left, right, last))
    return Layout(across, tuple(placed), {n: _span(placed, n) for n in order})


def _reach(across: dict[str, int], left: str, base: str) -> tuple[int, int]:
    """From a symbol that stands right of ``left`` to its base's node."""
    at = across[left]
    return min(at, across[base]), max(at + 1, across[base])


def _in_the_way(taken: dict[int, list[tuple[int, int]]], row: int, wide: tuple[int, int]) -> bool:
    return any(low < wide[1] and wide[0] < high for low, high in taken.get(row, ()))


def _span(placed: Iterable[Placed], node: str) -> tuple[int, int]:
    """From which row to which a node runs."""
    rows = [p.row + (node == p.base) for p in placed if node in (p.left, p.right, p.base)]
    return min(rows), max(rows)


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
