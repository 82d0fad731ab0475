"""What installs Debian's packages: nothing that is there, and patient with another program that holds the manager."""

import os
import subprocess
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[1]


@pytest.fixture
def machine(tmp_path):
    """Run the script on a machine whose package manager answers as told; what was asked of it, and the answer."""

    def run(*names, held=0, broken=False):
        (tmp_path / "held").write_text(str(held))
        for name, text in {
            "dpkg-query": 'case "$4" in there) echo "install ok installed";; esac',
            "sleep": "exit 0",
            "sudo": 'exec "$@"',
            "apt-get": f"""echo "$1 $(echo "$@" | tr ' ' '\\n' | grep -v -e '^-' -e "^$1")" >> {tmp_path}/asked
left=$(cat {tmp_path}/held)
[ "$left" -gt 0 ] && echo $((left - 1)) > {tmp_path}/held && echo "E: Could not get lock" >&2 && exit 100
{'echo "E: Unable to locate package" >&2; exit 100' if broken else "exit 0"}""",
        }.items():
            (tmp_path / name).write_text(f"#!/bin/sh\n{text}\n")
            (tmp_path / name).chmod(0o755)
        path = f"{tmp_path}:{os.environ['PATH']}"
        script = ["sh", "scripts/debian-packages", *names]
        done = subprocess.run(script, cwd=ROOT, env={**os.environ, "PATH": path}, capture_output=True, text=True)
        asked = (tmp_path / "asked").read_text().split("\n")[:-1] if (tmp_path / "asked").exists() else []
        return done, [" ".join(line.split()) for line in asked]

    return run


def test_what_is_there_is_not_installed_again(machine):
    done, asked = machine("there")
    assert (done.returncode, done.stdout, asked) == (0, "", [])


def test_what_is_missing_is_installed_alone(machine):
    done, asked = machine("there", "gone")
    assert done.returncode == 0 and asked[0] == "update" and "gone" in done.stdout and "there" not in done.stdout


def test_a_manager_that_is_busy_is_waited_for(machine):
    done, asked = machine("gone", held=3)
    assert done.returncode == 0 and len(asked) == 5
    assert done.stdout.count("waiting for it") == 1


@pytest.mark.parametrize("held", [0, 100])
def test_what_cannot_be_installed_is_said(machine, held):
    done, _ = machine("gone", held=held, broken=True)
    assert done.returncode == 1 and "E: " in done.stderr
