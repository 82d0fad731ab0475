"""From what was typed to a position: texts in, values with provenance out.

Every refusal names the field it belongs to.
"""

from dataclasses import dataclass, field, replace
from typing import get_args

from swapglow.core.bench.meter import Reading, ReadingKind
from swapglow.core.parts import lamp as lamps
from swapglow.core.parts import led as leds
from swapglow.core.parts import preferred
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import Led, LedError
from swapglow.core.parts.module import ready_made
from swapglow.core.position.field_error import FieldError, one_of, parse_field, single
from swapglow.core.position.model import Changes, Common, Position, PositionError, Rail
from swapglow.core.position.trials import with_trials
from swapglow.core.position.typed_driver import TypedDriver, TypedModule, read_driver, read_module
from swapglow.core.position.typed_supply import Typed, TypedRail, read_rail
from swapglow.core.position.typed_sweep import TypedSweep, fitted_led
from swapglow.core.quantities import (
    AMPERE,
    CANDELA,
    FARAD,
    HERTZ,
    OHM,
    VOLT,
    Figure,
    Source,
    Unit,
    parse,
    show,
)
from swapglow.core.supply.treatment import TREATMENTS, TreatmentId

__all__ = [
    "FieldError", "Typed", "TypedDriver", "TypedLamp", "TypedModule", "TypedPosition", "TypedRail",
    "TypedSweep", "rail_line", "read_lamp", "read_led",
    "read_position", "read_rail", "read_reading", "took", "typed_changes",
]  # fmt: skip


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
    driver: TypedDriver = field(default_factory=TypedDriver)
    ceiling: float = 0.5
    series: str = "E24"
    rounding: preferred.Rounding = "up"
    resistor: str = ""
    resistor_parts: int = 1
    resistor_source: Source = Source.MARKED
    tolerance: float | None = None
    rating_w: float | None = None
    lamp: TypedLamp = field(default_factory=TypedLamp)
    treatment: str = ""
    capacitor: str = ""
    capacitor_v: str = ""
    second_led_id: str = ""
    band: str = ""
    chassis_negative: bool = False
    mains: bool = False
    glow_floor: float = 0.25
    sweep: TypedSweep = field(default_factory=TypedSweep)
    branches: int = 1
    lead: str = "positive"
    common: str = "none"
    shunt: str = ""
    shunt_across: str = "assembly"
    shunt_w: float | None = None
    series_diodes: int = 0
    regulator_id: str = ""
    module: TypedModule = field(default_factory=TypedModule)


def rail_line(typed: TypedRail) -> str:
    """A rail in a line: "8.7 V to 9.1 V, 50 Hz, 12 Ω behind it"; why not, where it does not read."""
    try:
        rail = read_rail(typed)
    except FieldError as problem:
        return problem.message
    supply = rail.supply
    low, usual, high = (show(f.value, VOLT) for f in (rail.low, rail.usual, rail.high))
    volts = usual if low == high else f"{usual} ({low} to {high})"
    parts = [f"{volts} RMS" if supply.flow == "sine" else volts]
    if supply.hertz[1]:
        low_hz, high_hz = show(supply.hertz[0], HERTZ), show(supply.hertz[2], HERTZ)
        parts.append(low_hz if low_hz == high_hz else f"{low_hz} to {high_hz}")
    if supply.source_ohm.value:
        parts.append(f"{show(supply.source_ohm.value, OHM)} behind it")
    elif supply.lift > 1:
        parts.append(f"{show(rail.volts[1], VOLT)} open")
    return ", ".join(parts)


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


def read_led(led_id: str, vf: Typed, rated: str) -> tuple[Led, Source]:
    """The LED: a catalogue kind, with the user's own Vf range and rated current where typed.

    Raises:
        FieldError: for ``led_id``, ``vf`` or ``rated``.
    """
    base = leds.catalogue().get(led_id)
    if base is None and led_id:
        raise FieldError("led_id", f'There is no LED "{led_id}" in the catalogue.')
    amps = single("rated", rated, AMPERE, above=0) if rated.strip() else None
    if vf.empty:
        if base is None:
            raise FieldError("led_id", "Pick an LED, or type a forward voltage like 1.9-2.3V.")
        return (base if amps is None else replace(base, rated_a=amps)), Source.ASSUMED
    volts = parse_field("vf", vf.text, VOLT, above=0)
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
    volts = single("lamp_volts", typed.volts, VOLT, above=0)
    amps = single("lamp_amps", typed.amps, AMPERE, above=0)
    candela = (
        single("lamp_candela", typed.candela, CANDELA, above=0)
        if typed.candela.strip()
        else lamps.estimate_candela(volts, amps)
    )
    return Lamp("own", "Own lamp", volts, amps, candela, typed.base)


def read_position(typed: TypedPosition) -> Position:
    """A position from its texts.

    Raises:
        FieldError: with the field and what would be accepted.
    """
    lamp = read_lamp(typed.lamp)
    rail = read_rail(typed.rail, lamp)
    led, led_source = read_led(typed.led_id, typed.vf, typed.rated)
    if not typed.sweep.empty:
        led, led_source = fitted_led(led, typed.sweep), Source.MEASURED
    driver, drop = read_driver(typed.driver, lamp)
    band = _band(typed.band)
    module = read_module(typed.module, band)
    if module is not None:
        led, led_source = module.led(led), Source.MARKED
        if typed.module.candela.strip():
            led = replace(led, candela=single("module_candela", typed.module.candela, CANDELA, above=0))
    own = single("resistor", typed.resistor, OHM, above=0) if typed.resistor.strip() else None
    if typed.series not in preferred.USUAL_TOLERANCE:
        raise FieldError("series", f'"{typed.series}" is no preferred series. Use E3 to E192.')
    if typed.target.empty:
        raise FieldError("target", f"Type the drive wanted, like {AMPERE.examples}.")
    target = single("target", typed.target.text, AMPERE, above=0)
    tolerance = typed.tolerance
    try:
        position = Position(
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
            lamp=lamp,
            treatment=_treatment(typed.treatment, rail),
            capacitor_f=single("capacitor", typed.capacitor, FARAD, above=0)
            if typed.capacitor.strip()
            else None,
            capacitor_v=single("capacitor_v", typed.capacitor_v, VOLT, above=0)
            if typed.capacitor_v.strip()
            else None,
            second_led=_second(typed.second_led_id),
            band_v=band,
            chassis_negative=typed.chassis_negative,
            mains=typed.mains,
            glow_floor=typed.glow_floor,
            driver=driver,
            branches=typed.branches,
            lead=one_of("lead", typed.lead, ("positive", "negative")),  # type: ignore[arg-type]
            common=one_of("common", typed.common, get_args(Common)),  # type: ignore[arg-type]
            shunt_ohm=single("shunt", typed.shunt, OHM, above=0) if typed.shunt.strip() else None,
            shunt_across=one_of("shunt_across", typed.shunt_across, ("leds", "assembly")),  # type: ignore[arg-type]
            shunt_w=typed.shunt_w,
            series_diodes=typed.series_diodes,
            regulator_id=typed.regulator_id,
            module=module,
        )
        return with_trials(position, typed.rail)
    except PositionError as problem:
        raise FieldError(_field_of(str(problem)), str(problem)) from None


def _treatment(text: str, rail: Rail) -> TreatmentId | None:
    if not text:
        return None
    if text not in TREATMENTS:
        raise FieldError("treatment", f'"{text}" is no treatment: {", ".join(TREATMENTS)}.')
    treatment = TREATMENTS[text]
    flow = rail.supply.flow
    # A rail that was made another kind keeps its lamps: what no longer suits it falls back to ours.
    return treatment.id if flow == "dc" or flow in treatment.flows else None


def _second(led_id: str) -> Led | None:
    if not led_id:
        return None
    found = leds.catalogue().get(led_id)
    if found is None:
        raise FieldError("second_led_id", f'There is no LED "{led_id}" in the catalogue.')
    return found


def _band(text: str) -> tuple[float, float] | None:
    if not text.strip():
        return None
    band = parse_field("band", text, VOLT, above=0)
    return band.low, band.high


def _field_of(message: str) -> str:
    for word, name in (("Diodes", "series_diodes"), ("Branches", "branches"), ("shunt", "shunt"),
                       ("regulator", "regulator_id"), ("series", "in_series"), ("ceiling", "ceiling"),
                       ("tolerance", "tolerance"),
                       ("rating", "rating_w"), ("glow", "glow_floor"),
                       ("capacitor", "capacitor"), ("resistor", "resistor")):  # fmt: skip
        if word in message:
            return name
    return "position"


def read_reading(id_: str, kind: ReadingKind, text: str, burden: str, note: str) -> Reading:
    """A reading after the swap from its texts.

    Raises:
        FieldError: for ``text`` or ``burden``.
    """
    value = single("text", text, AMPERE if kind == "current" else VOLT, minimum=0)
    ohm = single("burden", burden, OHM, minimum=0) if burden.strip() else 0.0
    return Reading(id_, kind, value, ohm if kind == "current" else 0.0, note)


_PLAIN_CHANGES = (
    "resistor_parts", "in_series", "ceiling", "rating_w", "rounding", "series", "treatment",
    "chassis_negative", "branches", "lead", "shunt_across", "shunt_w", "series_diodes", "regulator_id",
)  # fmt: skip


# Changes of the driver that are a yes or a no, and the details they are.
_YES_NO = {"driver_counts": "counts", "others_changed": "changed"}


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
        elif name == "capacitor_f":
            out["capacitor"] = "" if value is None else show(float(value), FARAD, 4)
        elif name == "capacitor_v":
            out["capacitor_v"] = "" if value is None else show(float(value), VOLT, 4)
        elif name == "shunt_ohm":
            out["shunt"] = "" if value is None else show(float(value), OHM, 6)
        elif name == "module_id":
            out |= _module_texts(str(value))
        elif name == "keep_warm_ohm":
            text = "" if value is None else show(float(value), OHM, 6)
            out["driver_details"] = {"keep_warm": {"text": text, "source": "computed", "note": ""}}
        elif name in _YES_NO:
            text = "yes" if value else "no"
            out["driver_details"] = {_YES_NO[name]: {"text": text, "source": "computed", "note": ""}}
        elif name in _PLAIN_CHANGES:
            out[name] = value
        else:
            raise FieldError(name, f'A position has no "{name}" to change.')
    return out


def _module_texts(module_id: str) -> dict[str, object]:
    """A ready-made lamp of the catalogue as texts."""
    if module_id not in ready_made():
        raise FieldError("module_id", f'There is no ready-made lamp "{module_id}" in the catalogue.')
    made = ready_made()[module_id]
    m = made.module
    return {
        "band": f"{m.low:g}-{m.high:g}V",
        "in_series": 1,
        "branches": 1,
        "series_diodes": 0,
        "regulator_id": "",
        "shunt": "",
        "resistor": "",
        "resistor_parts": 1,
        "module": {
            "amps": show(m.amps, AMPERE, 4), "law": m.law, "polarised": "yes" if m.polarised else "no",
            "throttle": "" if m.throttle == 1 else f"{m.throttle * 100:g} %",
            "after": "" if not m.throttle_s else f"{m.throttle_s:g}s",
            "candela": show(made.candela, CANDELA, 4),
        },
    }  # fmt: skip
