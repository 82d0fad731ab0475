"""What is said of lamps that were damaged by a generator which knows nothing of what the app suspects.

Readings are the reference simulator's. A small sample of what ``make faults`` runs; docs/hands-on.md has its figures.
"""

import pytest

from scripts.fuzz.damaged import Damage, NoCase, case_of, is_right, names_of, read, shows, true_reading
from scripts.fuzz.faults import Told, calibration, one, shown
from swapglow.core.evidence.account import by_cause, known_by

# Every eighth is one of the fuzz's own documents, mostly none that anybody fits.
SEEDS = range(5001, 5019)


@pytest.fixture(scope="module")
def told():
    found = [one(seed) for seed in SEEDS]
    return [t for t in found if isinstance(t, Told)], [t for t in found if isinstance(t, str)]


def test_most_is_named_and_no_innocent_part_for_certain(told):
    cases, others = told
    assert len(cases) >= 3
    assert others.count("sound, and called so") >= 4
    wrong = [t for t in cases if t.done != "sound"]
    named = [any(right for _, _, right in t.said[-1]) for t in wrong]
    assert sum(named) >= 0.6 * len(named)
    last = [t.said[-1][0] for t in cases if t.said[-1]]
    assert not any(share > 0.95 and not right for _, share, right in last)
    assert "calibration error" in shown(cases)


def test_the_same_case_is_drawn_and_judged_alike_every_time():
    first, again = case_of(5089), case_of(5089)
    assert (first.done, first.gain, first.circuit) == (again.done, again.gain, again.circuit)
    reading = read(first, "current", "a"), read(again, "current", "a")
    assert reading[0].value == reading[1].value
    shares = [by_cause(known_by(c.s, (r,))) for c, r in zip((first, again), reading, strict=True)]
    assert shares[0] == shares[1]


def test_a_sound_lamp_reads_within_its_band_by_the_reference():
    """Its own current, by ngspice at the lamp's own luck, lies between the corners that the engine expects."""
    for seed in SEEDS:
        try:
            case = case_of(seed)
        except NoCase:
            continue
        if case.done or case.s.position.rail.usual.source.is_assumed:
            continue
        amps = true_reading(case, "current", "one")
        assert 0.85 * case.s.string_current_min < amps < 1.15 * case.s.string_current_max
        assert not shows(case)


def test_the_score_itself():
    """Nine of ten said with 0.9 and right are no error; all said with 0.9 and wrong are one of 0.9 (by definition)."""
    assert calibration([(0.9, True)] * 9 + [(0.9, False)])[0] == pytest.approx(0.0)
    assert calibration([(0.9, False)] * 5)[0] == pytest.approx(0.9)
    case = case_of(5089)
    case.done, case.slipped = (Damage("R1", "open", 1e10),), []
    assert is_right("R1-open", case) and is_right("R1-open+D1-short", case)
    assert not is_right("D1-open", case) and not is_right("sound", case)
    assert names_of(Damage("Dbridge3", "open"), 1e3) == {"Dbridge-open"}
