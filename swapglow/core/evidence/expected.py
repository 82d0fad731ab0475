"""A reading after the swap against what was expected."""

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import Solution
from swapglow.core.analysis.states import rails_in, state_of
from swapglow.core.design.position import Position
from swapglow.core.evidence.metered import OL_V, as_shown, as_taken, comparable, last_digit, metered
from swapglow.core.measurement.reading_after import LOOKS, POWER_OFF, ReadingAfter
from swapglow.core.network.cases import Cases
from swapglow.core.parts.meter import ACCURACY
from swapglow.core.quantities import AMPERE, OHM, VOLT, Shown, show

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Diagnosis:
    """A reading after the swap against the expected band.

    Attributes:
        id, kind, state: of the reading.
        reading: what was read.
        expected, low, high: the band.
        agrees: whether it lies in it.
        line: the same in words.
        cannot: why no fault of the lamp can make such a reading; "" where one can.
        since: what was changed since it was read, so that it is compared with nothing; "" where nothing was.
    """

    id: str
    kind: str
    state: str
    reading: Shown
    expected: Shown
    low: Shown
    high: Shown
    agrees: bool
    line: str
    cannot: str
    since: str = ""


def band(s: Solution, reading: ReadingAfter) -> tuple[float, float, float]:
    """Lowest, usual and highest expected reading over all corners, meter included.

    Args:
        s: the solved position.
        reading: what is read, with what the meter adds; its value does not matter.

    Returns:
        A, V or Ω; :data:`OL_V` stands for a meter that shows no end. Of a ready-made lamp all insides count that it
        may have.

    Raises:
        NotConverged: a case has no answer.
    """
    # Whose it is, what was noted and what it showed move no corner.
    blank = replace(reading, id="", value=0.0, note="", whose="this")
    found = [_corners(p, s.sizing.total_ohm, blank) for p in s.position.possible]
    counts = OL_V / 100 if reading.kind == "led_turned" else 0.0
    return (
        min(float(read.min()) for read, _ in found) * (1 - ACCURACY) - counts,
        found[0][1],
        max(float(read.max()) for read, _ in found) * (1 + ACCURACY),
    )


@lru_cache(maxsize=512)
def _corners(p: Position, total_ohm: float, reading: ReadingAfter) -> tuple[FloatArray, float]:
    """What the meter shows at every corner, and usually."""
    tol = p.ohm_spread
    rail = rails_in(p, state_of(p, reading.state), np.array(p.rail.volts))
    vf = np.array([p.led.vf_high, p.led.vf_typ, p.led.vf_low])
    ohms = total_ohm * np.array([1 + tol, 1.0, 1 - tol])
    if p.rail.supply.alternates and reading.kind not in POWER_OFF:
        # A cycle is dear: the ends and the middle, between which the current only rises.
        read = metered(p, reading, Cases(rail, vf, ohms, p.drop_v, held=_held(p, 1)))
        return read, float(read[1])
    volts, forward, fitted = (v.ravel() for v in np.meshgrid(rail, vf, ohms, indexing="ij"))
    spread = p.drops[0] != p.drops[2]
    drops = np.repeat(np.array(p.drops)[::-1] if spread else np.full(3, p.drop_v), 9)
    read = metered(p, reading, Cases(volts, forward, fitted, drops, held=_held(p, 9)))
    return read, float(read[13])


def _held(p: Position, times: int) -> FloatArray | None:
    """What a fixed regulator holds, as lucky as the rail; None without one."""
    return np.repeat(np.array(p.held_v), times) if p.held_v[1] else None


def diagnose(s: Solution, reading: ReadingAfter) -> Diagnosis:
    """Does the reading agree.

    Args:
        s: the solved position.
        reading: as taken, the meter in.

    Returns:
        The reading against its expected band.

    Raises:
        NotConverged: a case has no answer.
    """
    if reading.kind in LOOKS:
        return _looked(reading)
    low, usual, high = band(s, reading)
    value, least = comparable(reading), last_digit(reading.kind)
    # A digit of nothing is nothing.
    agrees = low <= value <= high or (high < least and value < least)
    corners = "all corners of rail, LED and resistor with the meter in, and 1.5 % of meter"
    expected = as_shown(usual, reading.kind, "usual rail, typical LED, with the meter in")
    ends = as_shown(low, reading.kind, corners), as_shown(high, reading.kind, corners)
    between = f"expected {expected.text}, {ends[0].text} to {ends[1].text}."
    side = "under" if value < low else "over"
    line = f"{reading.text} agrees: {between}" if agrees else f"{reading.text} is {side} the {between}"
    return Diagnosis(
        reading.id,
        reading.kind,
        reading.state,
        as_taken(reading, "read at the bench"),
        expected,
        *ends,
        agrees,
        line,
        "" if agrees else _cannot(s, reading),
    )


def _looked(reading: ReadingAfter) -> Diagnosis:
    """A look: a lamp that is switched on is lit."""
    own, lit = as_taken(reading, "seen at the bench"), as_shown(1.0, reading.kind, "a lamp as it should be")
    agrees = reading.seen == "lit"
    line = f"Seen: {reading.text}." if agrees else f"Seen: {reading.text}. Switched on, it should be lit."
    return Diagnosis(reading.id, reading.kind, reading.state, own, lit, lit, lit, agrees, line, "")


def outlived(reading: ReadingAfter, since: str) -> Diagnosis:
    """A reading of a circuit that is there no more.

    Args:
        reading: as taken.
        since: what was changed.

    Returns:
        It, compared with nothing.
    """
    own = as_taken(reading, "read at the bench")
    line = f"{reading.text} was read on another circuit: {since}. Read it again."
    return Diagnosis(reading.id, reading.kind, reading.state, own, own, own, own, True, line, "", since)


def _cannot(s: Solution, reading: ReadingAfter) -> str:
    """Why no fault in the lamp can make a reading: more than the rail can drive through what is fitted."""
    p, unit = s.position, reading.unit
    highest = p.rail.peaks[2]
    if reading.kind in POWER_OFF:
        return ""
    if reading.kind != "current":
        if reading.value <= highest * 1.1:
            return ""
        return (
            f"{show(reading.value, unit)} is more than the rail's {show(highest, VOLT)}: another range, or another "
            "rail. Read the rail itself."
        )
    if p.module is not None or p.set_by_ohms:
        return ""
    strings = p.branches if reading.of == "all" else 1
    needs = reading.value / strings * s.sizing.total_ohm * (1 - p.ohm_spread)
    if needs <= highest * 1.1 or p.shunt_ohm is not None or p.beside:
        return ""
    fitted, rail = show(s.sizing.total_ohm, OHM), show(highest, VOLT)
    return (
        f"{show(reading.value, AMPERE)} through {fitted} takes {show(needs, VOLT)}, and the rail reaches {rail}: it is "
        "not that resistor, or the meter stands on another range. Read the resistor's ohms, power off."
    )
