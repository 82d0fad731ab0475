"""What the bench day is worth beside first come, first served, on seeded workloads: ``make day-worth``."""

import argparse
import random
import statistics
from datetime import datetime, timedelta

from swapglow.core.planning.day import Day, first_come, plan_day
from swapglow.core.planning.work import KINDS, USUAL_MIN, Lamp, Task, tasks_of

BEGINS = datetime(2031, 5, 20, 9)
LONG = 200.0


def workload(rng: random.Random) -> list[Task]:
    """Lamps as a workshop has them: in all stages, some of an item, a few that wait."""
    order = list(KINDS)
    tasks: list[Task] = []
    for item in range(rng.randint(2, 8)):
        for lamp in range(rng.randint(1, 6)):
            left = tuple(order[rng.randrange(len(order)) :])
            held = {left[0]: "paint"} if rng.random() < 0.1 else {}
            until = {k: BEGINS + timedelta(hours=rng.uniform(0.5, 5)) for k in held}
            name = f"{item}.{lamp}"
            one = Lamp(name, name, str(item), str(item), left, held, until)
            spread = {k: m * rng.uniform(0.6, 1.6) for k, m in USUAL_MIN.items()}
            tasks += tasks_of(one, spread)
    return tasks


def done(day: Day) -> int:
    """Things done in a day."""
    return sum(len(b.done) for b in day.blocks)


def main() -> None:
    """Print how much more is done in four hours, and how much sooner all is done."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=500)
    parser.add_argument("--seed", type=int, default=1)
    args = parser.parse_args()
    rng = random.Random(args.seed)
    more, sooner, hands = [], [], []
    for _ in range(args.count):
        tasks = workload(rng)
        ours, theirs = plan_day(tasks, 4, BEGINS), first_come(tasks, 4, BEGINS)
        more.append(done(ours) / max(done(theirs), 1))
        ours, theirs = plan_day(tasks, LONG, BEGINS), first_come(tasks, LONG, BEGINS)
        assert done(ours) == done(theirs) == len(tasks)
        sooner.append(ours.end_min / theirs.end_min)
        hands.append(ours.hands_min / theirs.hands_min)
    for name, ratios in (
        ("things done in four hours, ours / first come", more),
        ("until all is done, ours / first come", sooner),
        ("minutes of hands for all, ours / first come", hands),
    ):
        low, middle, high = statistics.quantiles(ratios, n=20)[0], statistics.median(ratios), max(ratios)
        print(f"{name:<48}{middle:.2f}  (a twentieth under {low:.2f}, most {high:.2f})")
    worse = sum(r > 1 + 1e-9 for r in sooner)
    print(f"{'workloads in which all is done later than so':<48}{worse} of {args.count}")


if __name__ == "__main__":
    main()
