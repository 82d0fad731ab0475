"""Ink and pencil, the next thing, and what a reading means."""

import dataclasses

import numpy as np
import pytest

from swapglow.core.analysis.solution import current, solve
from swapglow.core.assess import Bench, assess
from swapglow.core.design.changes import with_changes
from swapglow.core.design.position import Position
from swapglow.core.drivers import DRIVERS
from swapglow.core.drivers.driver import Driver
from swapglow.core.evidence.account import known_by
from swapglow.core.measurement.apply_reading import led_vf_text
from swapglow.core.measurement.reading_after import ReadingAfter
from swapglow.core.network.cases import Cases
from swapglow.core.parts import led
from swapglow.core.quantities import Figure, InputError, Source
from swapglow.core.supplies.rail import Rail
from swapglow.inputs.position import PositionInput
from swapglow.inputs.rail import RailInput
from swapglow.inputs.to_core import position_of
from tests.core.supplies import on


def keeps(volts, source=Source.ASSUMED):
    """A driver that keeps so many volts."""
    return Driver(DRIVERS.usual, Figure(volts, source))


def position(source=Source.MEASURED, **rest):
    rail = Rail(*(Figure(v, source) for v in (16.0, 17.5, 19.0)))
    given = {"driver": keeps(0.2, Source.MEASURED), **rest}
    return Position(rail, led.catalogue()["warm-5-diffused"], Figure(4e-3), **given)


def read(p, kind, value, burden=0.0):
    return assess(p, Bench((ReadingAfter("r", kind, value, burden),))).diagnoses[0]


def causes(p, kind, value, burden=0.0):
    """What would make such a reading, the likeliest first."""
    found = assess(p, Bench((ReadingAfter("r", kind, value, burden),))).trouble
    return [] if found is None else list(found.causes)


def test_the_first_thing_is_to_read_an_assumed_rail():
    step = assess(position(Source.ASSUMED)).next_step
    assert step.reading == "rail_usual" and "DC volts" in step.meter and "17.5" in step.expect


def test_the_next_reading_is_the_one_that_moves_the_current_most():
    p = position(led_source=Source.ASSUMED, driver=keeps(0.2))
    report = assess(dataclasses.replace(p, in_series=4))
    pencilled = [i for i in report.uncertainty.items if i.source.is_assumed]
    assert report.next_step.reading == pencilled[0].id == "led_vf"
    assert pencilled == sorted(pencilled, key=lambda i: -i.swing_a)


def test_ink_leaves_no_pencil():
    p = position(led_source=Source.MEASURED)
    assert assess(p).uncertainty.share == 0 and "measured or marked" in assess(p).uncertainty.line


@pytest.mark.parametrize(
    ("rest", "line"),
    [
        ({}, "20\u00a0mA. 3 figures assumed; none of them moves it."),
        ({"low": "11V", "high": "13V", "read_at": "lamp"}, "20\u00a0mA. Every figure behind it is measured or marked."),
    ],
)
def test_doubt_that_moves_nothing_is_said_to_move_nothing(rest, line):
    """A lamp that holds its own 20 mA draws them whatever the rail does within its band."""
    module = {"amps": "20mA", "law": "current", "polarised": "yes"}
    p = on("regulated", "12V", led_id="white-5-clear", band="9-15V", module=module, **rest)
    assert assess(p).uncertainty.line == line
    assert assess(p).uncertainty.share == 0


def test_a_reading_in_the_band_agrees():
    p = position()
    expected = assess(p).current.usual.value
    assert read(p, "current", expected).agrees
    assert causes(p, "current", expected) == []


def test_the_meters_burden_is_part_of_what_is_expected():
    p = position()
    assert read(p, "current", 1e-3, burden=500.0).expected.value < assess(p).current.usual.value


def fault(p, **change):
    """What a meter would show with a fault, by solving the faulty circuit."""
    s = solve(p)
    rail, vf, ohms = 17.5, p.led.vf_typ, s.sizing.total_ohm
    q = with_changes(p, change.pop("position", {}))
    case = {"rail": rail, "vf": q.led.vf_typ, "ohms": ohms, **change}
    return float(current(q, Cases(case["rail"], case["vf"], np.array([case["ohms"]]), q.drop_v))[0]), vf


def test_each_fault_is_named_from_the_reading_it_makes():
    # A read forward voltage narrows the band, so that one LED less falls outside it.
    p = position(in_series=4)
    p = dataclasses.replace(p, led=led.with_range(p.led, 3.05, 3.1, 3.15, 0.02))
    ohm = solve(p).sizing.total_ohm
    for change, cause in (
        ({"ohms": ohm * 10}, "R1-decade-up"),
        ({"ohms": ohm / 10}, "R1-decade-down"),
        ({"ohms": 470.0}, "R1-value"),
        ({"position": {"in_series": 3}}, "D1-count-less"),
        ({"rail": 14.5}, "rail-level"),
    ):
        amps, _ = fault(p, **change)
        assert not read(p, "current", amps).agrees
        known = known_by(solve(p), (ReadingAfter("r", "current", amps),))
        found = next(q for q in known.posteriors if q.of.id == cause)
        assert found.share > 0.04, f"{cause} is hardly likely at {amps}"
        assert found.usual[0] == pytest.approx(amps, rel=0.06)


def test_an_led_turned_round_reads_nothing_or_the_whole_rail():
    p = position()
    assert causes(p, "current", 0.0)[0].id == "D1-turned"
    assert causes(p, "led_volts", 17.3)[0].id == "D1-turned"
    assert "D1-short" in {c.id for c in causes(p, "led_volts", 0.0)}


def test_another_kind_of_led_is_named():
    p = dataclasses.replace(position(), rail=Rail(Figure(5.0), Figure(5.0), Figure(5.0)), driver=keeps(0.0))
    red = with_changes(p, {"led_id": "red-5-diffused"})
    amps = float(current(red, Cases(5.0, 2.0, np.array([solve(p).sizing.total_ohm])))[0])
    # Lime and red lie a tenth of a volt apart: they read the same, and are told as one cause.
    kind = next(c for c in causes(p, "current", amps) if c.id.startswith("D1-kind-"))
    assert "of about 2\u00a0V, not" in kind.message and "The readings would be the same if" in kind.message


def test_a_meters_own_resistance_is_named():
    p = dataclasses.replace(
        position(),
        rail=Rail(Figure(3.6), Figure(3.6), Figure(3.6)),
        target=Figure(8e-3),
        driver=keeps(0.0),
        resistor_ohm=47.0,
    )
    amps = float(current(p, Cases(3.6, p.led.vf_typ, np.array([47.0 + 120.0])))[0])
    narrow = dataclasses.replace(p, led=led.with_range(p.led, 3.09, 3.1, 3.11, 0.02))
    assert "meter-burden" in {c.id for c in causes(narrow, "current", amps)}


def test_a_forward_voltage_read_at_the_drive_is_kept_at_rated_current():
    p = position()
    at_drive = float(p.led.junction(3.0).volts(4e-3))
    assert float(led_vf_text(p, f"{at_drive:.6f}V").split("\u00a0")[0]) == pytest.approx(3.0, abs=1e-4)
    with pytest.raises(InputError, match="forward voltage"):
        led_vf_text(p, "0.1V")


@pytest.mark.parametrize(
    ("changes", "field", "says"),
    [
        ({"rail": {"usual": {"text": "6.3Vac"}}}, "usual", "This rail is DC"),
        ({"rail": {"usual": {"text": "12V"}, "low": {"text": "13V"}}}, "low", "above the usual"),
        ({"led_id": ""}, "led_id", "Pick an LED"),
        ({"target": {"text": ""}}, "target", "drive wanted"),
        ({"resistor": "-4R"}, "resistor", "0 Ω or more"),
        ({"shunt": "2GΩ"}, "shunt", "1 GΩ"),
        ({"capacitor": "2F"}, "capacitor", "1 nF and 1 F"),
        ({"regulator_id": "nine-volts"}, "regulator_id", "no regulator"),
        ({"vf": {"text": "2.4-1.9.1V"}}, "vf", "more than one decimal mark"),
    ],
)
def test_a_refusal_names_its_field(changes, field, says):
    good = {"rail": {"usual": {"text": "12V"}}, "led_id": "red-5-diffused", "target": {"text": "5mA"}}
    typed = {**good, **changes}
    rail = RailInput.model_validate(typed.pop("rail"))
    with pytest.raises(InputError, match=says) as refused:
        position_of(PositionInput.model_validate(typed), rail)
    assert refused.value.field == field
