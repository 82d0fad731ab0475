"""Where a meter's leads go in the drawn circuit, for each reading that can be taken there."""

from dataclasses import dataclass

from swapglow.core.drawing.drawing import Drawing, DrawnPart


@dataclass(frozen=True)
class Point:
    """A point of the drawing: its place across and its row."""

    across: int
    row: int


@dataclass(frozen=True)
class Probes:
    """Two leads: red and black on two points, or the loop opened at one and the meter put in."""

    red: Point
    black: Point
    in_series: bool = False


@dataclass(frozen=True)
class LampPicture:
    """A lamp's circuit drawn.

    Attributes:
        drawing: as it is fitted.
        old: as it was, with the old lamp.
        probes: where the leads go for each kind of reading that has a place in it.
    """

    drawing: Drawing
    old: Drawing
    probes: dict[str, Probes]


def probes(drawing: Drawing) -> dict[str, Probes]:
    """Where the leads go.

    Args:
        drawing: of a lamp's circuit, by the names of the one builder.

    Returns:
        By the kind of reading; one that has no place of its own in this circuit is not there.
    """
    parts = {p.id: p for p in drawing.parts}
    nodes = {n.id: Point(n.across, n.rows[0]) for n in drawing.nodes}
    found: dict[str, Probes] = {}
    lit = sorted((p for p in drawing.parts if p.id[0] == "D" and p.id[1:].isdigit()), key=lambda p: int(p.id[1:]))
    if "Vrail" in parts:
        feed = _across(parts["Vrail"])
        found |= dict.fromkeys(("supply_volts", "rail_usual", "rail_low", "rail_high"), feed)
    if "Vdriver" in parts:
        found["driver_drop"] = _across(parts["Vdriver"])
    if "R1" in parts:
        found["resistor_volts"] = found["resistor_ohms"] = _across(parts["R1"])
    if lit:
        found["led_volts"] = Probes(_ends(lit[0])[0], _ends(lit[-1])[1])
        found["led_straight"] = found["led_vf"] = _across(lit[0])
        found["led_turned"] = Probes(found["led_straight"].black, found["led_straight"].red)
    opened = parts.get("R1", lit[0] if lit else None)
    if opened is not None:
        at = _ends(opened)[1]
        found["current"] = Probes(at, at, in_series=True)
    ground = nodes.get("0")
    if "plus" in nodes and ground is not None:
        found["plus_volts"] = Probes(nodes["plus"], ground)
        found["lamp_volts"] = Probes(nodes["plus"], nodes.get("minus", ground))
    if "minus" in nodes and ground is not None:
        found["minus_volts"] = Probes(nodes["minus"], ground)
    return found


def _ends(p: DrawnPart) -> tuple[Point, Point]:
    """Its first end in the netlist, and its second."""
    left, right = Point(p.left, p.row), Point(p.right, p.row)
    return (right, left) if p.turned else (left, right)


def _across(p: DrawnPart) -> Probes:
    return Probes(*_ends(p))
