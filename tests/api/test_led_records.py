"""The bench's own LEDs: kept as typed, changed, taken back, and refused where they cannot be."""

import uuid

import pytest

from swapglow.inputs.stock import BenchLedInput
from swapglow.records.models import BenchLed
from tests.api.page import Bench

pytestmark = pytest.mark.django_db

BAG = {
    "name": "Bag from the north pier",
    "led_id": "warm-5-clear",
    "vf": {"text": "2.9-3.1V", "source": "measured", "note": "five of them"},
    "rated": "30mA",
    "led_light": "6cd",
    "led_light_at": "20mA",
    "led_angle": "25°",
    "led_output": "",
    "kept_in": "drawer 2",
    "level": "low",
    "count": 14,
    "least": 5,
    "pack": 50,
    "price": "4.00",
    "on_order": 50,
    "lot": "bag of May",
    "sweep": "",
    "sweep_in_series": "",
    "sweep_strings": "",
    "sweep_resistor": "",
}


def kept(bench, body=BAG):
    key = str(uuid.uuid4())
    return key, bench("PUT", f"leds/{key}", body)


def test_every_figure_is_kept_as_typed_and_read_in_a_line():
    bench = Bench()
    assert BAG.keys() == BenchLedInput.model_fields.keys()
    key, (status, answer) = kept(bench)
    assert status == 200
    assert {f: answer[f] for f in BAG} == BAG
    assert answer["line"] == "Warm white 5 mm clear, 2.9 to 3.1\u00a0V, 6\u00a0cd at 20\u00a0mA, 25°, up to 30\u00a0mA"
    assert bench("PUT", f"leds/{key}", {**BAG, "name": "Again"})[1]["name"] == BAG["name"]
    assert [led["id"] for led in bench("GET", "leds")[1]["leds"]] == [key]


def test_a_change_a_deletion_and_both_taken_back():
    bench = Bench()
    key, _ = kept(bench)
    assert bench("PATCH", f"leds/{key}", {"led_light": "4cd", "was": {"led_light": "6cd"}})[0] == 200
    assert bench("PATCH", f"leds/{key}", {"led_light": "3cd", "was": {"led_light": "6cd"}})[0] == 409
    assert BenchLed.objects.get().input.led_light == "4cd"
    assert bench("DELETE", f"leds/{key}")[0] == 204
    assert bench("GET", "leds")[1]["leds"] == []
    assert bench.undo("drawer")[0] == 200
    assert BenchLed.objects.get().input.led_light == "4cd"
    assert bench.undo("drawer")[0] == 200
    assert BenchLed.objects.get().input.led_light == "6cd"
    assert bench.undo("drawer")[0] == 200
    assert not BenchLed.objects.exists()
    assert bench.undo("drawer", "redo")[0] == 200
    assert BenchLed.objects.get().input.model_dump(mode="json") == BAG


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"rated": "20"}, "rated"),
        ({"led_light": "bright"}, "led_light"),
        ({"led_angle": "300°"}, "led_angle"),
        ({"vf": {"text": "lots"}}, "vf"),
        ({"led_id": "no-such"}, "led_id"),
    ],
)
def test_what_cannot_be_is_refused_at_its_field(change, field):
    bench = Bench()
    key, _ = kept(bench)
    for call in (("PATCH", f"leds/{key}", change), ("PUT", f"leds/{uuid.uuid4()}", {**BAG, **change})):
        status, answer = bench(*call)
        assert (status, answer["errors"][0]["field"]) == (422, field)
    assert BenchLed.objects.get().input.model_dump(mode="json") == BAG
    assert bench("PATCH", f"leds/{uuid.uuid4()}", {"rated": "20mA"})[0] == 404


def test_a_lamps_led_is_kept_with_the_figures_it_has_by_now():
    """Copied where they stand, not as a page last saw them; of a lamp that is gone there is none."""
    bench = Bench()
    keys = bench.made()
    typed = {
        "led_id": "red-5-clear",
        "led_light": "700mcd",
        "led_light_at": "10mA",
        "rated": "25mA",
        "name": "Gate lamp",
    }
    assert bench("PATCH", f"positions/{keys['position']}", typed)[0] == 200
    key = str(uuid.uuid4())
    for _ in range(2):
        status, answer = bench("PUT", f"leds/{key}/of/{keys['position']}")
        assert status == 200
        assert {f: answer[f] for f in typed} == {**typed, "name": "LED of Gate lamp"}
    assert BenchLed.objects.count() == 1
    assert bench("PUT", f"leds/{uuid.uuid4()}/of/{uuid.uuid4()}")[0] == 404
