"""A tell-tale between two feeds and no ground: every combination of switches solved, and where light sneaks to."""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Circuit, Dc, Diode, Element, Resistor, VoltageSource
from swapglow.core.engine.operating_point import OperatingPoint
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.ratings import led_current, led_reverse
from swapglow.core.fitted.worked import (
    LEAST_A,
    Fault,
    FlowPath,
    Judged,
    Row,
    Table,
    Way,
    Worked,
    gravest_first,
    picked,
)
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.network.filaments import Ohms, filament, settled
from swapglow.core.parts.lamp import Lamp, own_lamp
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.led_model import led_model
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.photometry.light_law import candela_at
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.quantities import AMPERE, OHM, VOLT, show, shown

VOLTS = Detail("volts", "Volts of a feed that is on", VOLT, "13.8V")
SIDE_V = Detail("side_volts", "Each side's lamps: volts", VOLT, "12V, as marked")
SIDE_A = Detail("side_amps", "Each side's lamps: amps together", AMPERE, "3.5A: two of 21 W", at="side_volts")
SIDE = Detail(
    "side", "Each side's lamps are", None, "", (("filament", "Filament lamps"), ("led", "LED lamps"))
)
LED = led_detail("LED of the tell-tale")
LED_OHM = Detail("ohm", "Its resistor", OHM, "680R", none="link")
Cure = Literal["none", "bridge", "ground"]
CURES: tuple[tuple[Cure, str], ...] = (
    ("none", "Between the feeds, one way round"),
    ("bridge", "Between the feeds, in a bridge"),
    ("ground", "Two diodes, and its own ground"),
)
CURE = Detail("cure", "How it is wired", None, "", CURES)

_ON_OHM, _OFF_OHM = 0.05, 1e9
# LED lamps of a side: behind their own resistors some 5 V of LEDs, drawing a twentieth of what filaments did (ours).
_LED_SIDE_V = 6.0
_LED_SHARE = 0.05
# A filament at less than this of its volts is dark to any eye (light goes with the volts to the power of 3.5).
_DARK_SHARE = 0.12
Feeds = tuple[bool, bool]
STATES: dict[Feeds, str] = {
    (False, False): "Both off", (True, False): "Left on", (False, True): "Right on", (True, True): "Both on",
}  # fmt: skip


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


def circuit(n: Net, feeds: Feeds, ohms: Ohms) -> Circuit:
    """The network with its switches so.

    Args:
        n: the network.
        feeds: whether left and right are on.
        ohms: filaments at rest, "Rleft" and "Rright"; not asked for where the sides are LED lamps.

    Returns:
        The circuit; the tell-tale's current is that of "Vtell".
    """
    parts: list[Element] = [VoltageSource("Vfeed", "feed", "0", Dc(n.volts))]
    lamp = rectifier("power").chain(1, REFERENCE_C)
    for side, on in zip(("left", "right"), feeds, strict=True):
        parts.append(Resistor(f"Rswitch_{side}", "feed", side, _ON_OHM if on else _OFF_OHM))
        if n.side_led:
            # LEDs in series of some volts together and their resistor, the part's own (a ready-made lamp).
            model = led_model(n.led, max(round(_LED_SIDE_V / n.led.vf_typ), 1))
            amps = n.side.amps * _LED_SHARE
            parts += [
                Resistor(f"R{side}", side, f"{side}_in", max((n.side.volts - _LED_SIDE_V) / amps, 1.0)),
                Diode(f"D{side}", f"{side}_in", "0", model),
            ]
        else:
            parts.append(Resistor(f"R{side}", side, "0", ohms[f"R{side}"]))
    # Turned round it blocks: an LED of its own conducts nothing that way under its five volts and less.
    if n.cure == "none":
        top, foot = "left", "right"
    elif n.cure == "bridge":
        top, foot = "plus", "minus"
        parts += [
            Diode("Dlp", "left", "plus", lamp), Diode("Drp", "right", "plus", lamp),
            Diode("Dml", "minus", "left", lamp), Diode("Dmr", "minus", "right", lamp),
        ]  # fmt: skip
    else:
        top, foot = "plus", "0"
        parts += [Diode("Dlp", "left", "plus", lamp), Diode("Drp", "right", "plus", lamp)]
    parts += [
        VoltageSource("Vtell", top, "tell", Dc(0.0)), Resistor("Rtell", "tell", "led", n.ohm),
        Diode("Dtell", "led", foot, led_model(n.led)),
    ]  # fmt: skip
    return Circuit(tuple(parts), celsius=REFERENCE_C, title=f"two feeds, {STATES[feeds]}")


@dataclass(frozen=True)
class Seen:
    """One state of the switches.

    Attributes:
        tell_a: the tell-tale's current.
        candela: its light.
        sides_a: each side's lamps'.
        glows: whether a side whose feed is off is seen all the same.
        path: what the tell-tale's current goes through in turn; none where none flows.
        back_v: what the tell-tale's LED stands in reverse.
    """

    tell_a: float
    candela: float
    sides_a: tuple[float, float]
    glows: tuple[bool, bool]
    path: tuple[str, ...]
    back_v: float


def solve(n: Net, feeds: Feeds) -> Seen:
    """Solve one state.

    Args:
        n: the network.
        feeds: whether left and right are on.

    Returns:
        What flows, and what should be dark and is not.

    Raises:
        NotConverged: it has no answer.
    """
    laws = {} if n.side_led else {"Rleft": filament(n.side), "Rright": filament(n.side)}
    point = settled(lambda ohms: circuit(n, feeds, ohms), laws, 1)
    tell = max(float(point.current("Vtell")[0]), 0.0)
    candela = candela_at(n.led, tell)
    sides = (float(point.current("Rleft")[0]), float(point.current("Rright")[0]))
    glows = tuple(
        _glows(n, point, side) and not on for side, on in zip(("left", "right"), feeds, strict=True)
    )
    back = max(-float(point.across("Dtell")[0]), 0.0)
    return Seen(tell, candela, sides, (glows[0], glows[1]), _path(n, feeds, candela), back)


def _glows(n: Net, point: OperatingPoint, side: str) -> bool:
    if n.side_led:
        amps = float(point.current(f"R{side}")[0])
        return visibility(candela_at(n.led, amps)) != "dark"
    return abs(float(point.voltage(side)[0])) > _DARK_SHARE * n.side.volts


def _path(n: Net, feeds: Feeds, candela: float) -> tuple[str, ...]:
    if visibility(candela) == "dark":
        return ()
    if n.cure == "ground":
        return ("feed", "diode", "tell-tale", "its own ground")
    on, off = ("left", "right") if feeds[0] else ("right", "left")
    return (f"{on} feed", "tell-tale", f"{off} lamps", "their ground")


class TwoFeeds(FittedKind):
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
    details = (VOLTS, SIDE_V, SIDE_A, SIDE, LED, LED_OHM, CURE)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """Every combination of the switches, what sneaks where, and the wiring that is right in all of them."""
        net = _net(typed)
        ways = _ways(net)
        way = picked(ways, chosen)
        faults = wrongs(net)
        after = net if way is None or not faults else replace(net, cure=way.changes[CURE.id])  # type: ignore[arg-type]  # a cure
        tables = [_table(net, "Every combination, as it is wired")]
        if after != net:
            tables.append(_table(after, f"The same, {dict(CURES)[after.cure].lower()}"))
        at_rest = {"Rleft": 1.0, "Rright": 1.0} if net.side_led else _at_rest(net)
        return Worked(
            line="Right in every combination of the switches." if not faults else f"Wrong: {faults[0]}",
            paths=_paths(net),
            tables=tuple(tables),
            ways=ways if faults else (),
            faults=(_GONE,),
            judged=_judged(net, faults),
            spice=write_deck(circuit(net, (True, False), at_rest)),
        )


KIND = TwoFeeds()

_GONE = Fault(
    "A lamp of one side is gone", "Between the feeds the tell-tale then stays dark for the other side."
)


def _at_rest(n: Net) -> dict[str, float]:
    """The filaments with the left feed on, Ω."""
    law = filament(n.side)
    point = settled(lambda ohms: circuit(n, (True, False), ohms), {"Rleft": law, "Rright": law}, 1)
    return {name: float(law(np.abs(point.across(name)))[0]) for name in ("Rleft", "Rright")}


def _net(typed: Details) -> Net:
    volts, side_v, side_a, ohm = typed.needed(VOLTS, SIDE_V, SIDE_A, LED_OHM)
    cure: Cure = typed.choice(CURE.id)  # type: ignore[assignment]  # one of its options
    side = own_lamp(side_v, side_a, None, "")
    return Net(volts, side, typed.choice(SIDE.id) == "led", catalogue()[typed.choice(LED.id)], ohm, cure)


def wrongs(n: Net) -> list[str]:
    """What is wrong with a wiring, over every combination of the switches.

    Args:
        n: the network.

    Returns:
        Sentences; none where the tell-tale is plain with one side on and dark with none, and no lamp glows that
        should be dark.
    """
    out = []
    for feeds, label in STATES.items():
        seen = solve(n, feeds)
        # With both on, as hazard lamps are, a tell-tale between them is dark by nature; with a ground it is lit.
        if feeds[0] != feeds[1] and visibility(seen.candela) != "lit_room":
            out.append(f"{label}: the tell-tale is {WORDS[visibility(seen.candela)]}.")
        if not any(feeds) and visibility(seen.candela) != "dark":
            out.append(f"{label}: the tell-tale glows.")
        over = (*led_current(n.led, seen.tell_a, label), *led_reverse(n.led, seen.back_v, label))
        out += [judged.message for judged in over]
        for side, glows in zip(("left", "right"), seen.glows, strict=True):
            if glows:
                out.append(f"{label}: the {side} lamps glow, by the {', '.join(seen.path) or 'tell-tale'}.")
    return out


def _ways(n: Net) -> tuple[Way, ...]:
    out = []
    for cure, label in CURES[1:]:
        if cure == n.cure:
            continue
        bad = wrongs(replace(n, cure=cure))
        tell = solve(replace(n, cure=cure), (True, False)).tell_a
        out.append(Way(
            label, f"{show(tell, AMPERE)} in the tell-tale with one side on.",
            shown(tell, AMPERE, "left on, solved"), "",
            bad[0] if bad else "", False, {CURE.id: cure},
        ))  # fmt: skip
    good = next((w for w in reversed(out) if not w.bars), None)
    return tuple(replace(w, advised=w is good) for w in out)


def _paths(n: Net) -> tuple[FlowPath, ...]:
    """Where the tell-tale's current returns, and whether that lights what should be dark."""
    out = []
    for feeds, name in STATES.items():
        seen = solve(n, feeds)
        if not seen.path:
            continue
        glows = [f"{side} lamps glow" for side, g in zip(("left", "right"), seen.glows, strict=True) if g]
        out.append(FlowPath(name, seen.path, not glows and any(feeds), shown(seen.tell_a, AMPERE, "solved"),
                            ", ".join(glows) or f"tell-tale {WORDS[visibility(seen.candela)]}"))  # fmt: skip
    return tuple(out)


def _table(n: Net, label: str) -> Table:
    rows = []
    for feeds, name in STATES.items():
        seen = solve(n, feeds)
        said = [f"tell-tale: {WORDS[visibility(seen.candela)]}"]
        said += [f"{side} lamps glow" for side, g in zip(("left", "right"), seen.glows, strict=True) if g]
        if seen.path:
            said.append(f"by {', '.join(seen.path)}")
        cells = tuple(shown(v if v > LEAST_A else 0.0, AMPERE, "this combination solved")
                      for v in (seen.tell_a, *seen.sides_a))  # fmt: skip
        rows.append(Row(name, cells, "; ".join(said)))
    return Table(label, ("Tell-tale", "Left lamps", "Right lamps"), tuple(rows))


def _judged(n: Net, bad: list[str]) -> tuple[Judged, ...]:
    out = [Judged("stop", text, "It is solved with every combination of the two switches.") for text in bad]
    if n.cure == "ground":
        out.append(Judged("note", "With both on it is lit, where the old lamp was dark.",
                          "A hazard switch shows on it now: say so on the card."))  # fmt: skip
    return gravest_first(out)
