"""What goes over the wire. Reports are the core's own values, passed on as they are."""

from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from swapglow.core.bench.worth import Advice
from swapglow.core.driver import DriverKind
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import Led
from swapglow.core.position.model import Common
from swapglow.core.position.shunts import Across
from swapglow.core.report import Grade, Report, SweepReport
from swapglow.core.supply.kinds import SupplyKind
from swapglow.core.swaps import Weight
from swapglow.document import model as doc

Text60 = Annotated[str, Field(max_length=60)]
SourceName = Literal["measured", "marked", "assumed", "computed"]
SeriesName = Literal["E3", "E6", "E12", "E24", "E48", "E96", "E192"]
RoundingName = Literal["up", "nearest", "down"]
Stage = Literal["sizing", "trial", "fitted", "done"]
ReadAt = Literal["feed", "lamp"]
InSeries = Annotated[int, Field(ge=1, le=200)]
Notes = Annotated[str, Field(max_length=20_000)]


class FieldProblem(Schema):
    """One refusal: the field, and what would be accepted."""

    field: str
    message: str


class Problems(Schema):
    """Why a request was refused; nothing was saved."""

    errors: list[FieldProblem]


class Quantity(Schema):
    """A quantity as typed, with its source."""

    text: Text60 = ""
    source: SourceName = "assumed"
    note: Annotated[str, Field(max_length=200)] = ""


class QuantityOut(Quantity):
    """A quantity with what it was taken for."""

    took: str = ""


class DriverDetailOut(doc.DriverDetail):
    """A driver's detail with what it was taken for."""

    took: str = ""


Details = Annotated[dict[Text60, Quantity], Field(max_length=20)]


class EquipmentFields(Schema):
    """What can be written of an item of equipment."""

    name: Annotated[str, Field(min_length=1, max_length=120)]
    maker_model: Annotated[str, Field(max_length=160)] = ""
    board_revision: Annotated[str, Field(max_length=80)] = ""
    owner: Annotated[str, Field(max_length=120)] = ""
    notes: Notes = ""


class EquipmentPatch(Schema):
    """Fields to change; the rest stay."""

    name: Annotated[str, Field(min_length=1, max_length=120)] | None = None
    maker_model: Annotated[str, Field(max_length=160)] | None = None
    board_revision: Annotated[str, Field(max_length=80)] | None = None
    owner: Annotated[str, Field(max_length=120)] | None = None
    notes: Notes | None = None


class RailFields(Schema):
    """What can be written of a rail; ``details`` are what its kind asks for, by name."""

    equipment: UUID
    name: Annotated[str, Field(min_length=1, max_length=80)]
    kind: SupplyKind = "regulated"
    read_at: ReadAt = "feed"
    usual: Quantity = Quantity()
    low: Quantity = Quantity()
    high: Quantity = Quantity()
    details: Details = Field(default_factory=dict)
    fuse: Text60 = ""


class RailPatch(Schema):
    """Fields to change; the rest stay. ``details`` sent change those named; another kind drops the rest."""

    name: Annotated[str, Field(min_length=1, max_length=80)] | None = None
    kind: SupplyKind | None = None
    details: Details | None = None
    fuse: Text60 | None = None
    read_at: ReadAt | None = None
    usual: Quantity | None = None
    low: Quantity | None = None
    high: Quantity | None = None


class RailOut(Schema):
    """A rail."""

    id: UUID
    equipment: UUID
    name: str
    kind: SupplyKind
    kind_label: str
    levels: list[str]
    read_at: ReadAt
    usual: QuantityOut
    low: QuantityOut
    high: QuantityOut
    details: dict[str, QuantityOut]
    fuse: str
    reads: str


class PositionPatch(Schema):
    """Fields to change; the rest stay."""

    name: Annotated[str, Field(min_length=1, max_length=120)] | None = None
    rail: UUID | None = None
    stage: Stage | None = None
    notes: Notes | None = None
    lamp_id: Text60 | None = None
    lamp_volts: Text60 | None = None
    lamp_amps: Text60 | None = None
    lamp_candela: Text60 | None = None
    lamp_base: Text60 | None = None
    led_id: Text60 | None = None
    vf: Quantity | None = None
    rated: Text60 | None = None
    in_series: InSeries | None = None
    driver_drop: Quantity | None = None
    target: Quantity | None = None
    ceiling: Annotated[float, Field(gt=0, le=1)] | None = None
    series: SeriesName | None = None
    rounding: RoundingName | None = None
    resistor: Text60 | None = None
    resistor_parts: Literal[1, 2] | None = None
    resistor_source: SourceName | None = None
    tolerance: Annotated[float, Field(ge=0, lt=0.5)] | None = None
    rating_w: Annotated[float, Field(gt=0, le=1000)] | None = None
    treatment: doc.TreatmentName | None = None
    capacitor: Text60 | None = None
    capacitor_v: Text60 | None = None
    second_led_id: Text60 | None = None
    band: Text60 | None = None
    chassis_negative: bool | None = None
    mains: bool | None = None
    glow_floor: Annotated[float, Field(gt=0, lt=1)] | None = None
    driver_kind: DriverKind | None = None
    driver_details: Annotated[dict[Text60, doc.DriverDetail], Field(max_length=20)] | None = None
    branches: doc.Branches | None = None
    lead: doc.Lead | None = None
    common: Common | None = None
    shunt: Text60 | None = None
    shunt_across: Across | None = None
    shunt_w: Annotated[float, Field(gt=0, le=1000)] | None = None
    series_diodes: doc.Diodes | None = None
    regulator_id: Text60 | None = None
    module: doc.ReadyMade | None = None
    weigh: Annotated[list[Weight], Field(max_length=5)] | None = None
    sweep: Notes | None = None
    sweep_in_series: Text60 | None = None
    sweep_resistor: Text60 | None = None


class PositionFields(PositionPatch):
    """A new position: what is not given takes its usual value."""

    equipment: UUID


class ReadingFields(Schema):
    """A reading after the swap."""

    position: UUID
    kind: Literal["current", "resistor_volts", "led_volts"]
    text: Text60
    burden: Text60 = ""
    note: Annotated[str, Field(max_length=200)] = ""


class ReadingOut(ReadingFields):
    """A reading with when it was taken."""

    id: UUID
    at: str


class TakenFields(Schema):
    """A reading before the swap."""

    position: UUID
    function: doc.FunctionName
    text: Text60
    points: doc.PointsName = "lamp"
    lamp: Literal["in", "out"] = "in"
    state: Text60 = ""
    meter: Text60 = ""
    true_rms: bool = False
    note: Annotated[str, Field(max_length=200)] = ""


class TakenOut(TakenFields):
    """A reading before the swap, with when it was taken."""

    id: UUID
    at: str


class PositionOut(Schema):
    """A position as kept."""

    id: UUID
    equipment: UUID
    rail: UUID
    name: str
    stage: Stage
    notes: str
    lamp_id: str
    lamp_volts: str
    lamp_amps: str
    lamp_candela: str
    lamp_base: str
    led_id: str
    vf: QuantityOut
    rated: str
    in_series: int
    driver_drop: QuantityOut
    target: QuantityOut
    ceiling: float
    series: SeriesName
    rounding: RoundingName
    resistor: str
    resistor_parts: int
    resistor_source: SourceName
    tolerance: float | None
    rating_w: float | None
    treatment: doc.TreatmentName
    capacitor: str
    capacitor_v: str
    second_led_id: str
    band: str
    chassis_negative: bool
    mains: bool
    glow_floor: float
    driver_kind: DriverKind
    driver_details: dict[str, DriverDetailOut]
    branches: int
    lead: doc.Lead
    common: Common
    shunt: str
    shunt_across: Across
    shunt_w: float | None
    series_diodes: int
    regulator_id: str
    module: doc.ReadyMade
    weigh: list[Weight]
    sweep: str
    sweep_in_series: str
    sweep_resistor: str
    readings: list[ReadingOut]
    taken: list[TakenOut]


class Summary(Schema):
    """A position as the bench shows it."""

    id: UUID
    name: str
    stage: Stage
    rail: str
    glow_colour: str
    glow_lightness: float
    grade: Grade | None
    line: str
    next_act: str
    pencil_share: float


class Steps(Schema):
    """What undo and redo would do; empty where nothing."""

    undo: str
    redo: str


class PhotoOut(Schema):
    """A photograph; the picture itself is at /api/photos/{id}/picture.jpg."""

    id: UUID
    caption: str
    width: int
    height: int


class TakeInPatch(Schema):
    """Parts of the take-in sheet to replace; the rest stay."""

    dark: Notes | None = None
    sharing: Notes | None = None
    grounds: Notes | None = None
    hazards: Annotated[list[doc.Hazard], Field(max_length=6)] | None = None
    opening: Annotated[list[doc.OpeningStep], Field(max_length=300)] | None = None
    wires: Annotated[list[doc.Wire], Field(max_length=300)] | None = None
    originals: Annotated[list[doc.Original], Field(max_length=300)] | None = None
    worth: doc.Worth | None = None


class TakeInView(Schema):
    """The take-in sheet, what it comes to, and the cautions its hazards ask for."""

    sheet: doc.TakeIn
    advice: Advice
    wires: list[str]
    cautions: list[str]
    photos: list[PhotoOut]


class EquipmentOut(EquipmentFields):
    """An item of equipment with all in it."""

    id: UUID
    take_in: TakeInView
    rails: list[RailOut]
    positions: list[Summary]
    steps: Steps


class BenchItem(Schema):
    """An item of equipment on the bench."""

    id: UUID
    name: str
    maker_model: str
    positions: list[Summary]


class BenchOut(Schema):
    """The bench."""

    equipment: list[BenchItem]
    steps: Steps


class PositionView(Schema):
    """A position with its rail, its neighbours' names and its report."""

    position: PositionOut
    rail: RailOut
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


Changes = dict[str, float | int | str | None]


class AssessIn(Schema):
    """Changes to try on the kept position; nothing is saved."""

    changes: Changes = Field(default_factory=dict)


class QuickIn(Schema):
    """A quick sum: texts as typed."""

    rail: Text60
    led_id: Text60 = ""
    vf: Text60 = ""
    rated: Text60 = ""
    in_series: InSeries = 1
    drive: Text60
    series: SeriesName = "E24"
    rounding: RoundingName = "up"


class QuickKeep(Schema):
    """Keep a quick sum as a lamp position."""

    quick: QuickIn
    position: UUID
    equipment: UUID | None = None
    new_equipment: UUID | None = None
    rail: UUID
    equipment_name: Annotated[str, Field(max_length=120)] = ""
    name: Annotated[str, Field(min_length=1, max_length=120)] = "Lamp"


class BenchReading(Schema):
    """A reading typed into the next thing: it inks a figure or records a trial."""

    id: UUID
    what: Literal[
        "rail_usual", "rail_low", "rail_high", "led_vf", "driver_drop", "source_open", "source_load",
        "source_short", "trip", "hertz", "grounded",
        "current", "resistor_volts", "led_volts",
    ]  # fmt: skip
    text: Text60
    burden: Text60 = ""
    note: Annotated[str, Field(max_length=200)] = ""


class TookIn(Schema):
    """A text to read, and the unit it should be in."""

    text: Text60
    unit: Literal["V", "A", "Ω", "cd", "Hz", "F", "Ah", "s"]


class TookOut(Schema):
    """What a text was taken for, or why it cannot be read."""

    took: str
    error: str


class Order(Schema):
    """Keys in the order wanted."""

    ids: list[UUID]


class Scope(Schema):
    """Where to step back or forth: an equipment's key, or empty for the bench."""

    scope: Annotated[str, Field(max_length=40)] = ""


class Done(Schema):
    """What was undone or redone."""

    label: str


class Drawer(Schema):
    """Resistor values at hand, as typed."""

    values: list[Text60]


class DrawerOut(Schema):
    """Resistor values at hand, Ω and as printed."""

    values: list[float]
    texts: list[str]


class OptionOut(Schema):
    """One of a few."""

    id: str
    label: str


class DetailOut(Schema):
    """A further figure a kind of supply asks for; no unit for a choice or a count."""

    id: str
    label: str
    unit: Literal["V", "A", "Ω", "Hz", "Ah", "s"] | None
    hint: str
    options: list[OptionOut]


class KindOut(Schema):
    """A kind of supply."""

    id: SupplyKind
    label: str
    flow: Literal["dc", "sine", "reversing", "pulses"]
    expect: str
    levels: list[str]
    details: list[DetailOut]


class DriverOut(Schema):
    """A kind of driver; ``keeps`` is what it usually keeps, as one would type it."""

    id: DriverKind
    label: str
    expect: str
    keeps: str
    details: list[DetailOut]


class RegulatorOut(Schema):
    """A regulator with its package, view and pins in a line."""

    id: str
    label: str
    pins: str


class ReadyMadeOut(Schema):
    """A ready-made LED lamp and its base."""

    id: str
    label: str
    base: str


class Intent(Schema):
    """What an import will do, before it does it; ``replaces`` names the item it would replace."""

    name: str
    replaces: str
    lines: list[str]


class Imported(Schema):
    """What an import made."""

    id: UUID
    name: str


class Catalogue(Schema):
    """Generic LEDs and lamps, series and ratings, kinds of supply."""

    supplies: list[KindOut]
    drivers: list[DriverOut]
    regulators: list[RegulatorOut]
    modules: list[ReadyMadeOut]
    leds: list[Led]
    lamps: list[Lamp]
    series: list[SeriesName]
    ratings_w: list[float]
    led_source: str
    lamp_source: str
