"""An item of equipment as typed, and its take-in sheet."""

from typing import Annotated, Any

from pydantic import AfterValidator, Field, model_validator

from swapglow.core.circuits import CIRCUITS
from swapglow.core.design.trial import DIM_VERDICTS
from swapglow.core.intake.feasibility import ACCESS, AFTER, BRITTLE
from swapglow.core.intake.hazards import HAZARDS
from swapglow.core.intake.wires import DOES, FOUND_WITH
from swapglow.core.parts.led import MOST_IN_SERIES
from swapglow.core.photometry.dot_card import SCREENS
from swapglow.core.quantities import OHM, VOLT
from swapglow.core.quantities.everyday import a_day, a_time
from swapglow.inputs.earlier_choices import chosen_id
from swapglow.inputs.limits import (
    MOST_ALTERNATIVES,
    MOST_DETAILS,
    MOST_DIMS,
    MOST_FITTED,
    MOST_LINES,
    MOST_TRIALS,
    MOST_WAITS,
)
from swapglow.inputs.quantity import DriverDetail, Line, Long, Name, Short
from swapglow.inputs.rows import Key, Row
from swapglow.inputs.shape import OneOf, Reads, Sets, Shape, Suggests

_AWAY = {False: "On the bench", True: "In the archive"}
_SCREENS = {1.0: "Nothing", **{s: f"{s * 100:.0f} %" for s in SCREENS}}


class DimTrialInput(Row):
    """A look at a fitted LED with another resistor in it, and what the eye said."""

    resistor: Annotated[Short, Reads(OHM, "ohm", "dim trial")] = ""
    verdict: Annotated[str, OneOf(DIM_VERDICTS), Sets("verdict", "dim trial")] = "bright"
    screen: Annotated[float, Field(gt=0, le=1), Suggests(_SCREENS), Sets("screen", "dim trial")] = 1.0
    at: Annotated[Short, Sets("at", "dim trial")] = ""


class DimInput(Row):
    """A fitted LED that is too bright. Its resistor is enough; rail and LED give figures where they are known."""

    name: Line = ""
    resistor: Annotated[Short, Reads(OHM, "ohm", "dim")] = ""
    rail: Annotated[Short, Reads(VOLT, "rail", "dim rail")] = ""
    led_id: Short = ""
    in_series: Annotated[int, Field(ge=1, le=MOST_IN_SERIES), Sets("in_series", "dim")] = 1
    trials: Annotated[dict[Key, DimTrialInput], Field(max_length=MOST_TRIALS)] = Field(default_factory=dict)


class FittedInput(Row):
    """A circuit of an item; ``chosen`` is the id of the option that somebody decided on."""

    name: Line = ""
    kind: Annotated[str, OneOf(CIRCUITS)] = CIRCUITS.usual.id
    details: Annotated[dict[Short, DriverDetail], Field(max_length=MOST_DETAILS)] = Field(default_factory=dict)
    chosen: Line = ""
    notes: Long = ""

    @model_validator(mode="before")
    @classmethod
    def _words(cls, typed: Any) -> Any:
        """What an earlier version stored as words is its option's id."""
        if isinstance(typed, dict) and isinstance(typed.get("chosen"), str):
            return {**typed, "chosen": chosen_id(str(typed.get("kind", "")), typed["chosen"])}
        return typed


class Wait(Row):
    """What an item waits for; ``until`` is a day or a time, empty where nobody knows."""

    what: Line = ""
    until: Annotated[Short, AfterValidator(a_time)] = ""


class EquipmentInput(Shape):
    """What can be written of an item."""

    name: Name = "New equipment"
    maker_model: Line = ""
    board_revision: Line = ""
    owner: Line = ""
    notes: Long = ""
    promised: Annotated[Short, AfterValidator(a_day)] = ""
    archived: Annotated[bool, Suggests(_AWAY)] = False
    waits: Annotated[dict[Key, Wait], Field(max_length=MOST_WAITS)] = Field(default_factory=dict)
    dims: Annotated[dict[Key, DimInput], Field(max_length=MOST_DIMS)] = Field(default_factory=dict)
    fitted: Annotated[dict[Key, FittedInput], Field(max_length=MOST_FITTED)] = Field(default_factory=dict)


class OpeningStep(Row):
    """One step of opening the case, read backwards at closing."""

    text: Line = ""
    closed: bool = False


class Wire(Row):
    """A wire as seen: its colour is noted, never taken for its meaning."""

    name: Line = ""
    goes: Line = ""
    does: Annotated[str, OneOf(DOES)] = ""
    when: Line = ""
    found_with: Annotated[Line, Suggests(FOUND_WITH)] = ""


class Original(Row):
    """A part that was taken out, and where it is kept."""

    what: Line = ""
    where: Line = ""


class Other(Row):
    """An alternative to the swap, and its price."""

    what: Line = ""
    price: Short = ""


class FeasibilityInput(Shape):
    """Whether the swap should be done at all."""

    access: Annotated[str, OneOf(ACCESS)] = ""
    brittle: Annotated[str, OneOf(BRITTLE)] = ""
    serviceable: Annotated[str, OneOf(AFTER)] = ""
    hours: Short = ""
    price: Short = ""
    hour_price: Short = ""
    others: Annotated[dict[Key, Other], Field(max_length=MOST_ALTERNATIVES)] = Field(default_factory=dict)
    overruled: Line = ""


class TakeInInput(Shape):
    """The take-in sheet of an item."""

    dark: Long = ""
    sharing: Long = ""
    grounds: Long = ""
    hazards: Annotated[list[Annotated[str, OneOf(HAZARDS)]], Field(max_length=6)] = Field(default_factory=list)
    opening: Annotated[dict[Key, OpeningStep], Field(max_length=MOST_LINES)] = Field(default_factory=dict)
    wires: Annotated[dict[Key, Wire], Field(max_length=MOST_LINES)] = Field(default_factory=dict)
    originals: Annotated[dict[Key, Original], Field(max_length=MOST_LINES)] = Field(default_factory=dict)
    feasibility: FeasibilityInput = FeasibilityInput()
