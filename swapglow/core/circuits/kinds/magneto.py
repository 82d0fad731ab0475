"""Lamps that are the regulator of a magneto: what the others get once some of them draw next to nothing.

The winding is a source behind its resistance and its inductance, all from volts read open and loaded at two speeds:
lamps are resistors, so that E² = (V + I·R)² + (I·ω·L)² at each (phasors; Kirchhoff). E goes with the speed (Faraday).
"""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import CircuitResult, Figure, Picture, Row, Table, curve
from swapglow.core.circuits.toolkit import asks
from swapglow.core.circuits.toolkit.solved import Cycle, solve_cycle
from swapglow.core.circuits.toolkit.wiring import Wiring, over_time
from swapglow.core.engine.netlist import Inductor, Sine
from swapglow.core.engine.operating_point import NotConverged
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.network.filaments import ohms_at
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import Led
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
FAST_OPEN = Detail("fast_open", "Fast: AC volts, all lamps out", VOLT, "27V; out before it is started, and briefly")
FAST_LIT = Detail("fast_lit", "Fast: AC volts, all lamps lit", VOLT, "6.6V")
WINDING = Detail("coil_ohm", "The winding, read with a meter", OHM, "0.3R, cold, lamps out; empty works it out")
TOP_HZ = Detail("top_hz", "The fastest it ever runs", HERTZ, "260Hz; empty takes the fast one")
LAMP_V, _ = asks.lamp_details("6V", "", "The lamps'")
ALL_A = Detail("all_amps", "All of them together, rated", AMPERE, "4.5A: 27 W of 6 V", at="lamp_volts")
GONE_A = Detail("gone_amps", "Those that become LEDs, rated", AMPERE, "1A", at="lamp_volts")
LED_COUNT = Detail("led_count", "LEDs, each behind its own resistor", None, "2; empty takes one")
LED_OHM = asks.led_ohm("470R", "The resistor of each, all behind one bridge")

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
        ohm, henry: source resistance and inductance.
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
            raise InputError(detail.id, f"Lit, the volts at the {label} speed are not under those with all lamps out.")
    per = (slow.open_v / slow.hertz, fast.open_v / fast.hertz)
    if abs(per[1] / per[0] - 1) > _AGREE:
        raise InputError(
            FAST_OPEN.id,
            f"Open volts go with the speed: {number_text(1e3 * per[0], 3)} and "
            f"{number_text(1e3 * per[1], 3)} mV a hertz do not agree. Another reading, or a regulator is fitted.",
        )
    emf = (per[0] + per[1]) / 2
    if ohm is not None:
        square = _squared(fast, ohm)
        if square <= 0:
            raise InputError(WINDING.id, f"{show(ohm, OHM)} alone would take more than the volts that are lost.")
        return Winding(emf, ohm, math.sqrt(square))
    k = [(s.amps * 2 * math.pi * s.hertz) ** 2 for s in (slow, fast)]
    a = fast.amps**2 / k[1] - slow.amps**2 / k[0]
    b = 2 * (fast.lit_v * fast.amps / k[1] - slow.lit_v * slow.amps / k[0])
    c = (fast.lit_v**2 - fast.open_v**2) / k[1] - (slow.lit_v**2 - slow.open_v**2) / k[0]
    roots = [float(np.real(r)) for r in np.roots([a, b, c]) if abs(np.imag(r)) < 1e-9]
    fits = [r for r in roots if r >= 0 and _squared(slow, r) > 0]
    if len(fits) != 1:
        why = "No winding gives" if not fits else "Two windings give"
        raise InputError(FAST_LIT.id, f"{why} these volts at both speeds: read its resistance with a meter too.")
    return Winding(emf, max(fits[0], _LEAST_OHM), math.sqrt(_squared(slow, fits[0])))


def _squared(s: Spot, ohm: float) -> float:
    """L² by one speed, H²; less than nothing where the resistance alone would take more than what is lost."""
    return (s.open_v**2 - (s.lit_v + s.amps * ohm) ** 2) / (s.amps * 2 * math.pi * s.hertz) ** 2


@dataclass(frozen=True)
class MagnetoLoad:
    """A winding and what hangs on it.

    Attributes:
        winding: the source.
        read: its resistance where it was read.
        slow: the slow speed as it was read.
        fast_hz, top_hz: the faster one, and the fastest it ever runs.
        everyone: all lamps as they were, as one.
        left: the filaments that stay, as one; None for none.
        led, count, ohm: LEDs, each behind its own resistor, all behind one bridge.
    """

    winding: Winding
    read: Typed | None
    slow: Spot
    fast_hz: float
    top_hz: float
    everyone: Lamp
    left: Lamp | None
    led: Led
    count: int
    ohm: float

    @property
    def speeds(self) -> tuple[tuple[str, str, float], ...]:
        """Slow, fast and fastest."""
        return (("slow", "Slow", self.slow.hertz), ("fast", "Fast", self.fast_hz), ("top", "Fastest", self.top_hz))


def wired(m: MagnetoLoad, hertz: float, volts: float) -> Wiring:
    """Winding, filaments at rest at so many volts, and LEDs behind a bridge; lamps are between "bus" and ground.

    Args:
        m: winding and load.
        hertz: the speed.
        volts: RMS, at which the filaments rest.

    Returns:
        The wiring.
    """
    winding = m.winding
    w = Wiring("lamps on a magneto")
    w.source("Vemf", "emf", Sine(0.0, winding.emf(hertz) * math.sqrt(2), hertz))
    w.resistor("Rwinding", "emf", "coil", winding.ohm)
    w.add(Inductor("Lwinding", "coil", "bus", max(winding.henry, _LEAST_HENRY)))
    if m.left is not None:
        w.resistor("Rlamps", "bus", "0", float(ohms_at(m.left, np.array([volts]))[0]))
    w.bridge("bus", "0", "plus", "minus")
    w.resistors("Rleds", "plus", "leds", m.ohm, m.count)
    w.led("Dleds", "leds", "minus", m.led, parallel=m.count)
    return w


def lamps_only(winding: Winding, lamp: Lamp, hertz: float) -> float:
    """RMS volts at the filaments with nothing else there, by halving: one root, for lamps draw more the more they get.

    Args:
        winding: the winding.
        lamp: all filaments as one.
        hertz: the speed.

    Returns:
        V.
    """
    low, high = 0.0, winding.emf(hertz)
    for _ in range(_MOST_ROUNDS):
        middle = (low + high) / 2
        amps = middle / float(ohms_at(lamp, np.array([middle]))[0])
        low, high = (low, middle) if amps > winding.drives(hertz, middle) else (middle, high)
    return (low + high) / 2


@lru_cache(maxsize=64)
def with_leds(m: MagnetoLoad, hertz: float) -> tuple[float, Cycle]:
    """The settled cycle with LEDs on it, filaments at rest at their RMS volts.

    Args:
        m: winding and load.
        hertz: the speed.

    Returns:
        RMS volts at the lamps, and the cycle.

    Raises:
        NotConverged: there is no such cycle.
    """
    volts = m.winding.emf(hertz) if m.left is None else lamps_only(m.winding, m.left, hertz)
    for _ in range(_MOST_ROUNDS):
        cycle = solve_cycle(wired(m, hertz, volts), f"At {show(hertz, HERTZ)}")
        found = cycle.steady.rms(cycle.volts("bus"))
        if m.left is None or abs(found - volts) < _CLOSE * found:
            return found, cycle
        volts = found
    raise NotConverged("The lamps on this winding do not come to rest; nothing is shown for it.")


class Magneto(CircuitKind[MagnetoLoad]):
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
    parts = (
        ("Vemf", "magneto", "top_hz"),
        ("Rwinding", "the winding", "coil_ohm"),
        ("Lwinding", "its inductance", ""),
        ("Rlamps", "lamps left", "all_amps"),
        ("Rleds", "resistors", "ohm"),
        ("Dleds", "LEDs", "led"),
    )
    details = (
        SLOW_HZ,
        SLOW_OPEN,
        SLOW_LIT,
        FAST_HZ,
        FAST_OPEN,
        FAST_LIT,
        WINDING,
        TOP_HZ,
        LAMP_V,
        ALL_A,
        GONE_A,
        asks.led_detail(),
        LED_COUNT,
        LED_OHM,
    )

    def case(self, typed: Details) -> MagnetoLoad:
        """Winding and load as typed."""
        slow_hz, slow_open, slow_lit, fast_hz, fast_open, fast_lit, volts, all_a, gone_a, ohm = typed.needed(
            SLOW_HZ, SLOW_OPEN, SLOW_LIT, FAST_HZ, FAST_OPEN, FAST_LIT, LAMP_V, ALL_A, GONE_A, LED_OHM
        )
        if fast_hz <= slow_hz * 1.2:
            raise InputError(
                FAST_HZ.id,
                f"{show(fast_hz, HERTZ)} is hardly faster than {show(slow_hz, HERTZ)}: two "
                "speeds that differ by half or more are wanted.",
            )
        if gone_a > all_a * (1 + 1e-9):
            raise InputError(GONE_A.id, f"{show(gone_a, AMPERE)} is more than all of them together.")
        everyone = asks.rated_lamp(volts, all_a)
        slow, fast = (
            Spot(h, o, lit, everyone.amps_at(lit))
            for h, o, lit in ((slow_hz, slow_open, slow_lit), (fast_hz, fast_open, fast_lit))
        )
        left = None if gone_a >= all_a * (1 - 1e-9) else asks.rated_lamp(volts, all_a - gone_a)
        return MagnetoLoad(
            winding_of(slow, fast, typed.value(WINDING.id)),
            typed.figure(WINDING.id),
            slow,
            fast_hz,
            max(typed.value(TOP_HZ.id) or fast_hz, fast_hz),
            everyone,
            left,
            asks.read_led(typed),
            typed.count(LED_COUNT.id, _MOST),
            ohm,
        )

    def states(self, case: MagnetoLoad) -> tuple[Cycle, ...]:
        """The fastest it ever runs."""
        return (with_leds(case, case.top_hz)[1],)

    def report(self, job: Job[MagnetoLoad]) -> CircuitResult:
        """The winding, what the lamps that stay then get over the speed, and what a regulator must stand."""
        m, winding = job.now, job.now.winding
        before, (after, cycle) = lamps_only(winding, m.everyone, m.top_hz), with_leds(m, m.top_hz)
        whom = "the lamps that stay get" if m.left is not None else "what hangs on it gets"
        bare, spots = winding.emf(m.top_hz), "from open and lit volts at two speeds"
        return CircuitResult(
            line=f"At the fastest {whom} {show(after, VOLT)}, where it was {show(before, VOLT)}.",
            figures=(
                Figure("winding-ohm", "Winding's resistance", _winding_ohm(m)),
                Figure("winding-henry", "Winding's inductance", shown(winding.henry, HENRY, spots)),
                Figure("open", "Open at the fastest, RMS", shown(bare, VOLT, "EMF goes with the speed (Faraday)")),
                Figure(
                    "shunt-amps",
                    "A regulator that shunts carries",
                    shown(winding.shorted(m.top_hz), AMPERE, "EMF over |R + jωL|"),
                ),
                Figure(
                    "series-crest",
                    "One in series stands, open crest",
                    shown(bare * math.sqrt(2), VOLT, "√2 of the open volts"),
                ),
                Figure(
                    "led",
                    "In each LED at the fastest, mean",
                    shown(cycle.mean("Rleds") / m.count, AMPERE, "the settled cycle"),
                ),
            ),
            pictures=(_picture(m),),
            tables=(_table(m),),
            findings=(*_findings(m, before, after, cycle), _doubt(m)),
            spice=wired(m, m.top_hz, after).deck(over_time(m.top_hz)),
        )


KIND = Magneto()


def _doubt(m: MagnetoLoad) -> Finding:
    """How well the winding is known."""
    if m.read is None:
        return Finding(
            "winding-unread",
            "mind",
            "Resistance and inductance are both from the volts: a few per cent there move them much.",
            why="Its resistance, read with a meter, lamps out, settles it.",
        )
    again = lamps_only(m.winding, m.everyone, m.slow.hertz)
    off = round(100 * (again / m.slow.lit_v - 1)) + 0
    beside = f"{off:+d} % of what was read" if off else "as was read"
    return Finding(
        "slow-check",
        "note" if abs(off) <= 100 * _AGREE else "mind",
        f"From the faster speed the slow one comes to {show(again, VOLT)}, {beside}.",
        why="Over a tenth, a reading is off or the lamps are not those typed.",
    )


def _winding_ohm(m: MagnetoLoad) -> Shown:
    """The winding's resistance, from where it is."""
    if m.read is None:
        return shown(m.winding.ohm, OHM, "from open and lit volts at two speeds")
    return shown(m.winding.ohm, OHM, m.read.note or "as typed", m.read.source)


def _picture(m: MagnetoLoad) -> Picture:
    hertz = np.linspace(m.top_hz / _SPEEDS, m.top_hz, _SPEEDS).tolist()
    curves = (
        curve("All lamps as they were", "old", hertz, [lamps_only(m.winding, m.everyone, h) for h in hertz]),
        curve("With the LEDs", "new", hertz, [with_leds(m, h)[0] for h in hertz]),
        curve("The lamps' rating", "after", hertz, [m.everyone.volts] * len(hertz)),
    )
    return Picture("volts", "Volts over the speed", "Hz", "V RMS", curves)


def _table(m: MagnetoLoad) -> Table:
    rows = []
    for id_, label, hertz in m.speeds:
        now, cycle = with_leds(m, hertz)
        cells = (
            shown(m.winding.emf(hertz), VOLT, "EMF goes with the speed"),
            shown(lamps_only(m.winding, m.everyone, hertz), VOLT, "phasors, filaments at rest"),
            shown(now, VOLT, "the settled cycle, filaments at rest"),
            shown(cycle.mean("Rleds") / m.count, AMPERE, "the settled cycle"),
        )
        over = now / m.everyone.volts
        words = "" if m.left is None else f"{percent(over)} of their volts; a lamp's life × {_life(over)}"
        rows.append(Row(id_, f"{label}, {show(hertz, HERTZ)}", cells, words))
    heads = ("Open", "Lamps, before", "Lamps, after", "Each LED")
    return Table("speeds", "Before and after", heads, tuple(rows))


def _life(over: float) -> str:
    """Life goes as V^−12 (miniature lamp handbooks, from memory)."""
    times = over**_LIFE_EXPONENT
    return number_text(times, 2) if times < 100 else "over 100"


def _findings(m: MagnetoLoad, before: float, after: float, cycle: Cycle) -> list[Finding]:
    out = []
    rated = m.everyone.volts
    if m.left is not None and after > _OVER * rated:
        out.append(
            Finding(
                "over-volts",
                "stop",
                f"The lamps that stay get {show(after, VOLT)} of {show(rated, VOLT)}: life × {_life(after / rated)}.",
                show(after, VOLT),
                show(_OVER * rated, VOLT),
                f"They burn out one after another. A regulator first, for {show(rated, VOLT)} and "
                f"{show(m.winding.shorted(m.top_hz), AMPERE)}; or the same lamps.",
            )
        )
    heat = cycle.rms("Rleds") ** 2 * m.ohm / m.count**2
    out.append(
        Finding(
            "resistor-heat",
            "note",
            f"{show(heat, WATT)} in each LED's resistor at the fastest.",
            why="Mean of I²R, its cycle.",
        )
    )
    if before > _OVER * rated:
        out.append(
            Finding(
                "over-volts-before",
                "mind",
                f"With all lamps in they already had {show(before, VOLT)} at the fastest.",
                why="They die early as it is: a regulator helps either way.",
            )
        )
    return out
