"""A charge indicator: the lamp that excites a generator, what an LED lets through, and the resistor for that job."""

from dataclasses import dataclass, replace
from typing import Literal

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Circuit, Dc, Diode, Element, Resistor, VoltageSource
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.ratings import led_current, led_reverse
from swapglow.core.fitted.second_jobs.stairs import stair
from swapglow.core.fitted.worked import (
    LEAST_A,
    BranchStair,
    Fault,
    Figure,
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
from swapglow.core.parts.lamp import CURRENT_EXPONENT, Lamp, own_lamp
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.led_model import led_model
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.parts.resistor import rating_to_fit, stands_text
from swapglow.core.photometry.light_law import candela_at
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.quantities import AMPERE, OHM, VOLT, WATT, InputError, Shown, percent, show, shown
from swapglow.core.values import preferred

BATTERY = Detail("rest_volts", "Battery, key on, engine still", VOLT, "12.6V")
RUNNING = Detail("running", "Battery, running", VOLT, "14.2V; empty takes an eighth more")
LAMP_V = Detail("lamp_volts", "The old lamp's volts", VOLT, "12V, as marked")
LAMP_A = Detail(
    "lamp_amps", "The old lamp's amps", AMPERE, "0.18A; a 2.2 W lamp of 12 V is 0.18A", at="lamp_volts"
)
READ = Detail(
    "read_amps", "Through the old lamp, key on, engine still", AMPERE, "180mA, meter in series with it"
)
FIELD = Detail(
    "field", "Or ohms from its generator side to ground: wound fields only", OHM, "8R, lamp out, plugs on"
)
NEEDS = Detail("needs", "What it needs to start", AMPERE, "150mA; empty takes what the old lamp gave")
LED = led_detail()
LED_OHM = Detail("ohm", "Its resistor", OHM, "1k", none="link")
BESIDE = Detail("beside", "Resistor beside it", OHM, "100R; empty for none", none="absent")
GUARD = Detail(
    "guard",
    "Diode before LED and resistor",
    None,
    "",
    (("no", "None"), ("yes", "One, its band to the generator")),
)

# A wound field has some ohms. More is a regulator's electronics, which an ohmmeter does not tell (common practice).
MOST_FIELD_OHM = 100.0
# What the key's wire feeds besides, key off: an ignition coil's primary (common practice: some 3 ohm).
_IGNITION_OHM = 3.0
# So much on the ignition's wire may keep an engine running (ours; coils fire down to some volts).
_RUNS_ON_V = 2.0

_OPEN = 1e9
# Under this share of what the old lamp gave a generator may not start (ours: batteries and residual fields differ).
ENOUGH = 0.9
# A blown diode leaves the generator's side so far under the battery (common practice: some volts).
_LOPSIDED_V = 3.0
State = Literal["still", "running", "no_field", "grounded", "lopsided", "coasting"]
STATES: dict[State, str] = {
    "still": "Key on, engine still: it should be lit", "running": "Running, charging: it should be dark",
    "no_field": "Key on, field wire open: dark tells the fault", "grounded": "Running, its wire on the frame",
    "lopsided": "Running, one of its diodes gone: the sides differ",
    "coasting": "Key off, generator still turning: nothing may flow back",
}  # fmt: skip


@dataclass(frozen=True)
class Dash:
    """What stands between battery and generator.

    Attributes:
        battery, running: V.
        field: Ω to ground, engine still.
        lamp: the old one; None where the LED is fitted.
        led, ohm: what is fitted instead.
        beside: across it, Ω; None for nothing.
        guard: whether a diode stands before LED and resistor.
    """

    battery: float
    running: float
    field: float
    lamp: Lamp | None
    led: Led
    ohm: float
    beside: float | None
    guard: bool = False


def circuit(d: Dash, state: State, ohms: Ohms) -> Circuit:
    """The loop in a state; the old lamp's filament as a resistor at rest.

    Args:
        d: what stands there.
        state: one of :data:`STATES`.
        ohms: the filament's, by the name "Rlamp".

    Returns:
        The circuit; the lamp's current is that of "Vlamp", the field's that of "Rfield".
    """
    runs = state in ("running", "grounded", "lopsided")
    volts = d.running if runs else d.battery
    feed: Element = VoltageSource("Vbat", "bat", "0", Dc(volts))
    if state == "coasting":
        feed = Resistor("Rignition", "bat", "0", _IGNITION_OHM)
    guarded = d.guard and d.lamp is None
    fed = "fed" if guarded else "bat"
    parts: list[Element] = [feed, VoltageSource("Vlamp", fed, "in", Dc(0.0))]
    if guarded:
        parts.append(Diode("Dguard", "bat", "fed", rectifier("power").model))
    if d.lamp is not None:
        parts.append(Resistor("Rlamp", "in", "gen", ohms["Rlamp"]))
    else:
        parts += [Resistor("Rled", "in", "led", d.ohm), Diode("Dled", "led", "gen", led_model(d.led))]
    if d.beside is not None:
        parts.append(Resistor("Rbeside", fed, "gen", d.beside))
    parts.append(Resistor("Rfield", "gen", "0", _OPEN if state == "no_field" else d.field))
    if state in ("running", "coasting"):
        parts.append(VoltageSource("Vgen", "gen", "0", Dc(d.running)))
    elif state == "lopsided":
        parts.append(VoltageSource("Vgen", "gen", "0", Dc(d.running - _LOPSIDED_V)))
    elif state == "grounded":
        parts.append(Resistor("Rshort", "gen", "0", 0.01))
    return Circuit(tuple(parts), celsius=REFERENCE_C, title=f"charge indicator, {state}")


@dataclass(frozen=True)
class Seen:
    """One state: what the lamp carries, what reaches the generator's side, and the light beside full.

    ``back_v`` is what the LED sees in reverse, ``key_v`` what stands on the key's wire.
    """

    lamp_a: float
    field_a: float
    across_v: float
    light: float
    back_v: float = 0.0
    key_v: float = 0.0


def solve(d: Dash, state: State) -> Seen:
    """Solve the loop in a state.

    Args:
        d: what stands there.
        state: one of :data:`STATES`.

    Returns:
        What flows; light beside the lamp's at its rating, or beside the LED's at its rated current.

    Raises:
        NotConverged: it has no answer.
    """
    laws = {} if d.lamp is None else {"Rlamp": filament(d.lamp)}
    point = settled(lambda ohms: circuit(d, state, ohms), laws, 1)
    amps, field = float(point.current("Vlamp")[0]), float(point.current("Rfield")[0])
    across = float(point.voltage("bat")[0] - point.voltage("gen")[0])
    if d.lamp is not None:
        light = (d.lamp.candela_at(abs(across)) or 0.0) / (d.lamp.candela or 1.0)
    else:
        light = candela_at(d.led, amps) / d.led.candela
    back = 0.0 if d.lamp is not None or d.guard else max(-float(point.across("Dled")[0]), 0.0)
    return Seen(amps, field, across, light, back, float(point.voltage("bat")[0]))


class ChargeLamp(FittedKind):
    """Vehicles, boats, stationary sets: the lamp between battery and generator."""

    id = "charge_lamp"
    order = 11
    label = "Charge indicator that excites"
    looks = (
        "One side of the lamp on the key's wire, the other on the generator, no ground. It lights with the key and "
        "goes out when the engine runs: its current is what wakes the generator."
    )
    never = (
        "Take no lamp out while it runs. Never disconnect the battery while the generator is turning. A resistor "
        "beside the lamp gets hot while its wire is on the frame: bare metal, clear of the loom."
    )
    details = (BATTERY, RUNNING, LAMP_V, LAMP_A, READ, FIELD, NEEDS, LED, LED_OHM, BESIDE, GUARD)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """What reaches the field before and after, in every state, and the resistor that gives it."""
        old, new = _dashes(typed)
        before, bare = solve(old, "still"), solve(replace(new, beside=None), "still")
        needs = typed.value(NEEDS.id) or before.field_a
        ways = _ways(new, needs, bare)
        fitted = new
        way = picked(ways, chosen)
        if way is not None and new.beside is None:
            fitted = replace(new, beside=typed_ohm(way))
        now = solve(new, "still")
        then = solve(fitted, "still")
        return Worked(
            line=_line(before, now, needs),
            figures=(
                Figure("To the field, old lamp", _amps(before.field_a)),
                Figure("To the field, as typed", _amps(now.field_a), None if fitted is new else _amps(then.field_a)),
            ),
            stairs=_stairs(old, fitted, before, then),
            tables=(_table(old, fitted),),
            ways=ways if new.beside is None else (),
            faults=_FAULTS,
            judged=_judged(new, fitted, now, needs),
            spice=write_deck(circuit(new, "still", {})),
        )  # fmt: skip


KIND = ChargeLamp()

_FAULTS = (
    Fault("The LED or its resistor is open", "With a resistor beside it the generator starts, and nothing tells."),
    Fault("The resistor beside it is open", "It is lit, and the generator may not start below higher revolutions."),
)  # fmt: skip


def typed_ohm(way: Way) -> float:
    """The resistor that a way fits, Ω."""
    return way.share.value


def _amps(value: float) -> Shown:
    return shown(value, AMPERE, "the loop solved, engine still")


def _dashes(typed: Details) -> tuple[Dash, Dash]:
    battery, volts, amps, ohm = typed.needed(BATTERY, LAMP_V, LAMP_A, LED_OHM)
    field = _field(typed, battery, own_lamp(volts, amps, None, ""))
    running = typed.value(RUNNING.id) or battery * 1.125
    led = catalogue()[typed.choice(LED.id)]
    lamp = own_lamp(volts, amps, None, "")
    old = Dash(battery, running, field, lamp, led, ohm, None)
    return old, replace(old, lamp=None, beside=typed.value(BESIDE.id), guard=typed.choice(GUARD.id) == "yes")


def _field(typed: Details, battery: float, lamp: Lamp) -> float:
    """What stands behind the lamp, Ω: by the current that the old lamp carries, or an ohmmeter where that can tell."""
    read, ohms = typed.value(READ.id), typed.value(FIELD.id)
    if read is not None:
        across = lamp.volts * (read / lamp.amps) ** (1 / CURRENT_EXPONENT)
        if across >= battery:
            raise InputError(
                READ.id, f"{show(read, AMPERE)} need {show(across, VOLT)} across this lamp; the battery gives "
                f"{show(battery, VOLT)}. Read it again, or the lamp's marking.",
            )  # fmt: skip
        return float((battery - across) / read)
    if ohms is None:
        raise InputError(
            READ.id, "Type the current through the old lamp with the key on and the engine still."
        )
    if ohms > MOST_FIELD_OHM:
        raise InputError(
            FIELD.id, f"{show(ohms, OHM)} is no wound field but a regulator's electronics, which an ohmmeter does not "
            "tell. Read the old lamp's current with the key on and the engine still.",
        )  # fmt: skip
    return ohms


def _line(before: Seen, now: Seen, needs: float) -> str:
    share = now.field_a / needs
    said = "enough" if share >= ENOUGH else "too little: it may not start"
    reach, gave = show(now.field_a, AMPERE), show(before.field_a, AMPERE)
    return f"{reach} reach the field where the old lamp gave {gave}: {said}."


def _beside(new: Dash, needs: float) -> float | None:
    """The largest preferred value with which enough reaches the field, by trying the network itself."""
    values = [float(v) for v in preferred.values("E12", 1.0, 10e3)]
    good = [v for v in values if solve(replace(new, beside=v), "still").field_a >= needs]
    return max(good, default=None)


def _ways(new: Dash, needs: float, bare: Seen) -> tuple[Way, ...]:
    if bare.field_a >= needs * ENOUGH:
        return ()
    ohm = _beside(new, needs)
    if ohm is None:
        return ()
    worst = new.running**2 / ohm
    rating = rating_to_fit(worst, new.running)
    held = new.battery**2 / (ohm + new.field) ** 2 * ohm
    body = stands_text(rating)
    return (Way(
        f"{show(ohm, OHM)} beside it",
        f"{show(worst, WATT)} while its wire is on the frame: {body}; {show(held, WATT)} with the key on.",
        shown(ohm, OHM, "the loop solved"),
        "The LED's light hardly changes.", "", True, {BESIDE.id: show(ohm, OHM)},
    ),)  # fmt: skip


def _stairs(old: Dash, new: Dash, before: Seen, then: Seen) -> tuple[BranchStair, ...]:
    """Key on and still: battery, lamp or LED, field."""
    origin = "the loop solved, engine still"
    drop = then.lamp_a * new.ohm
    return (
        stair("Old lamp", (("lamp", before.across_v), ("field", old.battery - before.across_v)), before.lamp_a,
              f"{percent(before.light)} of its light", origin),
        stair("LED", (("resistor", drop), ("LED", then.across_v - drop), ("field", new.battery - then.across_v)),
              then.lamp_a, WORDS[visibility(then.light * new.led.candela)], origin),
    )  # fmt: skip


def _table(old: Dash, new: Dash) -> Table:
    rows = []
    for state, label in STATES.items():
        was, now = solve(old, state), solve(new, state)
        candela = now.light * new.led.candela
        lit = (
            "dark"
            if was.light < 1e-4
            else f"{percent(was.light)} of its light"
            if was.light < 0.995
            else "bright"
        )
        words = f"old lamp {lit}; LED: {WORDS[visibility(candela)]}"
        flows = (v if v > LEAST_A else 0.0 for v in (was.lamp_a, now.lamp_a, now.field_a))
        cells = tuple(shown(v, AMPERE, "this state solved") for v in flows)
        rows.append(Row(label, cells, words))
    return Table("Every state, old lamp and new", ("Old lamp", "LED", "To the field"), tuple(rows))


def _judged(new: Dash, fitted: Dash, now: Seen, needs: float) -> tuple[Judged, ...]:
    out: list[Judged] = []
    for state, label in STATES.items():
        seen = solve(fitted, state)
        out += (*led_current(fitted.led, seen.lamp_a, label), *led_reverse(fitted.led, seen.back_v, label))
    coasting = solve(fitted, "coasting")
    if coasting.key_v > _RUNS_ON_V:
        out.append(Judged(
            "stop", f"With the key off the resistor feeds {show(coasting.key_v, VOLT)} back to the ignition.",
            "The engine may run on. A diode before LED and resistor lets nothing back.",
        ))  # fmt: skip
    if now.field_a < needs * ENOUGH:
        out.append(Judged(
            "stop", f"Only {show(now.field_a, AMPERE)} reach the field, of {show(needs, AMPERE)} that it needs.",
            "The generator does not wake, and the battery runs flat. A resistor beside the LED carries the rest.",
        ))  # fmt: skip
    if fitted.beside is not None:
        heat = fitted.running**2 / fitted.beside
        out.append(Judged(
            "mind", f"The resistor makes {show(heat, WATT)} while its wire touches the frame.",
            "Rate it for that, or the first fault in the wire burns the loom.",
        ))  # fmt: skip
    dim = solve(fitted, "lopsided")
    if dim.light > 0 and visibility(dim.light * fitted.led.candela) != "dark":
        out.append(Judged(
            "note", f"With a diode of the generator gone the LED carries {show(dim.lamp_a, AMPERE)}: "
            f"{WORDS[visibility(dim.light * fitted.led.candela)]}.",
            "The old lamp glowed faintly on such a fault; an LED tells it more plainly.",
        ))  # fmt: skip
    return gravest_first(out)
