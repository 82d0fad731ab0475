"""What ``assess`` answers: plain values, ready to be sent or printed.

Every figure is a :class:`Shown`: number and unit as an engineer writes them, the SI value, and
where it came from.
"""

from dataclasses import dataclass, field
from typing import Literal

from swapglow.core.quantities import Source, Unit, engineering

Grade = Literal["stop", "mind", "note"]


@dataclass(frozen=True)
class Shown:
    """A figure: SI value, number and unit as printed, and its origin in words."""

    value: float
    number: str
    unit: str
    source: Source
    origin: str

    @property
    def text(self) -> str:
        """Number and unit together."""
        return f"{self.number}\u00a0{self.unit}"


def shown(value: float, unit: Unit | str, origin: str, source: Source = Source.COMPUTED,
          digits: int = 3) -> Shown:  # fmt: skip
    """A figure in engineering form."""
    number, prefix = engineering(value, digits)
    symbol = unit if isinstance(unit, str) else unit.symbol
    return Shown(float(value), number, prefix + symbol, source, origin)


@dataclass(frozen=True)
class SizingReport:
    """Exact and preferred resistance, and what is fitted."""

    headroom: Shown
    headroom_share: float
    exact: Shown | None
    preferred: Shown | None
    each: Shown
    parts: int
    total: Shown
    is_own: bool
    rule: str


@dataclass(frozen=True)
class Corner:
    """The current at one rail level with one LED."""

    rail: Literal["low", "usual", "high"]
    led: Literal["highest", "typical", "lowest"]
    current: Shown


@dataclass(frozen=True)
class CurrentReport:
    """Typical LED at three rails, the ends of all corners, and every corner."""

    low: Shown
    usual: Shown
    high: Shown
    least: Shown
    most: Shown
    rated: Shown
    ceiling: Shown
    corners: tuple[Corner, ...]


@dataclass(frozen=True)
class PowerReport:
    """Heat in each resistor part at the highest rail, and the rating it needs."""

    each: Shown
    to_fit: Shown | None
    rating: Shown | None
    load: float | None


@dataclass(frozen=True)
class AtRails:
    """A figure in SI units at the low, usual and high rail."""

    low: float
    usual: float
    high: float


StairKind = Literal[
    "rail", "source", "shared", "lamps", "rectifier", "driver", "regulator", "resistor", "inside", "diode",
    "led", "ground",
]  # fmt: skip


@dataclass(frozen=True)
class Stair:
    """A step of the volt staircase: the volts it takes, and the level that is left below it."""

    id: str
    kind: StairKind
    label: str
    detail: str
    drop: AtRails
    level: AtRails
    text: str
    source: Source


@dataclass(frozen=True)
class Staircase:
    """The rail as height, coming down part by part."""

    top_v: float
    stairs: tuple[Stair, ...]


@dataclass(frozen=True)
class SupplyReport:
    """What feeds the rail, and what to expect of it.

    ``levels`` name the lowest, usual and highest rail.
    """

    kind: str
    label: str
    flow: Literal["dc", "sine", "reversing", "pulses"]
    expect: str
    levels: tuple[str, ...]
    source_ohm: Shown | None


@dataclass(frozen=True)
class TreatmentOption:
    """A way to make the LED live on a supply that alternates."""

    id: str
    label: str
    why: str


@dataclass(frozen=True)
class CycleLevel:
    """What a cycle comes to at one level of the supply, typical LED.

    Flicker is the light's modulation in %, with its frequency and the low-risk limit there
    (IEEE 1789-2015); None where the supply has no frequency to reckon with.
    """

    label: str
    hertz: Shown | None
    average: Shown
    peak: Shown
    reverse: Shown
    conduction_deg: float
    flicker_hz: Shown | None
    modulation: float
    limit: float | None


@dataclass(frozen=True)
class Cycle:
    """A treated LED over the cycle.

    ``amps`` are the LED's current over ``degrees`` at the low, usual and high level.
    """

    treatment: str
    label: str
    why: str
    options: tuple[TreatmentOption, ...]
    levels: tuple[CycleLevel, ...]
    crest: Shown
    capacitor: Shown | None
    capacitor_rating: Shown | None
    ripple: Shown | None
    diode_reverse: Shown | None
    diode_rating: Shown | None
    polarity: str
    degrees: tuple[float, ...]
    amps: tuple[tuple[float, ...], ...]


@dataclass(frozen=True)
class RuntimePoint:
    """A moment of a battery's life: light as a share of the first."""

    hours: float
    volts: float
    light: float


@dataclass(frozen=True)
class Runtime:
    """How long the battery keeps the light above ``floor`` of its first, after the swap and before."""

    floor: float
    led: Shown
    lamp: Shown | None
    led_curve: tuple[RuntimePoint, ...]
    lamp_curve: tuple[RuntimePoint, ...]


# Verdicts on a resistance: while lit, and (the last three) of a lamp that should be dark.
ZoneId = Literal["over", "drive", "trip", "fits", "dim", "hot", "lit_room", "dark_room", "dark"]


@dataclass(frozen=True)
class Tick:
    """A mark on a scale of the slide rule, placed by the ohms under it."""

    at_ohm: float
    text: str
    weight: Literal[1, 2, 3]


@dataclass(frozen=True)
class Scale:
    """One scale of the slide rule."""

    id: str
    label: str
    unit: str
    ticks: tuple[Tick, ...]


@dataclass(frozen=True)
class Zone:
    """A stretch of the slide rule with one verdict."""

    id: ZoneId
    label: str
    from_ohm: float
    to_ohm: float


@dataclass(frozen=True)
class RuleValue:
    """What the slide rule reads at one preferred value."""

    ohm: float
    text: str
    zone: ZoneId
    in_drawer: bool


@dataclass(frozen=True)
class SlideRule:
    """Aligned scales over ohms of each part."""

    low_ohm: float
    high_ohm: float
    cursor_ohm: float
    values: tuple[RuleValue, ...]
    scales: tuple[Scale, ...]
    zones: tuple[Zone, ...]
    hot: Zone | None


@dataclass(frozen=True)
class GlowLamp:
    """A lamp as it looks in the glow box.

    ``colour`` is the lamp as seen against the brightest, ``hue`` its colour at full light.
    ``lightness`` is L* against the brightest lamp in the box; ``ratio`` is intensity against the
    original lamp at the usual rail, None where that is not known.
    """

    id: str
    label: str
    colour: str
    hue: str
    lightness: float
    ratio: float | None
    ratio_text: str
    intensity: Shown


@dataclass(frozen=True)
class Moment:
    """A staircase at one instant of the supply, or in one state of the driver.

    Where a state changes what the other instruments show, ``glow`` and ``rule`` are theirs, ``reads``
    what each of the rule's scales reads under the cursor, and ``line`` says it in a sentence.
    """

    id: str
    label: str
    staircase: Staircase
    glow: tuple[GlowLamp, ...] = ()
    rule: SlideRule | None = None
    reads: dict[str, str] = field(default_factory=dict)
    line: str = ""


@dataclass(frozen=True)
class Remedy:
    """A change that clears a finding; ``changes`` are fields of the position."""

    id: str
    label: str
    changes: dict[str, float | int | str | None]


@dataclass(frozen=True)
class Finding:
    """A judgement with its figure, its limit, why it matters and what would clear it."""

    id: str
    grade: Grade
    message: str
    figure: str
    limit: str
    why: str
    remedies: tuple[Remedy, ...] = ()


@dataclass(frozen=True)
class PencilItem:
    """A figure the result rests on, with what its doubt does to the current."""

    id: str
    label: str
    text: str
    source: Source
    swing_a: float
    swing_text: str


@dataclass(frozen=True)
class Pencil:
    """How much of the result still rests on assumption."""

    items: tuple[PencilItem, ...]
    share: float
    line: str


@dataclass(frozen=True)
class Meaning:
    """What an answer would mean."""

    answer: str
    means: str


@dataclass(frozen=True)
class NextStep:
    """The one thing to do now.

    ``reading`` names the figure the typed reading would ink, None where there is none to take.
    ``meanings`` say what each answer would mean.
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


@dataclass(frozen=True)
class Cause:
    """A fault that would produce the reading taken."""

    id: str
    message: str
    predicted: Shown


@dataclass(frozen=True)
class Verdict:
    """A reading after the swap against the expected band."""

    id: str
    kind: str
    reading: Shown
    expected: Shown
    low: Shown
    high: Shown
    agrees: bool
    line: str
    causes: tuple[Cause, ...]


@dataclass(frozen=True)
class TakenReport:
    """A reading before the swap, and what it would have been without the meter, where that differs."""

    id: str
    text: str
    corrected: str
    why: str


@dataclass(frozen=True)
class Inference:
    """Something the readings before the swap say together, and never counted as measured.

    ``basis`` is the readings it rests on; ``sets`` the fields of the rail it would set, as texts:
    "kind", "usual", "open", "load".
    """

    id: str
    statement: str
    basis: str
    sets: dict[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Contradiction:
    """Readings that do not go together, with the likeliest explanation."""

    id: str
    message: str
    likeliest: str


@dataclass(frozen=True)
class TruthRow:
    """A switch state: volts at the lamp, whether it lights, whether the contact is closed."""

    state: str
    volts: str
    lit: bool
    closed: str


@dataclass(frozen=True)
class Truth:
    """The switch states side by side; ``line`` says plainly where the logic is inverted."""

    rows: tuple[TruthRow, ...]
    inverted: bool
    line: str


@dataclass(frozen=True)
class SweepPoint:
    """Volts and amps of a reading, or of the curve."""

    volts: float
    amps: float


@dataclass(frozen=True)
class SweepReport:
    """A sweep with the curve through it: n is that of all LEDs in series together."""

    points: tuple[SweepPoint, ...]
    curve: tuple[SweepPoint, ...]
    i_s: Shown
    n: float
    r_s: Shown
    error: Shown
    worst: Shown
    line: str


@dataclass(frozen=True)
class Survey:
    """All that was read before the swap, what follows from it, and what is still worth reading."""

    readings: tuple[TakenReport, ...]
    inferences: tuple[Inference, ...]
    contradictions: tuple[Contradiction, ...]
    truth: Truth | None
    plan: tuple[NextStep, ...]


@dataclass(frozen=True)
class Report:
    """Everything about a position, for the screen, the command line and the card."""

    sizing: SizingReport
    current: CurrentReport
    power: PowerReport
    supply: SupplyReport
    staircase: Staircase
    moments: tuple[Moment, ...]
    cycle: Cycle | None
    runtime: Runtime | None
    rule: SlideRule
    glow: tuple[GlowLamp, ...]
    findings: tuple[Finding, ...]
    pencil: Pencil
    next_step: NextStep
    verdicts: tuple[Verdict, ...]
    survey: Survey
