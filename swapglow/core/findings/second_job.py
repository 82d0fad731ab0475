"""What else the lamp does: an unexplained cue, a lamp that is left, a job that is given to no part."""

from collections.abc import Iterable

from swapglow.core.findings.finding import Finding
from swapglow.core.findings.registry import Context, rule
from swapglow.core.intake.second_job import CUES, JOBS, duty_report, unexplained


@rule
def second_job(c: Context) -> Iterable[Finding]:
    """A lamp that may be part of the circuit is not swapped before that is found out."""
    p = c.position
    said = duty_report(p.purpose, p.cues, p.second_job, p.job_given_to)
    if not said.line:
        return
    if unexplained(p.purpose, p.cues, p.second_job):
        seen = ", ".join(CUES[k].label for k in CUES if k in p.cues) or "it is there to do something"
        yield Finding("second-job", "stop", said.line, seen, "its job known", said.settle)
    elif said.closed:
        name = "leave-it" if JOBS[p.second_job].verdict == "leave" else "job-given-to-none"
        yield Finding(
            name, "stop", said.line, JOBS[p.second_job].label, "a lamp that only shines", said.settle
        )
    else:
        yield Finding("job-given", "note", said.line, JOBS[p.second_job].label, "a part that does it",
                      "Prove it in every state: that job and the light are two tests.")  # fmt: skip
