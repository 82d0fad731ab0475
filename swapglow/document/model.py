"""The shape of the document, version 1. docs/equipment-1.schema.json is made from it."""

from typing import Annotated, Any, Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field

from swapglow.core.driver import DriverKind
from swapglow.core.parts.module import Law
from swapglow.core.position.model import MOST_BRANCHES, MOST_DIODES, Common
from swapglow.core.position.shunts import Across
from swapglow.core.supply.kinds import SupplyKind
from swapglow.core.swaps import Weight

FORMAT = "swapglow-equipment"
VERSION = 1

Short = Annotated[str, Field(max_length=60)]
Line = Annotated[str, Field(max_length=200)]
Long = Annotated[str, Field(max_length=20_000)]
SourceName = Literal["measured", "marked", "assumed", "computed"]
SeriesName = Literal["E3", "E6", "E12", "E24", "E48", "E96", "E192"]
Stage = Literal["sizing", "trial", "fitted", "done"]
TreatmentName = Literal[
    "", "bare", "inverse_diode", "back_to_back", "two_colour", "half_wave", "half_wave_cap", "bridge",
    "bridge_cap",
]  # fmt: skip
Lead = Literal["positive", "negative"]
Branches = Annotated[int, Field(ge=1, le=MOST_BRANCHES)]
Diodes = Annotated[int, Field(ge=0, le=MOST_DIODES)]
FunctionName = Literal["dc_volts", "ac_volts", "dc_amps", "ac_amps", "ohms"]
PointsName = Literal["lamp", "feed", "driver", "frame"]
Hazard = Literal["mains", "tension", "charge", "vehicle", "static", "heat"]


class Part(BaseModel):
    """Nothing that is not described is taken."""

    model_config = ConfigDict(extra="forbid", frozen=True)


class Quantity(Part):
    """A quantity as typed, with where it comes from."""

    text: Short = ""
    source: SourceName = "assumed"
    note: Line = ""


class DriverDetail(Part):
    """A further figure of a driver as typed; what else a feed feeds takes several lines."""

    text: Annotated[str, Field(max_length=1000)] = ""
    source: SourceName = "assumed"
    note: Line = ""


class ReadyMade(Part):
    """A ready-made LED lamp as typed; without ``amps`` there is none."""

    amps: Short = ""
    law: Law = "resistor"
    polarised: Literal["yes", "no"] = "yes"
    throttle: Short = ""
    after: Short = ""
    candela: Short = ""


class Rail(Part):
    """A supply rail; ``details`` are the further figures its kind asks for, by name."""

    id: UUID
    name: Annotated[str, Field(min_length=1, max_length=80)]
    kind: SupplyKind = "regulated"
    read_at: Literal["feed", "lamp"] = "feed"
    usual: Quantity = Quantity()
    low: Quantity = Quantity()
    high: Quantity = Quantity()
    details: Annotated[dict[Short, Quantity], Field(max_length=20)] = Field(default_factory=dict)
    fuse: Short = ""


class Reading(Part):
    """A reading after the swap."""

    id: UUID
    kind: Literal["current", "resistor_volts", "led_volts"]
    text: Short
    burden: Short = ""
    note: Line = ""
    at: Annotated[str, Field(max_length=40)] = ""


class Taken(Part):
    """A reading before the swap."""

    id: UUID
    function: FunctionName
    text: Short
    points: PointsName = "lamp"
    lamp: Literal["in", "out"] = "in"
    state: Short = ""
    meter: Short = ""
    true_rms: bool = False
    note: Line = ""
    at: Annotated[str, Field(max_length=40)] = ""


class Position(Part):
    """A lamp position and the swap meant for it."""

    id: UUID
    rail: UUID
    name: Annotated[str, Field(min_length=1, max_length=120)]
    stage: Stage = "sizing"
    notes: Long = ""
    lamp_id: Short = ""
    lamp_volts: Short = ""
    lamp_amps: Short = ""
    lamp_candela: Short = ""
    lamp_base: Short = ""
    led_id: Short = ""
    vf: Quantity = Quantity()
    rated: Short = ""
    in_series: Annotated[int, Field(ge=1, le=200)] = 1
    driver_drop: Quantity = Quantity()
    target: Quantity = Quantity()
    ceiling: Annotated[float, Field(gt=0, le=1)] = 0.5
    series: SeriesName = "E24"
    rounding: Literal["up", "nearest", "down"] = "up"
    resistor: Short = ""
    resistor_parts: Literal[1, 2] = 1
    resistor_source: SourceName = "marked"
    tolerance: Annotated[float, Field(ge=0, lt=0.5)] | None = None
    rating_w: Annotated[float, Field(gt=0, le=1000)] | None = None
    treatment: TreatmentName = ""
    capacitor: Short = ""
    capacitor_v: Short = ""
    second_led_id: Short = ""
    band: Short = ""
    chassis_negative: bool = False
    mains: bool = False
    glow_floor: Annotated[float, Field(gt=0, lt=1)] = 0.25
    driver_kind: DriverKind = "direct"
    driver_details: Annotated[dict[Short, DriverDetail], Field(max_length=20)] = Field(default_factory=dict)
    branches: Branches = 1
    lead: Lead = "positive"
    common: Common = "none"
    shunt: Short = ""
    shunt_across: Across = "assembly"
    shunt_w: Annotated[float, Field(gt=0, le=1000)] | None = None
    series_diodes: Diodes = 0
    regulator_id: Short = ""
    module: ReadyMade = ReadyMade()
    weigh: Annotated[list[Weight], Field(max_length=5)] = Field(default_factory=list)
    sweep: Annotated[str, Field(max_length=20_000)] = ""
    sweep_in_series: Short = ""
    sweep_resistor: Short = ""
    readings: Annotated[list[Reading], Field(max_length=2000)] = Field(default_factory=list)
    taken: Annotated[list[Taken], Field(max_length=2000)] = Field(default_factory=list)


class OpeningStep(Part):
    """One step of opening the case, read backwards at closing."""

    text: Line
    closed: bool = False


class Wire(Part):
    """A wire as seen: its colour is noted, never taken for its meaning."""

    name: Line
    goes: Line = ""
    does: Literal["", "steady", "pulsing", "dead"] = ""
    when: Line = ""
    found_with: Line = ""


class Original(Part):
    """A part that was taken out, and where it is kept."""

    what: Line
    where: Line = ""


class Other(Part):
    """An alternative to the swap, and its price."""

    what: Line
    price: Short = ""


class Worth(Part):
    """Whether the swap should be done at all."""

    access: Literal["", "screws", "clips", "sealed", "welded"] = ""
    brittle: Literal["", "sound", "aged", "brittle"] = ""
    serviceable: Literal["", "yes", "no"] = ""
    hours: Short = ""
    price: Short = ""
    hour_price: Short = ""
    others: Annotated[list[Other], Field(max_length=20)] = Field(default_factory=list)
    overruled: Line = ""


class TakeIn(Part):
    """The take-in sheet of an item."""

    dark: Long = ""
    sharing: Long = ""
    grounds: Long = ""
    hazards: Annotated[list[Hazard], Field(max_length=6)] = Field(default_factory=list)
    opening: Annotated[list[OpeningStep], Field(max_length=300)] = Field(default_factory=list)
    wires: Annotated[list[Wire], Field(max_length=300)] = Field(default_factory=list)
    originals: Annotated[list[Original], Field(max_length=300)] = Field(default_factory=list)
    worth: Worth = Worth()


class Photo(Part):
    """A photograph: JPEG in base64, or left out by choice."""

    id: UUID
    caption: Line = ""
    jpeg: str | None = None


class Equipment(Part):
    """An item with all in it, in the order it is shown."""

    id: UUID
    name: Annotated[str, Field(min_length=1, max_length=120)]
    maker_model: Annotated[str, Field(max_length=160)] = ""
    board_revision: Annotated[str, Field(max_length=80)] = ""
    owner: Annotated[str, Field(max_length=120)] = ""
    notes: Long = ""
    take_in: TakeIn = TakeIn()
    rails: Annotated[list[Rail], Field(max_length=100)] = Field(default_factory=list)
    positions: Annotated[list[Position], Field(max_length=1000)] = Field(default_factory=list)
    photos: Annotated[list[Photo], Field(max_length=200)] = Field(default_factory=list)


class Document(Part):
    """The document."""

    format: Literal["swapglow-equipment"] = "swapglow-equipment"
    version: Literal[1] = 1
    equipment: Equipment


def schema() -> dict[str, Any]:
    """The document's JSON Schema."""
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **Document.model_json_schema()}
