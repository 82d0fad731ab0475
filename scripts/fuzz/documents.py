"""Random rails and lamps, typed as people type them: every kind, every treatment, odd figures among plain ones."""

import random
from typing import Any

from swapglow.core.design.looks import HOWS, OPTICS, ROOMS
from swapglow.core.design.rectification import RECTIFICATIONS
from swapglow.core.design.trial import VERDICTS
from swapglow.core.drivers import DRIVERS
from swapglow.core.parts import lamp as lamps
from swapglow.core.parts import led as leds
from swapglow.core.parts.glass import OWN_GLASS, glasses
from swapglow.core.parts.ready_made import SAID_LAWS
from swapglow.core.parts.regulator import regulators
from swapglow.core.supplies import SUPPLIES
from swapglow.inputs.position import PositionInput
from swapglow.inputs.rail import RailInput

# What a bench has, and now and then what nobody would type.
_VOLTS = ("5V", "6.3V", "12V", "13.8V", "24V", "28V", "48V", "9V", "3V")


def _some(rng: random.Random, low: float, high: float, unit: str) -> str:
    """A figure between two, even in its logarithm."""
    return f"{low * (high / low) ** rng.random():.3g}{unit}"


def _maybe(rng: random.Random, share: float, text: str, otherwise: str = "") -> str:
    return text if rng.random() < share else otherwise


def _volts(rng: random.Random) -> str:
    return rng.choice(_VOLTS) if rng.random() < 0.6 else _some(rng, 0.05, 400, "V")


def _quantity(rng: random.Random, text: str) -> dict[str, str]:
    return {"text": text, "source": rng.choice(("measured", "marked", "assumed")) if text else "assumed"}


def _level(text: str, share: float) -> str:
    return f"{float(text.removesuffix('V')) * share:.4g}V"


_DETAILS = {
    "source": (0.05, 5e3, "Ω"),
    "open": (1, 60, "V"),
    "load": (1e-3, 2, "A"),
    "hertz": (15, 400, "Hz"),
    "capacity": (0.02, 5, "Ah"),
    "crank": (1, 10, "V"),
    "pin": (1e-3, 50e-3, "A"),
    "trip": (1e-4, 2, "A"),
    "keep_warm": (50, 50e3, "Ω"),
    "leak": (1e-6, 5e-3, "A"),
    "dropper": (1, 1e3, "Ω"),
    "other_volts": (1, 30, "V"),
    "other_amps": (0.02, 2, "A"),
    "rest": (0.01, 3, "A"),
    "pulse": (1e-4, 20e-3, "s"),
    "period": (0.05, 2, "s"),
    "pulse_source": (1, 1e3, "Ω"),
    "ohms": (1, 1e4, "Ω"),
}
_LOADS = (
    "relay 470R",
    "meter lamp 6V 0.1A max 6.6V; capacitor max 16V",
    "clock 20mA",
    "chip 5mA; lamp 12V 0.05A",
    "pilot 1k",
)


def _details(rng: random.Random, kind: Any, usual: str) -> dict[str, str]:
    out = {}
    for d in kind.details:
        if rng.random() < 0.4:
            continue
        if d.options:
            out[d.id] = rng.choice(d.options)[0]
        elif d.id == "loads":
            out[d.id] = rng.choice(_LOADS)
        elif d.id == "open":
            out[d.id] = _level(usual, rng.uniform(1, 1.4))
        elif d.id in _DETAILS:
            out[d.id] = _some(rng, *_DETAILS[d.id])
        elif d.id in ("cells", "others", "there"):
            out[d.id] = str(rng.randint(1, 6))
        elif d.id == "rate":
            out[d.id] = str(rng.randint(30, 160))
        elif d.id == "duty":
            out[d.id] = f"{rng.randint(5, 100)} %"
    return out


def _lamp(rng: random.Random, usual: str) -> dict[str, str]:
    if rng.random() < 0.35:
        return {}
    if rng.random() < 0.4:
        return {"lamp_id": rng.choice(sorted(lamps.catalogue()))}
    return {
        "lamp_id": "own",
        "lamp_volts": usual if rng.random() < 0.6 else _volts(rng),
        "lamp_amps": _some(rng, 0.01, 3, "A"),
        "lamp_candela": _maybe(rng, 0.6, _some(rng, 0.02, 40, "cd")),
    }


def _module(rng: random.Random, usual: str) -> dict[str, Any]:
    low = float(usual.removesuffix("V")) * rng.uniform(0.4, 1.3)
    return {
        "band": f"{low:.3g}-{low * rng.uniform(1.05, 2):.3g}V",
        "module": {
            "amps": _some(rng, 2e-3, 1, "A"),
            "law": rng.choice(sorted(SAID_LAWS)),
            "at": _maybe(rng, 0.4, f"{low * rng.uniform(0.9, 1.8):.3g}V"),
            "polarised": rng.choice(("yes", "no")),
            "throttle": _maybe(rng, 0.3, f"{rng.randint(20, 100)} %"),
            "after": _maybe(rng, 0.3, "40s"),
            "candela": _maybe(rng, 0.4, _some(rng, 0.1, 40, "cd")),
        },
    }


def _beside(rng: random.Random, place: int) -> dict[str, Any]:
    return {
        "place": place,
        "led_id": rng.choice(sorted(leds.catalogue())),
        "in_series": rng.choice((1, 1, 2)),
        "count": rng.choice((1, 1, 3)),
        "drive": _maybe(rng, 0.6, _some(rng, 3e-4, 20e-3, "A")),
        "resistor": _maybe(rng, 0.5, _some(rng, 30, 20e3, "Ω")),
    }


def _looks(rng: random.Random) -> dict[str, Any]:
    """How it is looked at, and what its owner knows of its light, in one lamp of three."""
    if rng.random() < 0.66:
        return {}
    own = rng.random() < 0.3
    return {
        "looks": {
            "how": rng.choice(sorted(HOWS)),
            "optics": rng.choice(sorted(OPTICS)),
            "room": rng.choice(sorted(ROOMS)),
            "glass": OWN_GLASS if own else rng.choice(["", *sorted(glasses())]),
            "own_glass": rng.choice(("0, 0, 0", "2 5 80 %", "460;0\n640;90", "")) if own else "",
            "shape": rng.choice(("round", "rectangle")),
            "white_box": rng.random() < 0.3,
            **{k: _maybe(rng, 0.5, _some(rng, 3e-4, 2, "m")) for k in ("width", "height", "depth", "spacing")},
            "share": rng.choice((1.0, 1.0, 0.25)),
            "trim": rng.choice((1.0, 1.0, 0.003, 400.0)),
        },
        "led_light": rng.choice(("", "", "15mcd", "40lm", "1e-6cd")),
        "led_light_at": _maybe(rng, 0.3, _some(rng, 1e-4, 2, "A")),
        "led_angle": _maybe(rng, 0.3, f"{rng.uniform(4, 170):.1f}°"),
        "led_output": rng.choice(("", "", "old", "standard", "high")),
        "lamp_kept": rng.choice((1.0, 0.5, 0.01)),
        "trials": {
            f"t{k}": {"resistor": _some(rng, 1, 1e6, "Ω"), "verdict": rng.choice(sorted(VERDICTS)), "place": k}
            for k in range(rng.choice((0, 0, 1, 4)))
        },
    }


def document(seed: int) -> tuple[RailInput, PositionInput]:
    """A rail and a lamp on it.

    Args:
        seed: the same makes the same.

    Returns:
        Both as typed.
    """
    rng = random.Random(seed)
    kind = rng.choice(list(SUPPLIES.values()))
    usual = _volts(rng)
    ends = rng.random() < 0.6
    rail = RailInput.model_validate(
        {
            "kind": kind.id,
            "usual": _quantity(rng, usual),
            "low": _quantity(rng, _level(usual, rng.uniform(0.6, 1)) if ends else ""),
            "high": _quantity(rng, _level(usual, rng.uniform(1, 1.4)) if ends else ""),
            "details": {k: _quantity(rng, v) for k, v in _details(rng, kind, usual).items()},
            "fuse": _maybe(rng, 0.2, _some(rng, 0.05, 10, "A")),
            "read_at": "lamp" if kind.read_at_offered and rng.random() < 0.15 else "feed",
        }
    )
    driver = rng.choice(list(DRIVERS.values())) if rng.random() < 0.6 else DRIVERS.usual
    fields: dict[str, Any] = {
        "led_id": rng.choice(sorted(leds.catalogue())),
        "target": _quantity(rng, _some(rng, 2e-4, 30e-3, "A")),
        "in_series": rng.choice((1, 1, 1, 2, 3, 6)),
        "branches": rng.choice((1, 1, 1, 2, 5)),
        "ceiling": rng.choice((0.5, 1.0)),
        "series": rng.choice(("E12", "E24", "E96")),
        "rounding": rng.choice(("up", "nearest", "down")),
        "resistor": _maybe(rng, 0.4, _some(rng, 10, 50e3, "Ω")),
        "resistor_parts": rng.choice((1, 1, 2)),
        "rating_w": rng.choice((None, None, 0.125, 0.25, 0.5, 2.0)),
        "lead": rng.choice(("positive", "negative")),
        "common": rng.choice(("none", "none", "positive", "negative", "chassis")),
        "driver_kind": driver.id,
        "driver_drop": _quantity(rng, _maybe(rng, 0.4, _some(rng, 0.05, 1.5, "V"))),
        "driver_details": {k: {"text": v} for k, v in _details(rng, driver, usual).items()},
        "chassis_negative": rng.random() < 0.2,
        "mains": rng.random() < 0.05,
        "series_diodes": rng.choice((0, 0, 0, 1, 2)),
        **_lamp(rng, usual),
    }
    if rng.random() < 0.2:
        fields |= {
            "shunt": _some(rng, 5, 20e3, "Ω"),
            "shunt_across": rng.choice(("assembly", "leds")),
            "shunt_w": rng.choice((None, 0.25, 5.0, 50.0)),
        }
    if kind.waveform.alternates and rng.random() < 0.7:
        fields["rectification"] = rng.choice(sorted(RECTIFICATIONS))
        fields["capacitor"] = _maybe(rng, 0.3, _some(rng, 1e-7, 5e-3, "F"))
        fields["capacitor_v"] = _maybe(rng, 0.3, _some(rng, 6, 450, "V"))
    extra = rng.random()
    if extra < 0.15:
        fields |= _module(rng, usual)
    elif extra < 0.25:
        fields["regulator_id"] = rng.choice(sorted(regulators()))
    elif extra < 0.4 and fields.get("shunt_across") != "leds":
        fields["beside"] = {f"s{k}": _beside(rng, k) for k in range(rng.randint(1, 2))}
    if rng.random() < 0.2:
        fields["ambient"] = f"{rng.randint(-10, 80)}°C"
    fields["one_batch"] = rng.random() < 0.5
    fields |= _looks(random.Random(seed + 77_000_000))
    return rail, PositionInput.model_validate(fields)
