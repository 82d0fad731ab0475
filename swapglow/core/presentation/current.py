"""Section: what the LED carries at every corner, and what the supply gives."""

from dataclasses import dataclass
from typing import Literal

from swapglow.core.analysis.solution import CORNERS, Solution
from swapglow.core.quantities import AMPERE, OHM, VOLT, Shown, show, shown


@dataclass(frozen=True)
class Corner:
    """The current at one rail level with one LED."""

    rail: Literal["low", "usual", "high"]
    led: Literal["highest", "typical", "lowest"]
    current: Shown


@dataclass(frozen=True)
class CurrentReport:
    """Currents of one string: typical LED at three rails, and every corner; ``supply`` is all strings' most."""

    low: Shown
    usual: Shown
    high: Shown
    supply: Shown
    corners: tuple[Corner, ...]


def current_section(s: Solution) -> CurrentReport:
    """Every current with the corner it is of."""
    p = s.position
    fitted = show(s.sizing.total_ohm, OHM)
    rails = p.rail.volts
    vfs = (p.led.vf_high, p.led.vf_typ, p.led.vf_low)

    def origin(rail: float, vf: float) -> str:
        return f"{show(rail, VOLT)} rail, {show(vf, VOLT)} LED, {fitted}"

    nominal = CORNERS["ohms"].index("nominal")
    corners = tuple(
        Corner(rail, led, shown(float(s.amps[i, j, nominal]), AMPERE, origin(rails[i], vfs[j])))  # type: ignore[arg-type]  # the axes' own names
        for i, rail in enumerate(CORNERS["rail"])
        for j, led in enumerate(CORNERS["led"])
    )
    low, usual, high = (shown(float(s.usual[i]), AMPERE, origin(rails[i], vfs[1])) for i in range(3))
    together = f"{p.branches} strings and what else hangs on them" if p.branches > 1 else "the whole circuit"
    supply = shown(s.supply_current_max, AMPERE, f"{together}, at its most" + (", RMS" if s.ac else ""))
    return CurrentReport(low, usual, high, supply, corners)
