"""Section: the slide rule, scales of ohms, milliamps, milliwatts and glow under one cursor."""

import math
from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Literal, cast

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.limits import dim_amps, trip_amps
from swapglow.core.analysis.original_lamp import lamp_candela
from swapglow.core.analysis.solution import Solution
from swapglow.core.design.position import Position
from swapglow.core.findings.finding import Finding
from swapglow.core.parts.resistor import WORKING_FRACTION, takes_w
from swapglow.core.photometry.intensity import amps_for
from swapglow.core.photometry.visibility import DARK_ROOM_CD, LIT_ROOM_CD
from swapglow.core.quantities import AMPERE, OHM, WATT, Unit, engineering, show
from swapglow.core.values import preferred

FloatArray = NDArray[np.float64]

# Less than this is drawn as nothing.
DARK_A = 1e-10


# Judgements on a resistance: while lit, and (the last three) of a lamp that should be dark.
ZoneId = Literal["over", "drive", "trip", "fits", "stopped", "dim", "hot", "lit_room", "dark_room", "dark"]


@dataclass(frozen=True)
class Tick:
    """A mark on a scale of the slide rule, placed by the ohms under it."""

    at_ohm: float
    text: str
    weight: Literal[1, 2, 3]


@dataclass(frozen=True)
class Scale:
    """One scale of the slide rule."""

    id: str
    label: str
    ticks: tuple[Tick, ...]


@dataclass(frozen=True)
class Zone:
    """A stretch of the slide rule with one verdict."""

    id: ZoneId
    label: str
    from_ohm: float
    to_ohm: float


@dataclass(frozen=True)
class RuleValue:
    """What the slide rule reads at one preferred value."""

    ohm: float
    text: str
    zone: ZoneId
    in_drawer: bool


@dataclass(frozen=True)
class SlideRule:
    """Aligned scales over ohms of each part."""

    low_ohm: float
    high_ohm: float
    cursor_ohm: float
    values: tuple[RuleValue, ...]
    scales: tuple[Scale, ...]
    zones: tuple[Zone, ...]
    hot: Zone | None


def _ohms_at(ohm: FloatArray, falling: FloatArray, wanted: list[float]) -> list[float]:
    """Where a quantity that falls with ohms takes each value; ends of the rule outside it."""
    levels = -np.log(np.maximum(falling, 1e-15))
    at = np.interp(-np.log(np.maximum(wanted, 1e-15)), levels, np.log(ohm))
    return [float(v) for v in np.exp(at)]


def _ohm_at(ohm: FloatArray, falling: FloatArray, wanted: float) -> float:
    return _ohms_at(ohm, falling, [wanted])[0]


def _steps(lowest: float, highest: float) -> Iterable[tuple[float, int]]:
    """1-2-5 values between two bounds with their weight."""
    if not 0 < lowest < highest:
        return
    for power in range(math.floor(math.log10(lowest)), math.ceil(math.log10(highest)) + 1):
        for mantissa, weight in ((1, 1), (1.5, 3), (2, 2), (3, 3), (4, 3), (5, 2), (7, 3)):
            value = mantissa * 10.0**power
            if lowest <= value <= highest:
                yield value, weight


def _scale(s: Solution, key: str, label: str, unit: Unit, values: FloatArray) -> Scale:
    marks = list(_steps(max(float(values[-1]), 1e-9), float(values[0])))
    places = _ohms_at(s.rule_ohm, values, [v for v, _ in marks]) if marks else []
    ticks = []
    for (value, weight), at in zip(marks, places, strict=True):
        number, prefix = engineering(value, 2)
        text = f"{number}\u00a0{prefix}{unit.symbol}" if weight < 3 else ""
        ticks.append(Tick(at, text, 1 if weight == 1 else 2 if weight == 2 else 3))
    return Scale(key, label, tuple(ticks))


def _ohm_scale(s: Solution) -> Scale:
    low, high = float(s.rule_ohm[0]), float(s.rule_ohm[-1])
    thin = set(preferred.values("E3", low, high).tolist())
    decades = {10.0**k for k in range(-3, 10)}
    ticks = [
        Tick(v, show(v, OHM) if v in thin else "", 1 if v in decades else 2 if v in thin else 3)
        for v in s.rule_ohm.tolist()
    ]
    return Scale("ohm", "Each resistor", tuple(ticks))


def _glow_scale(s: Solution) -> Scale | None:
    old = lamp_candela(s.position)
    if not old:
        return None
    powers = range(-7, 10)
    amps = [amps_for(s.position, old * 2.0**power) for power in powers]
    low, high = s.rule_amps[1][-1], s.rule_amps[1][0]
    ticks = [
        Tick(at, f"{2**power} ×" if power >= 0 else f"1/{2**-power} ×", 1 if power == 0 else 2)
        for power, amp, at in zip(powers, amps, _ohms_at(s.rule_ohm, s.rule_amps[1], amps), strict=True)
        if low <= amp <= high
    ]
    return Scale("glow", "Beside the old lamp", tuple(ticks))


def zones_of(s: Solution, usual: FloatArray, most: FloatArray) -> list[ZoneId]:
    """The judgement on each value: over rated, over the drive limit, line trips, too dim, or fits.

    Args:
        s: the solved position.
        usual: current of the typical LED at the usual rail, (k,).
        most: the most current there, (k,).

    Returns:
        A zone for each value.
    """
    p = s.position
    slack = 1 + 1e-9
    zones = np.select(
        [most > p.led.rated_a * slack, most > p.ceiling_a * slack, most > trip_amps(p) * slack, usual < dim_amps(p)],
        ["over", "drive", "trip", "dim"],
        "fits",
    )
    return [cast(ZoneId, str(z)) for z in zones]


ZONE_LABELS = {
    "over": "over rated",
    "drive": "over drive limit",
    "trip": "line may trip",
    "fits": "current fits",
    "stopped": "current fits, but stop",
    "dim": "too dim",
    "hot": "too hot",
    "lit_room": "seen in a lit room",
    "dark_room": "seen in a dark room",
    "dark": "dark",
}


@dataclass(frozen=True)
class _Drawn:
    values: tuple[RuleValue, ...]
    scales: tuple[Scale, ...]
    zones: tuple[Zone, ...]


# What is drawn stays while only the fitted value moves, which is what a cursor does.
_KEPT: dict[tuple[Position, frozenset[float]], _Drawn] = {}
_MOST_KEPT = 128


def slide_rule(s: Solution, drawer_ohm: frozenset[float] = frozenset()) -> SlideRule:
    """All scales and zones around the value fitted.

    Args:
        s: the solved position.
        drawer_ohm: resistor values at hand, Ω.

    Returns:
        The rule.
    """
    # Without an exact value the rule is laid around the fitted one, and moves with it.
    key = (replace(s.position, resistor_ohm=None, rating_w=None), drawer_ohm)
    drawn = _KEPT.get(key) if s.sizing.exact_ohm is not None else None
    watts = s.rule_watts
    if drawn is None:
        drawn = _draw(s, drawer_ohm, watts)
        if s.sizing.exact_ohm is not None:
            if len(_KEPT) >= _MOST_KEPT:
                _KEPT.clear()
            _KEPT[key] = drawn
    return SlideRule(
        float(s.rule_ohm[0]),
        float(s.rule_ohm[-1]),
        s.sizing.each_ohm,
        drawn.values,
        drawn.scales,
        drawn.zones,
        _hot(s, watts),
    )


# Changes that move the cursor or the part under it: a stop they clear is one of this place on the rule.
_OF_THE_PLACE = frozenset({"resistor_ohm", "rounding", "series", "target", "rating_w", "resistor_parts"})


def judged(rule: SlideRule, found: tuple[Finding, ...]) -> SlideRule:
    """A rule that shows no place as good where something stops it: too hot there, or stopped wherever it stands.

    Args:
        rule: as drawn from the currents.
        found: the findings on the position.

    Returns:
        The rule with its good places taken apart.
    """
    stopped = any(f.grade == "stop" and not any(r.changes.keys() <= _OF_THE_PLACE for r in f.remedies) for f in found)
    good: ZoneId = "stopped" if stopped else "fits"
    hot = rule.hot
    if hot is None and good == "fits":
        return rule
    zones: list[Zone] = []
    for z in rule.zones:
        if z.id != "fits":
            zones.append(z)
            continue
        edge = z.from_ohm if hot is None else min(max(hot.to_ohm, z.from_ohm), z.to_ohm)
        zones += _between(("hot", good), (z.from_ohm, edge, z.to_ohm))
    values = tuple(
        replace(v, zone="hot" if hot is not None and v.ohm <= hot.to_ohm else good) if v.zone == "fits" else v
        for v in rule.values
    )
    return replace(rule, zones=tuple(zones), values=values)


def _draw(s: Solution, drawer_ohm: frozenset[float], watts: FloatArray) -> _Drawn:
    ohm = s.rule_ohm
    usual, most = s.rule_amps[1], s.rule_worst[1]
    stocked = {float(f"{d:.6g}") for d in drawer_ohm}
    values = tuple(
        RuleValue(o, show(o, OHM), zone, bool(stocked) and float(f"{o:.6g}") in stocked)
        for o, zone in zip(ohm.tolist(), zones_of(s, usual, most), strict=True)
    )
    supply = s.position.rail.supply
    names = ["Lowest rail", "Usual rail", "Highest rail"]
    if supply.kind.levels_on_rule:
        names = [level.capitalize() for level in supply.kind.levels]
    if supply.alternates:
        # The light follows the average over the cycle, whatever the crest.
        names = [f"Mean, {level}" for level in supply.kind.levels]
    scales = [
        _ohm_scale(s),
        _scale(s, "low", names[0], AMPERE, s.rule_amps[0]),
        _scale(s, "usual", names[1], AMPERE, usual),
        _scale(s, "high", names[2], AMPERE, s.rule_amps[2]),
        _scale(s, "power", "In each part", WATT, watts),
    ]
    glow = _glow_scale(s)
    return _Drawn(values, tuple(scales if glow is None else [*scales, glow]), _zones(s, usual, most))


def _zones(s: Solution, usual: FloatArray, most: FloatArray) -> tuple[Zone, ...]:
    p, ohm = s.position, s.rule_ohm
    rated = _ohm_at(ohm, most, p.led.rated_a)
    limit = max(rated, _ohm_at(ohm, most, p.ceiling_a))
    safe = limit if math.isinf(trip_amps(p)) else max(limit, _ohm_at(ohm, most, trip_amps(p)))
    dim = max(safe, _ohm_at(ohm, usual, dim_amps(p)))
    return _between(("over", "drive", "trip", "fits", "dim"), (float(ohm[0]), rated, limit, safe, dim, float(ohm[-1])))


def _between(names: tuple[ZoneId, ...], edges: tuple[float, ...]) -> tuple[Zone, ...]:
    return tuple(
        Zone(name, ZONE_LABELS[name], a, b)
        for name, a, b in zip(names, edges, edges[1:], strict=False)
        if b > a * 1.0001
    )


def state_rule(s: Solution, amps: FloatArray, prefix: str) -> SlideRule:
    """The rule in a state in which the lamp should be dark: what flows there, and where it is seen.

    Args:
        s: the solved position.
        amps: string current along the rule at the low, usual and high rail, (3, k).
        prefix: the state's name.

    Returns:
        The rule of that state.
    """
    ohm = s.rule_ohm
    names = s.position.rail.supply.kind.levels
    scales = [_ohm_scale(s)]
    if amps.max() > DARK_A:
        scales += [
            _scale(s, key, f"{prefix}, {name}", AMPERE, np.maximum(amps[k], 1e-12))
            for k, (key, name) in enumerate(zip(("low", "usual", "high"), names, strict=True))
        ]
    lit, night = (amps_for(s.position, cd) for cd in (LIT_ROOM_CD, DARK_ROOM_CD))
    most = np.maximum(amps[2], 1e-15)
    room_edge, night_edge = _ohm_at(ohm, most, lit), _ohm_at(ohm, most, night)
    zones = _between(
        ("lit_room", "dark_room", "dark"), (float(ohm[0]), room_edge, max(room_edge, night_edge), float(ohm[-1]))
    )
    if most.max() < night:
        zones = _between(("dark",), (float(ohm[0]), float(ohm[-1])))
    elif most.min() >= lit:
        zones = _between(("lit_room",), (float(ohm[0]), float(ohm[-1])))
    values = tuple(
        RuleValue(o, show(o, OHM), "lit_room" if a >= lit else "dark_room" if a >= night else "dark", False)
        for o, a in zip(ohm.tolist(), most.tolist(), strict=True)
    )
    return SlideRule(float(ohm[0]), float(ohm[-1]), s.sizing.each_ohm, values, tuple(scales), zones, None)


def _hot(s: Solution, watts: FloatArray) -> Zone | None:
    if s.position.bare:
        return None
    rating = s.position.rating_w or s.rating_to_fit_w
    limit = float("inf") if rating is None else takes_w(rating, s.position.celsius) * WORKING_FRACTION
    if watts.max() <= limit:
        return None
    # Heat rises with ohms first where headroom is small, so take the last value that is too hot.
    last = int(np.flatnonzero(watts > limit)[-1])
    edge = _ohm_at(s.rule_ohm[int(watts.argmax()) :], watts[int(watts.argmax()) :], limit)
    return Zone("hot", ZONE_LABELS["hot"], float(s.rule_ohm[0]), max(edge, float(s.rule_ohm[last])))
