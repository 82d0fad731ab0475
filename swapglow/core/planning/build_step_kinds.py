"""What a step of the build means for the plan: whose minutes it teaches, what is done once it is ticked, its parts."""

from dataclasses import dataclass

from swapglow.core.planning.work import KINDS, Kind


@dataclass(frozen=True)
class BuildStepKind:
    """A step that means something for the plan.

    Attributes:
        work: the kind of work whose minutes are learnt from it; None for none.
        behind: kinds of work that are done once it is ticked; all of them end the work on the lamp.
        takes_parts: whether ticking it takes the lamp's parts out of stock.
    """

    work: Kind | None = None
    behind: frozenset[Kind] = frozenset()
    takes_parts: bool = False


_TRIED: frozenset[Kind] = frozenset({"read", "trial"})
_READY: frozenset[Kind] = _TRIED | {"desolder", "sleeve"}
# By the ids of :mod:`swapglow.core.build_steps.steps`; a step that is not here means nothing for the plan.
BUILD_STEPS: dict[str, BuildStepKind] = {
    "take": BuildStepKind(takes_parts=True),
    "clips": BuildStepKind("trial"),
    "power": BuildStepKind("trial"),
    "works": BuildStepKind("trial", _TRIED),
    "legs": BuildStepKind("sleeve"),
    "sleeve": BuildStepKind("sleeve"),
    "lead": BuildStepKind("solder"),
    "wires": BuildStepKind("solder"),
    "polarity": BuildStepKind("solder", _READY),
    "solder": BuildStepKind("solder"),
    "soak": BuildStepKind("soak", _READY | {"solder", "prove", "soak"}),
    "reverse": BuildStepKind("close", frozenset(KINDS)),
    "after": BuildStepKind("close"),
}
# What somebody ticks in the day itself: that kind of work, and with the last of them all of it.
_DAY = "day-"
_BY_DAY: dict[str, BuildStepKind] = {
    f"{_DAY}{kind}": BuildStepKind(behind=frozenset(KINDS) if kind == "close" else frozenset({kind})) for kind in KINDS
}
# The step that takes the parts.
TAKE_STEP = next(id_ for id_, kind in BUILD_STEPS.items() if kind.takes_parts)


def kind_of_step(id_: str) -> BuildStepKind:
    """What a step, or a tick in the day, means for the plan."""
    return BUILD_STEPS.get(id_) or _BY_DAY.get(id_) or BuildStepKind()


def day_tick(kind: Kind) -> str:
    """What is ticked when a kind of work was done; "" for a reading, which is done once it is written down."""
    return "" if kind == "read" else f"{_DAY}{kind}"
