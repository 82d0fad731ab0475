"""The volt staircase at the instants and states that a supply has."""

import numpy as np
from numpy.typing import NDArray

from swapglow.core.position.alternating import DRAWN, Drawn
from swapglow.core.position.before import lamp_before
from swapglow.core.position.circuit import Cases, point_of
from swapglow.core.position.slide_rule import state_rule
from swapglow.core.position.solution import Solution
from swapglow.core.position.staircase import (
    NO_DROP,
    at_rails,
    less,
    lit,
    of_point,
    staircase,
    volts_text,
)
from swapglow.core.position.states import Standing, states_of
from swapglow.core.quantities import AMPERE, OHM, VOLT, Source, show
from swapglow.core.report import AtRails, Moment, Stair, Staircase
from swapglow.core.sight.glow import glow, led_candela, white_of
from swapglow.core.sight.seen import WORDS, seen

FloatArray = NDArray[np.float64]

_CREST, _HALFWAY, _BACK = DRAWN // 4, DRAWN // 8, 3 * DRAWN // 4


def moments(s: Solution) -> tuple[Moment, ...]:
    """Staircases to choose among; the first is the usual one."""
    if s.ac is not None:
        return tuple(_alternating(s, s.ac.drawn))
    if s.position.rail.supply.battery is not None:
        names = s.position.rail.supply.about.levels
        return tuple(
            Moment(f"level{k}", names[k].capitalize(), _at_level(s, s.position.rail.volts[k]))
            for k in (1, 2, 0)
        )
    out = [Moment("now", _steady_label(s), staircase(s))]
    crank = s.position.rail.supply.crank
    if crank is not None:
        out.append(Moment("crank", "Cranking", _at_level(s, crank.value)))
    return tuple(out)


def _steady_label(s: Solution) -> str:
    named = states_of(s.position)
    if len(named) > 1:
        return named[0][1]
    return "At rest to charging" if s.position.rail.supply.kind == "vehicle" else "Steady"


def _at_level(s: Solution, volts: float) -> Staircase:
    p = s.position
    wide = np.full(3, volts)
    point = point_of(p, Cases(wide, p.led.vf_typ, s.sizing.total_ohm, p.drop_v))
    return of_point(s, point, "on", [0, 1, 2])


def _alternating(s: Solution, d: Drawn) -> list[Moment]:
    p = s.position
    supply = p.rail.supply
    names = supply.about.levels
    if p.treated.reservoir:
        held = d.held[1]
        full, low = int(held.argmax()), int(held.argmin())
        return [
            Moment("full", "Capacitor at its fullest", _on_capacitor(s, d, full)),
            Moment("sagged", "Capacitor at its lowest", _on_capacitor(s, d, low)),
        ]
    if supply.flow == "reversing":
        forth, back = "One way", "Other way"
    elif supply.flow == "pulses":
        forth, back = "Positive pulse", "Negative pulse"
    else:
        forth, back = "Crest", "Reverse crest"
    if supply.kind == "stator":
        # Idle, running and full speed are too far apart for one picture.
        out = [
            Moment(f"level{k}", names[k].capitalize(), _at_instant(s, d, _CREST, only=k)) for k in (1, 0, 2)
        ]
    else:
        out = [Moment("crest", forth, _at_instant(s, d, _CREST))]
    if supply.kind == "winding":
        out.append(Moment("halfway", "Half-way up", _at_instant(s, d, _HALFWAY)))
    if not p.treated.id.startswith("bridge") or supply.flow != "sine":
        out.append(Moment("back", back, _at_instant(s, d, _BACK)))
    return out


def _rail(s: Solution, top: FloatArray) -> list[Stair]:
    p = s.position
    read = show(p.rail.usual.value, VOLT)
    detail = f"{read} RMS" if p.rail.supply.flow == "sine" else "feed"
    return [
        Stair("rail", "rail", "Rail", detail, NO_DROP, at_rails(top), volts_text(top[1]), p.rail.usual.source)
    ]


def _driven(s: Solution, stairs: list[Stair], level: AtRails) -> AtRails:
    p = s.position
    if not p.drop_v:
        return level
    drop = AtRails(p.drop_v, p.drop_v, p.drop_v)
    level = less(level, drop)
    stairs.append(Stair("driver", "driver", "Driver", "switch or transistor", drop, level, volts_text(p.drop_v),
                        p.driver_drop.source))  # fmt: skip
    return level


def _at_instant(s: Solution, d: Drawn, k: int, only: int | None = None) -> Staircase:
    """Steps at one instant; volts are counted the way the supply then points."""
    p = s.position
    pick = slice(None) if only is None else [only] * 3
    source, feed = np.abs(d.source[pick, k]), np.abs(d.feed[pick, k])
    series, string = np.abs(d.series[pick, k]), np.abs(d.string[pick, k])
    stairs = _rail(s, source + p.drop_v)
    level = _driven(s, stairs, at_rails(source + p.drop_v))
    behind = p.rail.supply.source_ohm
    if behind.value > 0:
        drop = at_rails(source - feed)
        level = less(level, drop)
        stairs.append(Stair("source", "source", "Source", f"{show(behind.value, OHM)} behind it", drop, level,
                            volts_text(drop.usual), behind.source))  # fmt: skip
    if p.treated.rectifier:
        drop = at_rails(np.maximum(feed - series - string, 0.0))
        level = less(level, drop)
        stairs.append(Stair("rectifier", "rectifier", "Rectifier", p.treated.label, drop, level,
                            volts_text(drop.usual), Source.COMPUTED))  # fmt: skip
    turned = d.source[1, k] < 0 and not p.treated.id.startswith("bridge")
    label = {"inverse_diode": "Inverse diode", "back_to_back": "Other LED", "two_colour": "Other die"}.get(
        p.treated.id, "LED, in reverse"
    )
    lit(s, stairs, level, series, string, label if turned else "")
    return Staircase(float(source.max() + p.drop_v), tuple(stairs))


def _on_capacitor(s: Solution, d: Drawn, k: int) -> Staircase:
    """Steps from the crest by way of the capacitor."""
    p = s.position
    crest = d.source.max(axis=1)
    stairs = _rail(s, crest + p.drop_v)
    level = _driven(s, stairs, at_rails(crest + p.drop_v))
    drop = at_rails(crest - d.held[:, k])
    level = less(level, drop)
    stairs.append(Stair("rectifier", "rectifier", "Rectifier and sag", p.treated.label, drop, level,
                        volts_text(drop.usual), Source.COMPUTED))  # fmt: skip
    lit(s, stairs, level, d.series[:, k], d.string[:, k])
    return Staircase(float(crest.max() + p.drop_v), tuple(stairs))


def in_states(s: Solution, stands: tuple[Standing, ...]) -> tuple[Moment, ...]:
    """The states in which the lamp should be dark, each with its own glow box and slide rule."""
    p = s.position
    lit = (float(s.usual[0]), float(s.usual[1]), float(s.usual[2]))
    white = white_of(p, lit)
    out = []
    for t in stands[1:]:
        amps = (float(t.amps[0]), float(t.amps[1]), float(t.amps[2]))
        old = lamp_before(p, t.state, p.rail.volts[1])
        glows = glow(p, amps, white=white, lamp_v=None if old is None else old[0])
        rule = state_rule(s, t.rule_amps, t.label)
        reads = {
            "ohm": show(s.sizing.each_ohm, OHM),
            **{k: show(a, AMPERE) for k, a in zip(("low", "usual", "high"), amps, strict=True)},
        }
        where = WORDS[seen(led_candela(p, t.most_a))]
        line = f"{t.label}: {show(amps[1], AMPERE)} in the LED, {where}."
        out.append(
            Moment(t.state, t.label, of_point(s, t.point, t.state, [0, 1, 2]), glows, rule, reads, line)
        )
    return tuple(out)
