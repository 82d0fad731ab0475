"""Lamps that are alike: copied once, compared by their kind, changed together, and judged by a few readings."""

import math
from uuid import uuid4

import numpy as np
import pytest
from scipy.stats import norm

from swapglow.core.evidence.lot import judge
from swapglow.core.measurement.reading_after import ReadingAfter as Reading
from swapglow.records.models import Equipment, Position, ReadingAfter
from swapglow.records.reports import core_of
from tests.api.page import Bench

pytestmark = pytest.mark.django_db


class Panel(Bench):
    """An item with a 12 V rail and one lamp on it: a red LED and 1 kΩ."""

    def __init__(self):
        super().__init__()
        self.item, rail, self.lamp = (str(uuid4()) for _ in range(3))
        self.do("PUT", f"equipment/{self.item}", {"name": "Valve tester"})
        usual = {"text": "12V", "source": "measured", "note": ""}
        self.do("PUT", f"rails/{rail}", {"equipment": self.item, "name": "Lamps", "kind": "regulated", "usual": usual})
        lamp = {"equipment": self.item, "rail": rail, "name": "Row 09", "led_id": "red-5-diffused", "resistor": "1k"}
        target = {"text": "10mA", "source": "assumed", "note": ""}
        self.do("PUT", f"positions/{self.lamp}", {**lamp, "target": target, "notes": "scratched bezel"})

    def do(self, method, path, body=None):
        status, answer = self(method, path, body)
        assert status in (200, 204), answer
        return answer

    def copy(self, names):
        """By name; sent twice, as over a bad connection."""
        made = {str(uuid4()): n for n in names}
        for _ in range(2):
            self.do("POST", f"positions/{self.lamp}/copies", {"lamps": made})
        return {n: k for k, n in made.items()}

    def change(self, lamp, **fields):
        self.do("PATCH", f"positions/{lamp}", fields)

    def read(self, lamp, text):
        self.do("PUT", f"readings/after/{uuid4()}", {"position": lamp, "kind": "current", "text": text})

    @property
    def alike(self):
        return self.do("GET", f"positions/{self.lamp}/alike")

    @property
    def lot(self):
        (one,) = self.alike["lots"]
        return one


@pytest.fixture
def panel():
    return Panel()


def test_names_go_on_from_the_last_number_and_leave_out_what_is_taken(panel):
    panel.copy(["Row 11"])
    got = panel.do("GET", f"positions/{panel.lamp}/copies/names?count=3")
    assert got == ["Row 10", "Row 12", "Row 13"]
    panel.change(panel.lamp, name="Beacon")
    assert panel.do("GET", f"positions/{panel.lamp}/copies/names?count=2") == ["Beacon 2", "Beacon 3"]
    assert panel("GET", f"positions/{panel.lamp}/copies/names?count=0")[0] == 422


def test_copies_are_made_once_in_order_and_taken_back_by_one_undo(panel):
    names = [f"Row {n}" for n in range(10, 15)]
    made = panel.copy(names)
    lamps = list(Position.objects.filter(equipment=Position.objects.get(pk=panel.lamp).equipment))
    assert [p.input.name for p in lamps] == ["Row 09", *names]
    assert {p.input.resistor for p in lamps} == {"1k"} and {p.rail_id for p in lamps} == {lamps[0].rail_id}
    # Its notes are about that lamp.
    assert [p.input.notes for p in lamps[1:]] == [""] * 5
    assert [o["alike"] for o in panel.alike["others"]] == [True] * 5
    assert panel.undo(panel.item)[0] == 200
    assert not Position.objects.filter(pk__in=made.values()).exists()
    assert Position.objects.filter(pk=panel.lamp).exists()


def test_a_list_with_a_nameless_lamp_is_refused_whole(panel):
    body = {"lamps": {str(uuid4()): "Row 10", str(uuid4()): ""}}
    status, answer = panel("POST", f"positions/{panel.lamp}/copies", body)
    assert status == 422 and answer["errors"]
    assert Equipment.objects.get().positions.count() == 1


def test_more_copies_than_are_made_at_once_are_refused_with_their_number(panel):
    body = {"lamps": {str(uuid4()): f"Row {n}" for n in range(201)}}
    status, answer = panel("POST", f"positions/{panel.lamp}/copies", body)
    assert status == 422
    assert answer["errors"][0]["message"] == "200 copies can be made at once; here are 201 names."


def test_a_resistor_that_was_read_is_a_fact_about_one_lamp(panel):
    panel.change(panel.lamp, resistor="1.02k", resistor_source="measured")
    (key,) = panel.copy(["Row 10"]).values()
    got = Position.objects.get(pk=key).input
    assert (got.resistor, got.resistor_source) == ("1.02k", "assumed")
    panel.change(key, resistor="985R", resistor_source="measured")
    assert panel.alike["others"][0]["alike"]
    panel.do("POST", f"positions/{panel.lamp}/alike", {"lamps": [key]})
    assert Position.objects.get(pk=key).input.resistor == "985R"


def test_what_was_measured_on_one_lamp_is_assumed_of_its_copies(panel):
    drop = {"text": "0.4V", "source": "measured", "note": "own meter"}
    vf = {"text": "2.11V", "source": "measured", "note": ""}
    panel.change(panel.lamp, driver_drop=drop, vf=vf)
    (key,) = panel.copy(["Row 10"]).values()
    got = Position.objects.get(pk=key).input
    assert (got.driver_drop.text, got.driver_drop.source) == ("0.4V", "assumed")
    assert got.driver_drop.note == "as measured on Row 09"
    # An LED is known by its lot, not by its neighbour's figure.
    assert (got.vf.text, got.vf.source) == ("", "assumed")
    # What was measured on one of two is no difference of their kind.
    assert panel.alike["others"][0]["alike"]


def test_one_change_is_given_to_those_chosen_and_what_was_measured_on_them_stays(panel):
    made = panel.copy(["Row 10", "Row 11", "Row 12"])
    own = {"text": "0.9V", "source": "measured", "note": ""}
    panel.change(made["Row 10"], driver_drop=own, notes="own note")
    panel.change(panel.lamp, resistor="1k5", looks={"room": "dark"})
    told = {o["name"]: o for o in panel.alike["others"]}
    assert {d["field"]: (d["here"], d["there"]) for d in told["Row 11"]["differs"]} == {
        "resistor": ("1k5", "1k"),
        "looks": ("", ""),
    }
    panel.do("POST", f"positions/{panel.lamp}/alike", {"lamps": [made["Row 10"], made["Row 11"]]})
    got = {n: Position.objects.get(pk=k).input for n, k in made.items()}
    assert [got[n].resistor for n in made] == ["1k5", "1k5", "1k"]
    assert [got[n].looks.room for n in made] == ["dark", "dark", "workshop"]
    assert (got["Row 10"].driver_drop.text, got["Row 10"].notes) == ("0.9V", "own note")
    assert panel.undo(panel.item)[0] == 200
    assert {Position.objects.get(pk=k).input.resistor for k in made.values()} == {"1k"}


def test_three_readings_say_how_the_others_will_read(panel):
    """By hand: R within 1 or 5 % and an LED part of a third of its lot's 0.06 V; dI/I = dR/R and dV/(12 - 2 V)."""
    made = panel.copy([f"Row {n}" for n in range(10, 30)])
    assert panel.alike["lots"] == []
    panel.read(panel.lamp, "9.90mA")
    assert panel.lot["verdict"] == "one"
    panel.read(made["Row 10"], "10.0mA")
    panel.read(made["Row 11"], "10.1mA")
    got = panel.lot
    assert (got["verdict"], len(got["read"]), got["of"]) == ("alike", 3, 21)
    p = Position.objects.get(pk=panel.lamp)

    spread = core_of(p).ohm_spread / 2
    parts = 10e-3 * math.hypot(spread, 0.02 / 10)
    assert got["parts"]["value"] == pytest.approx(parts, rel=0.15)
    reach = 1.96 * got["parts"]["value"] * math.sqrt(1 + 1 / 3)
    assert got["low"]["value"] == pytest.approx(10e-3 - reach, rel=1e-3)
    assert got["high"]["value"] == pytest.approx(10e-3 + reach, rel=1e-3)


def test_a_lamp_that_stands_out_is_named_and_does_not_count(panel):
    made = panel.copy([f"Row {n}" for n in range(10, 30)])
    for name, text in (("Row 10", "10.0mA"), ("Row 11", "10.1mA"), ("Row 12", "6.8mA")):
        panel.read(made[name], text)
    got = panel.lot
    assert [r["name"] for r in got["read"] if r["odd"]] == ["Row 12"]
    assert got["verdict"] == "odd" and "Row 12 differs" in got["line"]
    assert got["low"]["value"] > 8e-3
    # A reading of what was fitted before says nothing of the lot.
    for key in (panel.lamp, *made.values()):
        panel.change(key, resistor="2k2")
    assert panel.alike["lots"] == []
    assert ReadingAfter.objects.count() == 3


def test_of_two_that_differ_neither_is_called_the_good_one(panel):
    made = panel.copy(["Row 10", "Row 11"])
    panel.read(panel.lamp, "10mA")
    panel.read(made["Row 10"], "5mA")
    got = panel.lot
    assert [r["odd"] for r in got["read"]] == [True, True]
    assert (got["low"], got["high"]) == (None, None) and "Read a third lamp" in got["line"]


def test_of_drawn_lots_95_in_100_unread_lamps_lie_within_what_is_said(panel):
    """Normal lots of the spread that the app states: what it says of the others holds as often as it says (normal)."""

    lamp = core_of(Position.objects.get(pk=panel.lamp))
    reading = Reading("", "current", 0.0)
    parts = judge(lamp, reading, [("a", "A", 10e-3)], 40).parts.value
    drawn = np.random.default_rng(7)
    inside, odd = [], 0
    for _ in range(400):
        amps = 10e-3 + drawn.normal(0, parts, 13)
        told = judge(lamp, reading, [(str(k), f"L{k}", a) for k, a in enumerate(amps[:3])], 40)
        odd += told.verdict != "alike"
        if told.low and told.high:
            inside += [told.low.value <= a <= told.high.value for a in amps[3:]]
    assert np.mean(inside) == pytest.approx(0.95, abs=0.02)
    # Three readings, each judged at three sigmas, and the chi-square at one in a hundred.
    assert odd / 400 < 3 * 2 * norm.sf(3) + 0.01 + 0.02
