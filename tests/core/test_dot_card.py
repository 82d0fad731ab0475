"""The dot card: what each screen passes is its area without ink (geometry), counted by hand and in pixels."""

import re

import numpy as np
import pytest

from swapglow.core.photometry.dot_card import PITCH_MM, SCREENS, dot_card


@pytest.mark.parametrize("passes", SCREENS)
def test_a_screen_passes_what_it_says(passes):
    """Points on a fine grid over one cell of the printed pattern: which of them bear ink."""
    k = SCREENS.index(passes)
    cell = re.search(rf'<pattern id="s{k}" width="([0-9.]+)".*?</pattern>', dot_card())[0]
    r = float(re.search(r' r="([0-9.]+)"', cell)[1])
    dot_is_ink = cell.rindex("#000") > cell.rindex("#fff")
    at = (np.arange(400) + 0.5) / 400 * PITCH_MM - PITCH_MM / 2
    dot = np.hypot(*np.meshgrid(at, at)) <= r
    clear = 1 - dot.mean() if dot_is_ink else dot.mean()
    assert r <= PITCH_MM / 2
    assert clear == pytest.approx(passes, abs=0.002)


def test_the_page_is_a4_and_has_its_ruler():
    card = dot_card()
    assert 'width="210.0mm" height="297.0mm"' in card
    assert "h50m0 -3v6m-50 -6v6" in card
