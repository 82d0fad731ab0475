"""The drawer's counts over any sequence of what can happen to a tick: they add up, whatever the order.

The model knows no ledger. It knows what lay there, what was counted or bought since, and which lamps say that they have
taken parts; and that a lamp taken away has its parts with it.
"""

import json
import os
import random
import sqlite3
import uuid
from pathlib import Path

import pytest
from django.core.management import call_command
from django.db import connection, connections, transaction

from swapglow.records.models import BenchLed, Movement, Position, Step, StockPart
from swapglow.records.photographs import place
from tests.api.page import Bench
from tests.api.test_take_in import picture

FIXTURES = Path(__file__).resolve().parents[1] / "fixtures"
LONG = bool(os.environ.get("TORTURE"))


def counted(key):
    for model in (BenchLed, StockPart):
        record = model.objects.filter(pk=key).first()
        if record is not None:
            return record.inputs["count"]
    raise AssertionError("the compartment is gone")


class Workshop:
    """An item with two lamps that take their LED from one counted bag, and the bag."""

    def __init__(self, bag=10):
        self.bench = Bench()
        self.keys = self.bench.made()
        self.bag = str(uuid.uuid4())
        body = {"name": "Red bag", "led_id": "red-5-diffused", "count": bag}
        assert self.bench("PUT", f"leds/{self.bag}", body)[0] == 200
        second = {"equipment": self.item, "name": "Second", "led_id": "red-5-diffused", "target": {"text": "4mA"}}
        self.lamps = [self.keys["position"], str(uuid.uuid4())]
        assert self.bench("PUT", f"positions/{self.lamps[1]}", second)[0] == 200

    @property
    def item(self):
        return self.keys["equipment"]

    @property
    def count(self):
        return counted(self.bag)

    def tick(self, lamp, done=True):
        status, answer = self.bench("PATCH", f"positions/{lamp}", {"steps": {"take": {"done": done}}})
        assert status == 200, answer

    def last_step(self):
        return self.bench.step(self.item)["id"]

    def undo(self, step, **more):
        return self.bench("POST", "undo", {"step": step, **more})

    def document(self):
        return self.bench.raw(f"equipment/{self.item}/document.json")[1]

    def bring_in(self, document, **more):
        status, made = self.bench.send("import", "a.json", document, **more)
        assert status == 200, made
        return made["id"]


pytestmark = pytest.mark.django_db


def test_two_ticks_undone_in_turn_lay_back_one_each():
    w = Workshop()
    w.tick(w.lamps[0])
    first = w.last_step()
    w.tick(w.lamps[1])
    second = w.last_step()
    assert w.count == 8
    assert w.undo(first)[0] == 200
    assert w.count == 9
    assert w.undo(second)[0] == 200
    assert w.count == 10


def test_going_back_to_before_a_tick_lays_its_parts_back():
    w = Workshop()
    assert w.bench("PATCH", f"positions/{w.lamps[0]}", {"notes": "measured twice"})[0] == 200
    before = w.bench("GET", f"positions/{w.lamps[0]}/past")[1]["states"][0]["step"]
    w.tick(w.lamps[0])
    assert w.count == 9
    assert w.bench("POST", f"positions/{w.lamps[0]}/back", {"step": before})[0] == 200
    assert w.count == 10
    # And forth again: going back is a step too.
    assert w.undo(w.last_step())[0] == 200
    assert w.count == 9


def test_a_copy_of_a_ticked_item_has_taken_nothing():
    w = Workshop()
    w.tick(w.lamps[0])
    copy = w.bring_in(w.document(), as_copy="true")
    assert w.count == 9
    lamp = next(p for p in Position.objects.filter(equipment=copy) if p.inputs["steps"])
    assert lamp.inputs["steps"]["take"]["done"]
    w.tick(str(lamp.pk), done=False)
    assert w.count == 9
    w.tick(w.lamps[0], done=False)
    assert w.count == 10


def test_an_item_brought_in_again_books_what_changed_of_its_ticks():
    w = Workshop()
    plain = w.document()
    w.tick(w.lamps[0])
    ticked = w.document()
    w.bring_in(plain)
    assert w.count == 10
    w.bring_in(ticked)
    assert w.count == 9
    w.bring_in(ticked)
    assert w.count == 9


def test_a_deleted_item_keeps_its_parts_and_brings_them_along_when_it_comes_back():
    w = Workshop()
    w.tick(w.lamps[0])
    document = w.document()
    assert w.bench("DELETE", f"equipment/{w.item}")[0] == 204
    assert w.count == 9
    w.bring_in(document)
    assert w.count == 9
    w.tick(w.lamps[0], done=False)
    assert w.count == 10


def test_a_count_typed_after_a_tick_is_undone_by_what_it_changed():
    w = Workshop()
    w.tick(w.lamps[0])
    assert w.bench("PATCH", f"leds/{w.bag}", {"count": 7})[0] == 200
    counting = w.bench.step("drawer")["id"]
    w.tick(w.lamps[1])
    assert w.count == 6
    # Two were missed by the count; they are there again, and what the second lamp took is still out.
    assert w.undo(counting)[0] == 200
    assert w.count == 8
    assert w.bench("POST", "redo", {"step": w.bench.step("drawer", "redo")["id"]})[0] == 200
    assert w.count == 6


def test_a_bag_that_is_no_longer_counted_has_no_count_until_it_is():
    w = Workshop()
    assert w.bench("PATCH", f"leds/{w.bag}", {"count": None})[0] == 200
    assert w.count is None
    w.tick(w.lamps[0])
    assert w.count is None
    assert w.bench("PATCH", f"leds/{w.bag}", {"count": 5})[0] == 200
    assert w.count == 5


def test_undo_of_another_field_leaves_the_count_as_it_is():
    w = Workshop()
    assert w.bench("PATCH", f"leds/{w.bag}", {"kept_in": "tin 7"})[0] == 200
    moving = w.bench.step("drawer")["id"]
    w.tick(w.lamps[0])
    assert w.undo(moving)[0] == 200
    assert w.count == 9


def test_the_demos_drawer_can_be_undone(demo):
    bench = Bench()
    part = next(p for p in bench("GET", "drawer")[1]["parts"] if p["count"] == 12)
    assert bench("PATCH", f"parts/{part['id']}", {"price": "1.40", "count": 9})[0] == 200
    assert bench.undo("drawer")[0] == 200
    now = next(p for p in bench("GET", "drawer")[1]["parts"] if p["id"] == part["id"])
    assert (now["price"], now["count"]) == ("1.20", 12)


def test_a_tick_that_takes_a_demo_led_can_be_undone(demo):
    bench = Bench()
    lamp = Position.objects.filter(inputs__led_id="warm-5-diffused", inputs__stage="sizing").first()
    bag = BenchLed.objects.get(inputs__name__startswith="Warm white")
    assert bench("PATCH", f"positions/{lamp.pk}", {"steps": {"take": {"done": True}}})[0] == 200
    taken = 14 - counted(bag.pk)
    assert taken == lamp.input.in_series * lamp.input.branches
    assert bench.undo(str(lamp.equipment_id))[0] == 200
    assert counted(bag.pk) == 14


def test_a_step_that_cannot_be_undone_says_why_and_can_be_left(demo):
    """As an earlier version left it: a part of which nobody wrote down what it was before it was changed."""
    bench = Bench()
    part = StockPart.objects.first()
    for price in ("2.00", "3.00"):
        assert bench("PATCH", f"parts/{part.pk}", {"price": price})[0] == 200
        StockPart.history.filter(id=part.pk, step=None).delete()
    # Two gestures, not one.
    steps = list(Step.objects.filter(scope="drawer"))
    assert len(steps) == 1
    other = str(uuid.uuid4())
    assert bench("PUT", f"parts/{other}", {"resistance": "3k3"})[0] == 200
    stuck = steps[0].pk
    assert bench.undo("drawer")[0] == 200  # the newest, put in just now
    status, answer = bench("POST", "undo", {"step": stuck})
    assert status == 409 and "not known any more" in answer["errors"][0]["message"]
    assert bench.step("drawer")["id"] == stuck
    assert bench("POST", "undo/pass", {"step": stuck})[0] == 204
    assert bench.step("drawer") is None
    # One that can be undone is not left.
    assert bench("PATCH", f"parts/{part.pk}", {"lot": "May"})[0] == 200
    assert bench("POST", "undo/pass", {"step": bench.step("drawer")["id"]})[0] == 409


class Model:
    """What a person at the drawer would say: what lay there, less what lamps have, gone lamps among them."""

    def __init__(self, w):
        self.w = w
        self.base = w.count
        self.gone = 0

    def out(self):
        total = 0
        for inputs in Position.objects.values_list("inputs", flat=True):
            step = inputs.get("steps", {}).get("take", {})
            if step.get("done"):
                total += (step.get("drawn") or {}).get(self.w.bag) or 0
        return total

    def check(self):
        assert self.w.count == self.base - self.out() - self.gone


def upgraded(blocker=None):
    """An old database brought to this version, laid into the one that the test uses."""
    path = Path(connection.settings_dict["NAME"]).with_name(f"old-{uuid.uuid4()}.sqlite3")
    with sqlite3.connect(path) as made:
        made.executescript((FIXTURES / "database-3.sql").read_text())
    connections.databases["old"] = {**connections["default"].settings_dict, "NAME": str(path)}
    try:
        call_command("migrate", database="old", verbosity=0)
    finally:
        connections["old"].close()
        del connections["old"], connections.databases["old"]
    with connection.cursor() as db:
        db.execute("ATTACH DATABASE %s AS kept", [str(path)])
        try:
            with transaction.atomic():
                db.execute("PRAGMA defer_foreign_keys=ON")
                for table in connection.introspection.table_names(db):
                    if table.startswith("records_"):
                        columns = [c.name for c in connection.introspection.get_table_description(db, table)]
                        names = ", ".join(f'"{c}"' for c in columns)
                        db.execute(f'INSERT INTO main."{table}" ({names}) SELECT {names} FROM kept."{table}"')
        finally:
            db.execute("DETACH DATABASE kept")


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize("begins", ["demo", "upgraded"])
@pytest.mark.parametrize("seed", range(40 if LONG else 2))
def test_counts_add_up_after_any_sequence(request, begins, seed, room, other_databases):
    if begins == "demo":
        request.getfixturevalue("demo")
    else:
        upgraded()
    chance = random.Random(seed)
    w = Workshop(bag=chance.randrange(3, 30))
    # The lamps themselves stay: what a lamp that is undone away has in it is no question of counts.
    Step.objects.all().delete()
    model, documents, backups, done, pictures = Model(w), [], [], [], set()

    def tick():
        w.tick(chance.choice(w.lamps), chance.random() < 0.6)
        if step := w.bench.step(w.item):
            done.append(step["id"])

    def undo():
        if step := w.bench.step(w.item):
            assert w.undo(step["id"], choice=chance.choice(["earlier", "later"]))[0] in (200, 409)

    def undo_any():
        if done:
            assert w.undo(chance.choice(done), choice=chance.choice(["earlier", "later"]))[0] in (200, 409)

    def redo():
        if step := w.bench.step(w.item, "redo"):
            assert w.bench("POST", "redo", {"step": step["id"], "choice": "earlier"})[0] in (200, 409)

    def go_back():
        lamp = chance.choice(w.lamps)
        states = w.bench("GET", f"positions/{lamp}/past")[1]["states"]
        own = [s for s in states if s["own"]]
        if own:
            assert w.bench("POST", f"positions/{lamp}/back", {"step": chance.choice(own)["step"]})[0] == 200

    def copy():
        w.bring_in(w.document(), as_copy="true")

    def bring_in():
        if documents and chance.random() < 0.7:
            w.bring_in(chance.choice(documents))
        else:
            documents.append(w.document())

    def count():
        typed = chance.randrange(3, 30)
        assert w.bench("PATCH", f"leds/{w.bag}", {"count": typed})[0] == 200
        model.base = typed + model.out() + model.gone

    def note():
        assert w.bench("PATCH", f"leds/{w.bag}", {"lot": f"lot {chance.random()}"})[0] == 200

    def photograph():
        key = str(uuid.uuid4())
        assert w.bench.send(f"equipment/{w.item}/photos/{key}", "a.jpg", picture())[0] == 200
        pictures.add(key)

    def back_up():
        backups.append((w.bench("POST", "backups")[1]["name"], model.base, model.gone, w.count))

    def restore():
        if backups:
            name, model.base, model.gone, then = chance.choice(backups)
            status, answer = w.bench("POST", f"backups/{name}/restore")
            assert status == 200, answer
            assert w.count == then
            done.clear()

    acts = [tick] * 6 + [undo, undo, undo_any, redo, redo, go_back, go_back, copy, bring_in, bring_in, count, note]
    acts += [photograph, back_up, restore]
    trail = []
    for _ in range(120 if LONG else 45):
        act = chance.choice(acts)
        trail.append(act.__name__)
        act()
        try:
            model.check()
        except AssertionError:
            raise AssertionError(f"{w.count} after {trail}, {Movement.objects.count()} movements") from None
    # Every photograph that is on the bench has its file, whatever was undone and restored in between.
    for photo in w.bench("GET", f"equipment/{w.item}")[1]["take_in"]["photos"]:
        assert w.bench.raw(f"photos/{photo['id']}/picture.jpg")[0] == 200
    assert json.loads(w.document())["equipment"]["id"] == w.item
    assert all(len(p.parent.name) == 2 for p in room.rglob("*.jpg")) and place("ab" + "0" * 62).name.endswith(".jpg")
