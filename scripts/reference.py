"""The reference simulator, run in batch on our own netlists: used by tests and bench."""

import re
import shutil
import subprocess
import tempfile
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]


def run(text: str, *, seconds: float = 120) -> str:
    """Standard output of ``ngspice -b`` on a netlist.

    Raises:
        RuntimeError: it is missing, or it failed.
    """
    tool = shutil.which("ngspice")
    if tool is None:
        raise RuntimeError("ngspice is not installed: make debian")
    with tempfile.TemporaryDirectory() as room:
        path = Path(room) / "deck.cir"
        path.write_text(text, encoding="utf-8")
        done = subprocess.run([tool, "-b", str(path)], capture_output=True, text=True, timeout=seconds, cwd=room)
    if "Error" in done.stderr and "No compatibility" not in done.stderr:
        raise RuntimeError(done.stderr[-500:])
    return done.stdout


def operating_points(decks: list[str]) -> list[dict[str, float]]:
    """Node voltages and source currents ("i(v1)") of many netlists in one process.

    Each deck is a whole netlist without analyses; names must be lower case.
    """
    with tempfile.TemporaryDirectory() as room:
        lines = ["* all", ".control", "set numdgt=12"]
        for k, deck in enumerate(decks):
            (Path(room) / f"d{k}.cir").write_text(_tight(deck), encoding="utf-8")
            lines += [f"source d{k}.cir", "op", f"echo deck {k}", "print all", "destroy all", "remcirc"]
        lines += ["quit", ".endc", ".end"]
        (Path(room) / "all.cir").write_text("\n".join(lines), encoding="utf-8")
        tool = shutil.which("ngspice") or "ngspice"
        done = subprocess.run([tool, "-b", "all.cir"], capture_output=True, text=True, timeout=300, cwd=room)
    out: list[dict[str, float]] = []
    for block in re.split(r"^deck \d+\s*$", done.stdout, flags=re.M)[1:]:
        found = re.findall(r"^(\S+) = ([-+0-9.e]+)\s*$", block, flags=re.M)
        values = {}
        for name, value in found:
            branch = re.fullmatch(r"(\S+)#branch", name)
            values[f"i({branch.group(1)})" if branch else name] = float(value)
        out.append(values)
    return out


def _tight(deck: str) -> str:
    """The deck with tolerances that leave no error of its own: SPICE's are 0.1 % of a node's volts."""
    return deck.replace(".end\n", ".options reltol=1e-7 abstol=1e-15 vntol=1e-10 itl1=500\n.end\n")


def averages(deck: str, nodes: list[str], begin: float, end: float, what: str = "AVG") -> dict[str, float]:
    """Averages (or "RMS") of node voltages and "v1#branch" currents between two instants of the deck's .tran."""
    measures = [f"meas tran m{k} {what} {_vector(n)} from={begin!r} to={end!r}" for k, n in enumerate(nodes)]
    control = "\n".join([".control", "run", *measures, "quit", ".endc", ".end"])
    text = deck.replace(".end\n", "") + control + "\n"
    printed = dict(re.findall(r"^m(\d+)\s*=\s*([-+0-9.e]+)", run(text), flags=re.M))
    return {n: float(printed[str(k)]) for k, n in enumerate(nodes)}


def _vector(name: str) -> str:
    return name if "#" in name else f"v({name})"
