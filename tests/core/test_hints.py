"""Names and rails that speak for a second job raise the question by themselves (common practice)."""

import pytest

from swapglow.core.assess import assess
from swapglow.core.design.changes import with_changes
from swapglow.core.intake.hints import hints_of
from swapglow.core.search import search
from tests.core.supplies import lamp, on


@pytest.mark.parametrize(
    ("name", "supply", "job", "asks"),
    [
        ("Charge warning", "vehicle", "charge", True),
        ("Ignition light", "vehicle", "charge", True),
        ("No charge", "vehicle", "charge", True),
        ("Turn pilot", "vehicle", "two-feeds", True),
        ("Tell-tale, trailer", "vehicle", "two-feeds", True),
        ("Neon, mains on", "winding", "neon", True),
        ("Demister heater", "winding", "heat", True),
        ("Exciter lamp", "regulated", "infrared", True),
        ("Speed lamp", "stator", "magneto", False),
        ("Dial light", "vehicle", "dimmed", False),
        ("Battery level", "battery", "reading", False),
    ],
)
def test_what_a_name_and_a_rail_speak_for(name, supply, job, asks):
    first = hints_of(name, supply)[0]
    assert (first.job, first.asks) == (job, asks)


@pytest.mark.parametrize(
    ("name", "supply"),
    [
        ("Lamp", "vehicle"),
        ("Discharge", "vehicle"),
        ("Charge warning", "winding"),
        ("Dial light", "regulated"),
        ("Scale, left", "unregulated"),
    ],
)
def test_what_they_do_not_speak_for(name, supply):
    assert hints_of(name, supply) == ()


def test_a_charge_warning_lamp_gets_no_resistor_without_a_question():
    p = on("vehicle", "13V", low="12V", high="14.4V", name="Charge warning", **lamp("12V", "0.18A"))
    r = assess(p)
    (stop,) = [f for f in r.findings if f.id == "second-job"]
    assert stop.grade == "stop" and 'called "Charg"' in stop.figure
    assert r.duty.closed and r.duty.likely[0] == "Excites a generator: charge indicator"
    assert r.build[0].id == "stop"
    assert {s.id for s in search(p).swaps} <= {"as-is", "same-type", "leave"}
    for answer in ({"second_job": "none"}, {"second_job": "charge", "job_given_to": "100R 5W"}):
        answered = assess(with_changes(p, answer))
        assert not answered.duty.closed
        assert "second-job" not in {f.id for f in answered.findings}


def test_what_is_only_suggested_is_asked_and_leaves_the_swap_open():
    p = on("vehicle", "13V", low="12V", high="14.4V", name="Dial light")
    r = assess(p)
    (asked,) = [f for f in r.findings if f.id == "job-hinted"]
    assert asked.grade == "note" and not r.duty.closed
    (remedy,) = asked.remedies
    assert "job-hinted" not in {f.id for f in assess(with_changes(p, remedy.changes)).findings}
