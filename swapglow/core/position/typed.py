"""From what was typed to a position: texts in, values with provenance out.

Every refusal names the field it belongs to.
"""

from dataclasses import dataclass, field, replace
from typing import Literal

from swapglow.core.bench.meter import Reading, ReadingKind
from swapglow.core.parts import lamp as lamps
from swapglow.core.parts import led as leds
from swapglow.core.parts import preferred
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import Led, LedError
from swapglow.core.position.model import Changes, Position, PositionError, Rail
from swapglow.core.quantities import (
    AMPERE,
    CANDELA,
    OHM,
    VOLT,
    Figure,
    Parsed,
    QuantityError,
    Source,
    Unit,
    parse,
    show,
)


class FieldError(ValueError):
    """A refusal with the name of the field it belongs to."""

    def __init__(self, field: str, message: str) -> None:
        super().__init__(message)
        self.field = field
        self.message = message


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
    """A rail as typed; empty ends are taken from the usual reading's own range."""

    usual: Typed
    low: Typed = field(default_factory=Typed)
    high: Typed = field(default_factory=Typed)
    read_at: Literal["feed", "lamp"] = "feed"


@dataclass(frozen=True)
class TypedLamp:
    """The original lamp: a catalogue id, or own figures, or nothing known."""

    id: str = ""
    volts: str = ""
    amps: str = ""
    candela: str = ""
    base: str = ""


@dataclass(frozen=True)
class TypedPosition:
    """A position as typed. Empty ``vf`` and ``rated`` take the catalogue's figures."""

    rail: TypedRail
    led_id: str
    target: Typed
    vf: Typed = field(default_factory=Typed)
    rated: str = ""
    in_series: int = 1
    driver_drop: Typed = field(default_factory=Typed)
    ceiling: float = 0.5
    series: str = "E24"
    rounding: preferred.Rounding = "up"
    resistor: str = ""
    resistor_parts: int = 1
    resistor_source: Source = Source.MARKED
    tolerance: float | None = None
    rating_w: float | None = None
    lamp: TypedLamp = field(default_factory=TypedLamp)


def _parse(name: str, text: str, unit: Unit, *, above: float | None = None,
           minimum: float | None = None) -> Parsed:  # fmt: skip
    try:
        return parse(text, unit, above=above, minimum=minimum)
    except QuantityError as problem:
        raise FieldError(name, str(problem)) from None


def _single(name: str, text: str, unit: Unit, *, above: float | None = None,
            minimum: float | None = None) -> float:  # fmt: skip
    parsed = _parse(name, text, unit, above=above, minimum=minimum)
    if parsed.spread != "none":
        raise FieldError(name, f'"{text}" is a range; one value is wanted here.')
    return parsed.usual


def took(text: str, unit: Unit) -> str:
    """What a text was taken for: "13.2 V (12 V to 14.4 V)"; empty for an empty text.

    Raises:
        QuantityError: it cannot be read.
    """
    if not text.strip():
        return ""
    parsed = parse(text, unit)
    value = show(parsed.usual, unit, 4)
    if parsed.spread == "none":
        return value
    return f"{value} ({show(parsed.low, unit, 4)} to {show(parsed.high, unit, 4)})"


def read_rail(typed: TypedRail) -> Rail:
    """A rail from its texts.

    Raises:
        FieldError: ``usual``, ``low`` or ``high`` cannot be read, or they do not rise.
    """
    usual = _parse("usual", typed.usual.text, VOLT, above=0)
    for name, text in (("usual", typed.usual), ("low", typed.low), ("high", typed.high)):
        if not text.empty and _parse(name, text.text, VOLT, above=0).kind == "ac":
            raise FieldError(
                name, f'"{text.text}" is AC. This rail is steady DC: type its DC reading, like 24V.'
            )
    ends: list[Figure] = []
    for name, text, own in (("low", typed.low, usual.low), ("high", typed.high, usual.high)):
        if not text.empty:
            ends.append(Figure(_single(name, text.text, VOLT, above=0), text.source, text.note))
        elif usual.spread == "none":
            # One value stands for all: nobody has read this end.
            ends.append(Figure(own, Source.ASSUMED, "same as usual"))
        else:
            ends.append(Figure(own, typed.usual.source, f"from {typed.usual.text}"))
    known = usual.spread != "none" or not typed.low.empty or not typed.high.empty
    centre = Figure(usual.usual, typed.usual.source, typed.usual.note)
    if ends[0].value > centre.value:
        raise FieldError("low", f"The lowest, {show(ends[0].value, VOLT)}, is above the usual "
                         f"{show(centre.value, VOLT)}.")  # fmt: skip
    if ends[1].value < centre.value:
        raise FieldError("high", f"The highest, {show(ends[1].value, VOLT)}, is below the usual "
                         f"{show(centre.value, VOLT)}.")  # fmt: skip
    return Rail(ends[0], centre, ends[1], typed.read_at, known)


def read_led(led_id: str, vf: Typed, rated: str) -> tuple[Led, Source]:
    """The LED: a catalogue kind, with the user's own Vf range and rated current where typed.

    Raises:
        FieldError: for ``led_id``, ``vf`` or ``rated``.
    """
    base = leds.catalogue().get(led_id)
    if base is None and led_id:
        raise FieldError("led_id", f'There is no LED "{led_id}" in the catalogue.')
    amps = _single("rated", rated, AMPERE, above=0) if rated.strip() else None
    if vf.empty:
        if base is None:
            raise FieldError("led_id", "Pick an LED, or type a forward voltage like 1.9-2.3V.")
        return (base if amps is None else replace(base, rated_a=amps)), Source.ASSUMED
    volts = _parse("vf", vf.text, VOLT, above=0)
    kind = base or leds.kind_of(volts.usual)
    if base is None:
        kind = replace(kind, id="own", label="Own LED")
    try:
        made = leds.with_range(kind, volts.low, volts.usual, volts.high, amps or kind.rated_a)
    except LedError as problem:
        raise FieldError("vf", str(problem)) from None
    return made, vf.source


def read_lamp(typed: TypedLamp) -> Lamp | None:
    """The original lamp, or None where nothing is known of it.

    Raises:
        FieldError: for ``lamp_id``, ``lamp_volts``, ``lamp_amps`` or ``lamp_candela``.
    """
    if typed.id and typed.id != "own":
        found = lamps.catalogue().get(typed.id)
        if found is None:
            raise FieldError("lamp_id", f'There is no lamp "{typed.id}" in the catalogue.')
        return found
    if typed.id != "own":
        return None
    volts = _single("lamp_volts", typed.volts, VOLT, above=0)
    amps = _single("lamp_amps", typed.amps, AMPERE, above=0)
    candela = (
        _single("lamp_candela", typed.candela, CANDELA, above=0)
        if typed.candela.strip()
        else lamps.estimate_candela(volts, amps)
    )
    return Lamp("own", "Own lamp", volts, amps, candela, typed.base)


def read_position(typed: TypedPosition) -> Position:
    """A position from its texts.

    Raises:
        FieldError: with the field and what would be accepted.
    """
    rail = read_rail(typed.rail)
    led, led_source = read_led(typed.led_id, typed.vf, typed.rated)
    drop = Figure(0.0, typed.driver_drop.source)
    if not typed.driver_drop.empty:
        value = _single("driver_drop", typed.driver_drop.text, VOLT, minimum=0)
        drop = Figure(value, typed.driver_drop.source, typed.driver_drop.note)
    own = _single("resistor", typed.resistor, OHM, above=0) if typed.resistor.strip() else None
    if typed.series not in preferred.USUAL_TOLERANCE:
        raise FieldError("series", f'"{typed.series}" is no preferred series. Use E3 to E192.')
    if typed.target.empty:
        raise FieldError("target", f"Type the drive wanted, like {AMPERE.examples}.")
    target = _single("target", typed.target.text, AMPERE, above=0)
    tolerance = typed.tolerance
    try:
        return Position(
            rail=rail,
            led=led,
            target=Figure(target, typed.target.source),
            in_series=typed.in_series,
            driver_drop=drop,
            led_source=led_source,
            ceiling=typed.ceiling,
            series=typed.series,
            rounding=typed.rounding,
            resistor_ohm=own,
            resistor_parts=typed.resistor_parts,
            resistor_source=typed.resistor_source,
            resistor_tolerance=(preferred.USUAL_TOLERANCE[typed.series] if tolerance is None else tolerance),
            rating_w=typed.rating_w,
            lamp=read_lamp(typed.lamp),
        )
    except PositionError as problem:
        raise FieldError(_field_of(str(problem)), str(problem)) from None


def _field_of(message: str) -> str:
    for word, name in (("series", "in_series"), ("ceiling", "ceiling"), ("tolerance", "tolerance"),
                       ("rating", "rating_w"), ("resistor", "resistor")):  # fmt: skip
        if word in message:
            return name
    return "position"


def read_reading(id_: str, kind: ReadingKind, text: str, burden: str, note: str) -> Reading:
    """A reading after the swap from its texts.

    Raises:
        FieldError: for ``text`` or ``burden``.
    """
    value = _single("text", text, AMPERE if kind == "current" else VOLT, minimum=0)
    ohm = _single("burden", burden, OHM, minimum=0) if burden.strip() else 0.0
    return Reading(id_, kind, value, ohm if kind == "current" else 0.0, note)


def typed_changes(changes: Changes) -> dict[str, object]:
    """A remedy's changes as the texts and numbers a record keeps.

    ``resistor_ohm`` becomes the text of ``resistor``, ``target_a`` that of ``target``; another LED
    drops the old one's own forward voltage and rating.
    """
    out: dict[str, object] = {}
    for name, value in changes.items():
        if name == "resistor_ohm":
            out["resistor"] = "" if value is None else show(float(value), OHM, 6)
        elif name == "target_a" and value is not None:
            out["target"] = {"text": show(float(value), AMPERE, 4), "source": "computed", "note": ""}
        elif name == "led_id":
            out |= {"led_id": value, "vf": {"text": "", "source": "assumed", "note": ""}, "rated": ""}
        elif name in ("resistor_parts", "in_series", "ceiling", "rating_w", "rounding", "series"):
            out[name] = value
        else:
            raise FieldError(name, f'A position has no "{name}" to change.')
    return out
