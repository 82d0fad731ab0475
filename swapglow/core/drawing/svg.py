"""A drawing as SVG text, for paper and for files."""

from xml.etree import ElementTree as ET

from swapglow.core.drawing.drawing import Drawing, DrawnNode, DrawnPart
from swapglow.core.drawing.symbols import HALF

# A step across between two nodes, and down between two rows, in drawing units.
STEP, ROW, EDGE = 116.0, 78.0, 40.0
_LEFT, _TOP = 30.0, 40.0
_LINE = 15.0
# Letters of 14 units are 8.3 pt on paper, and seven steps across fit a page.
_LETTERS = 14
UNIT_MM = 0.21
_SVG = "http://www.w3.org/2000/svg"


def svg(drawing: Drawing, title: str = "The fitted circuit") -> str:
    """A drawing as SVG text.

    Args:
        drawing: what to write.
        title: what it is of.

    Returns:
        SVG; every part and node bears its name in the circuit as ``data-part`` and ``data-node``.
    """
    width = _x(max(n.across for n in drawing.nodes)) + EDGE
    height = _y(max(n.rows[-1] for n in drawing.nodes)) + EDGE
    root = ET.Element(
        "svg",
        {
            "xmlns": _SVG,
            "viewBox": f"0 0 {width:g} {height:g}",
            "width": f"{width * UNIT_MM:.1f}mm",
            "height": f"{height * UNIT_MM:.1f}mm",
            "role": "img",
            "font-family": "sans-serif",
            "font-size": f"{_LETTERS}",
            "fill": "none",
            "stroke": "#000",
            "stroke-width": "1.6",
        },
    )
    ET.SubElement(root, "title").text = title
    for node in drawing.nodes:
        _node(root, node)
    for part in drawing.parts:
        _part(root, part)
    return ET.tostring(root, encoding="unicode")


def _x(across: float) -> float:
    return _LEFT + across * STEP


def _y(row: int) -> float:
    return _TOP + row * ROW


def _node(root: ET.Element, n: DrawnNode) -> None:
    group = ET.SubElement(root, "g", {"data-node": n.id})
    x = _x(n.across)
    first, last = n.rows[0], n.rows[-1]
    if last > first:
        ET.SubElement(group, "path", {"d": f"M{x:g} {_y(first):g}V{_y(last):g}"})
    for row in n.dots:
        ET.SubElement(group, "circle", {"cx": f"{x:g}", "cy": f"{_y(row):g}", "r": "3.2", "fill": "#000"})


def _part(root: ET.Element, p: DrawnPart) -> None:
    x, y = _x(p.left + 0.5), _y(p.row)
    group = ET.SubElement(root, "g", {"data-part": p.id})
    ET.SubElement(group, "path", {"d": f"M{_x(p.left):g} {y:g}H{x - HALF:g}"})
    ET.SubElement(group, "path", {"d": f"M{x + HALF:g} {y:g}H{_x(p.right):g}"})
    if p.base is not None:
        ET.SubElement(group, "path", {"d": f"M{x:g} {y + HALF:g}V{y + ROW:g}"})
        ET.SubElement(group, "path", {"d": f"M{x:g} {y + ROW:g}H{_x(p.base):g}"})
    turn = " scale(-1 1)" if p.turned else ""
    symbol = ET.SubElement(group, "g", {"transform": f"translate({x:g} {y:g}){turn}"})
    ET.SubElement(symbol, "path", {"d": p.shape})
    over = -26 if p.symbol == "led" else -17
    for k, line in enumerate(reversed(p.name)):
        _text(group, x, y + over - k * _LINE, line)
    _text(group, x, y + 27, p.value)


def _text(group: ET.Element, x: float, y: float, text: str) -> None:
    label = {"x": f"{x:g}", "y": f"{y:g}", "text-anchor": "middle", "fill": "#000", "stroke": "none"}
    ET.SubElement(group, "text", label).text = text
