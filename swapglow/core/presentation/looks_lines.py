"""What is to be said of a lamp's looks beside its light: a line, each with its figure."""

from swapglow.core.analysis.original_lamp import lamp_candela
from swapglow.core.design.looks import ROOMS
from swapglow.core.design.position import Position
from swapglow.core.photometry.intensity import sight_of
from swapglow.core.photometry.light_doubt import doubt
from swapglow.core.photometry.room import dark_adapted, veil_deg
from swapglow.core.photometry.screen import hue_of
from swapglow.core.photometry.seen import Sight
from swapglow.core.photometry.spectrum import led, through
from swapglow.core.photometry.words import times
from swapglow.core.quantities import number_text, percent

# A veil of so many degrees is wider than a lamp's own panel at arm's length (ours).
_GLARE_DEG = 5.0


def looks_lines(position: Position, candela: float, old: Sight | None) -> tuple[str, ...]:
    """The lines, what decides most first.

    Args:
        position: the swap.
        candela: of the LEDs at the usual rail towards the eye, cd.
        old: the original lamp as it is seen there, where it is known.

    Returns:
        Lines in words.
    """
    found = (
        _doubt(position, candela),
        _by_eye(position),
        _evenness(position, old),
        _glass(position, old),
        _glare(position, candela),
        _dark(position),
        _paler(position),
    )
    return tuple(line for line in found if line)


def _doubt(p: Position, candela: float) -> str:
    old = lamp_candela(p)
    if not old or candela <= 0:
        return ""
    factor = doubt(p)
    low, high = candela / old / factor, candela / old * factor
    return f"As far as its light is known: {times(low)} to {times(high)} × the old lamp."


def _by_eye(p: Position) -> str:
    if p.looks.trim == 1:
        return ""
    return f"Matched by eye: it gives {times(p.looks.trim)} × the light of its figures."


def _evenness(p: Position, old: Sight | None) -> str:
    face = sight_of(p).face
    if face is None:
        return ""
    if face.lumens <= 0:
        return "None of its light reaches the window: the LEDs stand beside it, or shine past it."
    was = "" if old is None or old.face is None else f" (the old lamp: {percent(old.face.evenness)})"
    return (
        f"Its dimmest place has {percent(face.evenness)} of the mean light{was}, its brightest "
        f"{number_text(face.hot)} ×."
    )


def _glass(p: Position, old: Sight | None) -> str:
    if p.looks.glass is None:
        return ""
    was = "" if old is None else f", {percent(old.share)} of the old lamp's"
    return f"{p.looks.glass.label} lets {percent(sight_of(p).share)} of this LED's light through{was}."


def _glare(p: Position, candela: float) -> str:
    reach = veil_deg(candela, p.looks.room)
    if reach < _GLARE_DEG:
        return ""
    return f"{ROOMS[p.looks.room]}: its glare veils what lies up to {reach:.0f}° beside it."


def _dark(p: Position) -> str:
    if p.looks.room != "dark":
        return ""
    weighs = dark_adapted(through(led(p.led), p.looks.glass))
    if not weighs:
        return ""
    return f"Eyes used to the dark take it for {times(weighs)} × its candela (S/P, CIE 018)."


def _paler(p: Position) -> str:
    if not hue_of(sight_of(p).xyz).paler:
        return ""
    return "A screen shows this colour paler than it is; its hue and the ratio of lights are kept."
