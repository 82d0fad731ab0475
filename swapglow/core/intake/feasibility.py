"""Should the swap be done at all: access, brittleness, serviceability, hours and price."""

from dataclasses import dataclass
from typing import Literal

Access = Literal["", "screws", "clips", "sealed", "welded"]
Brittle = Literal["", "sound", "aged", "brittle"]
After = Literal["", "yes", "no"]
# As they are offered.
ACCESS: dict[Access, str] = {
    "": "Not looked",
    "screws": "Screws",
    "clips": "Clips",
    "sealed": "Heat, sealant",
    "welded": "It is welded",
}
BRITTLE: dict[Brittle, str] = {"": "Not looked", "sound": "Sound", "aged": "Aged", "brittle": "Brittle"}
AFTER: dict[After, str] = {"": "Not known", "yes": "Yes", "no": "No"}

# A small job is an hour or two (common practice); from four on it is a project, from a working
# week on a warning: a hand-built lamp cluster took eighty hours and failed within weeks.
SMALL_H = 2.0
PROJECT_H = 8.0
WARNING_H = 40.0


@dataclass(frozen=True)
class Feasibility:
    """What is known before the case is opened.

    Attributes:
        access: how the case opens.
        brittle: how its plastic and glass are.
        serviceable: whether it can be opened again afterwards.
        hours: of work expected.
        price: of parts, in the shop's own money.
        hour_price: what an hour counts as; 0 where it is nobody's money.
        others: (what, price) of the alternatives: a replacement, a same-base LED lamp, one with the
            load built in.
    """

    access: Access = ""
    brittle: Brittle = ""
    serviceable: After = ""
    hours: float | None = None
    price: float | None = None
    hour_price: float = 0.0
    others: tuple[tuple[str, float], ...] = ()


@dataclass(frozen=True)
class Advice:
    """A recommendation: go, think or leave, with its reasons and what is not known yet."""

    verdict: Literal["go", "think", "leave", "unknown"]
    line: str
    reasons: tuple[str, ...]
    open: tuple[str, ...]


def advise(w: Feasibility) -> Advice:
    """Weigh what is known; the user may overrule it."""
    against: list[str] = []
    stop: list[str] = []
    fair: list[str] = []
    if w.access == "welded":
        stop.append("The case is welded: cut lenses crack.")
    elif w.access == "sealed":
        against.append("The case is sealed: heat softens the sealant, and a lens may not come off whole.")
    elif w.access:
        fair.append(f"The case opens by {w.access}.")
    if w.brittle == "brittle":
        (stop if w.access in ("sealed", "welded") else against).append("It is brittle: clips and lugs break.")
    elif w.brittle == "aged":
        against.append("The plastic is aged: warm it, and keep every splinter.")
    if w.serviceable == "no":
        against.append("It could not be opened again: one LED that fails then costs the whole unit.")
    if w.hours is not None:
        if w.hours >= WARNING_H:
            stop.append(f"{w.hours:g} hours: jobs like this have failed within weeks and could not be opened again.")
        elif w.hours > PROJECT_H:
            against.append(f"{w.hours:g} hours is a project, not a swap.")
        elif w.hours <= SMALL_H:
            fair.append(f"{w.hours:g} hours is a small job.")
    _compare(w, against, fair)
    asked = (
        ("how the case opens", w.access),
        ("how brittle it is", w.brittle),
        ("whether it can be opened again", w.serviceable),
        ("the hours", w.hours),
    )
    missing = tuple(name for name, value in asked if value in ("", None))
    if len(missing) == len(asked) and not w.others:
        return Advice("unknown", "Not looked at yet: ask before opening it.", (), missing)
    if stop:
        return Advice("leave", "Leave it, or replace the unit.", (*stop, *against), missing)
    if len(against) >= 2:
        return Advice("think", "Think twice: weigh a replacement first.", (*against, *fair), missing)
    if against:
        return Advice("go", "Worth doing, with one thing to mind.", (*against, *fair), missing)
    return Advice("go", "Worth doing.", tuple(fair), missing)


def _compare(w: Feasibility, against: list[str], fair: list[str]) -> None:
    """The cheapest alternative beside the parts and the hours."""
    if not w.others:
        return
    what, price = min(w.others, key=lambda o: o[1])
    own = (w.price or 0.0) + (w.hours or 0.0) * w.hour_price
    if own <= 0:
        return
    if price < own:
        against.append(f"{what[:1].upper()}{what[1:]} costs {price:g}, the swap {own:g}.")
    else:
        fair.append(f"The swap costs {own:g}, {what} {price:g}.")
