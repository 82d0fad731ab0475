"""Traps of DC supplies: vehicles, batteries, fuses, sag."""

from collections.abc import Iterable
from dataclasses import replace

import numpy as np

from swapglow.core.analysis.inrush import inrush
from swapglow.core.analysis.sizing import each_for_most
from swapglow.core.analysis.solution import current
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.polarity import one_of
from swapglow.core.findings.registry import Context, rule
from swapglow.core.findings.remedies import larger_resistor
from swapglow.core.network.cases import Cases
from swapglow.core.parts import fuse as fuses
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.photometry.light_law import light_ratio
from swapglow.core.quantities import AMPERE, OHM, VOLT, Figure, percent, show, times_text

# A load dump lasts some hundred milliseconds: long beside the die's warming, so that past twice the rated
# current it is judged as if steady. Data sheets allow more only for pulses of a millisecond (from memory).
SURGE_TIMES = 2.0
# Negative spikes of coils on a vehicle's feed, V, for a millisecond or two (ISO 7637-2, pulse 1; from memory).
SPIKE_V = 100.0
# A cell's own resistance counts as what limits the current from this share on.
CELL_SHARE = 0.3
FRESH_OTHER_OHM = 0.3
# A fuse that would pass this many times the new load no longer knows of it.
FUSE_TIMES = 10.0
SAG_SHARE = 0.1


def _at(c: Context, volts: float, source: float | None = None) -> float:
    """Most current at a rail of so many volts: lowest Vf, low end of the resistor."""
    p, s = c.position, c.solution
    assert s is not None
    ohms = s.sizing.total_ohm * (1 - p.ohm_known_to)
    found = current(
        p,
        Cases(
            np.array([volts]),
            np.array([p.led.vf_low]),
            np.array([ohms]),
            p.drop_v,
            None if source is None else np.array([source]),
        ),
    )
    return float(found[0])


@rule
def below_charging(c: Context) -> Iterable[Finding]:
    """Sized under the charging voltage of a vehicle."""
    p = c.position
    charging = p.rail.supply.charging_v
    if charging is None or c.solution is None:
        return
    if p.rail.high.value >= charging * 0.97:
        return
    amps = _at(c, charging)
    beyond = amps > p.ceiling_a
    yield Finding(
        "below-charging" if beyond else "below-charging-within",
        "mind" if beyond else "note",
        f"The highest rail here is {show(p.rail.high.value, VOLT)}; a charging {p.rail.supply.system} V "
        f"vehicle reaches {show(charging, VOLT)}, and the LED then carries {show(amps, AMPERE)}.",
        show(amps, AMPERE),
        show(p.ceiling_a, AMPERE),
        "A string that is fine at the battery's name can carry half as much again while it charges. Read "
        "the rail with the engine at a fast idle.",
        _kept_at(c, charging, p.ceiling_a) if beyond else (),
    )


@rule
def surge(c: Context) -> Iterable[Finding]:
    """A suppressed load dump."""
    p = c.position
    volts = p.rail.supply.surge_v
    if volts is None or c.solution is None:
        return
    amps, limit = _at(c, volts), SURGE_TIMES * p.rated_a
    beyond = amps > limit
    yield Finding(
        "vehicle-surge" if beyond else "vehicle-surge-within",
        "mind" if beyond else "note",
        f"In a suppressed surge of {show(volts, VOLT)} it carries {show(amps, AMPERE)}, "
        f"{'over' if beyond else 'within'} {SURGE_TIMES:g} times rated.",
        show(amps, AMPERE),
        show(limit, AMPERE),
        "ISO 16750-2 load dump, some hundred milliseconds, with the alternator's own suppression (figures "
        "from memory). Unsuppressed it goes far above: a transient suppressor at the feed stops it.",
        _kept_at(c, volts, limit) if beyond else (),
    )


@rule
def jump_start(c: Context) -> Iterable[Finding]:
    """A jump start from another vehicle's higher battery, for a minute."""
    p = c.position
    volts = p.rail.supply.jump_v
    if volts is None or c.solution is None or volts <= p.rail.volts[2]:
        return
    amps, limit = _at(c, volts), p.rated_a
    if amps <= limit:
        return
    yield Finding(
        "jump-start",
        "mind",
        f"At a jump start of {show(volts, VOLT)} it carries {show(amps, AMPERE)} for up to a minute, over its rated "
        f"{show(limit, AMPERE)}.",
        show(amps, AMPERE),
        show(limit, AMPERE),
        "24 V for a minute on a 12 V system (ISO 16750-2). A minute is steady for LED and resistor alike: keep the "
        "lamp off meanwhile, or size for it.",
        _kept_at(c, volts, limit),
    )


def _kept_at(c: Context, volts: float, limit: float) -> tuple[Remedy, ...]:
    """The resistor that keeps a higher rail than the highest to a limit: the current falls there as here."""
    at_high = c.string_current_max
    return larger_resistor(c, limit * at_high / max(_at(c, volts), at_high) * 0.97)


@rule
def negative_spikes(c: Context) -> Iterable[Finding]:
    """Coils on the same feed throw spikes the other way."""
    p = c.position
    if not p.rail.supply.system or p.series_diodes or p.module is not None or p.regulator is not None:
        return
    limit = p.led.reverse_v
    yield Finding(
        "negative-spikes",
        "note",
        f"A coil switched off on this feed, a relay or a motor, gives a spike of some −{show(SPIKE_V, VOLT)}: "
        f"{one_of(p)} can see it in reverse, over its {show(limit, VOLT)}.",
        f"−{show(SPIKE_V, VOLT)}",
        show(limit, VOLT),
        "ISO 7637-2, a millisecond or two behind some ohms (from memory). A diode in series holds it off, and a "
        "diode across the coil stops it where it arises.",
        c.offer(
            lambda: (
                Remedy(
                    "series-diode", "Put a diode in series with the LED", {"series_diodes": 1, "resistor_ohm": None}
                ),
            )
        ),
    )


@rule
def cell_over_limit(c: Context) -> Iterable[Finding]:
    """More than a cell gives for long."""
    battery = c.position.rail.supply.battery
    if battery is None:
        return
    most, amps = battery.chemistry.most_a, c.supply_current_max
    if amps <= most:
        return
    yield Finding(
        "cell-over-limit",
        "mind",
        f"It takes {show(amps, AMPERE)}; {battery.chemistry.label.lower()} cells give {show(most, AMPERE)} for long.",
        show(amps, AMPERE),
        show(most, AMPERE),
        "Past that the cell's volts fall and much of its charge is lost (data sheets, from memory). Flashes of a "
        "second or two take more.",
        larger_resistor(c, most * 0.95 / c.position.branches),
    )


# Under a tenth from memory it is another lamp; what rounds to nothing is dark (ours).
_DIM_SHARE, _DARK_SHARE = 0.1, 0.005


@rule
def cranking(c: Context) -> Iterable[Finding]:
    """Dark while the starter turns."""
    p, s = c.position, c.solution
    crank = p.rail.supply.dip
    if crank is None or s is None or c.current_usual <= 0:
        return
    amps = float(
        current(p, Cases(np.array([crank.value]), np.array([p.led.vf_typ]), np.array([s.sizing.total_ohm]), p.drop_v))[
            0
        ]
    )
    share = float(light_ratio(p.led, amps, c.current_usual))
    if share >= _DIM_SHARE:
        return
    yield Finding(
        "dark-while-cranking",
        "note",
        f"While cranking, at {show(crank.value, VOLT)}, it "
        + ("is dark." if share < _DARK_SHARE else f"falls to {percent(share)} of its light."),
        percent(share),
        percent(_DIM_SHARE),
        "For a lamp that must be read during starting use fewer LEDs in series.",
    )


@rule
def cell_limits_current(c: Context) -> Iterable[Finding]:
    """A fixture that relied on its cell's resistance."""
    p, s = c.position, c.solution
    if p.rail.supply.battery is None or s is None:
        return
    behind = p.rail.supply.source_ohm.value
    inside = p.module.insides[p.inside].ohm * p.in_series if p.module is not None else 0.0
    total = behind + s.sizing.total_ohm + inside
    share = behind / total if total > 0 else 0.0
    if share < CELL_SHARE:
        return
    other = _at(c, p.rail.volts[2], FRESH_OTHER_OHM)
    beyond = other > p.rated_a
    yield Finding(
        "cell-limits-current" if beyond else "cell-limits-current-within",
        "mind" if beyond else "note",
        f"The cells' own {show(behind, OHM)} is {percent(share)} of what limits the current. On a cell of "
        f"{show(FRESH_OTHER_OHM, OHM)} the LED carries {show(other, AMPERE)}.",
        show(other, AMPERE),
        show(p.rated_a, AMPERE),
        "A fixture made for a button cell has no resistor of its own. Another cell, or a supply in its "
        "place, has next to no resistance: fit a resistor that does without the cell's.",
        _on_other_cells(c) if beyond else (),
    )


def _on_other_cells(c: Context) -> tuple[Remedy, ...]:
    """The resistor that does without the cells' own."""
    p = c.position
    supply = replace(p.rail.supply, source_ohm=Figure(FRESH_OTHER_OHM))
    each = each_for_most(replace(p, rail=replace(p.rail, supply=supply)), p.ceiling_a)
    if each is None:
        return ()
    return (Remedy("larger-resistor", f"Fit {show(each, OHM)}", {"resistor_ohm": each}),)


@rule
def fuse(c: Context) -> Iterable[Finding]:
    """The fuse against the new load."""
    p = c.position
    rated, amps = p.rail.fuse_a, c.supply_current_max
    if rated is None or amps <= 0:
        return
    if amps > rated:
        own = "The LED's" if p.branches == 1 else f"{p.branches} strings together: their"
        yield Finding(
            "fuse-too-small",
            "stop",
            f"{own} {show(amps, AMPERE)} is over the {show(rated, AMPERE)} fuse.",
            show(amps, AMPERE),
            show(rated, AMPERE),
            "It will blow. Never fit a larger fuse than the wiring was given.",
            larger_resistor(c, rated * fuses.LOADED * 0.98 * c.string_current_max / amps),
        )
        return
    if amps > rated * fuses.LOADED:
        yield Finding(
            "fuse-over-share",
            "mind",
            f"It loads the {show(rated, AMPERE)} fuse to {percent(amps / rated)}.",
            show(amps, AMPERE),
            show(rated * fuses.LOADED, AMPERE),
            "A fuse is loaded to three quarters of its rating at most: beyond, it ages and blows on a warm day "
            "(common practice). Everything else on it counts too: see the rail's budget.",
            larger_resistor(c, rated * fuses.LOADED * 0.98 * c.string_current_max / amps),
        )
        return
    times = rated / amps
    if times < FUSE_TIMES:
        return
    yield Finding(
        "fuse-wide",
        "note",
        f"The fuse is {show(rated, AMPERE)}, {times_text(times)} times the new load of {show(amps, AMPERE)}.",
        show(rated, AMPERE),
        show(amps * FUSE_TIMES, AMPERE),
        "It still guards the wiring, which it was chosen for; it will not notice a fault in the LED. "
        "Leave it unless this lamp is all it feeds.",
    )


@rule
def inrush_at_switching_on(c: Context) -> Iterable[Finding]:
    """The empty reservoir against the fuse, and against the diodes before it."""
    first = None if c.solution is None else inrush(c.solution)
    if first is None:
        return
    rated = c.position.rail.fuse_a
    most = "" if first.known else "up to "
    draws = (
        f"Switched on at the crest, the empty capacitor draws {most}{show(first.peak_a, AMPERE, 2)}, "
        f"{_i2t(first.let_through)}"
    )
    read = "" if first.known else " The supply's sag was not read: its resistance makes this less."
    if rated is not None and first.let_through > fuses.stands_i2t(rated, time_lag=False):
        lag = fuses.stands_i2t(rated, time_lag=True)
        over = first.let_through > lag
        yield Finding(
            "inrush-fuse",
            "stop" if over and first.known else "mind",
            f"{draws}; a {show(rated, AMPERE)} fuse stands {_i2t(fuses.stands_i2t(rated, time_lag=False))} at every "
            f"start, a time-lag one {_i2t(lag)}.",
            _i2t(first.let_through),
            _i2t(lag if over else fuses.stands_i2t(rated, time_lag=False)),
            f"C·V²/2R through {show(first.ohm, OHM, 2)}; half of what melts it (data sheets, from memory). "
            + ("A smaller capacitor, or a resistor before the rectifier." if over else "Take a time-lag fuse.")
            + read,
        )
    stands = rectifier("power").surge_i2t
    if first.let_through > stands:
        yield Finding(
            "inrush-rectifier",
            "stop" if first.known else "mind",
            f"{draws}; a 1 A rectifier stands {_i2t(stands)} once.",
            _i2t(first.let_through),
            _i2t(stands),
            f"C·V²/2R through {show(first.ohm, OHM, 2)}; the rating is of one half-sine of 30 A (data sheets, from "
            "memory). A resistor before the rectifier, or a smaller capacitor." + read,
        )


def _i2t(value: float) -> str:
    return show(value, "A²s", 2)


@rule
def sag_not_reckoned(c: Context) -> Iterable[Finding]:
    """A sag is known, but not the load that made it."""
    p = c.position
    supply = p.rail.supply
    if not supply.kind.sags:
        return
    if supply.open_to_loaded_ratio == 1.0:
        yield Finding(
            "sag-unknown",
            "note",
            f"Only the loaded {show(p.rail.usual.value, VOLT)} is known: under the LED's lighter load it "
            "rises by an unknown part.",
            "0 % of sag",
            "10 to 30 % is usual",
            "Read the contacts once with the lamp out: the two readings give the source resistance, "
            "R = (Vopen − Vloaded)/I.",
        )
    elif supply.source_ohm.value == 0 and supply.open_to_loaded_ratio > 1 + SAG_SHARE:
        yield Finding(
            "load-unknown",
            "note",
            f"It sags {percent(1 - 1 / supply.open_to_loaded_ratio)}, but the load that made it is not "
            f"known: the open {show(p.rail.volts[1], VOLT)} is reckoned with.",
            f"{percent(1 - 1 / supply.open_to_loaded_ratio)}",
            "0 A of load",
            "Type the old lamp's current, or read it: it turns the sag into a resistance.",
        )
