"""What working out LEDs that are there already comes to: the same shape for boards, strings, banks and power LEDs."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Literal

from swapglow.core.findings.finding import GRADES, Grade
from swapglow.core.quantities import Shown

# What an open wire's insulation lets through is nothing to a meter, A.
LEAST_A = 1e-6


@dataclass(frozen=True)
class Figure:
    """One figure, what it is, and what it was before where that differs."""

    label: str
    now: Shown
    after: Shown | None = None


@dataclass(frozen=True)
class BranchStep:
    """What one part of a branch keeps, V."""

    label: str
    volts: float


@dataclass(frozen=True)
class BranchStair:
    """One branch beside the others: what of its feed each part keeps, from the feed down."""

    label: str
    steps: tuple[BranchStep, ...]
    amps: Shown
    after: Shown | None
    light: str


@dataclass(frozen=True)
class Way:
    """One thing that may be done.

    Attributes:
        label: what it is.
        what: how, in a line.
        share: current it leaves beside what flows now; light and heat with it in words.
        light: that as an eye takes it.
        bars: why it should not be done; empty where it may.
        advised: whether it is ours of all that reach what is wanted.
        changes: details that it changes, by name, as typed texts.
    """

    label: str
    what: str
    share: Shown
    light: str
    bars: str
    advised: bool
    changes: Mapping[str, str]


@dataclass(frozen=True)
class Fault:
    """A fault, and what the others then carry."""

    label: str
    others: str


@dataclass(frozen=True)
class Judged:
    """A judgement: stop, mind or note."""

    grade: Grade
    message: str
    why: str


def gravest_first(judged: Iterable[Judged]) -> tuple[Judged, ...]:
    """Judgements in the order they are shown."""
    return tuple(sorted(judged, key=lambda j: GRADES.index(j.grade)))


@dataclass(frozen=True)
class Row:
    """One line of a table: its cells stand under the table's heads."""

    label: str
    cells: tuple[Shown, ...]
    words: str = ""


@dataclass(frozen=True)
class Table:
    """Figures that belong side by side: settings of a knob, lamps of a matrix."""

    label: str
    heads: tuple[str, ...]
    rows: tuple[Row, ...]


@dataclass(frozen=True)
class CurvePoint:
    """A point of a curve, in the units of its axes."""

    x: float
    y: float


@dataclass(frozen=True)
class Curve:
    """One line of a picture: of the old lamp, of the LED as it is, or of what is meant."""

    label: str
    of: Literal["old", "new", "after"]
    points: tuple[CurvePoint, ...]


def curve(label: str, of: Literal["old", "new", "after"], x: Iterable[float], y: Iterable[float]) -> Curve:
    """A curve from its columns.

    Args:
        label: what it is of.
        of: the old lamp, the LED as it is, or what is meant.
        x, y: equally many, in the units of the axes.

    Returns:
        The curve.
    """
    return Curve(label, of, tuple(CurvePoint(float(a), float(b)) for a, b in zip(x, y, strict=True)))


@dataclass(frozen=True)
class Picture:
    """Curves over one axis; the axes carry their units."""

    label: str
    across: str
    up: str
    curves: tuple[Curve, ...]


@dataclass(frozen=True)
class FlowPath:
    """A way that current takes, from its feed to ground, and what it lights.

    Attributes:
        state: the switches.
        stations: what it goes through, in order.
        wanted: whether it should be there.
        amps: what flows.
        said: what is seen of it.
    """

    state: str
    stations: tuple[str, ...]
    wanted: bool
    amps: Shown
    said: str


@dataclass(frozen=True)
class PinRow:
    """A package as it stands before one: its pins from left to right, seen from one face."""

    package: str
    face: str
    pins: tuple[str, ...]


@dataclass(frozen=True)
class RulePoint:
    """A part at one value, and what flows with it."""

    value: str
    share: Shown
    light: str
    bars: str
    label: str


@dataclass(frozen=True)
class PartRule:
    """Values that one part may have, in order; ``fitted`` is the place of the one that is there.

    A point's label is that of the way it is: whoever chooses it decides on that.
    """

    label: str
    points: tuple[RulePoint, ...]
    fitted: int


@dataclass(frozen=True)
class Worked:
    """What it comes to.

    Attributes:
        line: the answer, in one line.
        figures: what flows and warms, now and after what is meant.
        stairs: branches side by side.
        pictures: light or current over something that is turned, old and new.
        paths: the ways that current takes, those that should not be there among them.
        tables: figures that belong side by side.
        rules: of each part that may be changed, what each value of it leaves.
        pins: packages as they stand, from both faces.
        ways: what may be done, the advised first.
        faults: what a fault does to the others.
        judged: judgements, the gravest first.
        spice: the circuit as text for a simulator; empty where there is none.
    """

    line: str
    figures: tuple[Figure, ...] = ()
    stairs: tuple[BranchStair, ...] = ()
    pictures: tuple[Picture, ...] = ()
    paths: tuple[FlowPath, ...] = ()
    tables: tuple[Table, ...] = ()
    rules: tuple[PartRule, ...] = ()
    pins: tuple[PinRow, ...] = ()
    ways: tuple[Way, ...] = ()
    faults: tuple[Fault, ...] = ()
    judged: tuple[Judged, ...] = ()
    spice: str = ""


def picked(ways: tuple[Way, ...], chosen: str) -> Way | None:
    """The way somebody chose, by its label; else ours.

    Args:
        ways: what may be done.
        chosen: a label; empty where nobody chose.

    Returns:
        None where none is chosen or advised.
    """
    by_label = next((w for w in ways if w.label == chosen), None)
    return by_label or next((w for w in ways if w.advised), None)
