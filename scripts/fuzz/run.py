"""Twenty thousand random lamps through report, swaps, circuit text and findings: ``make fuzz-core``.

Each is an answer that a second working-out confirms within one per cent, or a refusal that names a field; and no
swap that is offered as best, and no remedy, brings what it must not. Any other ending is printed with its seed.
"""

import argparse
import os
import sys
import time
import traceback
import warnings
from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field

from scripts.fuzz import by_reference
from scripts.fuzz.documents import document
from scripts.fuzz.rebuild import Case, NotHere, string_amps
from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.solution import solve
from swapglow.core.analysis.spice_text import spice_text
from swapglow.core.assess import Bench, assess
from swapglow.core.design.changes import with_changes
from swapglow.core.engine.devices import GMIN
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.findings import verdict
from swapglow.core.findings.finding import GRADES
from swapglow.core.quantities import InputError
from swapglow.core.search import search
from swapglow.inputs.to_core import position_of, trials_of

# Besides the leak that the engine keeps across each junction.
CLOSE = 0.01
# What no LED shows and no meter reads: a capacitor is then still far from its charge.
_NOTHING_A = 2e-8
SLOW_S = 5.0


@dataclass
class Tally:
    """What came of some seeds."""

    ends: Counter = field(default_factory=Counter)
    wrong: list = field(default_factory=list)
    slow: list = field(default_factory=list)
    unsettled: list = field(default_factory=list)


def one(seed: int, every: int, tally: Tally) -> None:
    """One random lamp; of each ``every`` its swaps are searched and its remedies taken as well."""
    started = time.monotonic()
    try:
        rail, lamp = document(seed)
        p = position_of(lamp, rail)
        report = assess(p, Bench(trials=trials_of(lamp)))
        if seed % every == 0:
            spice_text(p, size(p).total_ohm, size(p).farads)
            tally.wrong += [(seed, text) for text in offered(p, report.findings)]
        tally.ends[confirmed(p, seed, every, tally)] += 1
    except InputError as refusal:
        tally.ends["refused"] += 1
        if not refusal.field:
            tally.wrong.append((seed, f"a refusal without a field: {refusal.message}"))
    except CircuitError:
        tally.ends["not settled"] += 1
        tally.unsettled.append(seed)
    except Exception:
        tally.wrong.append((seed, traceback.format_exc(limit=-3)))
    if time.monotonic() - started > SLOW_S:
        tally.slow.append((seed, round(time.monotonic() - started, 1)))


def confirmed(p, seed: int, every: int, tally: Tally) -> str:
    """How the usual currents were worked out a second time, if they were; a difference is noted.

    By brackets at all three rails; of what those do not know, one in ``every`` by the reference simulator.
    """
    s = solve(p, rule=False)
    alternates = p.rail.supply.alternates
    try:
        for k in range(3):
            # Where the supply alternates the driver's drop is off the crest already.
            rail = p.rail.peaks[k] - p.drop_v if alternates else p.rail.volts[k]
            drop = 0.0 if alternates else p.drop_v
            case = Case(rail, p.led.vf_typ, s.sizing.total_ohm, drop, p.rail.supply.source_ohm.value)
            _compare(float(s.usual[k]), string_amps(s.position, case), rail, "brackets", seed, tally)
        return "confirmed"
    except NotHere:
        pass
    if seed % every or not by_reference.known(p):
        return "answered"
    try:
        theirs = by_reference.string_amps(s)
    except NotHere:
        return "answered"
    _compare(float(s.usual[1]), theirs, p.rail.peaks[1], "the reference simulator", seed, tally)
    return "confirmed by the reference"


def _compare(ours: float, theirs: float, rail: float, by: str, seed: int, tally: Tally) -> None:
    if abs(ours - theirs) > CLOSE * abs(theirs) + 2 * GMIN * abs(rail) + _NOTHING_A:
        tally.wrong.append((seed, f"{ours:.4g} A by the engine, {theirs:.4g} A by {by}"))


def offered(p, findings) -> list[str]:
    """What is wrong with what is offered: a best swap with a stop, a remedy that does not cure."""
    out = []
    for swap in search(p).swaps:
        if swap.best and swap.id not in ("leave", "as-is"):
            stops = [f.id for f in verdict(with_changes(p, swap.changes)) if f.grade == "stop"]
            out += [f"best swap {swap.id} raises {stop}" for stop in stops]
    before = {f.id: f.grade for f in findings}
    for f in findings:
        for remedy in f.remedies:
            after = {g.id: g.grade for g in verdict(with_changes(p, remedy.changes))}
            if f.id in after:
                out.append(f"{remedy.id} does not clear {f.id}")
            graver = [
                k
                for k, g in after.items()
                if GRADES.index(g) <= max(GRADES.index(f.grade) - 1, 0)
                and GRADES.index(before.get(k, "note")) > GRADES.index(g)
            ]
            out += [f"{remedy.id} for {f.id} raises {k}" for k in graver]
    return out


def many(first: int, last: int, every: int) -> Tally:
    """Seeds from the first up to the last."""
    warnings.simplefilter("error")
    tally = Tally()
    for seed in range(first, last):
        one(seed, every, tally)
    return tally


def main() -> int:
    """Run them in as many processes as there are processors; 1 where anything is wrong."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=20_000)
    parser.add_argument("--from", dest="first", type=int, default=0)
    parser.add_argument("--every", type=int, default=10, help="of so many, one has its swaps and remedies tried")
    given = parser.parse_args()
    size_ = 50
    spans = [
        (a, min(a + size_, given.first + given.count)) for a in range(given.first, given.first + given.count, size_)
    ]
    ends, wrong, slow, unsettled = Counter(), [], [], []
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        for done, tally in enumerate(pool.map(many, *zip(*spans, strict=True), [given.every] * len(spans)), 1):
            ends.update(tally.ends)
            wrong += tally.wrong
            for seed, text in tally.wrong:
                print(f"seed {seed}: {text}", flush=True)
            slow += tally.slow
            unsettled += tally.unsettled
            if done % 20 == 0:
                print(f"{done * size_}: {dict(ends)}, {len(wrong)} wrong", flush=True)
    print(f"{dict(ends)}; {len(wrong)} wrong; over {SLOW_S:g} s: {slow}; not settled: {unsettled}")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
