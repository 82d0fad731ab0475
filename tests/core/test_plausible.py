"""At the edges of what the forms allow, no figure that is shown is absurd, and each text reads back as itself.

Bounds are those of physics and of parts: solder and plastic are gone by 400 °C, nothing gives more than it takes,
and a ratio past a thousand says no more than that it is one.
"""

import dataclasses
import math
import os
import re
from enum import Enum

import numpy as np
import pytest

from scripts.fuzz.documents import document
from swapglow.core.assess import assess
from swapglow.core.circuits import CIRCUITS
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.quantities import AMPERE, CANDELA, FARAD, HERTZ, OHM, VOLT, WATT, Input, InputError, Shown, parse
from swapglow.inputs.to_core import position_of

MANY = 5000 if os.environ.get("TORTURE") else 60
UNITS = {u.symbol: u for u in (AMPERE, VOLT, OHM, WATT, FARAD, HERTZ, CANDELA)}
PREFIXES = "pnµmkMG"
# A number as it must never be printed, a prefix on a temperature, a ratio past a thousand.
ABSURD = re.compile(
    r"\binf\b|\bnan\b|\d[eE][+-]?\d|[kMGmµ]°C|\d{7,}|(?<!over )(?<![\d.])\d{4,}(?:\.\d+)? (?:×|times)", re.IGNORECASE
)
CELSIUS = re.compile(r"(over )?(-?\d+(?:\.\d+)?)\s°C")
HOTTEST_C = 400.0


def everything(value, path=""):
    """Every text and figure of an answer, with where it stands."""
    if isinstance(value, Shown):
        yield path, value
        yield f"{path}.origin", value.origin
    elif isinstance(value, str) and not isinstance(value, Enum):
        yield path, value
    elif dataclasses.is_dataclass(value) and not isinstance(value, type):
        for f in dataclasses.fields(value):
            yield from everything(getattr(value, f.name), f"{path}.{f.name}")
    elif isinstance(value, (tuple, list)):
        for k, v in enumerate(value):
            yield from everything(v, f"{path}[{k}]")
    elif isinstance(value, dict):
        for k, v in value.items():
            yield from everything(v, f"{path}[{k}]")


def absurd(answer, leave=()):
    """What in an answer cannot be."""
    for path, found in everything(answer):
        if any(part in path for part in leave):
            continue
        if isinstance(found, Shown):
            yield from (f"{path}: {why}" for why in of_figure(found))
        else:
            if (bad := ABSURD.search(found)) is not None:
                yield f'{path}: "{bad[0]}" in "{found[:120]}"'
            for over, number in CELSIUS.findall(found):
                if float(number) > HOTTEST_C and not over:
                    yield f"{path}: {number} °C"


def of_figure(shown):
    if not math.isfinite(shown.value):
        yield f"{shown.value}"
        return
    if shown.unit == "°C" and not -274 <= shown.value <= HOTTEST_C:
        yield f"{shown.value} °C"
    if shown.unit == "%" and shown.value < 0:
        yield f"{shown.value} of something"
    prefix = shown.unit[:1] if shown.unit[:1] in PREFIXES and len(shown.unit) > 1 else ""
    unit = UNITS.get(shown.unit.removeprefix(prefix))
    if unit is None or shown.number in ("0", "–") or unit.largest < abs(shown.value):
        return
    read = parse(shown.text, unit).usual
    if not math.isclose(read, shown.value, rel_tol=0.06, abs_tol=1e-12):
        yield f"{shown.text} is read as {read}, and was {shown.value}"


def at_the_edge(seed):
    """A random lamp with one thing of it pushed to where the form ends."""
    rail, lamp = document(seed)
    rng = np.random.default_rng(seed)
    pushed = [
        {"resistor": "1mR"},
        {"resistor": "1G"},
        {"resistor": "none"},
        {"resistor": "222"},
        {"ambient": "-40°C"},
        {"ambient": "125°C"},
        {"in_series": 100},
        {"branches": 50},
        {"target": {"text": "0.1uA"}},
        {"target": {"text": "10A"}},
        {"capacitor": "1F"},
        {"capacitor": "1nF"},
        {"shunt": "1R"},
        {"shunt": "1G"},
        {"lamp_id": "own", "lamp_volts": "1V 1000W"},
        {"lamp_id": "own", "lamp_volts": "400V", "lamp_amps": "1uA"},
        {"rating_w": 1000.0},
        {"series_diodes": 4},
        {"vf": {"text": "0.5V"}},
        {"glow_floor": 0.99},
        {"module": {"amps": "1uA"}, "band": "1-400V"},
        {},
    ]
    more = pushed[int(rng.integers(len(pushed)))]
    return rail, type(lamp).model_validate({**lamp.model_dump(mode="json"), **more})


def test_no_lamp_shows_an_absurd_figure():
    answered, wrong = 0, []
    for seed in range(200_000, 200_000 + MANY):
        try:
            rail, lamp = at_the_edge(seed)
            position = position_of(lamp, rail)
            report = assess(position)
        except (InputError, CircuitError):
            continue
        answered += 1
        # The slide rule's own scales reach over what anybody fits.
        wrong += [f"{seed} {said}" for said in absurd(report, (".rule", ".ramp", ".hue", ".colour", ".levels"))]
        # Nothing warms by more than its feed gives: crest times all that the circuit takes.
        most = position.rail.peaks[2] * report.current.supply.value
        assert report.heat.after.value <= max(most, 0.0) * 1.01 + 1e-10, seed
    assert wrong == []
    assert answered > MANY / 4


_EDGES = {
    "V": ("0.1V", "3V", "31V", "230V", "30-36V", "400V"),
    "A": ("1uA", "20mA", "700mA", "30A", "21W"),
    "Ω": ("1mR", "47R", "10k", "none", "1G"),
    "Hz": ("1Hz", "50Hz", "1MHz"),
    "F": ("1pF", "470nF", "10uF", "1F"),
    "°C": ("-40°C", "25°C", "300°C"),
    "K/W": ("0.01", "1.8K/W", "50K/W"),
    "lm": ("1lm", "3000lm"),
    "W": ("1mW", "5W", "1kW"),
    "H": ("1mH", "2H"),
    "s": ("1us", "2ms", "1s"),
    "m": ("1mm", "2m"),
    "cd": ("1mcd", "9cd"),
}
_WORDS = {
    "sense_ohm": ("68 ‖ 91", "1mR", "900M"),
    "wanted": ("50 %", "2 %", "99 %"),
    "count": ("1", "70", "400"),
    "keep": ("1", "3", "70"),
    "banks": ("keys: 8 white × 330R", "a: 1 red on 1m\nb: 200 blue × 1M"),
    "accept": ("20 %", "0.001"),
    "damp": ("1 %", "85 %", "100 %"),
    "feeds": ("TAIL, STOP",),
    "lamps": ("tail: TAIL to shell, 12V 5W; x: shell to ground, led 680R", "t: TAIL to ground, 12V 1000W"),
    "circuits": ("3",),
    "rows": ("3", "16"),
    "columns": ("5", "16"),
    "mean": ("2mA",),
}


@pytest.mark.parametrize("kind", CIRCUITS)
def test_no_circuit_shows_an_absurd_figure(kind):
    wrong = []
    for seed in range(max(MANY // len(CIRCUITS), 6)):
        rng = np.random.default_rng([seed, 7, len(kind)])
        typed = {}
        for d in CIRCUITS[kind].details:
            texts = [v for v, _ in d.options] or (
                _EDGES.get(d.unit.symbol, ("",)) if d.unit else _WORDS.get(d.id, ("",))
            )
            if rng.random() > 0.15:
                typed[d.id] = Input(str(rng.choice(texts)))
        try:
            worked = CIRCUITS[kind].work(CIRCUITS[kind].read(typed))
        except (InputError, CircuitError):
            continue
        wrong += [f"{seed} {said} {typed}" for said in absurd(worked, (".spice",))]
    assert wrong == []
