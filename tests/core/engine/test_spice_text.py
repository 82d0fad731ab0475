"""The reader of SPICE text: what it takes, and what it refuses with line and reason."""

import json
from pathlib import Path

import pytest

from swapglow.cli import main
from swapglow.core.engine.run_deck import run_deck
from swapglow.core.engine.spice import SpiceError, read_deck

GOOD = """a lamp on a switched rail
* comment line
V1 IN 0 DC 13.5 ; the rail
R1 in a 1.2K
+
D1 a B dled
D2 b 0 DLED
.MODEL dled D(IS=2e-18
+ N=2.1 RS=9)
.dc v1 0 14 0.5
.op
.end
R9 this line is after the end
"""


def test_reads_continuations_comments_suffixes_and_case():
    answer = run_deck(read_deck(GOOD))
    assert answer["op"]["v"]["in"] == 13.5
    assert answer["op"]["i"]["v1"] < 0
    assert len(answer["dc"]["sweep"]) == 29
    assert answer["dc"]["v"]["a"][27] == pytest.approx(answer["op"]["v"]["a"])


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("1k", 1e3),
        ("1meg", 1e6),
        ("1MEGohm", 1e6),
        ("2m", 2e-3),
        ("10uF", 1e-5),
        ("1e3k", 1e6),
        ("4.7kohm", 4700.0),
        ("1mil", 25.4e-6),
    ],
)
def test_reads_engineering_suffixes(text, value):
    deck = read_deck(f"t\nr1 a 0 {text}\nv1 a 0 1\n.op\n")
    assert deck.circuit.element("r1").ohms == pytest.approx(value)


@pytest.mark.parametrize(
    ("body", "line", "says"),
    [
        ("r1 a 0", 2, "no resistance"),
        ("r1 a 0 4k7 x", 2, "more than a value"),
        ("r1 a 0 abc", 2, "no number"),
        ("x1 a 0 sub", 2, "no part that is read"),
        ("v1 a 0 1\n.ac dec 10 1 1k", 3, '".ac" is not read'),
        ("d1 a 0 nope", 2, 'no .model "nope"'),
        ("d1 a 0 m\n.model m D(IS=1e-14 BOGUS=1)", 3, "BOGUS is not read"),
        ("d1 a 0 m\nv1 a 0 1\n.model m D(CJO=1p)\n.tran 1u 1m", 4, "junction charge"),
        ("v1 a 0 1\nv1 b 0 1", 3, "already on line 2"),
        ("v1 a 0 1\nr1 a 0 1\n.dc v9 0 1 1", 4, "no source"),
        ("v1 a 0 1\nr1 a 0 1\n.dc v1 0 1 -1", 4, "never gets"),
        ("v1 a 0 sin(0 1 0)", 2, "frequency above 0"),
        ("v1 a 0 pwl(0 0 0 1)", 2, "must rise"),
        ("+ r1 a 0 1", 2, "nothing before it"),
        (".include other.cir", 2, "not read"),
        (".options gmin=1e-9", 2, "would change the answer"),
        ("r1 a 0 1e400", 2, "too large"),
    ],
)
def test_refuses_with_line_and_reason(body, line, says):
    with pytest.raises(SpiceError, match=says) as refused:
        read_deck(f"title\n{body}\n")
    assert refused.value.line == line


def test_temperature_counts():
    # A silicon junction falls by about 2 mV/K.
    silicon = GOOD.replace("IS=2e-18", "IS=1e-14").replace("N=2.1", "N=1")

    def hot(line):
        return run_deck(read_deck(silicon.replace(".op", f"{line}\n.op")))["op"]["v"]["a"]

    assert hot(".temp 27") - hot(".temp 85") == pytest.approx(2 * 58 * 2e-3, rel=0.3)
    assert hot(".options temp=85") == hot(".temp 85")


def test_solve_prints_json_and_exits_two_on_bad_input(tmp_path: Path, capsys):
    good = tmp_path / "good.cir"
    good.write_text(GOOD)
    assert main(["solve", str(good), "--json"]) == 0
    answer = json.loads(capsys.readouterr().out)
    assert set(answer) == {"op", "dc"}
    assert set(answer["dc"]) == {"sweep", "v", "i"}
    for name, text, says in (
        ("bad", "t\nq1 a\n", "line 2"),
        ("none", "t\nv1 a 0 1\nr1 a 0 1\n", "no analysis"),
        ("loose", "t\nv1 a 0 1\nr1 b c 1\n.op\n", "No DC path"),
    ):
        path = tmp_path / f"{name}.cir"
        path.write_text(text)
        assert main(["solve", str(path)]) == 2
        printed = capsys.readouterr()
        assert says in printed.err
        assert printed.err.count("\n") == 1
        assert printed.out == ""
    assert main(["solve", str(tmp_path / "missing.cir")]) == 2


def test_a_run_starts_from_conditions_where_asked():
    text = "rc\nv1 a 0 0\nr1 a b 1k\nc1 b 0 1u ic=5\n.tran 10u 3m uic\n"
    run = run_deck(read_deck(text))["tran"]
    at = min(range(len(run["t"])), key=lambda k: abs(run["t"][k] - 1e-3))
    # Discharge through a resistor: 5·e^(−t/RC).
    assert run["v"]["b"][at] == pytest.approx(5 * 2.718281828 ** (-run["t"][at] / 1e-3), rel=2e-3)


def test_an_inductors_current_rises_as_it_should():
    """I = V/R·(1 − e^(−t·R/L))."""
    text = "rl\nv1 a 0 pulse(0 10 0 1n 1n 1 2)\nr1 a b 100\nl1 b 0 0.1\n.tran 20u 2m\n"
    run = run_deck(read_deck(text))["tran"]
    at = min(range(len(run["t"])), key=lambda k: abs(run["t"][k] - 1e-3))
    assert run["i"]["l1"][at] == pytest.approx(0.1 * (1 - 2.718281828 ** (-run["t"][at] * 1000)), rel=2e-3)
