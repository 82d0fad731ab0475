"""Find: lamps, items and parts by words and by values, "3k9 at 24 V"."""

from dataclasses import dataclass
from typing import Any, Literal

from swapglow.core.intake.front_door import STARTS, Start
from swapglow.core.intake.troubles import TROUBLES, Trouble
from swapglow.core.quantities import OHM, VOLT, InputError, QuantityError
from swapglow.core.quantities.parse import parse
from swapglow.inputs.stock import PartInput
from swapglow.inputs.stock_to_core import label_of, part_of
from swapglow.records.items import with_lamps
from swapglow.records.lights import lights_of
from swapglow.records.models import BenchLed, StockPart
from swapglow.records.summaries import stored_of

FoundKind = Literal["lamp", "item", "part", "led", "circuit", "dim", "start", "trouble"]
MOST = 40
# A typed value is meant to two figures or three.
_SAME = 0.02
# Words that only join the others.
_JOINING = frozenset({"at", "on", "with", "and", "a", "the"})


@dataclass(frozen=True)
class Found:
    """Something found.

    Attributes:
        kind: what it is.
        id: its record's key, after its item's where it is a circuit or a fitted LED; or what is begun or looked into.
        name, line: what it is called, and where or what it is.
    """

    kind: FoundKind
    id: str
    name: str
    line: str


@dataclass(frozen=True)
class Asked:
    """A question: words, and values that must be met."""

    words: tuple[str, ...]
    ohms: tuple[float, ...]
    volts: tuple[float, ...]


def asked_of(text: str) -> Asked:
    """Read what is asked for.

    Args:
        text: as typed; a value with its unit is a value, "24 V" as well as "24V".

    Returns:
        Its parts.
    """
    tokens = text.replace(",", " ").split()
    words: list[str] = []
    ohms: list[float] = []
    volts: list[float] = []
    k = 0
    while k < len(tokens):
        pair = f"{tokens[k]} {tokens[k + 1]}" if k + 1 < len(tokens) else ""
        for word, used in ((pair, 2), (tokens[k], 1)):
            unit, value = _value(word)
            if value is not None:
                (ohms if unit is OHM else volts).append(value)
                k += used
                break
        else:
            if tokens[k].casefold() not in _JOINING:
                words.append(tokens[k].casefold())
            k += 1
    return Asked(tuple(words), tuple(ohms), tuple(volts))


def _value(word: str) -> tuple[Any, float | None]:
    """A value with its unit; a bare number is a word."""
    if not any(c.isdigit() for c in word) or not any(c.isalpha() or c == "Ω" for c in word):
        return None, None
    for unit in (OHM, VOLT):
        try:
            return unit, parse(word, unit, minimum=0).usual
        except QuantityError:
            continue
    return None, None


def find(text: str) -> list[Found]:
    """Everything that has all that is asked for.

    Args:
        text: as typed.

    Returns:
        Lamps first, then items, then parts; of each in its own order, so many at the most.
    """
    asked = asked_of(text)
    if not (asked.words or asked.ohms or asked.volts):
        return []
    lamps, items, parts = [], [], []
    for e, of_it in with_lamps():
        of_item = f"{e} {e.inputs.get('maker_model', '')} {e.inputs.get('owner', '')}".casefold()
        if _says(of_item + " " + e.inputs.get("notes", "").casefold(), asked) and not (asked.ohms or asked.volts):
            items.append(Found("item", str(e.pk), str(e), e.inputs.get("maker_model", "")))
        for light in lights_of(e.input):
            if _says(f"{of_item} {light.name} {light.line}".casefold(), asked) and not (asked.ohms or asked.volts):
                lamps.append(Found(light.what, f"{e.pk}/{light.id}", light.name, f"{e}, {light.line}"))
        for p in of_it:
            data = stored_of(p) or {}
            shown = data.get("shown", {})
            said = " ".join(
                (
                    of_item,
                    str(p),
                    p.inputs.get("notes", ""),
                    shown.get("rail", str(p.rail)),
                    shown.get("line", ""),
                    shown.get("next_act", ""),
                    p.inputs.get("stage", ""),
                    *(n["label"] for n in data.get("needs") or ()),
                )
            ).casefold()
            if _says(said, asked) and _meets(data, asked):
                lamps.append(Found("lamp", str(p.pk), str(p), f"{e}, {shown.get('rail', p.rail)}"))
    if not asked.volts:
        parts = [*_parts(asked), *_leds(asked)]
    return [*lamps[:MOST], *items[:MOST], *parts[:MOST], *_ways_in(asked)]


def _ways_in(asked: Asked) -> list[Found]:
    """Troubles and beginnings that a word speaks for: "hot", "string", "dimmer"."""
    if asked.ohms or asked.volts:
        return []
    troubles = [Found("trouble", t.id, t.label, "What is wrong?") for t in TROUBLES.values() if _heard(t, asked)]
    return [*troubles, *(Found("start", s.id, f"Add: {s.label}", s.line) for s in STARTS.values() if _heard(s, asked))]


def _heard(entry: Trouble | Start, asked: Asked) -> bool:
    """Whether each word asked for begins one of its own."""
    own = f"{entry.label} {entry.words}".casefold().replace(",", " ").split()
    return all(any(word.startswith(want) for word in own) for want in asked.words)


def _says(said: str, asked: Asked) -> bool:
    return all(word in said for word in asked.words)


def _near(has: float | None, want: float) -> bool:
    return has is not None and abs(has - want) <= _SAME * want


def _meets(data: dict[str, Any], asked: Asked) -> bool:
    ohms = [data.get("ohm"), *(n.get("ohm") for n in data.get("needs") or ())]
    return all(any(_near(o, want) for o in ohms) for want in asked.ohms) and all(
        _near(data.get("volts"), want) for want in asked.volts
    )


def _parts(asked: Asked) -> list[Found]:
    out = []
    for record in StockPart.objects.all():
        typed: PartInput = record.input
        label = label_of(typed)
        try:
            ohm = part_of(str(record.pk), typed).ohm
        except InputError:
            # It is found by its words, and can be mended then.
            ohm = None
        said = f"{label} {typed.kind} {typed.kept_in} {typed.lot}".casefold()
        if _says(said, asked) and all(_near(ohm, want) for want in asked.ohms):
            out.append(Found("part", str(record.pk), label, typed.kept_in))
    return out


def _leds(asked: Asked) -> list[Found]:
    if asked.ohms:
        return []
    return [
        Found("led", str(led.pk), led.input.name, led.input.kept_in)
        for led in BenchLed.objects.all()
        if _says(f"{led.input.name} {led.input.led_id} {led.input.kept_in} {led.input.lot}".casefold(), asked)
    ]
