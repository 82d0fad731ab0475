"""The next thing on the bench: always one."""

from swapglow.core.bench.meter import amp_range, volt_range
from swapglow.core.position.solution import Solution
from swapglow.core.quantities import AMPERE, OHM, VOLT, Source, show
from swapglow.core.report import NextStep, Pencil, Verdict

# A pencilled figure that moves the current less than this is not worth a reading of its own.
WORTH_READING = 0.05


def next_step(
    s: Solution, pencil: Pencil, verdicts: tuple[Verdict, ...], *, closed: bool = False
) -> NextStep:
    """What to do now, by what is pencilled and what has been tried."""
    if verdicts and not verdicts[-1].agrees:
        return _chase(verdicts[-1])
    if closed:
        return _look_again(s)
    if verdicts:
        return _close_up(s)
    rail = s.position.rail
    if rail.usual.source is not Source.MEASURED:
        return _read_rail(s, "rail_usual")
    worth = [
        i for i in pencil.items
        if i.source.is_pencil and i.swing_a > WORTH_READING * max(s.usual[1], 1e-9)
    ]  # fmt: skip
    if worth:
        first = worth[0].id
        if first in ("rail_low", "rail_high"):
            return _read_rail(s, first)
        if first == "driver_drop":
            return _read_driver(s)
        if first == "led_vf":
            return _read_vf(s)
    return _try_on_clips(s)


_RAIL_WORDS = {
    "rail_usual": ("Read the rail", "as it usually runs"),
    "rail_low": ("Read the rail at its lowest", "everything on that loads it"),
    "rail_high": ("Read the rail at its highest", "everything off that loads it, or charging"),
}


def _read_rail(s: Solution, which: str) -> NextStep:
    rail = s.position.rail
    figure = {"rail_usual": rail.usual, "rail_low": rail.low, "rail_high": rail.high}[which]
    act, state = _RAIL_WORDS[which]
    lamp = rail.read_at == "lamp"
    points = "across the lamp's own contacts" if lamp else "feed, before the switch, to ground"
    return NextStep(
        which, act, volt_range(figure.value * 1.2), points,
        f"lamp in and lit, {state}" if lamp else state,
        f"about {show(figure.value, VOLT)}", which,
        "The resistor is sized on it, and it is still pencil.",
        "Mains or high tension in the case: leave it to someone qualified.",
    )  # fmt: skip


def _read_driver(s: Solution) -> NextStep:
    drop = s.position.driver_drop.value
    return NextStep(
        "driver_drop", "Read what the driver keeps", volt_range(2.0),
        "across switch or transistor", "lamp in and lit", f"about {show(drop, VOLT)}", "driver_drop",
        "0.1 to 0.3 V for a transistor, 0.7 to 1.1 V for a Darlington.", "",
    )  # fmt: skip


def _read_vf(s: Solution) -> NextStep:
    led = s.position.led
    return NextStep(
        "led_vf", "Read this LED's forward voltage", volt_range(led.vf_high),
        "across the LED, on its clips", f"at about {show(s.position.target.value, AMPERE)}",
        f"{led.vf_low:g} to {led.vf_high:g}\u00a0V", "led_vf",
        "Its range moves the current more than anything else that is pencilled.",
        "LED light can hurt eyes at close range.",
    )  # fmt: skip


def _try_on_clips(s: Solution) -> NextStep:
    return NextStep(
        "try", f"Try it on clips with {show(s.sizing.each_ohm, OHM)}"
        + (" in each lead" if s.sizing.parts == 2 else ""),
        amp_range(s.most * 1.2), "in series with the LED", "supply on, covers off",
        _expect(s),
        "current", "Clips before solder: the current proves resistor, LED and rail in one.",
        "Supply off while the clips go on.",
    )  # fmt: skip


def _expect(s: Solution) -> str:
    """ "2.4 mA (2.2 mA to 2.6 mA)" """
    usual, least, most = (show(float(a), AMPERE) for a in (s.usual[1], s.least, s.most))
    return f"{usual} ({least} to {most})"


def _chase(v: Verdict) -> NextStep:
    cause = v.causes[0].message if v.causes else "Nothing simple explains it: read the rail again."
    if v.kind == "current":
        meter, points = amp_range(v.high.value * 1.2), "in series with the LED"
    else:
        meter = volt_range(v.high.value * 1.2)
        points = "across the resistor" if v.kind == "resistor_volts" else "across the LEDs"
    return NextStep(
        "chase", "Find out why the reading is off", meter, points, "one thing changed",
        f"{v.expected.text} ({v.low.text} to {v.high.text})", v.kind, f"First look: {cause}",
        "Supply off while parts are changed.",
    )  # fmt: skip


def _close_up(s: Solution) -> NextStep:
    return NextStep(
        "close", "Fit, close up and read once more", amp_range(s.most * 1.2),
        "in series with the LED", "covers on, warm for half an hour",
        _expect(s),
        "current", "Contacts that touched with the lid off may not touch with it on.",
        "Sleeve on before the joint; glue only after the test.",
    )  # fmt: skip


def _look_again(s: Solution) -> NextStep:
    return NextStep(
        "done", "Done: look again in a month", amp_range(s.most * 1.2), "in series with the LED",
        "as it was closed",
        _expect(s),
        "current", "An LED run within its limits reads the same; a joint going bad does not.", "",
    )  # fmt: skip
