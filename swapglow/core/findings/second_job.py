"""What else the lamp does: an unexplained cue, a lamp that is left, a job that is given to no part."""

from collections.abc import Iterable

from swapglow.core.design.position import Position
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, rule
from swapglow.core.intake.second_job import CUES, JOBS, NONE, duty_report, unexplained


def _hinted(p: Position) -> Finding:
    """What a name or a rail only suggests: a question, and the swap stays open."""
    h = p.hints[0]
    job = JOBS[h.job]
    by = f'Called "{h.by}"' if h.by else f"On {p.rail.supply.kind.label}"
    return Finding(
        "job-hinted",
        "note",
        f"{by}: does it do more than shine? {job.label}.",
        by,
        "its job known",
        job.harm,
        (Remedy("no-second-job", "It only shines: looked into", {"second_job": NONE}),),
    )


@rule
def second_job(c: Context) -> Iterable[Finding]:
    """A lamp that may be part of the circuit is not swapped before that is found out."""
    p = c.position
    said = duty_report(p.purpose, p.cues, p.second_job, p.job_given_to, hints=p.hints)
    if not said.line:
        if p.hints and p.second_job == "":
            yield _hinted(p)
        return
    if unexplained(p.purpose, p.cues, p.second_job, p.hints):
        seen = [CUES[k].label for k in CUES if k in p.cues]
        seen += [f'called "{h.by}"' for h in p.hints if h.asks]
        figure = ", ".join(seen) or "it is there to do something"
        yield Finding("second-job", "stop", said.line, figure, "its job known", said.settle)
    elif said.closed:
        name = "leave-it" if JOBS[p.second_job].verdict == "leave" else "job-given-to-none"
        yield Finding(name, "stop", said.line, JOBS[p.second_job].label, "a lamp that only shines", said.settle)
    else:
        yield Finding(
            "job-given",
            "note",
            said.line,
            JOBS[p.second_job].label,
            "a part that does it",
            "Prove it in every state: that job and the light are two tests.",
        )
