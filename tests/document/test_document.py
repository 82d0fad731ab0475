"""The document on its own: its published schema, hostile files, and the command line's report."""

import contextlib
import json
import typing
import uuid
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import BaseModel

from swapglow.cli import main
from swapglow.core.measurement.reading_after import KINDS, SEEN, WHOSE
from swapglow.core.measurement.reading_before import FUNCTION_LABELS, LAMP, POINT_LABELS
from swapglow.document import readings_csv
from swapglow.document.model import VERSION, Document, Equipment, Position, Rail, schema
from swapglow.document.read import DocumentError, read_document

ROOT = Path(__file__).resolve().parents[2]
FIXTURES = ROOT / "tests" / "fixtures"


def made(**position):
    """A small document: one winding, one lamp."""
    rail = Rail(
        id=uuid.uuid4(),
        name="Bell",
        kind="winding",
        usual={"text": "8.2Vac", "source": "measured"},
        details={"hertz": {"text": "50Hz"}},
    )
    lamp = Position(
        id=uuid.uuid4(), rail=rail.id, name="Porch", led_id="red-5-diffused", target={"text": "3mA"}, **position
    )
    return Document(equipment=Equipment(id=uuid.uuid4(), name="Gate bell", rails=[rail], positions=[lamp]))


def text(document):
    return document.model_dump_json()


def refused(content):
    with pytest.raises(DocumentError) as caught:
        read_document(content)
    return dict(caught.value.problems)


def test_the_published_schema_is_that_of_the_code():
    kept = json.loads((ROOT / "docs/equipment-3.schema.json").read_text())
    assert kept == schema(), "run make schema"


def test_what_is_written_reads_back_the_same():
    document = made(rectification="bridge_cap", capacitor="100uF", notes="Ω and “quotes”\n")
    assert read_document(text(document)) == document
    assert read_document(("\ufeff" + text(document)).encode()) == document


@pytest.mark.parametrize(
    ("content", "place", "says"),
    [
        ("", "line 1, column 1", "not JSON"),
        ("{", "line 1", "not JSON"),
        ("[]", "format", "swapglow-equipment"),
        ('{"format": "other"}', "format", "swapglow-equipment"),
        ('{"format": "swapglow-equipment", "version": 9, "equipment": {}}', "version", "reads 1 to 3"),
        ('{"format": "swapglow-equipment", "version": 1, "equipment": {"name": NaN}}', "document", "NaN"),
        ('{"format": "swapglow-equipment", "version": 1}', "equipment", "required"),
        ("[" * 100_000, "document", "nested"),
        (b"\xff\xfe\xfa", "document", "UTF-8"),
        ('{"a": ' + "9" * 10_000 + "}", "document", "too long"),
    ],
)
def test_a_hostile_file_is_refused_with_place_and_reason(content, place, says):
    problems = refused(content)
    where, why = next(iter(problems.items()))
    assert where.startswith(place)
    assert says in why


@pytest.mark.parametrize(
    ("change", "place"),
    [
        (lambda e: e["positions"][0].update(rail=str(uuid.uuid4())), "equipment.positions.0.rail"),
        (lambda e: e["positions"].append(e["positions"][0]), "equipment.positions.1.id"),
        (lambda e: e["positions"][0].update(in_series=0), "equipment.positions.0.in_series"),
        (lambda e: e["positions"][0].update(ceiling=1e400), "document"),
        (lambda e: e["positions"][0].update(name="x" * 5000), "equipment.positions.0.name"),
        (lambda e: e["positions"][0].update(led_id="sun"), "equipment.positions.0.led_id"),
        (lambda e: e["rails"][0].update(usual={"text": "eight"}), "equipment.positions.0.usual"),
        (
            lambda e: e["positions"][0].update(
                readings_after=[{"id": str(uuid.uuid4()), "kind": "current", "text": "?"}]
            ),
            "equipment.positions.0.readings_after.0.text",
        ),
        (
            lambda e: e["positions"][0].update(
                readings_before=[{"id": str(uuid.uuid4()), "function": "ohms", "text": "-4"}]
            ),
            "equipment.positions.0.readings_before.0.text",
        ),
        (lambda e: e.update(id="../../etc"), "equipment.id"),
    ],
)
def test_a_wrong_figure_is_refused_where_it_stands(change, place):
    data = json.loads(text(made()))
    change(data["equipment"])
    assert place in refused(json.dumps(data, allow_nan=True))


@settings(max_examples=150, deadline=None)
@given(
    st.recursive(
        st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=20),
        lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.text(max_size=12), inner, max_size=4),
        max_leaves=25,
    )
)
def test_whatever_stands_in_the_equipment_it_is_refused_or_read(anything):
    content = json.dumps({"format": "swapglow-equipment", "version": 1, "equipment": anything})
    # Anything but a refusal or a document is a fault, and raises.
    with contextlib.suppress(DocumentError):
        assert read_document(content).equipment.name


# --- swapglow assess -------------------------------------------------------------------------


def test_assess_prints_the_report_of_the_screen(tmp_path, capsys):
    path = tmp_path / "gate.json"
    path.write_text(text(made(rectification="bridge_cap")))
    assert main(["assess", str(path), "--json"]) == 0
    answer = json.loads(capsys.readouterr().out)
    [row] = answer["positions"]
    assert answer["equipment"] == "Gate bell"
    assert row["report"]["cycle"]["rectification"] == "bridge_cap"
    assert main(["assess", str(path)]) == 0
    said = capsys.readouterr().out
    assert "Porch" in said
    assert row["report"]["current"]["usual"]["number"] in said
    assert "\u00a0" not in said


@pytest.mark.parametrize(
    ("content", "says"), [(b"{", "not JSON"), (b'{"format": "x"}', "format"), (None, "No such file")]
)
def test_assess_refuses_in_one_line(tmp_path, capsys, content, says):
    path = tmp_path / "bad.json"
    if content is not None:
        path.write_bytes(content)
    assert main(["assess", str(path)]) == 2
    out = capsys.readouterr()
    assert out.out == ""
    assert says in out.err
    assert out.err.count("\n") == 1


@pytest.mark.django_db
def test_the_command_line_and_the_api_report_alike(tmp_path, capsys):
    from swapglow.records import demo
    from swapglow.records.models import Equipment as Record
    from tests.api.page import Bench

    demo.load()
    bench = Bench()
    e = Record.objects.get(inputs__name="Dome hand paddle")
    path = tmp_path / "paddle.json"
    path.write_bytes(bench.raw(f"equipment/{e.pk}/document.json")[1])
    main(["assess", str(path), "--json"])
    [row] = json.loads(capsys.readouterr().out)["positions"]
    screen = bench("POST", f"positions/{row['id']}/assess", {})[1]["report"]
    # What lies in the drawer is the bench's, not the item's.
    for value in (*screen["rule"]["values"], *row["report"]["rule"]["values"]):
        value.pop("in_drawer")
    assert row["report"] == screen


def usual(model, found=None):
    """What stands in each field of a shape and of those in it where nobody wrote anything, by the shape's name."""
    found = {} if found is None else found
    if model.__name__ not in found:
        found[model.__name__] = {
            name: field.get_default(call_default_factory=True)
            for name, field in model.model_fields.items()
            if not field.is_required()
        }
        for field in model.model_fields.values():
            for inner in shapes(field.annotation):
                usual(inner, found)
    return found


def shapes(annotation):
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        yield annotation
    for inner in typing.get_args(annotation):
        yield from shapes(inner)


def test_what_a_code_leaves_out_never_changes_within_a_version():
    """A card printed today leaves out what is usual today.

    Who changes that makes a new version of documents, and lets ``versions.upgraded`` put in what was usual before.
    """
    kept = json.loads((FIXTURES / f"usual-{VERSION}.json").read_text("utf-8"))
    now = json.loads(json.dumps(usual(Equipment), default=lambda value: value.model_dump(mode="json")))
    for shape, fields in kept.items():
        for field, value in fields.items():
            assert now[shape].get(field, "gone") == value, f"{shape}.{field}"


@pytest.mark.parametrize("card", ["card-1.txt", "card-2.txt"])
def test_cards_that_were_printed_still_read(card):
    """The text of two cards, before and since the code carries its version, beside the file of the same lamp."""
    found = read_document((FIXTURES / card).read_bytes()).equipment
    file = read_document((FIXTURES / "equipment-1-summit.json").read_bytes()).equipment
    [lamp], was = found.positions, file.positions[0]
    ours = {"id", "rail", "readings_after", "readings_before"}
    assert lamp.model_dump(exclude=ours) == was.model_dump(exclude=ours)
    rail = next(r for r in file.rails if r.id == was.rail)
    assert found.rails[0].model_dump(exclude={"id"}) == rail.model_dump(exclude={"id"})
    assert [r.text for r in lamp.readings_after] == [r.text for r in was.readings_after]


def test_a_card_of_a_later_version_is_refused_with_a_sentence():
    text = (FIXTURES / "card-2.txt").read_text().replace(f"SWAPGLOW2:{VERSION}:", f"SWAPGLOW2:{VERSION + 1}:")
    with pytest.raises(DocumentError, match="written by a later version of Swap Glow"):
        read_document(text)


def test_the_page_on_formats_names_every_value_that_a_line_of_readings_may_carry():
    page = (ROOT / "docs/formats.md").read_text()
    heading = ",".join((*readings_csv.HEADING, *readings_csv.KEYS, *(c.heading for c in readings_csv.MORE)))
    assert f"`{heading}`" in page
    rows = {line.split("|")[1].strip(): line for line in page.splitlines() if line.startswith("| `")}
    for column, values in (
        ("`function`", (*FUNCTION_LABELS, *KINDS)),
        ("`points`", POINT_LABELS),
        ("`old lamp`", LAMP),
        ("`whose`", WHOSE),
        ("`reading`", SEEN),
    ):
        assert [v for v in values if f"`{v}`" not in rows[column]] == []
