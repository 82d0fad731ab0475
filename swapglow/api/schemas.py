"""What goes over the wire: the input models with keys, and the core's own values passed on as they are."""

from typing import Annotated, Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field, StrictFloat, StrictInt, StrictStr

from swapglow.core.circuits.answer import CircuitAnswer
from swapglow.core.evidence.lot import Lot
from swapglow.core.findings.finding import Grade
from swapglow.core.intake.feasibility import Advice
from swapglow.core.intake.front_door import What
from swapglow.core.intake.troubles import Place
from swapglow.core.parts.sweep import SweepReport
from swapglow.core.planning.job import Job
from swapglow.core.presentation.dimming import Dimming
from swapglow.core.presentation.drawer import DrawerPicture
from swapglow.core.presentation.report import Report
from swapglow.core.presentation.snapshots import Snapshot
from swapglow.core.stock.judged import Made
from swapglow.core.stock.mark import MarkRead
from swapglow.core.stock.order import OrderLine
from swapglow.core.stock.part import Level
from swapglow.core.values.resistor_marks import Marks
from swapglow.inputs.equipment import (
    DimInput,
    DimTrialInput,
    EquipmentInput,
    FeasibilityInput,
    FittedInput,
    OpeningStep,
    Original,
    Other,
    TakeInInput,
    Wait,
    Wire,
)
from swapglow.inputs.kept import Unread
from swapglow.inputs.kin import FieldDifference
from swapglow.inputs.limits import MOST_PARTS, MOST_POSITIONS
from swapglow.inputs.position import Beside, FunctionCheck, PositionInput, StepDone, TrialInput
from swapglow.inputs.quantity import Line, Name, Short
from swapglow.inputs.rail import RailInput
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.inputs.rows import Key
from swapglow.inputs.shape import Shape
from swapglow.inputs.shop import ShopInput
from swapglow.inputs.stock import BenchLedInput, PartInput
from swapglow.records.find import FoundKind

# What each text was taken for, by field.
Echo = dict[str, str]


class FieldProblem(Schema):
    """One refusal: the field, and what would be accepted.

    ``now`` is what stands there since somebody else changed it.
    """

    field: str
    message: str
    now: str | None = None


class Problems(Schema):
    """Why a request was refused; nothing was saved."""

    errors: list[FieldProblem]


class Seen(Shape):
    """What the typist saw in the fields that are sent; without it they are written whatever stands there."""

    was: dict[str, Any] = Field(default_factory=dict)


class DimPatch(DimInput):
    """Fields of a fitted LED to change; a trial under its key, or null to strike it."""

    trials: dict[Key, DimTrialInput | None] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch


class EquipmentPatch(EquipmentInput, Seen):
    """Fields to change; those not sent stay.

    A fitted LED or circuit under its key, what it waits
    for likewise, or null to strike it.
    """

    dims: dict[Key, DimPatch | None] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch
    fitted: dict[Key, FittedInput | None] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch
    waits: dict[Key, Wait | None] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch


class FeasibilityPatch(FeasibilityInput):
    """Answers to change; an alternative under its key, or null to strike it."""

    others: dict[Key, Other | None] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch


class TakeInPatch(TakeInInput, Seen):
    """Parts of the sheet to change: a line under its key, or null to strike it; a danger by yes or no."""

    hazards: dict[Short, bool] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch
    opening: dict[Key, OpeningStep | None] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch
    wires: dict[Key, Wire | None] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch
    originals: dict[Key, Original | None] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch
    feasibility: FeasibilityPatch = FeasibilityPatch()


class RailPatch(RailInput, Seen):
    """Fields to change; those not sent stay, and so do the details not named."""


class NewRail(RailInput):
    """A new rail: what is not given takes its usual value."""

    equipment: UUID


class RailAnswer(RailInput):
    """A rail as kept, with what its texts were taken for and what its kind says of it."""

    id: UUID
    equipment: UUID
    levels: list[str]
    echo: Echo
    reads: str
    unread: list[Unread]


class PositionPatch(PositionInput, Seen):
    """Fields to change; those not sent stay, and so do the details and parts not named.

    What is weighed is said by yes or no; a string of other LEDs or a trial under its
    key, a step or a check likewise, or null to strike it.
    """

    rail: UUID | None = None
    beside: dict[Key, Beside | None] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch
    trials: dict[Key, TrialInput | None] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch
    steps: dict[Key, StepDone | None] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch
    checks: dict[Key, FunctionCheck | None] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch
    weigh: dict[Short, bool] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch
    cues: dict[Short, bool] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch
    dead: dict[Short, bool] = Field(default_factory=dict)  # type: ignore[assignment]  # of a patch


class NewPosition(PositionInput):
    """A new position: what is not given takes its usual value; without a rail it takes the first."""

    rail: UUID | None = None
    equipment: UUID


class PositionAnswer(PositionInput):
    """A position as kept, with what its texts were taken for and what that puts into the holder."""

    id: UUID
    equipment: UUID
    rail: UUID
    echo: Echo
    goes_in: str
    unread: list[Unread]


class NewReadingAfter(ReadingAfterInput):
    """A reading after the swap."""

    position: UUID


class ReadingAfterAnswer(ReadingAfterInput):
    """A reading after the swap, with when it was taken."""

    id: UUID
    at: str


class NewReadingBefore(ReadingBeforeInput):
    """A reading before the swap."""

    position: UUID


class ReadingBeforeAnswer(ReadingBeforeInput):
    """A reading before the swap, with when it was taken."""

    id: UUID
    at: str


class Summary(Schema):
    """A position as the bench shows it; one that is not fresh is being worked out anew."""

    id: UUID
    name: str
    stage: str
    rail: str
    glow_colour: str
    glow_lightness: float
    grade: Grade | None
    line: str
    next_act: str
    fresh: bool


class StepOut(Schema):
    """A step that undo would take back, or redo do again."""

    id: int
    label: str


class PulseOut(Schema):
    """A number that goes up with every change of the records."""

    changes: int


class Steps(Schema):
    """What undo and redo would do; none where nothing."""

    undo: StepOut | None
    redo: StepOut | None


class PhotoOut(Schema):
    """A photograph; the picture itself is at /api/photos/{id}/picture.jpg."""

    id: UUID
    caption: str


class MatchUse(Schema):
    """Resistors of a group of lamps by key, Ω each part; saved as one step."""

    resistors: dict[UUID, Annotated[float, Field(gt=1e-3, lt=1e9)]] = Field(min_length=1, max_length=200)


class MatchEqual(Schema):
    """Lamps that look equal as they stand now, and the one the others were matched to."""

    lamps: list[UUID] = Field(min_length=2, max_length=200)
    reference: UUID


class MatchDiffers(Schema):
    """A lamp that still looks brighter, or dimmer, than another as they stand now."""

    lamp: UUID
    reference: UUID
    brighter: bool


class TakeInView(Schema):
    """The take-in sheet, what it comes to, and the cautions its hazards ask for."""

    sheet: TakeInInput
    advice: Advice
    wires: dict[str, str]
    cautions: list[str]
    photos: list[PhotoOut]
    unread: list[Unread]


class LightOut(Schema):
    """A circuit of an item, or a fitted LED that is to be dimmed, as a line of the item's lamps."""

    id: str
    what: What
    name: str
    line: str
    grade: Grade | None = None


class EquipmentOut(EquipmentInput):
    """An item of equipment with all in it."""

    id: UUID
    take_in: TakeInView
    dimming: dict[str, Dimming]
    answers: dict[str, CircuitAnswer]
    echo: dict[str, Echo]
    rails: list[RailAnswer]
    positions: list[Summary]
    lights: list[LightOut]
    job: Job
    steps: Steps
    unread: list[Unread]


class BenchItem(Schema):
    """An item of equipment on the bench."""

    id: UUID
    name: str
    maker_model: str
    promised: str
    archived: bool
    positions: list[Summary]
    lights: list[LightOut]


class DueOut(Schema):
    """A lamp that is to be looked at again, and since when."""

    id: UUID
    name: str
    item: str
    on: str


class BenchOut(Schema):
    """The bench."""

    due: list[DueOut]
    equipment: list[BenchItem]
    steps: Steps


class StateOut(Schema):
    """What was done at a lamp, and when; ``now`` where it stands so, ``own`` where it can be put back."""

    step: int
    label: str
    at: str
    now: bool
    kind: Literal["change", "rail", "reading", "trial", "build", "photograph"]
    own: bool
    by: str


class Past(Schema):
    """A lamp's earlier states, the newest first."""

    states: list[StateOut]


class ChangedOut(Schema):
    """A field or a figure at two moments."""

    what: str
    was: str
    now: str


class ComparedOut(Schema):
    """Two moments of a lamp: what differs, and what that did to its figures."""

    changes: list[ChangedOut]
    figures: list[ChangedOut]
    then: list[Snapshot]
    refused: str


class BackTo(Schema):
    """The step after which the lamp stood as it shall stand again."""

    step: Annotated[int, Field(ge=1, le=2**62)]


class PositionView(Schema):
    """A position with its rail, its neighbours' names and its report."""

    position: PositionAnswer
    rail: RailAnswer
    equipment_name: str
    fit: SweepReport | None
    siblings: list[Summary]
    steps: Steps


class ReportAnswer(Schema):
    """A report."""

    report: Report


class SpiceText(Schema):
    """A circuit as SPICE text."""

    text: str


# Numbers, texts or nothing; yes and no are no numbers.
Changes = dict[str, StrictFloat | StrictInt | StrictStr | None]


class AssessIn(Schema):
    """Changes to try on the kept position; nothing is saved."""

    changes: Changes = Field(default_factory=dict)


class QuickIn(Shape):
    """A quick sum: the rail's text, a position's fields as far as known, and what was taken of its findings."""

    rail: Short
    position: PositionInput
    changes: Changes = Field(default_factory=dict)


class QuickKeep(Schema):
    """Keep a quick sum as a lamp position."""

    quick: QuickIn
    position: UUID
    equipment: UUID | None = None
    new_equipment: UUID | None = None
    rail: UUID
    equipment_name: Name | Literal[""] = ""
    name: Name = "Lamp"


class BeginIn(Schema):
    """What somebody has in hand and answered; ``id`` is the key of what is begun."""

    id: UUID
    start: Short
    answers: Annotated[list[Short], Field(max_length=10)] = Field(default_factory=list)


class BegunOut(Schema):
    """What was begun, and the part of its view that is opened first."""

    what: What
    id: UUID
    panel: str


class CopiesIn(Schema):
    """The copies of a lamp: the name of each by its key."""

    lamps: dict[UUID, Name]


class AlikeIn(Schema):
    """The lamps that get what one has."""

    lamps: Annotated[list[UUID], Field(min_length=1, max_length=MOST_POSITIONS)]


class OtherOut(Schema):
    """Another lamp of the item, and what tells it from this one."""

    id: UUID
    name: str
    alike: bool
    same_rail: bool
    differs: list[FieldDifference]


class AlikeOut(Schema):
    """The other lamps of the item, those alike judged by what was read on them, and whether live readings are taken."""

    others: list[OtherOut]
    lots: list[Lot]
    live: bool


class NewCircuit(Schema):
    """A circuit that works a lamp's second job out: its key in the item, and its kind."""

    id: UUID
    kind: Short


class BenchReading(Schema):
    """A reading typed into the next thing: it sets a figure, or is recorded as a trial.

    ``what`` is a kind of reading after the swap, "led_vf", "driver_drop", "source_short", a level of the
    rail ("rail_usual"), or a detail that the rail's kind asks for.
    """

    id: UUID
    what: Annotated[str, Field(max_length=40)]
    text: Short
    burden: Short = ""
    note: Line = ""
    state: Short = "on"
    whose: Short = "this"


UnitName = Literal["V", "A", "Ω", "cd", "Hz", "F", "Ah", "s", "°C", "m", "°", "lm", "K/W", "H", "W"]


class EchoIn(Schema):
    """A text to read, and the unit it should be in; "mA" is a current whose bare number is milliamps."""

    text: Short
    unit: UnitName | Literal["mA"]


class EchoOut(Schema):
    """What a text was taken for, or why it cannot be read."""

    echo: str
    error: str


class Move(Schema):
    """Put one before another of its kind, or last."""

    key: UUID
    before: UUID | None = None


class StepIn(Schema):
    """The step to take back or do again, and what to do where later work stands."""

    step: Annotated[int, Field(ge=1, le=2**62)]
    choice: Literal["ask", "earlier", "later"] = "ask"


class StepKeyIn(Schema):
    """A step."""

    step: Annotated[int, Field(ge=1, le=2**62)]


class Done(Schema):
    """What was undone or redone: its label, the step that would reverse it, and what is gone with it."""

    label: str
    step: int
    gone: list[str]


class ClashOut(Schema):
    """A field that was changed again since the step: what undo would put back, and what stands there."""

    record: str
    field: str
    earlier: str
    later: str


class Clashes(Problems):
    """Why a step is not taken back before somebody chooses."""

    clashes: list[ClashOut] = Field(default_factory=list)


class DrawerPatch(Schema):
    """Resistor values to put in and to take out, as typed; the others stay."""

    add: Annotated[list[Short], Field(max_length=MOST_PARTS)] = Field(default_factory=list)
    remove: Annotated[list[Short], Field(max_length=MOST_PARTS)] = Field(default_factory=list)


class PartAnswer(PartInput):
    """A part as kept, with what its texts were taken for, how full its compartment is, and how it is marked."""

    id: UUID
    echo: Echo
    label: str
    now: Level
    marks: Marks | None
    wrong: str


class PartPatch(PartInput, Seen):
    """Fields of a part to change; those not sent stay."""


class CatalogueRow(Schema):
    """Something of the catalogue that may be taken into the drawer."""

    id: str
    label: str


class DrawerOut(Schema):
    """Every part, the resistors as a picture, and what of the catalogue may be taken in."""

    parts: list[PartAnswer]
    picture: DrawerPicture
    offered: dict[str, list[CatalogueRow]]
    steps: Steps


class MadeOut(Schema):
    """What a resistance can be made of."""

    made: list[Made]


class MarksOut(Schema):
    """A mark as read; where a colour is in doubt the few it may be, the likeliest first."""

    read: list[MarkRead]


class BuyingOut(Schema):
    """What must be bought: ``price`` is of the lines whose price is known."""

    lines: list[OrderLine]
    left_out: list[str]
    fresh: bool
    price: str
    unpriced: int
    steps: Steps


class LineKey(Schema):
    """A line of the list of what must be bought."""

    key: Line


class DrawnOut(Schema):
    """What a lamp takes out of the drawer, from where, and what is not there."""

    lines: list[str]
    short: list[str]


class DayTask(Schema):
    """One thing to do; the clock says when hands are at it, and ``tick`` what is ticked once it is done."""

    lamp: str
    item: str
    lamp_id: str
    item_id: str
    tick: str
    kind: str
    label: str
    at: str
    minutes: int


class DayBlock(Schema):
    """Work of one kind, one after the other, with why it stands there."""

    label: str
    start: str
    end: str
    why: str
    soaking: str
    tasks: list[DayTask]


class DayHeld(Schema):
    """What is not in the day, and why."""

    lamp: str
    item: str
    lamp_id: str
    label: str
    why: str


class DurationOut(Schema):
    """How long a kind of work takes here."""

    label: str
    minutes: int
    line: str


class DayOut(Schema):
    """A day at the bench; what could be done while the iron is hot, and while something soaks."""

    begins: str
    blocks: list[DayBlock]
    held: list[DayHeld]
    hot: list[DayTask]
    meanwhile: list[DayTask]
    line: str
    late: list[str]
    durations: list[DurationOut]
    fresh: bool


class FoundOut(Schema):
    """Something that was found."""

    kind: FoundKind
    id: str
    name: str
    line: str


class FindOut(Schema):
    """What was found, lamps first."""

    found: list[FoundOut]


class BenchLedPatch(BenchLedInput, Seen):
    """Figures of a bench's own LED to change; those not sent stay."""


class ShopPatch(ShopInput, Seen):
    """The shop's habits to change; those not sent stay."""


class BenchLedAnswer(BenchLedInput):
    """A bench's own LED as kept, with what its texts were taken for, its line, and how full its bag is."""

    id: UUID
    echo: Echo
    line: str
    now: Level


class LedsOut(Schema):
    """The bench's own LEDs."""

    leds: list[BenchLedAnswer]
    steps: Steps


class OptionOut(Schema):
    """One of a few."""

    id: str
    label: str


class DetailOut(Schema):
    """A further figure that a kind asks for; no unit for a choice, words or a count.

    ``at`` is another figure of the same part, "" where there is none.
    """

    id: str
    label: str
    unit: UnitName | None
    hint: str
    options: list[OptionOut]
    long: bool
    at: str


class SupplyOut(Schema):
    """A kind of supply: what it asks, and what a form must know of it."""

    id: str
    label: str
    expect: str
    details: list[DetailOut]
    read_at_offered: bool
    position_fields: list[str]
    driver_note: str


class DriverOut(Schema):
    """A kind of driver; ``usual_drop`` is what it usually keeps, as one would type it."""

    id: str
    label: str
    expect: str
    usual_drop: str
    details: list[DetailOut]


class CircuitKindOut(Schema):
    """A kind of circuit: how it is known by looking, and what must not be done."""

    id: str
    label: str
    looks: str
    never: str
    details: list[DetailOut]


class PartOut(Schema):
    """A part of the catalogue, with what tells it from the others and what else it is found by."""

    id: str
    label: str
    detail: str
    words: str = ""


class HolderOut(Schema):
    """What may go into the holder, and what is emptied where something else does."""

    label: str
    empties: dict[str, Any]


class LeadsOut(Schema):
    """Where the meter's leads go for a reading."""

    label: str
    mode: Literal["across", "series", "touches", "looks"]
    red: str
    black: str
    meter: str
    unit: Literal["V", "mA", "Ω", "°C", ""]
    line: str


class Intent(Schema):
    """What an import will do, before it does it; ``replaces`` names the item it would replace.

    ``copy_only``: it can only come in as a copy.
    """

    name: str
    replaces: str
    lines: list[str]
    copy_only: bool = False


class Holds(Schema):
    """How much a bench holds, and that in a line."""

    items: int
    lamps: int
    readings: int
    photographs: int
    line: str


class BackupOut(Schema):
    """A backup: when it was made (UTC, ISO 8601), what for, and what it holds."""

    name: str
    at: str
    why: str
    holds: Holds


class SecondCopyOut(Schema):
    """Where second copies of backups go, when the last was written, and why it could not be."""

    folder: str
    at: str
    problem: str


class BackupsOut(Schema):
    """All backups beside what is on the bench now."""

    folder: str
    now: Holds
    backups: list[BackupOut]
    second: SecondCopyOut


class BroughtBack(Schema):
    """What is on the bench after a backup was brought back, and the name of the backup of what was there."""

    holds: Holds
    kept: str


class ItemThenOut(Schema):
    """An item in a backup, beside what is on the bench now."""

    id: UUID
    name: str
    lamps: int
    now: Literal["same", "changed", "gone"]


class ItemKey(Schema):
    """An item by its key."""

    item: UUID


class FolderIn(Schema):
    """A folder on the bench's machine; empty for none."""

    folder: Annotated[str, Field(max_length=1000)]


class ItemAnswer(Schema):
    """An item that was made, changed, or brought in."""

    id: UUID
    name: str


class StartAnswer(Schema):
    """An answer; ``refused`` says why nothing is begun with it, ``ends`` whether nothing more is asked."""

    id: str
    label: str
    refused: str
    ends: bool


class StartQuestion(Schema):
    """A question by what can be seen."""

    id: str
    ask: str
    answers: list[StartAnswer]


class StartOut(Schema):
    """What somebody may have in hand."""

    id: str
    label: str
    line: str
    questions: list[StartQuestion]


class LeadOut(Schema):
    """Where a trouble is looked into."""

    place: Place
    text: str


class TroubleOut(Schema):
    """What may be wrong with a light."""

    id: str
    label: str
    first: str
    leads: list[LeadOut]


class Catalogue(Schema):
    """Kinds, parts, and every choice that a form offers, by field."""

    starts: list[StartOut]
    troubles: list[TroubleOut]

    supplies: list[SupplyOut]
    drivers: list[DriverOut]
    fitted: list[CircuitKindOut]
    regulators: list[PartOut]
    modules: list[PartOut]
    leds: list[PartOut]
    lamps: list[PartOut]
    holders: dict[str, HolderOut]
    leads: dict[str, LeadsOut]
    job_circuits: dict[str, list[str]]
    choices: dict[str, list[OptionOut]]
    units: dict[str, UnitName]
    led_source: str
    lamp_source: str


class SharingOut(Schema):
    """Whether the bench answers other devices, at which addresses, and by which certificate."""

    on: bool
    plain: bool
    urls: list[str]
    fingerprint: str


class ShareIn(Schema):
    """Answer other devices or not; ``plain`` without TLS."""

    on: bool
    plain: bool = False


class OfferIn(Schema):
    """What the device that is to be paired may do."""

    may_write: bool = True


class OfferOut(Schema):
    """A pairing that was begun: what to scan, as SVG, the digits to type, and how many seconds it still lasts."""

    url: str
    code: str
    digits: str
    seconds: int
    may_write: bool


class DeviceOut(Schema):
    """A paired device."""

    id: UUID
    name: str
    may_write: bool
    seen: str
    expired: bool


class DeviceIn(Schema):
    """What a device may do from now on."""

    may_write: bool


class CardLinkOut(Schema):
    """A link by which one lamp's card is read."""

    id: UUID
    name: str


class LinkIn(Schema):
    """The lamp whose card a link is to show."""

    position: UUID


class NewLinkOut(Schema):
    """A new link: its address, which is not known afterwards, and the same as a code to scan, as SVG."""

    url: str
    code: str


class DevicesOut(Schema):
    """Sharing, the pairing that was begun, devices and links."""

    sharing: SharingOut
    offer: OfferOut | None
    devices: list[DeviceOut]
    links: list[CardLinkOut]


class PairIn(Schema):
    """What a device that wants to be paired has: the scanned code's part, the digits, and a name for itself."""

    ticket: str = Field(max_length=60)
    digits: str = Field(max_length=20)
    name: str = Field(default="", max_length=60)


class Me(Schema):
    """Whom the bench takes a page for.

    ``demo`` says that the records are the demo's; ``news`` what is new since the version that served them before.
    """

    at_the_bench: bool
    paired: bool
    may_write: bool
    device: str
    demo: bool
    version: str
    news: list[str]


class ShopAnswer(ShopInput):
    """The shop's habits, and whether its meter shows true RMS."""

    true_rms: bool


class FirstStartOut(Schema):
    """Whether a bench is new, and the supply that a first sum begins with."""

    new: bool
    rail: str


class FirstStartIn(Schema):
    """What somebody says of their workshop; "" for a question that was skipped."""

    work: str = Field(default="", max_length=40)
    meter: str = Field(default="yes", max_length=40)
    series: str = Field(default="", max_length=40)


class DemoOut(Schema):
    """The demo's server: its address, and whether it answers yet."""

    url: str
    ready: bool


class ScannedOut(Schema):
    """What a card in a photograph leads to: the lamp's key on this bench."""

    lamp: UUID


class OriginalOut(Schema):
    """An old part: what, and where it is kept."""

    what: str
    where: str


class LookOut(Schema):
    """One lamp's job card, for whoever has its link."""

    view: PositionView
    report: Report
    led: str
    lamp: str
    lead: str
    originals: list[OriginalOut]
    cautions: list[str]
