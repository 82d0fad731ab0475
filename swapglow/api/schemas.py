"""What goes over the wire. Reports are the core's own values, passed on as they are."""

from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import Led
from swapglow.core.report import Grade, Report

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
    """What can be written of a rail."""

    equipment: UUID
    name: Annotated[str, Field(min_length=1, max_length=80)]
    read_at: ReadAt = "feed"
    usual: Quantity
    low: Quantity = Quantity()
    high: Quantity = Quantity()


class RailPatch(Schema):
    """Fields to change; the rest stay."""

    name: Annotated[str, Field(min_length=1, max_length=80)] | None = None
    read_at: ReadAt | None = None
    usual: Quantity | None = None
    low: Quantity | None = None
    high: Quantity | None = None


class RailOut(Schema):
    """A rail."""

    id: UUID
    equipment: UUID
    name: str
    read_at: ReadAt
    usual: QuantityOut
    low: QuantityOut
    high: QuantityOut


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
    readings: list[ReadingOut]


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


class EquipmentOut(EquipmentFields):
    """An item of equipment with all in it."""

    id: UUID
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
        "rail_usual", "rail_low", "rail_high", "led_vf", "driver_drop",
        "current", "resistor_volts", "led_volts",
    ]  # fmt: skip
    text: Text60
    burden: Text60 = ""
    note: Annotated[str, Field(max_length=200)] = ""


class TookIn(Schema):
    """A text to read, and the unit it should be in."""

    text: Text60
    unit: Literal["V", "A", "Ω", "cd"]


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


class Catalogue(Schema):
    """Generic LEDs and lamps, series and ratings."""

    leds: list[Led]
    lamps: list[Lamp]
    series: list[SeriesName]
    ratings_w: list[float]
    led_source: str
    lamp_source: str
