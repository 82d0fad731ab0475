"""The reliability diagram of ``make faults``: how often what is said with a share is right, as SVG."""

from collections.abc import Sequence
from xml.etree import ElementTree as ET

_SIDE, _EDGE = 300.0, 46.0


def diagram(rows: Sequence[tuple[float, float, int]]) -> str:
    """The diagram.

    Args:
        rows: share said, share that was right, and how often it was said.

    Returns:
        SVG text; a dot's area goes with how often.
    """
    whole = f"{_SIDE + 2 * _EDGE:g}"
    root = ET.Element(
        "svg",
        {
            "xmlns": "http://www.w3.org/2000/svg",
            "viewBox": f"0 0 {whole} {whole}",
            "width": whole,
            "role": "img",
            "font-family": "sans-serif",
            "font-size": "12",
        },
    )
    ET.SubElement(root, "title").text = "Said and right: on the line what is said with 90 % is right nine times of ten"
    ET.SubElement(root, "rect", {"width": whole, "height": whole, "fill": "#fff"})
    ET.SubElement(root, "path", {"d": f"M{_at(0)} {_down(0)}L{_at(1)} {_down(1)}", "stroke": "#888"})
    for share in (0.0, 0.25, 0.5, 0.75, 1.0):
        _text(root, float(_at(share)), _SIDE + _EDGE + 18, f"{share:.0%}")
        _text(root, 22, float(_down(share)) + 4, f"{share:.0%}")
        frame = f"M{_at(share)} {_down(0)}V{_down(1)}M{_at(0)} {_down(share)}H{_at(1)}"
        ET.SubElement(root, "path", {"d": frame, "stroke": "#ddd"})
    most = max(count for _, _, count in rows)
    for said, right, count in rows:
        radius = f"{3 + 9 * (count / most) ** 0.5:.1f}"
        ET.SubElement(root, "circle", {"cx": _at(said), "cy": _down(right), "r": radius, "fill": "#a63a0f"})
    _text(root, _EDGE + _SIDE / 2, _SIDE + _EDGE + 38, "said")
    _text(root, _EDGE, 30, "right")
    return ET.tostring(root, encoding="unicode") + "\n"


def _at(share: float) -> str:
    return f"{_EDGE + share * _SIDE:g}"


def _down(share: float) -> str:
    return f"{_EDGE + (1 - share) * _SIDE:g}"


def _text(root: ET.Element, x: float, y: float, text: str) -> None:
    ET.SubElement(root, "text", {"x": f"{x:g}", "y": f"{y:g}", "text-anchor": "middle"}).text = text
