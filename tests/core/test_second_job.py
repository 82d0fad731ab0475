"""What else a lamp does: cues that close the swap, lamps that are left, jobs that are given to a part.

The jobs and cues are common practice, or from memory where the table says so.
"""

from dataclasses import replace
from pathlib import Path

import pytest

from swapglow.core.assess import Bench, assess
from swapglow.core.intake.autopsy import DEATHS, SIGNS, weigh_deaths
from swapglow.core.intake.second_job import CHOICES, CUES, JOBS, duty_report, table, weigh_jobs
from swapglow.core.quantities import Source
from swapglow.core.search import search
from tests.core.supplies import on

LAMP = on("regulated", "12V", resistor="1k", lamp_id="own", lamp_volts="12V", lamp_amps="0.1A")


def found(p):
    return {f.id: f for f in assess(p).findings}


def test_a_lamp_that_only_shines_is_as_it_was():
    for p in (LAMP, replace(LAMP, purpose="see"), replace(LAMP, purpose="light"), replace(LAMP, second_job="none")):
        assert not {"second-job", "leave-it", "job-given", "job-given-to-none"} & set(found(p))
        assert not assess(p).duty.closed and assess(p).duty.line == ""
        assert len(search(p).swaps) > 2


@pytest.mark.parametrize("more", [{"purpose": "do"}, *({"cues": frozenset({c})} for c in CUES)])
def test_any_unexplained_cue_closes_swaps_and_rule(more):
    """Nothing is offered but to leave it; the next thing is no fitting, and what would settle it is said."""
    p = replace(LAMP, **more)
    report = assess(p)
    stop = found(p)["second-job"]
    assert stop.grade == "stop" and stop.message.endswith("fit the same type, or find out.")
    for cue in p.cues:
        assert CUES[cue].look in stop.why and CUES[cue].label in stop.figure
    assert report.duty.closed and "someone qualified" in report.duty.settle
    assert {s.id for s in search(p).swaps} == {"as-is", "leave"}
    assert not any(s.best and s.id == "as-is" for s in search(p).swaps)
    assert report.next_step.id == "second-job" and report.next_step.stops and report.next_step.reading is None
    assert [s.id for s in report.build] == ["stop"]
    # Looked into, and nothing found: open again.
    assert not assess(replace(p, second_job="none")).duty.closed


@pytest.mark.parametrize("job", [k for k, j in JOBS.items() if j.verdict == "leave"])
def test_a_lamp_that_must_stay_names_its_harm_and_what_can_be_done(job):
    p = replace(LAMP, cues=frozenset(JOBS[job].cues), second_job=job, job_given_to="a resistor")
    stop = found(p)["leave-it"]
    assert stop.grade == "stop" and JOBS[job].harm in stop.message and stop.why == JOBS[job].instead
    assert {s.id for s in search(p).swaps} == {"as-is", "leave"}


@pytest.mark.parametrize("job", [k for k, j in JOBS.items() if j.verdict == "part"])
def test_a_job_must_be_given_to_a_part(job):
    p = replace(LAMP, second_job=job)
    assert found(p)["job-given-to-none"].grade == "stop" and found(p)["job-given-to-none"].why == JOBS[job].instead
    assert {s.id for s in search(p).swaps} == {"as-is", "leave"}
    given = replace(p, job_given_to="100R 5W beside it")
    assert found(given)["job-given"].grade == "note" and "100R 5W beside it" in found(given)["job-given"].message
    assert not assess(given).duty.closed and len(search(given).swaps) > 2


def test_cues_speak_for_jobs_by_their_share():
    """A feedback lead, faint and hidden: all three of an amplitude lamp's; a photocell beside it: a sensor's one."""
    assert weigh_jobs({"feedback", "faint", "hidden"})[0].id == "amplitude"
    assert weigh_jobs({"sensor"})[0].id == "infrared"
    assert weigh_jobs({"magneto"})[0].id == "magneto" and weigh_jobs(set()) == ()
    assert duty_report("", {"two-electrodes"}, "", "").likely[0] == "Is a neon lamp"


@pytest.mark.parametrize(
    ("seen", "cause", "confirm"),
    [
        ("silvered", "Overvolted", "Rail at its highest"),
        ("black", "Worn out", "agrees with the lamp's rating"),
        ("milky", "Air got in", "seal"),
        ("bead", "Overvolted", "Rail at its highest"),
        ("broken", "Shaken", "mounted"),
    ],
)
def test_a_dead_lamp_says_what_it_died_of(seen, cause, confirm):
    """Silvered and a bead of overvoltage, milky of air, black of age, at its support of vibration (trade)."""
    first = assess(LAMP, Bench(dead=(seen,))).duty.died[0]
    assert first.startswith(cause) and confirm in first
    assert assess(LAMP).duty.died == ()


def test_signs_are_weighed_together_and_with_the_rail():
    """Bayes by hand: black alone is worn 0.5 · 0.7, of 0.35 + 0.03 + 0.02 + 0.005 + 0.0075."""
    assert weigh_deaths({"black"}, None)["worn"] == pytest.approx(0.35 / 0.4125)
    both = weigh_deaths({"silvered", "bead"}, None)
    assert next(iter(both)) == "over" and both["over"] == pytest.approx(
        0.054 / (0.005 + 0.054 + 0.025 + 0.00015 + 0.000225)
    )
    # 18 V read at a lamp of 12 V: five to two for the wrong type; 12 V clears it.
    over = weigh_deaths({"silvered"}, 1.5)
    assert next(iter(over)) == "wrong" and over["wrong"] / over["over"] == pytest.approx(0.05 * 5 / (0.09 * 2))
    assert weigh_deaths({"silvered"}, 1.0)["wrong"] < 0.1
    assert weigh_deaths({"silvered"}, 1.15) == weigh_deaths({"silvered"}, None) != weigh_deaths({"silvered"}, 1.05)
    assert sum(over.values()) == pytest.approx(1)
    wrong = on("regulated", "18V", resistor="1k", lamp_id="own", lamp_volts="12V", lamp_amps="0.1A")
    assert assess(wrong, Bench(dead=("bead",))).duty.died[0].startswith("A lamp of the wrong type")
    unread = replace(wrong, rail=replace(wrong.rail, usual=replace(wrong.rail.usual, source=Source.MARKED)))
    assert assess(unread, Bench(dead=("bead",))).duty.died[0].startswith("Overvolted")
    assert all(0 < x < 1 for sign in SIGNS.values() for x in sign.seen.values()) and set(DEATHS) == set(over)


def test_every_job_has_its_cues_harm_and_source():
    for j in JOBS.values():
        assert set(j.cues) <= set(CUES) and j.harm and j.instead
        assert j.source in ("common practice", "from memory") and j.verdict in ("leave", "part")
    assert set(CHOICES) == {"", "none", *JOBS}
    # The table in the docs is this one.
    text = Path("docs/second-jobs.md").read_text()
    for row in table():
        assert "| " + " | ".join(row) + " |" in text
