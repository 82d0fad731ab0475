"""When it still flashes fast after the swap: the tests in their order, and what each outcome means."""

from collections.abc import Iterable

from swapglow.core.analysis.load_resistor import Watch, watch
from swapglow.core.analysis.states import StateSolution
from swapglow.core.design.position import Position
from swapglow.core.kinds.step import Meaning, NextStep
from swapglow.core.parts.meter import amp_range
from swapglow.core.quantities import AMPERE, OHM, show

_CARE = "Engine off, lead off while parts change. Load resistors burn skin: let them cool."


def fast_flash(position: Position, on: StateSolution | None) -> tuple[NextStep, ...]:
    """The tests still owed, in the order of least work (common practice).

    Args:
        position: the swap.
        on: its lit state, solved; None where it has none.

    Returns:
        Steps in order; none where nobody tried it, or it keeps time.
    """
    p = position
    if p.driver.still_fast != "yes" or on is None or not p.driver.watches:
        return ()
    return tuple(_tests(p, watch(p, on)))


def _tests(p: Position, w: Watch | None) -> Iterable[NextStep]:
    def test(
        key: str,
        act: str,
        state: str,
        expect: str,
        why: str,
        *meanings: tuple[str, str],
        meter: str = "no meter: count the flashes",
    ) -> NextStep:
        return NextStep(
            f"fast-{key}",
            act,
            meter,
            "at the lamp",
            state,
            expect,
            None,
            why,
            _CARE,
            tuple(Meaning(answer, means) for answer, means in meanings),
        )

    if p.module is None or p.module.polarised:
        yield test(
            "turned",
            "Turn the LED lamp round in its holder",
            "signal on",
            "it lights",
            "One that lights one way round only draws nothing turned.",
            ("lights, rate right", "it was in backwards"),
            ("lights, still fast", "not that: go on"),
            ("dark", "it was right before: turn it back"),
        )
    yield test(
        "reread",
        "Let the controller read its lamps again: ignition off, lamp in, ignition on",
        "ignition cycled",
        "60 to 120 a minute",
        "Some controllers remember a failed lamp until they are started anew.",
        ("rate right", "it remembered the old fault"),
        ("still fast", "it counts what is there now: go on"),
    )
    if p.shunt_ohm is None:
        yield test(
            "current",
            "Read what the whole circuit draws",
            "lit steadily, flasher bridged",
            f"{show(w.sees, AMPERE)}" if w else "the old lamps' current",
            "What is missing is what the flasher wants less what it sees.",
            ("as expected", "the trip current is higher than taken"),
            ("less", "a bad ground, or a lamp more is out"),
            meter=amp_range(max(w.needs.value if w else 5.0, 1.0)),
        )
        return
    lower = show(_lower(p, w, p.shunt_ohm), OHM, 2)
    yield test(
        "onset",
        "Let it flash for a full minute and note when it turns fast",
        "signal on, one minute",
        "from the first flash, or later",
        "A lamp that throttles as it warms draws less only after a while.",
        ("from the first flash", "too little current: a step lower"),
        ("after most of a minute", "the LED lamp throttles: another make, or a flasher that does not count"),
    )
    yield test(
        "lower",
        f"Try a step lower: {lower} in place of {show(p.shunt_ohm, OHM)}",
        "signal on",
        "60 to 120 a minute",
        "Tolerances of flasher and resistor add up.",
        ("rate right", "the trip lies between the two"),
        ("still fast", "not the value: prove the cause next"),
    )
    yield test(
        "unplug",
        "Unplug one lead of the load resistor",
        "signal on",
        "it flashes faster than before",
        "It proves that the load does anything at all.",
        ("faster", "it works, and is not enough"),
        ("no change", "its tap has no contact, or it is on another circuit"),
    )


def _lower(p: Position, w: Watch | None, fitted: float) -> float:
    """The load to try next, Ω: it halves what is not known between too little and enough."""
    if w is None or w.missing <= 0:
        return fitted / 1.2
    more = w.try_next - w.sees
    return 1 / (1 / fitted + max(more, 0.0) / p.rail.volts[1])
