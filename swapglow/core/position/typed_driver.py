"""From a driver's texts to the driver, and from a ready-made lamp's to the lamp."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal, get_args

from swapglow.core.driver import DRIVERS, Driver, DriverKind, Load
from swapglow.core.driver.model import Place
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.module import Law, Module
from swapglow.core.position.field_error import FieldError, one_of, parse_field, single
from swapglow.core.position.typed_supply import Typed
from swapglow.core.quantities import AMPERE, OHM, SECOND, VOLT, Figure, Source, Unit

MOST_LEFT = 50
MOST_LOADS = 12
MOST_THERE = 100
_LOAD_EXAMPLES = "meter lamp 6V 0.1A max 6.6V; relay 470R; clock 20mA; capacitor max 10V"


@dataclass(frozen=True)
class TypedDriver:
    """A driver as typed.

    Attributes:
        drop: what it keeps while on; empty takes the kind's usual.
        details: texts by :class:`Detail` name, as many as the kind asks for.
    """

    kind: DriverKind = "direct"
    drop: Typed = field(default_factory=Typed)
    details: Mapping[str, Typed] = field(default_factory=dict)

    def text(self, name: str) -> str:
        """A detail's text without blanks around it; empty where nobody typed one."""
        return self.details[name].text.strip() if name in self.details else ""


def read_driver(typed: TypedDriver, lamp: Lamp | None) -> tuple[Driver, Figure]:
    """A driver, and what it keeps while on.

    Args:
        typed: the texts.
        lamp: the old lamp, which lamps left in the loop are taken to equal.

    Raises:
        FieldError: for the detail that cannot be read.
    """
    if typed.kind not in DRIVERS:
        raise FieldError("driver_kind", f'"{typed.kind}" is no kind of driver: {", ".join(DRIVERS)}.')
    about = DRIVERS[typed.kind]
    keeps = about.keeps
    drop = Figure(keeps[1], Source.ASSUMED, "common practice" if keeps[1] else "")
    if not typed.drop.empty:
        read = parse_field("driver_drop", typed.drop.text, VOLT, minimum=0)
        keeps = read.low, read.usual, read.high
        drop = Figure(read.usual, typed.drop.source, typed.drop.note)
    asked = {d.id for d in about.details}
    # A driver that was made another kind keeps what was typed; only what its kind asks for counts.
    texts = TypedDriver(typed.kind, typed.drop, {k: v for k, v in typed.details.items() if k in asked})
    return _driver(texts, lamp, keeps), drop


def _driver(t: TypedDriver, lamp: Lamp | None, keeps: tuple[float, float, float]) -> Driver:
    trip = t.details.get("trip", Typed())
    pulse, period = _value(t, "pulse", SECOND), _value(t, "period", SECOND)
    if pulse and period and pulse >= period:
        raise FieldError("pulse", "A pulse must be shorter than the time between pulses.")
    return Driver(
        kind=t.kind,
        keep_warm_ohm=_value(t, "keep_warm", OHM),
        leak_a=_value(t, "leak", AMPERE, above=None) or 0.0,
        hangs_on=t.text("hangs_on"),
        others=_left(t, lamp),
        changed=one_of("changed", t.text("changed") or "no", ("yes", "no")) == "yes",
        dropper_ohm=_value(t, "dropper", OHM) or 0.0,
        loads=read_loads(t.text("loads")),
        counts=one_of("counts", t.text("counts") or "yes", ("yes", "no")) == "yes",
        trip=None
        if trip.empty
        else Figure(single("trip", trip.text, AMPERE, above=0), trip.source, trip.note),
        rest_a=_value(t, "rest", AMPERE, above=None) or 0.0,
        rate=_rate(t.text("rate")),
        duty=_share("duty", t.text("duty"), 0.5),
        place=one_of("place", t.text("place") or "unknown", get_args(Place)),  # type: ignore[arg-type]
        there=_count("there", t.text("there") or "1", MOST_THERE),
        still_fast=one_of("still_fast", t.text("still_fast"), ("", "yes", "no")),  # type: ignore[arg-type]
        pulse_s=pulse or 0.0,
        period_s=period or 0.0,
        pulse_ohm=_value(t, "pulse_source", OHM, above=None) or 0.0,
        keeps=keeps,
    )


def _value(t: TypedDriver, name: str, unit: Unit, above: float | None = 0) -> float | None:
    text = t.text(name)
    if not text:
        return None
    return single(name, text, unit, above=above, minimum=0 if above is None else None)


def _count(name: str, text: str, most: int) -> int:
    if not text.isdecimal() or not 1 <= int(text) <= most:
        raise FieldError(name, f'"{text}" is no count: a whole number, 1 to {most}.')
    return int(text)


def _share(name: str, text: str, usual: float) -> float:
    """ "50 %", "50", ".5" """
    if not text:
        return usual
    bare = text.replace("%", "").replace(",", ".").strip()
    try:
        value = float(bare)
    except ValueError:
        raise FieldError(name, f'"{text}" is no share: 50 %, or 0.5.') from None
    share = value / 100 if "%" in text or value > 1 else value
    if not 0 < share <= 1:
        raise FieldError(name, f'"{text}" is no share: more than 0 and up to 100 %.')
    return share


def _rate(text: str) -> float | None:
    if not text:
        return None
    try:
        rate = float(text.replace(",", "."))
    except ValueError:
        raise FieldError("rate", f'"{text}" is no number of flashes a minute: 85.') from None
    if not 1 <= rate <= 1000:
        raise FieldError("rate", "Flashes a minute lie between 1 and 1000.")
    return rate


def _left(t: TypedDriver, lamp: Lamp | None) -> tuple[Lamp, ...]:
    if t.kind != "series_lamps":
        return ()
    count = _count("others", t.text("others") or "1", MOST_LEFT)
    volts = _value(t, "other_volts", VOLT) or (lamp.volts if lamp else None)
    amps = _value(t, "other_amps", AMPERE) or (lamp.amps if lamp else None)
    if volts is None or amps is None:
        return ()  # A finding asks for it: nothing else is lost by not knowing it yet.
    candela = lamp.candela if lamp and (volts, amps) == (lamp.volts, lamp.amps) else None
    return (Lamp("left", "Lamp left in place", volts, amps, candela, ""),) * count


_MOST = re.compile(r"\bmax\.?\s+(?P<most>\S+)\s*$", re.IGNORECASE)


def read_loads(text: str) -> tuple[Load, ...]:
    """What else a shared feed feeds, one a line or parted by semicolons.

    Each is a name, then ohms, or a lamp's volts and amps, or a steady current, then perhaps
    "max" and the most volts it may see.

    Raises:
        FieldError: a line says nothing that can be reckoned with.
    """
    lines = [part.strip() for part in re.split(r"[;\n]", text) if part.strip()]
    if len(lines) > MOST_LOADS:
        raise FieldError(
            "loads", f"{len(lines)} loads are more than the {MOST_LOADS} that one feed may have."
        )
    return tuple(_load(line) for line in lines)


def _load(line: str) -> Load:
    rest, most = line, None
    found = _MOST.search(line)
    if found:
        most = single("loads", found["most"], VOLT, above=0)
        rest = line[: found.start()].strip()
    words = rest.split()
    lamp = ohms = amps = None
    if len(words) > 2 and (v := _try(words[-2], VOLT)) and (a := _try(words[-1], AMPERE)):
        lamp, words = Lamp("load", "", v, a, None, ""), words[:-2]
    elif len(words) > 1 and (a := _try(words[-1], AMPERE)):
        amps, words = a, words[:-1]
    elif len(words) > 1 and (r := _try(words[-1], OHM)):
        ohms, words = r, words[:-1]
    elif most is None:
        raise FieldError("loads", f'"{line}" says nothing to reckon with. Write like {_LOAD_EXAMPLES}.')
    name = " ".join(words).rstrip(":,")
    if lamp is not None:
        lamp = Lamp("load", name, lamp.volts, lamp.amps, None, "")
    return Load(name, ohms, lamp, amps, most)


def _try(word: str, unit: Unit) -> float | None:
    """A word as a quantity that names its unit, or None: bare numbers belong to names."""
    if not any(c.isalpha() or c == "Ω" for c in word) or (not word[0].isdigit() and word[0] != "."):
        return None
    try:
        return single("loads", word, unit, above=0)
    except FieldError:
        return None


@dataclass(frozen=True)
class TypedModule:
    """A ready-made LED lamp as typed; without ``amps`` there is none."""

    amps: str = ""
    law: str = "resistor"
    polarised: str = "yes"
    throttle: str = ""
    after: str = ""
    candela: str = ""


def read_module(typed: TypedModule, band: tuple[float, float] | None) -> Module | None:
    """The ready-made lamp, or None where the position has LEDs of its own.

    Raises:
        FieldError: for ``module_amps``, ``module_law``, ``module_throttle``, ``module_after`` or ``band``.
    """
    if not typed.amps.strip():
        return None
    amps = single("module_amps", typed.amps, AMPERE, above=0)
    if band is None:
        raise FieldError("band", "A ready-made lamp needs its voltage band, like 10-15V.")
    law: Literal["resistor", "current", "power"] = one_of("module_law", typed.law, get_args(Law))  # type: ignore[assignment]
    polarised = one_of("module_polarised", typed.polarised, ("yes", "no")) == "yes"
    share = _share("module_throttle", typed.throttle, 1.0)
    after = single("module_after", typed.after, SECOND, above=0) if typed.after.strip() else 0.0
    return Module(*band, amps, law, polarised, share, after)
