"""A step at the bench: what to do, with which meter, where, in which state, and what an answer would mean."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Meaning:
    """What an answer would mean."""

    answer: str
    means: str


@dataclass(frozen=True)
class NextStep:
    """One thing to do.

    Attributes:
        id: names the step.
        act: what to do, in a line.
        meter: function and range.
        points: between which points.
        state: of the switch and of all that matters.
        expect: what the meter should show.
        reading: the figure that the typed reading sets, None where there is none to take.
        why: what it settles.
        caution: the usual caution at this step.
        meanings: what each answer would mean.
        example: a reading as one would type it.
        stops: whether nothing may be powered or fitted before it is done.
        chain: all that is read one after another, ``reading`` first; empty for one reading.
    """

    id: str
    act: str
    meter: str
    points: str
    state: str
    expect: str
    reading: str | None
    why: str
    caution: str
    meanings: tuple[Meaning, ...] = ()
    example: str = ""
    stops: bool = False
    chain: tuple[str, ...] = ()
