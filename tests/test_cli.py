"""The command line: what it prints, and how it refuses."""

import json
import signal
import subprocess
import sys
from functools import partial

import pytest

from swapglow.cli import main


def run(capsys, *words):
    code = main(["size", *words])
    return code, capsys.readouterr()


def test_size_prints_the_agreed_json(capsys):
    code, out = run(capsys, "--rail", "10.2V", "--vf", "2.2", "--current", "19mA", "--series", "E12", "--json")
    answer = json.loads(out.out)
    assert code == 0
    assert set(answer) == {
        "exact_ohm",
        "resistor_ohm",
        "current_a",
        "resistor_power_w",
        "resistor_rating_w",
        "findings",
    }
    # Common practice: 10.2 V and a red LED take 470 Ω in E12.
    assert answer["exact_ohm"] == pytest.approx(8 / 0.019) and answer["resistor_ohm"] == 470
    assert set(answer["current_a"]) == {"low", "usual", "high"}
    assert all({"id", "grade", "message"} <= set(f) for f in answer["findings"])


def test_size_takes_ranges_and_their_worst_corners(capsys):
    _, out = run(
        capsys,
        "--rail",
        "13V",
        "--rail-low",
        "11V",
        "--rail-high",
        "15V",
        "--vf",
        "1.9-2.3V",
        "--in-series",
        "3",
        "--current",
        "8mA",
        "--driver-drop",
        "0.8V",
        "--json",
    )
    a = json.loads(out.out)
    assert a["exact_ohm"] == pytest.approx((13 - 0.8 - 6.3) / 0.008)
    assert a["current_a"]["low"] == pytest.approx((11 - 0.8 - 6.9) / (a["resistor_ohm"] * 1.05))
    assert a["current_a"]["high"] == pytest.approx((15 - 0.8 - 5.7) / (a["resistor_ohm"] * 0.95))
    assert a["resistor_power_w"] == pytest.approx(a["current_a"]["high"] ** 2 * a["resistor_ohm"] * 0.95)


def test_the_resistors_tolerance_can_be_said(capsys):
    words = ("--rail", "13V", "--vf", "2V", "--current", "10mA", "--json", "--tolerance")
    exact = json.loads(run(capsys, *words, "0%")[1].out)["current_a"]
    assert exact["low"] == exact["usual"] == exact["high"]
    assert json.loads(run(capsys, *words, "1%")[1].out)["current_a"]["high"] == pytest.approx(exact["high"] / 0.99)
    code, out = run(capsys, *words, "lots")
    assert (code, "must be a percentage" in out.err) == (2, True)


def test_a_rail_below_the_leds_is_a_finding_and_no_number(capsys):
    code, out = run(capsys, "--rail", "5V", "--vf", "3.1", "--in-series", "2", "--current", "5mA", "--json")
    answer = json.loads(out.out)
    assert code == 0 and answer["resistor_ohm"] is None and answer["exact_ohm"] is None
    assert answer["findings"][0]["id"] == "will-not-light"


@pytest.mark.parametrize(
    ("words", "says"),
    [
        (["--rail", "x", "--vf", "2", "--current", "5mA"], "--rail"),
        (["--rail", "12Vac", "--vf", "2", "--current", "5mA"], "DC rail"),
        (["--rail", "12V", "--rail-low", "13V", "--vf", "2", "--current", "5mA"], "must rise"),
        (["--rail", "12V", "--vf", "2", "--current", "0"], "--current"),
        (["--rail", "12V", "--vf", "2", "--current", "5mA", "--series", "E7"], "E7"),
        (["--rail", "12V", "--vf", "2", "--current", "5mA", "--in-series", "two"], "--in-series"),
        (["--rail", "12V", "--vf", "2", "--current", "5mA", "--round", "down"], "--round"),
        (["--rail", "-12V", "--vf", "2", "--current", "5mA"], "--rail"),
    ],
)
def test_bad_input_exits_two_with_one_line(capsys, words, says):
    words = [f"{a}={b}" for a, b in zip(words[::2], words[1::2], strict=True)]
    code, out = run(capsys, *words)
    assert code == 2 and out.out == ""
    assert says in out.err and out.err.count("\n") == 1


def test_a_missing_option_exits_two_with_one_line(capsys):
    with pytest.raises(SystemExit) as stopped:
        main(["size", "--rail", "5V"])
    assert stopped.value.code == 2 and capsys.readouterr().err.count("\n") == 1


def test_text_output_reads_like_a_bench_note(capsys):
    _, out = run(capsys, "--rail", "24V±5%", "--vf", "3.1", "--current", "5mA", "--rated", "20mA")
    assert "fit        4.3 kΩ  (next up, E24)" in out.out and "current    low" in out.out


@pytest.mark.parametrize(
    ("source", "run", "figure"),
    [
        ("V1 a 0 PULSE(0 5 0 1p 1p 1n 2p)", ".tran 1m 1", "1.2e+13"),
        ("V1 a 0 SIN(0 5 1e12)", ".tran 1m 1", "1.2e+13"),
        ("V1 a 0 DC 5", ".tran 1p 1", "1e+12"),
        ("V1 a 0 DC 5", ".dc V1 0 5 1n", "5e+09 points"),
    ],
)
def test_a_run_of_more_steps_than_can_be_is_refused_at_once_with_the_figure(capsys, tmp_path, source, run, figure):
    deck = tmp_path / "a.cir"
    deck.write_text(f"* too long\n{source}\nR1 a 0 1k\n{run}\n.end\n")
    assert main(["solve", str(deck)]) == 2
    assert figure in capsys.readouterr().err


def test_a_long_run_says_how_far_it_is_and_stops_at_ctrl_c(tmp_path):
    deck = tmp_path / "a.cir"
    deck.write_text("* long\nV1 a 0 SIN(0 5 50)\nR1 a b 1k\nC1 b 0 1u\nD1 b 0 led\n.model led D\n.tran 10u 3.9\n.end\n")
    words = [sys.executable, "-m", "swapglow.cli", "solve", str(deck)]
    pipes = {"stderr": subprocess.PIPE, "stdout": subprocess.PIPE, "text": True}
    # Whoever runs the tests in the background has Ctrl+C ignored, and children take that over.
    heed = partial(signal.signal, signal.SIGINT, signal.SIG_DFL)
    with subprocess.Popen(words, **pipes, preexec_fn=heed) as running:
        said = ""
        while "%" not in said:
            said += running.stderr.read(1)
            assert running.poll() is None, said
        running.send_signal(signal.SIGINT)
        out, err = running.communicate(timeout=20)
    assert running.returncode == 130
    assert out == ""
    assert "stopped; nothing was printed" in err
    assert "Traceback" not in err
