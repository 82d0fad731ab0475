"""What a photograph says, in words: two lamps in one frame, and a streak."""

from dataclasses import dataclass

from swapglow.core.photographs.streak import LEAST_DASHES, Streak
from swapglow.core.photographs.two_in_one import Spot, TwoInOne
from swapglow.core.photometry.flicker import flicker_limit
from swapglow.core.photometry.words import beside_text
from swapglow.core.quantities import HERTZ, percent, show

# Steps in Oklab's a and b: no difference to speak of, and another colour (ours).
_SAME, _OTHER = 0.03, 0.1


@dataclass(frozen=True)
class TwoSeen:
    """Two lamps in one frame.

    Attributes:
        ratio, doubt: light of the new one beside the old one's, and the factor it may be off by.
        line: that in words.
        evenness: how evenly each lies.
        colours: whether they are of one colour.
        spots: the circles that were measured, the old lamp's first.
    """

    ratio: float
    doubt: float
    line: str
    evenness: str
    colours: str
    spots: tuple[Spot, Spot]


def two_seen(found: TwoInOne) -> TwoSeen:
    """A comparison in words.

    Args:
        found: the comparison.

    Returns:
        The section.
    """
    old, new = found.first, found.second
    if found.apart < _SAME:
        colours = "Their colours are the same to the camera."
    elif found.apart < _OTHER:
        colours = "Their colours differ a little; the ratio is a little less sure for it."
    else:
        colours = "Their colours differ plainly, and a camera weighs colours otherwise than an eye: the ratio is wide."
    return TwoSeen(
        float(f"{found.ratio:.4g}"),
        float(f"{found.doubt:.3g}"),
        beside_text(found.ratio, found.doubt) + ".",
        f"Dimmest tenth beside the mean: old {percent(old.evenness)}, new {percent(new.evenness)}.",
        colours,
        found.spots,
    )


@dataclass(frozen=True)
class StreakSeen:
    """A streak.

    Attributes:
        line: its frequency and duty, or why they cannot be told.
        more: what that means.
        profile: light along it, 1 at its brightest.
    """

    line: str
    more: str
    profile: tuple[float, ...]


def streak_seen(found: Streak) -> StreakSeen:
    """A streak in words.

    Args:
        found: what was counted.

    Returns:
        The section.
    """
    reach = show(found.up_to, HERTZ, 2)
    if found.dashes <= 1:
        return StreakSeen(
            "One line without a gap: steady light.",
            f"Pulses up to {reach} would have shown; faster ones need a quicker sweep.",
            found.profile,
        )
    if found.hertz is None or found.duty is None:
        return StreakSeen(
            f"{found.dashes} dashes: too few to tell.",
            f"From {LEAST_DASHES} on they are counted. Leave the shutter open for longer, in a darker room.",
            found.profile,
        )
    ends = f"{found.low:.3g} to {show(found.high, HERTZ, 3)}"
    line = f"{found.dashes} dashes: {show(found.hertz, HERTZ, 3)} ({ends}), lit {percent(found.duty)} of the time."
    limit = flicker_limit(found.hertz)
    more = f"Light that goes out between pulses is fully modulated; low-risk there is {limit:.0f} % (IEEE 1789-2015)."
    return StreakSeen(line, more, found.profile)
