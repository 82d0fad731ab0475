"""What the front door begins: made once, taken back in one step, found again by its words."""

import uuid

import pytest

from swapglow.core.intake.front_door import STARTS
from swapglow.records.models import Equipment, Position, Rail
from tests.api.page import Bench

pytestmark = pytest.mark.django_db


@pytest.fixture
def item():
    bench, key = Bench(), str(uuid.uuid4())
    assert bench("PUT", f"equipment/{key}", {"name": "Beacon hut"})[0] == 200
    return bench, key


def begin(bench, item, start, *answers, key=None):
    body = {"id": key or str(uuid.uuid4()), "start": start, "answers": list(answers)}
    return bench("POST", f"equipment/{item}/begin", body)


def test_every_way_through_begins_something_that_opens(item):
    bench, _ = item
    for start in STARTS.values():
        key = str(uuid.uuid4())
        assert bench("PUT", f"equipment/{key}", {"name": start.label})[0] == 200
        # Each answer once: what follows from one does not hang on the others.
        columns = [[a.id for a in q.answers if not a.refused] for q in start.questions]
        longest = max(map(len, columns), default=1)
        for way in ([c[k % len(c)] for c in columns] for k in range(longest)):
            status, made = begin(bench, key, start.id, *way)
            assert status == 200, (start.id, way, made)
            if made["what"] == "lamp":
                status, answer = bench("POST", f"positions/{made['id']}/assess", {})
                assert status == 200, (start.id, way, answer)
        view = bench("GET", f"equipment/{key}")[1]
        assert len(view["lights"]) == len(view["fitted"]) + len(view["dims"])
        # A rail of each kind, and not one for each lamp.
        kinds = [r.input.kind for r in Rail.objects.filter(equipment=key)]
        assert len(kinds) == len(set(kinds))


def test_sent_twice_it_is_made_once_and_one_step_takes_it_back(item):
    bench, item = item
    for start, answers, rows in (
        ("vehicle", ["turn", "unknown"], lambda: Position.objects.count()),
        ("power", [], lambda: len(Equipment.objects.get(pk=item).input.fitted)),
        ("there", ["resistor"], lambda: len(Equipment.objects.get(pk=item).input.dims)),
    ):
        before, key = rows(), str(uuid.uuid4())
        for _ in range(2):
            assert begin(bench, item, start, *answers, key=key)[0] == 200
        assert rows() == before + 1
        assert bench.undo(item)[0] == 200
        assert rows() == before


def test_a_turn_signal_hangs_on_a_flasher_and_a_vehicle(item):
    bench, key = item
    lamp = begin(bench, key, "vehicle", "turn", "unknown")[1]["id"]
    kept = Position.objects.get(pk=lamp)
    assert (kept.rail.input.kind, kept.input.driver_kind) == ("vehicle", "flasher")
    # A rail in pencil: nobody has read it.
    assert kept.rail.input.usual.source == "assumed"
    # A second one takes the rail that is there.
    other = begin(bench, key, "vehicle", "inside", "no")[1]["id"]
    assert Position.objects.get(pk=other).rail_id == kept.rail_id


def test_a_neon_lamp_is_refused_by_name_and_nothing_is_made(item):
    bench, key = item
    status, answer = begin(bench, key, "bulb", "ac", "neon")
    assert status == 422 and "fit the same type" in answer["errors"][0]["message"]
    assert Position.objects.count() == 0
    assert begin(bench, str(uuid.uuid4()), "bulb")[0] == 404


@pytest.mark.parametrize(
    ("word", "kind", "id_"),
    [
        ("hot", "trouble", "hot"),
        ("flicker", "trouble", "flicker"),
        ("life", "trouble", "dies"),
        ("string", "start", "string"),
        ("cut", "start", "string"),
        ("dimmer", "start", "there"),
        ("photo", "trouble", "uneven"),
    ],
)
def test_a_word_finds_the_way_in(item, word, kind, id_):
    bench, _ = item
    found = bench("GET", f"find?asked={word}")[1]["found"]
    assert (kind, id_) in {(f["kind"], f["id"]) for f in found}


def test_circuits_and_fitted_leds_are_lamps_of_their_item_on_the_bench_and_in_search(item):
    bench, key = item
    begin(bench, key, "power")
    begin(bench, key, "there")
    (row,) = bench("GET", "bench")[1]["equipment"]
    assert [(light["what"], light["name"]) for light in row["lights"]] == [
        ("circuit", "Power LED 1"),
        ("dim", "Fitted LED 2"),
    ]
    found = bench("GET", "find?asked=heat%20sink")[1]["found"]
    assert f"{key}/{row['lights'][0]['id']}" in {f["id"] for f in found}


def test_a_lamp_that_is_begun_takes_the_shops_habits(item):
    bench, key = item
    assert bench("PATCH", "shop", {"lead": "negative", "series": "E12"})[0] == 200
    lamp = begin(bench, key, "bulb")[1]["id"]
    kept = Position.objects.get(pk=lamp).input
    assert (kept.lead, kept.series) == ("negative", "E12")
