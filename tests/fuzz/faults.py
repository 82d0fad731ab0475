"""Is the true fault named? ``make faults``: random fitted lamps, each with a fault put into its circuit.

The faulty lamp is drawn with its own luck (rail, LED, resistor, driver, meter and the size of the fault anywhere in
their ranges, none of them on the places that the ranking uses) and read as a hand meter reads. The first reading is
one that somebody would take; where it lies outside its band the advised one is taken as well. Printed: how often the
true fault is first, and in the first two, before and after it; and what was named in its place.
"""

import argparse
import math
import os
import random
import sys
from collections import Counter, defaultdict
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field, replace

import numpy as np

from swapglow.core.analysis.solution import Solution, solve
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.faults.ask import ask
from swapglow.core.faults.diagnosis import diagnose
from swapglow.core.faults.metered import OL_V, comparable, metered
from swapglow.core.faults.predict import predict
from swapglow.core.faults.suspect import Suspect, suspects
from swapglow.core.faults.trouble import by_fault
from swapglow.core.faults.weigh import weigh
from swapglow.core.measurement.reading_after import ENDLESS, ReadingAfter
from swapglow.core.network.cases import Cases
from swapglow.core.network.fault import Fault
from swapglow.core.quantities import InputError
from swapglow.inputs.to_core import position_of
from tests.fuzz.documents import document

# What is no fault of the lamp, or has no reading of its own.
NOT_PUT_IN = ("fine", "spread")
# A lamp that somebody fitted: it lights, and its LED is not beyond what it may carry.
LEAST_A = 2e-4
# A rail that is known no better than this is read before anything is fitted.
WIDEST = 1.5


@dataclass
class Tally:
    """What came of some lamps."""

    ends: Counter = field(default_factory=Counter)
    first: dict = field(default_factory=lambda: defaultdict(list))
    second: dict = field(default_factory=lambda: defaultdict(list))
    named: Counter = field(default_factory=Counter)
    kinds: Counter = field(default_factory=Counter)


def fitted(seed: int) -> Solution | None:
    """A random lamp that somebody would have fitted; None where the seed makes none."""
    rail, lamp = document(seed)
    try:
        p = position_of(lamp, rail)
        if p.live_danger or p.rail.volts[2] > WIDEST * p.rail.volts[0]:
            return None
        s = solve(p, rule=False)
    except (InputError, CircuitError):
        return None
    lights = s.string_current_min > LEAST_A and s.string_current_max < 1.5 * s.position.led.rated_a
    return s if lights else None


def luck(s: Solution, suspect: Suspect, rng: random.Random) -> tuple[Cases, Suspect]:
    """The faulty lamp as it really is: one case, and the fault at a size of its own."""
    p = suspect.position
    low, _usual, high = p.rail.volts
    reach = suspect.spread / 0.4 / 2
    size = math.exp(rng.uniform(-reach, reach))
    share = suspect.rail * (size if suspect.rail not in (1.0, suspect.rail * 0) and suspect.spread else 1.0)
    rail = share * rng.uniform(low, high)
    tol = p.ohm_spread
    ohms = s.sizing.total_ohm * suspect.ohms * (1 + rng.uniform(-tol, tol))
    vf = rng.triangular(p.led.vf_low, p.led.vf_high, p.led.vf_typ)
    drop = rng.triangular(p.drops[0], p.drops[2], p.drops[1]) if p.drops[2] > p.drops[0] else p.drops[1]
    f = suspect.fault
    sized = {
        n: getattr(f, n) * (size if suspect.spread else 1.0)
        for n in ("string", "plus", "minus", "across")
        if getattr(f, n) is not None
    }
    made = replace(suspect, burden=suspect.burden * size, fault=replace(f, **sized))
    cases = Cases(np.array([rail]), np.array([vf]), np.array([ohms]), float(drop), fault=_or_none(made.fault))
    return cases, made


def _or_none(f: Fault) -> Fault | None:
    return None if f.empty else f


def read(s: Solution, cases: Cases, made: Suspect, taken: ReadingAfter, meter: tuple[float, float]) -> ReadingAfter:
    """What a hand meter shows: its gain, its burden, its digits."""
    gain, burden = meter
    kind = made.reads.get(taken.id, taken.kind)
    if kind == "nothing":
        return replace(taken, value=0.0)
    ohm = burden + made.burden if taken.kind == "current" else 0.0
    if kind == "both":
        value = sum(float(metered(made.position, taken, cases, k, ohm)[0]) for k in ("led_volts", "resistor_volts"))
    else:
        value = float(metered(made.position, taken, cases, kind, ohm)[0])
    if kind in ("led_straight", "led_turned") and value >= OL_V * 0.9:
        return replace(taken, value=ENDLESS)
    if abs(value) < (1e-6 if kind == "current" else 1e-3):
        return replace(taken, value=0.0)
    digits = 3 - math.floor(math.log10(abs(value)))
    return replace(taken, value=round(value * gain, digits))


def first_reading(s: Solution, name: str, rng: random.Random) -> ReadingAfter:
    """What somebody reads first: the current, or volts where the fault is in how those are read."""
    p = s.position
    of = "all" if p.branches > 1 and rng.random() < 0.5 else "one"
    kinds = ["current"]
    if not p.rail.supply.alternates:
        bare = p.module is not None and p.resistor_ohm is None
        kinds = ["current", "current", "led_volts"] + ([] if bare else ["resistor_volts"])
        if name == "probe-side":
            kinds = [k for k in kinds if k != "current"]
    if name.startswith("meter"):
        kinds = ["current"]
    kind = rng.choice(kinds)
    return ReadingAfter("r0", kind, 0.0, 5.0 if kind == "current" else 0.0, of=of)


def place(shares: dict[str, float], name: str) -> int:
    """Where the true fault stands in the list, from 1."""
    return list(shares).index(name) + 1


def one(seed: int, tally: Tally, *, walks: bool) -> None:
    """One lamp with one fault."""
    s = fitted(seed)
    if s is None:
        tally.ends["no fitted lamp"] += 1
        return
    rng = random.Random(seed + 1_000_003)
    try:
        some = ReadingAfter("r0", "led_volts" if rng.random() < 0.5 else "current", 0.0)
        names = sorted({m.id for m in suspects(s, (some,))} - set(NOT_PUT_IN))
        if s.position.rail.supply.alternates:
            names = [n for n in names if n != "probe-side"]
        name = rng.choice(names)
        start = first_reading(s, name, rng)
        every = suspects(s, (start,))
        choices = [m for m in every if m.id == name]
        if not choices:
            tally.ends["not in such a reading"] += 1
            return
        true = rng.choices(choices, [m.weight for m in choices])[0]
        cases, made = luck(s, true, rng)
        meter = 1 + rng.uniform(-0.015, 0.015), rng.uniform(1, 10)
        taken = [read(s, cases, made, start, meter)]
        if diagnose(s, taken[0]).agrees:
            tally.ends["inside the band"] += 1
            tally.named[name, "(inside the band)"] += 1
            return
        before = predict(s, every, taken)
        weighed = weigh(every, before, np.array([comparable(r) for r in taken]))
        one_ = place(by_fault(every, weighed), name)
        asked = ask(s, every, weighed.shares, taken, before, walks=walks)
        if asked is None:
            found = one_
        else:
            for kind in asked.kinds:
                blank = ReadingAfter(f"r{len(taken)}", kind, 0.0, 5.0 if kind == "current" else 0.0, of=start.of)
                taken.append(read(s, cases, made, blank, meter))
            every = suspects(s, tuple(taken))
            weighed = weigh(every, predict(s, every, taken), np.array([comparable(r) for r in taken]))
            ranked = by_fault(every, weighed)
            found = place(ranked, name)
            tally.named[name, next(iter(ranked))] += 1
    except CircuitError:
        tally.ends["not settled with the fault in it"] += 1
        return
    if asked is None:
        tally.named[name, next(iter(by_fault(every, weighed)))] += 1
    tally.ends["ranked"] += 1
    tally.kinds[s.position.rail.supply.kind.label] += 1
    tally.first[name].append(one_)
    tally.second[name].append(found)


def many(first: int, last: int, walks: bool) -> Tally:
    """Seeds from the first up to the last."""
    tally = Tally()
    for seed in range(first, last):
        one(seed, tally, walks=walks)
    tally.first, tally.second = dict(tally.first), dict(tally.second)
    return tally


def share(places: list[int], most: int) -> float:
    """The share that stands among the first so many."""
    return sum(p <= most for p in places) / len(places) if places else 0.0


def shown(tally: Tally) -> str:
    """All of it as text: the shares, and what was named where something else was true."""
    ones = [p for places in tally.first.values() for p in places]
    twos = [p for places in tally.second.values() for p in places]
    lines = [
        f"lamps: {dict(tally.ends)}",
        f"by one reading:            first {share(ones, 1):.3f}, in the first two {share(ones, 2):.3f}",
        f"with the advised second:   first {share(twos, 1):.3f}, in the first two {share(twos, 2):.3f}",
        "",
        f"{'true fault':14} {'lamps':>5} {'first':>6} {'two':>6}   named first",
    ]
    for name in sorted(tally.second):
        named = Counter({k[1]: n for k, n in tally.named.items() if k[0] == name})
        total = sum(named.values())
        others = ", ".join(f"{k} {n / total:.2f}" for k, n in named.most_common(6))
        places = tally.second[name]
        lines.append(f"{name:14} {len(places):5} {share(places, 1):6.2f} {share(places, 2):6.2f}   {others}")
    lines += ["", "supplies: " + ", ".join(f"{k} {n}" for k, n in tally.kinds.most_common())]
    return "\n".join(lines)


def main() -> int:
    """Run them in as many processes as there are processors; 1 where the ranking is worse than it should be."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=12_000, help="seeds; about one in four makes a fitted lamp")
    parser.add_argument("--from", dest="first", type=int, default=0)
    parser.add_argument("--no-walk", action="store_true", help="a walk along the loop is no one reading")
    given = parser.parse_args()
    step = 50
    spans = [(a, min(a + step, given.first + given.count)) for a in range(given.first, given.first + given.count, step)]
    whole = Tally()
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        found = pool.map(many, *zip(*spans, strict=True), [not given.no_walk] * len(spans))
        for done, tally in enumerate(found, 1):
            if done % 20 == 0:
                print(f"{done * step} seeds of {given.count}", flush=True)
            whole.ends.update(tally.ends)
            whole.named.update(tally.named)
            whole.kinds.update(tally.kinds)
            for name in tally.first:
                whole.first[name] += tally.first[name]
                whole.second[name] += tally.second[name]
    print(shown(whole))
    twos = [p for places in whole.second.values() for p in places]
    return 0 if share(twos, 1) >= 0.7 and share(twos, 2) >= 0.9 else 1


if __name__ == "__main__":
    sys.exit(main())
