"""Photographs drawn from known light: encoded by colour-science (IEC 61966-2-1), with a camera's noise."""

import warnings

import numpy as np
from scipy import ndimage

with warnings.catch_warnings():
    warnings.simplefilter("ignore")
    import colour

WIDE, HIGH = 900, 600
# A filament's and a white LED's light on a camera's channels (invented).
AMBER, WHITE = (1.0, 0.62, 0.28), (0.9, 0.95, 1.0)


def encoded(light, seed=1):
    """Linear light (rows, columns, 3) as a camera's bytes, with noise."""
    noisy = light + np.random.default_rng(seed).normal(0, 0.001, light.shape)
    return np.round(colour.cctf_encoding(np.clip(noisy, 0, 1), "sRGB") * 255).astype(np.uint8)


def two_lamps(old, new, tints=((1, 1, 1), (1, 1, 1)), r=70, ground=0.004):
    """Two even discs of so much light on a dark ground, the old one on the left."""
    light = np.full((HIGH, WIDE, 3), ground)
    y, x = np.ogrid[:HIGH, :WIDE]
    for at, level, tint in zip((260, 640), (old, new), tints, strict=True):
        light[np.hypot(x - at, y - 300) < r] += level * np.array(tint)
    return encoded(light)


def swept(hertz, duty, shutter_s, bow=20, thick=9):
    """A lamp's image drawn along a bow by a hand that is slower at its ends."""
    share = np.linspace(0, 1, 20_000)
    on = (share * shutter_s * hertz) % 1 < duty
    x = 80 + 740 * (share + 0.1 * np.sin(2 * np.pi * share) / (2 * np.pi))
    y = 300 + bow * np.sin(np.pi * share)
    light = np.zeros((HIGH, WIDE))
    np.add.at(light, (y[on].astype(int), x[on].astype(int)), 1.0)
    at = np.arange(-thick // 2, thick // 2 + 1)
    light = ndimage.convolve(light, (np.hypot(at, at[:, None]) <= thick / 2).astype(float))
    light *= 0.6 / np.percentile(light[light > 0], 90)
    return encoded(np.repeat(light[:, :, None], 3, axis=2) + 0.002)
