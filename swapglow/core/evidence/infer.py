"""How likely each hypothesis is by all readings together, and what they leave of everything that was not known exactly.

Each hypothesis is solved along the sizes it may have, with the slope of every unknown; the place that explains the
readings best is found from those (Gauss and Newton's step), and draws around it and from the prior are solved and
weighed (importance sampling: a draw counts by its prior and its likelihood over how likely it was to be drawn). The
mean weight is the hypothesis's marginal likelihood (Bayes). Work is bounded by counts, and the draws are the same on
every machine.

A reading's likelihood has heavy tails (Student's t) and holds the slips a hand makes: a decade, one string for all,
probes in another place, DC for AC, the wrong socket.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import Solution
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.evidence.by_eye import chances
from swapglow.core.evidence.hypotheses import UNLISTED, Hypothesis
from swapglow.core.evidence.metered import DIODE_RANGE_V, OL_V, comparable, last_digit
from swapglow.core.evidence.predict import FARTHEST, SIZE, UNKNOWNS, Draws, is_dear, predict
from swapglow.core.measurement.reading_after import DIODE_RANGE, LOOKS, POWER_OFF, SEEN, ReadingAfter, ReadingKind
from swapglow.core.parts.meter import ACCURACY

FloatArray = NDArray[np.float64]

# Ours: how often a hand slips, of all readings, by what it does.
SLIPS = {"decade": 0.01, "count": 0.015, "place": 0.007, "range": 0.005, "socket": 0.003}
# What no slip and no circuit explains: a number written down wrong.
_ANYHOW = 0.0004
# Student's t of so many degrees of freedom.
_FREEDOM = 4.0
# A meter's last digits, of what it usually reads there.
_DIGITS = 0.003
# Where a diode range's source gives up differs by meter: from so many volts on it may show no end (common practice:
# some three volts).
_MAY_END_V = 2.6
# In the part of a cycle in which an LED is dark, what leaks through insulation and meter may hold it anywhere up to its
# knee: one sigma, of what is missing from its mean (ours).
_LEAKS = 0.3
# Places along a size; where each is a cycle to solve, the few.
_PLACES, _FEW = np.linspace(-2.4, 2.4, 13), np.linspace(-2.1, 2.1, 6)
_STEP = 0.5
# Where each is a cycle, so many of the likeliest get slopes of their own.
_LIKELIEST = 8
# Draws of each hypothesis: around its best place, around its second best, from the prior.
_AROUND, _SECOND, _PRIOR = 96, 48, 48
_WIDER = 1.6
# What a reading that was a slip costs, in squares of its sigmas.
_SLIP_COSTS = 12.0
# No reading alone counts more than so many to one, and two are needed to say anything with more than this.
MOST_TO_ONE, MOST_BY_ONE = 200.0, 0.95
# What is not listed reads as all else does, so many times as wide.
_WIDE = 3.0


@dataclass(frozen=True)
class Posterior:
    """What readings leave of one hypothesis.

    Attributes:
        of: the hypothesis.
        share: how likely it is; of all, with what is not listed, one.
        at: each unknown in its sigmas, (draws, unknowns), with ``weight`` adding up to one.
        reads: what each reading shows at each draw, (draws, readings).
        fits: how far the readings are from its best place, in their own sigmas, root mean square.
        slips: how likely each slip is where this is so, by reading's id and slip.
    """

    of: Hypothesis
    share: float
    at: FloatArray
    weight: FloatArray
    reads: FloatArray
    fits: float
    slips: dict[tuple[str, str], float]

    @property
    def usual(self) -> FloatArray:
        """What each reading would show, the weighted mean, (readings,)."""
        return np.asarray(self.weight @ self.reads)

    def sigmas(self, unknown: int) -> float:
        """Where an unknown stands, in its sigmas: the weighted mean."""
        return float(self.weight @ self.at[:, unknown])


def slip_of(q: Posterior) -> tuple[str, str] | None:
    """The slip that this would need.

    Args:
        q: what readings leave of a hypothesis.

    Returns:
        By reading's id and kind; None where it needs none.
    """
    likeliest = max(q.slips, key=lambda key: q.slips[key], default=None)
    return likeliest if likeliest is not None and q.slips[likeliest] > 0.5 else None


@dataclass(frozen=True)
class Inference:
    """Every hypothesis by its share, the likeliest first, and the share of what is not listed."""

    posteriors: tuple[Posterior, ...]
    unlisted: float


@dataclass(frozen=True)
class _Place:
    """A hypothesis linearised at a standing: readings there, and their slopes, (readings, unknowns)."""

    at: FloatArray
    reads: FloatArray
    slopes: FloatArray


@dataclass(frozen=True)
class _Taken:
    """Readings as they are weighed.

    Attributes:
        readings: those taken, then those that a slip of the place would have taken.
        values: of those taken, (readings,).
        places: for each taken, the columns that a slip of the place reads.
        count: for each taken, what one string for all, or all for one, makes of it; 0 where it cannot.
        ranges: for each taken, whether a DC range would show nothing there.
        beside: what a sister's reading says each has to be multiplied by, by its id.
        most: about the most that each taken could show whatever is wrong, (readings,).
        alternates: whether the supply does.
    """

    readings: tuple[ReadingAfter, ...]
    values: FloatArray
    places: tuple[tuple[tuple[int, ...], ...], ...]
    count: tuple[float, ...]
    ranges: tuple[bool, ...]
    beside: Mapping[str, float]
    most: FloatArray
    alternates: bool

    @property
    def factor(self) -> FloatArray:
        """What each of all readings is multiplied by."""
        return np.array([self.beside.get(r.id, 1.0) for r in self.readings])

    @property
    def looks(self) -> NDArray[np.intp]:
        """Which of those taken are looks."""
        return np.array([k for k, r in enumerate(self.readings[: len(self.values)]) if r.kind in LOOKS], dtype=np.intp)

    def noise(self, reads: FloatArray, sound: FloatArray) -> FloatArray:
        """One sigma of the meter at what it would show, two meters where a sister was read, (draws, readings)."""
        own = self.readings[: reads.shape[1]]
        two = np.array([np.sqrt(2.0) if r.id in self.beside else 1.0 for r in own])
        return np.asarray(noise(reads, sound[: len(own)], own, alternates=self.alternates) * two)


def noise(
    reads: FloatArray, sound: FloatArray, readings: Sequence[ReadingAfter], *, alternates: bool = False
) -> FloatArray:
    """One sigma of a hand meter at what it would show.

    Args:
        reads: what it would show, (draws, readings).
        sound: what it shows at a sound lamp, (readings,).
        readings: what is read.
        alternates: whether the supply does.

    Returns:
        A, V or Ω, (draws, readings).
    """
    digit = np.array([last_digit(r.kind) for r in readings])
    out = np.hypot(ACCURACY / 2 * np.abs(reads), np.maximum(_DIGITS * sound, digit))
    if alternates:
        over_leds = np.array([r.kind == "led_volts" for r in readings])
        out = np.where(over_leds, np.hypot(out, _LEAKS * np.maximum(sound - np.abs(reads), 0.0)), out)
    # Where a diode range shows no end it shows no end.
    ends = np.array([r.kind in DIODE_RANGE for r in readings])
    return np.asarray(np.where(ends & (np.abs(reads) > 0.9 * OL_V), OL_V / 100, out))


def infer(
    s: Solution, hyps: Sequence[Hypothesis], readings: Sequence[ReadingAfter], beside: Mapping[str, float] | None = None
) -> Inference:
    """How likely each hypothesis is.

    Args:
        s: the solved position.
        hyps: all that may be so, the first of them sound; their priors leave :data:`UNLISTED` over.
        readings: those taken, at least one.
        beside: by the id of a reading that was taken at a sister too, what hers says the expected one has to be
            multiplied by.

    Returns:
        The shares.

    Raises:
        CircuitError: the lamp as it should be has no answer.
    """
    taken = _taken(s, readings, beside or {})
    places = _places(s, hyps, taken)
    if not places[0]:
        raise CircuitError("The lamp as it should be has no answer here.")
    sound = np.abs(places[0][0].reads)
    kept = [k for k, ways in enumerate(places) if ways]
    drawn = _drawn(s, [hyps[k] for k in kept], [places[k] for k in kept], taken, sound)
    if is_dear(s):
        # The likeliest once more, each with slopes of its own.
        first = np.array([d.joint for d in drawn]) + np.log([hyps[k].prior for k in kept])
        for n in (int(n) for n in np.argsort(-first)[:_LIKELIEST] if kept[n] != 0):
            h, ways = hyps[kept[n]], places[kept[n]]
            own = _with_slopes(s, h, ways, drawn[n].at[int(drawn[n].weight.argmax())], taken)
            drawn[n] = _drawn(s, [h], [own], taken, sound)[0]
    joint = np.array([d.joint for d in drawn])
    alone = np.stack([d.alone for d in drawn])
    top = alone.max(axis=0)
    # A reading that speaks against something by more than it may counts for no more than it may.
    joint = joint + np.maximum(np.log(np.maximum(top, 1e-300) / MOST_TO_ONE / np.maximum(alone, 1e-300)), 0.0).sum(1)
    logs = joint + np.log([hyps[k].prior for k in kept])
    unlisted = _unlisted(drawn, [hyps[k].prior for k in kept], taken, sound) + np.log(UNLISTED)
    most = max(float(logs.max()), unlisted)
    weights, rest = np.exp(logs - most), float(np.exp(unlisted - most))
    # A prior that is never nothing: what is known here is never all there is.
    shares, rest = _bounded(weights, rest, independent=len({(r.kind, r.of, r.state) for r in readings}))
    found = [
        Posterior(hyps[k], float(share), d.at, d.weight, d.reads[:, : len(readings)], d.fits, d.slips)
        for k, share, d in zip(kept, shares, drawn, strict=True)
    ]
    return Inference(tuple(sorted(found, key=lambda q: -q.share)), rest)


def _bounded(weights: FloatArray, rest: float, independent: int) -> tuple[FloatArray, float]:
    """Shares, and that of what is not listed: never under its least, and one reading says nothing for certain."""
    total = float(weights.sum()) + rest
    shares, rest = weights / total, rest / total
    least = UNLISTED * 0.4
    if rest < least:
        shares, rest = shares * (1 - least) / (1 - rest), least
    if independent < 2 and shares.max() > MOST_BY_ONE:
        more = float(shares.max()) - MOST_BY_ONE
        shares = np.where(shares == shares.max(), MOST_BY_ONE, shares)
        rest += more
    return shares, rest


def _taken(s: Solution, readings: Sequence[ReadingAfter], beside: Mapping[str, float]) -> _Taken:
    p = s.position
    every = list(readings)
    places: list[tuple[tuple[int, ...], ...]] = []
    for r in readings:
        ways: list[tuple[int, ...]] = []
        if r.kind in ("led_volts", "resistor_volts") and r.state == "on" and not p.rail.supply.alternates:
            other: ReadingKind = "resistor_volts" if r.kind == "led_volts" else "led_volts"
            if not (p.bare and "resistor_volts" in (r.kind, other)):
                own, at = readings.index(r), len(every)
                every.append(replace(r, id=f"{r.id}'", kind=other))
                ways = [(at,), (own, at)]
        places.append(tuple(ways))
    count = tuple(
        (1 / p.branches if r.of == "all" else p.branches) if r.kind == "current" and p.branches > 1 else 0.0
        for r in readings
    )
    ranges = tuple(
        p.rail.supply.alternates and r.kind in ("supply_volts", "lamp_volts", "plus_volts", "minus_volts")
        for r in readings
    )
    values = np.array([comparable(r) for r in readings])
    amps, volts = 2 * float(s.usual[1]), 1.5 * p.rail.peaks[1]
    scale = {"A": amps, "V": volts}
    most = np.array([scale.get(r.unit.symbol, 0.0) * (p.branches if r.of == "all" else 1) for r in readings])
    return _Taken(
        tuple(every),
        values,
        tuple(places),
        count,
        ranges,
        beside,
        np.maximum(np.abs(values), most),
        p.rail.supply.alternates,
    )


# ---- where each hypothesis explains best


def _places(s: Solution, hyps: Sequence[Hypothesis], taken: _Taken) -> list[list[_Place]]:
    """Each hypothesis linearised along its sizes; empty where its circuit has no answer."""
    n, dear = len(UNKNOWNS), is_dear(s)
    standings, sizes = [], []
    moves = np.vstack([np.zeros(n), np.eye(n)[:SIZE] * _STEP])
    for k, h in enumerate(hyps):
        along = np.zeros(1) if h.size is None else (_FEW if dear else _PLACES)
        # Over a cycle only the sound lamp is moved; all others move as it does, by the same shares.
        each = moves if not dear or k == 0 else moves[:1]
        at = np.tile(each, (len(along), 1))
        at[:, SIZE] = np.repeat(along, len(each))
        standings.append(at)
        sizes.append(along)
    found = _reads(s, hyps, standings, taken)
    m = len(taken.readings)
    out: list[list[_Place]] = []
    shared = np.zeros((m, n))
    for k, (h, at, reads, along) in enumerate(zip(hyps, standings, found, sizes, strict=True)):
        blocks = reads.reshape(len(along), -1, m)
        middle = blocks[:, 0]
        solved = np.asarray(np.isfinite(blocks).all(axis=(1, 2)))
        if not solved[len(along) // 2] or (k == 0 and not solved.all()):
            out.append([])
            continue
        along, blocks, middle = along[solved], blocks[solved], middle[solved]
        standing = at.reshape(len(solved), -1, n)[solved, 0]
        ways = []
        for j, _ in enumerate(along):
            slopes = np.zeros((m, n))
            if blocks.shape[1] > 1:
                slopes[:, :SIZE] = ((blocks[j, 1:] - middle[j]) / _STEP).T
            else:
                slopes[:, :SIZE] = shared[:, :SIZE] * middle[j][:, None]
            if h.size is not None:
                slopes[:, SIZE] = np.gradient(middle, along, axis=0)[j]
            ways.append(_Place(standing[j], middle[j], slopes))
        if k == 0:
            usual = np.where(np.abs(middle[0]) > 0, middle[0], np.inf)
            shared = ways[0].slopes / usual[:, None]
        out.append(ways)
    return out


def _reads(s: Solution, hyps: Sequence[Hypothesis], standings: Sequence[FloatArray], taken: _Taken) -> list[FloatArray]:
    """What all readings show at each hypothesis's standings, (draws, readings) each."""
    every = [Draws(h, at) for h, at in zip(hyps, standings, strict=True)]
    return [f * taken.factor for f in predict(s, every, taken.readings, taken.beside)]


def _with_slopes(s: Solution, h: Hypothesis, ways: list[_Place], best: FloatArray, taken: _Taken) -> list[_Place]:
    """The places of a hypothesis with the slopes of its own, taken where it explains best."""
    at = np.vstack([np.zeros(len(UNKNOWNS)), np.eye(len(UNKNOWNS))[:SIZE] * _STEP])
    at[:, SIZE] = best[SIZE]
    found = _reads(s, [h], [at], taken)[0]
    if not np.isfinite(found).all():
        return ways
    moved = ((found[1:] - found[0]) / _STEP).T
    share = moved / np.where(np.abs(found[0]) > 0, found[0], np.inf)[:, None]
    out = []
    for w in ways:
        slopes = w.slopes.copy()
        slopes[:, :SIZE] = share * w.reads[:, None]
        out.append(replace(w, slopes=slopes))
    return out


@dataclass(frozen=True)
class _Drawn:
    """A hypothesis drawn: ``joint`` the logarithm of its marginal likelihood, ``alone`` each reading's own."""

    at: FloatArray
    weight: FloatArray
    reads: FloatArray
    prior: FloatArray
    joint: float
    alone: FloatArray
    fits: float
    slips: dict[tuple[str, str], float]


@dataclass(frozen=True)
class _Normal:
    """A normal that standings are drawn from."""

    mean: FloatArray
    root: FloatArray
    count: int

    def draw(self, z: FloatArray) -> FloatArray:
        return np.asarray(self.mean + z @ self.root.T)

    def log_density(self, at: FloatArray) -> FloatArray:
        z = np.linalg.solve(self.root, (at - self.mean).T).T
        norm = np.log(np.abs(np.diag(self.root))).sum() + 0.5 * len(self.mean) * np.log(2 * np.pi)
        return np.asarray(-0.5 * (z**2).sum(axis=1) - norm)


def _drawn(
    s: Solution, hyps: Sequence[Hypothesis], places: Sequence[list[_Place]], taken: _Taken, sound: FloatArray
) -> list[_Drawn]:
    """Draws around the places where each explains the readings best, solved and weighed."""
    n = len(UNKNOWNS)
    # The same draws for all, on every machine.
    z = np.random.default_rng(20).standard_normal((_AROUND + _SECOND + _PRIOR, n))
    m = len(taken.values)
    normals: list[list[_Normal]] = []
    standings: list[FloatArray] = []
    for h, ways in zip(hyps, places, strict=True):
        fits = sorted((f for w in ways for f in _fits(w, taken, sound[:m])), key=lambda f: -f[0])[:2]
        # What has no size is not drawn along it: it is the last of the unknowns.
        d = n if h.size is not None else SIZE
        own = [_Normal(mean[:d], root[:d, :d], c) for (_, mean, root), c in zip(fits, (_AROUND, _SECOND), strict=False)]
        own.append(_Normal(np.zeros(d), np.eye(d), len(z) - sum(o.count for o in own)))
        starts = np.cumsum([0, *(o.count for o in own)])
        at = np.zeros((len(z), n))
        at[:, :d] = np.concatenate([o.draw(z[a:b, :d]) for o, a, b in zip(own, starts[:-1], starts[1:], strict=True)])
        normals.append(own)
        standings.append(np.clip(at, -FARTHEST, FARTHEST))
    if is_dear(s):
        reads = [_by_slopes(ways, at) for ways, at in zip(places, standings, strict=True)]
    else:
        reads = _reads(s, hyps, standings, taken)
    return [_weighed(at, read, own, taken, sound) for at, read, own in zip(standings, reads, normals, strict=True)]


def _fits(place: _Place, taken: _Taken, sound: FloatArray) -> list[tuple[float, FloatArray, FloatArray]]:
    """From one place the likeliest standings by all readings, and by all but one, which may be a slip.

    Each with how good it is, where, and a root of its covariance.
    """
    n, m = len(UNKNOWNS), len(taken.values)
    reads, slopes = place.reads[:m], place.slopes[:m]
    sigma = 1.5 * taken.noise(reads[None], sound)[0]
    scaled = slopes / sigma[:, None]
    off = (taken.values - reads + slopes @ place.at) / sigma
    # Between an end and no end a diode range has no slope.
    ends = np.array([r.kind in DIODE_RANGE for r in taken.readings[:m]])
    metered = ~np.array([r.kind in LOOKS for r in taken.readings[:m]])
    even = metered & ~(ends & ((taken.values > 0.9 * OL_V) != (reads > 0.9 * OL_V)))
    out = []
    for left in (-1, *range(m if m > 1 else 0)):
        kept = even & (np.arange(m) != left)
        rows = scaled[kept]
        precision = np.eye(n) + rows.T @ rows
        mean = np.linalg.solve(precision, rows.T @ off[kept])
        # Heavy tails: what does not fit at all costs no more than a slip does.
        squares = np.where(metered, np.minimum((off - scaled @ mean) ** 2, _SLIP_COSTS), 0.0)
        away = float(squares.sum() + (mean**2).sum())
        # A line holds near its place only.
        away += float(((mean[SIZE] - place.at[SIZE]) / 0.6) ** 2)
        root = np.linalg.cholesky(np.linalg.inv(precision) * _WIDER + 1e-6 * np.eye(n))
        out.append((-0.5 * away, np.asarray(np.clip(mean, -3.0, 3.0)), np.asarray(root)))
    return out


def _by_slopes(ways: Sequence[_Place], at: FloatArray) -> FloatArray:
    """Readings by the places' lines: between two of them along the size, and by the slopes from there."""
    grid = np.array([w.at[SIZE] for w in ways])
    reads, slopes = np.stack([w.reads for w in ways]), np.stack([w.slopes for w in ways])
    if len(ways) == 1:
        middle = np.broadcast_to(reads[0], (len(at), reads.shape[1]))
        return np.asarray(middle + at @ slopes[0].T)
    k = np.clip(np.searchsorted(grid, at[:, SIZE]) - 1, 0, len(grid) - 2)
    part = np.clip((at[:, SIZE] - grid[k]) / (grid[k + 1] - grid[k]), 0, 1)[:, None]
    # Between two places as a power of the size: what divides or multiplies does so along it.
    low, high = np.maximum(np.abs(reads[k]), 1e-15), np.maximum(np.abs(reads[k + 1]), 1e-15)
    middle = low ** (1 - part) * high**part
    rest = at.copy()
    rest[:, SIZE] = 0.0
    return np.asarray(middle + np.einsum("ij,ikj->ik", rest, slopes[k]))


# ---- what the readings say of a draw


def _student(off: FloatArray, sigma: FloatArray) -> FloatArray:
    """Student's t of :data:`_FREEDOM`, its density at ``off``."""
    return np.asarray(0.375 / sigma * (1 + (off / sigma) ** 2 / _FREEDOM) ** (-(_FREEDOM + 1) / 2))


def _likelihoods(reads: FloatArray, taken: _Taken, sound: FloatArray) -> dict[str, FloatArray]:
    """How dense each reading's value lies at each draw, by what the hand did: (draws, readings) each."""
    m = len(taken.values)
    sigma = taken.noise(reads, sound)
    own, width, r = reads[:, :m], sigma[:, :m], taken.values
    digit = np.array([last_digit(t.kind) for t in taken.readings[:m]])
    out = {
        "decade": 0.5 * _student(r - 10 * own, 10 * width) + 0.5 * _student(r - own / 10, width / 10 + digit),
        "place": np.zeros_like(own),
        "count": np.zeros_like(own),
        "range": np.zeros_like(own),
        "socket": _student(r - 0 * own, np.maximum(3 * digit, width * 0.1)),
    }
    # No decade of nothing.
    out["decade"] = np.where(np.abs(own) > 10 * width, out["decade"], 0.0)
    for k in range(m):
        for columns in taken.places[k]:
            other = reads[:, list(columns)].sum(axis=1)
            spread = np.sqrt((sigma[:, list(columns)] ** 2).sum(axis=1))
            out["place"][:, k] += _student(r[k] - other, spread) / len(taken.places[k])
        if taken.count[k]:
            c = taken.count[k]
            out["count"][:, k] = _student(r[k] - c * own[:, k], c * width[:, k] + digit[k])
        if taken.ranges[k]:
            out["range"][:, k] = _student(r[k] - 0 * own[:, k], np.maximum(3 * digit[k], width[:, k]))
        if taken.readings[k].kind in POWER_OFF:
            out["socket"][:, k] = 0.0
    out = {slip: SLIPS[slip] * values for slip, values in out.items()}
    anyhow = _ANYHOW / (2 * np.maximum(np.maximum(np.abs(r), sound[:m]), 10 * digit))
    out["right"] = (1 - sum(SLIPS.values()) - _ANYHOW) * _student(r - own, width)
    out["anyhow"] = np.broadcast_to(anyhow, own.shape).copy()
    for k in range(m):
        if taken.readings[k].kind in DIODE_RANGE and r[k] > 0.9 * OL_V:
            near = np.clip((own[:, k] - _MAY_END_V) / (DIODE_RANGE_V - _MAY_END_V), 0, 1) * (own[:, k] < 0.9 * OL_V)
            out["right"][:, k] += 0.5 * near * _student(np.zeros(1), np.array([OL_V / 100]))
    for k in taken.looks:
        for values in out.values():
            values[:, k] = 0.0
        out["right"][:, k] = chances(own[:, k])[int(r[k])]
    return out


def _weighed(at: FloatArray, reads: FloatArray, normals: Sequence[_Normal], taken: _Taken, sound: FloatArray) -> _Drawn:
    """Draws weighed by the readings."""
    solved = np.asarray(np.isfinite(reads).all(axis=1))
    reads = np.where(solved[:, None], reads, 0.0)
    own = at[:, : len(normals[0].mean)]
    log_prior = -0.5 * (own**2).sum(axis=1) - 0.5 * own.shape[1] * np.log(2 * np.pi)
    log_drawn = np.logaddexp.reduce([np.log(o.count / len(at)) + o.log_density(own) for o in normals])
    prior = np.where(solved, np.exp(np.clip(log_prior - log_drawn, -50, 50)), 0.0)
    prior = prior / max(prior.sum(), 1e-300)
    by_slip = _likelihoods(reads, taken, sound)
    each = np.asarray(sum(by_slip.values()))
    log_all = np.log(np.maximum(each, 1e-300)).sum(axis=1)
    peak = float(log_all.max())
    weight = prior * np.exp(log_all - peak)
    joint = np.log(max(float(weight.sum()), 1e-300)) + peak
    weight = weight / max(float(weight.sum()), 1e-300)
    m = len(taken.values)
    best = int(weight.argmax())
    off = (taken.values - reads[best, :m]) / taken.noise(reads[best : best + 1], sound)[0, :m]
    ends = np.array([t.kind in DIODE_RANGE for t in taken.readings[:m]]) & (taken.values > 0.9 * OL_V)
    off = np.where(ends & (reads[best, :m] > _MAY_END_V), 0.0, off)
    # How unlikely what was seen is, as if it were so many sigmas of a normal.
    off[taken.looks] = np.sqrt(-2 * np.log(each[best, taken.looks]))
    slips = {
        (taken.readings[k].id, slip): float(weight @ (values[:, k] / np.maximum(each[:, k], 1e-300)))
        for slip, values in by_slip.items()
        if slip != "right"
        for k in range(m)
    }
    return _Drawn(at, weight, reads, prior, float(joint), prior @ each, float(np.sqrt(np.mean(off**2))), slips)


def _unlisted(drawn: Sequence[_Drawn], priors: Sequence[float], taken: _Taken, sound: FloatArray) -> float:
    """What is not on the list reads as all that is does, three times as wide, or anything the supply can drive."""
    m = len(taken.values)
    shares = np.array(priors) / sum(priors)
    inside, most = 0.0, taken.most
    metered = np.ones(m, dtype=bool)
    metered[taken.looks] = False
    seen = float(len(SEEN)) ** -len(taken.looks)
    for d, share in zip(drawn, shares, strict=True):
        reads = d.reads[:, :m]
        middle = d.prior @ reads
        own = np.sqrt(d.prior @ (reads - middle) ** 2)
        sigma = taken.noise(middle[None], sound)[0]
        wide = _WIDE * np.hypot(own, sigma) + 0.1 * np.abs(middle)
        inside += share * float(np.prod(_student(taken.values - middle, wide)[metered]))
        most = np.maximum(most, np.abs(middle))
    return float(np.log(seen * (0.5 * inside + 0.5 * np.prod(1 / (1.2 * most[metered] + 1e-9)))))
