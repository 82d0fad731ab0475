"""A charge indicator: the lamp that excites a generator, what an LED lets through, and the resistor for that job."""

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import LEAST_A, BranchStair, CircuitResult, Fault, Figure, Option, Row, Table
from swapglow.core.circuits.toolkit import asks, values
from swapglow.core.circuits.toolkit.solved import States, solve_states
from swapglow.core.circuits.toolkit.stairs import stair
from swapglow.core.circuits.toolkit.wiring import OFF_OHM, Wiring
from swapglow.core.engine.netlist import Resistor
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.lamp import CURRENT_EXPONENT, Lamp
from swapglow.core.parts.led import Led
from swapglow.core.photometry.light_law import candela_at
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.quantities import AMPERE, OHM, VOLT, WATT, InputError, percent, show, shown

BATTERY = Detail("rest_volts", "Battery, key on, engine still", VOLT, "12.6V")
RUNNING = Detail("running", "Battery, running", VOLT, "14.2V; empty takes an eighth more")
LAMP_V, LAMP_A = asks.lamp_details("12V", "0.18A; a 2.2 W lamp of 12 V is 0.18A")
READ = Detail("read_amps", "Through the old lamp, key on, engine still", AMPERE, "180mA, meter in series with it")
FIELD = Detail("field", "Or ohms from its generator side to ground: wound fields only", OHM, "8R, lamp out, plugs on")
NEEDS = Detail("needs", "What it needs to start", AMPERE, "150mA; empty takes what the old lamp gave")
LED_OHM = asks.led_ohm("1k")
BESIDE = Detail("beside", "Resistor beside it", OHM, "100R; empty for none", none="absent")
GUARD = Detail(
    "guard", "Diode before LED and resistor", None, "", (("no", "None"), ("yes", "One, its band to the generator"))
)

# A wound field has some ohms. More is a regulator's electronics, which an ohmmeter does not tell (common practice).
MOST_FIELD_OHM = 100.0
# What the key's wire feeds besides, key off: an ignition coil's primary (common practice: some 3 ohm).
_IGNITION_OHM = 3.0
# So much on the ignition's wire may keep an engine running (ours; coils fire down to some volts).
_RUNS_ON_V = 2.0
# Under this share of what the old lamp gave a generator may not start (ours: batteries and residual fields differ).
ENOUGH = 0.9
# A blown diode leaves the generator's side so far under the battery (common practice: some volts).
_LOPSIDED_V = 3.0
_FRAME_OHM = 0.01
# The links that make a state, closed and open: what is left of an open one is nothing beside an open wire.
_CLOSED_OHM, _APART_OHM = 1e-6, 1e12
STATES = {
    "still": "Key on, engine still: it should be lit",
    "running": "Running, charging: it should be dark",
    "no_field": "Key on, field wire open: dark tells the fault",
    "grounded": "Running, its wire on the frame",
    "lopsided": "Running, one of its diodes gone: the sides differ",
    "coasting": "Key off, generator still turning: nothing may flow back",
}


def _in(*names: str) -> np.ndarray:
    return np.array([s in names for s in STATES])


@dataclass(frozen=True)
class ChargeLoop:
    """What is between battery and generator.

    Attributes:
        battery, running: V.
        field: Ω to ground, engine still.
        needs: what the field needs to start, A; None takes what the old lamp gave.
        old: the old lamp.
        led, ohm: what is fitted instead; None while the old lamp is.
        beside: across it, Ω; None for nothing.
        guard: whether a diode is before LED and resistor.
    """

    battery: float
    running: float
    field: float
    needs: float | None
    old: Lamp
    led: Led | None
    ohm: float
    beside: float | None
    guard: bool = False

    @property
    def before(self) -> "ChargeLoop":
        """The same with the old lamp in it."""
        return replace(self, led=None, beside=None, guard=False)

    @property
    def wants_a(self) -> float:
        """What must reach the field, A."""
        return self.needs or float(solve(self.before).amps("Rfield")[0])


@lru_cache(maxsize=64)
def solve(d: ChargeLoop) -> States:
    """Every state in one batch; the field's current is that of "Rfield", the lamp's of "Rlamp" or "Rled"."""
    w = Wiring("charge indicator")
    runs = _in("running", "grounded", "lopsided")
    w.source("Vbat", "cell", np.where(runs, d.running, d.battery))
    w.add(Resistor("Rkey", "cell", "bat", np.where(_in("coasting"), _APART_OHM, _CLOSED_OHM)))
    w.resistor("Rignition", "bat", "0", _IGNITION_OHM)
    fed = "bat"
    if d.guard:
        fed = "fed"
        w.diode("Dguard", "bat", fed)
    if d.led is None:
        w.filament("Rlamp", fed, "gen", d.old, label="The old lamp")
    else:
        w.resistor("Rled", fed, "led", d.ohm)
        w.led("Dled", "led", "gen", d.led, guarded=d.guard)
    if d.beside is not None:
        w.resistor("Rbeside", fed, "gen", d.beside)
    w.resistor("Rfield", "gen", "0", np.where(_in("no_field"), OFF_OHM, d.field))
    w.source("Vgen", "rotor", np.where(_in("lopsided"), d.running - _LOPSIDED_V, d.running))
    w.add(Resistor("Rgen", "rotor", "gen", np.where(_in("running", "lopsided", "coasting"), _CLOSED_OHM, _APART_OHM)))
    w.resistor("Rframe", "gen", "0", np.where(_in("grounded"), _FRAME_OHM, _APART_OHM))
    return solve_states(w, *STATES.values())


def field_a(d: ChargeLoop) -> float:
    """What reaches the field, engine still, A."""
    return float(solve(d).amps("Rfield")[0])


class ChargeLamp(CircuitKind[ChargeLoop]):
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
    parts = (
        ("Vbat", "the battery", "rest_volts"),
        ("Rkey", "key", ""),
        ("Rignition", "ignition", ""),
        ("Dguard", "diode", "guard"),
        ("Rlamp", "old lamp", "lamp_volts"),
        ("Rled", "resistor", "ohm"),
        ("Dled", "LED", "led"),
        ("Rbeside", "resistor beside it", "beside"),
        ("Rfield", "field", "field"),
        ("Vgen", "generator", "running"),
        ("Rgen", "generator turns", ""),
        ("Rframe", "wire on frame", ""),
    )
    details = (BATTERY, RUNNING, LAMP_V, LAMP_A, READ, FIELD, NEEDS, asks.led_detail(), LED_OHM, BESIDE, GUARD)

    def case(self, typed: Details) -> ChargeLoop:
        """The loop as typed."""
        battery, volts, amps, ohm = typed.needed(BATTERY, LAMP_V, LAMP_A, LED_OHM)
        lamp = asks.rated_lamp(volts, amps)
        field = _field(typed, battery, lamp)
        running = typed.value(RUNNING.id) or battery * 1.125
        return ChargeLoop(
            battery,
            running,
            field,
            typed.value(NEEDS.id),
            lamp,
            asks.read_led(typed),
            ohm,
            typed.value(BESIDE.id),
            typed.choice(GUARD.id) == "yes",
        )

    def states(self, case: ChargeLoop) -> tuple[States, ...]:
        """Key, engine and faults."""
        return (solve(case),)

    def options(self, now: ChargeLoop, typed: Details, chosen: str) -> list[Option]:
        """The largest resistor beside the LED with which enough reaches the field; with a diode where it needs one."""
        if now.beside is not None or field_a(now) >= now.wants_a * ENOUGH:
            return []
        ohm = values.largest(lambda v: field_a(replace(now, beside=v)) >= now.wants_a, 1.0, 10e3)
        if ohm is None:
            return []
        held = now.battery**2 / (ohm + now.field) ** 2 * ohm
        heat = values.body_text(now.running**2 / ohm, now.running).replace(": ", " while its wire is on the frame: ")
        return [
            Option(
                "beside",
                f"{show(ohm, OHM)} beside it",
                f"{heat}; {show(held, WATT)} with the key on.",
                shown(ohm, OHM, "the loop solved"),
                "resistance",
                "The LED's light hardly changes.",
                advised=True,
                changes={BESIDE.id: show(ohm, OHM)},
            )
        ]

    def report(self, job: Job[ChargeLoop]) -> CircuitResult:
        """What reaches the field before and after, in every state, and the resistor that gives it."""
        now, then = job.now, job.then
        origin = "the loop solved, engine still"
        gave, reaches, needs = field_a(now.before), field_a(now), now.wants_a
        said = "enough" if reaches >= needs * ENOUGH else "too little: it may not start"
        return CircuitResult(
            line=f"{show(reaches, AMPERE)} reach the field where the old lamp gave {show(gave, AMPERE)}: {said}.",
            figures=(
                Figure("field-before", "To the field, old lamp", shown(gave, AMPERE, origin)),
                job.pair("field", "To the field, as typed", lambda d: shown(field_a(d), AMPERE, origin)),
            ),
            stairs=(_stair(now.before, "old", "Old lamp", "lamp"), _stair(then, "led", "LED", "LED")),
            tables=(_table(then),),
            faults=_FAULTS,
            findings=_findings(now, then, reaches, needs),
            spice=solve(now).deck(),
        )


KIND = ChargeLamp()

_FAULTS = (
    Fault(
        "led-open",
        "The LED or its resistor is open",
        "With a resistor beside it the generator starts, and nothing tells.",
    ),
    Fault(
        "beside-open",
        "The resistor beside it is open",
        "It is lit, and the generator may not start below higher revolutions.",
    ),
)


def _field(typed: Details, battery: float, lamp: Lamp) -> float:
    """What is behind the lamp, Ω: by the current that the old lamp carries, or an ohmmeter where that can tell."""
    read, ohms = typed.value(READ.id), typed.value(FIELD.id)
    if read is not None:
        across = lamp.volts * (read / lamp.amps) ** (1 / CURRENT_EXPONENT)
        if across >= battery:
            raise InputError(
                READ.id,
                f"{show(read, AMPERE)} need {show(across, VOLT)} across this lamp; the battery gives "
                f"{show(battery, VOLT)}. Read it again, or the lamp's marking.",
            )
        return float((battery - across) / read)
    if ohms is None:
        raise InputError(READ.id, "Type the current through the old lamp with the key on and the engine still.")
    if ohms > MOST_FIELD_OHM:
        raise InputError(
            FIELD.id,
            f"{show(ohms, OHM)} is not a wound field. An ohmmeter read a regulator's electronics, which says "
            "nothing of the field. Read the old lamp's current with the key on and the engine still.",
        )
    return ohms


def _lamp_a(d: ChargeLoop) -> np.ndarray:
    return solve(d).amps("Rlamp" if d.led is None else "Rled")


def _across(d: ChargeLoop) -> np.ndarray:
    return solve(d).volts("bat") - solve(d).volts("gen")


def _light(d: ChargeLoop, k: int) -> float:
    """Light in a state, cd for an LED, and beside its rating for the old lamp."""
    if d.led is not None:
        return candela_at(d.led, float(_lamp_a(d)[k]))
    return (d.old.candela_at(abs(float(_across(d)[k]))) or 0.0) / (d.old.candela or 1.0)


def _stair(d: ChargeLoop, id_: str, label: str, part: str) -> BranchStair:
    """Key on and still: battery, lamp or LED, field."""
    amps, across = float(_lamp_a(d)[0]), float(_across(d)[0])
    drop = 0.0 if d.led is None else amps * d.ohm
    said = f"{percent(_light(d, 0))} of its light" if d.led is None else WORDS[visibility(_light(d, 0))]
    steps = (("resistor", drop),) if d.led is not None else ()
    return stair(
        id_,
        label,
        (*steps, (part, across - drop), ("field", d.battery - across)),
        amps,
        said,
        "the loop solved, engine still",
    )


def _table(d: ChargeLoop) -> Table:
    rows = []
    for k, (id_, label) in enumerate(STATES.items()):
        was = _light(d.before, k)
        lit = "dark" if was < 1e-4 else f"{percent(was)} of its light" if was < 0.995 else "bright"
        flows = (float(a[k]) for a in (_lamp_a(d.before), _lamp_a(d), solve(d).amps("Rfield")))
        cells = tuple(shown(v if v > LEAST_A else 0.0, AMPERE, "this state solved") for v in flows)
        rows.append(Row(id_, label, cells, f"old lamp {lit}; LED: {WORDS[visibility(_light(d, k))]}"))
    return Table("states", "Every state, old lamp and new", ("Old lamp", "LED", "To the field"), tuple(rows))


def _findings(now: ChargeLoop, then: ChargeLoop, reaches: float, needs: float) -> tuple[Finding, ...]:
    out: list[Finding] = []
    key_v = float(solve(then).volts("bat")[-1])
    if key_v > _RUNS_ON_V:
        out.append(
            Finding(
                "feeds-ignition",
                "stop",
                f"With the key off the resistor feeds {show(key_v, VOLT)} back to the ignition.",
                show(key_v, VOLT),
                show(_RUNS_ON_V, VOLT),
                "The engine may run on. A diode before LED and resistor lets nothing back.",
            )
        )
    if reaches < needs * ENOUGH:
        out.append(
            Finding(
                "too-little-field",
                "stop",
                f"Only {show(reaches, AMPERE)} reach the field, of {show(needs, AMPERE)} that it needs.",
                show(reaches, AMPERE),
                show(needs, AMPERE),
                "The generator does not wake, and the battery runs flat. A resistor beside the LED carries the rest.",
            )
        )
    if then.beside is not None:
        out.append(
            Finding(
                "hot-on-frame",
                "mind",
                f"The resistor makes {show(then.running**2 / then.beside, WATT)} while its wire touches the frame.",
                why="Rate it for that, or the first fault in the wire burns the loom.",
            )
        )
    dim = list(STATES).index("lopsided")
    if visibility(_light(then, dim)) != "dark":
        out.append(
            Finding(
                "diode-gone",
                "note",
                "With a diode of the generator gone the LED carries "
                f"{show(float(_lamp_a(then)[dim]), AMPERE)}: {WORDS[visibility(_light(then, dim))]}.",
                why="The old lamp glowed faintly on such a fault; an LED tells it more plainly.",
            )
        )
    return tuple(out)
