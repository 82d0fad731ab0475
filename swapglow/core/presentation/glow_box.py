"""Section: how the lamps of a position look beside each other."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.original_lamp import lamp_candela, lamp_volts
from swapglow.core.design.position import Position
from swapglow.core.parts.led import Led
from swapglow.core.photometry import colour, spectrum
from swapglow.core.photometry.intensity import led_candela
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.photometry.words import ratio_text
from swapglow.core.quantities import CANDELA, Shown, Source, shown

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class GlowLamp:
    """A lamp as it looks in the glow box.

    ``colour`` is the lamp as seen against the brightest, ``hue`` its colour at full light.
    ``lightness`` is L* against the brightest lamp in the box; ``ratio_text`` compares intensity with the
    original lamp at the usual rail, or says where a lamp that should be dark is seen.
    """

    id: str
    label: str
    colour: str
    hue: str
    lightness: float
    ratio_text: str
    intensity: Shown


@lru_cache(maxsize=256)
def _led(part: Led) -> FloatArray:
    return colour.tristimulus(spectrum.led(part))


@lru_cache(maxsize=256)
def _filament(kelvin: int) -> FloatArray:
    return colour.tristimulus(spectrum.filament(kelvin))


@lru_cache(maxsize=256)
def _led_hue(part: Led) -> str:
    return colour.screen_colour(_led(part), 1.0)


@lru_cache(maxsize=256)
def _filament_hue(kelvin: int) -> str:
    return colour.screen_colour(_filament(kelvin), 1.0)


@lru_cache(maxsize=4096)
def _shade(part: Led, share: float) -> str:
    """The LED's colour on screen at a share of white."""
    return colour.screen_colour(_led(part), share)


def white_of(position: Position, amps: tuple[float, float, float]) -> float:
    """Intensity of the brightest lamp in the box while lit.

    Args:
        position: the swap.
        amps: current of one string at the low, usual and high rail, A.

    Returns:
        Candela.
    """
    return max(lamp_candela(position) or 0.0, *(led_candela(position, a) for a in amps), 1e-9)


def glow(position: Position, amps: tuple[float, float, float], *, white: float | None = None,
         lamp_v: float | None = None) -> tuple[GlowLamp, ...]:  # fmt: skip
    """The glow box: the old lamp, and the LED at the low, usual and high rail.

    White is the brightest lamp in the box; L* of the others is against it (CIE 1976).

    Args:
        position: the swap.
        amps: forward current at the low, usual and high rail.
        white: what counts as white, cd, where the box is that of a lamp which should be dark; each
            then says where it is seen.
        lamp_v: volts over the old lamp there.

    Returns:
        The lamps from left to right.
    """
    dark = white is not None
    old = lamp_candela(position)
    if dark and position.lamp is not None:
        old = position.lamp.candela_at(lamp_v or 0.0)
    cds = [led_candela(position, a) for a in amps]
    white = white or max([*cds, old or 0.0, 1e-9])
    out: list[GlowLamp] = []
    lamp = position.lamp
    if lamp is not None and old is not None:
        volts = (lamp_v or 0.0) if dark else lamp_volts(position)
        kelvin = lamp.kelvin_at(volts)
        out.append(
            GlowLamp(
                "old", "Old lamp", colour.screen_colour(_filament(round(kelvin)), old / white),
                _filament_hue(round(kelvin)),
                float(colour.lightness(old / white)), WORDS[visibility(old)] if dark else "the old lamp",
                shown(old, CANDELA, f"{lamp.candela or 0:g} cd at {lamp.volts:g} V, light ∝ V^3.5, "
                      f"at {volts:.3g} V; {kelvin:.0f} K", Source.COMPUTED),
            )
        )  # fmt: skip
    hue = _led_hue(position.led)
    names = position.rail.supply.kind.levels
    for key, label, cd, amp in zip(
        ("low", "usual", "high"), (f"LED, {n}" for n in names), cds, amps, strict=True,
    ):  # fmt: skip
        ratio = cd / old if old else None
        out.append(
            GlowLamp(
                key, label, _shade(position.led, round(cd / white, 6)), hue,
                float(colour.lightness(np.asarray(cd / white))),
                WORDS[visibility(cd)] if dark else ratio_text(ratio),
                shown(cd, CANDELA, f"{position.led.candela * 1e3:g} mcd at "
                      f"{position.led.candela_a * 1e3:g} mA, in proportion to {amp * 1e3:.3g} mA"
                      + (f", {count} LEDs" if (count := position.in_series * position.branches) > 1 else "")),
            )
        )  # fmt: skip
    return tuple(out)
