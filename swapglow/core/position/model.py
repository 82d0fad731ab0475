"""A lamp position: its rail, what drives it, the LED, the resistor, the lamp that was there."""

from collections.abc import Mapping
from dataclasses import dataclass, field, fields, replace
from typing import Literal

from swapglow.core.parts import led as leds
from swapglow.core.parts import preferred
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import Led
from swapglow.core.quantities import Figure, Source

MOST_IN_SERIES = 200
# Ours: half of rated at the highest rail is the ceiling unless raised on purpose (common practice).
USUAL_CEILING = 0.5

Changes = Mapping[str, float | int | str | None]


class PositionError(ValueError):
    """A position that cannot be one."""


@dataclass(frozen=True)
class Rail:
    """A steady DC supply rail.

    Attributes:
        low, usual, high: volts, each with where it comes from.
        read_at: "feed" for what the supply gives before switch, driver and dropping parts; "lamp"
            for what stands across the lamp's own contacts while it is lit. A driver's drop is
            taken off a feed and never off lamp volts.
        spread_known: False where one value stands for all three.
    """

    low: Figure
    usual: Figure
    high: Figure
    read_at: Literal["feed", "lamp"] = "feed"
    spread_known: bool = True

    def __post_init__(self) -> None:
        if not 0 < self.low.value <= self.usual.value <= self.high.value:
            raise PositionError(
                f"A rail's readings must rise from lowest to highest: {self.low.value:g}, "
                f"{self.usual.value:g}, {self.high.value:g} V do not."
            )


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
        preferred.decade(self.series)

    @property
    def drop_v(self) -> float:
        """The driver's drop that counts: none where the rail was read at the lamp."""
        return 0.0 if self.rail.read_at == "lamp" else self.driver_drop.value

    @property
    def ceiling_a(self) -> float:
        """The drive limit, A."""
        return self.led.rated_a * self.ceiling


_CHANGEABLE = {f.name for f in fields(Position)}


def with_changes(position: Position, changes: Changes) -> Position:
    """The position after a remedy's changes.

    ``led_id`` picks another LED of the catalogue; ``target_a`` sets the drive wanted.

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
        elif name == "target_a":
            if not isinstance(value, int | float):
                raise PositionError("The drive wanted must be a number.")
            values["target"] = Figure(float(value), Source.COMPUTED)
        elif name in _CHANGEABLE:
            values[name] = value
        else:
            raise PositionError(f'A position has no "{name}" to change.')
    return replace(position, **values)  # type: ignore[arg-type]
