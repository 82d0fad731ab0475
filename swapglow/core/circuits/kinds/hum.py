"""A lamp near audio or a receiver: what an LED's pulses put into the winding that feeds it, and what is quiet."""

import math
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

import numpy as np

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import CircuitResult, Option, Row, Table
from swapglow.core.circuits.toolkit import asks
from swapglow.core.circuits.toolkit.solved import Cycle, solve_cycle
from swapglow.core.circuits.toolkit.wiring import Wiring, over_time
from swapglow.core.engine.netlist import Sine
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led
from swapglow.core.quantities import AMPERE, FARAD, HERTZ, OHM, VOLT, InputError, show, shown, times_text

VOLTS = Detail("volts", "The winding, RMS", VOLT, "6.3V")
SOURCE = Detail("source", "Source resistance", OHM, "0.4R, from open and loaded volts; empty takes 0.5 Ω")
LAMP_A = Detail("lamp_amps", "The old lamp's amps there", AMPERE, "150mA; empty: not compared")
LED_OHM = asks.led_ohm("330R")
Fed = Literal["half", "bridge", "smoothed", "pair"]
WAYS: tuple[tuple[Fed, str], ...] = (
    ("half", "Half a wave: one diode"),
    ("bridge", "A bridge, nothing stored"),
    ("smoothed", "A bridge and a capacitor"),
    ("pair", "Two LEDs head to tail"),
)
FED = Detail("fed", "How it is rectified", None, "", WAYS)
STORE = Detail("store", "That capacitor", FARAD, "100uF; empty takes that")
ALSO = Detail(
    "also",
    "The winding also feeds",
    None,
    "",
    (("nothing", "Lamps alone"), ("heaters", "Heaters of valves, or audio"), ("receiver", "A receiver")),
)

_USUAL_OHM = 0.5
_USUAL_STORE = 100e-6
# Where such figures are from (Fourier).
_TAKEN = "the settled cycle, taken apart"
_ORDERS = (1, 2, 3, 5, 7)
_SAMPLES = 4096
# A direct current in a winding of less than this share of what it carries on AC does not bias its core to speak of
# (ours; from memory a hundredth of the magnetising current's order).
_DC_SHARE = 0.01


@dataclass(frozen=True)
class WindingFeed:
    """An LED on a winding.

    Attributes:
        volts, hertz, source: the winding's RMS volts, frequency, and source resistance, Ω.
        led, ohm: the LED and its resistor.
        fed: how it is rectified.
        store: the capacitor where one is meant, F.
    """

    volts: float
    hertz: float
    source: float
    led: Led
    ohm: float
    fed: Fed
    store: float


@lru_cache(maxsize=64)
def solve(f: WindingFeed) -> Cycle:
    """Its settled cycle; the winding's current is that of "Rsource", the LED's that of "Dled"."""
    w = Wiring("an LED on a winding")
    w.source("Vwinding", "emf", Sine(0.0, f.volts * math.sqrt(2), f.hertz))
    w.resistor("Rsource", "emf", "top", f.source)
    if f.fed == "half":
        # A diode in series and one across draw the same half; the series one is drawn.
        w.diode("D1", "top", "plus")
        w.resistor("Rled", "plus", "led", f.ohm)
        w.led("Dled", "led", "0", f.led, guarded=True)
    elif f.fed == "pair":
        w.resistor("Rled", "top", "led", f.ohm)
        w.led("Dled", "led", "0", f.led)
        w.led("Dother", "0", "led", f.led, label="the other LED", id_="other")
    else:
        w.bridge("top", "0", "plus", "minus")
        w.resistor("Rled", "plus", "led", f.ohm)
        w.led("Dled", "led", "minus", f.led)
        if f.fed == "smoothed":
            w.capacitor("Cstore", "plus", "minus", f.store)
    return solve_cycle(w, "On average")


def dc_a(f: WindingFeed) -> float:
    """Direct current in the winding, A."""
    return abs(solve(f).steady.average(solve(f).amps("Rsource")))


@lru_cache(maxsize=64)
def harmonics_a(f: WindingFeed) -> tuple[float, ...]:
    """RMS of each order of :data:`_ORDERS` in the winding, A (Fourier)."""
    cycle, amps = solve(f).steady, solve(f).amps("Rsource")
    even = np.interp(
        np.arange(_SAMPLES) / _SAMPLES * cycle.period, np.append(cycle.t, cycle.period), np.append(amps, amps[0])
    )
    spectrum = np.abs(np.fft.rfft(even)) / _SAMPLES
    return tuple(float(spectrum[k] * math.sqrt(2)) for k in _ORDERS)


def buzz_a(f: WindingFeed) -> float:
    """All harmonics over the first together, RMS, A."""
    return math.sqrt(sum(a**2 for a in harmonics_a(f)[1:]))


class HumLamp(CircuitKind[WindingFeed]):
    """Dial lamps on heater windings, lamps beside pick-ups and receivers."""

    id = "hum"
    order = 21
    label = "LED near audio or a receiver"
    looks = (
        "The lamp hangs on the winding that heats valves, or its wires run beside a pick-up, an input or a receiver. A "
        "filament took a clean sine; an LED takes pulses."
    )
    never = (
        "Valve equipment holds hundreds of volts after it is switched off: qualified people, unplugged and discharged. "
        "A winding whose middle or one leg is on the frame takes no bridge with its negative there."
    )
    parts = (
        ("Vwinding", "the winding", "volts"),
        ("Rsource", "source ohms", "source"),
        ("D", "", "fed"),
        ("Rled", "resistor", "ohm"),
        ("Dled", "LED", "led"),
        ("Dother", "other LED", "led"),
        ("Cstore", "capacitor", "store"),
    )
    details = (VOLTS, asks.FREQUENCY, SOURCE, LAMP_A, asks.led_detail(), LED_OHM, FED, STORE, ALSO)

    def case(self, typed: Details) -> WindingFeed:
        """The feed as typed."""
        volts, ohm = typed.needed(VOLTS, LED_OHM)
        hertz, led = asks.read_hertz(typed, "winding"), asks.read_led(typed)
        if volts * math.sqrt(2) <= led.vf_high + 2:
            raise InputError(VOLTS.id, f"{show(volts, VOLT)} AC hardly light {led.vf_high:g} V behind a rectifier.")
        fed: Fed = typed.choice(FED.id)  # type: ignore[assignment]  # one of its options
        return WindingFeed(
            volts, hertz, typed.value(SOURCE.id) or _USUAL_OHM, led, ohm, fed, typed.value(STORE.id) or _USUAL_STORE
        )

    def states(self, case: WindingFeed) -> tuple[Cycle, ...]:
        """Its settled cycle."""
        return (solve(case),)

    def options(self, now: WindingFeed, typed: Details, chosen: str) -> list[Option]:
        """The others, the quietest first: by DC where it counts, then by harmonics."""
        ranked = sorted((replace(now, fed=way) for way, _ in WAYS), key=lambda f: dc_a(f) * 10 + buzz_a(f))
        wanted = typed.choice(ALSO.id) != "nothing" and ranked[0].fed != now.fed
        return [
            Option(
                f.fed,
                dict(WAYS)[f.fed],
                f"{show(dc_a(f), AMPERE)} of DC, {show(buzz_a(f), AMPERE)} of harmonics.",
                shown(solve(f).mean("Dled"), AMPERE, "the LED's mean"),
                "current",
                advised=wanted and f is ranked[0],
                changes={FED.id: f.fed},
            )
            for f in ranked
            if f.fed != now.fed
        ]

    def report(self, job: Job[WindingFeed]) -> CircuitResult:
        """Direct current and harmonics that each way of feeding it puts into the winding."""
        f = job.now
        return CircuitResult(
            line=f"{show(dc_a(f), AMPERE)} of DC in the winding, {show(buzz_a(f), AMPERE)} of harmonics.",
            figures=(
                job.pair("dc", "DC in the winding", lambda x: shown(dc_a(x), AMPERE, _TAKEN)),
                job.pair("harmonics", "Harmonics in the winding, RMS", lambda x: shown(buzz_a(x), AMPERE, _TAKEN)),
                job.pair("led", "LED, mean", lambda x: shown(solve(x).mean("Dled"), AMPERE, _TAKEN)),
                job.pair(
                    "hum-volts",
                    "They put on the winding, RMS",
                    lambda x: shown(buzz_a(x) * x.source, VOLT, "harmonics over what stands behind the winding"),
                ),
            ),
            tables=(_table(f),),
            findings=_findings(job.typed, f),
            spice=solve(f).wiring.deck(over_time(f.hertz)),
        )


KIND = HumLamp()


def _table(f: WindingFeed) -> Table:
    rows = []
    for way, label in WAYS:
        x = replace(f, fed=way)
        cells = tuple(shown(v if v > 1e-7 else 0.0, AMPERE, _TAKEN) for v in (dc_a(x), *harmonics_a(x)))
        crest = float(np.abs(solve(x).amps("Rsource")).max())
        rows.append(Row(way, label, cells, f"LED {show(solve(x).mean('Dled'), AMPERE)}, crest {show(crest, AMPERE)}"))
    heads = ("DC", *(show(f.hertz * k, HERTZ) for k in _ORDERS))
    return Table("fed", "What each puts into the winding, RMS", heads, tuple(rows))


def _findings(typed: Details, f: WindingFeed) -> tuple[Finding, ...]:
    out = []
    also, lamp = typed.choice(ALSO.id), typed.value(LAMP_A.id)
    if f.fed == "half" and dc_a(f) > _DC_SHARE * max(harmonics_a(f)[0], lamp or 0.0):
        out.append(
            Finding(
                "dc-in-winding",
                "mind" if also != "nothing" else "note",
                f"{show(dc_a(f), AMPERE)} of DC in the winding.",
                show(dc_a(f), AMPERE),
                why="It biases the core: hum, and heat where it is small. Both halves of the wave: a bridge, "
                "or two LEDs "
                "head to tail.",
            )
        )
    if f.fed == "smoothed" and also != "nothing":
        crest = float(np.abs(solve(f).amps("Rsource")).max())
        times = times_text(crest / max(solve(f).mean("Dled"), 1e-12))
        out.append(
            Finding(
                "charging-pulses",
                "mind",
                f"Its capacitor is charged in pulses of {show(crest, AMPERE)}, {times} times what the LED takes.",
                why="They are heard as a buzz. Put the capacitor after the resistor, or leave it out.",
            )
        )
    if also == "receiver":
        out.append(
            Finding(
                "receiver",
                "mind",
                "A lamp with a converter or pulses inside is heard in a receiver; that is not worked out here.",
                why="Linear parts first: resistor and rectifier, wires twisted, and a try with the aerial in.",
            )
        )
    if lamp is not None:
        out.append(
            Finding(
                "old-lamp-sine",
                "note",
                f"The old lamp took {show(lamp, AMPERE)}, all of it a sine: no DC, no harmonics.",
                why="A filament's lag is far longer than a cycle.",
            )
        )
    return tuple(out)
