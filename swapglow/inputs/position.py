"""A lamp position and the swap meant for it, as typed.

A new field is a line here, its physics in the core, and its control in the front end: document, API,
records, answers and schema follow from the line.
"""

from typing import Annotated

from pydantic import AfterValidator, Field

from swapglow.core.build_steps.before_after import RESULTS
from swapglow.core.design import board
from swapglow.core.design import looks as seen
from swapglow.core.design import position as core
from swapglow.core.design.branch import MOST_BESIDE, MOST_BRANCHES
from swapglow.core.design.rectification import RECTIFICATIONS
from swapglow.core.design.trial import VERDICTS
from swapglow.core.drivers import DRIVERS
from swapglow.core.intake import autopsy
from swapglow.core.intake import second_job as jobs
from swapglow.core.intake.stages import STAGES
from swapglow.core.measurement.reading_after import READS
from swapglow.core.parts.glass import OWN_GLASS, glasses
from swapglow.core.parts.led import MOST_IN_SERIES
from swapglow.core.parts.ready_made import SAID_LAWS
from swapglow.core.parts.resistor import ALL_RATINGS_W, rating_text
from swapglow.core.quantities import AMPERE, CANDELA, CELSIUS, FARAD, METRE, OHM, SECOND, VOLT, Source
from swapglow.core.quantities.everyday import a_day
from swapglow.core.search import WEIGHTS
from swapglow.core.values import preferred
from swapglow.inputs.led import LedInput
from swapglow.inputs.limits import MOST_CHECKS, MOST_DETAILS, MOST_STEPS, MOST_TRIALS
from swapglow.inputs.quantity import DriverDetail, Line, Long, Name, Quantity, Short, SourceName
from swapglow.inputs.rows import Key, Row
from swapglow.inputs.shape import OneOf, Reads, Sets, Shape, Suggests

_CUES = {k: c.label for k, c in jobs.CUES.items()}
_DEAD = {k: s.label for k, s in autopsy.SIGNS.items()}
_NO_YES = {False: "No", True: "Yes: no live readings"}
_BATCH = {True: "Alike, of one batch", False: "Each with its own luck"}
_SINK = {False: "Free air", True: "On a heat sink"}
_FRAME = {False: "Off the frame", True: "On the frame"}
_POLARISED = {"yes": "Lights one way round", "no": "Either way"}
_WATTS: dict[float | None, str] = {None: "To fit", **{w: rating_text(w) for w in ALL_RATINGS_W}}
_CEILINGS = {core.USUAL_CEILING: "Half of rated, ours", 1.0: "Rated"}
_FLOORS = {0.5: "Half the light", 0.25: "A quarter", 0.1: "A tenth"}
_WAYS = {"": "Ours", **RECTIFICATIONS}
_AGES = {1.0: "As new", 0.8: "Aged", 0.5: "Blackened glass"}
_GLASSES = {"": "None", **{g.id: g.label for g in glasses().values()}, OWN_GLASS: "Own figures"}
_SHARES = {1.0: "Same as the group", 0.5: "Half", 0.25: "A quarter", 2.0: "Twice"}
_WALLS = {False: "Dark or unknown", True: "Painted white"}
_PARTS = {1: "One", 2: "Half in each lead"}

Watts = Annotated[float, Field(gt=0, le=1000)]


class ReadyMade(Shape):
    """A ready-made LED lamp as typed; without ``amps`` there is none.

    ``at`` are the volts it draws them at, ``second_volts`` and ``second_amps`` another reading of it, ``dice``
    its LEDs in series where somebody counted them.
    """

    amps: Annotated[Short, Reads(AMPERE, "amps", "module", at="at")] = ""
    at: Annotated[Short, Reads(VOLT, "given_v", "module")] = ""
    second_volts: Annotated[Short, Reads(VOLT, "volts", "module second")] = ""
    second_amps: Annotated[Short, Reads(AMPERE, "amps", "module second")] = ""
    dice: Annotated[int | None, Field(ge=1, le=100), Sets("dice", "module")] = None
    law: Annotated[str, OneOf(SAID_LAWS)] = "resistor"
    polarised: Annotated[str, OneOf(_POLARISED), Sets("polarised", "module", by=lambda answer: answer == "yes")] = "yes"
    throttle: Annotated[Short, Sets("throttle", "module", by_hand=True)] = ""
    after: Annotated[Short, Reads(SECOND, "throttle_s", "module")] = ""
    candela: Annotated[Short, Reads(CANDELA, "candela", "module light")] = ""


class Beside(Row):
    """A string of other LEDs in the same place, with a resistor of its own."""

    name: Line = ""
    led_id: Short = ""
    vf: Short = ""
    drive: Annotated[Short, Reads(AMPERE, "target", "beside")] = ""
    in_series: Annotated[int, Field(ge=1, le=MOST_IN_SERIES), Sets("in_series", "beside")] = 1
    count: Annotated[int, Field(ge=1, le=MOST_BRANCHES), Sets("count", "beside")] = 1
    resistor: Annotated[Short, Reads(OHM, "resistor_ohm", "beside", above=None, minimum=0)] = ""


class LooksInput(Shape):
    """How the lamp is looked at, as typed. Lengths that are empty are usual ones."""

    how: Annotated[str, OneOf(seen.HOWS), Sets("how", "looks")] = "seen"
    optics: Annotated[str, OneOf(seen.OPTICS), Sets("optics", "looks")] = "as-is"
    glass: Annotated[str, OneOf(_GLASSES)] = ""
    own_glass: Long = ""
    shape: Annotated[str, OneOf(seen.SHAPES), Sets("shape", "looks")] = "rectangle"
    width: Annotated[Short, Reads(METRE, "width_m", "looks")] = ""
    height: Annotated[Short, Reads(METRE, "height_m", "looks")] = ""
    depth: Annotated[Short, Reads(METRE, "depth_m", "looks")] = ""
    spacing: Annotated[Short, Reads(METRE, "spacing_m", "looks")] = ""
    white_box: Annotated[bool, Suggests(_WALLS), Sets("white_box", "looks")] = False
    room: Annotated[str, OneOf(seen.ROOMS), Sets("room", "looks")] = "workshop"
    share: Annotated[float, Field(gt=0, le=8), Suggests(_SHARES), Sets("share", "looks")] = 1.0
    trim: Annotated[float, Field(gt=1e-4, lt=1e4), Sets("trim", "looks")] = 1.0


class TrialInput(Row):
    """One look at the lamp with a part in it, and what the eye said.

    ``photo_ratio`` is its light beside the old lamp's in one photograph, which may be off by ``photo_doubt``.
    """

    resistor: Annotated[Short, Reads(OHM, "ohm", "trial")] = ""
    verdict: Annotated[str, OneOf(VERDICTS), Sets("verdict", "trial")] = "right"
    room: Annotated[str, OneOf(seen.ROOMS), Sets("room", "trial")] = "workshop"
    optics: Annotated[str, OneOf(seen.OPTICS), Sets("optics", "trial")] = "as-is"
    led_id: Annotated[Short, Sets("led_id", "trial")] = ""
    at: Annotated[Short, Sets("at", "trial")] = ""
    note: Annotated[Line, Sets("note", "trial")] = ""
    photo_ratio: Annotated[Annotated[float, Field(gt=1e-6, lt=1e6)] | None, Sets("photo_ratio", "trial")] = None
    photo_doubt: Annotated[Annotated[float, Field(ge=1, le=100)] | None, Sets("photo_doubt", "trial")] = None


class StepDone(Row):
    """A step of the build, as far as somebody did it: ticked, with a note, a photograph's key and minutes."""

    done: bool = False
    # What was taken out of which compartment when it was ticked.
    drawn: dict[Short, Annotated[int, Field(ge=0, le=1_000_000)]] = Field(default_factory=dict, max_length=60)
    note: Line = ""
    minutes: Short = ""
    photo: Short = ""
    at: Short = ""


class FunctionCheck(Row):
    """Something that is done and looked at, before the swap and after it."""

    what: Line = ""
    should: Line = ""
    before: Annotated[str, OneOf(RESULTS)] = ""
    after: Annotated[str, OneOf(RESULTS)] = ""


class PositionInput(LedInput):
    """A lamp position and the swap meant for it."""

    name: Name = "Lamp"
    stage: Annotated[str, OneOf(STAGES)] = "sizing"
    notes: Long = ""
    lamp_id: Short = ""
    lamp_volts: Annotated[Short, Reads(VOLT, "volts", "lamp")] = ""
    lamp_amps: Annotated[Short, Reads(AMPERE, "amps", "lamp", at="lamp_volts")] = ""
    lamp_candela: Annotated[Short, Reads(CANDELA, "candela", "lamp")] = ""
    lamp_kept: Annotated[float, Field(gt=0, le=1), Suggests(_AGES)] = 1.0
    lamp_count: Annotated[int, Field(ge=1, le=MOST_BRANCHES)] = 1
    lamp_base: Annotated[Short, Sets("base", "lamp")] = ""
    bulb_across: Annotated[Short, Reads(METRE, "across_m", "bulb")] = ""
    bulb_long: Annotated[Short, Reads(METRE, "long_m", "bulb")] = ""
    filament_below: Annotated[Short, Reads(METRE, "below_m", "bulb")] = ""
    purpose: Annotated[str, OneOf(jobs.DUTIES), Sets("purpose")] = ""
    cues: Annotated[list[Annotated[str, OneOf(_CUES)]], Field(max_length=20), Sets("cues", by=frozenset)] = Field(
        default_factory=list
    )
    second_job: Annotated[str, OneOf(jobs.CHOICES), Sets("second_job")] = ""
    job_given_to: Annotated[Line, Sets("job_given_to")] = ""
    dead: Annotated[list[Annotated[str, OneOf(_DEAD)]], Field(max_length=10)] = Field(default_factory=list)
    in_series: Annotated[int, Field(ge=1, le=MOST_IN_SERIES), Sets("in_series")] = 1
    driver_drop: Annotated[Quantity, Reads(VOLT, "driver_drop", "driver")] = Quantity()
    target: Annotated[Quantity, Reads(AMPERE, "target")] = Quantity()
    ceiling: Annotated[float, Field(gt=0, le=1), Suggests(_CEILINGS), Sets("ceiling")] = core.USUAL_CEILING
    series: Annotated[str, OneOf(preferred.SERIES_LABELS), Sets("series")] = "E24"
    rounding: Annotated[str, OneOf(preferred.ROUNDINGS), Sets("rounding")] = "up"
    resistor: Annotated[Short, Reads(OHM, "resistor_ohm", above=None, minimum=0)] = ""
    resistor_parts: Annotated[int, Field(ge=1, le=2), Suggests(_PARTS), Sets("resistor_parts")] = 1
    resistor_source: Annotated[SourceName, Sets("resistor_source", by=Source)] = "marked"
    tolerance: Annotated[Annotated[float, Field(ge=0, lt=0.5)] | None, Sets("resistor_tolerance", by_hand=True)] = None
    rating_w: Annotated[Watts | None, Suggests(_WATTS), Sets("rating_w")] = None
    rectification: Annotated[str, OneOf(_WAYS), Sets("rectification_id", by_hand=True)] = ""
    capacitor: Annotated[Short, Reads(FARAD, "capacitor_f")] = ""
    capacitor_v: Annotated[Short, Reads(VOLT, "capacitor_v")] = ""
    second_led_id: Short = ""
    band: Annotated[Short, Reads(VOLT, "band_v", "module band")] = ""
    chassis_negative: Annotated[bool, Suggests(_FRAME), Sets("chassis_negative")] = False
    mains: Annotated[bool, Suggests(_NO_YES), Sets("mains")] = False
    glow_floor: Annotated[float, Field(gt=0, lt=1), Suggests(_FLOORS), Sets("glow_floor")] = 0.25
    driver_kind: Annotated[str, OneOf(DRIVERS)] = DRIVERS.usual.id
    driver_details: Annotated[dict[Short, DriverDetail], Field(max_length=MOST_DETAILS)] = Field(default_factory=dict)
    branches: Annotated[int, Field(ge=1, le=MOST_BRANCHES), Sets("branches")] = 1
    lead: Annotated[str, OneOf(core.LEADS), Sets("lead")] = "positive"
    common: Annotated[str, OneOf(core.COMMONS), Sets("common")] = "none"
    shunt: Annotated[Short, Reads(OHM, "shunt_ohm", absent=True)] = ""
    shunt_across: Annotated[str, OneOf(core.ACROSS), Sets("shunt_across")] = "assembly"
    shunt_w: Annotated[Watts | None, Sets("shunt_w")] = None
    series_diodes: Annotated[int, Field(ge=0, le=core.MOST_DIODES), Sets("series_diodes")] = 0
    sink: Annotated[bool, Suggests(_SINK), Sets("sink")] = False
    regulator_id: Annotated[Short, Sets("regulator_id")] = ""
    module: ReadyMade = ReadyMade()
    beside: Annotated[dict[Key, Beside], Field(max_length=MOST_BESIDE)] = Field(default_factory=dict)
    looks: LooksInput = LooksInput()
    trials: Annotated[dict[Key, TrialInput], Field(max_length=MOST_TRIALS)] = Field(default_factory=dict)
    steps: Annotated[dict[Key, StepDone], Field(max_length=MOST_STEPS)] = Field(default_factory=dict)
    checks: Annotated[dict[Key, FunctionCheck], Field(max_length=MOST_CHECKS)] = Field(default_factory=dict)
    board_mark: Annotated[str, OneOf(board.MARKS), Sets("board_mark")] = ""
    board_side: Annotated[str, OneOf(board.SIDES), Sets("board_side")] = "left"
    look_again: Annotated[Short, AfterValidator(a_day)] = ""
    hours: Short = ""
    cost: Short = ""
    one_batch: Annotated[bool, Suggests(_BATCH), Sets("one_batch")] = True
    ambient: Annotated[Short, Reads(CELSIUS, "celsius", "air", above=None)] = ""
    lit: Annotated[str, OneOf(core.LIT)] = "always"
    reads: Annotated[str, OneOf(READS)] = "one"
    weigh: Annotated[list[Annotated[str, OneOf(WEIGHTS)]], Field(max_length=6)] = Field(default_factory=list)
    sweep: Long = ""
    sweep_in_series: Short = ""
    sweep_strings: Short = ""
    sweep_resistor: Short = ""
