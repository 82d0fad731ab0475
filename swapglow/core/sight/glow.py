"""How the lamps of a position look beside each other.

In this version luminous intensity goes with current, and no filter stands before the lamp.
"""

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.parts.led import Led
from swapglow.core.position.before import before_v
from swapglow.core.position.model import Position
from swapglow.core.quantities import CANDELA, Source
from swapglow.core.report import GlowLamp, shown
from swapglow.core.sight import colour, spectrum
from swapglow.core.sight.seen import WORDS, seen

FloatArray = NDArray[np.float64]


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


def led_candela(position: Position, amps: float) -> float:
    """Intensity of the whole string: candela at rated current × I/Irated × number of LEDs."""
    led = position.led
    return led.candela * amps / led.rated_a * position.in_series * position.strings * position.branches


def amps_for(position: Position, candela: float) -> float:
    """Current at which the string gives an intensity."""
    led = position.led
    count = position.in_series * position.strings * position.branches
    return candela * led.rated_a / (led.candela * count)


def lamp_volts(position: Position) -> float:
    """Volts over the original lamp while lit, at the usual rail."""
    if position.driver.others or position.driver.dropper_ohm:
        # What stands in its circuit took its share from the lamp as it does from the LED.
        return before_v(position)
    return position.rail.usual.value - position.drop_v


def lamp_candela(position: Position) -> float | None:
    """Intensity of the original lamp at the usual rail (its own volts, so the driver counts)."""
    if position.lamp is None:
        return None
    one = position.lamp.candela_at(lamp_volts(position))
    # Where all lamps of a loop are changed, the new ones together are compared with all of them.
    together = 1 + len(position.driver.others) if position.driver.changed else 1
    return None if one is None else one * together


def ratio_text(ratio: float | None) -> str:
    """ "1.4 × the old lamp" """
    if ratio is None:
        return ""
    if ratio < 0.001:
        return "dark beside the old lamp"
    number = f"{ratio:.2g}" if ratio < 10 else f"{ratio:.0f}"
    return f"{number} × the old lamp"


def white_of(position: Position, amps: tuple[float, float, float]) -> float:
    """Intensity of the brightest lamp in the box while lit, cd."""
    return max(lamp_candela(position) or 0.0, *(led_candela(position, a) for a in amps), 1e-9)


def glow(position: Position, amps: tuple[float, float, float], *, white: float | None = None,
         lamp_v: float | None = None) -> tuple[GlowLamp, ...]:  # fmt: skip
    """The glow box: the old lamp, and the LED at the low, usual and high rail.

    White is the brightest lamp in the box; L* of the others is against it (CIE 1976).

    Args:
        amps: forward current at the low, usual and high rail.
        white: what counts as white, cd, where the box is that of a lamp which should be dark; each
            then says where it is seen.
        lamp_v: volts over the old lamp there.
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
                float(colour.lightness(old / white)), 1.0, WORDS[seen(old)] if dark else "the old lamp",
                shown(old, CANDELA, f"{lamp.candela or 0:g} cd at {lamp.volts:g} V, light ∝ V^3.5, "
                      f"at {volts:.3g} V; {kelvin:.0f} K", Source.COMPUTED),
            )
        )  # fmt: skip
    hue = _led_hue(position.led)
    names = position.rail.supply.about.levels
    for key, label, cd, amp in zip(
        ("low", "usual", "high"), (f"LED, {n}" for n in names), cds, amps, strict=True,
    ):  # fmt: skip
        ratio = cd / old if old else None
        out.append(
            GlowLamp(
                key, label, _shade(position.led, round(cd / white, 6)), hue,
                float(colour.lightness(np.asarray(cd / white))), ratio,
                WORDS[seen(cd)] if dark else ratio_text(ratio),
                shown(cd, CANDELA, f"{position.led.candela * 1e3:g} mcd at "
                      f"{position.led.rated_a * 1e3:g} mA, in proportion to {amp * 1e3:.3g} mA"
                      + (f", {count} LEDs" if (count := position.in_series * position.branches) > 1 else "")),
            )
        )  # fmt: skip
    return tuple(out)
