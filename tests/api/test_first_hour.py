"""What a newcomer meets at the door: units asked, a rail on the way, earlier states, what goes into the holder."""

import itertools
import uuid

import pytest

from swapglow.records.models import Position, Rail, ReadingAfter, ReadingBefore
from tests.api.page import Bench

pytestmark = pytest.mark.django_db


@pytest.fixture
def bench():
    return Bench()


@pytest.fixture
def keys(bench):
    return bench.made()


@pytest.mark.parametrize(
    ("path", "fields", "field", "said"),
    [
        ("positions/{position}", {"rated": "20"}, "rated", '"20" of what? Write 20mA or 20A.'),
        ("positions/{position}", {"target": {"text": ".5"}}, "target", '".5" of what? Write .5mA or .5A.'),
        (
            "positions/{position}",
            {"module": {"amps": "45"}, "band": "10-15V"},
            "module.amps",
            '"45" of what? Write 45mA or 45A.',
        ),
        (
            "positions/{position}",
            {"driver_kind": "flasher", "driver_details": {"trip": {"text": "2"}}},
            "driver_details.trip",
            '"2" of what? Write 2mA or 2A.',
        ),
        (
            "positions/{position}",
            {"resistor": "222"},
            "resistor",
            '"222" may be 222\u00a0Ω, or a chip\'s mark for 2.2\u00a0kΩ: write 222R, or mark 222.',
        ),
        ("rails/{rail}", {"fuse": "2"}, "fuse", '"2" of what? Write 2mA or 2A.'),
    ],
)
def test_a_current_without_a_unit_is_asked_for_it_at_its_field(bench, keys, path, fields, field, said):
    status, answer = bench("PATCH", path.format(**keys), fields)
    assert (status, answer["errors"]) == (422, [{"field": field, "message": said}])
    assert bench("PATCH", path.format(**keys), {"name": "goes on"})[0] == 200


@pytest.mark.parametrize("text", ["yellow violet red gold", "mark 472", "4k7"])
def test_bands_and_a_chips_mark_are_a_resistor_as_well_as_its_value(bench, keys, text):
    """4.7 kΩ by IEC 60062."""
    answer = bench("PATCH", f"positions/{keys['position']}", {"resistor": text})[1]
    assert (answer["resistor"], answer["echo"]["resistor"]) == (text, "4.7\u00a0kΩ")
    worked = bench("POST", f"positions/{keys['position']}/assess", {"changes": {}})[1]
    assert worked["report"]["sizing"]["each"]["value"] == 4700


def test_what_was_kept_in_amps_before_stays_so(bench, keys):
    """A document of before says 0.5 where 500 mA were meant: nobody's figures are taken for others."""
    lamp = Position.objects.get(pk=keys["position"])
    lamp.join({"rated": "0.02"})
    lamp.save()
    answer = bench("PATCH", f"positions/{lamp.pk}", {"notes": "later"})[1]
    assert (answer["rated"], answer["echo"]["rated"]) == ("0.02", "20\u00a0mA")


@pytest.mark.parametrize(("text", "kept"), [("2.1", "2.1mA"), ("2.1mA", "2.1mA"), ("0.0021A", "0.0021A")])
def test_a_bare_reading_of_current_is_milliamps(bench, keys, text, kept):
    lamp = keys["position"]
    body = {"id": str(uuid.uuid4()), "what": "current", "text": text, "burden": "5R"}
    assert bench("POST", f"positions/{lamp}/reading", body)[0] == 204
    assert ReadingAfter.objects.get().input.text == kept
    before = {"position": lamp, "function": "dc_amps", "text": text}
    assert bench("PUT", f"readings/before/{uuid.uuid4()}", before)[0] == 200
    assert ReadingBefore.objects.get().input.text == kept
    assert bench("POST", "echo", {"text": text, "unit": "mA"})[1] == {"echo": "2.1\u00a0mA", "error": ""}


def test_a_first_lamp_brings_its_rail_along_in_pencil_and_only_once(bench):
    item, lamp = str(uuid.uuid4()), str(uuid.uuid4())
    bench("PUT", f"equipment/{item}", {"name": "Lantern"})
    made = {"equipment": item, "name": "Lamp 1", "led_id": "red-5-diffused", "target": {"text": "5mA"}}
    for _ in range(2):
        assert bench("PUT", f"positions/{lamp}", made)[0] == 200
    rail = Rail.objects.get()
    assert (rail.input.name, rail.input.usual.text, rail.input.usual.source) == ("Rail 1", "12V", "assumed")
    bench("PUT", f"positions/{uuid.uuid4()}", {**made, "name": "Lamp 2"})
    assert Rail.objects.count() == 1
    assert bench("PUT", f"positions/{uuid.uuid4()}", {**made, "rail": str(uuid.uuid4())})[0] == 422
    # One step: what it brought along goes with it.
    bench.undo(item)
    bench.undo(item)
    assert not Rail.objects.exists()


def test_a_lamp_goes_back_to_an_earlier_state_as_a_step(bench, keys):
    path = f"positions/{keys['position']}"
    for fields in ({"notes": "first"}, {"resistor": "4k7"}, {"notes": "second"}):
        assert bench("PATCH", path, fields)[0] == 200
    states = bench("GET", f"{path}/past")[1]["states"]
    assert [s["label"] for s in states] == [
        "edit Ready: notes",
        "edit Ready: resistor",
        "edit Ready: notes",
        "add Ready",
    ]
    assert [s["now"] for s in states] == [True, False, False, False]
    assert all(later["at"] >= sooner["at"] for later, sooner in itertools.pairwise(states))
    assert bench("POST", f"{path}/back", {"step": states[2]["step"]})[0] == 200
    kept = bench("GET", path)[1]
    assert (kept["position"]["notes"], kept["position"]["resistor"]) == ("first", "")
    assert kept["steps"]["undo"]["label"] == "go back to: edit Ready: notes"
    bench("POST", "undo", {"step": kept["steps"]["undo"]["id"]})
    again = bench("GET", path)[1]["position"]
    assert (again["notes"], again["resistor"]) == ("second", "4k7")
    assert bench("POST", f"{path}/back", {"step": 10**9})[0] == 422


def test_a_state_whose_rail_is_gone_is_not_gone_back_to(bench, keys):
    other = str(uuid.uuid4())
    bench("PUT", f"rails/{other}", {"equipment": keys["equipment"], "name": "B", "usual": {"text": "9V"}})
    path = f"positions/{keys['position']}"
    bench("PATCH", path, {"rail": other})
    first = bench("GET", f"{path}/past")[1]["states"][-1]["step"]
    bench("DELETE", f"rails/{keys['rail']}")
    status, answer = bench("POST", f"{path}/back", {"step": first})
    assert status == 422 and "rail that it was on then is gone" in answer["errors"][0]["message"]
    assert bench("GET", path)[1]["position"]["rail"] == other


def test_a_lamps_view_undoes_what_is_its_own(bench, keys):
    """Its fields, its rail and its readings; neither its making nor another lamp's."""
    second = str(uuid.uuid4())
    made = {"equipment": keys["equipment"], "name": "Second", "led_id": "red-5-diffused", "target": {"text": "5mA"}}
    bench("PUT", f"positions/{second}", made)
    first = f"positions/{keys['position']}"
    undo = lambda path: bench("GET", path)[1]["steps"]["undo"]  # noqa: E731 - one word for one question
    assert undo(first) is None and undo(f"positions/{second}") is None
    bench("PATCH", first, {"notes": "of the first"})
    assert undo(f"positions/{second}") is None and undo(first)["label"] == "edit Ready: notes"
    bench("PATCH", f"rails/{keys['rail']}", {"fuse": "1A"})
    assert undo(first)["label"] == undo(f"positions/{second}")["label"] == "edit Main: fuse"
    bench("POST", "undo", {"step": undo(first)["id"]})
    steps = bench("GET", first)[1]["steps"]
    assert (steps["undo"]["label"], steps["redo"]["label"]) == ("edit Ready: notes", "edit Main: fuse")


@pytest.mark.parametrize(
    ("fields", "goes_in"),
    [
        ({}, "leds"),
        ({"sweep": "1.9V 1mA\n2.0V 5mA\n2.1V 12mA"}, "leds"),
        ({"module": {"amps": "45mA"}, "band": "10-15V"}, "ready_made"),
        ({"sweep_strings": "3"}, "there"),
    ],
)
def test_what_goes_into_the_holder_follows_from_what_was_typed(bench, keys, fields, goes_in):
    answer = bench("PATCH", f"positions/{keys['position']}", fields)[1]
    assert answer["goes_in"] == goes_in
    empties = bench("GET", "catalogue")[1]["holders"][goes_in]["empties"]
    assert bench("PATCH", f"positions/{keys['position']}", empties)[1]["goes_in"] == "leds"
