"""Lamps with two ends each, as they are really wired: every combination of switches solved, and what sneaks where.

A lamp that glows though its own switch is off has current by a path nobody drew: a lost ground, a lamp that returns
through others, a dual filament whose shell hangs in the air. Diodes and a ground are tried one by one.
"""

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import product
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Circuit, Dc, Diode, Element, Resistor, VoltageSource
from swapglow.core.engine.operating_point import OperatingPoint
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.ratings import lamp_volts, led_current, led_reverse
from swapglow.core.fitted.worked import LEAST_A, FlowPath, Judged, Row, Table, Way, Worked, gravest_first
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.network.filaments import Law, Ohms, filament, ohms_at, settled
from swapglow.core.parts.lamp import Lamp, own_lamp
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.led_model import led_model
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.photometry.light_law import candela_at
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.quantities import AMPERE, OHM, VOLT, InputError, shown
from swapglow.core.quantities.inputs import read_single
from swapglow.core.values import lamp_marks

FloatArray = NDArray[np.float64]

VOLTS = Detail("volts", "Volts of a feed that is on", VOLT, "12.8V")
FEEDS = Detail("feeds", "Wires that are switched", None, "TAIL, STOP; up to four")
PARTS = Detail(
    "lamps", "Lamps, one a line: name: end to end, rating", None,
    "tail: TAIL to shell, 12V 0.4A; LEDs: stop: STOP to ground, led 680R; a diode: d1: TAIL to x, diode. Ground is "
    "called ground", long=True,
)  # fmt: skip
LED = led_detail("LED where a line says led")

GROUND = "ground"
# How people write it.
_GROUNDS = frozenset({"ground", "gnd", "earth", "0"})
_MOST_FEEDS, _MOST_PARTS = 4, 12
_ON_OHM, _OFF_OHM = 0.05, 1e9
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
class Net:
    """The whole of it: volts of a feed that is on, the feeds, the parts, and the kind of the LEDs."""

    volts: float
    feeds: tuple[str, ...]
    parts: tuple[Part, ...]
    led: Led


def states(n: Net) -> list[tuple[bool, ...]]:
    """Every combination of the switches, all off first."""
    return list(product((False, True), repeat=len(n.feeds)))


def circuit(n: Net, ohms: Ohms) -> Circuit:
    """The net with every combination of its switches side by side.

    Args:
        n: the net.
        ohms: filaments at rest, "R" and their place.

    Returns:
        The circuit; each part's current is that of "V" and its place.
    """
    combos = np.array(states(n))
    elements: list[Element] = [VoltageSource("Vfeed", "feed", "0", Dc(n.volts))]
    for k, feed in enumerate(n.feeds):
        elements.append(
            Resistor(f"Rswitch{k}", "feed", _node(feed), np.where(combos[:, k], _ON_OHM, _OFF_OHM))
        )
    loose = {p for part in n.parts for p in (part.top, part.foot)} - {GROUND, *n.feeds}
    elements += [Resistor(f"Rair{k}", _node(end), "0", _OFF_OHM) for k, end in enumerate(sorted(loose))]
    for k, p in enumerate(n.parts):
        elements.append(VoltageSource(f"V{k}", _node(p.top), f"in{k}", Dc(0.0)))
        if p.kind == "lamp":
            elements.append(Resistor(f"R{k}", f"in{k}", _node(p.foot), ohms[f"R{k}"]))
        elif p.kind == "led":
            elements += [
                Resistor(f"R{k}", f"in{k}", f"led{k}", p.ohm),
                Diode(f"D{k}", f"led{k}", _node(p.foot), led_model(n.led)),
            ]
        else:
            elements.append(Diode(f"D{k}", f"in{k}", _node(p.foot), rectifier("power").chain(1, REFERENCE_C)))
    return Circuit(tuple(elements), celsius=REFERENCE_C, title="lamps as they are wired")


def _node(end: str) -> str:
    return "0" if end == GROUND else f"n_{end}"


@dataclass(frozen=True)
class Solved:
    """Every combination solved: amps of each part, (parts, states); volts of each end by name, (states,)."""

    amps: FloatArray
    volts: dict[str, FloatArray]

    def across(self, p: Part) -> FloatArray:
        """Volts from a part's top to its foot, (states,)."""
        return np.asarray(self.volts[p.top] - self.volts[p.foot])


def solve(n: Net) -> Solved:
    """Solve every combination of the switches.

    Args:
        n: the net.

    Returns:
        What flows in each.

    Raises:
        NotConverged: one has no answer.
    """
    laws: dict[str, Law] = {f"R{k}": filament(p.lamp) for k, p in enumerate(n.parts) if p.lamp is not None}
    point: OperatingPoint = settled(lambda ohms: circuit(n, ohms), laws, len(states(n)))
    ends = {p for part in n.parts for p in (part.top, part.foot)} - {GROUND}
    return Solved(
        np.stack([point.current(f"V{k}") for k in range(len(n.parts))]),
        {GROUND: np.zeros(len(states(n))), **{e: point.voltage(_node(e)) for e in ends}},
    )


def lit(n: Net, found: Solved, place: int, state: int) -> Literal["dark", "glows", "lit"]:
    """Whether a part is lit.

    Args:
        n: the net.
        found: it solved.
        place: of the part.
        state: of the switches.

    Returns:
        For a filament by its volts, for an LED by where it is seen; a diode is always dark.
    """
    p = n.parts[place]
    if p.lamp is not None:
        share = abs(float(found.across(p)[state])) / p.lamp.volts
        return "dark" if share < _DARK_SHARE else "lit" if share >= _FULL_SHARE else "glows"
    if p.kind == "diode":
        return "dark"
    seen = visibility(candela_at(n.led, float(found.amps[place, state])))
    return "dark" if seen == "dark" else "lit" if seen == "lit_room" else "glows"


def fed_by(n: Net, end: str) -> frozenset[str]:
    """The feeds that reach an end by wire or through diodes.

    Args:
        n: the net.
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


def wanted(n: Net, place: int, state: tuple[bool, ...]) -> bool | None:
    """Whether a lamp should be lit: one of its ends has a feed that is on, and not the other as well.

    Args:
        n: the net.
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


def path(n: Net, found: Solved, place: int, state: int) -> tuple[str, ...]:
    """The way that most of a part's current takes, from its feed to ground.

    Args:
        n: the net.
        found: it solved.
        place: of the part.
        state: of the switches.

    Returns:
        Ends and parts in turn.
    """
    amps = found.amps[:, state]

    def along(k: int) -> tuple[str, str]:
        p = n.parts[k]
        return (p.top, p.foot) if amps[k] >= 0 else (p.foot, p.top)

    on = [f for f, yes in zip(n.feeds, states(n)[state], strict=True) if yes]
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


def wrongs(n: Net, found: Solved) -> tuple[Wrong, ...]:
    """All that is wrong over every combination of the switches.

    Args:
        n: the net.
        found: it solved.

    Returns:
        What is wrong, the combinations in turn.
    """
    out = []
    for s, state in enumerate(states(n)):
        for k in range(len(n.parts)):
            should = wanted(n, k, state)
            if should is None:
                continue
            is_ = lit(n, found, k, s)
            if is_ != "dark" and not should:
                out.append(Wrong(k, s, True))
            elif is_ != "lit" and should:
                out.append(Wrong(k, s, False))
    return tuple(out)


class LampNet(FittedKind):
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
    details = (VOLTS, FEEDS, PARTS, LED)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """Every combination, what glows that should not and by which path, and the one part that cures it."""
        n = read_net(typed)
        found = solve(n)
        bad = wrongs(n, found)
        over = tuple(_over(n, found))
        ways = tuple(_ways(n, typed, len(bad))) if bad else ()
        if bad:
            line = f"Wrong: {_said(n, bad, bad[0].state)}"
        else:
            line = f"Wrong: {over[0].message}" if over else "Right in every combination of the switches."
        return Worked(
            line=line,
            paths=tuple(_paths(n, found, bad)),
            tables=(_table(n, found),),
            ways=ways,
            judged=gravest_first((*_judged(n, bad), *over)),
            spice=write_deck(_all_on(n, found)),
        )


KIND = LampNet()


def read_net(typed: Details) -> Net:
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
    if (
        len(set(feeds)) != len(feeds)
        or len(feeds) > _MOST_FEEDS
        or any(f.casefold() in _GROUNDS for f in feeds)
    ):
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
    return Net(volts, feeds, parts, catalogue()[typed.choice(LED.id)])


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
            own_lamp(volts, read_single(PARTS.id, both[1], AMPERE, above=0, volts=volts), None, ""),
        )
    two = _RATING.match(what)
    if two is None or two.group(1) != "led":
        raise InputError(
            PARTS.id, f'"{what}" of {name}: 12V 0.4A or 12V 5W for a lamp, led 680R for an LED, or diode.'
        )
    return Part(name, top, foot, "led", ohm=read_single(PARTS.id, two.group(2), OHM, above=0))


def _state(n: Net, state: int) -> str:
    on = [f for f, yes in zip(n.feeds, states(n)[state], strict=True) if yes]
    return " and ".join(on) + " on" if on else "All off"


def _said(n: Net, bad: tuple[Wrong, ...], state: int) -> str:
    """All that is wrong with one combination."""
    glow = [n.parts[w.place].name for w in bad if w.state == state and w.glows]
    dark = [n.parts[w.place].name for w in bad if w.state == state and not w.glows]
    told = [f"{' and '.join(glow)} {'glows' if len(glow) == 1 else 'glow'}"] if glow else []
    told += [f"{' and '.join(dark)} {'is' if len(dark) == 1 else 'are'} not lit"] if dark else []
    return f"{_state(n, state)}: {', '.join(told)}."


def _paths(n: Net, found: Solved, bad: tuple[Wrong, ...]) -> Iterator[FlowPath]:
    """The path of each lamp that glows and should not; lamps on one path together."""
    seen: dict[tuple[int, tuple[str, ...]], list[int]] = {}
    for w in bad:
        if w.glows:
            seen.setdefault((w.state, path(n, found, w.place, w.state)), []).append(w.place)
    for (state, stations), places in seen.items():
        amps = shown(abs(float(found.amps[places[0], state])), AMPERE, "this combination solved")
        said = f"{' and '.join(n.parts[k].name for k in places)} {'glows' if len(places) == 1 else 'glow'}"
        yield FlowPath(_state(n, state), stations, False, amps, said)


def _table(n: Net, found: Solved) -> Table:
    lamps = [k for k, p in enumerate(n.parts) if p.kind != "diode"]
    rows = []
    for s in range(len(states(n))):
        cells = []
        for k in lamps:
            amps = abs(float(found.amps[k, s]))
            cells.append(shown(amps if amps > LEAST_A else 0.0, AMPERE, "this combination solved"))
        words = "; ".join(f"{n.parts[k].name}: {_WORDS[lit(n, found, k, s)]}" for k in lamps)
        rows.append(Row(_state(n, s), tuple(cells), words))
    return Table("Every combination", tuple(n.parts[k].name for k in lamps), tuple(rows))


_WORDS = {"dark": WORDS["dark"], "glows": "glows", "lit": "lit"}


def _cures(n: Net) -> Iterator[tuple[str, Net]]:
    """One part more: a ground at a point that has none, or a diode in one lead of one lamp."""
    loose = sorted({e for p in n.parts for e in (p.top, p.foot)} - {GROUND, *n.feeds})
    for end in loose:
        parts = tuple(replace(p, top=_moved(p.top, end), foot=_moved(p.foot, end)) for p in n.parts)
        if all(p.top != p.foot for p in parts):
            yield f"A ground at {end}", replace(n, parts=parts)
    for k, p in enumerate(n.parts):
        if p.kind == "diode":
            continue
        fresh = f"{p.name}-d".replace(" ", "-")
        if fresh in {e for x in n.parts for e in (x.top, x.foot)} or any(x.name == fresh for x in n.parts):
            continue
        diode = Part(fresh, p.top, fresh, "diode")
        parts = (*n.parts[:k], replace(p, top=fresh), *n.parts[k + 1 :], diode)
        yield f"A diode before {p.name}, its band to {p.name}", replace(n, parts=parts)


def _moved(end: str, grounded: str) -> str:
    return GROUND if end == grounded else end


def _ways(n: Net, typed: Details, now: int) -> Iterator[Way]:
    """Cures of one part that leave less wrong than there is, the best first."""
    tried = []
    for label, cured in _cures(n):
        if len(cured.parts) > _MOST_PARTS:
            continue
        left = len(wrongs(cured, solve(cured)))
        if left < now:
            tried.append((left, label, cured))
    for k, (left, label, cured) in enumerate(sorted(tried, key=lambda x: x[0])):
        what = "Right in every combination." if left == 0 else f"{left} wrong, of {now}, are left."
        yield Way(label, what, shown(float(left), "wrong", "every combination solved"), "", "", k == 0 and left == 0,
                  {PARTS.id: _written(typed, n, cured)})  # fmt: skip


def _written(typed: Details, n: Net, cured: Net) -> str:
    """The lines once a cure is in: those that stay as they were typed."""
    typed_lines = [x for x in typed.text(PARTS.id).replace(";", "\n").splitlines() if x.strip()]
    out = []
    for k, p in enumerate(cured.parts):
        if k < len(n.parts):
            what = typed_lines[k].partition(",")[2].strip()
            out.append(f"{p.name}: {p.top} to {p.foot}, {what}")
        else:
            out.append(f"{p.name}: {p.top} to {p.foot}, diode")
    return "\n".join(out)


def _over(n: Net, found: Solved) -> Iterator[Judged]:
    """Every part against what it stands, in the state that is worst for it."""
    for k, p in enumerate(n.parts):
        volts, amps = np.abs(found.across(p)), found.amps[k]
        if p.lamp is not None:
            yield from lamp_volts(p.lamp, float(volts.max()), p.name)
        elif p.kind == "led":
            yield from led_current(n.led, float(amps.max()), p.name)
            yield from led_reverse(n.led, float(-found.across(p).min()), p.name)


def _judged(n: Net, bad: tuple[Wrong, ...]) -> Iterator[Judged]:
    for state in sorted({w.state for w in bad}):
        glows = any(w.glows for w in bad if w.state == state)
        why = (
            "Its current has a path that nobody meant: it is drawn below."
            if glows
            else "Too little reaches it, or "
        )
        yield Judged("stop", _said(n, bad, state), why if glows else f"{why}it stands the wrong way round.")


def _all_on(n: Net, found: Solved) -> Circuit:
    """The last combination, all on, for a simulator: filaments at rest."""
    ohms = {
        f"R{k}": float(ohms_at(p.lamp, found.across(p)[-1:])[0])
        for k, p in enumerate(n.parts) if p.lamp is not None
    }  # fmt: skip
    alone = circuit(n, ohms)
    return replace(alone, elements=tuple(
        replace(e, ohms=_ON_OHM) if isinstance(e, Resistor) and e.name.startswith("Rswitch") else e
        for e in alone.elements
    ))  # fmt: skip
