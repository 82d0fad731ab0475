"""A lamp that warms a place: kelvin lost with an LED, the room's dew point, and the resistor that warms instead."""

import math
from dataclasses import dataclass
from typing import Literal

from swapglow.core.circuits.kind import CircuitKind, Job, Judged
from swapglow.core.circuits.result import CircuitResult, Figure, Option, Row, Table
from swapglow.core.circuits.toolkit import asks, values
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.quantities import (
    CELSIUS,
    OHM,
    VOLT,
    WATT,
    InputError,
    Shown,
    Source,
    number_text,
    percent,
    show,
    shown,
)
from swapglow.core.quantities.inputs import read_single
from swapglow.core.values import preferred

Job_ = Literal["damp", "ice", "steady"]
JOBS: tuple[tuple[Job_, str], ...] = (
    ("damp", "It keeps damp off"),
    ("ice", "It keeps ice or snow off a lens"),
    ("steady", "It keeps something warm"),
)
JOB = Detail("job", "What its warmth is for", None, "", JOBS)
VOLTS = Detail("volts", "Volts it has, lit", VOLT, "11.8V")
LAMP_V, LAMP_A = asks.lamp_details("12V", "0.4A")
ROOM = Detail("room", "Air around it, coldest", CELSIUS, "4°C, -5 or 18")
WARM = Detail("warm", "The place it warms, lamp lit for an hour", CELSIUS, "19°C, in the same air")
DAMP = Detail("damp", "Damp of that air", None, "85 %, off a hygrometer; empty where damp does not matter")
# A body is slower than the air around it, and one that sees a clear night sky is some kelvin colder than air (3 to
# 8 K in books on micrometeorology, from memory; the others ours): how far it may lie under the air with no heat in it.
_UNDER_AIR_K = {"lags": 3.0, "sky": 6.0, "room": 1.0}
STANDS = Detail(
    "stands",
    "Where it stands",
    None,
    "",
    (
        ("lags", "Unheated: a case, a shed, a vehicle"),
        ("sky", "In the open, under the sky"),
        ("room", "In a heated room"),
    ),
)
LEAST_C = Detail("least", "The least that will do", CELSIUS, "45°C, a crystal's; empty: dew point, or freezing")
LED_W = Detail("led_watts", "What LED and resistor make in its place", WATT, "0.12W: its volts times its amps")

# A surface this much over the dew point is safe from what a hygrometer misses by (ours).
_OVER_DEW_K = 2.0
_OVER_ICE_C = 3.0
# Magnus, over water from −45 to 60 °C (Sonntag 1990, Z. Meteorol. 70, 340): hPa, and two figures.
_MAGNUS_B, _MAGNUS_C = 17.62, 243.12
_COLDEST, _HOTTEST = -60.0, 120.0


def dew_point(celsius: float, damp: float) -> float:
    """The temperature at which air would be full of its water, by Magnus's law (Sonntag 1990).

    Args:
        celsius: of the air.
        damp: relative humidity, more than 0 and up to 1.

    Returns:
        °C.
    """
    gamma = math.log(damp) + _MAGNUS_B * celsius / (_MAGNUS_C + celsius)
    return _MAGNUS_C * gamma / (_MAGNUS_B - gamma)


@dataclass(frozen=True)
class WarmedPlace:
    """What is warmed.

    Attributes:
        room, warm: °C, of the air, and of the place with the old lamp.
        lamp_w, led_w: heat in it, before and after.
        least: °C that will do; None where not stated.
        under_k: how far it may lie under the air with no heat in it, K.
        why: what the least is called.
        volts: that the lamp has, lit.
        job: what its warmth is for.
    """

    room: float
    warm: float
    lamp_w: float
    led_w: float
    least: float | None
    under_k: float
    why: str
    volts: float
    job: Job_

    @property
    def works_k(self) -> float:
        """What the old lamp made of it over the air, K."""
        return self.warm - self.room

    @property
    def unproven(self) -> bool:
        """Whether this air would do with no heat at all, so that it judges nothing."""
        return self.least is not None and self.worst(0.0) >= self.least

    def worst(self, watts: float) -> float:
        """The place with so many watts in it, at the moment when it lies furthest under the air, °C."""
        return self.at(watts) - self.under_k

    def at(self, watts: float) -> float:
        """The place with so many watts in it: its rise goes with them (Newton's law of cooling), °C."""
        return self.room + self.works_k * watts / self.lamp_w

    def wants(self) -> float:
        """Watts at which it is as warm as the least that will do, or as it was, W."""
        if self.least is None:
            return self.lamp_w
        return min(max((self.least + self.under_k - self.room) / self.works_k, 0.0), 1.0) * self.lamp_w


class WarmingLamp(CircuitKind[WarmedPlace]):
    """Cases against damp, lenses in snow, crystals, glue pots: the watts are the job."""

    id = "warmer"
    order = 18
    label = "Lamp that warms a place"
    looks = (
        "A lamp that is there for its heat: in a case, under a dial, or behind an outdoor lens. It stays lit when all "
        "else is off. An LED gives a tenth of its heat."
    )
    never = (
        "A resistor that warms is as hot as the lamp was: clear of wood, paper and plastic, and never without the "
        "fuse. On mains it is for someone qualified."
    )
    details = (JOB, VOLTS, LAMP_V, LAMP_A, ROOM, WARM, STANDS, DAMP, LEAST_C, LED_W)

    def case(self, typed: Details) -> WarmedPlace:
        """What is warmed, as typed."""
        volts, lamp_v, lamp_a = typed.needed(VOLTS, LAMP_V, LAMP_A)
        room, warm = _temperature(typed, ROOM), _temperature(typed, WARM)
        if warm <= room:
            raise InputError(WARM.id, f"{_c(warm)} is not over the air's {_c(room)}: then it warms nothing.")
        lamp_w = volts * asks.rated_lamp(lamp_v, lamp_a).amps_at(volts)
        led_w = typed.value(LED_W.id) or 0.0
        if led_w >= lamp_w:
            raise InputError(LED_W.id, f"{show(led_w, WATT)} is no less than the lamp's {show(lamp_w, WATT)}.")
        job: Job_ = typed.choice(JOB.id)  # type: ignore[assignment]  # one of its options
        least, why = _least(typed, job, room)
        under = 0.0 if job == "steady" else _UNDER_AIR_K[typed.choice(STANDS.id)]
        return WarmedPlace(room, warm, lamp_w, led_w, least, under, why, volts, job)

    def states(self, case: WarmedPlace) -> tuple[Judged, ...]:
        """Heat, and no circuit."""
        return ()

    def options(self, now: WarmedPlace, typed: Details, chosen: str) -> list[Option]:
        """Two resistors: one that gives back what is needed, and one that gives back all; next lower of E12."""
        if now.wants() <= now.led_w and not now.unproven:
            return []
        plans = [("all", "All of it", now.lamp_w - now.led_w)]
        if now.least is not None and now.led_w < now.wants() < now.lamp_w:
            plans.insert(0, ("needed", "What is needed", now.wants() - now.led_w))
        return [_option(now, *plan) for plan in plans]

    def report(self, job: Job[WarmedPlace]) -> CircuitResult:
        """Kelvin that are lost, what happens then, and the resistor that gives them back."""
        p = job.now
        after = p.at(p.led_w)
        line = f"{number_text(p.at(p.lamp_w) - after, 2)} K less warm: {_c(after)} where it was {_c(p.warm)}."
        figures = [
            Figure("lamp-heat", "Heat of the old lamp", shown(p.lamp_w, WATT, "its rating at these volts, P ∝ V^1.55")),
            Figure("led-heat", "Heat of the LED in its place", _led_heat(job.typed, p.led_w)),
            Figure("place", "The place", _degrees(after, "the old lamp's rise times the share of its watts")),
        ]
        if p.under_k:
            coldest = _degrees(p.worst(p.led_w), f"{p.under_k:g} K under that: {_LAGS}")
            figures.append(Figure("coldest", "At its coldest", coldest))
        if p.least is not None:
            line += f" {_big(p.why)} is {_c(p.least)}: {_verdict(p)}."
            figures.append(Figure("least", _big(p.why), _degrees(p.least, _origin(job.typed))))
        return CircuitResult(line=line, figures=tuple(figures), tables=(_table(p, job.options),), findings=_findings(p))


KIND = WarmingLamp()

_LAGS = "a surface lags the air, and sees a cold sky"


def _good(p: WarmedPlace) -> bool:
    return p.least is None or p.worst(p.led_w) >= p.least


def _verdict(p: WarmedPlace) -> str:
    """Whether it will do. Air in which a place with no heat in it would do judges nothing."""
    if not _good(p):
        return "too cold"
    return "in this air it would do with no heat at all" if p.unproven else "it will do"


def _c(celsius: float) -> str:
    return f"{number_text(celsius, 3)}\u00a0°C"


def _big(text: str) -> str:
    return text[0].upper() + text[1:]


def _led_heat(typed: Details, watts: float) -> Shown:
    """What the LED makes, from where it was typed; nothing, where nobody typed it."""
    typed_w = typed.figure(LED_W.id)
    if typed_w is None:
        return shown(watts, WATT, "nobody typed it: none is reckoned with", Source.ASSUMED)
    return shown(watts, WATT, typed_w.note or "as typed", typed_w.source)


def _degrees(celsius: float, origin: str) -> Shown:
    return Shown(celsius, number_text(celsius, 3), "°C", Source.COMPUTED, origin)


def _temperature(typed: Details, detail: Detail) -> float:
    if not typed.text(detail.id):
        raise InputError(detail.id, f"Type this too: {detail.label}, {detail.hint}.")
    value = read_single(detail.id, typed.text(detail.id), CELSIUS)
    if not _COLDEST <= value <= _HOTTEST:
        raise InputError(detail.id, f"{_c(value)} is out of range for air or a lamp: {_COLDEST:g} to {_HOTTEST:g} °C.")
    return value


def _origin(typed: Details) -> str:
    if typed.text(LEAST_C.id):
        return "as typed"
    return "Magnus's law (Sonntag 1990), and 2 K" if typed.text(DAMP.id) else "freezing, and 3 K"


def _least(typed: Details, job: Job_, room: float) -> tuple[float | None, str]:
    """The least that will do, °C, and what it is called."""
    if typed.text(LEAST_C.id):
        return _temperature(typed, LEAST_C), "the least that will do"
    if job == "damp":
        if not typed.text(DAMP.id):
            raise InputError(DAMP.id, "Type this too: the damp of that air, 85 %; or the least that will do.")
        return dew_point(room, typed.share(DAMP.id, 1.0)) + _OVER_DEW_K, "the dew point and 2 K"
    return (_OVER_ICE_C, "freezing and 3 K") if job == "ice" else (None, "")


def _option(p: WarmedPlace, id_: str, label: str, watts: float) -> Option:
    ohm = preferred.prefer(p.volts**2 / watts, "E12", "down")
    makes = p.volts**2 / ohm
    place = p.at(makes + p.led_w)
    body = values.body_text(makes, p.volts, max(place, 25.0)).replace(
        "no leaded body stands it", "no leaded body stands it: one on metal"
    )
    cold = p.least is not None and p.worst(makes + p.led_w) < p.least
    return Option(
        id_,
        f"{label}: {show(ohm, OHM)} where the lamp was",
        f"{body}. The place is then {_c(place)}.",
        shown(makes, WATT, "V²/R"),
        "heat",
        bars="still too cold: the old lamp was no warmer" if cold else "",
        advised=True,
    )


def _table(p: WarmedPlace, options: tuple[Option, ...]) -> Table:
    rows = [
        Row("old", "Old lamp", (shown(p.lamp_w, WATT, "its rating at these volts"), _degrees(p.warm, "as read"))),
        Row("led", "LED alone", (shown(p.led_w, WATT, "as typed"), _degrees(p.at(p.led_w), "by its watts"))),
    ]
    for o in options:
        watts = o.outcome.value + p.led_w
        rows.append(
            Row(
                o.id,
                f"LED, and {show(p.volts**2 / o.outcome.value, OHM)}",
                (shown(watts, WATT, "both"), _degrees(p.at(watts), "by its watts")),
            )
        )
    return Table("place", f"The place, at {show(p.volts, VOLT)}", ("Heat", "The place"), tuple(rows))


def _findings(p: WarmedPlace) -> tuple[Finding, ...]:
    out = []
    if not _good(p) and p.least is not None:
        then = {
            "damp": "Water settles on what it kept dry.",
            "ice": "It freezes over in the cold.",
            "steady": "What it kept steady drifts.",
        }[p.job]
        lag = f" That is {p.under_k:g} K under {_c(p.at(p.led_w))}: {_LAGS}." if p.under_k else ""
        out.append(
            Finding(
                "too-cold",
                "stop",
                f"{_c(p.worst(p.led_w))} is under {p.why}, {_c(p.least)}.",
                _c(p.worst(p.led_w)),
                _c(p.least),
                f"{then}{lag} A resistor gives it back.",
            )
        )
    elif p.unproven:
        out.append(
            Finding(
                "air-proves-nothing",
                "mind",
                "In this air the place needs no heat at all, so the reading proves nothing.",
                why="The lamp was there for a colder, damper day. Type that day's air, or give all of its heat back.",
            )
        )
    if p.least is not None and p.worst(p.lamp_w) < p.least:
        out.append(
            Finding(
                "old-too-cold",
                "mind",
                f"Even the old lamp left it at {_c(p.worst(p.lamp_w))}, under {_c(p.least)}.",
                why="Are the readings of the coldest, dampest day?",
            )
        )
    if p.least is None:
        out.append(
            Finding(
                "least-unknown",
                "mind",
                f"{percent(p.led_w / p.lamp_w)} of the heat is left. How much the place needs is not stated.",
                why="Type the least that is needed, or replace all of it.",
            )
        )
    out.append(
        Finding(
            "newton",
            "note",
            "Its rise is taken to go with the watts.",
            why="Newton's law of cooling: near enough within some tens of kelvin; read the place again after an hour.",
        )
    )
    return tuple(out)
