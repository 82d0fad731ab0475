"""A lamp position: its rail, what drives it, the LED, the resistor, the lamp that was there."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, fields, replace
from typing import Literal

from swapglow.core.driver import Driver
from swapglow.core.parts import led as leds
from swapglow.core.parts import preferred
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import Led
from swapglow.core.parts.module import Module, ready_made
from swapglow.core.parts.regulator import RegulatorPart, regulators
from swapglow.core.quantities import Figure, Source
from swapglow.core.supply import Supply
from swapglow.core.supply.treatment import TREATMENTS, Treatment, TreatmentId, usual_treatment

MOST_IN_SERIES = 200
# Ours: half of rated at the highest rail is the ceiling unless raised on purpose (common practice).
USUAL_CEILING = 0.5

MOST_BRANCHES = 50
MOST_DIODES = 4

Common = Literal["none", "positive", "negative", "chassis"]
Changes = Mapping[str, float | int | str | None]


class PositionError(ValueError):
    """A position that cannot be one."""


@dataclass(frozen=True)
class Rail:
    """A supply rail.

    Attributes:
        low, usual, high: volts as read, RMS where it alternates, each with where it comes from.
        read_at: "feed" for what the supply gives before switch, driver and dropping parts; "lamp"
            for what stands across the lamp's own contacts while it is lit. A driver's drop is
            taken off a feed and never off lamp volts.
        spread_known: False where one value stands for all three.
        supply: what feeds it.
    """

    low: Figure
    usual: Figure
    high: Figure
    read_at: Literal["feed", "lamp"] = "feed"
    spread_known: bool = True
    supply: Supply = field(default_factory=Supply)

    def __post_init__(self) -> None:
        if not 0 < self.low.value <= self.usual.value <= self.high.value:
            raise PositionError(
                f"A rail's readings must rise from lowest to highest: {self.low.value:g}, "
                f"{self.usual.value:g}, {self.high.value:g} V do not."
            )

    @property
    def volts(self) -> tuple[float, float, float]:
        """Open volts behind the source resistance at the three levels; RMS where it alternates."""
        lift = self.supply.lift
        return self.low.value * lift, self.usual.value * lift, self.high.value * lift

    @property
    def peaks(self) -> tuple[float, float, float]:
        """The highest instant of each level: √2 × RMS for a sine."""
        factor = math.sqrt(2) if self.supply.flow == "sine" else 1.0
        low, usual, high = self.volts
        return low * factor, usual * factor, high * factor


@dataclass(frozen=True)
class Position:
    """One lamp on one rail, and the swap meant for it. SI units throughout.

    Attributes:
        driver_drop: what the driver keeps, V; not used on lamp volts.
        led, led_source: the LED, and where its forward voltage range comes from.
        in_series: LEDs in the string.
        target: forward current wanted, A.
        ceiling: share of the rated current that is the drive limit at the highest rail.
        series, rounding: how the exact resistance becomes a preferred one.
        resistor_ohm: each fitted part's value, or None to follow the computation.
        resistor_parts: 1, or 2 for one in each lead.
        resistor_tolerance: 0.05 for 5 %.
        rating_w: each part's power rating, or None for the rating to fit.
        lamp: the original lamp, where known.
        celsius: the air around the parts.
        treatment: how the LED lives on a supply that alternates; None takes ours.
        capacitor_f: the reservoir fitted, or None to follow the computation.
        capacitor_v: its voltage rating, or None for the one to fit.
        second_led: the other die of a two-colour LED, where it is another kind.
        band_v: lowest and highest volts of a ready-made module, which has its resistor inside.
        chassis_negative: whether the LED's negative side touches the frame.
        mains: whether the lamp is connected with the mains.
        glow_floor: share of the first light down to which a battery counts as lasting.
        driver: what drives the lamp.
        branches: equal strings side by side, each with its own resistor.
        lead: the lead that one resistor sits in.
        common: the wire the lamp shares with others.
        shunt_ohm, shunt_across, shunt_w: a resistor across the LEDs, or across LEDs and resistor, and its
            rating; a load resistor is one across both.
        series_diodes: silicon diodes in series with the LEDs.
        regulator_id: a regulator before the LEDs; a "source" stands in the resistor's place, which then
            sets its current.
        module: a ready-made LED lamp in place of LEDs and resistor.
    """

    rail: Rail
    led: Led
    target: Figure
    in_series: int = 1
    driver_drop: Figure = field(default_factory=lambda: Figure(0.0, Source.ASSUMED))
    led_source: Source = Source.ASSUMED
    ceiling: float = USUAL_CEILING
    series: str = "E24"
    rounding: preferred.Rounding = "up"
    resistor_ohm: float | None = None
    resistor_parts: int = 1
    resistor_tolerance: float = 0.05
    resistor_source: Source = Source.MARKED
    rating_w: float | None = None
    lamp: Lamp | None = None
    celsius: float = leds.REFERENCE_C
    treatment: TreatmentId | None = None
    capacitor_f: float | None = None
    capacitor_v: float | None = None
    second_led: Led | None = None
    band_v: tuple[float, float] | None = None
    chassis_negative: bool = False
    mains: bool = False
    glow_floor: float = 0.25
    driver: Driver = field(default_factory=Driver)
    branches: int = 1
    lead: Literal["positive", "negative"] = "positive"
    common: Common = "none"
    shunt_ohm: float | None = None
    shunt_across: Literal["leds", "assembly"] = "assembly"
    shunt_w: float | None = None
    series_diodes: int = 0
    regulator_id: str = ""
    module: Module | None = None

    def __post_init__(self) -> None:
        if not (isinstance(self.in_series, int) and 1 <= self.in_series <= MOST_IN_SERIES):
            raise PositionError(f"LEDs in series must be a whole number, 1 to {MOST_IN_SERIES}.")
        if self.resistor_parts not in (1, 2):
            raise PositionError("A resistor is one part, or two with one in each lead.")
        if not self.target.value > 0:
            raise PositionError("The drive wanted must be more than 0 A.")
        if self.driver_drop.value < 0:
            raise PositionError("A driver's drop cannot be negative.")
        if not 0 < self.ceiling <= 1:
            raise PositionError("The drive ceiling is a share of the rated current, up to 1.")
        if self.resistor_ohm is not None and not 1e-3 <= self.resistor_ohm <= 1e9:
            raise PositionError("A fitted resistor must lie between 1 mΩ and 1 GΩ.")
        if not 0 <= self.resistor_tolerance < 0.5:
            raise PositionError("A resistor's tolerance must be under 50 %.")
        if self.rating_w is not None and not self.rating_w > 0:
            raise PositionError("A power rating must be more than 0 W.")
        if self.treatment is not None and self.treatment not in TREATMENTS:
            raise PositionError(f"There is no treatment {self.treatment!r}: {', '.join(TREATMENTS)}.")
        if self.capacitor_f is not None and not 1e-9 <= self.capacitor_f <= 1:
            raise PositionError("A reservoir capacitor must lie between 1 nF and 1 F.")
        if not 0 < self.glow_floor < 1:
            raise PositionError("The glow to last down to is a share of the first light, under 1.")
        if not 1 <= self.branches <= MOST_BRANCHES:
            raise PositionError(f"Branches must be a whole number, 1 to {MOST_BRANCHES}.")
        if not 0 <= self.series_diodes <= MOST_DIODES:
            raise PositionError(f"Diodes in series with the LEDs are a whole number, up to {MOST_DIODES}.")
        if self.shunt_ohm is not None and not 1e-2 <= self.shunt_ohm <= 1e9:
            raise PositionError("A shunt must lie between 10 mΩ and 1 GΩ.")
        if self.regulator_id and self.regulator_id not in regulators():
            raise PositionError(f'There is no regulator "{self.regulator_id}": {", ".join(regulators())}.')
        if self.regulator_id and self.module is not None:
            raise PositionError("A ready-made lamp needs no regulator before it: take one or the other.")
        preferred.decade(self.series)

    @property
    def regulator(self) -> RegulatorPart | None:
        """The regulator before the LEDs, if any."""
        return regulators()[self.regulator_id] if self.regulator_id else None

    @property
    def drops(self) -> tuple[float, float, float]:
        """The driver's lowest, usual and highest drop that count, V."""
        if self.rail.read_at == "lamp":
            return 0.0, 0.0, 0.0
        low, usual, high = self.driver.keeps
        value = self.driver_drop.value
        return (low, value, high) if usual == value else (value, value, value)

    @property
    def set_by_ohms(self) -> bool:
        """Whether the resistor only sets a current source."""
        return self.regulator is not None and self.regulator.kind == "source"

    @property
    def ohm_spread(self) -> float:
        """Tolerance that goes with the resistor: its own, and that of the source it sets."""
        more = self.regulator.spread if self.regulator is not None and self.set_by_ohms else 0.0
        return self.resistor_tolerance + more

    @property
    def drop_v(self) -> float:
        """The driver's drop that counts: none where the rail was read at the lamp."""
        return 0.0 if self.rail.read_at == "lamp" else self.driver_drop.value

    @property
    def strings(self) -> int:
        """Strings that light: two by turns where LEDs stand back to back on a sine."""
        t = self.rail.supply
        return 2 if t.flow in ("sine", "pulses") and self.treated.id in ("back_to_back", "two_colour") else 1

    @property
    def treated(self) -> Treatment:
        """The treatment that counts; meaningful where the supply alternates."""
        return TREATMENTS[self.treatment or usual_treatment(self.rail.supply.flow)]

    @property
    def ceiling_a(self) -> float:
        """The drive limit, A."""
        # A ready-made lamp is bound by its volts; its LEDs' own drive is its maker's affair.
        return self.led.rated_a * (1.0 if self.module is not None else self.ceiling)


_CHANGEABLE = {f.name for f in fields(Position)}


def with_changes(position: Position, changes: Changes) -> Position:
    """The position after a remedy's changes.

    ``led_id`` picks another LED of the catalogue, ``module_id`` a ready-made lamp; ``target_a`` sets
    the drive wanted, ``keep_warm_ohm`` the driver's own keep-warm resistor.

    Raises:
        PositionError: a change that no position knows.
    """
    values: dict[str, object] = {}
    for name, value in changes.items():
        if name == "led_id":
            if value not in leds.catalogue():
                raise PositionError(f'There is no LED "{value}" in the catalogue.')
            values["led"] = leds.catalogue()[str(value)]
            values["led_source"] = Source.ASSUMED
        elif name == "module_id":
            values |= _with_module(position, str(value))
        elif name == "keep_warm_ohm":
            values["driver"] = replace(position.driver, keep_warm_ohm=value)  # type: ignore[arg-type]
        elif name == "driver_counts":
            values["driver"] = replace(position.driver, counts=bool(value))
        elif name == "others_changed":
            values["driver"] = replace(position.driver, changed=bool(value))
        elif name == "target_a":
            if not isinstance(value, int | float):
                raise PositionError("The drive wanted must be a number.")
            values["target"] = Figure(float(value), Source.COMPUTED)
        elif name in _CHANGEABLE:
            values[name] = value
        else:
            raise PositionError(f'A position has no "{name}" to change.')
    return replace(position, **values)  # type: ignore[arg-type]


def _with_module(position: Position, module_id: str) -> dict[str, object]:
    """What changes where a ready-made lamp of the catalogue goes in."""
    if module_id not in ready_made():
        raise PositionError(f'There is no ready-made lamp "{module_id}" in the catalogue.')
    made = ready_made()[module_id]
    led = replace(made.module.led(position.led), candela=made.candela)
    return {
        "module": made.module, "led": led, "led_source": Source.MARKED, "in_series": 1, "resistor_ohm": None,
        "band_v": (made.module.low, made.module.high), "branches": 1, "series_diodes": 0, "regulator_id": "",
        "shunt_ohm": None, "resistor_parts": 1,
    }  # fmt: skip
