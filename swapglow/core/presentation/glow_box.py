"""Section: how the lamps of a position look beside each other, as they are looked at."""

import base64
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.original_lamp import kelvin_of, lamp_candela, lamp_volts, seen_candela
from swapglow.core.design.looks import HOWS, OPTICS, Optics
from swapglow.core.design.position import Position
from swapglow.core.parts.lamp import USUAL_K
from swapglow.core.photometry import colour, room, screen
from swapglow.core.photometry.faces import bulb, tip
from swapglow.core.photometry.intensity import burns_out, shown_candela, sight_of
from swapglow.core.photometry.seen import Sight, lamp_sight
from swapglow.core.photometry.suits import suits
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.photometry.window import WHITE, Lit
from swapglow.core.photometry.words import ratio_text
from swapglow.core.presentation.flicker import Flicker
from swapglow.core.presentation.looks_lines import looks_lines
from swapglow.core.quantities import AMPERE, CANDELA, LUMEN, NIT, VOLT, Shown, percent, show, shown

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Face:
    """What of a lamp is looked at, and how its light lies there.

    Attributes:
        shape: "tip", "bulb", "round" or "rectangle".
        wide: its width beside its height.
        columns, rows: of ``levels``.
        levels: a byte for each place in base64, row by row: the cube root of its luminance, 255 for the
            brightest; the steps of a ramp.
    """

    shape: str
    wide: float
    columns: int
    rows: int
    levels: str


@dataclass(frozen=True)
class GlowLamp:
    """A lamp as it looks in the glow box.

    ``colour`` is what it is on the whole, ``ramp`` its colours from dark to its brightest place, ``hue`` that of
    its halo. ``lightness`` is L* against the brightest lamp in the box; ``ratio_text`` compares its light with the
    original lamp's at the usual rail, or says where a lamp that should be dark is seen; ``amount`` is what is
    compared; ``halo`` how far the veil of its glare reaches, 0 to 1, and ``veil`` its opacity at even
    places on the way there.
    """

    id: str
    label: str
    colour: str
    hue: str
    ramp: tuple[str, ...]
    face: Face
    halo: float
    veil: tuple[float, ...]
    lightness: float
    ratio_text: str
    amount: Shown


@dataclass(frozen=True)
class Suitable:
    """An LED colour behind the glass: what comes through, in what colour, and whether it is that of the old lamp."""

    led_id: str
    label: str
    share: str
    colour: str
    as_before: bool


@dataclass(frozen=True)
class Glow:
    """The glow box.

    Attributes:
        lamps: from left to right; ids "old", "low", "usual", "high".
        levels: what the rail's lowest, usual and highest are called, in the order of the LED's lamps.
        looked_at: how, in words.
        room: the light it is seen in, its id.
        wall: the colour of what stands around the lamps in that light.
        lines: what else is to be said of the looks, a figure in each.
        suits: LED colours behind the glass there, the one that loses least first.
        flicker: one flash of the LED's light, to be shown slowed down; None where it is steady.
    """

    lamps: tuple[GlowLamp, ...]
    levels: tuple[str, ...]
    looked_at: str
    room: str
    wall: str
    lines: tuple[str, ...]
    suits: tuple[Suitable, ...]
    flicker: Flicker | None


@dataclass(frozen=True)
class Painted:
    """A lamp before it is painted."""

    id: str
    label: str
    candela: float
    sight: Sight
    ratio_text: str
    shape: str
    amount: Shown


def _levels(grid: FloatArray) -> str:
    steps = np.cbrt(np.clip(grid / max(float(grid.max()), 1e-12), 0.0, 1.0)) * 255
    return base64.b64encode(np.round(steps).astype(np.uint8).tobytes()).decode("ascii")


def _face(shape: str, wide: float, grid: FloatArray) -> tuple[Face, float]:
    """The face, and its brightest place beside its mean."""
    rows, columns = grid.shape
    lit = grid[grid > 0]
    return Face(shape, wide, columns, rows, _levels(grid)), float(grid.max() / lit.mean()) if lit.size else 1.0


@lru_cache(maxsize=64)
def _bare(shape: str, angle_deg: float, optics: Optics) -> tuple[Face, float]:
    return _face(shape, 1.0, bulb() if shape == "bulb" else tip(angle_deg, optics))


@lru_cache(maxsize=256)
def _lit(shape: str, wide: float, face: Lit) -> tuple[Face, float]:
    return _face(shape, wide, face.grid)


def _face_of(s: Painted, position: Position) -> tuple[Face, float]:
    looks = position.looks
    if s.sight.face is None:
        return _bare(s.shape, position.led.angle_deg, looks.optics)
    width, height = looks.size_m
    return _lit(looks.shape, min(max(width / height, 0.25), 4.0), s.sight.face)


def painted(
    sources: list[Painted], position: Position, white: float, brightest: float | None = None
) -> tuple[GlowLamp, ...]:
    """The lamps in their colours, each luminance in proportion to its light.

    As bright as can be before a hue in the box pales; see :mod:`swapglow.core.photometry.screen`.

    Args:
        sources: the lamps.
        position: the swap whose looks they have.
        white: the intensity that is painted as bright as can be, cd.
        brightest: how bright that is on the screen; by the hues of these lamps where not given.

    Returns:
        The lamps as they are drawn.
    """
    looks = position.looks
    if brightest is None:
        brightest = screen.brightest(s.sight.xyz for s in sources)
    out = []
    for s in sources:
        face, hot = _face_of(s, position)
        mean = brightest * s.candela / white
        reach, lightness = room.halo(s.candela, looks.room), float(colour.lightness(s.candela / white))
        veil = room.veil(reach, lightness)
        *ramp, whole, hue = screen.screen_colours(s.sight.xyz, np.array([*(mean * hot * screen.RAMP), mean, brightest]))
        out.append(
            GlowLamp(s.id, s.label, whole, hue, tuple(ramp), face, reach, veil, lightness, s.ratio_text, s.amount)
        )
    return tuple(out)


def white_of(position: Position, amps: tuple[float, float, float]) -> float:
    """Intensity of the brightest lamp in the box while lit.

    Args:
        position: the swap.
        amps: current of one string at the low, usual and high rail, A.

    Returns:
        Candela towards the eye.
    """
    return max(lamp_candela(position) or 0.0, *(shown_candela(position, a) for a in amps), 1e-9)


def glow(
    position: Position,
    amps: tuple[float, float, float],
    *,
    white: float | None = None,
    lamp_v: float | None = None,
    flicker: Flicker | None = None,
) -> Glow:
    """The glow box: the old lamp, and the LED at the low, usual and high rail.

    White is the brightest lamp in the box; L* of the others is against it (CIE 1976).

    Args:
        position: the swap.
        amps: forward current at the low, usual and high rail.
        white: what counts as white, cd, where the box is that of a lamp which should be dark; each
            then says where it is seen.
        lamp_v: volts over the old lamp there.
        flicker: one flash of the LED's light.

    Returns:
        The box.
    """
    dark = white is not None
    old = _old(position, dark, lamp_v)
    cds = [shown_candela(position, a) for a in amps]
    beside = old.candela if old is not None else None
    sight, names, looks = sight_of(position), position.rail.supply.kind.levels, position.looks
    sources = [] if old is None else [old]
    for key, label, cd, amp in zip(("low", "usual", "high"), (f"LED, {n}" for n in names), cds, amps, strict=True):
        words = WORDS[visibility(cd)] if dark else ratio_text(cd / beside if beside else None)
        if burns_out(position, amp):
            words = "it burns out"
        amount = _amount(position, cd, sight, _of_led(position, amp))
        sources.append(Painted(key, label, cd, sight, words, "tip", amount))
    lines = () if dark else looks_lines(position, cds[1], None if old is None else old.sight)
    return Glow(
        painted(sources, position, white or max(s.candela for s in sources) or 1e-9),
        tuple(n.capitalize() for n in names),
        HOWS[looks.how],
        looks.room,
        screen.encoded(np.full((1, 3), room.WALLS[looks.room]))[0],
        lines,
        () if dark else _suits(position),
        flicker,
    )


# A step in Oklab's a and b that is plainly another colour (ours).
_SAME = 0.1


def _suits(position: Position) -> tuple[Suitable, ...]:
    kelvin = USUAL_K if position.lamp is None else position.lamp.colour_k
    return tuple(
        Suitable(s.part.id, s.part.colour.capitalize(), percent(s.share), s.colour, s.beside_glass < _SAME)
        for s in suits(position, kelvin)
    )


def _old(position: Position, dark: bool, lamp_v: float | None) -> Painted | None:
    """The original lamp where it and its light are known."""
    lamp = position.lamp
    volts = (lamp_v or 0.0) if dark else (0.0 if lamp is None else lamp_volts(position))
    cd = seen_candela(position, volts) if dark else lamp_candela(position)
    if lamp is None or cd is None:
        return None
    kelvin = kelvin_of(lamp, volts)
    sight = lamp_sight(kelvin, position.looks)
    kept = "" if lamp.kept == 1 else f", {percent(lamp.kept)} of it left by age"
    source = (
        f"{show(lamp.candela or 0.0, CANDELA)} at {show(lamp.volts, VOLT)}, light ∝ V^3.5, at {show(volts, VOLT)}"
        f"{kept}; {kelvin} K"
    )
    return Painted(
        "old",
        "Old lamp",
        cd,
        sight,
        WORDS[visibility(cd)] if dark else "the old lamp",
        "bulb",
        _amount(position, cd, sight, source),
    )


def _of_led(position: Position, amps: float) -> str:
    led, count = position.led, position.in_series * position.branches
    many = f", {count} LEDs" if count > 1 else ""
    return (
        f"{show(led.candela, CANDELA)} at {show(led.candela_a, AMPERE)}, by the curve of {led.material} at "
        f"{show(amps, AMPERE)}{many}"
    )


def _amount(position: Position, candela: float, sight: Sight, source: str) -> Shown:
    """What is compared: candela towards the eye, luminance of the window, or lumens that arrive."""
    looks = position.looks
    through = "" if looks.glass is None else f"; {percent(sight.share)} through {looks.glass.label.lower()}"
    how = "" if looks.optics == "as-is" else f"; {OPTICS[looks.optics].lower()}"
    if looks.how == "seen":
        return shown(candela, CANDELA, source + how + through)
    width, height = looks.size_m
    usual = "; usual lengths, none measured" if looks.assumed else ""
    place = f"; {width * 1e3:g} by {height * 1e3:g} mm, {looks.away_m * 1e3:g} mm away{usual}"
    if looks.how == "window":
        return shown(candela / (width * height * looks.filled), NIT, source + how + through + place)
    return shown(candela * np.pi / WHITE, LUMEN, source + how + through + place)
