"""Drivers, added parts and swaps over HTTP, kept and undone."""

import pytest

from tests.api.page import Bench


@pytest.fixture
def bench(db):
    return Bench()


def report(bench, key, changes=None):
    status, answer = bench("POST", f"positions/{key}/assess", {"changes": changes or {}})
    assert status == 200, answer
    return answer["report"]


def test_details_are_kept_one_at_a_time_and_another_kind_keeps_them(bench):
    key = bench.made()["position"]
    path = f"positions/{key}"
    kept = {"keep_warm": {"text": "680R", "source": "marked"}}
    assert bench("PATCH", path, {"driver_kind": "low_side"})[0] == 200
    assert bench("PATCH", path, {"driver_details": kept})[0] == 200
    status, p = bench("PATCH", path, {"driver_details": {"leak": {"text": "5uA"}}})
    assert status == 200
    assert p["echo"]["driver_details.keep_warm"].replace("\u00a0", " ") == "680 Ω"
    assert set(p["driver_details"]) == {"keep_warm", "leak"}
    assert [m["id"] for m in report(bench, key)["snapshots"]] == ["now", "off"]
    assert bench("PATCH", path, {"driver_kind": "flasher"})[1]["driver_details"]["keep_warm"]["text"] == "680R"


def test_a_detail_that_does_not_read_is_refused_and_nothing_changes(bench):
    key = bench.made()["position"]
    bench("PATCH", f"positions/{key}", {"driver_kind": "low_side"})
    status, answer = bench("PATCH", f"positions/{key}", {"driver_details": {"keep_warm": {"text": "lots"}}})
    assert status == 422
    assert answer["errors"][0]["field"] == "keep_warm"
    assert bench("GET", f"positions/{key}")[1]["position"]["driver_details"] == {}


@pytest.mark.parametrize(
    ("driver", "changes"),
    [
        ("direct", {"shunt_ohm": 330.0, "shunt_across": "leds", "shunt_w": 0.5}),
        ("direct", {"series_diodes": 1}),
        ("direct", {"branches": 3}),
        ("direct", {"lead": "negative"}),
        ("direct", {"regulator_id": "adjustable-to92"}),
        ("direct", {"module_id": "wedge10-24"}),
        ("direct", {"target": 0.007, "ceiling": 1.0}),
        ("low_side", {"driver.keep_warm_ohm": None}),
        ("flasher", {"driver.monitors_current": 0}),
        ("series_lamps", {"driver.others_changed": 1, "in_series": 2}),
    ],
)
def test_a_change_tried_is_the_change_taken(bench, driver, changes):
    """The report of a change on trial is that of the record once it is taken."""
    keys = bench.made("24-27V")
    key = keys["position"]
    details = {"keep_warm": {"text": "4k7"}, "trip": {"text": "1A"}}
    asked = {"driver_kind": driver, "driver_details": details, "lamp_id": "slide-24"}
    assert bench("PATCH", f"positions/{key}", asked)[0] == 200
    tried = report(bench, key, changes)
    assert bench("POST", f"positions/{key}/take", {"changes": changes})[0] == 200
    kept = report(bench, key)
    for part in ("current", "power", "snapshots"):
        assert _values(kept[part]) == _values(tried[part]), part
    assert bench.undo(keys["equipment"])[0] == 200
    assert bench("GET", f"positions/{key}")[1]["position"]["driver_details"]["keep_warm"]["text"] == "4k7"


def _values(part):
    """All numbers of a report's part, to nine digits."""
    if isinstance(part, dict):
        return {k: _values(v) for k, v in part.items() if k not in ("origin", "source", "label", "detail")}
    if isinstance(part, list):
        return [_values(v) for v in part]
    return float(f"{part:.6g}") if isinstance(part, float) else part


def test_swaps_are_ranked_by_what_is_weighed_and_each_can_be_taken(bench):
    key = bench.made()["position"]
    assert bench("PATCH", f"positions/{key}", {"lamp_id": "slide-24", "weigh": {"heat": True, "life": True}})[0] == 200
    status, found = bench("GET", f"positions/{key}/swaps")
    assert status == 200
    assert found["asked"] == ["heat", "life"]
    assert found["weighed"] >= len(found["swaps"]) >= 4
    best = found["swaps"][0]
    assert best["best"]
    assert bench("POST", f"positions/{key}/take", {"changes": best["changes"]})[0] == 200
    assert report(bench, key)["current"]["usual"]["number"] == best["current"].split("\u00a0")[0]


def test_an_unknown_weight_and_an_unknown_regulator_are_refused(bench):
    key = bench.made()["position"]
    assert bench("PATCH", f"positions/{key}", {"weigh": ["price"]})[0] == 422
    status, answer = bench("PATCH", f"positions/{key}", {"regulator_id": "mystery"})
    assert (status, answer["errors"][0]["field"]) == (422, "regulator_id")


def test_a_ready_made_lamp_that_is_none_is_refused(bench):
    key = bench.made()["position"]
    for ask in ("take", "assess"):
        status, answer = bench("POST", f"positions/{key}/{ask}", {"changes": {"module_id": "moon"}})
        assert status == 422, ask
        assert "moon" in answer["errors"][0]["message"]


def test_the_text_for_a_simulator_follows_the_state(bench):
    key = bench.made()["position"]
    bench("PATCH", f"positions/{key}", {"driver_kind": "low_side"})
    on, off = (bench("GET", f"positions/{key}/spice?state={s}")[1]["text"] for s in ("on", "off"))
    assert "vdriver" in on.lower() and "qdriver" not in on.lower()
    assert "qdriver" in off.lower()
