"""Preferred values against IEC 60063 as the ``eseries`` package tabulates it; ratings by common practice."""

import eseries
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from swapglow.core.parts import resistor
from swapglow.core.values import preferred


@pytest.mark.parametrize("series", preferred.SERIES)
def test_series_are_those_of_iec_60063(series):
    assert list(preferred.decade(series)) == list(eseries.series(eseries.ESeries[series]))


@pytest.mark.parametrize("series", preferred.SERIES)
def test_every_decade_repeats_the_series(series):
    theirs = list(eseries.erange(eseries.ESeries[series], 0.1, 9.99e6))
    assert preferred.values(series, 0.1, 9.99e6) == pytest.approx(np.array(theirs), rel=1e-12)


# Six figures: eseries compares floats exactly, we let a value stand for itself within 1e-9.
@given(st.floats(0.1, 9e6).map(lambda v: float(f"{v:.6g}")), st.sampled_from(preferred.SERIES))
def test_next_up_and_nearest_agree_with_eseries(ohms, series):
    key = eseries.ESeries[series]
    assert preferred.prefer(ohms, series, "up") == pytest.approx(
        eseries.find_greater_than_or_equal(key, ohms), rel=1e-9
    )
    nearest = preferred.prefer(ohms, series, "nearest")
    theirs = eseries.find_nearest(key, ohms)
    # Halfway between two values either is nearest.
    assert abs(nearest - ohms) == pytest.approx(abs(theirs - ohms), rel=1e-9, abs=1e-9)


def test_a_value_of_the_series_stays():
    assert preferred.prefer(470.0000001, "E12", "up") == 470
    assert preferred.prefer(50, "E12", "nearest") == 47


@pytest.mark.parametrize("bad", [0, -1, float("nan"), float("inf"), 1e13])
def test_no_preferred_value_for_nonsense(bad):
    with pytest.raises(preferred.SeriesError):
        preferred.prefer(bad)


@pytest.mark.parametrize(("watts", "fit"), [(0.34, 1), (0.09, 0.25), (0.4, 1), (0.0625, 0.125), (26, None)])
def test_rating_to_fit_runs_at_half_or_less(watts, fit):
    # Common practice: half the rating in a closed case. 0.4 W wants a 1 W part.
    assert resistor.rating_to_fit(watts, 0) == fit


def test_volts_and_air_decide_a_rating_too():
    """A half-watt body stands 350 V, a watt's 500 V (data sheets, from memory)."""
    assert resistor.rating_to_fit(0.2, 349) == 0.5
    assert resistor.rating_to_fit(0.2, 398) == 1
    # In air of 95 C a body takes (155 - 95) / 85 of its rating, of which half may be used: 0.088 W of a quarter watt.
    assert resistor.rating_to_fit(0.08, 0, 95) == 0.25
    assert resistor.rating_to_fit(0.1, 0, 95) == 0.5


def test_halves_are_preferred_values_of_their_own():
    assert resistor.halves(3600, "E12").first_ohm == 1800
