"""What a dead lamp died of, by what is seen on it and by the rail, where that was read (Bayes' rule)."""

from collections.abc import Collection
from dataclasses import dataclass

from swapglow.core.intake.tables import rows
from swapglow.core.quantities import percent

# A rail that was read over a lamp's rating by more than the first makes fewer volts, or too many, likelier; within the
# second it clears the type (ours).
_OVER, _WITHIN = 1.15, 1.05
_MADE_LIKELIER = {"wrong": 5.0, "over": 2.0}
_CLEARED = {"wrong": 0.1, "over": 0.6}
# Causes that are told: of at least this share.
_TOLD = 0.15


@dataclass(frozen=True)
class Sign:
    """Something seen on a dead lamp.

    Attributes:
        id, label: what is seen.
        seen: how often of each cause, by the cause's id, 0 to 1.
    """

    id: str
    label: str
    seen: dict[str, float]


@dataclass(frozen=True)
class Death:
    """What a lamp may have died of.

    Attributes:
        id, label: what it is.
        prior: how many do where nothing is known, a share.
        confirm: the reading that would confirm it.
    """

    id: str
    label: str
    prior: float
    confirm: str


DEATHS: dict[str, Death] = {
    r["id"]: Death(r["id"], r["label"], float(r["prior"]) / 10, r["confirm"]) for r in rows("deaths")
}
SIGNS: dict[str, Sign] = {
    r["id"]: Sign(r["id"], r["label"], {d: float(r[d]) / 10 for d in DEATHS}) for r in rows("dead_lamps")
}


def weigh_deaths(seen: Collection[str], over_rating: float | None) -> dict[str, float]:
    """How likely each cause is.

    Args:
        seen: signs, by id.
        over_rating: the rail as it was read over the lamp's rated volts; None where it was not read.

    Returns:
        Shares by the cause's id, the likeliest first.
    """
    weights = {}
    for d in DEATHS.values():
        weight = d.prior
        for sign in seen:
            weight *= SIGNS[sign].seen[d.id]
        if over_rating is not None and over_rating > _OVER:
            weight *= _MADE_LIKELIER.get(d.id, 1.0)
        elif over_rating is not None and over_rating <= _WITHIN:
            weight *= _CLEARED.get(d.id, 1.0)
        weights[d.id] = weight
    total = sum(weights.values())
    return {k: w / total for k, w in sorted(weights.items(), key=lambda x: -x[1])}


def died_of(seen: Collection[str], over_rating: float | None = None) -> tuple[str, ...]:
    """What to say of a dead lamp.

    Args:
        seen: signs, by id.
        over_rating: the rail as it was read over the lamp's rated volts; None where it was not read.

    Returns:
        A line for each likely cause, the likeliest first, with its share and the reading that would confirm it; none
        where nothing was seen.
    """
    if not seen:
        return ()
    shares = weigh_deaths(seen, over_rating)
    return tuple(
        f"{DEATHS[k].label}, {percent(share)}. {DEATHS[k].confirm}" for k, share in shares.items() if share >= _TOLD
    )
