"""Write docs/colours.md: every catalogue LED's colour on a screen beside that of its spectrum: ``make schema``."""

import sys
from pathlib import Path

import numpy as np

from swapglow.core.parts.led import catalogue
from swapglow.core.photometry.colour import tristimulus
from swapglow.core.photometry.screen import hue_of, oklab, screen_colours
from swapglow.core.photometry.spectrum import led

_FROM_SRGB = np.array(
    [[0.4124564, 0.3575761, 0.1804375], [0.2126729, 0.7151522, 0.0721750], [0.0193339, 0.1191920, 0.9503041]]
)


def _seen(text: str) -> np.ndarray:
    """Tristimulus values of #rrggbb (IEC 61966-2-1)."""
    c = np.array([int(text[k : k + 2], 16) for k in (1, 3, 5)]) / 255
    return np.asarray(_FROM_SRGB @ np.where(c <= 0.04045, c / 12.92, ((c + 0.055) / 1.055) ** 2.4))


def _hue(xyz: np.ndarray) -> float:
    _, a, b = oklab(xyz)
    return float(np.degrees(np.arctan2(b, a)) % 360)


def table() -> tuple[str, float]:
    """The page, and the largest difference of hue in it, degrees."""
    rows, most = [], 0.0
    for part in catalogue().values():
        xyz = tristimulus(led(part))
        hue = hue_of(xyz)
        text = screen_colours(xyz, np.array([hue.brightest]))[0]
        true, shown = _hue(xyz), _hue(_seen(text))
        away = (shown - true + 180) % 360 - 180
        # What has next to no chroma has no hue to lose.
        chroma = float(np.hypot(*oklab(xyz)[1:]))
        if chroma > 0.02:
            most = max(most, abs(away))
        nm = "" if part.dominant_nm is None else f"{part.dominant_nm:g}"
        differs = f"{away:+.2f}" if chroma > 0.02 else "white"
        rows.append(
            f"| {part.label} | {nm} | {true:.1f} | `{text}` | {shown:.1f} | {differs} | {hue.brightest:.2f} | "
            f"{'yes' if hue.paler else 'no'} |"
        )
    head = (
        "# Colours on a screen\n\n"
        "Hue angles are in Oklab (Ottosson 2020), of the LED's spectrum and of what is painted at the luminance up to "
        "which the screen keeps the hue's purity. A step of hue that an eye tells at this purity is some 2°\n"
        "(from memory). Checked against colour-science in `tests/core/test_sight.py`; written by `make schema`.\n\n"
        f"Largest difference: {most:.2f}°.\n\n"
        "| LED | dominant nm | its hue, ° | painted | hue painted, ° | difference, ° | luminance | paler |\n"
        "|---|---|---|---|---|---|---|---|\n"
    )
    return head + "\n".join(rows) + "\n", most


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(table()[0])
