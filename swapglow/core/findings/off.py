"""Off is off: light from what leaks past a driver that is off."""

from collections.abc import Iterable
from dataclasses import replace

from swapglow.core.analysis.original_lamp import original_point, seen_candela
from swapglow.core.analysis.shunts import dark_shunt, knee_ohm
from swapglow.core.analysis.solution import solve
from swapglow.core.analysis.states import StateSolution, state_solutions
from swapglow.core.design.position import Across, Position
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, rule
from swapglow.core.parts import led as leds
from swapglow.core.photometry.intensity import amps_for, led_candela, times_the_light
from swapglow.core.photometry.visibility import DARK_ROOM_CD, LIT_ROOM_CD, WORDS, visibility
from swapglow.core.quantities import AMPERE, CANDELA, OHM, VOLT, WATT, show


@rule
def glows_when_off(c: Context) -> Iterable[Finding]:
    """The trickle past the driver is seen."""
    off = c.state("off")
    if off is None or not c.position.rail.supply.kind.glow_in_any_state:
        return
    p = c.position
    candela = led_candela(p, off.string_current_max)
    where = visibility(candela)
    if where == "dark":
        return
    in_lit = where == "lit_room"
    limit = amps_for(p, LIT_ROOM_CD if in_lit else DARK_ROOM_CD)
    yield Finding(
        "glows-when-off",
        "stop" if in_lit else "mind",
        f"Off, {show(off.string_current_max, AMPERE)} still runs through the LED: {WORDS[where]}.",
        show(off.string_current_max, AMPERE),
        show(limit, AMPERE),
        f"{_path(p)} Up to {show(candela, CANDELA, 2)}; {_filament(p)}. " + _knee(p, off),
        c.offer(lambda: (*take_out(p), *shunts(p), *_other_led(p, off), *_diodes(c))),
    )


def _filament(p: Position) -> str:
    """What the old lamp makes of the same trickle."""
    found = original_point(p, "off", p.rail.volts[2])
    light = None if found is None else seen_candela(p, found[0])
    if light is None:
        return "a filament hardly shows on a trickle, an LED does"
    return f"the old lamp was {WORDS[visibility(light)]} on it"


def _path(p: Position) -> str:
    d = p.driver
    if d.keep_warm_ohm is not None:
        text = f"{show(d.keep_warm_ohm, OHM)} across the driver kept a filament warm."
        if d.hangs_on:
            text += f" Prove that {d.hangs_on} still works if it comes out."
        return text
    return f"The driver leaks {show(d.leak_a, AMPERE)}."


def _knee(p: Position, off: StateSolution) -> str:
    ohm = knee_ohm(p)
    if ohm is None:
        return ""
    knee = off.lamp_v[1]
    return (
        f"At the knee practice takes a shunt under {show(ohm, OHM, 2)}; the lamp's contacts stand at "
        f"{show(float(knee), VOLT)} now."
    )


def take_out(p: Position) -> tuple[Remedy, ...]:
    """Take out the keep-warm resistor; none where there is none."""
    keep = p.driver.keep_warm_ohm
    if keep is None:
        return ()
    after = f", and prove that {p.driver.hangs_on} still works" if p.driver.hangs_on else ""
    return (
        Remedy(
            "remove-bleed", f"Take out the {show(keep, OHM)} keep-warm resistor{after}", {"driver.keep_warm_ohm": None}
        ),
    )


def shunts(p: Position) -> Iterable[Remedy]:
    """A shunt across the whole assembly or the LED alone that keeps it dark."""
    places: tuple[tuple[Across, str], ...] = (("assembly", "LED and resistor"), ("leds", "the LED alone"))
    for across, what in places:
        found = dark_shunt(p, across, DARK_ROOM_CD)
        if found is None:
            continue
        yield Remedy(
            f"shunt-{across}",
            f"Put {show(found.ohm, OHM)} {found.rating_w:g} W across {what} "
            f"({show(found.watts, WATT, 2)} while lit; reversible)",
            {"shunt_ohm": found.ohm, "shunt_across": across, "shunt_w": found.rating_w},
        )


def _other_led(p: Position, off: StateSolution) -> Iterable[Remedy]:
    """An LED of the same colour and forward voltage that is too dim to be seen on the trickle."""
    shows = led_candela(p, off.string_current_max)
    if visibility(shows) != "lit_room":
        return
    alike = (k for k in leds.catalogue().values() if (k.colour, k.material) == (p.led.colour, p.led.material))
    dark = [k for k in alike if (times := times_the_light(p, k)) < 1 and times * shows < LIT_ROOM_CD]
    if dark:
        best = max(dark, key=lambda k: times_the_light(p, k))
        yield Remedy("dimmer-led", f"Use {best.label.lower()}: dark in a lit room", {"led_id": best.id})


def _diodes(c: Context) -> Iterable[Remedy]:
    """Diodes raise the knee; offered only where they leave it dark and still let it light."""
    p = c.position
    for count in range(p.series_diodes + 1, 4):
        trial = replace(p, series_diodes=count, resistor_ohm=None)
        s = solve(trial)
        off = next((t for t in state_solutions(s) if t.state == "off"), None)
        if off is None or s.string_current_min < p.target.value / 4:
            return
        if visibility(led_candela(p, off.string_current_max)) == "dark":
            many = "a diode" if count == 1 else f"{count} diodes"
            yield Remedy(
                "series-diodes", f"Put {many} in series with the LED", {"series_diodes": count, "resistor_ohm": None}
            )
            return
