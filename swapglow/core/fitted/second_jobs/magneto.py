"""Lamps that are the regulator of a magneto: what the others get once some of them draw next to nothing.

The winding is a source behind its resistance and its inductance, all from volts read open and loaded at two speeds:
lamps are resistors, so that E² = (V + I·R)² + (I·ω·L)² at each (phasors; Kirchhoff). E goes with the speed (Faraday).
"""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import (
    Circuit,
    Diode,
    Element,
    Inductor,
    Resistor,
    Sine,
    VoltageSource,
)
from swapglow.core.engine.operating_point import NotConverged
from swapglow.core.engine.periodic import SteadyState, steady_state
from swapglow.core.engine.spice import write_deck
from swapglow.core.findings.finding import Grade
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.worked import Figure, Judged, Picture, Row, Table, Worked, curve, gravest_first
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.network.filaments import ohms_at
from swapglow.core.parts.lamp import Lamp, own_lamp
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.led_model import led_model
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.quantities import (
    AMPERE,
    HENRY,
    HERTZ,
    OHM,
    VOLT,
    WATT,
    InputError,
    Shown,
    number_text,
    percent,
    show,
    shown,
)
from swapglow.core.quantities import Figure as Typed

SLOW_HZ = Detail("slow_hz", "Slow: the meter's frequency", HERTZ, "60Hz, read at the lamps")
SLOW_OPEN = Detail("slow_open", "Slow: AC volts, all lamps out", VOLT, "9V, taken out before it is started")
SLOW_LIT = Detail("slow_lit", "Slow: AC volts, all lamps lit", VOLT, "5.4V")
FAST_HZ = Detail("fast_hz", "Fast: the meter's frequency", HERTZ, "180Hz")
FAST_OPEN = Detail(
    "fast_open",
    "Fast: AC volts, all lamps out",
    VOLT,
    "27V; out before it is started, and briefly",
)
FAST_LIT = Detail("fast_lit", "Fast: AC volts, all lamps lit", VOLT, "6.6V")
WINDING = Detail(
    "coil_ohm", "The winding, read with a meter", OHM, "0.3R, cold, lamps out; empty works it out"
)
TOP_HZ = Detail("top_hz", "The fastest it ever runs", HERTZ, "260Hz; empty takes the fast one")
LAMP_V = Detail("lamp_volts", "The lamps' volts", VOLT, "6V, as marked")
ALL_A = Detail("all_amps", "All of them together, rated", AMPERE, "4.5A: 27 W of 6 V", at="lamp_volts")
GONE_A = Detail("gone_amps", "Those that become LEDs, rated", AMPERE, "1A", at="lamp_volts")
LED = led_detail()
LED_COUNT = Detail("led_count", "LEDs, each behind its own resistor", None, "2; empty takes one")
LED_OHM = Detail("ohm", "The resistor of each, all behind one bridge", OHM, "470R", none="link")

_MOST = 60
# E per hertz of the two speeds may differ by so much: meters, magnets warm (ours).
_AGREE = 0.1
# Lamps stand that of their volts and no more (common practice: a tenth over halves a lamp's life and more).
_OVER = 1.1
_LIFE_EXPONENT = -12.0
# Halvings until a double has no more digits, and what the volts at the lamps are found to.
_MOST_ROUNDS = 60
_CLOSE = 1e-4
_SPEEDS = 7
_LEAST_OHM, _LEAST_HENRY = 1e-3, 1e-6


@dataclass(frozen=True)
class Winding:
    """The source.

    Attributes:
        volts_s: volts of EMF a hertz, RMS.
        ohm, henry: what stands behind it.
    """

    volts_s: float
    ohm: float
    henry: float

    def emf(self, hertz: float) -> float:
        """Open volts at a frequency, RMS (Faraday)."""
        return self.volts_s * hertz

    def drives(self, hertz: float, volts: float) -> float:
        """Amps into a resistive load: the root of E² = (V + IR)² + (IωL)².

        Args:
            hertz: the speed.
            volts: at which the load then stands, RMS.

        Returns:
            A, RMS; 0 where the EMF is no more than that.
        """
        x = 2 * math.pi * hertz * self.henry
        a, b, c = self.ohm**2 + x**2, 2 * volts * self.ohm, volts**2 - self.emf(hertz) ** 2
        return max((-b + math.sqrt(max(b**2 - 4 * a * c, 0.0))) / (2 * a), 0.0)

    def shorted(self, hertz: float) -> float:
        """What flows into a short, A: what a regulator that shunts must carry."""
        return self.drives(hertz, 0.0)


@dataclass(frozen=True)
class Spot:
    """One speed: its frequency, open volts, and volts and amps with the lamps lit."""

    hertz: float
    open_v: float
    lit_v: float
    amps: float


def winding_of(slow: Spot, fast: Spot, ohm: float | None = None) -> Winding:
    """The source from two speeds.

    Both give L² = (E² − (V + IR)²)/(Iω)². With the resistance read the faster says L; without it that both are equal
    is a quadratic in R.

    Args:
        slow, fast: what was read.
        ohm: the winding's own, where it was read.

    Returns:
        The winding, its EMF a hertz the mean of both.

    Raises:
        InputError: the readings are no such winding's, or do not settle which.
    """
    for label, s, detail in (("slow", slow, SLOW_LIT), ("fast", fast, FAST_LIT)):
        if s.lit_v >= s.open_v:
            raise InputError(
                detail.id, f"Lit, the volts at the {label} speed are not under those with all lamps out."
            )
    per = (slow.open_v / slow.hertz, fast.open_v / fast.hertz)
    if abs(per[1] / per[0] - 1) > _AGREE:
        raise InputError(
            FAST_OPEN.id, f"Open volts go with the speed: {number_text(1e3 * per[0], 3)} and "
            f"{number_text(1e3 * per[1], 3)} mV a hertz do not agree. Another reading, or a regulator is fitted.",
        )  # fmt: skip
    emf = (per[0] + per[1]) / 2
    if ohm is not None:
        square = _squared(fast, ohm)
        if square <= 0:
            raise InputError(
                WINDING.id, f"{show(ohm, OHM)} alone would take more than the volts that are lost."
            )
        return Winding(emf, ohm, math.sqrt(square))
    k = [(s.amps * 2 * math.pi * s.hertz) ** 2 for s in (slow, fast)]
    a = fast.amps**2 / k[1] - slow.amps**2 / k[0]
    b = 2 * (fast.lit_v * fast.amps / k[1] - slow.lit_v * slow.amps / k[0])
    c = (fast.lit_v**2 - fast.open_v**2) / k[1] - (slow.lit_v**2 - slow.open_v**2) / k[0]
    roots = [float(np.real(r)) for r in np.roots([a, b, c]) if abs(np.imag(r)) < 1e-9]
    fits = [r for r in roots if r >= 0 and _squared(slow, r) > 0]
    if len(fits) != 1:
        why = "No winding gives" if not fits else "Two windings give"
        raise InputError(
            FAST_LIT.id, f"{why} these volts at both speeds: read its resistance with a meter too."
        )
    return Winding(emf, max(fits[0], _LEAST_OHM), math.sqrt(_squared(slow, fits[0])))


def _squared(s: Spot, ohm: float) -> float:
    """L² by one speed, H²; less than nothing where the resistance alone would take more than what is lost."""
    return (s.open_v**2 - (s.lit_v + s.amps * ohm) ** 2) / (s.amps * 2 * math.pi * s.hertz) ** 2


@dataclass(frozen=True)
class Load:
    """What hangs on it.

    Attributes:
        lamp: the filaments together, as one; None for none.
        led, count, ohm: LEDs, each behind its own resistor, all behind one bridge; count 0 for none.
    """

    lamp: Lamp | None
    led: Led
    count: int
    ohm: float


def circuit(w: Winding, load: Load, hertz: float, lamp_ohm: float) -> Circuit:
    """Winding, filaments and LEDs behind a bridge.

    Args:
        w: the winding.
        load: what hangs on it.
        hertz: its speed.
        lamp_ohm: the filaments at rest.

    Returns:
        The circuit; its lamps stand between "bus" and ground.
    """
    parts: list[Element] = [
        VoltageSource("Vemf", "emf", "0", Sine(0.0, w.emf(hertz) * math.sqrt(2), hertz)),
        Resistor("Rwinding", "emf", "coil", w.ohm), Inductor("Lwinding", "coil", "bus", max(w.henry, _LEAST_HENRY)),
    ]  # fmt: skip
    if load.lamp is not None:
        parts.append(Resistor("Rlamps", "bus", "0", lamp_ohm))
    if load.count:
        bridge = rectifier("power").chain(1, REFERENCE_C)
        parts += [
            Diode("D1", "bus", "plus", bridge), Diode("D2", "0", "plus", bridge),
            Diode("D3", "minus", "bus", bridge), Diode("D4", "minus", "0", bridge),
            Resistor("Rleds", "plus", "leds", load.ohm / load.count),
            Diode("Dleds", "leds", "minus", led_model(load.led), area=float(load.count)),
        ]  # fmt: skip
    return Circuit(tuple(parts), celsius=REFERENCE_C, title="lamps on a magneto")


def lamps_only(w: Winding, lamp: Lamp, hertz: float) -> float:
    """RMS volts at the filaments with nothing else there, by halving: one root, for lamps draw more the more they get.

    Args:
        w: the winding.
        lamp: all filaments as one.
        hertz: the speed.

    Returns:
        V.
    """
    low, high = 0.0, w.emf(hertz)
    for _ in range(_MOST_ROUNDS):
        middle = (low + high) / 2
        amps = middle / float(ohms_at(lamp, np.array([middle]))[0])
        low, high = (low, middle) if amps > w.drives(hertz, middle) else (middle, high)
    return (low + high) / 2


@lru_cache(maxsize=64)
def with_leds(w: Winding, load: Load, hertz: float) -> tuple[float, SteadyState]:
    """The settled cycle with LEDs on it, filaments at rest at their RMS volts.

    Args:
        w: the winding.
        load: filaments and LEDs.
        hertz: the speed.

    Returns:
        RMS volts at the lamps, and the cycle.

    Raises:
        NotConverged: there is no such cycle.
    """
    volts = w.emf(hertz) if load.lamp is None else lamps_only(w, load.lamp, hertz)
    for _ in range(_MOST_ROUNDS):
        ohm = math.inf if load.lamp is None else float(ohms_at(load.lamp, np.array([volts]))[0])
        cycle = steady_state(circuit(w, load, hertz, ohm))
        found = cycle.rms(cycle.voltage("bus"))
        if load.lamp is None or abs(found - volts) < _CLOSE * found:
            return found, cycle
        volts = found
    raise NotConverged("The lamps on this winding do not come to rest; nothing is shown for it.")


class Magneto(FittedKind):
    """Old engines with a lighting coil, no battery and no regulator."""

    id = "magneto"
    order = 16
    label = "Lamps on a magneto"
    looks = (
        "A lighting coil, no battery, no regulator: brighter the faster it runs. What the lamps draw holds the volts "
        "down; each lamp that draws less leaves more for the others."
    )
    never = (
        "Take no lamp out while it runs: the others burn out within seconds, and open coils of a running engine bite. "
        "Lamps of road vehicles are governed by law, which differs by country."
    )
    details = (
        SLOW_HZ, SLOW_OPEN, SLOW_LIT, FAST_HZ, FAST_OPEN, FAST_LIT, WINDING, TOP_HZ, LAMP_V, ALL_A, GONE_A, LED,
        LED_COUNT,
        LED_OHM,
    )  # fmt: skip

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """The winding, what the lamps that stay then get over the speed, and what a regulator must stand."""
        slow_hz, slow_open, slow_lit, fast_hz, fast_open, fast_lit, volts, all_a, gone_a, ohm = typed.needed(
            SLOW_HZ, SLOW_OPEN, SLOW_LIT, FAST_HZ, FAST_OPEN, FAST_LIT, LAMP_V, ALL_A, GONE_A, LED_OHM
        )
        if fast_hz <= slow_hz * 1.2:
            raise InputError(FAST_HZ.id, f"{show(fast_hz, HERTZ)} is hardly faster than {show(slow_hz, HERTZ)}: two "
                                         "speeds that differ by half or more are wanted.")  # fmt: skip
        if gone_a > all_a * (1 + 1e-9):
            raise InputError(GONE_A.id, f"{show(gone_a, AMPERE)} is more than all of them together.")
        everyone = own_lamp(volts, all_a, None, "")
        spots = [Spot(h, o, lit, everyone.amps_at(lit))
                 for h, o, lit in ((slow_hz, slow_open, slow_lit), (fast_hz, fast_open, fast_lit))]  # fmt: skip
        w = winding_of(spots[0], spots[1], typed.value(WINDING.id))
        left = None if gone_a >= all_a * (1 - 1e-9) else own_lamp(volts, all_a - gone_a, None, "")
        load = Load(left, catalogue()[typed.choice(LED.id)], typed.count(LED_COUNT.id, _MOST), ohm)
        top = max(typed.value(TOP_HZ.id) or fast_hz, fast_hz)
        worked = _worked(w, everyone, load, (slow_hz, fast_hz, top), typed.figure(WINDING.id))
        doubt = _doubt(w, everyone, spots[0], read=typed.value(WINDING.id) is not None)
        return replace(worked, judged=gravest_first((*worked.judged, doubt)))


KIND = Magneto()


def _doubt(w: Winding, everyone: Lamp, slow: Spot, *, read: bool) -> Judged:
    """How well the winding is known."""
    if not read:
        return Judged("mind", "Resistance and inductance are both from the volts: a few per cent there move them much.",
                      "Its resistance, read with a meter, lamps out, settles it.")  # fmt: skip
    again = lamps_only(w, everyone, slow.hertz)
    off = round(100 * (again / slow.lit_v - 1)) + 0
    grade: Grade = "note" if abs(off) <= 100 * _AGREE else "mind"
    beside = f"{off:+d} % of what was read" if off else "as was read"
    return Judged(grade, f"From the faster speed the slow one comes to {show(again, VOLT)}, {beside}.",
                  "Over a tenth, a reading is off or the lamps are not those typed.")  # fmt: skip


def _winding_ohm(w: Winding, read: Typed | None) -> Shown:
    """The winding's resistance, from where it is."""
    if read is None:
        return shown(w.ohm, OHM, "from open and lit volts at two speeds")
    return shown(w.ohm, OHM, read.note or "as typed", read.source)


def _worked(w: Winding, everyone: Lamp, load: Load, speeds: tuple[float, float, float],
            read: Typed | None) -> Worked:  # fmt: skip
    slow, fast, top = speeds
    before = lamps_only(w, everyone, top)
    after, cycle = with_leds(w, load, top)
    whom = "the lamps that stay get" if load.lamp is not None else "what hangs on it gets"
    bare = w.emf(top)
    return Worked(
        line=f"At the fastest {whom} {show(after, VOLT)}, where it was {show(before, VOLT)}.",
        figures=(
            Figure("Winding's resistance", _winding_ohm(w, read)),
            Figure("Winding's inductance", shown(w.henry, HENRY, "from open and lit volts at two speeds")),
            Figure("Open at the fastest, RMS", shown(bare, VOLT, "EMF goes with the speed (Faraday)")),
            Figure("A regulator that shunts carries", shown(w.shorted(top), AMPERE, "EMF over |R + jωL|")),
            Figure("One in series stands, open crest", shown(bare * math.sqrt(2), VOLT, "√2 of the open volts")),
            Figure("In each LED at the fastest, mean", shown(_led_mean(cycle, load), AMPERE, "the settled cycle")),
        ),
        pictures=(_picture(w, everyone, load, top),),
        tables=(_table(w, everyone, load, (slow, fast, top)),),
        judged=_judged(w, everyone, load, top, (before, after), cycle),
        spice=write_deck(circuit(w, load, top, _ohm(load, after)), (f".tran {1 / top / 200:.6g} {40 / top:.6g}",)),
    )  # fmt: skip


def _ohm(load: Load, volts: float) -> float:
    return math.inf if load.lamp is None else float(ohms_at(load.lamp, np.array([volts]))[0])


def _led_mean(cycle: SteadyState, load: Load) -> float:
    return cycle.average(np.maximum(cycle.current("Rleds"), 0.0)) / load.count


def _picture(w: Winding, everyone: Lamp, load: Load, top: float) -> Picture:
    hertz = np.linspace(top / _SPEEDS, top, _SPEEDS)
    curves = (
        curve("All lamps as they were", "old", hertz, [lamps_only(w, everyone, float(h)) for h in hertz]),
        curve("With the LEDs", "new", hertz, [with_leds(w, load, float(h))[0] for h in hertz]),
        curve("The lamps' rating", "after", hertz, np.full(len(hertz), everyone.volts)),
    )
    return Picture("Volts over the speed", "Hz", "V RMS", curves)


def _table(w: Winding, everyone: Lamp, load: Load, speeds: tuple[float, ...]) -> Table:
    rows = []
    for label, hertz in zip(("Slow", "Fast", "Fastest"), speeds, strict=True):
        was, (now, cycle) = lamps_only(w, everyone, hertz), with_leds(w, load, hertz)
        cells = (
            shown(w.emf(hertz), VOLT, "EMF goes with the speed"), shown(was, VOLT, "phasors, filaments at rest"),
            shown(now, VOLT, "the settled cycle, filaments at rest"),
            shown(_led_mean(cycle, load), AMPERE, "the settled cycle"),
        )  # fmt: skip
        over = now / everyone.volts
        words = "" if load.lamp is None else f"{percent(over)} of their volts; a lamp's life × {_life(over)}"
        rows.append(Row(f"{label}, {show(hertz, HERTZ)}", cells, words))
    return Table("Before and after", ("Open", "Lamps, before", "Lamps, after", "Each LED"), tuple(rows))


def _life(over: float) -> str:
    """Life goes as V^−12 (miniature lamp handbooks, from memory)."""
    times = over**_LIFE_EXPONENT
    return number_text(times, 2) if times < 100 else "over 100"


def _judged(w: Winding, everyone: Lamp, load: Load, top: float, volts: tuple[float, float],
            cycle: SteadyState) -> tuple[Judged, ...]:  # fmt: skip
    out = []
    before, after = volts
    if load.lamp is not None and after > _OVER * everyone.volts:
        life = _life(after / everyone.volts)
        out.append(Judged(
            "stop", f"The lamps that stay get {show(after, VOLT)} of {show(everyone.volts, VOLT)}: life × {life}.",
            f"They burn out one after another. A regulator first, for {show(everyone.volts, VOLT)} and "
            f"{show(w.shorted(top), AMPERE)}; or the same lamps.",
        ))  # fmt: skip
    crest = float(cycle.current("Rleds").max()) / load.count
    if crest > load.led.rated_a:
        out.append(Judged(
            "stop", f"{show(crest, AMPERE)} in each LED at the crest, over its {show(load.led.rated_a, AMPERE)}.",
            f"A larger resistor: it must stand {show(float(np.abs(cycle.voltage('bus')).max()), VOLT)} at the fastest.",
        ))  # fmt: skip
    heat = cycle.average(cycle.current("Rleds") ** 2) * load.ohm / load.count**2
    out.append(
        Judged(
            "note", f"{show(heat, WATT)} in each LED's resistor at the fastest.", "Mean of I²R, its cycle."
        )
    )
    if before > _OVER * everyone.volts:
        out.append(Judged(
            "mind", f"With all lamps in they already had {show(before, VOLT)} at the fastest.",
            "They die early as it is: a regulator helps either way.",
        ))  # fmt: skip
    return gravest_first(out)
