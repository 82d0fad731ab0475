"""What a kind of supply says of itself; the rest of the house asks here and never by a kind's name."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, ClassVar, Literal, cast

from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.kinds.step import Meaning, NextStep
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.meter import volt_range
from swapglow.core.quantities import AMPERE, VOLT, Figure, Input, InputError, Source, show
from swapglow.core.supplies.supply import Grounded, Pole, Supply, no_figure, source_resistance
from swapglow.core.supplies.waveform import Waveform

if TYPE_CHECKING:
    from swapglow.core.supplies.rail import Rail

# What to say of a supply that is most often made from mains.
MAINS_CASE = "If mains feeds it, its side of the case is for someone qualified."

OPEN = Detail("open", "Open reading", VOLT, "With the lamp out. Empty: no sag is reckoned with")
LOAD = Detail("load", "Load while reading", AMPERE, "Current of the loaded reading. Empty takes the old lamp's")
GROUNDED = Detail(
    "grounded",
    "One leg on the frame?",
    None,
    "Continuity from each leg to the frame, supply off",
    (("unknown", "Not known"), ("yes", "Yes"), ("no", "No")),
)
FRAME_POLE = Detail(
    "frame_pole",
    "Which pole is on the frame?",
    None,
    "Black lead on the frame, red on the feed: volts without a sign are minus on the frame, a minus sign is plus",
    (("unknown", "Not known"), ("minus", "Minus"), ("plus", "Plus"), ("neither", "Neither")),
)

# What the driver is asked to do in a state.
Solved = Literal["on", "off", "closed", "pulse"]


@dataclass(frozen=True)
class StandIns:
    """What stands in for readings nobody took: the usual level, and the two ends in volts."""

    usual: Input | None = None
    ends: tuple[float, float] | None = None


@dataclass(frozen=True)
class SupplyState:
    """A state that the supply itself has, whatever drives the lamp.

    Attributes:
        id: the state's name among all states; "on" is the one the LED is sized in.
        label: what it is called on screen.
        solved: what the circuit does in it.
        most_v: the most the rail stands at in it, V; None where it stays what it is.
    """

    id: Solved
    label: str
    solved: Solved
    most_v: float | None = None


@dataclass(frozen=True)
class Circumstances:
    """What a supply is told of its lamp when it says what is worth measuring.

    Attributes:
        rail: the rail it feeds.
        lamp: the old lamp, where known.
        string_current_max: the most the LED may carry, A.
        chassis_negative: whether the LED's negative side touches the frame.
        by_frame: whether its way round goes by the frame: the frame is a wire that is shared, or a ready-made lamp that
            lights one way round has its shell there.
        reservoir: whether a capacitor holds the LED up.
    """

    rail: "Rail"
    lamp: Lamp | None
    string_current_max: float
    chassis_negative: bool
    by_frame: bool
    reservoir: bool


@dataclass(frozen=True)
class Owed:
    """A reading worth taking, and how it is weighed.

    Attributes:
        step: how to take it.
        otherwise: the supply as it would be if the reading came out otherwise; the reading weighs what
            that does to the LED's current.
        share_of_usual, share_of_most: else a weight outright, in usual or in most currents.
        costs: what is lost without it, in words, and ``loss`` the kind of it; "" for no more than the light.
    """

    step: NextStep
    otherwise: Supply | None = None
    share_of_usual: float = 0.0
    share_of_most: float = 0.0
    costs: str = ""
    loss: Literal["nothing", "LED", "unit"] = "nothing"


class SupplyKind:
    """A kind of supply. A module binds one to ``KIND``; figures are common practice unless sourced.

    Attributes:
        id: its name in records and documents.
        order: its place among the kinds.
        label, expect: its name, and what to expect of it in a line.
        waveform: how its current runs.
        levels: names of its lowest, usual and highest level.
        details: what it asks for besides three levels. "source" is a resistance behind the rail, "open"
            and "load" the readings that give one, "hertz" its frequency, "grounded" its frame.
        low_share, high_share: ends that stand in for readings nobody took, as shares of the usual; None
            where one value then stands for all three.
        steady_label: its staircase's name where it has no states.
        level_states: whether its levels' names say the state to read them in.
        levels_on_rule: whether the slide rule's scales bear its levels' names.
        levels_apart: whether its levels are too far apart for one picture.
        shows_halfway: whether the staircase half-way up its wave is worth a picture.
        ends_worth_reading: whether anybody would bring it to its ends to read them.
        lamp_points: whether its levels are read at the lamp's own contacts.
        read_at_offered: whether it may have been read at the lamp, lit.
        feeds: whether it is meant to feed anything, so that a regulator on it makes sense.
        reads_line: whether equipment reads the line that the lamp hangs on.
        glow_in_any_state: whether its low state is its own, and no leak of a driver's.
        may_be_other: whether nobody knows, until it is read, that it is not the other of AC and DC.
        may_be_renamed: whether readings may make it another kind: only what was never said to be special.
        position_fields: fields of a lamp that only make sense on it.
        driver_note: what the driver's sheet says of it.
        caution: the usual caution at a reading on it, "" for none of its own.
        fused_tap: whether whatever is clipped to it has a fuse in line.
        usual_hertz: its frequency where nobody read it.
        guess: its usual volts until somebody reads them, as typed; "" where nothing speaks for any.
    """

    id: ClassVar[str]
    order: ClassVar[int]
    label: ClassVar[str]
    expect: ClassVar[str]
    waveform: ClassVar[Waveform] = Waveform.DC
    guess: ClassVar[str] = ""
    levels: ClassVar[tuple[str, str, str]] = ("lowest", "usual", "highest")
    details: ClassVar[tuple[Detail, ...]] = ()
    low_share: ClassVar[float | None] = None
    high_share: ClassVar[float | None] = None
    steady_label: ClassVar[str] = "Steady"
    level_states: ClassVar[bool] = True
    levels_on_rule: ClassVar[bool] = False
    levels_apart: ClassVar[bool] = False
    shows_halfway: ClassVar[bool] = False
    ends_worth_reading: ClassVar[bool] = True
    lamp_points: ClassVar[bool] = False
    read_at_offered: ClassVar[bool] = True
    feeds: ClassVar[bool] = True
    reads_line: ClassVar[bool] = False
    glow_in_any_state: ClassVar[bool] = True
    may_be_other: ClassVar[bool] = False
    may_be_renamed: ClassVar[bool] = False
    position_fields: ClassVar[tuple[str, ...]] = ()
    driver_note: ClassVar[str] = ""
    caution: ClassVar[str] = ""
    fused_tap: ClassVar[bool] = False
    usual_hertz: ClassVar[float] = 50.0

    @property
    def asks_pole(self) -> bool:
        """Whether one of its poles may stand on the frame."""
        return any(d.id == FRAME_POLE.id for d in self.details)

    @property
    def sags(self) -> bool:
        """Whether open and loaded readings of it differ by a source resistance."""
        return any(d.id == OPEN.id for d in self.details)

    def stand_ins(self, details: Details) -> StandIns:
        """What stands in for levels nobody read."""
        return StandIns()

    def supply(self, details: Details, volts: tuple[float, float, float], lamp: Lamp | None) -> Supply:
        """The supply from what was typed.

        Args:
            details: what this kind asked for.
            volts: its three levels as read, V.
            lamp: the old lamp, whose current stands in for a load nobody typed.

        Returns:
            The supply, its source resistance read by the details that give one.

        Raises:
            InputError: for the detail that cannot be read.
        """
        details.check()
        source, ratio = self.behind(details, volts[1], lamp)
        hertz, hertz_source = self.frequency(details, volts)
        grounded: Grounded = "unknown"
        if details.asks(GROUNDED.id):
            grounded = cast(Grounded, details.choice(GROUNDED.id))
        pole: Pole = "unknown"
        if details.asks(FRAME_POLE.id):
            pole = cast(Pole, details.choice(FRAME_POLE.id))
        return Supply(self, source, ratio, hertz, hertz_source, grounded, pole, **self.facts(details, volts))

    def facts(self, details: Details, volts: tuple[float, float, float]) -> dict[str, Any]:
        """Further attributes of :class:`Supply` that only this kind knows, by name.

        Args:
            details: what this kind asked for.
            volts: its three levels as read, V.

        Returns:
            Names and values.

        Raises:
            InputError: for the detail that cannot be read.
        """
        return {}

    def behind(self, details: Details, loaded: float, lamp: Lamp | None) -> tuple[Figure, float]:
        """Source resistance, and the open voltage over the one read.

        Args:
            details: a "source" as typed, or "open" and "load".
            loaded: the usual level as read, V.
            lamp: the old lamp.

        Returns:
            Ohms with their source, and the ratio.

        Raises:
            InputError: the open reading is under the loaded one.
        """
        if details.asks("source"):
            return details.figure("source") or no_figure(), 1.0
        opened = details.figure(OPEN.id) if details.asks(OPEN.id) else None
        if opened is None:
            return no_figure(), 1.0
        load = details.figure(LOAD.id)
        amps = load or (Figure(lamp.amps_at(loaded), Source.MARKED, "the old lamp's") if lamp else None)
        if opened.value < loaded:
            raise InputError(
                OPEN.id,
                f"The open reading, {show(opened.value, VOLT)}, is under the usual loaded one, "
                f"{show(loaded, VOLT)}: they are exchanged, or the lamp was out both times.",
            )
        ratio = opened.value / loaded
        if amps is None:
            # The sag is known but not what made it: the LED, a lighter load, is taken to see the open volts.
            return no_figure(), ratio
        ohms = source_resistance(opened.value, loaded, amps.value)
        known = not (opened.source.is_assumed or amps.source.is_assumed)
        note = f"({show(opened.value, VOLT)} − {show(loaded, VOLT)}) ÷ {show(amps.value, AMPERE)}"
        return Figure(ohms, Source.COMPUTED if known else Source.ASSUMED, note), ratio

    def frequency(
        self, details: Details, volts: tuple[float, float, float]
    ) -> tuple[tuple[float, float, float], Source]:
        """Frequency at the three levels, Hz, and where it comes from.

        Args:
            details: a "hertz" as typed.
            volts: its three levels as read, V.

        Returns:
            Three frequencies, zeros where it has none, and their source.

        Raises:
            InputError: they cannot be read.
        """
        if self.waveform is not Waveform.SINE:
            return (0.0, 0.0, 0.0), Source.ASSUMED
        usual = details.figure("hertz")
        centre = usual.value if usual else self.usual_hertz
        return (centre, centre, centre), usual.source if usual else Source.ASSUMED

    def states(self) -> tuple[SupplyState, ...]:
        """The states it has of its own, the lit one first; none where the driver's count."""
        return ()

    def rail_points(self) -> str:
        """Between which points its levels are read."""
        return "across the lamp's own contacts" if self.lamp_points else "feed, before the switch, to ground"

    def usual_meanings(self, volts: str) -> tuple[Meaning, ...]:
        """What a reading of the usual level would mean; ``volts`` is what is expected, as printed."""
        nothing = "it is off, or its fuse has gone"
        if self.may_be_other or self.waveform is Waveform.SINE:
            other = "DC" if self.waveform is Waveform.SINE else "AC"
            nothing = f"it is {other}: read the same points on {other} volts; or it is off"
        return (
            Meaning(f"about {volts}", "the rail is what it is taken for"),
            Meaning("next to nothing", nothing),
            Meaning(f"half of {volts}", "two lamps in series share it"),
        )

    def owed(self, about: Circumstances) -> Iterable[Owed]:
        """Readings beyond its three levels that are worth taking."""
        if self.asks_pole and about.by_frame and about.rail.supply.pole == "unknown":
            yield Owed(_pole_step(about), share_of_usual=10.0, costs="the LED, turned round", loss="LED")


def _pole_step(about: Circumstances) -> NextStep:
    """A turned LED is not weighed against a drift: it comes first."""
    volts = show(about.rail.usual.value, VOLT)
    return NextStep(
        FRAME_POLE.id,
        "Find out which pole is on the frame",
        volt_range(about.rail.usual.value * 1.2),
        "black lead on the frame or the holder's shell, red on its contact",
        "lamp out, switch on",
        f"{volts}, or the same with a minus sign",
        FRAME_POLE.id,
        "Which way round the LED goes hangs on it, and older sets and vehicles have their plus there.",
        about.rail.supply.kind.caution,
        (
            Meaning(volts, "minus is on the frame"),
            Meaning(f"−{volts}", "plus is on the frame: its shell is plus"),
            Meaning("next to nothing", "neither is, or the frame there is paint"),
        ),
        "-12.6V, or plus",
    )
