"""The next thing on the bench: always one."""

from dataclasses import dataclass

from swapglow.core.analysis.solution import Solution
from swapglow.core.intake.second_job import DutyReport
from swapglow.core.kinds.step import NextStep
from swapglow.core.measurement.inference import Contradiction
from swapglow.core.parts.meter import amp_range
from swapglow.core.quantities import AMPERE, OHM, show


@dataclass(frozen=True)
class Standing:
    """A finding that forbids the swap.

    Attributes:
        message: what it says.
        remedy: its first remedy in words, "" for none.
        first: what is done before anything is powered, "" where it may be.
    """

    message: str
    remedy: str
    first: str = ""


def next_step(
    s: Solution,
    asked: tuple[NextStep, ...],
    read: bool,
    contradictions: tuple[Contradiction, ...] = (),
    *,
    chase: NextStep | None = None,
    closed: bool = False,
    stop: Standing | None = None,
    duty: DutyReport | None = None,
) -> NextStep:
    """What to do now, by what is still asked and what has been tried.

    Args:
        s: the solved position.
        asked: readings still worth taking, the weightiest first.
        read: whether anything was read after the swap.
        contradictions: among the readings before it.
        chase: what to do about readings that are off, where any is.
        closed: whether the job is done.
        stop: what forbids the swap as it stands.
        duty: what else the lamp does; where that closes the swap it comes before any reading.

    Returns:
        Always one; never to fit anything while a stop stands.
    """
    if s.position.live_danger:
        return _hands_off()
    if stop is not None and stop.first:
        return _keep_off(stop)
    if duty is not None and duty.closed:
        return _find_out(duty)
    if chase is not None:
        return chase
    if stop is not None and (closed or read):
        return _mend(stop)
    if closed:
        return _look_again(s)
    if read:
        return _close_up(s)
    if contradictions:
        return _sort_out(contradictions[0])
    if asked:
        return asked[0]
    return _try_on_clips(s) if stop is None else _mend(stop)


def _find_out(duty: DutyReport) -> NextStep:
    """A lamp that may be part of the circuit, or is, is not swapped as it stands."""
    return NextStep(
        "second-job", duty.line, "", "", "power off", "", None, duty.settle, "Look with the power off.", stops=True
    )


def _mend(stop: Standing) -> NextStep:
    """Nothing is fitted while something forbids it."""
    first = stop.remedy or "Another swap: see what else could be done"
    return NextStep("mend", f"Fit nothing yet. Mend first: {first}", "", "", "", "", None, stop.message, "", stops=True)


def _keep_off(stop: Standing) -> NextStep:
    """What endangers as it stands owns the next thing: no reading is asked beside it."""
    return NextStep("keep-off", f"Do not power it. {stop.first}", "", "", "", "", None, stop.message, "", stops=True)


def _hands_off() -> NextStep:
    """Mains-connected: the tool gives no live procedure."""
    return NextStep(
        "mains",
        "Do not read or work on it live. Unplug it: this is for someone qualified",
        "",
        "",
        "",
        "",
        None,
        "This lamp is on the mains, or on volts past extra-low (50 V AC, 120 V DC). Look, identify and note with the "
        "plug in sight.",
        "Mains kills. Licensed practice and local codes come first.",
        stops=True,
    )


def _sort_out(c: Contradiction) -> NextStep:
    return NextStep(
        "contradiction",
        "Two readings do not go together: take them again",
        "the same range",
        "the same points",
        "one right after the other",
        "readings that agree",
        None,
        f"{c.message} {c.likeliest}",
        "",
    )


def _try_on_clips(s: Solution) -> NextStep:
    bare = s.position.bare
    with_ = "" if bare else f" with {show(s.sizing.each_ohm, OHM)}"
    return NextStep(
        "try",
        "Try it on clips" + with_ + (" in each lead" if s.sizing.parts == 2 else ""),
        amp_range(s.string_current_max * 1.2),
        "in series with the LED",
        "supply on, covers off",
        _expect(s),
        "current",
        "Clips before solder: the current proves resistor, LED and rail in one.",
        "Supply off while the clips go on.",
    )


def _expect(s: Solution) -> str:
    """ "2.4 mA (2.2 mA to 2.6 mA)" """
    usual, least, most = (show(float(a), AMPERE) for a in (s.usual[1], s.string_current_min, s.string_current_max))
    return f"{usual} ({least} to {most})"


def _close_up(s: Solution) -> NextStep:
    return NextStep(
        "close",
        "Fit, close up and read once more",
        amp_range(s.string_current_max * 1.2),
        "in series with the LED",
        "covers on, warm for half an hour",
        _expect(s),
        "current",
        "Contacts that touched with the lid off may not touch with it on.",
        "Sleeve on before the joint; glue only after the test.",
    )


def _look_again(s: Solution) -> NextStep:
    return NextStep(
        "done",
        "Done: look again in a month",
        amp_range(s.string_current_max * 1.2),
        "in series with the LED",
        "as it was closed",
        _expect(s),
        "current",
        "An LED run within its limits reads the same; a joint going bad does not.",
        "",
    )
