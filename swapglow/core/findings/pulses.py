"""Check pulses that a filament is too slow to show."""

from collections.abc import Iterable

from swapglow.core.analysis.check_pulse import flash, swallowing
from swapglow.core.design.position import Position
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, rule
from swapglow.core.network.builder import CannotBuild
from swapglow.core.photometry.visibility import DARK_ROOM_CD, LIT_ROOM_CD, WORDS, visibility
from swapglow.core.quantities import AMPERE, CANDELA, FARAD, HERTZ, OHM, SECOND, show


@rule
def pulses_are_seen(c: Context) -> Iterable[Finding]:
    """The LED flashes on the controller's check pulses."""
    p, d = c.position, c.position.driver
    try:
        found = flash(p)
    except CannotBuild as problem:
        yield Finding(
            "check-pulse-unknown",
            "mind",
            f"What it shows of the check pulses is not known: {problem.message}",
            "not worked out",
            "dark",
            "Look for a flash with the controller awake and the lamp off.",
        )
        return
    if found is None:
        return
    where = visibility(found.candela)
    if where == "dark":
        return
    limit = LIT_ROOM_CD if where == "lit_room" else DARK_ROOM_CD
    yield Finding(
        "check-pulse-seen",
        "mind",
        f"It flashes on the check pulses, {show(d.pulse_s, SECOND)} at {show(found.peak_a, AMPERE)}: {WORDS[where]}.",
        show(found.candela, CANDELA, 2),
        show(limit, CANDELA, 2),
        f"{show(1 / d.period_s, HERTZ, 2)}; as steady light it looks like {show(found.candela, CANDELA, 2)} "
        "(Blondel and Rey 1911). A load resistor clears the warning, not the flash.",
        c.offer(lambda: _remedies(p)),
    )


def _remedies(p: Position) -> list[Remedy]:
    """No pulses at all, or a part that swallows them."""
    remedies = [Remedy("coding", "Have the controller coded for LEDs: no pulses", {"driver.monitors_current": 0})]
    swallow = swallowing(p, DARK_ROOM_CD)
    if swallow is not None:
        farads, ohm = swallow
        remedies.append(
            Remedy(
                "swallow-pulse",
                f"Put {show(farads, FARAD)} and {show(ohm, OHM)} across the LEDs: the pulse stays "
                "under the knee; try that the check still passes",
                {"capacitor_f": farads, "shunt_ohm": ohm, "shunt_across": "leds"},
            )
        )
    return remedies
