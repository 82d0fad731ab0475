"""A printed card of neutral screens: held before a blinding LED, the one that looks right is the ratio of light.

On clear film each screen passes the share of its area that bears no ink (geometry). Down to a half it is black dots,
below that clear holes; a row of equal squares shows whether the printer kept its ink to its dots.
"""

import math

# What each screen passes.
SCREENS = (0.70, 0.50, 0.35, 0.25, 0.12)
PITCH_MM = 0.8
_SIDE, _GAP, _LEFT, _TOP = 32.0, 4.0, 14.0, 62.0
_PAGE = (210.0, 297.0)


def radius_mm(passes: float) -> tuple[float, bool]:
    """A screen's dots on a square grid: π·r²/pitch² of its area.

    Args:
        passes: share of its area without ink.

    Returns:
        Their radius, and whether they are ink (else they are the holes in it).
    """
    ink = passes >= 0.5
    return PITCH_MM * math.sqrt((1 - passes if ink else passes) / math.pi), ink


def dot_card() -> str:
    """The card as an SVG of one A4 page, lengths in mm."""
    patterns, fields = [], []
    for k, passes in enumerate(SCREENS):
        r, ink = radius_mm(passes)
        ground, dot = ("#fff", "#000") if ink else ("#000", "#fff")
        patterns.append(
            f'<pattern id="s{k}" width="{PITCH_MM}" height="{PITCH_MM}" patternUnits="userSpaceOnUse">'
            f'<rect width="{PITCH_MM}" height="{PITCH_MM}" fill="{ground}"/>'
            f'<circle cx="{PITCH_MM / 2}" cy="{PITCH_MM / 2}" r="{r:.4f}" fill="{dot}"/></pattern>'
        )
        x = _LEFT + k * (_SIDE + _GAP)
        fields.append(
            f'<rect id="passes-{passes * 100:.0f}" x="{x}" y="{_TOP}" width="{_SIDE}" height="{_SIDE}" '
            f'fill="url(#s{k})" stroke="#000" stroke-width="0.3"/>'
            f'<text x="{x + _SIDE / 2}" y="{_TOP + _SIDE + 9}" font-size="8" text-anchor="middle">'
            f"{passes * 100:.0f} %</text>"
        )
    lines = (
        "Dot card. Print it full size on clear film, as dark as the printer goes.",
        "Hold a screen close before the LED, in the room where it will be seen.",
        "The one through which it looks right is the share of light you want: log it where you dim it.",
        "Do not look into a power LED or a narrow beam, card or no card.",
    )
    words = "".join(f'<text x="{_LEFT}" y="{16 + 9 * k}" font-size="5">{line}</text>' for k, line in enumerate(lines))
    width, height = _PAGE
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" viewBox="0 0 {width} {height}" '
        f'font-family="sans-serif"><title>Dot card</title><defs>{"".join(patterns)}</defs>'
        f'<rect width="{width}" height="{height}" fill="#fff"/>{words}{"".join(fields)}{_strip()}</svg>'
    )


def _strip() -> str:
    """Squares of ink and of none in turn, two sizes: equal where the printer kept them."""
    out = []
    for row, side in ((0, 2.0), (1, PITCH_MM / 2)):
        y = _TOP + _SIDE + 24 + row * 10
        count = int(100 / side)
        for k in range(count):
            for half in (0, 1):
                if (k + half) % 2 == 0:
                    out.append(f"M{_LEFT + k * side:.2f} {y + half * side:.2f}h{side}v{side}h-{side}z")
    text = "Under a loupe black and clear squares are equally large. Where black is larger, every screen passes less."
    return (
        f'<path d="{"".join(out)}" fill="#000"/><text x="{_LEFT}" y="{_TOP + _SIDE + 50}" font-size="4.2">{text}</text>'
        f'<path d="M{_LEFT} {_TOP + _SIDE + 58}h50m0 -3v6m-50 -6v6" stroke="#000" stroke-width="0.4" fill="none"/>'
        f'<text x="{_LEFT + 54}" y="{_TOP + _SIDE + 60}" font-size="4.2">50 mm: printed full size?</text>'
    )
