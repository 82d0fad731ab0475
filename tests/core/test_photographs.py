"""Photographs against the light they were drawn from, which the tool is not told."""

import math

import numpy as np
import pytest

from swapglow.core.photographs.linear import picture_of, xyz
from swapglow.core.photographs.streak import streak
from swapglow.core.photographs.two_in_one import Spot, two_in_one
from swapglow.core.presentation.photographs import streak_seen, two_seen
from swapglow.core.quantities import InputError
from tests.core.pictures import AMBER, HIGH, WHITE, WIDE, colour, encoded, swept, two_lamps


@pytest.mark.parametrize(("old", "new"), [(0.2, 0.55), (0.6, 0.06), (0.3, 0.3), (0.8, 0.01)])
def test_the_ratio_of_two_lamps_is_that_of_their_light(old, new):
    found = two_in_one(two_lamps(old, new))
    assert found.ratio == pytest.approx(new / old, rel=0.03)
    assert found.apart < 0.02
    assert found.first.evenness > 0.9 < found.second.evenness
    # A tone curve's doubt grows with the ratio; 12 % stay where they are equal (from memory, as beside the figure).
    assert math.log(found.doubt) == pytest.approx(math.hypot(0.12, 0.15 * math.log(new / old)), abs=0.06)


def test_the_circles_lie_on_the_lamps_of_one_size():
    old, new = two_in_one(two_lamps(0.2, 0.5)).spots
    assert (old.x * WIDE, old.y * WIDE) == (pytest.approx(260, abs=3), pytest.approx(300, abs=3))
    assert (new.x * WIDE, new.y * WIDE) == (pytest.approx(640, abs=3), pytest.approx(300, abs=3))
    assert 70 <= old.r * WIDE == new.r * WIDE <= 100


def test_by_hand_the_circles_may_change_places():
    picture = two_lamps(0.2, 0.5)
    old, new = Spot(260 / WIDE, 300 / WIDE, 0.1), Spot(640 / WIDE, 300 / WIDE, 0.1)
    assert two_in_one(picture, (old, new)).ratio == pytest.approx(2.5, rel=0.02)
    assert two_in_one(picture, (new, old)).ratio == pytest.approx(0.4, rel=0.02)


def test_colours_that_differ_widen_the_doubt_and_are_told():
    """Luminance by the weights of IEC 61966-2-1; the distance in Oklab is colour-science's."""
    found = two_in_one(two_lamps(0.5, 0.5, (AMBER, WHITE)))
    weights = (0.2126, 0.7152, 0.0722)
    assert found.ratio == pytest.approx(np.dot(weights, WHITE) / np.dot(weights, AMBER), rel=0.02)
    lab = [colour.XYZ_to_Oklab(xyz(np.array(tint))) for tint in (AMBER, WHITE)]
    a, b = (c[1:] / c[0] for c in lab)
    assert found.apart == pytest.approx(math.dist(a, b), rel=0.05)
    assert found.doubt > 1.3 > two_in_one(two_lamps(0.5, 0.5)).doubt
    said = two_seen(found)
    assert said.colours.startswith("Their colours differ")
    assert said.line == "1.4 × the old lamp (0.94 to 2.1)."


def test_linear_light_is_as_colour_science_has_it():
    tint = np.array([0.3, 0.5, 0.1])
    space = colour.RGB_COLOURSPACES["sRGB"]
    assert xyz(tint) == pytest.approx(space.matrix_RGB_to_XYZ @ tint, abs=1e-4)


def half_lit():
    light = np.full((HIGH, WIDE, 3), 0.002)
    y, x = np.ogrid[:HIGH, :WIDE]
    light[np.hypot(x - 260, y - 300) < 70] = 0.4
    light[(np.hypot(x - 640, y - 300) < 70) & (y < 300)] = 0.4
    light[(np.hypot(x - 640, y - 300) < 70) & (y >= 300)] = 0.2
    return encoded(light)


def test_evenness_is_the_dimmest_tenth_beside_the_mean():
    """Half at 0.4 and half at 0.2: 0.2 beside 0.3."""
    found = two_in_one(half_lit())
    assert found.second.evenness == pytest.approx(2 / 3, abs=0.02)
    assert two_seen(found).evenness.endswith("new 66 %.")


def test_a_clipped_lamp_is_refused_by_name():
    with pytest.raises(InputError, match=r"^The new lamp is clipped") as refused:
        two_in_one(two_lamps(0.3, 1.4))
    assert refused.value.field == "photo"
    with pytest.raises(InputError, match=r"^The old lamp is clipped"):
        two_in_one(two_lamps(1.4, 0.3))


def test_what_is_not_there_is_refused():
    with pytest.raises(InputError, match="No two lamps stand out"):
        two_in_one(encoded(np.full((HIGH, WIDE, 3), 0.01)))
    picture = two_lamps(0.2, 0.5)
    dark = Spot(0.5, 0.1, 0.03)
    with pytest.raises(InputError, match=r"^The new lamp is too dark"):
        two_in_one(picture, (Spot(260 / WIDE, 300 / WIDE, 0.09), dark))
    with pytest.raises(InputError, match="overlap") as refused:
        two_in_one(picture, (Spot(0.3, 0.3, 0.2), Spot(0.4, 0.3, 0.2)))
    assert refused.value.field == "spots"
    with pytest.raises(InputError):
        Spot(1.2, 0.3, 0.1)
    with pytest.raises(InputError, match="outside the photograph"):
        two_in_one(picture, (Spot(260 / WIDE, 300 / WIDE, 0.09), Spot(0.5, 3.0, 0.1)))


@pytest.mark.parametrize(
    ("hertz", "duty", "shutter_s"), [(100, 0.4, 0.125), (120, 0.5, 0.25), (50, 0.2, 0.25), (200, 0.6, 0.1)]
)
def test_dashes_within_the_shutter_are_the_frequency_and_their_length_the_duty(hertz, duty, shutter_s):
    """Geometry: so many periods lie within the time it was open."""
    found = streak(swept(hertz, duty, shutter_s), shutter_s)
    assert abs(found.dashes - hertz * shutter_s) <= 1
    assert (found.low, found.high) == ((found.dashes - 1) / shutter_s, (found.dashes + 1) / shutter_s)
    assert found.low <= hertz <= found.high
    assert found.hertz == found.dashes / shutter_s
    assert found.duty == pytest.approx(duty, abs=0.05)
    assert max(found.profile) > 0.9 and min(found.profile) < 0.1


def test_steady_light_is_a_line_and_three_dashes_say_nothing():
    steady = streak(swept(0.1, 1.0, 0.1), 0.1)
    assert (steady.dashes, steady.hertz, steady.duty) == (1, None, None)
    # A dash and its gap must each be as long as the lamp is thick: some 740 px, 10 px thick, in a tenth of a second.
    assert 300 < steady.up_to < 450
    assert streak_seen(steady).line == "One line without a gap: steady light."
    few = streak(swept(30, 0.5, 0.1), 0.1)
    assert (few.dashes, few.hertz) == (3, None)
    assert streak_seen(few).line == "3 dashes: too few to tell."


def test_a_streak_is_said_with_its_ends_and_the_limit_there():
    """Low-risk modulation at 104 Hz is 0.08 f = 8 % (IEEE 1789-2015)."""
    said = streak_seen(streak(swept(100, 0.4, 0.125), 0.125))
    assert said.line == "13 dashes: 104\u00a0Hz (96 to 112\u00a0Hz), lit 40 % of the time."
    assert "low-risk there is 8 %" in said.more


def test_no_streak_is_refused():
    with pytest.raises(InputError, match="No streak"):
        streak(encoded(np.full((HIGH, WIDE, 3), 0.01)), 0.1)
    with pytest.raises(InputError, match="a spot, or several spots"):
        streak(two_lamps(0.3, 0.3), 0.1)
    with pytest.raises(InputError) as refused:
        streak(swept(100, 0.4, 0.125), 0.0)
    assert refused.value.field == "shutter"


def test_bytes_are_a_picture_row_by_row():
    made = picture_of(bytes(range(18)), 3, 2)
    assert made.shape == (2, 3, 3)
    assert made[1, 0].tolist() == [9, 10, 11]
