"""Small mistakes put into core, records and API, one at a time: are they noticed? ``make mutants``.

A seeded sample of what the mutation tool can do at each place. Each mistake is met by the tests that run its line,
the quickest first. What survives is printed with its difference; docs/mutants.md says why each may.
"""

import argparse
import difflib
import os
import random
import re
import subprocess
import sys
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import SimpleQueue

from cosmic_ray.ast import ast_nodes, get_ast
from cosmic_ray.mutating import mutate_code
from cosmic_ray.plugins import get_operator, operator_names

from scripts.mutants.lines import ROOT, learn

UNDER = ("swapglow/core", "swapglow/records", "swapglow/api")
# A mistake that makes the program slower than this is noticed by whoever waits.
PATIENCE_S = 400.0
# Whatever is left of a mistake's tests after so long is not run: it has had its chance.
ENOUGH_S = 240.0
APPROVED = "tests/approved"
# Read when a module is, and held against what is published of it.
PUBLISHED = {"swapglow/api": "tests/api/test_contract.py"}

# These change no answer: a type's alternatives; identity for equality, which are one for what is compared so; an
# exception that is caught by another name; a cache, and a shape that is frozen.
DULL_OPERATORS = re.compile(
    r"BitOr|ExceptionReplacer|(Eq_Is|NotEq_IsNot|Is_Eq|IsNot_NotEq)$|VariableInserter|VariableReplacer"
    r"|Is_(Lt|LtE|Gt|GtE)$|IsNot_(Lt|LtE|Gt|GtE)$"
)
DULL_LINES = re.compile(r"^\s*@(dataclass|lru_cache|cache|overload|staticmethod)|^\s*(from|import) |TYPE_CHECKING")


@dataclass(frozen=True)
class Mistake:
    """One mistake at one place."""

    path: str
    line: int
    operator: str
    occurrence: int


@dataclass
class Ending:
    """What became of a mistake: noticed, survived or never run, and its difference."""

    mistake: Mistake
    end: str
    difference: str
    seconds: float = 0.0
    by: str = ""


def places(tree: Path, path: Path) -> dict[tuple[int, int], list[Mistake]]:
    """Every place of a file with the mistakes that can be made there."""
    code = path.read_text()
    lines = code.splitlines()
    parsed = get_ast(code)
    out: dict[tuple[int, int], list[Mistake]] = {}
    for name in operator_names():
        if DULL_OPERATORS.search(name) or get_operator(name).arguments():
            continue
        operator = get_operator(name)()
        spots = (spot for node in ast_nodes(parsed) for spot in operator.mutation_positions(node))
        for occurrence, (start, _) in enumerate(spots):
            if not DULL_LINES.search(lines[start[0] - 1]):
                here = Mistake(str(path.relative_to(tree)), start[0], name, occurrence)
                out.setdefault(start, []).append(here)
    return out


def sample(tree: Path, seed: int, count: int) -> list[Mistake]:
    """So many mistakes in a tree: places drawn evenly, and one mistake at each."""
    dice = random.Random(seed)
    every = [
        at
        for folder in UNDER
        for path in sorted((tree / folder).rglob("*.py"))
        if "migrations" not in path.parts and "demo" not in path.parts
        for at in places(tree, path).values()
    ]
    return [dice.choice(at) for at in dice.sample(every, min(count, len(every)))]


def tests_for(tree: Path, m: Mistake, lines: dict[str, dict[int, list[str]]], took: dict[str, float]) -> list[str]:
    """The tests that run a mistake's line; for a line of the module itself, those that run what names it."""
    found = set(lines.get(m.path, {}).get(m.line, ()))
    text = (tree / m.path).read_text().splitlines()[m.line - 1]
    named = re.match(r"([A-Z_][A-Z0-9_]+)\b", text)
    if not found and named:
        for path, of in lines.items():
            code = (tree / path).read_text().splitlines()
            for n, line in enumerate(code, 1):
                if re.search(rf"\b{named[1]}\b", line):
                    found |= set(of.get(n, ()))
    if not found:
        # Read when the module is: a default, a table's row, part of a longer statement.
        found = {test for tests in lines.get(m.path, {}).values() for test in tests}
    held = next((tests for folder, tests in PUBLISHED.items() if m.path.startswith(folder)), None)
    found |= {test for test in took if held and test.startswith(held)}
    # What says of everything whether it moved comes last, and always.
    approved = sorted(test for test in found if test.startswith(APPROVED))
    chosen, spent = [], 0.0
    for test in sorted(found - set(approved), key=lambda t: took.get(t, 0.0)):
        spent += took.get(test, 0.0)
        if chosen and spent > ENOUGH_S:
            break
        chosen.append(test)
    return chosen + approved


def meet(m: Mistake, tests: list[str], work: Path) -> Ending:
    """Put a mistake into a copy of the tree and run its tests there."""
    path = work / m.path
    right = path.read_text()
    wrong = mutate_code(right, get_operator(m.operator)(), m.occurrence)
    difference = "\n".join(
        line
        for line in difflib.unified_diff(right.splitlines(), wrong.splitlines(), lineterm="", n=0)
        if not line.startswith(("---", "+++", "@@"))
    )
    if not tests:
        return Ending(m, "never run", difference)
    path.write_text(wrong)
    started = time.monotonic()
    try:
        done = subprocess.run(
            [sys.executable, "-m", "pytest", "-x", "-q", "--no-header", "-p", "no:cacheprovider", *tests],
            cwd=work,
            capture_output=True,
            text=True,
            timeout=PATIENCE_S,
            check=False,
            env={**os.environ, "OPENBLAS_NUM_THREADS": "1"},
        )
        end, said = ("survived" if done.returncode == 0 else "noticed"), done.stdout
    except subprocess.TimeoutExpired:
        end, said = "noticed", "FAILED: by whoever waits"
    finally:
        path.write_text(right)
    by = next((line for line in said.splitlines() if line.startswith(("FAILED", "ERROR"))), "")
    return Ending(m, end, difference, time.monotonic() - started, by[:150])


def copies(room: Path, count: int) -> SimpleQueue:
    """Copies of the committed tree to make mistakes in."""
    free: SimpleQueue = SimpleQueue()
    for n in range(count):
        work = room / f"copy-{n}"
        work.mkdir()
        packed = subprocess.run(["git", "archive", "HEAD"], cwd=ROOT, capture_output=True, check=True).stdout
        subprocess.run(["tar", "-x", "-C", str(work)], input=packed, check=True)
        (work / "frontend" / "node_modules").symlink_to(ROOT / "frontend" / "node_modules")
        free.put(work)
    return free


def main() -> int:
    """Make the mistakes; 1 where fewer than nine in ten are noticed."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=120)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--minutes", type=float, default=60.0, help="no mistake is begun after so long")
    parser.add_argument("--only", default="", help="part of a path")
    given = parser.parse_args()
    with tempfile.TemporaryDirectory(prefix="swapglow-mutants-") as name:
        workers = os.cpu_count() or 1
        free = copies(Path(name), workers)
        first = free.get()
        lines, took = learn(first)
        chosen = [
            (m, tests_for(first, m, lines, took))
            for m in sample(first, given.seed, given.count)
            if given.only in m.path
        ]
        free.put(first)
        until = time.monotonic() + given.minutes * 60
        endings: list[Ending] = []

        def one(met: tuple[Mistake, list[str]]) -> None:
            if time.monotonic() > until:
                return
            work = free.get()
            try:
                e = meet(*met, work)
            finally:
                free.put(work)
            endings.append(e)
            m, n = e.mistake, len(endings)
            print(f"{n:4} {e.end:9} {e.seconds:5.0f} s  {m.path}:{m.line} {m.operator} {e.by}", flush=True)
            if e.end != "noticed":
                print(e.difference, flush=True)

        with ThreadPoolExecutor(workers) as pool:
            list(pool.map(one, chosen))
    left = [e for e in endings if e.end != "noticed"]
    noticed = len(endings) - len(left)
    print(f"\n{noticed} of {len(endings)} noticed ({given.count} drawn by seed {given.seed})")
    return 0 if noticed >= 0.9 * len(endings) else 1


if __name__ == "__main__":
    sys.exit(main())
