"""Databases and documents of earlier versions, brought to this one without a word lost."""

import json
import sqlite3
from contextlib import contextmanager
from pathlib import Path

import pytest
from django.core.management import call_command
from django.db import connections

from swapglow.document.read import read_document
from swapglow.inputs.to_core import position_of

FIXTURES = Path(__file__).resolve().parents[1] / "fixtures"


@contextmanager
def database(name, path, blocker):
    """A file as a database of Django's, by name."""
    connections.databases[name] = {**connections["default"].settings_dict, "NAME": str(path)}
    with blocker.unblock():
        yield sqlite3.connect(path)
        connections[name].close()
    del connections.databases[name]
    del connections[name]


@pytest.fixture
def old(tmp_path, django_db_blocker):
    """A database as the third migration left it, with two items and a step of the journal."""
    path = tmp_path / "old.sqlite3"
    with sqlite3.connect(path) as made:
        made.executescript((FIXTURES / "database-3.sql").read_text())
    with database("old", path, django_db_blocker) as found:
        yield found


@pytest.fixture
def new(tmp_path, django_db_blocker):
    """A database that is not made yet."""
    with database("new", tmp_path / "new.sqlite3", django_db_blocker) as found:
        yield found


def rows(database, sql):
    database.row_factory = sqlite3.Row
    return [dict(r) for r in database.execute(sql)]


def test_an_old_database_keeps_all_that_was_typed(old):
    before = {r["id"]: r for r in rows(old, "select * from records_position")}
    readings = rows(old, "select text from records_reading order by id")
    assert len(before) > 5
    call_command("migrate", database="old", verbosity=0)
    after = {r["id"]: json.loads(r["inputs"]) for r in rows(old, "select * from records_position")}
    assert after.keys() == before.keys()
    for key, typed in after.items():
        for name, value in typed.items():
            was = before[key][{"rectification": "treatment"}.get(name, name)]
            same = json.loads(was) if isinstance(value, dict | list) else was
            assert same == value, (key, name)
    kept = [json.loads(r["inputs"])["text"] for r in rows(old, "select * from records_readingafter order by id")]
    assert kept == [r["text"] for r in readings]


def shape(database):
    """Every table's columns and indexes, but for their order."""
    tables = rows(database, "select name from sqlite_master where type = 'table' and name like 'records_%'")
    found = {}
    for table in (t["name"] for t in tables):
        columns = rows(database, f"pragma table_info({table})")
        kept = rows(database, f"pragma index_list({table})")
        indexes = [[c["name"] for c in rows(database, f"pragma index_info({i['name']})")] for i in kept]
        found[table] = (
            sorted((c["name"], c["type"], c["notnull"], c["pk"]) for c in columns),
            sorted(zip(indexes, (i["unique"] for i in kept), strict=True)),
            sorted((k["table"], k["from"], k["to"]) for k in rows(database, f"pragma foreign_key_list({table})")),
        )
    return found


def test_an_old_database_becomes_what_a_new_one_is_made_as(old, new):
    call_command("migrate", database="old", verbosity=0)
    call_command("migrate", database="new", verbosity=0)
    assert len(shape(new)) == 23
    assert shape(old) == shape(new)
    call_command("makemigrations", check=True, verbosity=0)


def test_an_old_step_of_the_journal_can_still_be_taken_back(old):
    call_command("migrate", database="old", verbosity=0)
    [step] = rows(old, "select * from records_step")
    assert (step["kind"], step["reverted"]) == ("do", 0)
    after = rows(old, f"select * from records_historicalposition where step_id = {step['id']}")
    assert [json.loads(r["inputs"])["notes"] for r in after] == ["changed before the move"]
    before = rows(
        old,
        f"select * from records_historicalposition where id = '{after[0]['id']}'"
        f" and history_id < {after[0]['history_id']} order by history_id desc limit 1",
    )
    assert [(json.loads(r["inputs"])["notes"], r["step_id"]) for r in before] == [("", None)]


def test_every_old_record_has_a_row_of_history_to_begin_with(old):
    call_command("migrate", database="old", verbosity=0)
    for name in ("equipment", "rail", "position", "readingafter", "readingbefore", "stockpart"):
        without = rows(old, f"select id from records_{name} where id not in (select id from records_historical{name})")
        assert without == [], name


def test_an_old_take_in_sheet_is_found_under_its_new_name(old):
    call_command("migrate", database="old", verbosity=0)
    sheets = [json.loads(r["take_in"]) for r in rows(old, "select take_in from records_equipment")]
    hours = [s["feasibility"]["hours"] for s in sheets if s.get("feasibility", {}).get("hours")]
    assert hours == ["1.5"]
    assert all("worth" not in s for s in sheets)


@pytest.mark.parametrize("name", ["chart", "dome", "summit"])
def test_a_document_of_version_1_reads_and_loses_nothing(name):
    text = (FIXTURES / f"equipment-1-{name}.json").read_text()
    old, new = json.loads(text)["equipment"], read_document(text).equipment
    assert new.name == old["name"]
    rails = {r.id: r for r in new.rails}
    for was, p in zip(old["positions"], new.positions, strict=True):
        assert p.rectification == was["treatment"]
        assert [r.text for r in p.readings_after] == [r["text"] for r in was["readings"]]
        assert [r.text for r in p.readings_before] == [r["text"] for r in was["taken"]]
        same = set(was) & set(type(p).model_fields) - {"id", "rail"}
        plain = p.model_dump(mode="json")
        for k in same:
            # A part that has grown fields since keeps those it had.
            now = {f: plain[k][f] for f in was[k]} if k == "module" else plain[k]
            if k == "driver_details":
                now = {d: {f: now[d][f] for f in typed} for d, typed in was[k].items()}
            assert now == was[k], k
        assert position_of(p, rails[p.rail]).led.label
    assert new.take_in.feasibility.hours == old["take_in"]["worth"]["hours"]


def test_what_was_chosen_by_its_words_is_kept_by_its_id(old):
    call_command("migrate", "records", "0010", database="old", verbosity=0)
    (first, *_) = rows(old, "select id, inputs from records_equipment order by id")
    board = {"kind": "sense_board", "name": "Board", "chosen": "Clip the 91\u00a0Ω", "notes": "kept"}
    typed = {**json.loads(first["inputs"]), "fitted": {"b": board, "n": {"kind": "coil", "chosen": ""}}}
    old.execute("update records_equipment set inputs = ? where id = ?", [json.dumps(typed), first["id"]])
    old.commit()
    call_command("migrate", database="old", verbosity=0)
    after = {r["id"]: json.loads(r["inputs"]) for r in rows(old, "select id, inputs from records_equipment")}
    expected = {**typed, "fitted": {**typed["fitted"], "b": {**board, "chosen": "clip-91"}}}
    assert after[first["id"]] == expected
