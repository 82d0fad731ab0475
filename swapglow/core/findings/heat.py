"""Heat and volts in resistors against what their bodies may take."""

from collections.abc import Iterable

from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, of_each_string, rule
from swapglow.core.findings.remedies import larger_part, two_halves
from swapglow.core.parts.resistor import RATINGS_W, WORKING_FRACTION, body_of, rating_to_fit, takes_w
from swapglow.core.quantities import OHM, VOLT, WATT, show

_SLACK = 1 + 1e-9


@of_each_string
def over_half_rating(c: Context) -> Iterable[Finding]:
    """More than half of what the part fitted takes; past all of it it is a stop."""
    p, rating = c.position, c.position.rating_w
    if rating is None:
        return
    takes = takes_w(rating, p.celsius)
    if c.power_w <= takes * WORKING_FRACTION * _SLACK:
        return
    beyond = c.power_w > takes
    share = f"{c.power_w / takes * 100:.0f} % of" if takes else "and it may take nothing of"
    yield Finding(
        "resistor-over-rating" if beyond else "resistor-over-half",
        "stop" if beyond else "mind",
        f"The resistor takes {show(c.power_w, WATT)}, {share} its {_part(rating, takes)}.",
        show(c.power_w, WATT),
        show(takes * WORKING_FRACTION, WATT),
        "Past its rating it drifts, chars and unsolders itself."
        if beyond
        else "In a closed case keep to half the rating: the body gets hot enough to mark plastic and "
        "to age its neighbours.",
        (*larger_part(c), *two_halves(c)),
    )


def _most_w(celsius: float) -> float:
    """What the largest leaded part may run at in air of so many degrees, W."""
    return max(takes_w(r, celsius) for r in RATINGS_W) * WORKING_FRACTION


def _part(rating: float, takes: float) -> str:
    """A part with what is left of its rating where it sits."""
    if takes >= rating * (1 - 1e-9):
        return f"{rating:g}\u00a0W"
    return f"{show(takes, WATT, 2)} (a {rating:g}\u00a0W part without a heat sink, or in hot air)"


@of_each_string
def no_part_large_enough(c: Context) -> Iterable[Finding]:
    """No resistor of the catalogue runs cool enough, or stands the volts."""
    volts = c.resistor_v
    if c.power_w <= 0 or rating_to_fit(c.power_w, volts, c.position.celsius) is not None:
        return
    if rating_to_fit(c.power_w, 0.0, c.position.celsius) is not None:
        most = max(body_of(r).volts for r in RATINGS_W)
        yield Finding(
            "resistor-over-volts",
            "stop",
            f"{show(volts, VOLT)} across one resistor is more than any body here stands.",
            show(volts, VOLT),
            show(most, VOLT),
            "Past its working volts a film resistor flashes over or drifts, however cool it runs: share the volts "
            "among several in series.",
            two_halves(c),
        )
        return
    yield Finding(
        "no-resistor-fits",
        "stop",
        f"{show(c.power_w, WATT)} in one resistor is more than any part here takes in free air.",
        show(c.power_w, WATT),
        show(_most_w(c.position.celsius), WATT),
        "A dropping resistor is the wrong tool at this power: use more LEDs in series or a "
        "converter with constant current.",
        two_halves(c),
    )


@of_each_string
def over_working_volts(c: Context) -> Iterable[Finding]:
    """More volts across the body fitted than it stands."""
    rating = c.position.rating_w
    if rating is None:
        return
    volts, body = c.resistor_v, body_of(rating)
    if volts <= body.volts * _SLACK or rating_to_fit(c.power_w, volts, c.position.celsius) is None:
        return
    yield Finding(
        "resistor-over-volts",
        "stop",
        f"{show(volts, VOLT)} stand across one {rating:g}\u00a0W body, which takes {show(body.volts, VOLT)}.",
        show(volts, VOLT),
        show(body.volts, VOLT),
        "Past its working volts a film resistor flashes over or drifts, however cool it runs. A larger body "
        "stands more, and two in series share it.",
        (*larger_part(c), *two_halves(c)),
    )


@rule
def shunt_over_rating(c: Context) -> Iterable[Finding]:
    """A shunt or load resistor against its rating, in every state."""
    p = c.position
    if p.shunt_ohm is None:
        return
    watts, where = c.shunt_w
    on_sink = p.driver.kind.watches and p.driver.place in ("metal", "closed")
    fit = c.shunt_rating(watts)
    rating = p.shunt_w
    if rating is None:
        if fit is not None:
            return
        yield Finding(
            "no-shunt-fits",
            "stop",
            f"The {show(p.shunt_ohm, OHM)} across it takes {show(watts, WATT, 2)}{where}: more than any part here.",
            show(watts, WATT, 2),
            show(_most_w(p.celsius), WATT),
            "A larger value takes less; one that is fixed to bare metal takes more.",
        )
        return
    takes = takes_w(rating, p.celsius, on_sink=on_sink)
    if watts <= takes * WORKING_FRACTION * _SLACK:
        return
    over = watts > takes
    remedies = () if fit is None else (Remedy("larger-load", f"Fit a {fit:g} W part", {"shunt_w": fit}),)
    what = "load resistor" if p.driver.kind.watches and p.shunt_across == "assembly" else "shunt"
    yield Finding(
        "shunt-over-rating",
        "stop" if over else "mind",
        f"The {what} takes {show(watts, WATT, 2)}{where}; it takes {_part(rating, takes)}.",
        show(watts, WATT, 2),
        show(takes * WORKING_FRACTION, WATT, 2),
        "Keep it to half its rating in the state that heats it most.",
        remedies,
    )
