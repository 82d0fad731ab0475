"""The schematic against the netlist: what is drawn is read back from the drawing's lines alone.

Symbols are those of IEC 60617 (from memory); nodes are joined where lines end on each other or a dot stands.
"""

import re
from collections import defaultdict
from xml.etree import ElementTree as ET

import pytest

from scripts.fuzz.documents import document
from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.spice_text import fitted_circuit, spice_text
from swapglow.core.drawing.svg import svg
from swapglow.core.presentation.probes import probes
from swapglow.core.presentation.schematic import drawing, old_drawing, schematic
from swapglow.inputs.to_core import position_of
from tests.core.supplies import lamp, on
from tests.core.test_whole_loads import driven

SVG = "{http://www.w3.org/2000/svg}"
LAMPS = {
    "a string": on("regulated", "12V", resistor="1k", in_series=3),
    "two leads": on("regulated", "12V", resistor="470R", resistor_parts=2),
    "other strings and a shunt": on(
        "regulated",
        "12V",
        resistor="1k",
        shunt="470R",
        beside={"b": {"led_id": "blue-3-diffused", "resistor": "2k2"}, "a": {"led_id": "green-3-diffused", "place": 1}},
    ),
    "shunt past the LED": on("regulated", "12V", resistor="1k", shunt="4k7", shunt_across="leds"),
    "a bridge and a capacitor": on("winding", "12Vac", rectification="bridge_cap", resistor="1k", in_series=2),
    "half a wave": on("winding", "12Vac", rectification="half_wave", resistor="1k"),
    "back to back": on("winding", "12Vac", rectification="back_to_back", resistor="1k"),
    "a regulator": on("regulated", "24V", regulator_id="fixed-8-to220", resistor="1k"),
    "a ready-made lamp": on("regulated", "12V", led_id="white-5-clear", band="10-15V", module={"amps": "20mA"}),
    "a lamp left in": driven("series_lamps", "12V", "0V", others="2", resistor="470R", lamp=lamp("12V", "0.1A")),
    "a driver that keeps": driven("darlington", "24V", "0.9V", resistor="2k2"),
}


def drawn(text):
    """Parts and joints of a drawing by its geometry: each part's two ends, and which ends are one node."""
    root = ET.fromstring(text)
    segments, dots, parts = [], [], {}
    for group in root.iter(f"{SVG}g"):
        node, part = group.get("data-node"), group.get("data-part")
        if node is None and part is None:
            continue
        for path in group.findall(f"{SVG}path"):
            x, y, way, to = re.fullmatch(r"M([\d.]+) ([\d.]+)([HV])([\d.]+)", path.get("d")).groups()
            start = float(x), float(y)
            end = (float(to), start[1]) if way == "H" else (start[0], float(to))
            segments.append((start, end))
            if part is not None:
                parts.setdefault(part, []).append((start, end))
        dots += [(float(c.get("cx")), float(c.get("cy"))) for c in group.findall(f"{SVG}circle") if node]
    joined = {}

    def root_of(p):
        joined.setdefault(p, p)
        while joined[p] != p:
            p = joined[p]
        return p

    def on_it(p, segment):
        (a, b), (c, d) = segment
        return min(a, c) <= p[0] <= max(a, c) and min(b, d) <= p[1] <= max(b, d)

    for start, end in segments:
        joined[root_of(start)] = root_of(end)
    for p in [*dots, *(e for s in segments for e in s)]:
        for s in segments:
            # A line that only crosses another is not joined to it; one that ends on it, or at a dot, is.
            if on_it(p, s):
                joined[root_of(p)] = root_of(s[0])
    # A part's two leads lie to either side of its symbol.
    return {name: (root_of(leads[0][0]), root_of(leads[1][1])) for name, leads in parts.items()}


@pytest.mark.parametrize("name", LAMPS)
def test_what_is_drawn_is_the_circuit(name):
    p = LAMPS[name]
    sized = size(p)
    circuit = fitted_circuit(p, sized.total_ohm, sized.farads)
    wanted = {
        e.name: frozenset(getattr(e, t) for t in e.terminals[:2]) for e in circuit.elements if e.name != "Rinsulation"
    }
    found = drawn(schematic(p))
    assert set(found) == set(wanted)
    # Each node of the circuit is one place of the drawing, and no two are the same place.
    places = defaultdict(set)
    for part, ends in found.items():
        a, b = sorted(wanted[part])
        places[frozenset(ends)].add(frozenset((a, b)))
    assert all(len(nodes) == 1 for nodes in places.values())
    for part, ends in found.items():
        for other, others in found.items():
            shared = set(ends) & set(others)
            assert len(shared) == len(wanted[part] & wanted[other]), f"{part} and {other}"


@pytest.mark.parametrize("name", LAMPS)
def test_no_two_parts_are_drawn_over_each_other(name):
    """Symbols are 44 wide; no other part's symbol and no upright line lies within one."""
    root = ET.fromstring(schematic(LAMPS[name]))
    symbols = []
    for group in root.iter(f"{SVG}g"):
        if group.get("data-part") is not None:
            x, y = map(
                float, re.match(r"translate\(([\d.]+) ([\d.]+)\)", group.find(f"{SVG}g").get("transform")).groups()
            )
            symbols.append((x, y))
    assert len(set(symbols)) == len(symbols)
    uprights = [re.fullmatch(r"M([\d.]+) ([\d.]+)V([\d.]+)", p.get("d")) for p in root.iter(f"{SVG}path")]
    for line in filter(None, uprights):
        x, top, bottom = map(float, line.groups())
        assert not [s for s in symbols if abs(s[0] - x) < 22 and top < s[1] < bottom]


def test_a_diode_points_the_way_its_current_runs():
    """The triangle's tip is at the cathode: turned where that lies to the left."""
    root = ET.fromstring(schematic(LAMPS["a bridge and a capacitor"]))
    turned = {
        g.get("data-part"): "scale(-1 1)" in g.find(f"{SVG}g").get("transform")
        for g in root.iter(f"{SVG}g")
        if g.get("data-part", "").startswith("D")
    }
    assert turned["D1"] is False
    assert turned["Dbridge1"] is False
    assert turned["Dbridge3"] is True


@pytest.mark.parametrize(
    ("name", "texts"),
    [
        ("a string", {"R1", "1\u00a0kΩ", "LED 1", "LED 2", "LED 3", "feed", "12\u00a0V"}),
        ("other strings and a shunt", {"across", "470\u00a0Ω", "2.2\u00a0kΩ", "string beside"}),
        ("a bridge and a capacitor", {"12\u00a0V AC", "bridge", "capacitor"}),
        ("a lamp left in", {"lamp left in"}),
    ],
)
def test_each_part_says_what_it_is_and_how_large(name, texts):
    root = ET.fromstring(schematic(LAMPS[name]))
    assert texts <= {t.text for t in root.iter(f"{SVG}text")}


def test_strings_that_follow_the_sum_are_in_the_circuits_text_too():
    """A string beside whose resistor nobody typed was left out of the SPICE text."""
    p = LAMPS["other strings and a shunt"]
    deck = spice_text(p, size(p).total_ohm).lower()
    assert "rbeside1" in deck and "rbeside2" in deck


def test_a_filament_that_carries_nothing_is_drawn_cold():
    """0.42 V behind a driver that keeps 0.86 V: nothing flows, and the lamp that stays is cold.

    Cold tungsten has some tenth of its hot resistance (common practice): 12 V at 0.265 A is 45.3 Ω hot.
    """
    rail, lamp = document(4520)
    p = position_of(lamp, rail)
    sized = size(p)
    cold = fitted_circuit(p, sized.total_ohm, sized.farads).element("Rleft1").ohms
    assert float(cold) == pytest.approx(45.3 / 10, rel=0.3)


@pytest.mark.parametrize("name", LAMPS)
def test_the_old_lamp_is_drawn_in_its_place_and_nothing_of_the_swap(name):
    old = old_drawing(LAMPS[name])
    parts = {p.id: p for p in old.parts}
    assert (parts["Rold"].symbol, parts["Rold"].opens) == ("lamp", "lamp")
    assert not [p for p in parts if p.startswith(("R1", "D1", "Dbridge", "C1", "Rshunt", "Rbeside", "Vkept"))]
    ends = drawn(svg(old))
    # The lamp's two ends are not one wire, and the feed reaches both of them.
    assert len(set(ends["Rold"])) == 2
    joined = {node for part in ends.values() for node in part}
    assert set(ends["Rold"]) <= joined and "Vrail" in ends


@pytest.mark.parametrize(
    ("name", "kind", "between"),
    [
        ("a string", "supply_volts", ("Vrail", "Vrail")),
        ("a string", "resistor_volts", ("R1", "R1")),
        ("a string", "led_volts", ("D1", "D3")),
        ("two leads", "led_volts", ("D1", "D1")),
        ("a driver that keeps", "led_volts", ("D1", "D1")),
        ("a driver that keeps", "driver_drop", ("Vdriver", "Vdriver")),
        ("a string", "led_vf", ("D1", "D1")),
        ("a string", "rail_high", ("Vrail", "Vrail")),
    ],
)
def test_the_leads_stand_at_the_ends_of_what_is_read(name, kind, between):
    """Red at the first end of the first part, black at the second end of the last: by the netlist's own nodes."""
    p = LAMPS[name]
    picture, circuit = drawing(p), fitted_circuit(p, size(p).total_ohm, size(p).farads)
    first, last = (circuit.element(n) for n in between)
    nodes = {n.id: n for n in picture.nodes}
    at = probes(picture)[kind]
    for point, node in ((at.red, getattr(first, first.terminals[0])), (at.black, getattr(last, last.terminals[1]))):
        assert point.across == nodes[node].across
        assert point.row in nodes[node].rows


def test_a_current_is_read_where_the_loop_is_opened():
    at = probes(drawing(LAMPS["a string"]))["current"]
    assert at.in_series and at.red == at.black
