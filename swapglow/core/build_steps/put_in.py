"""The parts of a lamp's circuit as they are put in: an entry for each part in the hand, and which way round it goes."""

from collections.abc import Iterable
from dataclasses import dataclass

from swapglow.core.design.board import Board, board_of
from swapglow.core.design.position import Position
from swapglow.core.parts.resistor import rating_text
from swapglow.core.quantities import OHM, show

# How the names of a string's LEDs begin in the netlist, and those of all that one ready-made lamp has inside.
_LEDS = tuple(f"D{k}" for k in range(1, 10))
_INSIDE = (*_LEDS, "Rinside", "Dinner", "Vkept", "Vheld", "Iheld", "Dheld")
_REGULATOR = ("Vkept", "Iregulator", "Vregulator", "Dregulator", "Iown", "Down")
_STRIPE = "stripe to minus"


@dataclass(frozen=True)
class PutIn:
    """A part, or parts that go in together.

    Attributes:
        id: of the step.
        what: what it is, in a word or two.
        act, why: what to do, and the reason or what to watch; "" for none.
        way_round: which way round, in a few words; "" where either is right.
        places: how the names begin that it has in the netlist.
        facts: its figures, with their labels.
        tick: whether one must stop here and look.
        chip, marked: whether an LED's way round is drawn beside it, and as which body.
        board: the board's own legend, where it was looked at.
    """

    id: str
    what: str
    act: str
    why: str
    places: tuple[str, ...]
    way_round: str = ""
    facts: tuple[tuple[str, str], ...] = ()
    tick: bool = False
    marked: bool = False
    chip: bool = False
    board: Board | None = None


def put_in(p: Position) -> Iterable[PutIn]:
    """All parts of a lamp's circuit, from the supply to the LED.

    Args:
        p: the swap, its strings' resistors worked out.

    Yields:
        Each part once; every element of the netlist that is not the equipment's own belongs to one of them.
    """
    yield from _rectifier(p)
    if p.rail.supply.alternates and p.rectification.reservoir:
        yield _capacitor("capacitor", "behind the rectifier")
    yield from _regulator(p)
    if not p.bare:
        yield _resistor(p)
    if p.series_diodes:
        many = "A silicon diode" if p.series_diodes == 1 else f"{p.series_diodes} silicon diodes"
        way = "ring towards the LED's long leg"
        yield PutIn("diodes", "Diodes in series", f"{many} before the LED, {way}.", "", ("Dseries",), way)
    yield from _light(p)
    if p.shunt_ohm is not None:
        yield _shunt(p, p.shunt_ohm)
    if p.swallows_pulses:
        yield _capacitor("pulse-capacitor", "across the LEDs, so that the check pulses pass them by")
    for k, b in enumerate(p.beside, 1):
        if b.ohm is None:
            continue
        name = b.name or f"String {k + 1}"
        facts = [("LED", f"{b.in_series} × {b.led.label}"), ("Resistor", show(b.ohm, OHM))]
        if b.rating_w is not None:
            facts.append(("Body", rating_text(b.rating_w)))
        if p.rail.supply.alternates and p.rectification.guard != "none":
            facts.append(("Across it", p.rectification.polarity))
        if b.diodes:
            facts.append(("Diodes in series", f"{b.diodes}, ring towards the LED's long leg"))
        if b.count > 1:
            facts.append(("Strings", f"{b.count}, each with its own resistor"))
        yield PutIn(
            f"beside-{k}",
            name,
            f"{name}: its LEDs with a resistor of their own, between the same two wires.",
            "One resistor for two strings lets one of them take most of the current.",
            tuple(f"{part}{k}" for part in ("Rbeside", "Dbeside", "Dblocked", "Dinverse", "Dturned")),
            facts=tuple(facts),
        )


def _capacitor(id_: str, where: str) -> PutIn:
    why = "Turned round it swells or bursts."
    return PutIn(id_, "Capacitor", f"The capacitor's stripe to minus, {where}.", why, ("C1",), _STRIPE, tick=True)


def _rectifier(p: Position) -> Iterable[PutIn]:
    way = p.rectification
    if not p.rail.supply.alternates or not way.diodes:
        return
    if way.folds:
        yield PutIn(
            "bridge",
            "Bridge",
            "The bridge first: its two ~ legs to the supply, either way round; + on to the LED, - to its return.",
            "Bodies differ in the order of their legs: go by the marks on this one.",
            ("Dbridge",),
            "~ and ~ to the supply, + towards the LED, - to the return",
            tick=True,
        )
        return
    ring = "ring towards the LED's long leg"
    act = f"The rectifier diode first, in the lead from the supply: its {ring}."
    yield PutIn("rectifier", "Rectifier diode", act, way.polarity, ("Drectifier",), ring, tick=True)


def _regulator(p: Position) -> Iterable[PutIn]:
    r = p.regulator
    if r is None:
        return
    tab = " Its tab is one of its pins: the sink is live and hot. Insulate it; off before it is touched."
    yield PutIn(
        "regulator",
        "Regulator",
        f"Regulator: {r.pins}, seen {r.view}.",
        f"Its pins from the solder side read the other way round.{tab if p.sink else ''}",
        _REGULATOR,
        f"{r.pins}, seen {r.view}",
        (("Capacitors", r.capacitors),),
    )


def _resistor(p: Position) -> PutIn:
    places = ("R1", "R2")
    if p.set_by_ohms:
        act = "The resistor between the regulator's output and its adjusting pin, and the LED on from there."
        return PutIn("set", "Resistor", act, "There it sets the current; in the LED's lead it would not.", _REGULATOR)
    if p.resistor_parts == 2:
        why = "If one of them touches the frame, the other still limits the current."
        return PutIn("lead", "Resistors", "One resistor in each lead.", why, places)
    own = "Where a wire is shared, in the lead that is this lamp's own." if p.common != "none" else ""
    return PutIn("lead", "Resistor", f"The resistor in the {p.lead} lead.", own, places)


def _light(p: Position) -> Iterable[PutIn]:
    """LEDs or ready-made lamp, and the guard diode across them."""
    way = p.rectification
    one_way = not p.rail.supply.alternates or way.folds
    if way.guard == "diode" and not one_way:
        ring = "ring to the LED's long leg"
        act = f"The guard diode across the LED, turned round: its {ring}."
        yield PutIn("guard", "Guard diode", act, "It takes the reverse volts that the LED cannot.", ("Dinverse",), ring)
    if p.module is not None and not p.module.polarised:
        # On a supply that alternates the bridge in the drawing is the lamp's own, where none of ours is before it.
        inside = _INSIDE if way.diodes else (*_INSIDE, "Dbridge")
        yield PutIn("module", "LED lamp", "The ready-made lamp into its holder, either way round.", "", inside)
        return
    seen = "Seen from the side you solder, left and right change places."
    if p.module is not None:
        act = "Plus to the lamp's own mark; turned round it stays dark."
        yield PutIn("polarity", "LED lamp", act, seen, _INSIDE, "plus to its own mark", tick=True)
        return
    if one_way:
        chip = "chip" in p.led.id
        act = "Plus to the long leg; the flat, and the larger part inside, are minus."
        round_ = "plus to the long leg"
        if chip:
            act = "Minus to the side of the mark: a bar, a green dot or a cut corner."
            round_ = "minus to the side of the mark"
        board = board_of(p.board_mark, p.board_side)
        pads = "" if board is None else f"the {board.minus} pad; the {board.minus_below} one from the side you solder"
        facts = (("Minus", pads),) if pads else ()
        yield PutIn("polarity", "LED", act, seen, _LEDS, round_, facts, tick=True, marked=True, chip=chip, board=board)
        return
    many = way.guard == "led" and not way.second_colour
    yield PutIn("led", "LED", "The LEDs." if many else "The LED.", way.polarity, (*_LEDS, "Dturned"), marked=True)


def _shunt(p: Position, ohm: float) -> PutIn:
    facts = [("Value", show(ohm, OHM))]
    if p.shunt_w is not None:
        facts.append(("Body", rating_text(p.shunt_w)))
    if p.shunt_w is not None and p.shunt_w >= 5:
        act = "Load resistor on bare metal, clear of wire, foam and plastic."
        why = "It gets as hot as the lamp that it replaces."
        return PutIn("load", "Load resistor", act, why, ("Rshunt",), facts=tuple(facts))
    across = "across the LED alone" if p.shunt_across == "leds" else "across LED and resistor together"
    why = "In another place it does not help."
    return PutIn("shunt", "Shunt", f"The shunt resistor {across}.", why, ("Rshunt",), facts=tuple(facts))
