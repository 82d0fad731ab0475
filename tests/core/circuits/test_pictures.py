"""Each kind's wiring picture against its own netlist: what is drawn is read back from the drawing's lines alone."""

from itertools import combinations

import numpy as np
import pytest

from swapglow.core.circuits import CIRCUITS
from swapglow.core.circuits.toolkit.picture import picture
from swapglow.core.circuits.toolkit.wiring import Wiring
from swapglow.core.drawing.layout import ends
from swapglow.core.drawing.svg import svg
from swapglow.core.kinds.detail import Details
from swapglow.core.parts.led import catalogue
from swapglow.core.quantities import Input
from tests.core.circuits.results import worked
from tests.core.circuits.test_every_option import TYPED
from tests.core.test_schematic import drawn

RED = catalogue()["red-5-diffused"]
MORE = {
    "dropper": {"volts": "230V", "drop": "470nF", "string": "72V", "bleed": "470k"},
    "converter_board": {"string": "36V", "read": "300mA"},
    "blind_clip": {"most": "36V", "led": "red-5-diffused"},
    "magneto": {
        "slow_hz": "60Hz",
        "slow_open": "8V",
        "slow_lit": "5V",
        "fast_hz": "200Hz",
        "fast_open": "25V",
        "fast_lit": "7V",
        "coil_ohm": "0.8R",
        "top_hz": "220Hz",
        "lamp_volts": "6V",
        "all_amps": "5A",
        "gone_amps": "1A",
        "led": "red-5-diffused",
        "led_count": "3",
        "ohm": "220R",
    },
}
EVERY = {**TYPED, **MORE}
# Heat, not current, is what these are about.
NO_WIRING = {"power_led", "sensor", "warmer"}


@pytest.mark.parametrize("kind", [k for k in CIRCUITS if k not in NO_WIRING])
def test_every_kind_has_a_picture_and_so_has_what_comes_after(kind):
    result = worked(kind, **EVERY[kind])
    assert len(result.wiring.drawing.parts) > 1
    for wiring in filter(None, (result.wiring, result.wiring_after)):
        assert set(drawn(svg(wiring.drawing))) == {p.id for p in wiring.drawing.parts}


def wired():
    """A feed, two branches side by side, one with a lamp and a link, one with a switch; a path that never conducts."""
    w = Wiring("ours")
    w.source("Vfeed", "feed", 12.0)
    w.resistor("R1", "feed", "one", 470.0)
    w.source("Vmeter", "one", 0.0, "led")
    w.led("D1", "led", "0", RED, label="the LED", series=3)
    w.switch("Rswitch", "feed", "two", True)
    w.resistor("R2", "two", "0", 1e3)
    w.resistor("Rair", "two", "0", 1e9)
    return w


def test_a_link_is_a_wire_and_an_open_path_is_not_drawn():
    p = picture((("R1", "ballast", "ohm"),), wired(), None, Details((), {}))
    parts = {part.id: part for part in p.drawing.parts}
    assert set(parts) == {"Vfeed", "R1", "D1", "Rswitch", "R2"}
    assert (parts["D1"].symbol, parts["D1"].value, parts["Rswitch"].symbol) == ("led", "3 in series", "contact")
    # The kind asks for no such detail, so that pressing it would open nothing.
    assert (parts["R1"].name, parts["R1"].opens, parts["R1"].value) == (("ballast",), "", "470\u00a0Ω")
    found = drawn(svg(p.drawing))
    wanted = {
        "Vfeed": ("feed", "0"),
        "R1": ("feed", "led"),
        "D1": ("led", "0"),
        "Rswitch": ("feed", "two"),
        "R2": ("two", "0"),
    }
    for name, nodes in wanted.items():
        for other, others in wanted.items():
            shared = set(found[name]) & set(found[other])
            assert len(shared) == len(set(nodes) & set(others)), f"{name} and {other}"


def test_branches_side_by_side_share_their_places():
    """Two strings between the same ends are as wide as one: three places across, not four."""
    p = picture((), wired(), None, Details((), {}))
    assert max(n.across for n in p.drawing.nodes) == 2


@pytest.mark.parametrize("kind", CIRCUITS)
def test_a_part_opens_a_detail_that_its_kind_asks_for(kind):
    asked = {d.id for d in CIRCUITS[kind].details}
    assert {detail for _, _, detail in CIRCUITS[kind].parts if detail} <= asked


def test_what_a_part_carries_is_what_the_circuit_was_solved_to():
    """12.6 V over 8 Ω, the lamp's way and 1 kΩ with a red LED: (12.6 − 1.9) / 1 008 is 10.6 mA (Ohm)."""
    result = worked("charge_lamp", **EVERY["charge_lamp"])
    still = result.wiring.states[0]
    reads = {r.part: r for r in still.parts}
    figure = next(f for f in result.figures if f.id == "field").now
    assert reads["Rfield"].amps == f"{figure.number}\u00a0{figure.unit}" == reads["Rled"].amps
    assert float(reads["Rled"].amps.split("\u00a0")[0]) == pytest.approx(10.6, rel=0.02)
    # The key is closed then, the generator's own switch is open; key off it is the other way round.
    last = {r.part: r for r in result.wiring.states[-1].parts}
    assert (bool(reads["Rkey"].shape), bool(reads["Rgen"].shape)) == (True, False)
    assert (bool(last["Rkey"].shape), bool(last["Rgen"].shape)) == (False, True)


# Not more than this joins two nodes as a wire does, Ω (ours, as the picture's own).
LINK = 0.1


def merged(parts, shown):
    """Each node by the one it is joined to through what is not drawn and is no more than a wire."""
    same = {}

    def root(n):
        return n if n not in same else root(same[n])

    for e in parts:
        level = getattr(getattr(e, "wave", None), "level", None)
        ohms = getattr(e, "ohms", None)
        wire = np.all(np.asarray(level) == 0) if level is not None else ohms is not None and np.max(ohms) <= LINK
        if e.name not in shown and wire:
            a, b = map(root, ends(e))
            if a != b:
                same[a] = b
    return root


SOLVED_AS_DRAWN = ("charge_lamp", "two_feeds", "rheostat", "hum", "cable", "coil", "gauge", "chip_bank", "dropper")


@pytest.mark.parametrize("kind", SOLVED_AS_DRAWN)
def test_parts_meet_where_their_elements_share_a_node_and_only_there(kind):
    k = CIRCUITS[kind]
    wiring = k.wired(k.case(k.read({n: Input(t) for n, t in EVERY[kind].items()})))
    found = drawn(svg(worked(kind, **EVERY[kind]).wiring.drawing))
    root = merged(wiring.parts, found)
    nodes = {e.name: {root(n) for n in ends(e)} for e in wiring.parts if e.name in found}
    for name, other in combinations(found, 2):
        shared = len(set(found[name]) & set(found[other]))
        assert shared == len(nodes[name] & nodes[other]), f"{name} and {other}"


def test_equal_resistors_side_by_side_are_written_as_one_sees_them():
    """Eight LEDs with 150 Ω each are solved as 18.75 Ω; on the board there are eight of 150 Ω."""
    parts = {p.id: p.value for p in worked("chip_bank", **EVERY["chip_bank"]).wiring.drawing.parts}
    assert (parts["R1"], parts["R2"]) == ("8 × 150\u00a0Ω", "5 × 330\u00a0Ω")
    assert (parts["D1"], parts["D2"]) == ("8 ×", "5 ×")


def test_a_knob_goes_from_nothing_to_its_track():
    """The engine takes no resistor of nothing; what it takes instead is no figure of the knob."""
    parts = {p.id: p.value for p in worked("rheostat", **EVERY["rheostat"]).wiring.drawing.parts}
    assert parts["Rknob"] == "0 to 25\u00a0Ω"
