"""Everything else on the lamp's feed: what it sees once the lamp draws less."""

from collections.abc import Iterable

from swapglow.core.analysis.shared_feed import Neighbour, bleeder, neighbours, neighbours_on_ac
from swapglow.core.design.position import Position
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, rule
from swapglow.core.photometry.words import times
from swapglow.core.quantities import AMPERE, OHM, VOLT, percent, show

# A filament's life goes as V^−12: five per cent more volts nearly halves it.
LAMP_MARGIN = 1.05


def _around(c: Context) -> tuple[Neighbour, ...]:
    """The parts on the shared feed, in every state solved."""
    ac = None if c.solution is None else c.solution.ac
    return neighbours(c.position, c.states) if ac is None else neighbours_on_ac(c.position, ac)


@rule
def over_its_volts(c: Context) -> Iterable[Finding]:
    """A part on the shared feed that now sees more than it may."""
    for n in _worst(_around(c)):
        most = n.load.most_v or (n.load.lamp.volts * LAMP_MARGIN if n.load.lamp else None)
        if most is None or n.highest_v <= most:
            continue
        if not n.moved:
            yield Finding(
                f"neighbour-was-over-{n.load.name}",
                "note",
                f"{n.load.name[0].upper()}{n.load.name[1:]} sees {show(n.highest_v, VOLT)} as it did before the "
                f"swap; it may see {show(most, VOLT)}.",
                show(n.highest_v, VOLT),
                show(most, VOLT),
                "The LED does not change it, with the lamp switched off.",
            )
            continue
        life = ""
        if n.load.lamp is not None:
            life = f" Its life falls to {percent((n.highest_v / n.load.lamp.volts) ** -12)} (V^−12)."
        yield Finding(
            f"neighbour-over-{n.load.name}",
            "stop" if n.load.most_v else "mind",
            f"{n.load.name[0].upper()}{n.load.name[1:]} would see {show(n.highest_v, VOLT)}; "
            f"it may see {show(most, VOLT)}.",
            show(n.highest_v, VOLT),
            show(most, VOLT),
            _moves(n) + life,
            c.offer(lambda: _bleeder(c)),
        )


@rule
def changed(c: Context) -> Iterable[Finding]:
    """Volts on the others move, though nothing is over its limit."""
    every = [n for n in _around(c) if n.state == "on" and n.before_v]
    moved = [n for n in every if n.moved]
    if not moved:
        return
    first = moved[0]
    each = "; ".join(
        f"{n.load.name} {show(n.amps, AMPERE)}" + (f", {times(n.light)} × the light" if n.light else "") for n in moved
    )
    yield Finding(
        "neighbours-change",
        "note",
        _moves(first),
        show(first.after_v, VOLT),
        show(first.before_v or 0.0, VOLT),
        f"Less current through the shared {show(c.position.driver.dropper_ohm, OHM)} means more volts behind it. "
        f"Now: {each}.",
        c.offer(lambda: _bleeder(c)),
    )


def _moves(n: Neighbour) -> str:
    before = "" if n.before_v is None else f"from {show(n.before_v, VOLT)} "
    return f"The shared feed goes {before}to {show(n.after_v, VOLT)}" + (
        " with the LED lit." if n.state == "on" else " with the lamp switched off."
    )


def _worst(every: tuple[Neighbour, ...]) -> list[Neighbour]:
    """Each load once, where it sees most of what the swap changes; else where it sees most."""
    found: dict[str, Neighbour] = {}
    for n in every:
        best = found.get(n.load.name)
        if best is None or (n.moved, n.highest_v) > (best.moved, best.highest_v):
            found[n.load.name] = n
    return list(found.values())


def _bleeder(c: Context) -> tuple[Remedy, ...]:
    p = c.position
    return () if p.shunt_ohm is not None else hold_feed(p, c.current_usual * p.branches)


def hold_feed(p: Position, led_a: float) -> tuple[Remedy, ...]:
    """A resistor across the LED that draws what the old lamp drew beyond it.

    Args:
        p: the swap.
        led_a: what the LEDs draw, all branches, A.

    Returns:
        The remedy; none where nothing is missing or no part will do.
    """
    found = bleeder(p, led_a)
    if found is None:
        return ()
    ohm, rating = found
    label = f"Put {show(ohm, OHM)} {rating:g} W across the LED: the feed stays where it was"
    changes: dict[str, float | int | str | None] = {
        "shunt_ohm": ohm,
        "shunt_across": "assembly",
        "shunt_w": rating,
        "resistor_ohm": None,
    }
    return (Remedy("bleeder", label, changes),)


@rule
def others_go_dark(c: Context) -> Iterable[Finding]:
    """Filaments left in series with an LED."""
    p, on = c.position, c.state("on")
    ac = None if c.solution is None else c.solution.ac
    others = p.driver.remaining_lamps
    if others and ac is not None:
        volts = float(ac.typical.left_rms[1])
    elif others and on is not None:
        volts = float(abs(on.point.across("Rleft1")[on.typical[1]]))
    else:
        return
    yield Finding(
        "others-go-dark",
        "stop" if volts < others[0].volts / 3 else "mind",
        f"The {'lamps' if len(others) > 1 else 'lamp'} left in the loop would have {show(volts, VOLT)} "
        f"of {show(others[0].volts, VOLT)}: dark.",
        show(volts, VOLT),
        show(others[0].volts, VOLT),
        "In series they all carry the LED's current. Change them all: one string with one resistor, or "
        "branches with a resistor each.",
        change_all(p),
    )


def change_all(p: Position) -> tuple[Remedy, Remedy]:
    """All lamps of a loop changed: one string, or branches."""
    count = len(p.driver.others) + 1
    return (
        Remedy(
            "one-string",
            f"Change all {count}: one string of {count} LEDs",
            {"driver.others_changed": 1, "in_series": count, "resistor_ohm": None},
        ),
        Remedy(
            "in-branches",
            f"Change all {count}: {count} LEDs side by side, a resistor each",
            {"driver.others_changed": 1, "branches": count, "in_series": 1, "resistor_ohm": None},
        ),
    )
