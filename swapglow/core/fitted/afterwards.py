"""A current read after the change, against what it should be."""

from swapglow.core.fitted.worked import Judged
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.quantities import AMPERE, Shown, Source, show, shown

AFTER = Detail(
    "after", "Current read afterwards", AMPERE, "What is expected stands beside; empty until it is read"
)
# A meter, parts of five per cent, and LEDs that warm (common practice).
_AGREES, _NEAR = 0.1, 0.25


def flowing(typed: Details, expected: float, origin: str, source: Source = Source.COMPUTED) -> Shown:
    """What flows after the change: as it was read, until then as expected. All that follows from it starts here.

    Args:
        typed: what was typed; it may hold :data:`AFTER`.
        expected: A, after the change.
        origin: where that came from, in words.
        source: how sure that is.

    Returns:
        The current.
    """
    read = typed.figure(AFTER.id)
    if read is None:
        return shown(expected, AMPERE, origin, source)
    return shown(read.value, AMPERE, f"as it was read; {show(expected, AMPERE)} expected", read.source)


def against(typed: Details, expected: float, before: float) -> tuple[Judged, ...]:
    """What a reading after the change says.

    Args:
        typed: what was typed; it may hold :data:`AFTER`.
        expected: A, after the change.
        before: A, before it.

    Returns:
        Nothing until it was read.
    """
    read = typed.value(AFTER.id)
    if read is None:
        return ()
    off = read / expected - 1 if expected > 0 else float("inf")
    seen = f"{show(read, AMPERE)} read, {show(expected, AMPERE)} expected"
    if abs(off) <= _AGREES:
        return (Judged("note", f"It agrees: {seen}.", "Within a tenth: meter, parts and warmth."),)
    if abs(read / before - 1) <= _AGREES:
        return (
            Judged(
                "mind",
                f"Nothing has changed: {seen}.",
                "The part is not where it counts, or another path leads past it.",
            ),
        )
    why = "Near it: read again warm, with a fresh range." if abs(off) <= _NEAR else (
        "Another value than meant, a joint that does not hold, or a part side by side that was not seen."
    )  # fmt: skip
    return (Judged("mind", f"{seen}: {off * 100:+.0f} %.", why),)
