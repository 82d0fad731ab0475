"""A circuit as it is drawn: its parts with symbol, name and value, each at its place, and the wires between them."""

from collections.abc import Callable
from dataclasses import dataclass

from swapglow.core.drawing.layout import Layout, Placed, ends, layout
from swapglow.core.drawing.symbols import SHAPES, Symbol
from swapglow.core.engine.netlist import (
    Bjt,
    Capacitor,
    Circuit,
    CurrentRegulator,
    CurrentSource,
    Diode,
    Element,
    Inductor,
    Resistor,
    Sine,
    Switch,
    VoltageSource,
)

# A name is broken so that it fits between two nodes.
_WIDEST = 15


@dataclass(frozen=True)
class Described:
    """What is written at a part.

    Attributes:
        symbol: its symbol.
        name, value: what it is, and how large.
        opens: what is opened to change it: a detail's or a panel's id; empty where nothing is typed.
        pencil: whether that is assumed.
    """

    symbol: Symbol
    name: str
    value: str = ""
    opens: str = ""
    pencil: bool = False


@dataclass(frozen=True)
class DrawnPart:
    """A part where it is drawn.

    Attributes:
        id: its name in the netlist.
        symbol, name, value, opens, pencil: as described; the name in lines.
        shape: the symbol as an SVG path around the origin, its ends 22 to either side.
        turned: whether its first end is the right one.
        left, right: the places across of its nodes.
        row: its row.
        base: the place across of a transistor's base, whose wire runs on the row under it; None for no transistor.
    """

    id: str
    symbol: Symbol
    name: tuple[str, ...]
    value: str
    opens: str
    pencil: bool
    shape: str
    turned: bool
    left: int
    right: int
    row: int
    base: int | None = None


@dataclass(frozen=True)
class DrawnNode:
    """A node: an upright line at a place across, over the rows on which parts meet it, with dots where it needs them.

    Attributes:
        id: its name in the netlist.
        across: its place.
        rows: those on which something meets it.
        dots: those of them on which more than two ways meet.
    """

    id: str
    across: int
    rows: tuple[int, ...]
    dots: tuple[int, ...]


@dataclass(frozen=True)
class Drawing:
    """A circuit drawn, in places across and rows; whoever shows it decides how large they are."""

    parts: tuple[DrawnPart, ...]
    nodes: tuple[DrawnNode, ...]


def symbol_of(e: Element) -> Symbol:
    """The symbol that an element has by its kind alone: a resistor may still be a lamp or a contact.

    Args:
        e: the element.

    Returns:
        Its symbol.
    """
    if isinstance(e, VoltageSource):
        return "alternating" if isinstance(e.wave, Sine) else "supply"
    plain: dict[type, Symbol] = {
        Resistor: "resistor",
        Capacitor: "capacitor",
        Inductor: "coil",
        Diode: "diode",
        Bjt: "transistor",
        CurrentSource: "current",
        CurrentRegulator: "current",
        Switch: "contact",
    }
    return plain.get(type(e), "block")


def draw(
    circuit: Circuit, describe: Callable[[Element], Described], of_the_way: Callable[[Element], bool] = lambda e: True
) -> Drawing:
    """A circuit drawn.

    Args:
        circuit: only what is drawn.
        describe: what is written at a part.
        of_the_way: which parts stand in the way of the lamp's own current.

    Returns:
        The drawing.
    """
    plan = layout(circuit, of_the_way)
    return Drawing(
        tuple(_part(p, plan, describe(p.element)) for p in plan.parts), tuple(_node(n, plan) for n in plan.across)
    )


def _part(p: Placed, plan: Layout, said: Described) -> DrawnPart:
    return DrawnPart(
        p.element.name,
        said.symbol,
        _in_lines(said.name),
        said.value,
        said.opens,
        said.pencil,
        SHAPES[said.symbol],
        ends(p.element)[0] != p.left,
        plan.across[p.left],
        plan.across[p.right],
        p.row,
        plan.across[p.base] if p.base else None,
    )


def _in_lines(name: str) -> tuple[str, ...]:
    lines: list[str] = []
    for word in name.split():
        if lines and len(lines[-1]) + len(word) < _WIDEST:
            lines[-1] += f" {word}"
        else:
            lines.append(word)
    return tuple(lines)


def _node(node: str, plan: Layout) -> DrawnNode:
    """A node's line, with a dot wherever more than two ways meet."""
    rows = plan.rows[node]
    met = [p.row for p in plan.parts for n in (p.left, p.right) if n == node]
    met += [p.row + 1 for p in plan.parts if node == p.base]
    dots = tuple(r for r in rows if met.count(r) + (r > rows[0]) + (r < rows[-1]) > 2)
    return DrawnNode(node, plan.across[node], rows, dots)
