"""What else a lamp does: to be seen, to light, or to do; the cues by which that is found out, and what follows.

A filament is also a resistor that grows with heat, a lag, a source of infrared, a heater, a regulator, a fuse and a
return path. What is known of it here is common practice, or from memory where a job says so.
"""

from collections.abc import Collection, Iterable
from dataclasses import dataclass
from typing import Literal

from swapglow.core.intake.hints import Hint
from swapglow.core.intake.tables import rows

Duty = Literal["", "see", "light", "do"]
DUTIES: dict[Duty, str] = {"": "Not asked", "see": "To be seen", "light": "To light", "do": "To do"}
Verdict = Literal["leave", "part"]


@dataclass(frozen=True)
class Cue:
    """Something seen of a lamp that says it may be part of the circuit.

    Attributes:
        id, label: what is seen.
        look: how to look for it, safely.
    """

    id: str
    label: str
    look: str


@dataclass(frozen=True)
class Job:
    """A second job.

    Attributes:
        id, label: what it is.
        verdict: whether the lamp is left, or may be swapped once the job is given to a part.
        harm: what taking it out does.
        instead: what can be done, or what part takes the job.
        cues: by which it is found.
        source: where that is from.
        circuits: kinds of circuit that work it out.
    """

    id: str
    label: str
    verdict: Verdict
    harm: str
    instead: str
    cues: tuple[str, ...]
    source: str
    circuits: tuple[str, ...]


CUES: dict[str, Cue] = {r["id"]: Cue(**r) for r in rows("cues")}
JOBS: dict[str, Job] = {
    r["id"]: Job(**{**r, "cues": tuple(r["cues"].split()), "circuits": tuple(r["circuits"].split())})  # type: ignore[arg-type]  # a row of the table
    for r in rows("second_jobs")
}
# Somebody looked and found no second job.
NONE = "none"
UNKNOWN: dict[str, str] = {"": "Not found out", NONE: "None: looked into"}
CHOICES: dict[str, str] = {**UNKNOWN, **{k: j.label for k, j in JOBS.items()}}


@dataclass(frozen=True)
class DutyReport:
    """What is to be said of a lamp's second job.

    Attributes:
        closed: whether slide rule and swaps are not shown.
        line: what follows, "" where nothing does.
        settle: what would settle it, and who may.
        likely: jobs that its cues speak for, the most of them first.
        died: what the old lamp died of, with the reading that would confirm it.
    """

    closed: bool
    line: str
    settle: str
    likely: tuple[str, ...]
    died: tuple[str, ...]


def weigh_jobs(cues: Collection[str]) -> tuple[Job, ...]:
    """Jobs that cues speak for.

    Args:
        cues: those that were seen.

    Returns:
        The jobs, those with the largest share of their cues seen first.
    """
    scored = [(sum(c in cues for c in j.cues) / len(j.cues), j) for j in JOBS.values() if j.cues]
    return tuple(j for share, j in sorted(scored, key=lambda x: -x[0]) if share > 0)


def unexplained(duty: Duty, cues: Collection[str], job: str, hints: Collection[Hint] = ()) -> bool:
    """Whether a lamp may be part of the circuit and nobody has found out.

    Args:
        duty: what it is for.
        cues: what was seen of it.
        job: its second job, "" where nobody found out.
        hints: what its name and its rail speak for.

    Returns:
        True where its swap is closed for that.
    """
    return job == "" and (duty == "do" or bool(cues) or any(h.asks for h in hints))


def duty_report(
    duty: Duty, cues: Collection[str], job: str, given_to: str, died: tuple[str, ...] = (), hints: Collection[Hint] = ()
) -> DutyReport:
    """What follows from what a lamp does.

    Args:
        duty: what it is for.
        cues: what was seen of it.
        job: its second job, "" where nobody found out.
        given_to: the part that takes the job, "" for none.
        died: what the old lamp died of, as :func:`swapglow.core.intake.autopsy.died_of` says.
        hints: what its name and its rail speak for.

    Returns:
        The report.
    """
    hinted = [JOBS[h.job].label for h in hints if job == ""]
    likely = tuple(dict.fromkeys([*hinted, *(j.label for j in weigh_jobs(cues))]))
    if unexplained(duty, cues, job, hints):
        looks = " ".join(CUES[c].look for c in CUES if c in cues)
        if named := [h for h in hints if h.asks]:
            looks = f"Its name speaks for it: {_small(JOBS[named[0].job].label)}. {looks}".strip()
        settle = (
            f"{looks} Then say which job it is, or that there is none. Near mains or high tension that is for someone "
            "qualified."
        )
        line = "This lamp may be part of the circuit: fit the same type, or find out."
        return DutyReport(True, line, settle.strip(), likely, died)
    found = JOBS.get(job)
    if found is None:
        return DutyReport(False, "", "", likely if job == "" else (), died)
    if found.verdict == "leave":
        return DutyReport(True, f"Leave this lamp: {_small(found.label)}. {found.harm}", found.instead, (), died)
    if not given_to.strip():
        return DutyReport(True, f"It has a second job: {_small(found.label)}. {found.harm}", found.instead, (), died)
    return DutyReport(False, f"Its second job ({_small(found.label)}) is given to: {given_to.strip()}.", "", (), died)


def _small(text: str) -> str:
    return text[0].lower() + text[1:]


def table() -> Iterable[tuple[str, str, str, str, str]]:
    """Every job that means leaving the lamp: label, cues, harm, what can be done, source."""
    for j in JOBS.values():
        if j.verdict == "leave":
            cues = "; ".join(CUES[c].label for c in j.cues) or "what the equipment is"
            yield j.label, cues, j.harm, j.instead, j.source
