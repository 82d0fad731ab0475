"""What else a lamp does: cues that close the swap, lamps that are left, jobs that are given to a part.

The jobs and cues are common practice, or from memory where the table says so.
"""

from dataclasses import replace
from pathlib import Path

import pytest

from swapglow.core.assess import Bench, assess
from swapglow.core.intake.second_job import AUTOPSY, CHOICES, CUES, JOBS, duty_report, table, weigh_jobs
from swapglow.core.search import search
from tests.core.supplies import on

LAMP = on("regulated", "12V", resistor="1k", lamp_id="own", lamp_volts="12V", lamp_amps="0.1A")


def found(p):
    return {f.id: f for f in assess(p).findings}


def test_a_lamp_that_only_shines_is_as_it_was():
    for p in (
        LAMP,
        replace(LAMP, purpose="see"),
        replace(LAMP, purpose="light"),
        replace(LAMP, second_job="none"),
    ):
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
    assert (
        found(p)["job-given-to-none"].grade == "stop"
        and found(p)["job-given-to-none"].why == JOBS[job].instead
    )
    assert {s.id for s in search(p).swaps} == {"as-is", "leave"}
    given = replace(p, job_given_to="100R 5W beside it")
    assert (
        found(given)["job-given"].grade == "note" and "100R 5W beside it" in found(given)["job-given"].message
    )
    assert not assess(given).duty.closed and len(search(given).swaps) > 2


def test_cues_speak_for_jobs_by_their_share():
    """A feedback lead, faint and hidden: all three of an amplitude lamp's; a photocell beside it: a sensor's one."""
    assert weigh_jobs({"feedback", "faint", "hidden"})[0].id == "amplitude"
    assert weigh_jobs({"sensor"})[0].id == "infrared"
    assert weigh_jobs({"magneto"})[0].id == "magneto" and weigh_jobs(set()) == ()
    assert duty_report("", {"two-electrodes"}, "", "", ()).likely[0] == "Is a neon lamp"


@pytest.mark.parametrize(("seen", "cause", "confirm"), [
    ("silvered", "Worn out", "agrees with the lamp's rating"), ("milky", "Air got in", "seal"),
    ("bead", "in a flash", "highest"), ("broken", "Shaken", "mounted"),
    ("black", "over its volts", "over the lamp's rating"),
])  # fmt: skip
def test_a_dead_lamp_says_what_it_died_of(seen, cause, confirm):
    (line,) = assess(LAMP, Bench(dead=(seen,))).duty.died
    assert cause in line and confirm in line
    assert len(AUTOPSY) == 5


def test_every_job_has_its_cues_harm_and_source():
    for j in JOBS.values():
        assert set(j.cues) <= set(CUES) and j.harm and j.instead
        assert j.source in ("common practice", "from memory") and j.verdict in ("leave", "part")
    assert set(CHOICES) == {"", "none", *JOBS}
    # The table in the docs is this one.
    text = Path("docs/second-jobs.md").read_text()
    for row in table():
        assert "| " + " | ".join(row) + " |" in text
