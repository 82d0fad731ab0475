"""The bench day, its calendar, find, and what a job took, over the wire."""

import datetime

import pytest
import vobject

from swapglow.records import summaries
from swapglow.records.models import BenchLed, Equipment, Position, Rail, StockPart
from tests.api.page import Bench

pytestmark = pytest.mark.django_db
NINE = "begins=2031-05-20 09:00"


def day(bench, hours=8):
    status, answer = bench("GET", f"day?hours={hours}&{NINE}")
    assert status == 200, answer
    return answer


def lamps_of(answer):
    return {t["lamp"] for b in answer["blocks"] for t in b["tasks"]}


def test_a_lamp_waits_for_its_parts_and_is_in_the_day_once_they_are_there(demo):
    bench = Bench()
    StockPart.objects.all().delete()
    BenchLed.objects.all().delete()
    held = {h["lamp"]: h["why"] for h in day(bench)["held"]}
    assert held["Wind hold"].startswith("not in the drawer: ")
    needs = bench("POST", f"positions/{Position.objects.get(inputs__name='Wind hold').pk}/assess", {"changes": {}})[1]
    for n in needs["report"]["needs"]:
        kind = n["kind"]
        if kind == "led":
            bench("PUT", "leds/7d3c1f0a-0000-4000-8000-000000000001", {"name": "Bag", "led_id": n["of"]})
        else:
            value = {"resistance": f"{n['ohm']:g}R"} if n["ohm"] else {"name": n["label"]}
            bench("PUT", f"parts/7d3c1f0a-0000-4000-8000-0000000000{len(kind):02d}", {"kind": kind, **value})
    answer = day(bench)
    assert "Wind hold" in lamps_of(answer)
    # Its parts once out of the drawer, the drawer may be empty.
    p = Position.objects.get(inputs__name="Wind hold")
    bench("PATCH", f"positions/{p.pk}", {"steps": {"take": {"done": True}}})
    StockPart.objects.all().delete()
    assert "Wind hold" in lamps_of(day(bench))


def test_an_item_waits_for_its_owner_and_for_paint(demo):
    bench = Bench()
    p = Position.objects.get(inputs__name="Wind hold")
    bench("PATCH", f"positions/{p.pk}", {"steps": {"take": {"done": True}}})
    wait = {"what": "Owner asked", "until": "", "place": 0}
    bench("PATCH", f"equipment/{p.equipment_id}", {"waits": {"w1": wait}})
    assert {h["lamp"]: h["why"] for h in day(bench)["held"]}["Wind hold"] == "Owner asked"
    bench("PATCH", f"equipment/{p.equipment_id}", {"waits": {"w1": {**wait, "until": "2031-05-20 11:30"}}})
    first = min(t["at"] for b in day(bench)["blocks"] for t in b["tasks"] if t["lamp"] == "Wind hold")
    assert first >= "11:30"
    status, answer = bench("PATCH", f"equipment/{p.equipment_id}", {"waits": {"w1": {**wait, "until": "soon"}}})
    assert status == 422 and "2031-05-20 14:30" in answer["errors"][0]["message"]


def test_mains_and_what_is_forbidden_are_no_work_of_the_day(demo):
    bench = Bench()
    p = Position.objects.get(inputs__name="Wind hold")
    bench("PATCH", f"positions/{p.pk}", {"steps": {"take": {"done": True}}, "mains": True})
    assert "mains" in {h["lamp"]: h["why"] for h in day(bench)["held"]}["Wind hold"]
    bench("PATCH", f"positions/{p.pk}", {"mains": False, "resistor": "10R"})
    assert summaries.refresh()
    why = {h["lamp"]: h["why"] for h in day(bench)["held"]}["Wind hold"]
    assert why.startswith("Not yet: ")
    assert "Wind hold" not in {t["lamp"] for t in day(bench)["hot"]}


def test_minutes_written_at_steps_are_learnt(demo):
    bench = Bench()
    for p, minutes in zip(Position.objects.all()[:3], ("10", "1 h", "20 min"), strict=True):
        bench("PATCH", f"positions/{p.pk}", {"steps": {"soak": {"minutes": minutes}}})
    found = {d["label"]: d for d in day(bench)["durations"]}
    assert (found["Half an hour lit"]["minutes"], found["Half an hour lit"]["line"]) == (
        20,
        "median of 3 here, 15 to 40 min in the middle half",
    )
    assert found["Try on clips"]["line"].startswith("usual, ours")


def test_what_was_promised_is_late_after_its_day(demo):
    bench = Bench()
    e = Position.objects.get(inputs__name="Wind hold").equipment
    bench("PATCH", f"equipment/{e.pk}", {"promised": "2031-05-19"})
    assert day(bench)["late"] == [str(e)]
    bench("PATCH", f"equipment/{e.pk}", {"promised": "2031-05-20"})
    assert day(bench)["late"] == []
    assert bench("PATCH", f"equipment/{e.pk}", {"promised": "tomorrow"})[0] == 422


def test_the_calendar_is_read_by_another_reader(demo):
    """RFC 5545, read by vobject: the blocks of the day, at its times, with who is in them."""
    bench = Bench()
    shown = day(bench)
    status, content, headers = bench.raw(f"day.ics?hours=8&{NINE}")
    assert status == 200 and headers["Content-Type"].startswith("text/calendar")
    events = vobject.readOne(content.decode()).vevent_list
    assert len(events) == len(shown["blocks"]) > 1
    for event, block in zip(events, shown["blocks"], strict=True):
        assert f"{event.dtstart.value:%H:%M}" == block["start"] and f"{event.dtend.value:%H:%M}" == block["end"]
        assert event.dtstart.value.date() == datetime.date(2031, 5, 20)
        assert event.summary.value == f"{block['label']} ({len(block['tasks'])})"
        assert all(f"{t['item']}: {t['lamp']}" in event.description.value for t in block["tasks"])
    assert len({e.uid.value for e in events}) == len(events)


@pytest.mark.parametrize("query", ["hours=0", "hours=25", "hours=4&begins=soon"])
def test_hours_that_are_none_are_refused(query):
    assert Bench()("GET", f"day?{query}")[0] == 422


def found(bench, asked):
    return [(f["kind"], f["name"]) for f in bench("GET", f"find?asked={asked}")[1]["found"]]


def test_everything_is_found_by_words_and_values(demo):
    bench = Bench()
    p = Position.objects.get(inputs__name="Wind hold")
    ohm = p.summary.data["ohm"]
    volts = p.summary.data["volts"]
    assert ("lamp", "Wind hold") in found(bench, "wind hold")
    assert ("lamp", "Wind hold") in found(bench, f"{ohm:g}R at {volts:.3g} V")
    assert ("lamp", "Wind hold") not in found(bench, f"{ohm:g}R at {volts * 1.2:.3g}V")
    assert ("lamp", "Wind hold") not in found(bench, f"{ohm * 1.2:g}R")
    assert ("item", str(p.equipment)) in found(bench, str(p.equipment).lower())
    assert ("part", "3.9\u00a0kΩ, ¼ W, 5 %") in found(bench, "3k9")
    assert ("led", "Warm white, small bag") in found(bench, "small bag")
    assert found(bench, "nothing has this") == [] and found(bench, " ") == []
    # Values and words together: all of it must be met.
    assert ("lamp", "Wind hold") in found(bench, f"wind {ohm:g}R")
    assert ("lamp", "Wind hold") not in found(bench, f"porch {ohm:g}R")


def test_a_job_stands_beside_its_estimate_and_others_like_it(demo):
    bench = Bench()
    e = Position.objects.get(inputs__name="Wind hold").equipment
    others = Position.objects.exclude(equipment=e)[:3]
    for other, hours in zip(others, ("1 h", "2h", "4 h"), strict=True):
        bench("PATCH", f"positions/{other.pk}", {"hours": hours, "stage": "done"})
    for lamp in e.positions.all():
        bench("PATCH", f"positions/{lamp.pk}", {"hours": "", "cost": "", "steps": {"solder": {"minutes": ""}}})
    mine = e.positions.first()
    bench("PATCH", f"positions/{mine.pk}", {"hours": "1.5 h", "cost": "3.20"})
    sheet = Equipment.objects.get(pk=e.pk).take_in
    sheet["feasibility"] |= {"hours": "1", "price": "5"}
    Equipment.objects.filter(pk=e.pk).update(take_in=sheet)
    job = bench("GET", f"equipment/{e.pk}")[1]["job"]
    assert (job["hours"], job["price"]) == ("1.5 h", "3.20")
    assert job["beside"] == "1.5 h of 1 h estimated, 50% over; 3.20 of 5.00 for parts."
    assert job["like"] == "3 lamps that are done took 2 h each, 1 to 4 h."


def test_a_bench_of_a_thousand_lamps_opens_finds_and_plans(bench_of_many):
    bench = Bench()
    items = bench("GET", "bench")[1]["equipment"]
    assert sum(len(e["positions"]) for e in items) == 1003
    assert found(bench, "lamp 1001") == [("lamp", "Lamp 1001")]
    assert day(bench)["line"].startswith("Nothing can be done now")
    assert bench("GET", "buying")[1]["left_out"][0] == "Pier: Lamp 0"


@pytest.fixture
def bench_of_many():
    """SQLite takes no expression a thousand deep, which is what asking for so many by their keys comes to."""
    e = Equipment.objects.create()
    e.join({"name": "Pier"})
    e.save()
    feed, lamp = Rail(equipment=e), Position(equipment=e)
    feed.join({})
    lamp.join({})
    rails = Rail.objects.bulk_create([Rail(equipment=e, inputs=feed.inputs) for _ in range(1003)])
    Position.objects.bulk_create(
        [
            Position(equipment=e, rail=rail, order=k, inputs={**lamp.inputs, "name": f"Lamp {k}"})
            for k, rail in enumerate(rails)
        ]
    )


@pytest.mark.parametrize("zone", ["Pacific/Kiritimati", "Etc/GMT+12", "", "Nowhere/Never", "../../etc/passwd"])
def test_a_day_begins_by_the_clock_of_the_browser(demo, zone):
    """Fourteen hours ahead of Greenwich, twelve behind it; a zone that is none counts as Greenwich here."""
    bench = Bench()
    bench.client.cookies["zone"] = zone
    there = {"Pacific/Kiritimati": 14, "Etc/GMT+12": -12}.get(zone, 0)
    wall = datetime.datetime.now(datetime.UTC).replace(tzinfo=None) + datetime.timedelta(hours=there)
    begins = datetime.datetime.strptime(bench("GET", "day?hours=8")[1]["begins"], "%Y-%m-%d %H:%M")
    # At the last whole five minutes, and a test may take some seconds.
    assert datetime.timedelta(0) <= wall - begins < datetime.timedelta(minutes=6)
