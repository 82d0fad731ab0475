"""Small dense systems by the batch: whatever the batch's size, what comes out solves what went in."""

import numpy as np
import pytest

from swapglow.core.engine.elimination import eliminate


def systems(unknowns, samples):
    """Systems of the kind a lamp's ports make: the identity plus resistances times conductances."""
    draw = np.random.default_rng(unknowns * 1000 + samples)
    a = np.eye(unknowns)[:, :, None] + draw.random((unknowns, unknowns, samples)) / unknowns
    return a, draw.random((unknowns, 2, samples))


@pytest.mark.parametrize("samples", [1, 40, 3000])
@pytest.mark.parametrize("unknowns", [1, 2, 5, 24])
def test_what_comes_out_solves_what_went_in(unknowns, samples):
    """By putting it back: a·x = b, to rounding (arithmetic)."""
    a, b = systems(unknowns, samples)
    x = eliminate(a.copy(), b.copy())
    assert x.shape == b.shape
    assert np.abs(np.einsum("ijs,jks->iks", a, x) - b).max() < 1e-12


@pytest.mark.parametrize("samples", [3, 3000])
def test_one_without_an_answer_costs_the_others_nothing(samples):
    a, b = systems(4, samples)
    a[:, :, 1] = 0.0
    with np.errstate(divide="ignore", invalid="ignore"):
        x = eliminate(a.copy(), b.copy())
    assert not np.isfinite(x[:, :, 1]).any()
    others = [k for k in range(samples) if k != 1]
    assert np.abs(np.einsum("ijs,jks->iks", a, x)[:, :, others] - b[:, :, others]).max() < 1e-12
