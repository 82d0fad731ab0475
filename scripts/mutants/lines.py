"""Which tests run which lines: one coverage run of all tests outside the browser, kept beside the environment."""

import functools
import gc
import json
import subprocess
import sys
import time
from collections import defaultdict
from pathlib import Path

import pytest
from coverage import Coverage, CoverageData

ROOT = Path(__file__).resolve().parents[2]
KEPT = ROOT / ".venv" / "mutants"
ROOMS = ("tests/core", "tests/api tests/document tests/approved")


class Watching:
    """Empties every cache before a test, so that its own lines are run, and notes how long each takes."""

    def __init__(self):
        self.took = defaultdict(float)
        self._caches = []

    def pytest_collection_finish(self):
        """Find the caches, once all is imported."""
        self._caches = [
            found
            for found in gc.get_objects()
            if type(found) is functools._lru_cache_wrapper and "swapglow" in str(found.__module__)
        ]

    @pytest.hookimpl(wrapper=True)
    def pytest_runtest_protocol(self, item):
        """Run a test with its name as coverage's context."""
        for cache in self._caches:
            cache.cache_clear()
        started = time.monotonic()
        # All cases of a parametrized test are one.
        name = item.nodeid.split("[")[0]
        running = Coverage.current()
        if running is not None:
            running.switch_context(name)
        try:
            return (yield)
        finally:
            self.took[name] += time.monotonic() - started


def took_of(room: str) -> str:
    """The file in which a room's seconds by test are noted, where it runs."""
    return f"{room.replace('/', '-').replace(' ', '-')}.json"


def watch(room: str) -> None:
    """Run the tests of one room, watched; called in a process of its own, under coverage."""
    plugin = Watching()
    code = pytest.main(["-q", "-p", "no:cacheprovider", *room.split()], plugins=[plugin])
    if code != 0:
        sys.exit(f"{room}: its tests must pass before mistakes are put into what they test")
    Path(took_of(room)).write_text(json.dumps(plugin.took))


def learn(work: Path) -> tuple[dict[str, dict[int, list[str]]], dict[str, float]]:
    """Each file's lines with the tests that run them, and how long each test takes, s.

    Args:
        work: a copy of the tree to run in.

    Returns:
        Tests by file and line, and seconds by test. Both are kept for the commit.
    """
    KEPT.mkdir(parents=True, exist_ok=True)
    # Both count: a test that is new is met from then on.
    trees = subprocess.run(
        ["git", "rev-parse", "HEAD:swapglow", "HEAD:tests"], cwd=ROOT, capture_output=True, text=True, check=True
    ).stdout.split()
    kept = KEPT / f"lines-{'-'.join(tree[:12] for tree in trees)}.json"
    if not kept.exists():
        _run_all(work)
        kept.write_text(json.dumps(_read(work)))
    found = json.loads(kept.read_text())
    return {path: {int(n): tests for n, tests in lines.items()} for path, lines in found["lines"].items()}, found[
        "took"
    ]


def _run_all(work: Path) -> None:
    (work / ".coveragerc").write_text("[run]\nsource = swapglow\nparallel = true\n")
    running = [
        subprocess.Popen(
            [
                sys.executable,
                "-m",
                "coverage",
                "run",
                "--data-file",
                str(work / f"cover-{n}"),
                "-m",
                "scripts.mutants.lines",
                room,
            ],
            cwd=work,
        )
        for n, room in enumerate(ROOMS)
    ]
    codes = [one.wait() for one in running]
    if any(codes):
        sys.exit(1)


def _read(work: Path) -> dict:
    took: dict[str, float] = {}
    for room in ROOMS:
        took |= json.loads((work / took_of(room)).read_text())
    lines: dict[str, dict[int, list[str]]] = {}
    for n in range(len(ROOMS)):
        for part in work.glob(f"cover-{n}*"):
            data = CoverageData(str(part))
            data.read()
            for path in data.measured_files():
                of = lines.setdefault(str(Path(path).relative_to(work)), {})
                for line, contexts in data.contexts_by_lineno(path).items():
                    of[line] = sorted({*of.get(line, []), *(c for c in contexts if c in took)})
    if not any(tests for of in lines.values() for tests in of.values()):
        sys.exit("coverage noted no test beside any line")
    return {"lines": lines, "took": took}


if __name__ == "__main__":
    watch(sys.argv[1])
