"""A tell-tale between two feeds and no ground: every combination of switches solved, and unwanted paths found."""

from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

import numpy as np

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import LEAST_A, CircuitResult, Fault, FlowPath, Option, Row, Table
from swapglow.core.circuits.toolkit import asks
from swapglow.core.circuits.toolkit.solved import States, solve_states
from swapglow.core.circuits.toolkit.wiring import Wiring
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import Led
from swapglow.core.photometry.light_law import candela_at
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.quantities import AMPERE, VOLT, show, shown

VOLTS = Detail("volts", "Volts of a feed that is on", VOLT, "13.8V")
SIDE_V = Detail("side_volts", "Each side's lamps: volts", VOLT, "12V, as marked")
SIDE_A = Detail("side_amps", "Each side's lamps: amps together", AMPERE, "3.5A: two of 21 W", at="side_volts")
SIDE = Detail("side", "Each side's lamps are", None, "", (("filament", "Filament lamps"), ("led", "LED lamps")))
LED_OHM = asks.led_ohm("680R")
Cure = Literal["none", "bridge", "ground"]
CURES: tuple[tuple[Cure, str], ...] = (
    ("none", "Between the feeds, one way round"),
    ("bridge", "Between the feeds, in a bridge"),
    ("ground", "Two diodes, and its own ground"),
)
CURE = Detail("cure", "How it is wired", None, "", CURES)

# LED lamps of a side: behind their own resistors some 5 V of LEDs, drawing a twentieth of what filaments did (ours).
_LED_SIDE_V, _LED_SHARE = 6.0, 0.05
# A filament at less than this of its volts is dark to any eye (light goes with the volts to the power of 3.5).
_DARK_SHARE = 0.12
_SIDES = ("left", "right")
# The switches, left and right, in every combination.
STATES = {"none": "Both off", "left": "Left on", "right": "Right on", "both": "Both on"}
_LEFT, _RIGHT = np.array([False, True, False, True]), np.array([False, False, True, True])


@dataclass(frozen=True)
class Net:
    """The network.

    Attributes:
        volts: of a feed that is on.
        side: each side's lamps.
        side_led: whether they are LED lamps, of the same volts.
        led, ohm: the tell-tale.
        cure: how it is wired.
    """

    volts: float
    side: Lamp
    side_led: bool
    led: Led
    ohm: float
    cure: Cure


@lru_cache(maxsize=16)
def solve(n: Net) -> States:
    """Every combination of the switches in one batch; the tell-tale's current is that of "Vtell"."""
    w = Wiring("a tell-tale between two feeds")
    w.source("Vfeed", "feed", n.volts)
    for side, on in zip(_SIDES, (_LEFT, _RIGHT), strict=True):
        w.switch(f"Rswitch_{side}", "feed", side, on)
        if n.side_led:
            # LEDs in series of some volts together and their resistor, the part's own (a ready-made lamp).
            amps = n.side.amps * _LED_SHARE
            w.resistor(f"R{side}", side, f"{side}_in", max((n.side.volts - _LED_SIDE_V) / amps, 1.0))
            w.led(f"D{side}", f"{side}_in", "0", n.led, series=max(round(_LED_SIDE_V / n.led.vf_typ), 1), judged=False)
        else:
            w.filament(f"R{side}", side, "0", n.side, label=f"The {side} lamps")
    # Turned round it blocks: an LED of its own conducts nothing that way under its five volts and less.
    top, foot = {"none": _SIDES, "bridge": ("plus", "minus"), "ground": ("plus", "0")}[n.cure]
    if n.cure != "none":
        w.diode("Dlp", "left", "plus")
        w.diode("Drp", "right", "plus")
    if n.cure == "bridge":
        w.diode("Dml", "minus", "left")
        w.diode("Dmr", "minus", "right")
    w.source("Vtell", top, 0.0, "tell")
    w.resistor("Rtell", "tell", "led", n.ohm)
    w.led("Dtell", "led", foot, n.led)
    return solve_states(w, *STATES.values())


@dataclass(frozen=True)
class Seen:
    """One combination: the tell-tale's current and light, each side's current, which side glows and should not."""

    id: str
    label: str
    tell_a: float
    candela: float
    sides_a: tuple[float, float]
    glows: tuple[str, ...]
    path: tuple[str, ...]


def seen(n: Net) -> list[Seen]:
    """What is seen in every combination, and what the tell-tale's current goes through in turn."""
    found = solve(n)
    tell = np.maximum(found.amps("Vtell"), 0.0)
    out = []
    for k, (id_, label) in enumerate(STATES.items()):
        on = (bool(_LEFT[k]), bool(_RIGHT[k]))
        glows = tuple(s for s, fed in zip(_SIDES, on, strict=True) if not fed and _glows(n, found, s, k))
        light = candela_at(n.led, float(tell[k]))
        path: tuple[str, ...] = ()
        if visibility(light) != "dark":
            fed, other = _SIDES if on[0] else _SIDES[::-1]
            path = (f"{fed} feed", "tell-tale", f"{other} lamps", "their ground")
            path = ("feed", "diode", "tell-tale", "its own ground") if n.cure == "ground" else path
        sides = (float(found.amps("Rleft")[k]), float(found.amps("Rright")[k]))
        out.append(Seen(id_, label, float(tell[k]), light, sides, glows, path))
    return out


def _glows(n: Net, found: States, side: str, k: int) -> bool:
    if n.side_led:
        return visibility(candela_at(n.led, float(found.amps(f"R{side}")[k]))) != "dark"
    return abs(float(found.volts(side)[k])) > _DARK_SHARE * n.side.volts


def wrongs(n: Net) -> list[Finding]:
    """What is wrong with a wiring, over every combination of the switches.

    Args:
        n: the network.

    Returns:
        Stops; none where the tell-tale is plain with one side on and dark with none, and no lamp glows that should
        be dark.
    """
    out = []
    for s in seen(n):
        # With both on, as hazard lamps are, a tell-tale between them is dark by nature; with a ground it is lit.
        if s.id in _SIDES and visibility(s.candela) != "lit_room":
            out.append((f"too-dim-{s.id}", f"{s.label}: the tell-tale is {WORDS[visibility(s.candela)]}."))
        if s.id == "none" and visibility(s.candela) != "dark":
            out.append(("glows-off", f"{s.label}: the tell-tale glows."))
        out += [
            (f"sneaks-{s.id}-{side}", f"{s.label}: the {side} lamps glow, by the {', '.join(s.path) or 'tell-tale'}.")
            for side in s.glows
        ]
    why = "It is solved with every combination of the two switches."
    return [Finding(id_, "stop", message, why=why) for id_, message in out]


class TwoFeeds(CircuitKind[Net]):
    """One tell-tale for left and right, dual-filament holders, lamps that return through others."""

    id = "two_feeds"
    order = 12
    label = "Tell-tale between two feeds"
    looks = (
        "One lamp for left and right: neither of its wires is ground. Lit from the left it returns through the right "
        "side's cold lamps, and the other way round."
    )
    never = (
        "Ground neither of its wires before both are known: the first switch would then be a short. Lamps of road "
        "vehicles are governed by law, which differs by country."
    )
    parts = (
        ("Vfeed", "feed", "volts"),
        ("Rswitch_left", "left switch", ""),
        ("Rswitch_right", "right switch", ""),
        ("Rleft", "left lamps", "side_volts"),
        ("Rright", "right lamps", "side_volts"),
        ("Dleft", "left LEDs", "side"),
        ("Dright", "right LEDs", "side"),
        ("Rtell", "resistor", "ohm"),
        ("Dtell", "tell-tale LED", "led"),
        ("D", "diode", "cure"),
    )
    details = (VOLTS, SIDE_V, SIDE_A, SIDE, asks.led_detail("LED of the tell-tale"), LED_OHM, CURE)

    def case(self, typed: Details) -> Net:
        """The network as typed."""
        volts, side_v, side_a, ohm = typed.needed(VOLTS, SIDE_V, SIDE_A, LED_OHM)
        cure: Cure = typed.choice(CURE.id)  # type: ignore[assignment]  # one of its options
        side = asks.rated_lamp(side_v, side_a)
        return Net(volts, side, typed.choice(SIDE.id) == "led", asks.read_led(typed), ohm, cure)

    def states(self, case: Net) -> tuple[States, ...]:
        """Every combination of the switches."""
        return (solve(case),)

    def options(self, now: Net, typed: Details, chosen: str) -> list[Option]:
        """The other wirings, where something is wrong with this one."""
        if not self.wrong(now):
            return []
        out = []
        for cure, label in reversed(CURES[1:]):
            other = replace(now, cure=cure)
            bad = self.wrong(other)
            tell = seen(other)[1].tell_a
            out.append(
                Option(
                    cure,
                    label,
                    f"{show(tell, AMPERE)} in the tell-tale with one side on.",
                    shown(tell, AMPERE, "left on, solved"),
                    "current",
                    bars=bad[0].message if bad else "",
                    advised=True,
                    changes={CURE.id: cure},
                )
            )
        return [o for o in out if o.id != now.cure]

    def wrong(self, net: Net) -> list[Finding]:
        """All that is wrong with a wiring, ratings too."""
        return [*wrongs(net), *(o.finding for o in solve(net).judged() if o.finding.grade == "stop")]

    def report(self, job: Job[Net]) -> CircuitResult:
        """Every combination of the switches, what sneaks where, and the wiring that is right in all of them."""
        bad = self.wrong(job.now)
        tables = [_table(job.now, "as-wired", "Every combination, as it is wired")]
        if job.after is not None:
            tables.append(_table(job.after, "after", f"The same, {dict(CURES)[job.after.cure].lower()}"))
        findings = wrongs(job.now)
        if job.now.cure == "ground":
            findings.append(
                Finding(
                    "lit-with-both",
                    "note",
                    "With both on it is lit, where the old lamp was dark.",
                    why="A hazard switch shows on it now: say so on the card.",
                )
            )
        found = solve(job.now)
        return CircuitResult(
            line="Right in every combination of the switches." if not bad else f"Wrong: {bad[0].message}",
            paths=_paths(job.now),
            tables=tuple(tables),
            findings=tuple(findings),
            faults=(
                Fault(
                    "side-gone",
                    "A lamp of one side is gone",
                    "Between the feeds the tell-tale then stays dark for the other side.",
                ),
            ),
            spice=found.deck(1),
        )


KIND = TwoFeeds()


def _paths(n: Net) -> tuple[FlowPath, ...]:
    """Where the tell-tale's current returns, and whether that lights what should be dark."""
    return tuple(
        FlowPath(
            s.id,
            s.label,
            s.path,
            not s.glows and s.id != "none",
            shown(s.tell_a, AMPERE, "solved"),
            ", ".join(f"{side} lamps glow" for side in s.glows) or f"tell-tale {WORDS[visibility(s.candela)]}",
        )
        for s in seen(n)
        if s.path
    )


def _table(n: Net, id_: str, label: str) -> Table:
    rows = []
    for s in seen(n):
        said = [f"tell-tale: {WORDS[visibility(s.candela)]}", *(f"{side} lamps glow" for side in s.glows)]
        said += [f"by {', '.join(s.path)}"] if s.path else []
        cells = tuple(
            shown(v if v > LEAST_A else 0.0, AMPERE, "this combination solved") for v in (s.tell_a, *s.sides_a)
        )
        rows.append(Row(s.id, s.label, cells, "; ".join(said)))
    return Table(id_, label, ("Tell-tale", "Left lamps", "Right lamps"), tuple(rows))
