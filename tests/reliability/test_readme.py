"""Every command that the README names, run to its end on a copy of the project, as small as it can be: make torture."""

import os
import re
import shutil
import subprocess
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[2]
README = (ROOT / "README.md").read_text("utf-8")
# Run elsewhere: the server by every test of its starts, the suite by itself, this by this.
ELSEWHERE = {"demo", "serve", "test", "test-core", "test-web", "torture"}
SMALL = {
    "year": {"CHANGES": "300"},
    "fuzz-core": {"COUNT": "60"},
    "faults": {"LAMPS": "60"},
    "mutants": {"MISTAKES": "1"},
    "audit": {"LIST": "tests/fixtures/invented-hole.json"},
}
MAKE = sorted(set(re.findall(r"\bmake ([a-z][a-z-]*[a-z])", README)) - ELSEWHERE - {"it"})
OWN = {"size", "solve", "assess", "serve", "backup", "restore", "check", "export", "import"}

pytestmark = pytest.mark.skipif(not os.environ.get("TORTURE"), reason="long: make torture")


@pytest.fixture(scope="module")
def copy(tmp_path_factory):
    """The project as it is kept, with what was installed here."""
    there = tmp_path_factory.mktemp("readme") / "project"
    kept = subprocess.run(["git", "ls-files", "-z"], cwd=ROOT, capture_output=True, check=True).stdout.decode()
    for name in filter(None, kept.split("\0")):
        (there / name).parent.mkdir(parents=True, exist_ok=True)
        shutil.copy2(ROOT / name, there / name)
    for name in (".venv", "frontend/node_modules", "frontend/dist"):
        (there / name).symlink_to(ROOT / name)
    subprocess.run(["git", "init", "-q"], cwd=there, check=True)
    subprocess.run(["git", "add", "-A"], cwd=there, check=True)
    who = ["-c", "user.name=test", "-c", "user.email=test@example.invalid"]
    subprocess.run(["git", *who, "commit", "-qm", "copy"], cwd=there, check=True)
    return there


@pytest.mark.parametrize("command", MAKE)
def test_a_make_command_runs_to_its_end(copy, command):
    more = [f"{k}={v}" for k, v in SMALL.get(command, {}).items()]
    ran = subprocess.run(["make", command, *more], cwd=copy, capture_output=True, text=True, timeout=1800)
    assert ran.returncode == 0, (ran.stdout + ran.stderr)[-3000:]
    assert "Traceback" not in ran.stdout + ran.stderr


def test_no_command_of_the_program_is_forgotten():
    (line,) = [x for x in README.splitlines() if "Command line" in x]
    assert set(re.findall(r"`(?:swapglow )?([a-z]+)`", line)) == OWN


def test_the_commands_of_the_program_run_to_their_end(copy, room, tmp_path):
    """Size, solve and assess, and one turn of the records: backed up, checked, taken out, put in, restored."""
    program, bench = str(copy / ".venv/bin/swapglow"), ["--records", str(room)]
    deck, whole = tmp_path / "one.cir", str(tmp_path / "bench.zip")
    deck.write_text("divider\nV1 in 0 DC 12\nR1 in out 1k\nR2 out 0 1k\n.op\n.end\n")
    turns = [
        ["size", "--rail", "13V", "--vf", "1.9-2.3V", "--current", "8mA"],
        ["solve", str(deck)],
        ["catalogue"],
        ["check", *bench],
        ["backup", *bench],
        ["export", whole, *bench],
        ["import", whole, *bench],
        ["restore", *bench],
        ["check", *bench],
    ]
    for turn in turns:
        ran = subprocess.run([program, *turn], cwd=copy, capture_output=True, text=True, timeout=300)
        assert "Traceback" not in ran.stderr, (turn, ran.stderr)
        assert ran.returncode == 0, (turn, ran.stdout, ran.stderr)
