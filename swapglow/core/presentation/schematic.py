"""The fitted circuit as an SVG drawing, with the symbols of IEC 60617.

The circuit is that of the SPICE text. Each node is an upright line at a place of its own across, in the order of the
current's way from the feed; each part lies across between its two nodes, on a row of its own where another would be in
the way. Two wires are joined only where a dot says so.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from xml.etree import ElementTree as ET

from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.spice_text import fitted_circuit
from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import Capacitor, Circuit, CurrentSource, Diode, Element, Resistor, VoltageSource
from swapglow.core.engine.netlist import nodes_of as nodes_of_element
from swapglow.core.quantities import FARAD, OHM, VOLT, show

# A step across between two nodes, and down between two rows, in drawing units.
STEP, ROW, EDGE = 116.0, 78.0, 40.0
_LEFT, _TOP = 30.0, 40.0
# Half a symbol's length.
_HALF = 22.0
_SVG = "http://www.w3.org/2000/svg"

# What each part of the circuit is called on paper, by how its name begins; the longest fits first.
_NAMES = {
    "Vrail": "feed",
    "Rsource": "behind the feed",
    "Rdropper": "dropping resistor",
    "Rleft": "lamp left in",
    "Rload": "other load",
    "Dload": "other load",
    "Vdload": "other load",
    "Idload": "other load",
    "Vdriver": "driver",
    "Rshunt": "across",
    "Rinside": "inside",
    "Vkept": "regulator keeps",
    "Iregulator": "regulator's own",
    "Rbeside": "string beside",
    "Dbeside": "string beside",
    "Dblocked": "string beside",
    "Dseries": "in series",
    "Dbridge": "bridge",
    "Drectifier": "rectifier",
    "Rinsulation": "insulation",
    "C": "capacitor",
    "Dinverse": "across LED",
    "Dturned": "back to back",
    "Dinner": "inside",
    "Vregulator": "regulator",
    "Iown": "regulator's own",
    "Dregulator": "regulator",
    "Down": "regulator's own",
    "Vheld": "inside",
    "Iheld": "inside",
    "Dheld": "inside",
    "R": "resistor",
    "D": "LED",
}
# Parts in the way of the lamp's current, besides its resistors and LEDs.
_WAY = ("Rsource", "Rdropper", "Rleft", "Vdriver", "Drectifier", "Vkept", "Vregulator", "Rinside", "Dseries", "Dinner")
# A winding's insulation is there for the arithmetic alone: nobody fits it.
_NOT_DRAWN = ("Rinsulation",)
# LEDs give light; other diodes do not.
_LIGHTS = ("Dbeside", "Dturned", "Dload")


@dataclass(frozen=True)
class Placed:
    """A part where it is drawn: between two nodes' places across, on a row, its symbol's middle at ``x``."""

    element: Element
    left: str
    right: str
    row: int
    x: float


@dataclass(frozen=True)
class Layout:
    """Where everything is: each node's place across, each part's row, and from which row to which a node runs."""

    across: dict[str, float]
    parts: tuple[Placed, ...]
    rows: dict[str, tuple[int, int]]


def schematic(position: Position) -> str:
    """The fitted circuit drawn.

    Args:
        position: the swap.

    Returns:
        SVG text; every part and node bears its name in the circuit as ``data-part`` and ``data-node``.

    Raises:
        NotConverged: its filaments have no rest.
        CannotBuild: a part of it is not built on its waveform.
    """
    sized = size(position)
    return draw(fitted_circuit(position, sized.total_ohm, sized.farads), position)


def layout(circuit: Circuit) -> Layout:
    """A place for every node and part.

    Args:
        circuit: parts of two ends each.

    Returns:
        The layout.
    """
    order = _order(circuit)
    across = {node: _LEFT + k * STEP for k, node in enumerate(order)}
    placed: list[Placed] = []
    taken: dict[int, list[tuple[float, float]]] = {}
    source = [e for e in circuit.elements if e.name == "Vrail"]
    others = [e for e in circuit.elements if e.name not in ("Vrail", *_NOT_DRAWN)]
    # The lamp's own way on the first row; then short ones first, so that what spans more comes to lie below. The feed
    # closes the loop on the last row.
    others.sort(key=lambda e: (not _of_the_way(e), abs(across[_ends(e)[0]] - across[_ends(e)[1]])))
    for e in others:
        a, b = _ends(e)
        left, right = (a, b) if across[a] <= across[b] else (b, a)
        row = 0
        while any(lo < across[right] and across[left] < hi for lo, hi in taken.get(row, ())):
            row += 1
        taken.setdefault(row, []).append((across[left], across[right]))
        placed.append(Placed(e, left, right, row, across[left] + STEP / 2))
    last = max(taken, default=-1) + 1
    for e in source:
        a, b = sorted(_ends(e), key=lambda n: across[n])
        placed.append(Placed(e, a, b, last, across[a] + STEP / 2))
    rows = {
        n: (min(p.row for p in placed if n in (p.left, p.right)), max(p.row for p in placed if n in (p.left, p.right)))
        for n in order
    }
    return Layout(across, tuple(placed), rows)


def _of_the_way(e: Element) -> bool:
    """Whether a part stands in the way from the feed through the LEDs and back."""
    return e.name.startswith(_WAY) or (e.name[0] in "RD" and e.name[1:].isdigit())


def _ends(e: Element) -> tuple[str, str]:
    a, b = nodes_of_element(e)[:2]
    return a, b


def _order(circuit: Circuit) -> list[str]:
    """The nodes in the order of the current's way: each behind all that lead to it; the feed's other side last."""
    feed, back = _ends(next(e for e in circuit.elements if e.name == "Vrail"))
    ways: dict[str, list[str]] = {}
    for e in circuit.elements:
        if e.name != "Vrail":
            a, b = _ends(e)
            ways.setdefault(a, []).append(b)
            ways.setdefault(b, [])
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


def draw(circuit: Circuit, position: Position) -> str:
    """A circuit as SVG text.

    Args:
        circuit: parts of two ends each.
        position: the swap it is of, whose parts are labelled.

    Returns:
        The drawing.
    """
    plan = layout(circuit)
    width = max(plan.across.values()) + EDGE
    height = _TOP + max(p.row for p in plan.parts) * ROW + EDGE
    root = ET.Element(
        "svg",
        {
            "xmlns": _SVG,
            "viewBox": f"0 0 {width:g} {height:g}",
            "width": f"{width:g}",
            "height": f"{height:g}",
            "role": "img",
            "font-family": "sans-serif",
            "font-size": "13",
            "fill": "none",
            "stroke": "#000",
            "stroke-width": "1.6",
        },
    )
    ET.SubElement(root, "title").text = "The fitted circuit"
    for node, (first, last) in plan.rows.items():
        _node(root, node, plan, first, last)
    for part in plan.parts:
        _part(root, part, plan, position)
    return ET.tostring(root, encoding="unicode")


def _y(row: int) -> float:
    return _TOP + row * ROW


def _node(root: ET.Element, node: str, plan: Layout, first: int, last: int) -> None:
    """A node's upright line, with a dot wherever more than two ways meet."""
    x = plan.across[node]
    group = ET.SubElement(root, "g", {"data-node": node})
    if last > first:
        ET.SubElement(group, "path", {"d": f"M{x:g} {_y(first):g}V{_y(last):g}"})
    here = [p for p in plan.parts if node in (p.left, p.right)]
    for row in sorted({p.row for p in here}):
        sides = sum(p.row == row for p in here)
        up, down = row > first, row < last
        if sides + up + down > 2:
            ET.SubElement(group, "circle", {"cx": f"{x:g}", "cy": f"{_y(row):g}", "r": "3.2", "fill": "#000"})


def _part(root: ET.Element, p: Placed, plan: Layout, position: Position) -> None:
    e, y = p.element, _y(p.row)
    group = ET.SubElement(root, "g", {"data-part": e.name, "data-left": p.left, "data-right": p.right})
    ET.SubElement(group, "path", {"d": f"M{plan.across[p.left]:g} {y:g}H{p.x - _HALF:g}"})
    ET.SubElement(group, "path", {"d": f"M{p.x + _HALF:g} {y:g}H{plan.across[p.right]:g}"})
    forward = _ends(e)[0] == p.left
    turn = "" if forward else " scale(-1 1)"
    symbol = ET.SubElement(group, "g", {"transform": f"translate({p.x:g} {y:g}){turn}"})
    for tag, attributes in _symbol(e, position):
        ET.SubElement(symbol, tag, attributes)
    for text, dy in zip(_labels(e, position), (-26 if _lights(e) else -17, 27), strict=True):
        label = {"x": f"{p.x:g}", "y": f"{y + dy:g}", "text-anchor": "middle", "fill": "#000", "stroke": "none"}
        ET.SubElement(group, "text", label).text = text


def _lights(e: Element) -> bool:
    digits = e.name[1:].isdigit()
    light = e.name.startswith(_LIGHTS) and not e.name.endswith(("forth", "back"))
    return isinstance(e, Diode) and (digits or light)


def _symbol(e: Element, position: Position) -> Iterable[tuple[str, dict[str, str]]]:
    """A symbol around the origin, its ends 22 to either side (IEC 60617)."""
    if isinstance(e, Resistor) and e.name.startswith("Rleft"):
        # 08-10-01: lamp.
        yield "circle", {"r": "13"}
        yield "path", {"d": "M-9.2 -9.2L9.2 9.2M9.2 -9.2L-9.2 9.2M-22 0H-13M13 0H22"}
    elif isinstance(e, Resistor):
        # 04-01-01: resistor.
        yield "path", {"d": "M-22 -8H22V8H-22Z"}
    elif isinstance(e, Diode):
        # 05-03-01: semiconductor diode; 05-03-02: light-emitting diode.
        yield "path", {"d": "M-22 0H-9M9 0H22M9 -10V10M-9 -10L9 0L-9 10Z"}
        if _lights(e):
            yield ("path", {"d": "M1 -12L8 -21M8 -21l-5 2.5M8 -21l-1.5 5.5M9 -10L16 -19M16 -19l-5 2.5M16 -19l-1.5 5.5"})
    elif isinstance(e, Capacitor):
        # 04-02-01: capacitor.
        yield "path", {"d": "M-22 0H-4M-4 -12V12M4 -12V12M4 0H22"}
    elif isinstance(e, VoltageSource) and e.name == "Vrail":
        # 02-16-01: ideal source, with what flows in it.
        yield "circle", {"r": "13"}
        yield "path", {"d": "M-22 0H-13M13 0H22"}
        wave = "M-7 0q3.5 -9 7 0t7 0" if position.rail.supply.alternates else "M-9 0h5M-6.5 -2.5v5M4 0h5"
        yield "path", {"d": wave}
    elif isinstance(e, CurrentSource):
        yield "circle", {"r": "13"}
        yield "path", {"d": "M-22 0H-13M13 0H22M0 -13V13"}
    else:
        # A block that keeps some volts: 03-.. general, with what it is written at it.
        yield "path", {"d": "M-22 -11H22V11H-22Z"}


def _labels(e: Element, position: Position) -> tuple[str, str]:
    """What a part is, and how large."""
    longest = max((k for k in _NAMES if e.name.startswith(k)), key=len)
    name = _NAMES[longest]
    if name in ("resistor", "LED"):
        name = e.name if name == "resistor" else f"LED {e.name[1:]}"
    if isinstance(e, Resistor):
        return name, show(_one(e.ohms), OHM)
    if isinstance(e, Capacitor):
        return name, show(_one(e.farads), FARAD)
    if isinstance(e, VoltageSource) and e.name != "Vrail":
        return name, show(_one(e.wave.level), VOLT) if hasattr(e.wave, "level") else ""
    if e.name == "Vrail":
        rms = " AC" if position.rail.supply.alternates else ""
        return name, f"{show(position.rail.usual.value, VOLT)}{rms}"
    return name, ""


def _one(value: object) -> float:
    return float(value)  # type: ignore[arg-type]  # one case: a plain number
