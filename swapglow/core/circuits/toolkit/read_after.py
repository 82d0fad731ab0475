"""What was read after the change, against what it should be: a current, or on mains the power at the plug."""

from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.quantities import AMPERE, WATT, Figure, Shown, Source, show, shown, times_text

AFTER = Detail(
    "after", "Current read afterwards", AMPERE, "Empty until read; what is expected is shown with the result"
)
# On mains nothing is read live but the power that a meter at the plug shows.
PLUG = Detail("plug", "Power at the plug, before", WATT, "4.8W, off a plug-in meter; empty: not read")
PLUG_AFTER = Detail("plug_after", "Power at the plug, afterwards", WATT, "2.6W; empty until it is read")
# What of the power at the plug comes to the LEDs (0.75 to 0.92 of such boards, from memory).
PLUG_SHARE = 0.85
# A meter, parts of five per cent, and LEDs that warm (common practice).
_AGREES, _NEAR = 0.1, 0.25
# So much more is said as a factor.
_TIMES = 2.0


def read_after(typed: Details, before: float) -> Figure | None:
    """The current after the change as it was read; by the power at the plug it falls as that does.

    Args:
        typed: what was typed.
        before: A, before it.

    Returns:
        The current; None where nothing was read.
    """
    if typed.asks(AFTER.id):
        return typed.figure(AFTER.id)
    was, now = typed.figure(PLUG.id), typed.figure(PLUG_AFTER.id)
    if was is None or now is None:
        return None
    return Figure(before * now.value / was.value, now.source, "by the power at the plug")


def flowing(typed: Details, before: float, expected: float, origin: str, source: Source = Source.COMPUTED) -> Shown:
    """What flows after the change: as it was read, until then as expected. All that follows from it starts here.

    Args:
        typed: what was typed.
        before: A, before it.
        expected: A, after the change.
        origin: where that came from, in words.
        source: how sure that is.

    Returns:
        The current.
    """
    read = read_after(typed, before)
    if read is None:
        return shown(expected, AMPERE, origin, source)
    how = read.note if not typed.asks(AFTER.id) else "as it was read"
    return shown(read.value, AMPERE, f"{how}; {show(expected, AMPERE)} expected", read.source)


def against(typed: Details, expected: float, before: float, fits: str = "") -> tuple[Finding, ...]:
    """What a reading after the change says.

    Args:
        typed: what was typed.
        expected: A, after the change.
        before: A, before it.
        fits: what would explain a difference, in a sentence.

    Returns:
        Nothing until it was read.
    """
    found = read_after(typed, before)
    if found is None:
        return ()
    read = found.value
    off = read / expected - 1 if expected > 0 else float("inf")
    how = "read" if typed.asks(AFTER.id) else found.note
    seen = f"{show(read, AMPERE)} {how}, {show(expected, AMPERE)} expected"
    if abs(off) <= _AGREES:
        return (Finding("after-agrees", "note", f"It agrees: {seen}.", why="Within a tenth: meter, parts and warmth."),)
    if abs(read / before - 1) <= _AGREES:
        return (
            Finding(
                "after-unchanged",
                "mind",
                f"Nothing has changed: {seen}.",
                why="The part is not where it counts, or another path leads past it.",
            ),
        )
    why = (
        "Near it: read again warm, with a fresh range."
        if abs(off) <= _NEAR
        else ("Another value than meant, a joint that does not hold, or a part side by side that was not seen.")
    )
    by = (
        f"{off * 100:+.0f} %"
        if off < _TIMES
        else f"{times_text(read / expected)} times"
        if expected > 0
        else "where none was"
    )
    return (Finding("after-differs", "mind", f"{seen}: {by}.", why=f"{why} {fits}".strip()),)
