"""From a rail's texts to its supply: the facts beyond three voltages."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal, get_args

from swapglow.core.parts.lamp import Lamp
from swapglow.core.position.field_error import FieldError, parse_field, single
from swapglow.core.position.model import PositionError, Rail
from swapglow.core.quantities import AMPERE, AMPERE_HOUR, HERTZ, OHM, VOLT, Figure, Parsed, Source, Unit, show
from swapglow.core.supply import KINDS, Supply, SupplyKind
from swapglow.core.supply.battery import Battery, Chemistry, chemistries
from swapglow.core.supply.kinds import (
    STATOR_HERTZ,
    USUAL_HERTZ,
    USUAL_PIN_A,
    VEHICLE_LEVELS,
)
from swapglow.core.supply.model import Grounded, source_resistance

MOST_CELLS = 400
# Above this no lamp hangs on a rail, and what does is no bench work.
HIGHEST_V = 1000.0


@dataclass(frozen=True)
class Typed:
    """A text with its source and a note (meter, condition, when)."""

    text: str = ""
    source: Source = Source.ASSUMED
    note: str = ""

    @property
    def empty(self) -> bool:
        """Nothing but blanks."""
        return not self.text.strip()


@dataclass(frozen=True)
class TypedRail:
    """A rail as typed; empty ends are taken from the usual reading's own range, or from its kind.

    Attributes:
        details: texts by :class:`Detail` name, as many as the kind asks for.
        fuse: rating of the fuse before it.
    """

    usual: Typed
    low: Typed = field(default_factory=Typed)
    high: Typed = field(default_factory=Typed)
    read_at: Literal["feed", "lamp"] = "feed"
    kind: SupplyKind = "regulated"
    details: Mapping[str, Typed] = field(default_factory=dict)
    fuse: str = ""

    def detail(self, name: str) -> Typed:
        """A further figure's text; empty where nobody typed one."""
        return self.details.get(name, Typed())


def read_rail(typed: TypedRail, lamp: Lamp | None = None) -> Rail:
    """A rail with its supply from its texts.

    Args:
        typed: the texts.
        lamp: the old lamp, whose current stands in where the load of a loaded reading is not typed.

    Raises:
        FieldError: for the field that cannot be read, or ends that do not rise.
    """
    if typed.kind not in KINDS:
        raise FieldError("kind", f'"{typed.kind}" is no kind of supply: {", ".join(KINDS)}.')
    for name in typed.details:
        if name not in {d.id for d in KINDS[typed.kind].details}:
            raise FieldError(name, f"{KINDS[typed.kind].label} asks for no such figure.")
    cells = _cells(typed)
    low, usual, high, known = _levels(typed, cells)
    supply = _supply(typed, (low.value, usual.value, high.value), lamp, cells)
    try:
        return Rail(low, usual, high, typed.read_at, known, supply)
    except PositionError as problem:
        raise FieldError("usual", str(problem)) from None


def _levels(typed: TypedRail, cells: "tuple[Chemistry, int] | None") -> tuple[Figure, Figure, Figure, bool]:
    usual_text = typed.usual
    stand_in: tuple[float, float] | None = None
    kind = KINDS[typed.kind]
    if typed.kind == "vehicle":
        rest, usual_v, charging, _ = VEHICLE_LEVELS[_system(typed)]
        stand_in = rest, charging
        if usual_text.empty:
            usual_text = Typed(show(usual_v, VOLT, 4), Source.ASSUMED, "common practice")
    elif cells is not None:
        chemistry, count = cells
        stand_in = chemistry.volts[-1] * count, chemistry.volts[0] * count
        if usual_text.empty:
            usual_text = Typed(show(chemistry.volts[5] * count, VOLT, 4), Source.ASSUMED, chemistry.label)
    _check_kind(typed)
    usual = parse_field("usual", usual_text.text, VOLT, above=0)
    if stand_in is None and kind.low_share and kind.high_share:
        stand_in = usual.usual * kind.low_share, usual.usual * kind.high_share
    low = _end("low", typed.low, usual, usual.low, usual_text, stand_in and stand_in[0])
    high = _end("high", typed.high, usual, usual.high, usual_text, stand_in and stand_in[1])
    centre = Figure(usual.usual, usual_text.source, usual_text.note)
    known = (
        usual.spread != "none" or not typed.low.empty or not typed.high.empty or stand_in is not None
    )  # fmt: skip
    if max(high.value, centre.value) > HIGHEST_V:
        raise FieldError("usual", f"{show(max(high.value, centre.value), VOLT)} is no lamp's rail: up to "
                         f"{show(HIGHEST_V, VOLT)} is taken here.")  # fmt: skip
    if low.value > centre.value:
        raise FieldError("low", f"The lowest, {show(low.value, VOLT)}, is above the usual "
                         f"{show(centre.value, VOLT)}.")  # fmt: skip
    if high.value < centre.value:
        raise FieldError("high", f"The highest, {show(high.value, VOLT)}, is below the usual "
                         f"{show(centre.value, VOLT)}.")  # fmt: skip
    return low, centre, high, known


def _end(name: str, typed: Typed, usual: Parsed, own: float, usual_text: Typed,
         stand_in: float | None) -> Figure:  # fmt: skip
    if not typed.empty:
        return Figure(single(name, typed.text, VOLT, above=0), typed.source, typed.note)
    if usual.spread != "none":
        return Figure(own, usual_text.source, f"from {usual_text.text}")
    if stand_in is None:
        # One value stands for all: nobody has read this end.
        return Figure(own, Source.ASSUMED, "same as usual")
    value = min(stand_in, usual.usual) if name == "low" else max(stand_in, usual.usual)
    return Figure(value, Source.ASSUMED, "common practice")


def _check_kind(typed: TypedRail) -> None:
    """AC typed on a DC rail, or the other way round, is a slip or the wrong kind."""
    flow = KINDS[typed.kind].flow
    for name, text in (("usual", typed.usual), ("low", typed.low), ("high", typed.high)):
        if text.empty:
            continue
        said = parse_field(name, text.text, VOLT, above=0).kind
        if said == "ac" and flow == "dc":
            raise FieldError(
                name, f'"{text.text}" is AC. This rail is DC: type its DC reading, like 24V, or make it '
                "an AC winding.",
            )  # fmt: skip
        if said == "dc" and flow == "sine":
            raise FieldError(
                name, f'"{text.text}" is DC. This rail is AC: type its RMS reading, like 12Vac, or make '
                "it a DC rail.",
            )  # fmt: skip


def _system(typed: TypedRail) -> str:
    text = typed.detail("system").text.strip().upper().removesuffix("V").strip() or "12"
    if text not in VEHICLE_LEVELS:
        raise FieldError("system", f'"{text}" is no vehicle system: 6, 12 or 24.')
    return text


def _cells(typed: TypedRail) -> tuple[Chemistry, int] | None:
    if typed.kind != "battery":
        return None
    key = typed.detail("chemistry").text.strip() or "alkaline-aa"
    if key not in chemistries():
        raise FieldError("chemistry", f'There is no cell "{key}": {", ".join(chemistries())}.')
    text = typed.detail("cells").text.strip() or "1"
    if not text.isdecimal() or not 1 <= int(text) <= MOST_CELLS:
        raise FieldError("cells", f'"{text}" is no number of cells: 1 to {MOST_CELLS}.')
    return chemistries()[key], int(text)


def _figure(typed: TypedRail, name: str, unit: Unit) -> Figure | None:
    text = typed.detail(name)
    if text.empty:
        return None
    return Figure(single(name, text.text, unit, above=0), text.source, text.note)


def _supply(typed: TypedRail, volts: tuple[float, float, float], lamp: Lamp | None,
            cells: tuple[Chemistry, int] | None) -> Supply:  # fmt: skip
    kind = typed.kind
    fuse = single("fuse", typed.fuse, AMPERE, above=0) if typed.fuse.strip() else None
    source, lift = _behind(typed, volts[1], lamp)
    hertz, hertz_source = _hertz(typed, volts)
    battery = crank = None
    system = ""
    if cells is not None:
        chemistry, count = cells
        capacity = _figure(typed, "capacity", AMPERE_HOUR)
        battery = Battery(
            chemistry, count, capacity.value if capacity else chemistry.capacity_ah, volts[2], volts[0]
        )
        source = _figure(typed, "source", OHM) or Figure(
            chemistry.ohm * count, Source.ASSUMED, chemistry.label
        )
    if kind == "vehicle":
        system = _system(typed)
        crank = _figure(typed, "crank", VOLT) or Figure(VEHICLE_LEVELS[system][3], Source.ASSUMED)
    pin = None
    if kind == "logic":
        pin = _figure(typed, "pin", AMPERE) or Figure(USUAL_PIN_A, Source.ASSUMED, "a sane budget")
    grounded = typed.detail("grounded").text.strip().lower() or "unknown"
    if grounded not in get_args(Grounded):
        raise FieldError("grounded", f'"{grounded}" is none of: yes, no, unknown.')
    return Supply(
        kind, source, lift, hertz, hertz_source, system, crank, battery, _figure(typed, "trip", AMPERE),
        pin=pin, grounded=grounded, fuse_a=fuse,  # type: ignore[arg-type]
    )  # fmt: skip


def _behind(typed: TypedRail, loaded: float, lamp: Lamp | None) -> tuple[Figure, float]:
    """Source resistance and the open voltage over the one read."""
    none = Figure(0.0, Source.ASSUMED)
    if typed.kind in ("logic", "sense"):
        return _figure(typed, "source", OHM) or none, 1.0
    opened = _figure(typed, "open", VOLT) if typed.kind in ("unregulated", "winding") else None
    if opened is None:
        return none, 1.0
    load = _figure(typed, "load", AMPERE)
    amps = load or (Figure(lamp.amps_at(loaded), Source.MARKED, "the old lamp's") if lamp else None)
    if opened.value < loaded:
        raise FieldError(
            "open", f"The open reading, {show(opened.value, VOLT)}, is under the usual loaded one, "
            f"{show(loaded, VOLT)}: they are exchanged, or the lamp was out both times.",
        )  # fmt: skip
    lift = opened.value / loaded
    if amps is None:
        # The sag is known but not what made it: the LED, a lighter load, is taken to see the open volts.
        return none, lift
    ohms = source_resistance(opened.value, loaded, amps.value)
    inked = Source.COMPUTED if not (opened.source.is_pencil or amps.source.is_pencil) else Source.ASSUMED
    note = f"({show(opened.value, VOLT)} − {show(loaded, VOLT)}) ÷ {show(amps.value, AMPERE)}"
    return Figure(ohms, inked, note), lift


def _hertz(typed: TypedRail, volts: tuple[float, float, float]) -> tuple[tuple[float, float, float], Source]:
    if KINDS[typed.kind].flow != "sine":
        return (0.0, 0.0, 0.0), Source.ASSUMED
    usual = _figure(typed, "hertz", HERTZ)
    centre = usual.value if usual else (STATOR_HERTZ if typed.kind == "stator" else USUAL_HERTZ)
    source = usual.source if usual else Source.ASSUMED
    if typed.kind != "stator":
        return (centre, centre, centre), source
    # Volts and frequency of a stator rise together with its speed.
    low, high = _figure(typed, "hertz_low", HERTZ), _figure(typed, "hertz_high", HERTZ)
    found = (
        low.value if low else centre * volts[0] / volts[1],
        centre,
        high.value if high else centre * volts[2] / volts[1],
    )
    if not found[0] <= found[1] <= found[2]:
        raise FieldError("hertz", "Frequencies must rise from idle to full speed, as the volts do.")
    return found, source
