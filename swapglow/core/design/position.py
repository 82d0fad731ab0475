"""A lamp position: its rail, what drives it, the LED, the resistor, the lamp that was there."""

from collections.abc import Collection
from dataclasses import dataclass, field, replace
from typing import Literal

from swapglow.core.constants import REFERENCE_C
from swapglow.core.design.board import BoardMark, Side
from swapglow.core.design.branch import MOST_BESIDE, MOST_BRANCHES, Branch
from swapglow.core.design.looks import Looks
from swapglow.core.design.rectification import OWN_BRIDGE, RECTIFICATIONS, Rectification, usual_rectification
from swapglow.core.drivers import plain_driver
from swapglow.core.drivers.driver import Driver
from swapglow.core.intake.hints import Hint
from swapglow.core.intake.second_job import Duty
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import MOST_IN_SERIES, Led
from swapglow.core.parts.ready_made import Module
from swapglow.core.parts.regulator import RegulatorPart, regulators
from swapglow.core.parts.resistor import check_resistor
from swapglow.core.quantities import Figure, InputError, Source
from swapglow.core.supplies.rail import Rail
from swapglow.core.values import preferred

# Ours: half of rated at the highest rail is the ceiling unless raised on purpose (common practice).
USUAL_CEILING = 0.5

MOST_DIODES = 4
LED_FULL_C, LED_DEAD_C = 50.0, 100.0

# The lead that one resistor sits in, and the wire a lamp shares with others.
LEADS = {"positive": "Positive, ours", "negative": "Negative"}
COMMONS = {"none": "None", "positive": "Positive", "negative": "Negative", "chassis": "Chassis"}
# When a lamp is lit, among the others on its rail.
LIT = {"always": "Always", "sometimes": "Now and then", "single": "One at a time with others"}
# What a shunt stands across.
ACROSS = {"assembly": "LED and resistor", "leds": "The LED alone"}
Lead = Literal["positive", "negative"]
Common = Literal["none", "positive", "negative", "chassis"]
Across = Literal["leds", "assembly"]


@dataclass(frozen=True)
class Position:
    """One lamp on one rail, and the swap meant for it. SI units throughout.

    Attributes:
        rail: what feeds it.
        led: the LED.
        target: forward current wanted, A.
        driver: what drives the lamp; its drop is not used on lamp volts.
        in_series: LEDs in the string.
        led_source: where the LED's forward voltage range comes from; ``led_read_on`` the lamps with LEDs of the same
            lot that it was read on.
        ceiling: share of the rated current that is the drive limit at the highest rail.
        series, rounding: how the exact resistance becomes a preferred one.
        resistor_ohm: each fitted part's value, None to follow the computation, or 0 for no resistor at all.
        follows: whether ``resistor_ohm`` is the computed value that was fitted when the lamp was read.
        ohm_share: the resistor's real resistance over its value, by the readings; 1 without one.
        ohm_doubt: how far off that may still be, a share; None without a reading.
        resistor_parts: 1, or 2 for one in each lead.
        resistor_tolerance: 0.05 for 5 %.
        resistor_source: where its value comes from.
        rating_w: each part's power rating, or None for the rating to fit.
        lamp: the original lamp, where known.
        celsius: the air around the parts.
        rectification_id: how the LED lives on a supply that alternates; None takes ours.
        capacitor_f: the reservoir fitted, or None to follow the computation.
        capacitor_v: its voltage rating, or None for the one to fit.
        second_led: the other die of a two-colour LED, where it is another kind.
        band_v: lowest and highest volts of a ready-made module, which has its resistor inside.
        chassis_negative: whether the LED's negative side touches the frame.
        mains: whether the lamp is connected with the mains.
        glow_floor: share of the first light down to which a battery counts as lasting.
        branches: equal strings side by side, each with its own resistor.
        lead: the lead that one resistor sits in.
        common: the wire the lamp shares with others.
        shunt_ohm: a resistor across the LEDs, or across LEDs and resistor; a load resistor is one.
        shunt_across: which of the two.
        shunt_w: its rating.
        series_diodes: silicon diodes in series with the LEDs.
        regulator_id: a regulator before the LEDs; a "source" stands in the resistor's place, which then
            sets its current.
        sink: whether the regulator is on a heat sink.
        module: a ready-made LED lamp in place of LEDs and resistor.
        inside: which of the insides it may have is solved; ``led`` is then that one's.
        beside: strings of other LEDs in the same place.
        looks: how it is looked at.
        one_batch: whether the LEDs of a string are alike, of one batch, or each has its own luck.
        board_mark, board_side: what the board prints at one of its pads, and at which.
        purpose: what the lamp is for.
        cues: what was seen of it that says it may be part of the circuit.
        hints: second jobs that its name and its rail speak for.
        warns: whether its name says that it warns of something.
        at_hand: resistors that the size is chosen from where one will do, Ω; none where the drawer does not count.
        second_job, job_given_to: what else it does, "" where nobody found out, and the part that takes that.
    """

    rail: Rail
    led: Led
    target: Figure
    driver: Driver = field(default_factory=plain_driver)
    in_series: int = 1
    led_source: Source = Source.ASSUMED
    led_read_on: tuple[str, ...] = ()
    ceiling: float = USUAL_CEILING
    series: str = "E24"
    rounding: preferred.Rounding = "up"
    resistor_ohm: float | None = None
    follows: bool = False
    ohm_share: float = 1.0
    ohm_doubt: float | None = None
    resistor_parts: int = 1
    resistor_tolerance: float = 0.05
    resistor_source: Source = Source.MARKED
    rating_w: float | None = None
    lamp: Lamp | None = None
    celsius: float = REFERENCE_C
    rectification_id: str | None = None
    capacitor_f: float | None = None
    capacitor_v: float | None = None
    second_led: Led | None = None
    band_v: tuple[float, float] | None = None
    chassis_negative: bool = False
    mains: bool = False
    glow_floor: float = 0.25
    branches: int = 1
    lead: Lead = "positive"
    common: Common = "none"
    shunt_ohm: float | None = None
    shunt_across: Across = "assembly"
    shunt_w: float | None = None
    series_diodes: int = 0
    regulator_id: str = ""
    sink: bool = False
    module: Module | None = None
    inside: int = 0
    beside: tuple[Branch, ...] = ()
    one_batch: bool = True
    board_mark: BoardMark = ""
    board_side: Side = "left"
    purpose: Duty = ""
    cues: frozenset[str] = frozenset()
    second_job: str = ""
    job_given_to: str = ""
    hints: tuple[Hint, ...] = ()
    warns: bool = False
    at_hand: frozenset[float] = frozenset()
    looks: Looks = field(default_factory=Looks)

    def __post_init__(self) -> None:
        _whole("in_series", "LEDs in series", self.in_series, 1, MOST_IN_SERIES)
        _whole("branches", "Branches", self.branches, 1, MOST_BRANCHES)
        _whole("series_diodes", "Diodes in series with the LEDs", self.series_diodes, 0, MOST_DIODES)
        if self.resistor_parts not in (1, 2):
            raise InputError("resistor_parts", "A resistor is one part, or two with one in each lead.")
        if not self.target.value > 0:
            raise InputError("target", "The drive wanted must be more than 0 A.")
        if self.driver.drop.value < 0:
            raise InputError("driver_drop", "A driver's drop cannot be negative.")
        if not 0 < self.ceiling <= 1:
            raise InputError("ceiling", "The drive ceiling is a share of the rated current, up to 1.")
        if not 0 <= self.resistor_tolerance < 0.5:
            raise InputError("resistor_tolerance", "A resistor's tolerance must be under 50 %.")
        if self.rating_w is not None and not self.rating_w > 0:
            raise InputError("rating_w", "A power rating must be more than 0 W.")
        if not 0 < self.glow_floor < 1:
            raise InputError("glow_floor", "The glow to last down to is a share of the first light, under 1.")
        if self.resistor_ohm:
            check_resistor("resistor_ohm", self.resistor_ohm)
        _within("shunt_ohm", self.shunt_ohm, 1e-2, 1e9, "A shunt must lie between 10 mΩ and 1 GΩ.")
        _within("capacitor_f", self.capacitor_f, 1e-9, 1.0, "A reservoir capacitor must lie between 1 nF and 1 F.")
        _known("rectification_id", self.rectification_id, RECTIFICATIONS, "rectification")
        _known("regulator_id", self.regulator_id or None, regulators(), "regulator")
        _known("series", self.series, preferred.SERIES, "preferred series")
        if not -40 <= self.celsius <= 125:
            raise InputError("ambient", "The air around the lamp must lie between −40 and 125 °C.")
        self._check_strings()
        if self.regulator_id and self.module is not None:
            raise InputError("regulator_id", "A ready-made lamp needs no regulator before it: take one or the other.")

    def _check_strings(self) -> None:
        """Other strings in the place, and what they do not go with."""
        if len(self.beside) > MOST_BESIDE:
            raise InputError("beside", f"{len(self.beside)} other strings are more than {MOST_BESIDE}.")
        if not self.beside:
            return
        if self.module is not None:
            raise InputError(
                "beside", "Other strings beside a ready-made lamp are not worked out: make it one or the other."
            )
        if self.set_by_ohms:
            raise InputError("beside", "Other strings beside a current source are not worked out: each needs its own.")
        if self.shunt_ohm is not None and self.shunt_across == "leds":
            raise InputError(
                "beside",
                "A shunt across the LED alone, with other strings beside it, is not worked out: "
                "put it across LED and resistor.",
            )

    @property
    def swallows_pulses(self) -> bool:
        """Whether a capacitor across the LEDs takes the pulses by which the equipment checks the lamp."""
        return self.driver.pulses and self.capacitor_f is not None and not self.rail.supply.alternates

    @property
    def bare(self) -> bool:
        """Whether no resistor of ours stands before the LEDs: a ready-made lamp's is inside, or there is none."""
        return self.resistor_ohm == 0 or (self.module is not None and self.resistor_ohm is None)

    @property
    def read_on_text(self) -> str:
        """On which lamps its LEDs' lot was read: ", as read on Dial, left"; empty for none."""
        names = self.led_read_on
        more = f" and {len(names) - 1} more" if len(names) > 1 else ""
        return f", as read on {names[0]}{more}" if names else ""

    @property
    def possible(self) -> "tuple[Position, ...]":
        """The position with each of the insides its ready-made lamp may have, the likeliest first."""
        m = self.module
        if m is None or (m.law_known and len(m.insides) == 1):
            return (self,)
        # Constant power is not worked out where nothing holds the crests: see the builder.
        holds = not self.rail.supply.alternates or self.rectification.reservoir
        laws = [law for law in m.possible if law.law != "power" or holds or m.law == "power"]
        out = []
        for law in laws:
            # Two ends and the likeliest say how far apart the answers lie.
            most = sorted(range(len(law.insides)), key=lambda k: law.insides[k].dice)
            for k in dict.fromkeys((0, most[0], most[-1])):
                known = m if law.law == m.law else law
                out.append(replace(self, module=known, inside=k, led=law.led_of(law.insides[k], self.led)))
        return tuple(out)

    def with_resistor(self, ohm: float) -> "Position":
        """The position with another resistor, of which nothing was read."""
        return replace(self, resistor_ohm=ohm, follows=False, ohm_share=1.0, ohm_doubt=None)

    @property
    def regulator(self) -> RegulatorPart | None:
        """The regulator before the LEDs, if any."""
        return regulators()[self.regulator_id] if self.regulator_id else None

    @property
    def drops(self) -> tuple[float, float, float]:
        """The driver's lowest, usual and highest drop that count, V."""
        if self.rail.read_at == "lamp":
            return 0.0, 0.0, 0.0
        low, usual, high = self.driver.on_drop
        value = self.driver.drop.value
        return (low, value, high) if usual == value else (value, value, value)

    @property
    def drop_v(self) -> float:
        """The driver's drop that counts: none where the rail was read at the lamp."""
        return 0.0 if self.rail.read_at == "lamp" else self.driver.drop.value

    @property
    def set_by_ohms(self) -> bool:
        """Whether the resistor only sets a current source."""
        return self.regulator is not None and self.regulator.kind == "source"

    @property
    def ohm_spread(self) -> float:
        """Tolerance that goes with the resistor: its own, and that of the source it sets."""
        more = self.regulator.spread if self.regulator is not None and self.set_by_ohms else 0.0
        return self.ohm_known_to + more

    @property
    def ohm_known_to(self) -> float:
        """How far the resistor may be from what it is taken for: its tolerance, or what readings leave of that."""
        return self.resistor_tolerance if self.ohm_doubt is None else self.ohm_doubt

    @property
    def held_v(self) -> tuple[float, float, float]:
        """What a fixed regulator holds at the least, usually and at the most, V; zeros without one."""
        r = self.regulator
        if r is None or r.kind != "fixed":
            return 0.0, 0.0, 0.0
        return r.volts * (1 - r.spread), r.volts, r.volts * (1 + r.spread)

    @property
    def strings_by_turns(self) -> int:
        """Strings that light: two by turns where LEDs stand back to back on what turns by itself."""
        turns = self.rail.supply.alternates and self.rail.supply.waveform.turns_by_itself
        return 2 if turns and self.rectification.guard == "led" else 1

    @property
    def points_of_light(self) -> int:
        """LEDs that give light."""
        return self.in_series * self.branches * self.strings_by_turns

    @property
    def rectification(self) -> Rectification:
        """The rectification that counts; meaningful where the supply alternates."""
        if self.rectification_id and self.rectification_id != OWN_BRIDGE.id:
            return RECTIFICATIONS[self.rectification_id]
        if self.module is not None and not self.module.polarised:
            return OWN_BRIDGE
        ours = usual_rectification(self.rail.supply.waveform)
        # No capacitor is offered that would hold the crest of what can kill.
        return RECTIFICATIONS["bridge"] if ours.reservoir and self.live_danger else ours

    @property
    def rated_a(self) -> float:
        """What the LED may carry in the air around it, A.

        Full up to 50 °C, then in a straight line to nothing at 100 °C (data sheets of through-hole parts,
        from memory).
        """
        share = min(1.0, max(0.0, (LED_DEAD_C - self.celsius) / (LED_DEAD_C - LED_FULL_C)))
        return self.led.rated_a * max(share, 1e-6)

    @property
    def ceiling_a(self) -> float:
        """The drive limit, A."""
        # A ready-made lamp is bound by its volts; its LEDs' own drive is its maker's affair.
        return self.rated_a * (1.0 if self.module is not None else self.ceiling)

    @property
    def live_danger(self) -> bool:
        """Whether nothing live is asked or offered: mains, or volts past extra-low."""
        return self.mains or self.rail.dangerous

    @property
    def free_lead(self) -> Lead | None:
        """The lead that is the lamp's own where a wire is shared: None where none is, or where nobody read the frame.

        On AC a chassis is the rectifier's negative; on DC it is the pole that stands on it.
        """
        shared: dict[str, Lead] = {"positive": "negative", "negative": "positive"}
        if self.common != "chassis":
            return shared.get(self.common)
        if self.rail.supply.alternates or not self.rail.supply.kind.asks_pole:
            return "positive"
        poles: dict[str, Lead] = {"minus": "positive", "plus": "negative"}
        return poles.get(self.rail.supply.pole)

    @property
    def by_frame(self) -> bool:
        """Whether the way round goes by the frame: a wire that is shared, or the shell of a lamp that has a plus."""
        return self.common == "chassis" or (self.module is not None and self.module.polarised)

    @property
    def on_frame(self) -> bool:
        """Whether the LED's negative side touches the frame: said there, or by a wire that is the chassis."""
        return self.chassis_negative or self.common == "chassis"


def _whole(field: str, what: str, value: object, least: int, most: int) -> None:
    if not (isinstance(value, int) and least <= value <= most):
        raise InputError(field, f"{what} must be a whole number, {least} to {most}.")


def _within(field: str, value: float | None, least: float, most: float, message: str) -> None:
    if value is not None and not least <= value <= most:
        raise InputError(field, message)


def _known(field: str, value: str | None, known: Collection[str], what: str) -> None:
    if value is not None and value not in known:
        raise InputError(field, f'There is no {what} "{value}": {", ".join(known)}.')
