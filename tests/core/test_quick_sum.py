"""The quick sum: what its rail says, a resistor that keeps to its limits, and nothing that can kill."""

import pytest

from swapglow.core.assess import assess
from swapglow.core.findings import verdict
from swapglow.core.quantities import InputError
from swapglow.core.quick_sum import quick_rail
from swapglow.core.search import search
from swapglow.inputs.position import PositionInput
from swapglow.inputs.quantity import Quantity
from swapglow.inputs.rail import RailInput
from swapglow.inputs.to_core import position_of
from tests.core.supplies import on


def quick(rail, target="5mA", **more):
    typed = PositionInput(led_id="red-5-diffused", target=Quantity(text=target), **more)
    return assess(position_of(typed, RailInput(kind=quick_rail(rail), usual=Quantity(text=rail))))


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        ("24V", "regulated"),
        ("12.0-14.4V", "regulated"),
        ("12.6Vac", "winding"),
        ("48Vac", "winding"),
        ("119Vdc", "regulated"),
    ],
)
def test_a_rails_text_says_what_feeds_it(text, kind):
    assert quick_rail(text) == kind


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("mains", "qualified people only"),
        ("240V mains", "qualified people only"),
        ("51Vac", "is mains work"),
        ("120Vac", "is mains work"),
        ("120V", "Write 120Vdc, or 120Vac"),
        ("121Vdc", "is high tension"),
        ("x", "is not a voltage"),
    ],
)
def test_what_it_cannot_sum_it_asks_or_refuses(text, says):
    """Extra-low voltage ends at 50 V AC and 120 V DC (IEC 61140, from memory)."""
    with pytest.raises(InputError, match=says) as refused:
        quick_rail(text)
    assert refused.value.field == "usual"


@pytest.mark.parametrize("rail", ["10-15V", "12-14.4V", "12Vac", "9V"])
def test_a_limit_that_the_wish_breaks_is_named_with_a_press_for_either_way(rail):
    """Half of rated at the highest rail (common practice): the figure, and a resistor that keeps to it."""
    report = quick(rail, "19mA")
    over = next(f for f in report.findings if f.id in ("over-drive-ceiling", "over-rated-current"))
    assert over.figure and over.limit
    larger = next(r for r in over.remedies if "resistor_ohm" in r.changes)
    assert larger.changes["resistor_ohm"] > report.sizing.each.value


def test_the_wish_is_met_and_the_sizing_is_a_lamps_own():
    """10.2 V, red of 2.2 V at 19 mA, E12 next up: 470 ohm (common practice, by Ohm)."""
    report = quick("10.2V", "19mA", vf=Quantity(text="2.2V"), series="E12")
    assert report.sizing.each.value == 470
    # 8 V over 470 ohm is 17 mA; the LED's own curve moves it a little.
    assert report.current.usual.value == pytest.approx(17e-3, rel=0.02)


def test_strings_change_total_fuse_and_heat():
    """One string of 5 mA: a 32 mA fuse, loaded to three quarters (common practice). Twelve: 60 mA, 80 mA."""
    one, three = quick("12V"), quick("12V", branches=3)
    assert three.current.lamp.value == pytest.approx(3 * one.current.lamp.value)
    assert one.current.fuse.value == pytest.approx(0.032)
    twelve = quick("12V", branches=12)
    most = twelve.current.supply.value
    assert twelve.current.fuse.value * 0.75 >= most
    assert twelve.current.fuse.value == 0.08 and most == pytest.approx(12 * 5.3e-3, rel=0.1)


def test_several_strings_are_summed_together():
    one, three = quick("12V"), quick("12V", branches=3)
    assert three.current.lamp.value == pytest.approx(3 * one.current.lamp.value)
    assert three.sizing.each.value == one.sizing.each.value


def test_a_bare_number_for_a_drive_asks_what_it_is():
    with pytest.raises(InputError, match="Write 20mA or 20A"):
        quick("12V", "20")
    assert quick("12V", ".005").current.usual.value == pytest.approx(5e-3, rel=0.1)


@pytest.mark.parametrize("volts", ["230Vac", "60Vac"])
def test_nothing_live_is_asked_and_no_crest_held_past_extra_low_voltage(volts):
    p = on("winding", volts, target="4mA", led_id="warm-5-diffused")
    report = assess(p)
    assert report.next_step.id == "mains"
    assert report.survey.plan == ()
    assert not p.rectification.reservoir
    for f in report.findings:
        assert all("cap" not in r.changes.get("rectification_id", "") for r in f.remedies), f.id
    assert all("cap" not in s.changes.get("rectification_id", "") for s in search(p).swaps)


def test_a_caution_of_mains_stands_only_where_mains_may_be():
    assert "ains" not in assess(on("regulated", "12V", source="assumed")).next_step.caution
    assert "ains" in assess(on("winding", "12Vac", source="assumed")).next_step.caution


def test_what_one_place_says_of_the_frame_counts_in_the_other():
    """A common wire that is the chassis is the LED's negative on the frame (one fact)."""
    by_wire = on("winding", "12Vac", {"grounded": "yes"}, rectification="bridge", common="chassis")
    stop = next(f for f in verdict(by_wire) if f.id == "bridge-on-frame")
    assert stop.grade == "stop"
    (off,) = [
        r for f in assess(by_wire).findings if f.id == "bridge-on-frame" for r in f.remedies if r.id == "off-frame"
    ]
    assert dict(off.changes) == {"chassis_negative": False, "common": "none"}
