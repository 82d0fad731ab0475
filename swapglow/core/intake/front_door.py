"""What somebody has in hand, and at most two more questions: which lamp or circuit is begun with that.

What light is asked for first, then what can be seen of its feed, then whether the lamp does more than shine: that
question stands before any resistor is chosen (common practice). Every answer may be changed later on.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Literal

from swapglow.core.intake.tables import rows
from swapglow.core.quantities import InputError

What = Literal["lamp", "circuit", "dim"]


@dataclass(frozen=True)
class Begun:
    """What an answer begins.

    Attributes:
        what: a lamp to be swapped, a circuit of a kind, or a fitted LED that is to be dimmed.
        circuit: the kind of circuit; "" for none.
        supply: the kind of its rail; "" where the item's first will do.
        fields: of the lamp, by name.
        panel: the part of its view that is opened first; "" for none.
    """

    what: What = "lamp"
    circuit: str = ""
    supply: str = ""
    fields: Mapping[str, str] = field(default_factory=dict)
    panel: str = ""


@dataclass(frozen=True)
class Answer:
    """An answer to a question.

    Attributes:
        id, label: the answer.
        begins: what follows from it; None where nothing does.
        refused: why nothing is begun; "" where something is.
    """

    id: str
    label: str
    begins: Begun | None = None
    refused: str = ""


@dataclass(frozen=True)
class Question:
    """A question by what can be seen: its answers, the likeliest first."""

    id: str
    ask: str
    answers: tuple[Answer, ...]


@dataclass(frozen=True)
class Start:
    """What somebody may have.

    Attributes:
        id, label, line: what it is, and how one knows it.
        name: what the new lamp is called until somebody names it.
        words: other words that it is searched by.
        questions: what is asked then.
        begins: what is begun where the answers say nothing else.
    """

    id: str
    label: str
    line: str
    name: str
    words: str
    questions: tuple[Question, ...] = ()
    begins: Begun = field(default_factory=Begun)


def _begun(text: str) -> Begun | None:
    """What a table's cell begins: "lamp supply=winding purpose=do", "circuit=magneto", "dim"; nothing where empty."""
    if not text:
        return None
    what, *more = text.split()
    said = dict(part.split("=", 1) for part in more)
    if what.startswith("circuit="):
        return Begun("circuit", what.removeprefix("circuit="))
    if what == "dim":
        return Begun("dim")
    return Begun("lamp", "", said.pop("supply", ""), said, said.pop("panel", ""))


def _questions(start: str) -> tuple[Question, ...]:
    own = [r for r in rows("start_answers") if start in r["starts"].split()]
    return tuple(
        Question(
            id_,
            next(r["ask"] for r in own if r["question"] == id_),
            tuple(Answer(r["id"], r["label"], _begun(r["begins"]), r["refused"]) for r in own if r["question"] == id_),
        )
        for id_ in dict.fromkeys(r["question"] for r in own)
    )


STARTS: dict[str, Start] = {
    r["id"]: Start(
        r["id"], r["label"], r["line"], r["name"], r["words"], _questions(r["id"]), _begun(r["begins"]) or Begun()
    )
    for r in rows("starts")
}


def begun(start: str, answers: Iterable[str]) -> tuple[Start, Begun]:
    """What is begun with some answers, in the questions' order.

    A circuit ends the questions: what it does is its own matter.

    Args:
        start: what somebody has.
        answers: ids; fewer than there are questions leave the others unasked.

    Returns:
        The start, and what it begins.

    Raises:
        InputError: there is no such start or answer, or what it is is refused by name.
    """
    if start not in STARTS:
        raise InputError("start", f'There is nothing "{start}" to begin with: {", ".join(STARTS)}.')
    found = STARTS[start]
    out = found.begins
    given = list(answers)
    if len(given) > len(found.questions):
        raise InputError("answers", f"{found.label} asks {len(found.questions)} questions; {len(given)} were answered.")
    for question, id_ in zip(found.questions, given, strict=False):
        answer = next((a for a in question.answers if a.id == id_), None)
        if answer is None:
            known = ", ".join(a.id for a in question.answers)
            raise InputError("answers", f'"{id_}" is no answer to "{question.ask}": {known}.')
        if answer.refused:
            raise InputError("answers", answer.refused)
        more = answer.begins
        if more is None:
            continue
        if more.what != "lamp":
            return found, more
        out = replace(
            out,
            what="lamp",
            circuit="",
            supply=more.supply or out.supply,
            fields={**out.fields, **more.fields},
            panel=more.panel or out.panel,
        )
    return found, out
