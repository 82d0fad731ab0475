"""Undo and redo: what a step changed is given back, and nothing else. Told as a person would tell it."""

import uuid
from datetime import timedelta

import pytest
from django.utils import timezone

from swapglow.records import steps
from swapglow.records.models import Equipment, Position, Rail, ReadingAfter, Step
from tests.api.page import Bench, hand

pytestmark = pytest.mark.django_db


@pytest.fixture
def bench():
    return Bench()


def later():
    """As if the last steps had been taken a while ago."""
    Step.objects.update(at=timezone.now() - timedelta(seconds=10))


def edit(bench, keys, **fields):
    assert bench("PATCH", f"positions/{keys['position']}", fields)[0] == 200


def lamp(keys):
    return Position.objects.get(pk=keys["position"]).input


# --- gestures and stacks -------------------------------------------------------------------------


def test_edits_of_one_field_in_quick_succession_are_one_step(bench):
    keys = bench.made()
    for ohms in ("1k", "1.2k", "1.5k"):
        edit(bench, keys, resistor=ohms)
    status, done = bench.undo(keys["equipment"])
    assert (status, done["label"]) == (200, "edit Ready: resistor")
    assert lamp(keys).resistor == ""
    assert bench.step(keys["equipment"])["label"] == "add Ready"


def test_edits_apart_in_time_or_field_are_steps_of_their_own(bench):
    keys = bench.made()
    edit(bench, keys, resistor="1k")
    later()
    edit(bench, keys, resistor="2k")
    edit(bench, keys, in_series=2)
    bench.undo(keys["equipment"])
    assert (lamp(keys).in_series, lamp(keys).resistor) == (1, "2k")
    bench.undo(keys["equipment"])
    assert lamp(keys).resistor == "1k"


def test_redo_goes_forth_again_until_something_new_is_done(bench):
    keys = bench.made()
    edit(bench, keys, resistor="1k")
    edit(bench, keys, in_series=2)
    bench.undo(keys["equipment"])
    bench.undo(keys["equipment"])
    assert bench.undo(keys["equipment"], "redo")[1]["label"] == "edit Ready: resistor"
    assert (lamp(keys).resistor, lamp(keys).in_series) == ("1k", 1)
    assert bench.undo(keys["equipment"], "redo")[0] == 200
    assert lamp(keys).in_series == 2
    assert bench.step(keys["equipment"], "redo") is None
    bench.undo(keys["equipment"])
    edit(bench, keys, notes="something new")
    assert bench.step(keys["equipment"], "redo") is None


def test_an_edit_that_changes_nothing_is_no_step(bench):
    keys = bench.made()
    before = Step.objects.count()
    edit(bench, keys, name="Ready")
    assert Step.objects.count() == before


def test_undo_pressed_twice_takes_back_one_step(bench):
    keys = bench.made()
    edit(bench, keys, resistor="1k")
    step = bench.step(keys["equipment"])["id"]
    answers = [bench("POST", "undo", {"step": step}) for _ in range(2)]
    assert [status for status, _ in answers] == [200, 200]
    assert answers[0][1]["step"] == answers[1][1]["step"]
    assert lamp(keys).resistor == ""
    assert Position.objects.filter(pk=keys["position"]).exists()


def test_items_do_not_mix(bench):
    mine, theirs = bench.made(), bench.made()
    edit(bench, mine, notes="mine")
    edit(bench, theirs, notes="theirs")
    bench.undo(mine["equipment"])
    assert (lamp(mine).notes, lamp(theirs).notes) == ("", "theirs")


def test_steps_beyond_those_kept_are_let_go_and_the_rest_still_go_back(bench, monkeypatch):
    monkeypatch.setattr(steps, "KEPT_STEPS", 3)
    keys = bench.made()
    for k in range(6):
        edit(bench, keys, notes=f"note {k}")
        later()
    steps.prune()
    assert Step.objects.filter(scope=keys["equipment"]).count() == 3
    for expected in ("note 4", "note 3", "note 2"):
        bench.undo(keys["equipment"])
        assert lamp(keys).notes == expected
    steps.prune()
    bench.undo(keys["equipment"], "redo")
    assert lamp(keys).notes == "note 3"


# --- what a step changed, and nothing else -----------------------------------------------------


def test_undoing_a_move_keeps_the_notes_typed_since(bench):
    first, second = bench.made(), bench.made()
    order = [str(e.pk) for e in Equipment.objects.all()]
    assert order == [first["equipment"], second["equipment"]]
    bench("POST", "equipment/move", {"key": second["equipment"], "before": first["equipment"]})
    assert str(Equipment.objects.first().pk) == second["equipment"]
    bench("PATCH", f"equipment/{second['equipment']}", {"notes": "typed after the move"})
    status, done = bench.undo()
    assert (status, done["label"]) == (200, "move Tide gauge on the bench")
    assert [str(e.pk) for e in Equipment.objects.all()] == order
    assert Equipment.objects.get(pk=second["equipment"]).input.notes == "typed after the move"
    bench.undo("", "redo")
    assert str(Equipment.objects.first().pk) == second["equipment"]
    assert Equipment.objects.get(pk=second["equipment"]).input.notes == "typed after the move"


def test_undoing_an_import_keeps_what_was_typed_elsewhere_since(bench):
    keys = bench.made()
    _, content, _ = bench.raw(f"equipment/{keys['equipment']}/document.json")
    edit(bench, keys, resistor="1k")
    status, answer = bench.send("import", "a.json", content)
    assert status == 200, answer
    assert lamp(keys).resistor == ""
    edit(bench, keys, notes="after the import")
    assert bench.undo()[1]["label"] == "import Tide gauge"
    assert (lamp(keys).resistor, lamp(keys).notes) == ("1k", "after the import")


def test_a_field_changed_again_is_shown_both_ways_and_somebody_chooses(bench):
    keys = bench.made()
    edit(bench, keys, notes="first", resistor="1k")
    step = bench.step(keys["equipment"])["id"]
    later()
    edit(bench, keys, notes="second")
    status, answer = bench("POST", "undo", {"step": step})
    assert status == 409
    assert answer["clashes"] == [{"record": "Ready", "field": "notes", "earlier": "nothing", "later": "second"}]
    assert (lamp(keys).notes, lamp(keys).resistor) == ("second", "1k")
    assert bench("POST", "undo", {"step": step, "choice": "later"})[0] == 200
    assert (lamp(keys).notes, lamp(keys).resistor) == ("second", "")


def test_the_earlier_is_put_back_where_that_is_chosen_and_comes_again(bench):
    keys = bench.made()
    edit(bench, keys, notes="first")
    step = bench.step(keys["equipment"])["id"]
    later()
    edit(bench, keys, notes="second")
    assert bench("POST", "undo", {"step": step, "choice": "earlier"})[0] == 200
    assert lamp(keys).notes == ""
    assert bench.undo(keys["equipment"], "redo")[0] == 200
    assert lamp(keys).notes == "second"


def test_an_item_with_later_work_goes_and_comes_back_whole(bench):
    keys = bench.made()
    step = bench.step("")["id"]
    status, answer = bench("POST", "undo", {"step": step})
    assert status == 409
    assert {(c["field"], c["later"]) for c in answer["clashes"]} == {("supply rail", "Main"), ("lamp", "Ready")}
    status, done = bench("POST", "undo", {"step": step, "choice": "earlier"})
    assert (status, done["gone"]) == (200, [keys["equipment"]])
    assert not Equipment.objects.exists()
    assert bench.undo("", "redo")[0] == 200
    assert lamp(keys).name == "Ready"
    assert Rail.objects.get(pk=keys["rail"]).input.usual.text == "21-23V"


def test_a_deleted_item_comes_back_with_readings_and_their_times(bench):
    keys = bench.made()
    reading = str(uuid.uuid4())
    bench("PUT", f"readings/after/{reading}", {"position": keys["position"], "kind": "current", "text": "4mA"})
    taken = ReadingAfter.objects.get(pk=reading).created
    bench("DELETE", f"equipment/{keys['equipment']}")
    assert not ReadingAfter.objects.exists()
    bench.undo()
    assert ReadingAfter.objects.get(pk=reading).created == taken
    bench.undo("", "redo")
    assert not Equipment.objects.exists()


def test_a_notice_undoes_its_own_step_and_not_the_newest(bench):
    keys, other = bench.made(), bench.made()
    bench("DELETE", f"equipment/{keys['equipment']}")
    deleted = bench.step("")["id"]
    bench("PUT", f"equipment/{uuid.uuid4()}", {"name": "Newer"})
    assert bench("POST", "undo", {"step": deleted})[1]["label"] == "delete Tide gauge"
    assert Equipment.objects.filter(pk=keys["equipment"]).exists()
    assert Equipment.objects.filter(inputs__name="Newer").exists()
    assert Equipment.objects.filter(pk=other["equipment"]).exists()


# --- references --------------------------------------------------------------------------------


def second_rail(bench, keys):
    rail = str(uuid.uuid4())
    body = {"equipment": keys["equipment"], "name": "Second", "usual": {"text": "9V"}}
    assert bench("PUT", f"rails/{rail}", body)[0] == 200
    return rail


def test_a_lamp_does_not_go_back_to_a_rail_that_is_gone(bench):
    keys = bench.made()
    rail = second_rail(bench, keys)
    edit(bench, keys, rail=rail)
    moved = bench.step(keys["equipment"])["id"]
    assert bench("DELETE", f"rails/{keys['rail']}")[0] == 204
    status, answer = bench("POST", "undo", {"step": moved})
    assert status == 409
    assert answer["errors"][0]["message"] == ("The rail that Ready was on then is gone. Bring it back first.")
    bench.undo(keys["equipment"])
    assert bench("POST", "undo", {"step": moved})[0] == 200
    assert str(Position.objects.get().rail_id) == keys["rail"]


def test_a_rail_that_feeds_lamps_is_not_taken_back(bench):
    keys = bench.made()
    rail = second_rail(bench, keys)
    made = bench.step(keys["equipment"])["id"]
    edit(bench, keys, rail=rail)
    for choice in ("earlier", "ask"):
        status, _ = bench("POST", "undo", {"step": made, "choice": choice})
        assert status == 409
    assert Rail.objects.filter(pk=rail).exists()
    assert "now feeds Ready" in bench("POST", "undo", {"step": made, "choice": "earlier"})[1]["errors"][0]["message"]


def test_a_lamp_whose_rail_is_gone_does_not_come_back_alone(bench):
    keys = bench.made()
    bench("DELETE", f"positions/{keys['position']}")
    lamp_gone = bench.step(keys["equipment"])["id"]
    bench("DELETE", f"rails/{keys['rail']}")
    status, answer = bench("POST", "undo", {"step": lamp_gone})
    assert status == 409
    assert "its rail is gone" in answer["errors"][0]["message"]
    bench.undo(keys["equipment"])
    assert bench("POST", "undo", {"step": lamp_gone})[0] == 200
    assert lamp(keys).name == "Ready"


def test_an_undo_that_would_leave_a_rail_unreadable_is_refused_in_words(bench):
    keys = bench.made("24V")
    path = f"rails/{keys['rail']}"
    assert bench("PATCH", path, {"high": {"text": "26V"}})[0] == 200
    step = bench.step(keys["equipment"])["id"]
    assert bench("PATCH", path, {"high": {"text": "31V"}, "usual": {"text": "30V"}})[0] == 200
    bench("PATCH", path, {"high": {"text": "26V"}, "usual": {"text": "25V"}})
    assert bench("POST", "undo", {"step": step})[0] == 200
    assert Rail.objects.get(pk=keys["rail"]).input.high.text == ""


def test_an_unknown_step_is_refused(bench):
    for path in ("undo", "redo"):
        status, answer = bench("POST", path, {"step": 999})
        assert status == 409
        assert "not known any more" in answer["errors"][0]["message"]


# --- lists and the drawer ----------------------------------------------------------------------


def sheet(keys):
    return Equipment.objects.get(pk=keys["equipment"]).sheet


def take_in(bench, keys, **parts):
    assert bench("PATCH", f"equipment/{keys['equipment']}/take-in", parts)[0] == 200


def test_a_line_of_a_list_is_changed_and_undone_by_itself(bench):
    keys = bench.made()
    take_in(bench, keys, wires={"a": {"name": "red", "place": 0}})
    take_in(bench, keys, wires={"b": {"name": "blue", "place": 1}})
    take_in(bench, keys, wires={"a": {"goes": "fuse"}})
    assert [(w.name, w.goes) for w in sheet(keys).wires.values()] == [("red", "fuse"), ("blue", "")]
    take_in(bench, keys, wires={"a": None})
    assert set(sheet(keys).wires) == {"b"}
    take_in(bench, keys, wires={"b": {"goes": "switch"}})
    labels = Step.objects.filter(kind="do").order_by("-id").values_list("pk", flat=True)
    assert bench("POST", "undo", {"step": labels[1]})[0] == 200
    assert {k: (w.name, w.goes) for k, w in sheet(keys).wires.items()} == {
        "a": ("red", "fuse"),
        "b": ("blue", "switch"),
    }


def test_undoing_a_new_line_takes_the_line_away(bench):
    keys = bench.made()
    take_in(bench, keys, originals={"x": {"what": "lamp"}})
    bench.undo(keys["equipment"])
    assert sheet(keys).originals == {}
    bench.undo(keys["equipment"], "redo")
    assert sheet(keys).originals["x"].what == "lamp"


def test_a_danger_is_ticked_and_unticked_by_itself(bench):
    keys = bench.made()
    take_in(bench, keys, hazards={"mains": True})
    take_in(bench, keys, hazards={"heat": True})
    mains = Step.objects.filter(kind="do").order_by("-id")[1].pk
    assert bench("POST", "undo", {"step": mains})[0] == 200
    assert sheet(keys).hazards == ["heat"]
    take_in(bench, keys, hazards={"heat": False})
    assert sheet(keys).hazards == []


def test_the_drawer_is_changed_value_by_value_and_has_steps(bench):
    bench("PATCH", "drawer", {"add": ["470R", "1k"]})
    assert bench("PATCH", "drawer", {"add": ["4k7", "1k"]})[0] == 204
    assert hand() == ["470\u00a0Ω", "1\u00a0kΩ", "4.7\u00a0kΩ"]
    bench("PATCH", "drawer", {"remove": ["470 Ω"]})
    assert hand() == ["1\u00a0kΩ", "4.7\u00a0kΩ"]
    assert bench.undo("drawer")[1]["label"] == "take out 470\u00a0Ω"
    assert hand() == ["470\u00a0Ω", "1\u00a0kΩ", "4.7\u00a0kΩ"]
    assert bench.undo("drawer")[0] == 200
    assert hand() == ["470\u00a0Ω", "1\u00a0kΩ"]


@pytest.mark.parametrize("text", ["1e-12R", "0.5mR", "1e15", "0", "-5R"])
def test_no_drawer_takes_what_is_no_resistor(bench, text):
    status, answer = bench("PATCH", "drawer", {"add": ["1k", text]})
    assert (status, answer["errors"][0]["field"]) == (422, "add")
    assert hand() == []


@pytest.mark.django_db(transaction=True)
def test_the_demo_loads_once_and_reads(demo):
    """At least six positions in different states, one wrong on purpose."""
    from django.core.management import call_command

    from swapglow.records import reports

    call_command("load_demo")
    positions = list(Position.objects.select_related("rail"))
    assert len(positions) >= 6
    assert {p.input.stage for p in positions} == {"sizing", "trial", "fitted", "done"}
    found = {p.input.name: reports.report(p, None, frozenset()) for p in positions}
    assert any(f.grade == "stop" for f in found["Arc ready"].findings)
    [diagnosis] = found["Shutter open"].diagnoses
    assert diagnosis.agrees
    [diagnosis] = found["Dial, left"].diagnoses
    assert not diagnosis.agrees
    assert found["Dial, left"].trouble.causes[0].id == "R1-decade-up"


def test_a_string_of_other_leds_is_added_written_and_struck_in_steps_of_its_own(bench):
    """Each is a gesture: undo takes the striking back and leaves what was written."""
    keys = bench.made()
    at = f"positions/{keys['position']}"
    assert bench("PATCH", at, {"beside": {"k1": {"place": 0}}})[0] == 200
    assert bench("PATCH", at, {"beside": {"k1": {"led_id": "blue-chip", "drive": "1mA"}}})[0] == 200
    assert bench("PATCH", at, {"beside": {"k1": None}})[1]["beside"] == {}
    bench.undo(keys["equipment"])
    (kept,) = bench("GET", at)[1]["position"]["beside"].values()
    assert (kept["led_id"], kept["drive"]) == ("blue-chip", "1mA")
    status, refused = bench("PATCH", at, {"beside": {"k1": {"drive": "1 furlong"}}})
    assert status == 422
    assert refused["errors"][0]["field"] == "beside.k1.drive"
    assert bench("PATCH", at, {"beside": {"k1": {"count": 0}}})[0] == 422


def test_a_rail_says_what_hangs_on_it(bench):
    """Two lamps and 50 mA: the sum of their currents at the usual level (Kirchhoff)."""
    keys = bench.made("22V")
    before = bench("GET", f"rails/{keys['rail']}/budget")[1]
    assert len(before["taken"]) == 1
    other = str(uuid.uuid4())
    body = {
        "equipment": keys["equipment"],
        "rail": keys["rail"],
        "name": "Second",
        "led_id": "red-5-diffused",
        "target": {"text": "9mA"},
        "lit": "single",
    }
    assert bench("PUT", f"positions/{other}", body)[0] == 200
    assert bench("PATCH", f"rails/{keys['rail']}", {"others": "50mA", "fuse": "60mA"})[0] == 200
    after = bench("GET", f"rails/{keys['rail']}/budget")[1]
    one, two = (t["after"]["value"] for t in after["taken"])
    assert after["usual_after"]["value"] == pytest.approx(one + two + 0.05, rel=1e-6)
    assert [t["lit"] for t in after["taken"]] == ["always", "single"]
    assert after["findings"][0]["id"] == "rail-over-fuse"
    report = bench("POST", f"positions/{keys['position']}/assess", {"changes": {}})[1]["report"]
    assert "rail-over-fuse" in {f["id"] for f in report["findings"]}
    assert bench("GET", f"rails/{uuid.uuid4()}/budget")[0] == 404
