"""What to change where a light is of the wrong colour or lies unevenly: resistance cures neither."""

from dataclasses import replace

import numpy as np

from swapglow.core.analysis.original_lamp import kelvin_of, lamp_volts
from swapglow.core.design.changes import Changes, with_changes
from swapglow.core.design.position import Position
from swapglow.core.parts.glass import Glass, glasses
from swapglow.core.parts.lamp import USUAL_K
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.photometry.intensity import sight_of
from swapglow.core.photometry.screen import FloatArray, oklab
from swapglow.core.photometry.seen import colour_behind
from swapglow.core.photometry.spectrum import filament, led

# A change of colour that leaves more than this of what was amiss is none (ours).
_MENDS = 0.7
# Of its light, a tint that takes more than this costs more than it gives (ours).
_LEAST_SHARE = 0.25
# A tint warms a light; past the purity of what is wanted it colours it (ours).
_PURER = 1.15
_EVENER = 1.15


def warmer(position: Position) -> tuple[tuple[str, Changes], ...]:
    """Changes that bring a light nearer to the old lamp's colour as it is seen there.

    Args:
        position: the swap, its LED white.

    Returns:
        Each with what it is called, the better first; none for a coloured LED, whose colour is its own.
    """
    if position.led.phosphor_k is None:
        return ()
    lamp = position.lamp
    kelvin = USUAL_K if lamp is None else kelvin_of(lamp, lamp_volts(position))
    glass = position.looks.glass
    meant = oklab(colour_behind(filament(kelvin), glass))[1:]

    def seen(part: Led, through: Glass | None) -> FloatArray:
        return oklab(colour_behind(led(part), through))[1:]

    def away(part: Led, through: Glass | None) -> float:
        return float(np.hypot(*(seen(part, through) - meant)))

    now = away(position.led, glass)
    out: list[tuple[float, str, Changes]] = []
    whites = [k for k in catalogue().values() if k.phosphor_k is not None and k.size == position.led.size]
    best = min(whites, key=lambda k: (away(k, glass), abs(k.angle_deg - position.led.angle_deg)), default=None)
    if best is not None and away(best, glass) < _MENDS * now:
        out.append((away(best, glass), f"Use {best.label.lower()}", {"led_id": best.id}))
    if glass is None:
        tints = [
            g
            for g in glasses().values()
            if sight_of(replace(position, looks=replace(position.looks, glass=g))).share >= _LEAST_SHARE
            and np.hypot(*seen(position.led, g)) <= _PURER * np.hypot(*meant)
        ]
        tint = min(tints, key=lambda g: away(position.led, g), default=None)
        if tint is not None and away(position.led, tint) < _MENDS * now:
            found = away(position.led, tint)
            out.append((found, f"Put {tint.label.lower()} before it", {"looks.glass": tint.id}))
    return tuple((label, changes) for _, label, changes in sorted(out, key=lambda o: o[0]))


_EVEN_BY: tuple[tuple[str, Changes], ...] = (
    ("Frost or sand the LED", {"looks.optics": "frosted"}),
    ("Put a diffuser cap on it", {"looks.optics": "capped"}),
    ("Sand its dome flat", {"looks.optics": "flattened"}),
    ("Paint the walls behind the window white", {"looks.white_box": True}),
)


def evener(position: Position) -> tuple[tuple[str, Changes], ...]:
    """Changes that spread a light more evenly over what is looked at.

    Args:
        position: the swap.

    Returns:
        Each with what it is called, the evenest first. Where the LED itself is looked at evenness is no figure,
        and whatever was not done to it yet is offered in the order of its effort.
    """
    face = sight_of(position).face
    if face is None:
        if position.looks.optics != "as-is":
            return ()
        return tuple(way for way in _EVEN_BY if "looks.optics" in way[1])
    found = []
    for label, changes in _EVEN_BY:
        if "looks.white_box" in changes and position.looks.how != "window":
            continue
        then = sight_of(with_changes(position, changes)).face
        if then is not None and then.evenness > _EVENER * face.evenness:
            found.append((then.evenness, label, changes))
    return tuple((label, changes) for _, label, changes in sorted(found, key=lambda f: -f[0]))
