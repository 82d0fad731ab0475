"""Heat in the resistor against what its body may take."""

from collections.abc import Iterable

from swapglow.core.findings.finding import Finding
from swapglow.core.findings.registry import Context, rule
from swapglow.core.findings.remedies import larger_part, two_halves
from swapglow.core.parts.resistor import RATINGS_W, WORKING_FRACTION, rating_to_fit
from swapglow.core.quantities import WATT, show

_SLACK = 1 + 1e-9


@rule
def over_half_rating(c: Context) -> Iterable[Finding]:
    """More than half the rating of the part fitted; past the rating it is a stop."""
    rating = c.position.rating_w
    if rating is None or c.power_w <= rating * WORKING_FRACTION * _SLACK:
        return
    load = c.power_w / rating
    beyond = load > 1
    yield Finding(
        "resistor-over-rating" if beyond else "resistor-over-half",
        "stop" if beyond else "mind",
        f"The resistor takes {show(c.power_w, WATT)}, {load * 100:.0f} % of its {rating:g}\u00a0W.",
        show(c.power_w, WATT),
        show(rating * WORKING_FRACTION, WATT),
        "Past its rating it drifts, chars and unsolders itself." if beyond else
        "In a closed case keep to half the rating: the body gets hot enough to mark plastic and "
        "to age its neighbours.",
        (*larger_part(c), *two_halves(c)),
    )  # fmt: skip


@rule
def no_part_large_enough(c: Context) -> Iterable[Finding]:
    """No resistor of the catalogue runs cool enough."""
    if rating_to_fit(c.power_w) is not None:
        return
    yield Finding(
        "no-resistor-fits",
        "stop",
        f"{show(c.power_w, WATT)} in one resistor is more than any part here takes.",
        show(c.power_w, WATT),
        show(max(RATINGS_W) * WORKING_FRACTION, WATT),
        "A dropping resistor is the wrong tool at this power: use more LEDs in series or a "
        "converter with constant current.",
        two_halves(c),
    )
