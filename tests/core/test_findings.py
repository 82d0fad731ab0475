"""Findings appear where they should, and every remedy that is offered clears what it is for."""

import dataclasses

import pytest

from swapglow.core.assess import assess
from swapglow.core.parts import lamp, led
from swapglow.core.position import Position, PositionError, Rail, with_changes
from swapglow.core.quantities import Figure, Source


def position(low, usual, high, kind="red-5-diffused", target=5e-3, **rest):
    rail = Rail(*(Figure(v, Source.MEASURED) for v in (low, usual, high)))
    return Position(rail, led.catalogue()[kind], Figure(target), **rest)


def ids(p):
    return {f.id for f in assess(p).findings}


CASES = [
    ("over-rated-current", position(11, 13, 16, target=0.02, ceiling=1.0)),
    ("over-drive-ceiling", position(13, 14, 15, target=0.014)),
    ("headroom-small", position(10.2, 10.5, 10.9, kind="blue-5-clear", in_series=3, target=4e-3)),
    ("will-not-light", position(7.5, 12, 13, kind="blue-5-clear", in_series=3)),
    ("resistor-over-half", position(33, 34, 35, target=6e-3, rating_w=0.25)),
    ("resistor-over-rating", position(33, 34, 35, target=9e-3, rating_w=0.25)),
    ("brighter-than-old", position(26, 27, 28, kind="green-5-clear", lamp=lamp.catalogue()["327"])),
    ("dimmer-than-old", position(13, 14, 15, lamp=lamp.catalogue()["1815"])),
]


@pytest.mark.parametrize(("finding", "p"), CASES, ids=[c[0] for c in CASES])
def test_each_remedy_clears_its_finding(finding, p):
    found = next(f for f in assess(p).findings if f.id == finding)
    assert found.figure and found.limit and found.why
    assert found.remedies, f"{finding} offers no remedy"
    for remedy in found.remedies:
        after = with_changes(p, remedy.changes)
        assert finding not in ids(after), f"{remedy.label} does not clear it"


def test_a_sound_position_has_only_its_polarity_note():
    assert ids(position(11, 12, 13, target=4e-3)) == {"polarity"}


def test_nothing_measured_is_said_until_a_reading_inks_it():
    p = position(11, 12, 13)
    pencilled = Rail(*(Figure(v, Source.ASSUMED) for v in (11, 12, 13)))
    assert "nothing-measured" in ids(dataclasses.replace(p, rail=pencilled))
    assert "nothing-measured" not in ids(p)


def test_reverse_is_judged_against_five_volts():
    # Common practice: through-hole parts are rated 5 V reverse.
    low, high = (
        next(f for f in assess(position(v, v, v, target=1e-3)).findings if f.id == "polarity")
        for v in (4.5, 9.0)
    )
    assert "may take" in low.message and "over its" in high.message


def test_the_drive_limit_can_be_raised_on_purpose():
    p = position(13, 14, 15, target=0.014)
    assert "over-drive-ceiling" in ids(p) and "over-drive-ceiling" not in ids(
        with_changes(p, {"ceiling": 1.0})
    )


@pytest.mark.parametrize("changes", [{"nonsense": 1}, {"led_id": "no such"}, {"in_series": 0}])
def test_changes_that_are_none_are_refused(changes):
    with pytest.raises(PositionError):
        with_changes(position(11, 12, 13), changes)


@pytest.mark.parametrize(
    "values", [(0, 1, 2), (3, 2, 4), (1, 5, 4), (float("nan"), 1, 2)], ids=["zero", "low", "high", "nan"]
)
def test_a_rail_must_rise(values):
    with pytest.raises(PositionError):
        Rail(*(Figure(v) for v in values))
