"""Light beside light, in words."""

from swapglow.core.quantities import times_text


def times(ratio: float) -> str:
    """A ratio of lights as a number: "0.04", "1.4", "130"."""
    return times_text(ratio)


def eye_text(ratio: float) -> str:
    """A ratio as an eye counts: two digits."""
    return times_text(float(f"{ratio:.2g}"))


def beside_text(ratio: float, doubt: float) -> str:
    """A measured ratio with its doubt.

    Args:
        ratio: light beside the old lamp's.
        doubt: the factor that it may be off by.

    Returns:
        "2.7 × the old lamp (2.3 to 3.3)".
    """
    return f"{times(ratio)} × the old lamp ({eye_text(ratio / doubt)} to {eye_text(ratio * doubt)})"


# From each ratio on, what an eye would call it; an eye halves and doubles, and a fifth is seen side by side (CIE
# lightness is about the cube root of light; the words are ours).
_CALLED = (
    (0.0, "dark"),
    (0.001, "hardly visible"),
    (0.05, "much dimmer"),
    (0.2, "about a quarter as bright"),
    (0.29, "about a third as bright"),
    (0.4, "about half as bright"),
    (0.62, "a little dimmer"),
    (1 / 1.2, "about as bright"),
    (1.2, "a little brighter"),
    (1.6, "about twice as bright"),
    (2.5, "about three times as bright"),
    (3.5, "several times as bright"),
    (10.0, "many times as bright"),
)


def called(ratio: float) -> str:
    """Light beside light as somebody would say it: "about half as bright".

    Args:
        ratio: not less than nothing.

    Returns:
        The words, without what it is beside.
    """
    return next(words for least, words in reversed(_CALLED) if ratio >= least)


def step_text(octaves: float) -> str:
    """What an eye tells, in a sentence."""
    return f"Less than {eye_text(2.0**octaves)} × is hardly told from memory here; side by side a fifth is."


def ratio_text(ratio: float | None) -> str:
    """ "1.4 × the old lamp"; empty where it is not known."""
    if ratio is None:
        return ""
    if ratio < 0.001:
        return "dark beside the old lamp"
    return f"{times(ratio)} × the old lamp"
