"""Section: the volt staircase at the instants and states that a supply and its driver have."""

from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.ac_cycle import DRAWN, Drawn
from swapglow.core.analysis.original_lamp import original_point
from swapglow.core.analysis.solution import Solution
from swapglow.core.analysis.states import StateSolution, states_of
from swapglow.core.network.cases import Cases
from swapglow.core.network.solve import point_of
from swapglow.core.photometry.intensity import led_candela
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.presentation.glow_box import Glow, glow, white_of
from swapglow.core.presentation.slide_rule import SlideRule, state_rule
from swapglow.core.presentation.staircase import (
    NO_DROP,
    AtRails,
    Stair,
    Staircase,
    at_rails,
    before_the_lamp,
    less,
    lit,
    of_point,
    staircase,
    volts_text,
)
from swapglow.core.quantities import AMPERE, OHM, VOLT, Source, show
from swapglow.core.supplies.waveform import Waveform

FloatArray = NDArray[np.float64]

_CREST, _HALFWAY, _BACK = DRAWN // 4, DRAWN // 8, 3 * DRAWN // 4


@dataclass(frozen=True)
class Snapshot:
    """A staircase at one instant of the supply, or in one state of the driver.

    Where a state changes what the other instruments show, ``glow`` and ``rule`` are theirs, ``reads``
    what each of the rule's scales reads under the cursor, and ``line`` says it in a sentence.
    """

    id: str
    label: str
    staircase: Staircase
    glow: Glow | None = None
    rule: SlideRule | None = None
    reads: dict[str, str] = field(default_factory=dict)
    line: str = ""


def snapshots(s: Solution) -> tuple[Snapshot, ...]:
    """Staircases to choose among; the first is the usual one."""
    if s.ac is not None:
        return tuple(_alternating(s, s.ac.drawn))
    if s.position.rail.supply.battery is not None:
        names = s.position.rail.supply.kind.levels
        return tuple(
            Snapshot(f"level{k}", names[k].capitalize(), _at_level(s, s.position.rail.volts[k])) for k in (1, 2, 0)
        )
    out = [Snapshot("now", _steady_label(s), staircase(s))]
    dip = s.position.rail.supply.dip
    if dip is not None:
        out.append(Snapshot("crank", "Cranking", _at_level(s, dip.value)))
    return tuple(out)


def _steady_label(s: Solution) -> str:
    named = states_of(s.position)
    if len(named) > 1:
        return named[0].label
    return s.position.rail.supply.kind.steady_label


def _at_level(s: Solution, volts: float) -> Staircase:
    p = s.position
    wide = np.full(3, volts)
    point = point_of(p, Cases(wide, p.led.vf_typ, s.sizing.total_ohm, p.drop_v))
    return of_point(s, point, "on", np.arange(3))


def _alternating(s: Solution, d: Drawn) -> list[Snapshot]:
    p = s.position
    supply = p.rail.supply
    names = supply.kind.levels
    if p.rectification.reservoir:
        held = d.held[1]
        full, low = int(held.argmax()), int(held.argmin())
        return [
            Snapshot("full", "Capacitor at its fullest", _on_capacitor(s, d, full)),
            Snapshot("sagged", "Capacitor at its lowest", _on_capacitor(s, d, low)),
        ]
    forth, back = _WAYS[supply.waveform]
    if supply.kind.levels_apart:
        out = [Snapshot(f"level{k}", names[k].capitalize(), _at_instant(s, d, _CREST, only=k)) for k in (1, 0, 2)]
    else:
        out = [Snapshot("crest", forth, _at_instant(s, d, _CREST))]
    if supply.kind.shows_halfway:
        out.append(Snapshot("halfway", "Half-way up", _at_instant(s, d, _HALFWAY)))
    if not p.rectification.folds or supply.waveform is not Waveform.SINE:
        out.append(Snapshot("back", back, _at_instant(s, d, _BACK)))
    return out


# What an instant of each way round is called.
_WAYS = {
    Waveform.SINE: ("Crest", "Reverse crest"),
    Waveform.EITHER_WAY: ("One way", "Other way"),
    Waveform.SQUARE: ("Positive pulse", "Negative pulse"),
}


def _rail(s: Solution, top: FloatArray) -> list[Stair]:
    p = s.position
    read = show(p.rail.usual.value, VOLT)
    detail = f"{read} RMS" if p.rail.supply.waveform is Waveform.SINE else "feed"
    return [Stair("rail", "rail", "Rail", detail, NO_DROP, at_rails(top), volts_text(top[1]), p.rail.usual.source)]


def _driven(s: Solution, stairs: list[Stair], level: AtRails) -> AtRails:
    p = s.position
    if not p.drop_v:
        return level
    drop = AtRails(p.drop_v, p.drop_v, p.drop_v)
    level = less(level, drop)
    stairs.append(
        Stair(
            "driver", "driver", "Driver", p.driver.kind.detail, drop, level, volts_text(p.drop_v), p.driver.drop.source
        )
    )
    return level


def _at_instant(s: Solution, d: Drawn, k: int, only: int | None = None) -> Staircase:
    """Steps at one instant; volts are counted the way the supply then points."""
    p = s.position
    pick = slice(None) if only is None else [only] * 3
    source, feed = np.abs(d.source[pick, k]), np.abs(d.contacts[pick, k])
    series, string = np.abs(d.series[pick, k]), np.abs(d.string[pick, k])
    inside, kept = np.abs(d.inside[pick, k]), np.abs(d.kept[pick, k])
    stairs = _rail(s, source + p.drop_v)
    level = _driven(s, stairs, at_rails(source + p.drop_v))
    for t in before_the_lamp(p):
        if t.node not in d.way:
            continue
        below = at_rails(np.abs(d.way[t.node][pick, k]))
        drop = less(level, below)
        level = below
        stairs.append(Stair(t.id, t.kind, t.label, t.detail, drop, level, volts_text(drop.usual), t.source))
    if p.rectification.diodes:
        drop = at_rails(np.maximum(feed - kept - series - inside - string, 0.0))
        level = less(level, drop)
        stairs.append(
            Stair(
                "rectifier",
                "rectifier",
                "Rectifier",
                p.rectification.label,
                drop,
                level,
                volts_text(drop.usual),
                Source.COMPUTED,
            )
        )
    turned = d.source[1, k] < 0 and not p.rectification.folds
    label = p.rectification.turned
    lit(s, stairs, level, series, string, label if turned else "", inside, kept)
    return Staircase(float(source.max() + p.drop_v), tuple(stairs))


def _on_capacitor(s: Solution, d: Drawn, k: int) -> Staircase:
    """Steps from the crest by way of the capacitor."""
    p = s.position
    crest = d.source.max(axis=1)
    stairs = _rail(s, crest + p.drop_v)
    level = _driven(s, stairs, at_rails(crest + p.drop_v))
    drop = at_rails(crest - d.held[:, k])
    level = less(level, drop)
    stairs.append(
        Stair(
            "rectifier",
            "rectifier",
            "Rectifier and sag",
            p.rectification.label,
            drop,
            level,
            volts_text(drop.usual),
            Source.COMPUTED,
        )
    )
    lit(s, stairs, level, d.series[:, k], d.string[:, k], inside=d.inside[:, k], kept=d.kept[:, k])
    return Staircase(float(crest.max() + p.drop_v), tuple(stairs))


def in_states(s: Solution, states: tuple[StateSolution, ...]) -> tuple[Snapshot, ...]:
    """The states in which the lamp should be dark, each with its own glow box and slide rule.

    Args:
        s: the solved position.
        states: its states solved, the lit one first.

    Returns:
        A snapshot for each but the first.
    """
    p = s.position
    lit = (float(s.usual[0]), float(s.usual[1]), float(s.usual[2]))
    white = white_of(p, lit)
    out = []
    for t in states[1:]:
        amps = (float(t.amps[0]), float(t.amps[1]), float(t.amps[2]))
        old = original_point(p, t.state, p.rail.volts[1])
        glows = glow(p, amps, white=white, lamp_v=None if old is None else old[0])
        rule = state_rule(s, t.rule_amps, t.label)
        reads = {
            "ohm": show(s.sizing.each_ohm, OHM),
            **{k: show(a, AMPERE) for k, a in zip(("low", "usual", "high"), amps, strict=True)},
        }
        where = WORDS[visibility(led_candela(p, t.string_current_max))]
        line = f"{t.label}: {show(amps[1], AMPERE)} in the LED, {where}."
        out.append(Snapshot(t.state, t.label, of_point(s, t.point, t.state, t.typical), glows, rule, reads, line))
    return tuple(out)
