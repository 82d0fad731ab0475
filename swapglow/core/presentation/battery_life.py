"""Section: how long a battery keeps the light of all that hangs on it, after the swaps and before them."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from swapglow.core.analysis.battery_life import Life, battery_life, counted
from swapglow.core.analysis.draws import Member
from swapglow.core.quantities import AMPERE_HOUR, Shown, Source, hours_text, percent, show
from swapglow.core.supplies.rail import Rail

_POINTS = 41


@dataclass(frozen=True)
class RuntimePoint:
    """A moment of a battery's life: light as a share of the first."""

    hours: float
    light: float


@dataclass(frozen=True)
class Runtime:
    """How long a battery lasts, and what one of its lamps shows meanwhile.

    Attributes:
        led, lamp: hours after the swaps and before them, as :class:`BatteryHours` has them.
        led_curve, lamp_curve: this lamp's light until the charge is spent; nothing where it is not counted.
        line: what the hours count, in a sentence.
    """

    led: Shown
    lamp: Shown | None
    led_curve: tuple[RuntimePoint, ...]
    lamp_curve: tuple[RuntimePoint, ...]
    line: str


@dataclass(frozen=True)
class BatteryHours:
    """A battery's one life.

    Attributes:
        after, before: hours with the swaps, and with the old lamps; None before where one is not known.
        line: what they count, in a sentence.
        lives: both as they were computed.
    """

    after: Shown
    before: Shown | None
    line: str
    lives: tuple[Life, Life | None]


def battery_hours(rail: Rail, members: Sequence[Member], this: str = "") -> BatteryHours | None:
    """How long a rail's battery lasts with all that hangs on it.

    Args:
        rail: the rail.
        members: its lamps.
        this: id of the lamp that is looked at; "" where none is.

    Returns:
        Its life; None without a battery or a lamp.

    Raises:
        NotConverged: a lamp has no answer.
    """
    after, battery = battery_life(rail, members, "after"), rail.supply.battery
    if battery is None or after is None:
        return None
    before = battery_life(rail, members, "before")
    line = _line(rail, members, after, this)
    charge = show(battery.capacity_ah, AMPERE_HOUR)
    return BatteryHours(
        _hours(after.hours, f"{charge} through all that is counted"),
        None if before is None else _hours(before.hours, f"{charge} through the old lamps, to the same end"),
        line,
        (after, before),
    )


def battery_life_section(rail: Rail, members: Sequence[Member], this: Member) -> Runtime | None:
    """What a lamp's battery comes to, and the lamp's own light on the way.

    Args:
        rail: the rail.
        members: all its lamps.
        this: the one that is looked at, of them.

    Returns:
        The section; None without a battery.

    Raises:
        NotConverged: a lamp has no answer.
    """
    found = battery_hours(rail, members, this.id)
    if found is None:
        return None
    after, before = found.lives
    return Runtime(
        found.after, found.before, _curve(after, this.id), () if before is None else _curve(before, this.id), found.line
    )


def _line(rail: Rail, members: Sequence[Member], life: Life, this: str) -> str:
    on = counted(members)
    floor = {m.id: m.position.glow_floor for m in on}
    names = {m.id: "this lamp" if m.id == this else m.name for m in on}
    alone, all_of = len(on) == 1, "both lamps" if len(on) == 2 else f"all {len(on)} lamps"
    until = (
        "until the charge is spent"
        if not life.ends
        else f"until {'it' if alone else names[life.ends]} is down to {percent(floor[life.ends])} of its first light"
    )
    if alone and len(members) == 1:
        what = "with this lamp lit all the time"
    elif all(m.lit == "always" for m in on):
        what = f"with {'the lamp that is' if alone else f'{all_of} that are'} always lit"
    else:
        what = f"with {all_of} lit all the time"
    more = " and what else hangs on it" if rail.others_a else ""
    flash = ", flashers by their lit share" if any(m.position.driver.duty < 1 for m in on) else ""
    return f"Counted {what}{more}{flash}, {until}."


def _hours(hours: float, origin: str) -> Shown:
    number, unit = hours_text(hours)
    return Shown(hours, number, unit, Source.COMPUTED, origin)


def _curve(life: Life, key: str) -> tuple[RuntimePoint, ...]:
    light = life.light.get(key)
    if light is None:
        return ()
    pick = np.linspace(0, len(life.run.hours) - 1, _POINTS).astype(int)
    return tuple(RuntimePoint(float(life.run.hours[k]), float(light[k])) for k in pick)
