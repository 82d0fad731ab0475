"""Lamps of one item teach each other, in every view, until the shop wants each by itself."""

import json

import pytest

from swapglow.records.models import Position
from tests.api.page import Bench

pytestmark = pytest.mark.django_db


@pytest.fixture
def pair():
    """A page, an item with two lamps of one LED on a 24 V rail, 4k7 each, and their keys."""
    bench = Bench()
    keys = bench.made("24V")
    other = "6f7d9a3c-2b1e-4c55-9a0e-8f1d2c3b4a59"
    lamp = {"equipment": keys["equipment"], "name": "Steady", "led_id": "red-5-diffused", "target": {"text": "4mA"}}
    assert bench("PUT", f"positions/{other}", lamp)[0] == 200
    for key in (keys["position"], other):
        assert bench("PATCH", f"positions/{key}", {"resistor": "4k7"})[0] == 200
    return bench, keys, other


def led_of(bench, key):
    stairs = bench("POST", f"positions/{key}/assess", {})[1]["report"]["snapshots"][0]["staircase"]["stairs"]
    return next(s for s in stairs if s["kind"] == "led")


def test_an_led_that_was_read_on_one_lamp_is_known_on_the_other(pair):
    bench, keys, other = pair
    plain = led_of(bench, other)
    assert plain["source"] == "assumed"
    assert bench("PATCH", f"positions/{keys['position']}", {"vf": {"text": "1.86V", "source": "measured"}})[0] == 200
    told = led_of(bench, other)
    assert told["source"] == "computed" and "as read on Ready" in told["detail"]
    # 0.14 V under the catalogue's, nine tenths of it: conjugate normal, part a third of the lot.
    assert plain["drop"]["usual"] - told["drop"]["usual"] == pytest.approx(0.126, abs=0.01)
    assert bench("PATCH", "shop", {"learns": "own"})[0] == 200
    assert led_of(bench, other) == plain


def test_what_is_seen_of_a_flasher_is_kept_with_what_was_fitted_then(pair):
    bench, keys, _ = pair
    key = keys["position"]
    flasher = {"driver_kind": "flasher", "lamp_id": "own", "lamp_volts": "24V", "lamp_amps": "0.9A"}
    assert bench("PATCH", f"positions/{key}", {**flasher, "shunt": "47R", "shunt_across": "assembly"})[0] == 200
    seen = {"driver_details": {"still_fast": {"text": "no", "source": "measured"}}}
    assert bench("PATCH", f"positions/{key}", seen)[0] == 200
    kept = Position.objects.get(pk=key).input.driver_details["still_fast"].fitted
    assert "shunt=47" in kept and "ohm=4700" in kept

    def missed():
        found = bench("POST", f"positions/{key}/assess", {})[1]["report"]["findings"]
        return [f["limit"] for f in found if f["id"] == "misses-current"]

    assert missed() == []
    assert bench("PATCH", f"positions/{key}", {"shunt": "150R"})[0] == 200
    # The 23.9 V that the flasher leaves, over 47 Ω, and the LED's 4.7 mA are enough; of 150 Ω nothing is known (Ohm).
    assert missed()[0].replace("\u00a0", " ") == "513 mA"
    # The note goes where the item goes.
    out = json.loads(bench.raw(f"equipment/{keys['equipment']}/document.json")[1])
    lamp = next(p for p in out["equipment"]["positions"] if p["id"] == key)
    assert lamp["driver_details"]["still_fast"]["fitted"] == kept
