"""The front door: every way through its questions begins what can be begun, and every trouble leads somewhere.

What each answer should lead to is common practice: a lamp in series with a coil gets no resistor unwarned, and so on.
"""

import itertools

import pytest

from swapglow.core.circuits import CIRCUITS
from swapglow.core.drivers import DRIVERS
from swapglow.core.intake.front_door import STARTS, begun
from swapglow.core.intake.second_job import JOBS, unexplained
from swapglow.core.intake.troubles import TROUBLES
from swapglow.core.quantities import InputError
from swapglow.core.supplies import SUPPLIES
from swapglow.inputs.position import PositionInput


def ways():
    """Every start with every row of answers that its questions allow."""
    for start in STARTS.values():
        yield from ((start.id, way) for way in itertools.product(*([a.id for a in q.answers] for q in start.questions)))


def test_every_way_through_ends_in_something_that_exists_or_in_a_refusal_by_name():
    circuits, supplies = set(), set()
    for start, way in ways():
        ends = any(a.id in way and a.begins and a.begins.circuit for q in STARTS[start].questions for a in q.answers)
        if way and way[-1] == "neon" and not ends:
            with pytest.raises(InputError, match="fit the same type"):
                begun(start, way)
            continue
        _, made = begun(start, way)
        if made.what == "circuit":
            circuits.add(made.circuit)
            continue
        assert made.circuit == ""
        supplies.add(made.supply)
        typed = PositionInput.model_validate({"name": "x", "led_id": "red-5-diffused", **made.fields})
        assert typed.driver_kind in DRIVERS
    assert circuits <= set(CIRCUITS) and supplies - {""} <= set(SUPPLIES)
    # A second job's circuit is begun from its lamp; all others have a way in of their own.
    of_jobs = {c for j in JOBS.values() for c in j.circuits}
    assert set(CIRCUITS) - of_jobs <= circuits


@pytest.mark.parametrize(
    ("start", "answers", "what", "has"),
    [
        ("bulb", ["ac", "no"], "lamp", {"supply": "winding"}),
        ("vehicle", ["turn", "unknown"], "lamp", {"supply": "vehicle"}),
        ("model", ["digital"], "lamp", {"supply": "digital"}),
        ("there", ["resistor"], "dim", {}),
        ("there", [], "dim", {}),
        ("board", ["sense", "no"], "circuit", {"circuit": "sense_board"}),
        ("string", ["cut"], "circuit", {"circuit": "light_string"}),
        ("power", [], "circuit", {"circuit": "power_led"}),
        ("none", ["wire"], "circuit", {"circuit": "blind_clip"}),
    ],
)
def test_what_one_has_leads_to_what_works_it_out(start, answers, what, has):
    _, made = begun(start, answers)
    assert made.what == what
    assert {name: getattr(made, name) for name in has} == has


@pytest.mark.parametrize(
    "does", [a.id for a in STARTS["bulb"].questions[1].answers if a.id not in ("no", "unknown", "neon")]
)
def test_a_lamp_that_does_more_than_shine_is_closed_until_its_job_is_settled(does):
    _, made = begun("bulb", ["dc", does])
    job = made.fields.get("second_job", "")
    assert made.fields["purpose"] == "do"
    assert unexplained("do", (), job) if job == "" else JOBS[job].verdict in ("leave", "part")


@pytest.mark.parametrize(
    ("start", "answers", "field"),
    [("candle", [], "start"), ("bulb", ["steam"], "answers"), ("bulb", ["dc", "no", "no"], "answers")],
)
def test_what_is_no_answer_is_refused_with_those_that_are(start, answers, field):
    with pytest.raises(InputError) as refused:
        begun(start, answers)
    assert refused.value.field == field


def test_every_trouble_leads_somewhere_and_what_burns_is_switched_off_first():
    assert len(TROUBLES) == 12
    assert all(t.leads and t.first for t in TROUBLES.values())
    assert TROUBLES["hot"].first.startswith("Switch it off")
    assert "larger fuse" in TROUBLES["dies"].first
