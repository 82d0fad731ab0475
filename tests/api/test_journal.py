"""Undo and redo: whole gestures, whole trees, one scope at a time."""

import uuid
from datetime import timedelta

import pytest
from django.utils import timezone

from swapglow.records import journal
from swapglow.records.models import Change, Equipment, Position, Rail, ReadingAfter

pytestmark = pytest.mark.django_db


@pytest.fixture
def bench():
    """An item with a rail, two positions and a reading."""
    e = made(Equipment, name="Tide table printer")
    r = made(Rail, {"equipment": e}, name="Main", usual={"text": "30V", "source": "assumed", "note": ""})
    positions = [
        made(Position, {"equipment": e, "rail": r, "order": k}, name=name, led_id="red-chip")
        for k, name in enumerate(("Ready", "Paper out"))
    ]
    made(ReadingAfter, {"position": positions[0]}, kind="current", text="2mA")
    return e


def made(model, columns=None, **typed):
    """A record of what was typed."""
    return model.objects.create(inputs=model.shape(**typed).model_dump(mode="json"), **(columns or {}))


def change(record, **fields):
    """One recorded edit."""
    before = type(record).objects.get(pk=record.pk)
    scope = str(getattr(record, "equipment_id", record.pk))
    touched = f"{record.pk}:{sorted(fields)}"
    with journal.recorded(scope, f"edit {record.input.name}", [before], touched) as left:
        record.join(fields)
        record.save()
        left.append(record)
    return scope


def later(scope):
    """As if the last step had been taken a while ago."""
    Change.objects.filter(scope=scope).update(at=timezone.now() - timedelta(seconds=10))


def test_edits_of_one_field_in_quick_succession_are_one_step(bench):
    p = bench.positions.first()
    for ohms in ("1k", "1.2k", "1.5k"):
        scope = change(p, resistor=ohms)
    journal.undo(scope)
    assert Position.objects.get(pk=p.pk).input.resistor == ""
    with pytest.raises(journal.NothingToUndo):
        journal.undo(scope)


def test_edits_apart_in_time_or_field_are_steps_of_their_own(bench):
    p = bench.positions.first()
    change(p, resistor="1k")
    later(str(bench.pk))
    change(p, resistor="2k")
    scope = change(p, in_series=2)
    journal.undo(scope)
    assert Position.objects.get(pk=p.pk).input.in_series == 1
    journal.undo(scope)
    assert Position.objects.get(pk=p.pk).input.resistor == "1k"


def test_redo_goes_forth_again_until_something_new_is_done(bench):
    p = bench.positions.first()
    scope = change(p, resistor="1k")
    journal.undo(scope)
    assert journal.redo(scope) == "edit Ready"
    assert Position.objects.get(pk=p.pk).input.resistor == "1k"
    journal.undo(scope)
    change(Position.objects.get(pk=p.pk), in_series=4)
    with pytest.raises(journal.NothingToUndo):
        journal.redo(scope)


def test_an_edit_that_changes_nothing_is_no_step(bench):
    p = bench.positions.first()
    with journal.recorded(str(bench.pk), "edit", [Position.objects.get(pk=p.pk)], "x") as left:
        left.append(Position.objects.get(pk=p.pk))
    assert journal.state(str(bench.pk)) == ("", "")


def test_a_deleted_tree_comes_back_as_it_was(bench):
    rows = journal.with_dependants(bench)
    before = {(type(r), r.pk) for r in rows}
    assert len(before) == 5
    key = bench.pk
    with journal.recorded("", "delete", rows, "delete"):
        bench.delete()
    assert not Position.objects.exists()
    journal.undo("")
    found = {(type(r), r.pk) for r in journal.with_dependants(Equipment.objects.get(pk=key))}
    assert found == before
    journal.redo("")
    assert not Equipment.objects.exists()


def test_undo_of_a_making_removes_it(bench):
    key = uuid.uuid4()
    with journal.recorded(str(bench.pk), "add rail", [], f"rail:{key}") as left:
        left.append(made(Rail, {"id": key, "equipment": bench}, name="Second"))
    journal.undo(str(bench.pk))
    assert not Rail.objects.filter(pk=key).exists()


def test_scopes_do_not_mix(bench):
    other = made(Equipment, name="Barometer")
    change(bench, owner="us")
    change(other, owner="them")
    journal.undo(str(bench.pk))
    assert Equipment.objects.get(pk=other.pk).input.owner == "them"
    assert Equipment.objects.get(pk=bench.pk).input.owner == ""


def test_a_change_that_fails_half_way_leaves_nothing(bench):
    p = bench.positions.first()

    def half():
        with journal.recorded(str(bench.pk), "edit", [p], "x"):
            Position.objects.filter(pk=p.pk).update(inputs={**p.inputs, "name": "Half done"})
            raise RuntimeError("the line dropped")

    with pytest.raises(RuntimeError):
        half()
    assert Position.objects.get(pk=p.pk).input.name == "Ready"
    assert journal.state(str(bench.pk)) == ("", "")


def test_old_steps_are_let_go(bench, monkeypatch):
    monkeypatch.setattr(journal, "KEPT_STEPS", 3)
    for k in range(6):
        change(bench, owner=f"owner {k}")
        later(str(bench.pk))
    assert Change.objects.filter(scope=str(bench.pk)).count() == 3


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
    assert diagnosis.causes[0].id == "wrong-decade"
