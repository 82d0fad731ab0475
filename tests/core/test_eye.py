"""What an eye wants, learnt from its verdicts: against drawn eyes, and the trade's steps (common practice)."""

from dataclasses import replace

import numpy as np
import pytest

from swapglow.core.analysis.solution import solve
from swapglow.core.analysis.trials import wanted
from swapglow.core.assess import Bench, assess
from swapglow.core.design.trial import Photographed, Trial
from swapglow.core.photometry.eye import DOUBT, HALF_STEP, believe, step_of
from tests.core.light import candela
from tests.core.supplies import lamp, on


class Eye:
    """An eye that wants some light, with a doubt of its own about where right ends."""

    def __init__(self, seed, spread):
        self.rng = np.random.default_rng(seed)
        self.wants = self.rng.normal(0, spread)

    def says(self, shown):
        off = shown - self.wants + self.rng.normal(0, DOUBT)
        return "bright" if off > HALF_STEP else "dim" if off < -HALF_STEP else "right"


def by_belief(eye, start, spread):
    seen, shown = [], start
    for k in range(1, 40):
        said = eye.says(shown)
        if said == "right":
            return k
        seen.append((shown, said))
        shown = believe(0.0, spread, seen).median
    return 40


def by_halving(eye, start):
    """By hand: twice or half, and half the step from the first turn on."""
    shown, step, before = start, 1.0, ""
    for k in range(1, 40):
        said = eye.says(shown)
        if said == "right":
            return k
        step = step / 2 if before and said != before else step
        before, shown = said, shown + (step if said == "dim" else -step)
    return 40


def test_it_takes_fewer_trials_than_halving_by_hand():
    """From an LED sixteen times what is expected, as by-the-book drive is: three hundred eyes each way."""
    ours = [by_belief(Eye(k, 2.0), 4.0, 2.0) for k in range(300)]
    hand = [by_halving(Eye(k, 2.0), 4.0) for k in range(300)]
    assert np.mean(ours) < 0.75 * np.mean(hand)
    assert np.percentile(ours, 95) <= 7


def test_what_is_believed_holds_what_is_wanted():
    """Nine in ten of three hundred eyes lie between the ends after three verdicts, as the ends say."""
    inside = 0
    for k in range(300):
        eye = Eye(k, 2.0)
        seen = []
        for _ in range(3):
            shown = believe(0.0, 2.0, seen).median
            seen.append((shown, eye.says(shown)))
        b = believe(0.0, 2.0, seen)
        inside += b.low <= eye.wants <= b.high
    assert 0.86 < inside / 300 < 0.94


def test_a_verdict_on_colour_says_nothing_of_light():
    assert believe(0, 1, [(3.0, "blue"), (1.0, "uneven")]) == believe(0, 1, [])


def test_values_that_looked_the_same_teach_the_step():
    """From memory 1.4 : 1 is hardly noticed (common practice): half an octave; 33 and 47 kΩ looked the same."""
    assert step_of([], []) == pytest.approx(0.5, rel=0.02)
    assert step_of([np.log2(47 / 33)] * 3, []) > 0.58
    assert step_of([], [0.3, 0.35]) < 0.4


PLACE = on("regulated", "12V", flat=True, vf="2V", resistor="1k", **lamp("12V", "0.05A", "0.02cd"))


def test_trials_are_light_by_their_resistors():
    """Each with the current its resistor lets through (Ohm), by the LED's own curve; too bright asks for more ohms."""
    found = wanted(solve(PLACE), [Trial(1000.0, "bright"), Trial(4700.0, "bright")], frozenset())
    for ohm, octaves in zip((1000, 4700), found.shown, strict=True):
        volts = 2.0
        for _ in range(60):
            amps = (12 - volts) / ohm
            volts = 2.0 + 1.9 * 0.025693 * np.log(amps / 0.02) + 0.14 * (amps / 0.02 - 1)
        assert 2**octaves == pytest.approx(candela(amps), rel=5e-3)
    assert found.ohm > 4700
    assert found.settled is None


def test_the_next_value_is_one_at_hand_that_was_not_tried():
    trials = [Trial(1000.0, "bright"), Trial(10e3, "dim")]
    free = wanted(solve(PLACE), trials, frozenset()).ohm
    assert 1000 < free < 10e3
    near = free * 1.08
    assert wanted(solve(PLACE), trials, frozenset({near, 1000.0})).ohm == near
    assert wanted(solve(PLACE), trials, frozenset({47.0})).ohm == free


def test_a_look_in_another_light_counts_for_nothing_here():
    dark = Trial(1000.0, "bright", room="dark")
    assert wanted(solve(PLACE), [dark], frozenset()) is None
    both = wanted(solve(PLACE), [dark, Trial(2200.0, "dim")], frozenset())
    assert both.shown[0] is None
    assert both.belief == wanted(solve(PLACE), [Trial(2200.0, "dim")], frozenset()).belief


def test_what_was_right_is_said_and_nothing_more_is_tried():
    report = assess(PLACE, Bench(trials=(Trial(1000.0, "bright", id="a"), Trial(3300.0, "right", id="b"))))
    assert report.trials.line == "3.3\u00a0kΩ was right in the workshop."
    assert report.trials.proposals == ()
    assert [(r.id, r.ohm, r.verdict) for r in report.trials.rows] == [
        ("a", "1\u00a0kΩ", "Too bright"),
        ("b", "3.3\u00a0kΩ", "Right"),
    ]
    assert report.trials.rows[0].lamp.lightness == 100 > report.trials.rows[1].lamp.lightness > 0


def test_without_a_trial_there_is_no_section():
    assert assess(PLACE).trials is None


def test_frosting_counts_in_what_was_shown():
    """A narrow LED frosted is dimmer on axis: the same resistor shows less."""
    clear = replace(PLACE, led=replace(PLACE.led, angle_deg=20))
    plain, frosted = (
        wanted(solve(clear), [Trial(1000.0, "bright", optics=o)], frozenset()).shown[0] for o in ("as-is", "frosted")
    )
    assert plain - frosted == pytest.approx(np.log2(12), abs=0.2)


def test_a_trial_with_another_led_shows_what_that_one_did():
    """The clear red gives 5 cd at 20 mA where the diffused gives 0.15 (table); their currents are all but the same."""
    own, other = (
        wanted(solve(PLACE), [Trial(1000.0, "bright", led_id=key)], frozenset()).shown[0]
        for key in ("red-5-diffused", "red-5-clear")
    )
    assert other - own == pytest.approx(np.log2(5 / 0.15), abs=0.1)


def test_more_light_is_never_sought_past_the_rating_or_the_trip_current():
    """Too dim again and again: 20 mA at the luckiest LED and the resistor's low end are the end (table, Ohm)."""
    trials = [Trial(r, "dim") for r in (1000.0, 820.0, 680.0, 620.0)]
    least = wanted(solve(PLACE), trials, frozenset({100.0})).ohm
    assert (12 - 2.0) / (least * 0.95) < 0.0201
    line = on("sense", "9V", {"source": "1k", "trip": "1.2mA"}, flat=True, vf="2V", target="0.3mA", resistor="24k")
    safe = wanted(solve(line), [Trial(24e3, "dim"), Trial(18e3, "dim")], frozenset()).ohm
    # Half of a trip current that is known by name alone (ours): 0.6 mA.
    assert (9 - 1.7) / (safe * 0.95 + 1000) < 0.62e-3


def test_a_trial_beyond_the_rule_is_solved_and_not_taken_for_its_end():
    """3.3 MΩ from 12 V carries 3 µA (Ohm, Shockley): a hundredth of what the rule's last value does, and less."""
    s = solve(PLACE)
    far, last = wanted(s, [Trial(3.3e6, "dim"), Trial(float(s.rule_ohm[-1]), "dim")], frozenset()).shown
    volts = 2.0
    for _ in range(60):
        amps = (12 - volts) / 3.3e6
        volts = 2.0 + 1.9 * 0.025693 * np.log(amps / 0.02) + 0.14 * (amps / 0.02 - 1)
    assert 2**far == pytest.approx(candela(amps), rel=0.01)
    assert far < last - 3


def test_a_trial_with_another_led_is_drawn_in_its_own_colour():
    """True green's hue lies far from red's (Oklab)."""
    trials = (Trial(1000.0, "bright", id="r"), Trial(1000.0, "bright", id="g", led_id="green-5-clear"))
    red, green = (row.lamp.hue for row in assess(PLACE, Bench(trials=trials)).trials.rows)
    assert int(red[1:3], 16) > 2 * int(red[3:5], 16)
    assert int(green[3:5], 16) > 2 * int(green[1:3], 16)


def test_verdicts_that_contradict_each_other_leave_a_belief_between_them():
    """Nothing that an eye may say leaves no belief at all: it is torn to the middle, or to the last place there is."""
    torn = believe(0.0, 1.5, [(15.0, "dim"), (-15.0, "bright")])
    assert torn.median == pytest.approx(0.0, abs=0.05)
    assert torn.low < torn.median < torn.high
    assert believe(0.0, 1.5, [(-18.0, "dim"), (0.0, "bright"), (0.0, "right")]).median == pytest.approx(-0.4, abs=0.1)
    assert 3.5 < step_of([9.0], [0.01]) < 4.0


OTHER = on("regulated", "24V", flat=True, vf="2V", resistor="2k2", **lamp("24V", "0.03A", "0.05cd"))


def beside(*trials, place=OTHER):
    return ((place, trials),)


def test_what_was_right_at_one_lamp_is_where_the_next_one_begins():
    """Right was a light of so many octaves beside its old lamp; here it is that much of this one's, by the curve."""
    ohm = 10_000.0
    right = np.log2(candela((24 - 1.9) / ohm) / 0.05)
    found = wanted(solve(PLACE), [], frozenset(), beside(Trial(ohm, "right")))
    assert found.others.lamps == 1
    # What is believed before, of both, draws it towards the old lamp: a third of the way at most.
    assert right - 0.1 < found.others.octaves < right * 0.66
    assert found.belief.median == pytest.approx(np.log2(0.02) + found.others.octaves, abs=0.02)
    report = assess(PLACE, Bench(others_tried=beside(Trial(ohm, "right")))).trials
    assert report.rows == ()
    assert report.line.startswith("By the other lamp tried here, it is to show about ")
    (begin,) = report.proposals
    assert begin.label == f"Begin with {report_text(found.ohm)}"
    assert begin.changes == {"resistor_ohm": found.ohm}


def report_text(ohm):
    return f"{ohm / 1000:g}\u00a0kΩ" if ohm >= 1000 else f"{ohm:g}\u00a0Ω"


def test_more_lamps_say_more_and_what_is_seen_here_counts_most():
    looks = (Trial(10_000.0, "right"),)
    one = wanted(solve(PLACE), [], frozenset(), ((OTHER, looks),)).others
    three = wanted(solve(PLACE), [], frozenset(), ((OTHER, looks),) * 3)
    assert (one.lamps, three.others.lamps) == (1, 3)
    assert three.others.spread < one.spread
    assert three.others.octaves == pytest.approx(one.octaves, abs=1e-9)
    here = wanted(solve(PLACE), [Trial(470.0, "dim")], frozenset(), ((OTHER, looks),) * 3)
    assert here.belief.median > three.belief.median + 1
    bench = Bench(trials=(Trial(470.0, "dim", id="a"),), others_tried=beside(*looks))
    assert assess(PLACE, bench).trials.line.startswith("In the workshop this eye wants about")


@pytest.mark.parametrize(
    "place",
    [
        replace(OTHER, looks=replace(OTHER.looks, how="window")),
        replace(OTHER, looks=replace(OTHER.looks, room="dark")),
        replace(OTHER, lamp=None),
    ],
)
def test_a_lamp_that_is_looked_at_otherwise_says_nothing_here(place):
    assert wanted(solve(PLACE), [], frozenset(), beside(Trial(10_000.0, "right"), place=place)) is None


def test_verdicts_on_colour_and_in_another_room_are_none_on_light():
    assert wanted(solve(PLACE), [], frozenset(), beside(Trial(10_000.0, "blue"))) is None
    assert wanted(solve(PLACE), [], frozenset(), beside(Trial(10_000.0, "right", room="dark"))) is None


def cool(**fields):
    return on(
        "regulated", "12V", vf="3V", resistor="2k2", led_id="white-5-clear", **lamp("12V", "0.05A", "0.02cd"), **fields
    )


def proposals(place, verdict):
    return assess(place, Bench(trials=(Trial(2200.0, verdict, id="a"),))).trials.proposals


def test_too_blue_asks_for_a_warmer_led_or_a_tint():
    """A filament of 2 400 K is nearer to a warm white LED than to a cool one (CCT, common practice)."""
    led, tint = proposals(cool(), "blue")
    assert (led.label, led.changes) == ("Use warm white 5 mm clear", {"led_id": "warm-5-clear"})
    # An orange glass would be nearer still, and colour it: past the filament's purity nothing is offered.
    assert (tint.label, tint.changes) == ("Put warm tint of lacquer or gel before it", {"looks.glass": "warm-tint"})


def test_a_coloured_led_has_no_warmer_one():
    (only,) = proposals(PLACE, "blue")
    assert only.changes.keys() == {"resistor_ohm"}


def test_uneven_asks_for_another_dome_and_white_walls():
    window = {"looks": {"how": "window", "width": "20mm", "height": "12mm", "depth": "8mm"}}
    found = proposals(cool(**window), "uneven")
    assert {"looks.optics": "frosted"} in [p.changes for p in found]
    assert {"looks.white_box": True} in [p.changes for p in found]
    seen = proposals(cool(), "uneven")
    assert [p.changes["looks.optics"] for p in seen] == ["frosted", "capped", "flattened"]
    (done,) = proposals(cool(looks={"optics": "frosted"}), "uneven")
    assert done.changes.keys() == {"resistor_ohm"}


def test_a_photographed_light_teaches_the_led_and_only_where_it_says_otherwise():
    """Twice what the figures say beside the old lamp: its light is twice as much."""
    one = assess(PLACE, Bench(trials=(Trial(1000.0, "bright", id="a"),))).trials.rows[0]
    figures = candela(0.010) / 0.02
    assert (one.photographed, one.taught) == ("", {})
    seen = Trial(1000.0, "bright", id="a", photographed=Photographed(2 * figures, 1.3))
    row = assess(PLACE, Bench(trials=(seen,))).trials.rows[0]
    assert row.taught["looks.trim"] == pytest.approx(2.0, rel=0.03)
    assert row.photographed.startswith(f"{2 * figures:.2g}"[:1])
    alike = replace(seen, photographed=Photographed(1.1 * figures, 1.3))
    assert assess(PLACE, Bench(trials=(alike,))).trials.rows[0].taught == {}
