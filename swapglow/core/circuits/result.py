"""What a circuit comes to: one shape for boards, strings, banks, power LEDs and lamps with a second job.

Ids are stored, sent and tested. Labels and sentences may be changed without anything else noticing.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Literal

from swapglow.core.drawing.drawing import Drawing
from swapglow.core.findings.finding import GRADES, Finding
from swapglow.core.quantities import Shown

# An open wire's insulation passes less than this; no meter shows it, A.
LEAST_A = 1e-6

# What an option's outcome is.
Outcome = Literal["current_ratio", "light_ratio", "current", "resistance", "heat", "temperature", "count"]


@dataclass(frozen=True)
class Figure:
    """One figure, and what it is once the chosen option is done, where that differs."""

    id: str
    label: str
    now: Shown
    after: Shown | None = None


@dataclass(frozen=True)
class BranchStep:
    """The voltage across one part of a branch, V."""

    label: str
    volts: float


@dataclass(frozen=True)
class BranchStair:
    """One branch beside the others: the voltage across each part, from the feed down."""

    id: str
    label: str
    steps: tuple[BranchStep, ...]
    amps: Shown
    after: Shown | None
    light: str


@dataclass(frozen=True)
class Option:
    """One thing that may be done.

    Attributes:
        id: stored when somebody chooses it.
        label: what it is.
        what: how, in a line.
        outcome: the figure by which options are compared; ``of`` says which quantity it is.
        light: that as an eye sees it.
        bars: why it should not be done; empty where it may.
        advised: whether it is our choice among those that reach what is wanted.
        changes: details that it changes, by id, as typed texts.
    """

    id: str
    label: str
    what: str
    outcome: Shown
    of: Outcome
    light: str = ""
    bars: str = ""
    advised: bool = False
    changes: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Fault:
    """A fault, and what it does to the other parts."""

    id: str
    label: str
    others: str


def gravest_first(findings: Iterable[Finding]) -> tuple[Finding, ...]:
    """Findings in the order they are shown."""
    return tuple(sorted(findings, key=lambda f: GRADES.index(f.grade)))


@dataclass(frozen=True)
class Row:
    """One line of a table, one cell for each of the table's heads."""

    id: str
    label: str
    cells: tuple[Shown, ...]
    words: str = ""


@dataclass(frozen=True)
class Table:
    """Figures that belong side by side: settings of a knob, lamps of a matrix."""

    id: str
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
    """One line of a picture: the old lamp, the LED as it is, or after the chosen option."""

    label: str
    of: Literal["old", "new", "after"]
    points: tuple[CurvePoint, ...]


def curve(label: str, of: Literal["old", "new", "after"], x: Iterable[float], y: Iterable[float]) -> Curve:
    """A curve from its columns.

    Args:
        label: what it shows.
        of: the old lamp, the LED as it is, or after the chosen option.
        x, y: equally many, in the units of the axes.

    Returns:
        The curve.
    """
    return Curve(label, of, tuple(CurvePoint(float(a), float(b)) for a, b in zip(x, y, strict=True)))


@dataclass(frozen=True)
class Picture:
    """Curves over one axis; the axes carry their units."""

    id: str
    label: str
    across: str
    up: str
    curves: tuple[Curve, ...]


@dataclass(frozen=True)
class FlowPath:
    """A path of current, from its feed to ground, and what it lights.

    Attributes:
        id: the state and the part it is about.
        state: the switches.
        stations: what it goes through, in order.
        wanted: whether it should be there.
        amps: what flows.
        said: what is seen of it.
    """

    id: str
    state: str
    stations: tuple[str, ...]
    wanted: bool
    amps: Shown
    said: str


@dataclass(frozen=True)
class PinRow:
    """A package in front of you: its pins from left to right, seen from one face."""

    package: str
    face: str
    pins: tuple[str, ...]


@dataclass(frozen=True)
class RulePoint:
    """A part at one value, and what flows with it; ``option`` is the id that choosing it stores."""

    option: str
    label: str
    value: str
    outcome: Shown
    light: str
    bars: str


@dataclass(frozen=True)
class PartRule:
    """Values that one part may have, in order; ``fitted`` is the place of the one that is there."""

    id: str
    label: str
    points: tuple[RulePoint, ...]
    fitted: int


@dataclass(frozen=True)
class PartRead:
    """What a part carries in a state.

    Attributes:
        part: its id in the drawing.
        volts, amps: across it and through it, with what kind of figure each is.
        shape: a contact's symbol as it stands in this state; empty where it is drawn as ever.
    """

    part: str
    volts: str
    amps: str
    shape: str = ""


@dataclass(frozen=True)
class PictureState:
    """A state of a circuit, by its place among all of them, and what each part carries in it."""

    id: str
    label: str
    parts: tuple[PartRead, ...]


@dataclass(frozen=True)
class WiringPicture:
    """A circuit's wiring, drawn from its netlist; parts that open a detail can be typed into."""

    drawing: Drawing
    states: tuple[PictureState, ...] = ()


@dataclass(frozen=True)
class BuildPart:
    """A part that an option changes: what is done with it, and how it is put back."""

    id: str
    done: Literal["fit", "remove", "change"]
    act: str
    back: str


@dataclass(frozen=True)
class CircuitResult:
    """What a circuit comes to.

    Attributes:
        line: the answer, in one line.
        figures: currents and heat, now and after the chosen option.
        stairs: branches side by side.
        pictures: light or current over something that is turned, old and new.
        paths: where current flows, those that should not be there among them.
        tables: figures that belong side by side.
        rules: of each part that may be changed, the outcome of each value.
        pins: a package from both faces.
        options: what may be done, the advised first.
        faults: what a fault does to the other parts.
        findings: judgements, the gravest first.
        spice: the circuit as text for a simulator; empty where there is none.
        wiring, wiring_after: the circuit drawn as it is, and once the chosen option is done; None where it has no
            wiring, or nothing changes.
        build: the parts that the chosen option changes.
    """

    line: str
    figures: tuple[Figure, ...] = ()
    stairs: tuple[BranchStair, ...] = ()
    pictures: tuple[Picture, ...] = ()
    paths: tuple[FlowPath, ...] = ()
    tables: tuple[Table, ...] = ()
    rules: tuple[PartRule, ...] = ()
    pins: tuple[PinRow, ...] = ()
    options: tuple[Option, ...] = ()
    faults: tuple[Fault, ...] = ()
    findings: tuple[Finding, ...] = ()
    spice: str = ""
    wiring: WiringPicture | None = None
    wiring_after: WiringPicture | None = None
    build: tuple[BuildPart, ...] = ()


def picked(options: tuple[Option, ...], chosen: str) -> Option | None:
    """The option somebody chose, by its id; else ours.

    Args:
        options: what may be done.
        chosen: an id; empty where nobody chose.

    Returns:
        None where none is chosen or advised.
    """
    by_id = next((o for o in options if o.id == chosen), None)
    return by_id or next((o for o in options if o.advised), None)
