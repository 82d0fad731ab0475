"""Undo and redo: whole gestures, whole trees, one scope at a time."""

import uuid
from datetime import timedelta

import pytest
from django.utils import timezone

from swapglow.records import journal
from swapglow.records.models import Change, Equipment, Position, Rail, Reading

pytestmark = pytest.mark.django_db


@pytest.fixture
def bench():
    """An item with a rail, two positions and a reading."""
    e = Equipment.objects.create(name="Tide table printer")
    r = Rail.objects.create(equipment=e, name="Main", usual={"text": "30V", "source": "assumed", "note": ""})
    positions = [
        Position.objects.create(equipment=e, rail=r, name=name, led_id="red-chip", order=k)
        for k, name in enumerate(("Ready", "Paper out"))
    ]
    Reading.objects.create(position=positions[0], kind="current", text="2mA")
    return e


def change(record, **fields):
    """One recorded edit."""
    before = type(record).objects.get(pk=record.pk)
    scope = str(getattr(record, "equipment_id", record.pk))
    touched = f"{record.pk}:{sorted(fields)}"
    with journal.recorded(scope, f"edit {record.name}", [before], touched) as left:
        for name, value in fields.items():
            setattr(record, name, value)
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
    assert Position.objects.get(pk=p.pk).resistor == ""
    with pytest.raises(journal.NothingToUndo):
        journal.undo(scope)


def test_edits_apart_in_time_or_field_are_steps_of_their_own(bench):
    p = bench.positions.first()
    change(p, resistor="1k")
    later(str(bench.pk))
    change(p, resistor="2k")
    scope = change(p, in_series=2)
    journal.undo(scope)
    assert Position.objects.get(pk=p.pk).in_series == 1
    journal.undo(scope)
    assert Position.objects.get(pk=p.pk).resistor == "1k"


def test_redo_goes_forth_again_until_something_new_is_done(bench):
    p = bench.positions.first()
    scope = change(p, resistor="1k")
    journal.undo(scope)
    assert journal.redo(scope) == "edit Ready"
    assert Position.objects.get(pk=p.pk).resistor == "1k"
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
        left.append(Rail.objects.create(id=key, equipment=bench, name="Second"))
    journal.undo(str(bench.pk))
    assert not Rail.objects.filter(pk=key).exists()


def test_scopes_do_not_mix(bench):
    other = Equipment.objects.create(name="Barometer")
    change(bench, owner="us")
    change(other, owner="them")
    journal.undo(str(bench.pk))
    assert Equipment.objects.get(pk=other.pk).owner == "them"
    assert Equipment.objects.get(pk=bench.pk).owner == ""


def test_a_change_that_fails_half_way_leaves_nothing(bench):
    p = bench.positions.first()

    def half():
        with journal.recorded(str(bench.pk), "edit", [p], "x"):
            Position.objects.filter(pk=p.pk).update(name="Half done")
            raise RuntimeError("the line dropped")

    with pytest.raises(RuntimeError):
        half()
    assert Position.objects.get(pk=p.pk).name == "Ready"
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

    from swapglow.records import translate

    call_command("load_demo")
    positions = list(Position.objects.select_related("rail"))
    assert len(positions) >= 6
    assert {p.stage for p in positions} == {"sizing", "trial", "fitted", "done"}
    reports = {p.name: translate.report(p, None, frozenset()) for p in positions}
    assert any(f.grade == "stop" for f in reports["Arc ready"].findings)
    [verdict] = reports["Shutter open"].verdicts
    assert verdict.agrees
    [verdict] = reports["Dial, left"].verdicts
    assert verdict.causes[0].id == "wrong-decade"
