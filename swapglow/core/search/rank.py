"""Ranking: what matters, how each candidate scores, and one sentence why."""

import math
from collections.abc import Callable
from dataclasses import astuple, dataclass, replace
from typing import Literal

import numpy as np

from swapglow.core.analysis.limits import DIM_SHARE
from swapglow.core.analysis.original_lamp import kelvin_of, lamp_candela, lamp_volts
from swapglow.core.analysis.sizing import size
from swapglow.core.design.position import Position
from swapglow.core.intake.second_job import Duty
from swapglow.core.photometry import screen
from swapglow.core.photometry.intensity import led_candela, sight_of
from swapglow.core.photometry.seen import FloatArray, lamp_sight
from swapglow.core.photometry.visibility import WORDS
from swapglow.core.photometry.words import ratio_text
from swapglow.core.quantities import AMPERE, OHM, WATT, number_text, percent, show
from swapglow.core.search.candidates import Candidate, candidates
from swapglow.core.search.evaluate import WARM_W, Evaluation, evaluate

Weight = Literal["life", "look", "heat", "parts", "reversible", "stock"]
WEIGHTS: dict[Weight, str] = {
    "life": "Long life",
    "look": "Original look",
    "heat": "Least heat",
    "parts": "Fewest parts",
    "reversible": "Fully reversible",
    "stock": "Out of the drawer",
}
# What the user asked for counts so many times.
ASKED = 4.0
# What lies in the drawer counts less than what the lamp does, until it is asked for (ours).
UNASKED_STOCK = 0.25
# So many of the best stand side by side; with the position as it stands, the old lamp and the other
# schools' ways, so many at the most.
FEW = 4
MOST = 7
# Scores closer than this tell nothing.
LEVEL = 0.005
# Figures this near are the same.
SAME = 1e-6
# What must be left of the old lamp's light for what the lamp is for: to light, what counts as dim; to be seen, or where
# nobody said, a twentieth (ours). A part of the circuit need not shine.
LEAST_LIGHT: dict[Duty, float] = {"light": DIM_SHARE, "see": 0.05, "": 0.05, "do": 0.0}


@dataclass(frozen=True)
class Swap:
    """A candidate as it is shown.

    ``grade`` is "stop" where something forbids it; ``why`` says in a sentence why it wins or loses.
    ``stock`` says whether its resistor lies in the drawer. ``bar`` is where its least, usual and most current lie on
    the swaps' one scale, 0 to 1; ``colour`` how it looks at the usual rail beside the others.
    """

    id: str
    label: str
    changes: dict[str, float | int | str | None]
    best: bool
    school: str
    ours: bool
    why: str
    grade: Literal["stop", "fits"] = "fits"
    current: str = ""
    band: str = ""
    heat: str = ""
    light: str = ""
    points: str = ""
    off: str = ""
    reversible: str = ""
    parts: int = 0
    stock: str = ""
    bar: tuple[float, ...] | None = None
    colour: str = "#000000"


@dataclass(frozen=True)
class WeightOption:
    """Something that may matter more than the rest."""

    id: Weight
    label: str


@dataclass(frozen=True)
class SwapScale:
    """The one scale of all bars, in logarithms: its ends in words, and where the drive limit lies on it, 0 to 1."""

    low: str
    high: str
    limit: float


@dataclass(frozen=True)
class Swaps:
    """The few swaps that matter, the best first, and how many were weighed.

    ``by_chance`` is False where a swap's band is the ends of its corners and not what 90 % lie in.
    """

    swaps: tuple[Swap, ...]
    weighed: int
    by_chance: bool
    weights: tuple[WeightOption, ...]
    asked: tuple[Weight, ...]
    scale: SwapScale | None


@dataclass(frozen=True)
class _Scored:
    candidate: Candidate
    position: Position
    figures: Evaluation | None
    marks: dict[str, float]
    score: float

    @property
    def stops(self) -> tuple[str, ...]:
        return (
            ("It cannot be worked out.",)
            if self.figures is None and not self.candidate.leaves
            else (() if self.figures is None else self.figures.stops)
        )

    @property
    def dim(self) -> bool:
        """Whether too little light is left for what the lamp is for, whatever else it has."""
        f, p = self.figures, self.position
        return f is not None and f.ratio is not None and f.ratio < LEAST_LIGHT[p.purpose] * p.looks.share


def search(position: Position, asked: tuple[Weight, ...] = (), drawer_ohm: frozenset[float] = frozenset()) -> Swaps:
    """Compute all sensible swaps, weigh them, and keep the few that matter.

    Args:
        position: the position as it stands.
        asked: what matters more than the rest.
        drawer_ohm: resistors at hand, Ω.

    Returns:
        The few, the best first.
    """
    scored = [_score(c, p, asked, drawer_ohm) for c, p in candidates(position, drawer_ohm)]
    ordered = sorted(scored, key=lambda x: (len(x.stops), x.dim, -x.score, not x.candidate.ours))
    best = ordered[0]
    second = next((x for x in ordered[1:] if not _alike(x, best)), best)
    shown = _few(ordered)
    ends = _ends(shown, position)
    drawn = zip(shown, _colours(shown, position), strict=True)
    return Swaps(
        tuple(
            replace(_swap(x, best, second, asked, drawer_ohm), bar=_bar(x, ends), colour=colour) for x, colour in drawn
        ),
        len(scored),
        not position.rail.supply.alternates,
        tuple(WeightOption(k, v) for k, v in WEIGHTS.items()),
        asked,
        None
        if ends is None
        else SwapScale(show(ends[0], AMPERE, 2), show(ends[1], AMPERE, 2), _place(position.ceiling_a, ends)),
    )


def _ends(shown: list[_Scored], position: Position) -> tuple[float, float] | None:
    """Ends of the scale on which all currents and the drive limit lie, A."""
    found = [x.figures for x in shown if x.figures is not None and x.figures.current_usual > 0]
    if not found:
        return None
    low = min(max(f.current_low, f.current_usual / 100) for f in found)
    return low / 1.2, max(position.ceiling_a, *(f.current_high for f in found)) * 1.2


def _place(amps: float, ends: tuple[float, float]) -> float:
    return min(1.0, max(0.0, math.log(max(amps, 1e-12) / ends[0]) / math.log(ends[1] / ends[0])))


def _bar(x: _Scored, ends: tuple[float, float] | None) -> tuple[float, ...] | None:
    f = x.figures
    if f is None or ends is None:
        return None
    return _place(f.current_low, ends), _place(f.current_usual, ends), _place(f.current_high, ends)


def _colours(shown: list[_Scored], position: Position) -> list[str]:
    """Each as it looks at the usual rail, luminance in proportion to its light."""
    lights = [_light(x) for x in shown]
    white = max(*lights, 1e-12)
    sights = [_xyz(x, position) for x in shown]
    most = screen.brightest(sights)
    return [
        screen.screen_colours(xyz, np.array([most * light / white]))[0]
        for xyz, light in zip(sights, lights, strict=True)
    ]


def _light(x: _Scored) -> float:
    if x.figures is None:
        return (lamp_candela(x.position) or 0.0) if x.candidate.leaves else 0.0
    return led_candela(x.position, x.figures.current_usual)


def _xyz(x: _Scored, position: Position) -> FloatArray:
    if x.candidate.leaves and position.lamp is not None:
        return lamp_sight(kelvin_of(position.lamp, lamp_volts(position)), position.looks).xyz
    return sight_of(x.position).xyz


def _few(ordered: list[_Scored]) -> list[_Scored]:
    """The best, the position as it stands, and beside a school's way the other school's."""
    shown: list[_Scored] = []
    as_is = next(x for x in ordered if x.candidate.id == "as-is")
    for x in ordered:
        alike = any(_alike(x, y) for y in (*shown, as_is) if y is not x)
        if not alike and len(shown) < FEW:
            shown.append(x)
    for x in ordered:
        needed = x.candidate.id in ("as-is", "leave")
        other = (
            x.candidate.school
            and not x.candidate.ours
            and any(y.candidate.ours and _same_question(x, y) for y in shown)
        )
        if (needed or other) and x not in shown:
            shown.append(x)
    return shown[:MOST]


_QUESTIONS = (
    ("add a part", "change the fitted part"),
    ("flasher or coding", "load resistor"),
    ("next higher", "nearest"),
    ("a tenth to a half of rated", "rated current"),
    ("string", "branches"),
)


def _same_question(x: _Scored, y: _Scored) -> bool:
    return any({x.candidate.school, y.candidate.school} == set(q) for q in _QUESTIONS)


def _alike(x: _Scored, y: _Scored) -> bool:
    """Two that come to the same circuit under two names."""
    a, b = x.figures, y.figures
    if a is None or b is None or x.candidate.id == "as-is":
        return False
    same = _equal(a, b) and x.position.resistor_parts == y.position.resistor_parts
    return same and (x.position.common == "none" or x.position.lead == y.position.lead)


def _equal(a: Evaluation, b: Evaluation) -> bool:
    """Whether two come to the same figures, but for the last digits that a solver leaves."""
    pairs = zip(astuple(a), astuple(b), strict=True)
    return all(
        math.isclose(x, y, rel_tol=SAME, abs_tol=SAME * 1e-6)
        if isinstance(x, float) and isinstance(y, float)
        else x == y
        for x, y in pairs
    )


def _weight(key: str, asked: tuple[Weight, ...]) -> float:
    """How much a mark counts."""
    return ASKED if key in asked else UNASKED_STOCK if key == "stock" else 1.0


def _score(c: Candidate, p: Position, asked: tuple[Weight, ...], drawer: frozenset[float]) -> _Scored:
    figures = None if c.leaves else evaluate(p)
    marks = _lamp_marks(p) if c.leaves else {} if figures is None else _marks(c, p, figures)
    if drawer and marks:
        marks["stock"] = 1.0 if c.leaves or (p.module is None and _lies_there(p, drawer)) else 0.0
    weights = {k: _weight(k, asked) for k in marks}
    total = sum(weights.values())
    # To what a solver's last digits do not move: equal ones keep their order.
    score = round(sum(marks[k] * w for k, w in weights.items()) / total, 6) if total else 0.0
    return _Scored(c, p, figures, marks, score)


def _marks(c: Candidate, p: Position, f: Evaluation) -> dict[str, float]:
    """Marks of 0 to 1 in everything that counts."""
    drive = f.string_current_max / p.rated_a
    look = 0.5 if f.ratio is None else float(np.exp(-abs(np.log2(max(f.ratio, 1e-6))) / 3))
    steady = 1 - min(1.0, (f.current_high - f.current_low) / max(f.current_usual, 1e-9))
    return {
        "life": 1 - min(1.0, drive),
        "look": min(1.0, look * (1.05 if f.points > 1 else 1.0)),
        "heat": 1 / (1 + f.heat_w / (2 * WARM_W)),
        "parts": min(1.0, 2 / f.parts),
        "reversible": 0.3 if c.board else 1.0,
        "steady": max(0.0, steady),
        "flicker": 1.0 if f.flicker is None else 1 / max(1.0, f.flicker),
        "off": {"dark": 1.0, "dark_room": 0.6, "lit_room": 0.0}[f.off],
        "inside": f.inside,
        "minds": 1 / (1 + len(f.minds)),
    }


def _lamp_marks(p: Position) -> dict[str, float]:
    """The old lamp: it looks right, it is warm, and it will burn out again."""
    assert p.lamp is not None
    watts = p.lamp.volts * p.lamp.amps
    return {"life": 0.05, "look": 1.0, "heat": 1 / (1 + watts / (2 * WARM_W)), "parts": 1.0, "reversible": 1.0}


def _swap(x: _Scored, best: _Scored, second: _Scored, asked: tuple[Weight, ...], drawer: frozenset[float]) -> Swap:
    c, f, p = x.candidate, x.figures, x.position
    plain = Swap(
        c.id,
        c.label,
        dict(c.changes),
        x is best and not x.stops and not x.dim,
        c.school,
        c.ours,
        _why(x, best, second, asked),
    )
    if c.leaves:
        return _leave(p, plain)
    if f is None:
        return replace(plain, grade="stop")
    off_state = p.driver.leads_off or not p.driver.kind.contact
    reckoned = not (p.rail.supply.alternates and off_state)
    return replace(
        plain,
        grade="stop" if f.stops else "fits",
        current=show(f.current_usual, AMPERE),
        band=f"{show(f.current_low, AMPERE, 2)} to {show(f.current_high, AMPERE, 2)}",
        heat=show(f.heat_w, WATT, 2),
        light=ratio_text(f.ratio).replace(" the old lamp", "") or "not known",
        points=f"{f.points}",
        off=WORDS[f.off] if reckoned else "not worked out on AC",
        reversible="changes board or wiring" if c.board else "pulls out again",
        parts=f.parts,
        stock=_stock(p, drawer),
    )


def _leave(p: Position, plain: Swap) -> Swap:
    """The old lamp, left where it is."""
    lamp = p.lamp
    assert lamp is not None
    volts = lamp_volts(p)
    amps = lamp.amps_at(volts)
    # Under a twentieth of its volts it does not glow, and nothing is to be said of a life.
    life = (
        f"life {number_text((volts / lamp.volts) ** -12)} × rated (V^−12)"
        if volts > lamp.volts / 20
        else "it stays dark"
    )
    return replace(
        plain,
        current=show(amps, AMPERE),
        heat=show(volts * amps, WATT, 2),
        light="1 ×",
        points="1",
        off=WORDS["dark"],
        reversible="nothing changed",
        stock=life,
    )


def _stock(p: Position, drawer: frozenset[float]) -> str:
    if p.module is not None:
        return "lamp to buy"
    return f"{show(size(p).each_ohm, OHM)} " + ("in the drawer" if _lies_there(p, drawer) else "to buy")


def _lies_there(p: Position, drawer: frozenset[float]) -> bool:
    """Whether its resistor is at hand."""
    return f"{size(p).each_ohm:.6g}" in {f"{d:.6g}" for d in drawer}


def _drive_words(x: _Scored) -> str:
    f = x.figures
    return "" if f is None else f"{percent(f.string_current_max / x.position.led.rated_a)} of rated at the most"


def _words(key: str, x: _Scored) -> str:
    """A candidate's mark in words, with its figure."""
    f = x.figures
    if f is None:
        lamp = x.position.lamp
        watts = show(lamp.volts * lamp.amps, WATT, 2) if lamp else ""
        return {"life": "a filament that will go again", "heat": f"{watts} of heat", "look": "the original light"}.get(
            key, "nothing to solder"
        )
    says: dict[str, Callable[[], str]] = {
        "life": lambda: _drive_words(x),
        "look": lambda: f"{ratio_text(f.ratio)}" if f.ratio else f"{f.points} points of light",
        "heat": lambda: f"{show(f.heat_w, WATT, 2)} of heat",
        "parts": lambda: f"{f.parts} parts" if f.parts > 1 else "one part",
        "reversible": lambda: "it changes the board" if x.candidate.board else "it pulls out again",
        "steady": lambda: (
            f"the current spreads from {show(f.current_low, AMPERE, 2)} to {show(f.current_high, AMPERE, 2)}"
        ),
        "flicker": lambda: (
            "no flicker to speak of"
            if not f.flicker or f.flicker <= 1
            else (f"it flickers {f.flicker:.0f} times the low-risk limit")
        ),
        "off": lambda: f"off it is {WORDS[f.off]}",
        "inside": lambda: f"yours lands between {show(f.current_low, AMPERE, 2)} and {show(f.current_high, AMPERE, 2)}",
        "minds": lambda: "nothing to mind" if not f.minds else f"{len(f.minds)} to mind",
        "stock": lambda: "its resistor lies in the drawer" if x.marks.get("stock") else "its resistor is to buy",
    }
    return says[key]()


# Marks worth a word even where the next best has them too.
_TELLING = ("reversible", "heat", "parts", "life")


def _why(x: _Scored, best: _Scored, second: _Scored, asked: tuple[Weight, ...]) -> str:
    """Why it wins, or what it loses by."""
    if x.stops:
        return f"Out: {x.stops[0][0].lower()}{x.stops[0][1:].rstrip('.')}" + (
            f"; and {len(x.stops) - 1} more." if len(x.stops) > 1 else "."
        )
    if x.dim and x.figures is not None:
        needs = "it must light something" if x.position.purpose == "light" else "it must be seen"
        return f"Too dim: {ratio_text(x.figures.ratio)}, and {needs}. Brighter LEDs, more of them, or another lens."
    weights = {k: _weight(k, asked) for k in x.marks}
    if x is best:
        # What sets it apart from the next that would do.
        ahead = {k: (x.marks[k] - second.marks.get(k, x.marks[k])) * weights[k] for k in x.marks}
        strong = [k for k in sorted(ahead, key=lambda k: -ahead[k]) if ahead[k] > 0]
        strong += [
            k for k in sorted(x.marks, key=lambda k: -x.marks[k] * weights[k]) if k not in strong and k in _TELLING
        ]
        return f"Wins: {'; '.join(_words(k, x) for k in strong[:2])}."
    if best.score - x.score < LEVEL:
        return "Level with the best, within what these marks can tell."
    both = [k for k in x.marks if k in best.marks]
    loses = max(both, key=lambda k: (best.marks[k] - x.marks[k]) * weights[k])
    return f"Behind: {_words(loses, x)}."
