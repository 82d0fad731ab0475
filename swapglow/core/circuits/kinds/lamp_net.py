"""Lamps with two ends each, as they are really wired: every combination of switches solved, unwanted paths found.

A lamp that glows though its own switch is off has current by a path nobody drew: a lost ground, a lamp that returns
through others, a dual filament whose shell is not grounded. Diodes and a ground are tried one by one.
"""

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import product
from typing import Literal

import numpy as np

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import LEAST_A, CircuitResult, FlowPath, Option, Row, Table
from swapglow.core.circuits.toolkit import asks
from swapglow.core.circuits.toolkit.solved import States, solve_states
from swapglow.core.circuits.toolkit.wiring import OFF_OHM, Wiring
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import Led
from swapglow.core.photometry.light_law import candela_at
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.quantities import AMPERE, OHM, VOLT, InputError, shown
from swapglow.core.quantities.inputs import read_single
from swapglow.core.values import lamp_marks

VOLTS = Detail("volts", "Volts of a feed that is on", VOLT, "12.8V")
FEEDS = Detail("feeds", "Wires that are switched", None, "TAIL, STOP; up to four")
PARTS = Detail(
    "lamps",
    "Lamps, one a line: name: end to end, rating",
    None,
    "tail: TAIL to shell, 12V 0.4A; LEDs: stop: STOP to ground, led 680R; a diode: d1: TAIL to x, diode. Ground is "
    "called ground",
    long=True,
)

GROUND = "ground"
# How people write it.
_GROUNDS = frozenset({"ground", "gnd", "earth", "0"})
_MOST_FEEDS, _MOST_PARTS = 4, 12
# Of its volts a filament is dark under the first share to any eye, and not what it should be under the second (ours;
# light goes as V^3.5: 6 per 10 000, and a quarter).
_DARK_SHARE, _FULL_SHARE = 0.12, 0.67
_LINE = re.compile(r"^\s*([^:]+?)\s*:\s*(\S+?)\s+(?:to|→|->)\s+(\S+?)\s*,\s*(.+?)\s*$")
_RATING = re.compile(r"^(\S+)\s+(\S+)$")
Kind = Literal["lamp", "led", "diode"]


@dataclass(frozen=True)
class Part:
    """One part between two ends.

    Attributes:
        name: as typed.
        top, foot: its ends; a feed's name, "ground", or a point of its own.
        kind: a filament lamp, an LED behind its resistor, or a diode, its band at the foot.
        lamp: the filament's rating.
        ohm: the LED's resistor.
    """

    name: str
    top: str
    foot: str
    kind: Kind
    lamp: Lamp | None = None
    ohm: float = 0.0


@dataclass(frozen=True)
class LampWiring:
    """The whole of it: volts of a feed that is on, the feeds, the parts, the kind of the LEDs; lines as typed."""

    volts: float
    feeds: tuple[str, ...]
    parts: tuple[Part, ...]
    led: Led
    lines: tuple[str, ...] = ()

    @property
    def combinations(self) -> list[tuple[bool, ...]]:
        """Every combination of the switches, all off first."""
        return list(product((False, True), repeat=len(self.feeds)))

    @property
    def names(self) -> list[str]:
        """What each combination is called."""
        on = [[f for f, yes in zip(self.feeds, c, strict=True) if yes] for c in self.combinations]
        return [" and ".join(names) + " on" if names else "All off" for names in on]


def _node(end: str) -> str:
    return "0" if end == GROUND else f"n_{end}"


@lru_cache(maxsize=128)
def solve(n: LampWiring) -> States:
    """Every combination of the switches in one batch; each part's current is that of "V" and its place."""
    combos = np.array(n.combinations)
    w = Wiring("lamps as they are wired")
    w.source("Vfeed", "feed", n.volts)
    for k, feed in enumerate(n.feeds):
        w.switch(f"Rswitch{k}", "feed", _node(feed), combos[:, k])
    loose = {p for part in n.parts for p in (part.top, part.foot)} - {GROUND, *n.feeds}
    for k, end in enumerate(sorted(loose)):
        w.resistor(f"Rair{k}", _node(end), "0", OFF_OHM)
    for k, p in enumerate(n.parts):
        w.source(f"V{k}", _node(p.top), 0.0, f"in{k}")
        if p.lamp is not None:
            w.filament(f"R{k}", f"in{k}", _node(p.foot), p.lamp, label=p.name)
        elif p.kind == "led":
            w.resistor(f"R{k}", f"in{k}", f"led{k}", p.ohm)
            w.led(f"D{k}", f"led{k}", _node(p.foot), n.led, label=f"the LED of {p.name}", id_=p.name)
        else:
            w.diode(f"D{k}", f"in{k}", _node(p.foot))
    return solve_states(w, *n.names)


def lit(n: LampWiring, place: int, state: int) -> Literal["dark", "glows", "lit"]:
    """Whether a part is lit.

    Args:
        n: the wiring.
        place: of the part.
        state: of the switches.

    Returns:
        For a filament by its volts, for an LED by where it is seen; a diode is always dark.
    """
    p = n.parts[place]
    if p.lamp is not None:
        share = abs(float(solve(n).across(f"R{place}")[state])) / p.lamp.volts
        return "dark" if share < _DARK_SHARE else "lit" if share >= _FULL_SHARE else "glows"
    if p.kind == "diode":
        return "dark"
    seen = visibility(candela_at(n.led, float(solve(n).amps(f"V{place}")[state])))
    return "dark" if seen == "dark" else "lit" if seen == "lit_room" else "glows"


def fed_by(n: LampWiring, end: str) -> frozenset[str]:
    """The feeds that reach an end by wire or through diodes.

    Args:
        n: the wiring.
        end: a feed, ground, or a point.

    Returns:
        Their names; none for ground, or for a point between lamps.
    """
    seen, todo = {end}, [end]
    while todo:
        here = todo.pop()
        for top in (p.top for p in n.parts if p.kind == "diode" and p.foot == here):
            if top not in seen:
                seen.add(top)
                todo.append(top)
    return frozenset(seen) & frozenset(n.feeds)


def wanted(n: LampWiring, place: int, state: tuple[bool, ...]) -> bool | None:
    """Whether a lamp should be lit: one of its ends has a feed that is on, and not the other as well.

    Args:
        n: the wiring.
        place: of the lamp.
        state: of the switches.

    Returns:
        None where it has no feed at either end: it follows none, and is never wrong.
    """
    p = n.parts[place]
    on = {f for f, yes in zip(n.feeds, state, strict=True) if yes}
    top, foot = fed_by(n, p.top), fed_by(n, p.foot)
    if p.kind == "diode" or not top | foot:
        return None
    return bool(top & on) != bool(foot & on)


def path(n: LampWiring, place: int, state: int) -> tuple[str, ...]:
    """The way that most of a part's current takes, from its feed to ground.

    Args:
        n: the wiring.
        place: of the part.
        state: of the switches.

    Returns:
        Ends and parts in turn.
    """
    amps = [float(solve(n).amps(f"V{k}")[state]) for k in range(len(n.parts))]

    def along(k: int) -> tuple[str, str]:
        p = n.parts[k]
        return (p.top, p.foot) if amps[k] >= 0 else (p.foot, p.top)

    on = [f for f, yes in zip(n.feeds, n.combinations[state], strict=True) if yes]
    start, end = along(place)
    out = [start, n.parts[place].name, end]
    gone = {place}
    while out[0] not in on:
        into = [k for k in range(len(n.parts)) if k not in gone and along(k)[1] == out[0]]
        if not into:
            break
        k = max(into, key=lambda k: abs(amps[k]))
        gone.add(k)
        out[:0] = [along(k)[0], n.parts[k].name]
    while out[-1] != GROUND:
        forth = [k for k in range(len(n.parts)) if k not in gone and along(k)[0] == out[-1]]
        if not forth:
            break
        k = max(forth, key=lambda k: abs(amps[k]))
        gone.add(k)
        out += [n.parts[k].name, along(k)[1]]
    return tuple(out)


@dataclass(frozen=True)
class Wrong:
    """A lamp that glows though it should be dark, or is not lit though it should be."""

    place: int
    state: int
    glows: bool


def wrongs(n: LampWiring) -> tuple[Wrong, ...]:
    """All that is wrong over every combination of the switches.

    Args:
        n: the wiring.

    Returns:
        What is wrong, the combinations in turn.
    """
    out = []
    for s, state in enumerate(n.combinations):
        for k in range(len(n.parts)):
            should = wanted(n, k, state)
            if should is None:
                continue
            is_ = lit(n, k, s)
            if is_ != "dark" and not should:
                out.append(Wrong(k, s, True))
            elif is_ != "lit" and should:
                out.append(Wrong(k, s, False))
    return tuple(out)


class LampNet(CircuitKind[LampWiring]):
    """Dual-filament holders, lamps that return through others, grounds that are lost."""

    id = "lamp_net"
    order = 13
    label = "Lamps that feed each other"
    looks = (
        "Something glows that is switched off, or two lamps go dim together: they share a wire that is no ground. Type "
        "each lamp by its two ends, as the wires really go."
    )
    never = (
        "Find each wire's other end with the battery off. Lamps of road vehicles are governed by law, which differs by "
        "country."
    )
    parts = (("Vfeed", "feed", "volts"), ("Rswitch", "switch", "feeds"), ("R", "", "lamps"), ("D", "", "lamps"))
    details = (VOLTS, FEEDS, PARTS, asks.led_detail("LED where a line says led"))

    def case(self, typed: Details) -> LampWiring:
        """The wiring as typed."""
        return read_net(typed)

    def states(self, case: LampWiring) -> tuple[States, ...]:
        """Every combination of the switches."""
        return (solve(case),)

    def options(self, now: LampWiring, typed: Details, chosen: str) -> Iterator[Option]:
        """Cures of one part that leave less wrong than there is, the best first."""
        wrong = len(wrongs(now))
        cures = [c for c in _cures(now) if len(c[2].parts) <= _MOST_PARTS] if wrong else []
        left = sorted(((len(wrongs(c)), id_, label, c) for id_, label, c in cures), key=lambda x: x[0])
        for count, id_, label, cured in left:
            if count < wrong:
                what = "Right in every combination." if count == 0 else f"{count} wrong, of {wrong}, are left."
                yield Option(
                    id_,
                    label,
                    what,
                    shown(float(count), "wrong", "every combination solved"),
                    "count",
                    advised=count == 0,
                    changes={PARTS.id: _written(now, cured)},
                )

    def report(self, job: Job[LampWiring]) -> CircuitResult:
        """Every combination, what glows that should not and by which path, and the one part that cures it."""
        n = job.now
        bad, over = wrongs(n), [o.finding.message for o in solve(n).judged()]
        line = f"Wrong: {over[0]}" if over else "Right in every combination of the switches."
        return CircuitResult(
            line=f"Wrong: {_said(n, bad, bad[0].state)}" if bad else line,
            paths=tuple(_paths(n, bad)),
            tables=(_table(n),),
            findings=tuple(_findings(n, bad)),
            spice=solve(n).deck(len(n.names) - 1),
        )


KIND = LampNet()


def read_net(typed: Details) -> LampWiring:
    """The net as it was typed.

    Args:
        typed: the details.

    Returns:
        The net.

    Raises:
        InputError: a line cannot be read; it says which, and how one is written.
    """
    (volts,) = typed.needed(VOLTS)
    feeds = tuple(f for f in re.split(r"[,;\s]+", typed.text(FEEDS.id)) if f)
    if not feeds:
        raise InputError(FEEDS.id, f"Type this too: {FEEDS.label}, {FEEDS.hint}.")
    if len(set(feeds)) != len(feeds) or len(feeds) > _MOST_FEEDS or any(f.casefold() in _GROUNDS for f in feeds):
        raise InputError(FEEDS.id, f"Up to {_MOST_FEEDS} wires, each once, and none of them {GROUND}.")
    lines = [x for x in typed.text(PARTS.id).replace(";", "\n").splitlines() if x.strip()]
    if not lines:
        raise InputError(PARTS.id, f"Type this too: {PARTS.label}: {PARTS.hint}.")
    if len(lines) > _MOST_PARTS:
        raise InputError(PARTS.id, f"{len(lines)} lines: {_MOST_PARTS} are the most.")
    parts = tuple(_part(x) for x in lines)
    names = [p.name for p in parts]
    twice = next((x for x in names if names.count(x) > 1), None)
    if twice is not None:
        raise InputError(PARTS.id, f'"{twice}" is there twice: each line has a name of its own.')
    used = {e for p in parts for e in (p.top, p.foot)}
    _check_spelling(used | set(feeds))
    idle = next((f for f in feeds if f not in used), None)
    if idle is not None:
        raise InputError(FEEDS.id, f'No line has "{idle}" as an end.')
    return LampWiring(volts, feeds, parts, asks.read_led(typed), tuple(lines))


def _check_spelling(ends: set[str]) -> None:
    """Two ends that differ by their case alone are one that was written twice.

    Raises:
        InputError: there are such.
    """
    seen: dict[str, str] = {}
    for end in sorted(ends):
        other = seen.setdefault(end.casefold(), end)
        if other != end:
            raise InputError(PARTS.id, f'Is "{end}" the same as "{other}"? Write it one way.')


def _end(text: str) -> str:
    return GROUND if text.casefold() in _GROUNDS else text


def _part(line: str) -> Part:
    found = _LINE.match(line)
    if found is None:
        raise InputError(PARTS.id, f'"{line.strip()}" is no line: write tail: TAIL to shell, 12V 0.4A.')
    name, what = found.group(1), found.group(4)
    top, foot = _end(found.group(2)), _end(found.group(3))
    if top == foot:
        raise InputError(PARTS.id, f'"{name}" has both ends at {top}.')
    if what == "diode":
        return Part(name, top, foot, "diode")
    both = lamp_marks.parts(what)
    if both is not None:
        volts = read_single(PARTS.id, both[0], VOLT, above=0)
        return Part(
            name,
            top,
            foot,
            "lamp",
            asks.rated_lamp(volts, read_single(PARTS.id, both[1], AMPERE, above=0, volts=volts)),
        )
    two = _RATING.match(what)
    if two is None or two.group(1) != "led":
        raise InputError(PARTS.id, f'"{what}" of {name}: 12V 0.4A or 12V 5W for a lamp, led 680R for an LED, or diode.')
    return Part(name, top, foot, "led", ohm=read_single(PARTS.id, two.group(2), OHM, above=0))


def _said(n: LampWiring, bad: tuple[Wrong, ...], state: int) -> str:
    """All that is wrong with one combination."""
    glow = [n.parts[w.place].name for w in bad if w.state == state and w.glows]
    dark = [n.parts[w.place].name for w in bad if w.state == state and not w.glows]
    told = [f"{' and '.join(glow)} {'glows' if len(glow) == 1 else 'glow'}"] if glow else []
    told += [f"{' and '.join(dark)} {'is' if len(dark) == 1 else 'are'} not lit"] if dark else []
    return f"{n.names[state]}: {', '.join(told)}."


def _paths(n: LampWiring, bad: tuple[Wrong, ...]) -> Iterator[FlowPath]:
    """The path of each lamp that glows and should not; lamps on one path together."""
    seen: dict[tuple[int, tuple[str, ...]], list[int]] = {}
    for w in bad:
        if w.glows:
            seen.setdefault((w.state, path(n, w.place, w.state)), []).append(w.place)
    for (state, stations), places in seen.items():
        amps = shown(abs(float(solve(n).amps(f"V{places[0]}")[state])), AMPERE, "this combination solved")
        said = f"{' and '.join(n.parts[k].name for k in places)} {'glows' if len(places) == 1 else 'glow'}"
        yield FlowPath(f"{state}-{n.parts[places[0]].name}", n.names[state], stations, False, amps, said)


def _table(n: LampWiring) -> Table:
    lamps = [k for k, p in enumerate(n.parts) if p.kind != "diode"]
    rows = []
    for s, name in enumerate(n.names):
        amps = (abs(float(solve(n).amps(f"V{k}")[s])) for k in lamps)
        cells = tuple(shown(a if a > LEAST_A else 0.0, AMPERE, "this combination solved") for a in amps)
        words = "; ".join(f"{n.parts[k].name}: {_WORDS[lit(n, k, s)]}" for k in lamps)
        rows.append(Row("".join(str(int(on)) for on in n.combinations[s]), name, cells, words))
    return Table("combinations", "Every combination", tuple(n.parts[k].name for k in lamps), tuple(rows))


_WORDS = {"dark": WORDS["dark"], "glows": "glows", "lit": "lit"}


def _cures(n: LampWiring) -> Iterator[tuple[str, str, LampWiring]]:
    """One part more: a ground at a point that has none, or a diode in one lead of one lamp."""
    loose = sorted({e for p in n.parts for e in (p.top, p.foot)} - {GROUND, *n.feeds})
    for end in loose:
        parts = tuple(replace(p, top=_moved(p.top, end), foot=_moved(p.foot, end)) for p in n.parts)
        if all(p.top != p.foot for p in parts):
            yield f"ground-{end}", f"A ground at {end}", replace(n, parts=parts)
    for k, p in enumerate(n.parts):
        fresh = f"{p.name}-d".replace(" ", "-")
        taken = {e for x in n.parts for e in (x.top, x.foot, x.name)}
        if p.kind != "diode" and fresh not in taken:
            diode = Part(fresh, p.top, fresh, "diode")
            parts = (*n.parts[:k], replace(p, top=fresh), *n.parts[k + 1 :], diode)
            yield f"diode-{p.name}", f"A diode before {p.name}, its band to {p.name}", replace(n, parts=parts)


def _moved(end: str, grounded: str) -> str:
    return GROUND if end == grounded else end


def _written(n: LampWiring, cured: LampWiring) -> str:
    """The lines once a cure is in: those that stay as they were typed."""
    whats = [*(line.partition(",")[2].strip() for line in n.lines), *["diode"] * len(cured.parts)]
    return "\n".join(f"{p.name}: {p.top} to {p.foot}, {what}" for p, what in zip(cured.parts, whats, strict=False))


def _findings(n: LampWiring, bad: tuple[Wrong, ...]) -> Iterator[Finding]:
    for state in sorted({w.state for w in bad}):
        glows = any(w.glows for w in bad if w.state == state)
        why = (
            "Its current has a path that nobody meant: it is drawn below."
            if glows
            else "Too little reaches it, or it stands the wrong way round."
        )
        yield Finding(f"wrong-{state}", "stop", _said(n, bad, state), why=why)
