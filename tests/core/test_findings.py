"""Findings appear where they should, and every remedy that is offered clears what it is for."""

import dataclasses

import pytest

from swapglow.core.assess import assess
from swapglow.core.design.changes import with_changes
from swapglow.core.design.position import Position
from swapglow.core.parts import lamp, led
from swapglow.core.quantities import Figure, InputError, Source
from swapglow.core.supplies.rail import Rail


def position(low, usual, high, kind="red-5-diffused", target=5e-3, **rest):
    rail = Rail(*(Figure(v, Source.MEASURED) for v in (low, usual, high)))
    return Position(rail, led.catalogue()[kind], Figure(target), **rest)


def ids(p):
    return {f.id for f in assess(p).findings}


CASES = [
    ("over-rated-current", position(11, 13, 16, target=0.02, ceiling=1.0)),
    ("over-drive-ceiling", position(13, 14, 15, target=0.014)),
    ("headroom-small", position(10.2, 10.5, 10.9, kind="blue-5-clear", in_series=3, target=4e-3)),
    ("will-not-light", position(5.5, 12, 13, kind="blue-5-clear", in_series=3)),
    ("dim-at-lowest", position(8.2, 12, 13, kind="blue-5-clear", in_series=3)),
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
        next(f for f in assess(position(v, v, v, target=1e-3)).findings if f.id == "polarity") for v in (4.5, 9.0)
    )
    assert "may take" in low.message and "over its" in high.message


def test_the_drive_limit_can_be_raised_on_purpose():
    p = position(13, 14, 15, target=0.014)
    assert "over-drive-ceiling" in ids(p) and "over-drive-ceiling" not in ids(with_changes(p, {"ceiling": 1.0}))


@pytest.mark.parametrize("changes", [{"nonsense": 1}, {"led_id": "no such"}, {"in_series": 0}])
def test_changes_that_are_none_are_refused(changes):
    with pytest.raises(InputError):
        with_changes(position(11, 12, 13), changes)


@pytest.mark.parametrize(
    "values", [(0, 1, 2), (3, 2, 4), (1, 5, 4), (float("nan"), 1, 2)], ids=["zero", "low", "high", "nan"]
)
def test_a_rail_must_rise(values):
    with pytest.raises(InputError):
        Rail(*(Figure(v) for v in values))


def test_heat_beyond_every_part_is_a_stop():
    # A projector's power LED on a dropping resistor: the wrong tool (common practice).
    rail = Rail(*(Figure(v, Source.MEASURED) for v in (230.0, 240.0, 250.0)))
    big = led.with_range(led.catalogue()["white-5-clear"], 9.0, 10.0, 11.0, 1.0)
    p = Position(rail, big, Figure(0.4))
    found = next(f for f in assess(p).findings if f.id == "no-resistor-fits")
    assert found.grade == "stop"
    assert assess(p).power.to_fit is None


def test_lamp_volts_are_warned_to_rise_under_a_lighter_load():
    rail = Rail(*(Figure(v, Source.MEASURED) for v in (6.1, 6.3, 6.6)), read_at="lamp")
    p = Position(rail, led.catalogue()["warm-5-diffused"], Figure(4e-3), lamp=lamp.catalogue()["44"])
    assert "lamp-volts-will-rise" in ids(p)
    assert "lamp-volts-will-rise" not in ids(dataclasses.replace(p, lamp=None))


def test_one_value_for_a_rail_is_noted():
    rail = Rail(*(Figure(24.0, Source.MEASURED) for _ in range(3)), spread_known=False)
    p = Position(rail, led.catalogue()["red-5-diffused"], Figure(4e-3))
    note = next(f for f in assess(p).findings if f.id == "rail-swing-unknown")
    assert "22.8-25.2V" in note.why
