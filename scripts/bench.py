"""Speed as ratios, all in one run on one machine: ``make bench``."""

import json
import statistics
import threading
import time
import urllib.request
from collections.abc import Callable
from dataclasses import replace
from functools import partial

import numpy as np

from scripts import many_lamps, reference
from swapglow.core.assess import assess
from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import (
    Bjt,
    BjtModel,
    Capacitor,
    Circuit,
    Dc,
    Diode,
    DiodeModel,
    Element,
    Resistor,
    Sine,
    VoltageSource,
)
from swapglow.core.engine.operating_point import operating_point
from swapglow.core.engine.periodic import steady_state
from swapglow.core.parts import lamp, led
from swapglow.core.quantities import Figure
from swapglow.core.search import search
from swapglow.core.supplies.rail import Rail
from swapglow.inputs.position import PositionInput
from swapglow.inputs.quantity import Quantity
from swapglow.inputs.rail import RailInput
from swapglow.inputs.to_core import position_of

SAMPLES = 10_000
# Turns of ours and the reference, and how many samples the reference solves in each.
ROUNDS = 7
EACH = 800


def timed(work: Callable[[], object], times: int = 5) -> float:
    """Median seconds, after one warm-up."""
    work()
    taken = []
    for _ in range(times):
        start = time.perf_counter()
        work()
        taken.append(time.perf_counter() - start)
    return statistics.median(taken)


def draws(count: int) -> dict[str, np.ndarray]:
    """The typical position's random values."""
    rng = np.random.default_rng(7)
    return {
        "rail": 26.5 * (1 + 0.03 * rng.standard_normal(count)),
        "source": 9.0 * (1 + 0.1 * rng.standard_normal(count)),
        "series": 1200.0 * (1 + 0.02 * rng.standard_normal(count)),
        "warm": 8200.0 * (1 + 0.02 * rng.standard_normal(count)),
        "base": 5600.0 * (1 + 0.02 * rng.standard_normal(count)),
        "is1": 1e-18 * np.exp(0.5 * rng.standard_normal(count)),
        "is2": 1e-18 * np.exp(0.5 * rng.standard_normal(count)),
    }


def typical(d: dict[str, np.ndarray]) -> Circuit:
    """Source resistance, resistor, two LEDs, transistor with a keep-warm resistor across it."""
    led1, led2 = (DiodeModel(i_s=d[k], n=2.0, r_s=8.0) for k in ("is1", "is2"))
    parts: tuple[Element, ...] = (
        VoltageSource("v1", "in", "0", Dc(d["rail"])),
        Resistor("rs", "in", "a", d["source"]),
        Resistor("r1", "a", "b", d["series"]),
        Diode("d1", "b", "c", led1),
        Diode("d2", "c", "d", led2),
        Bjt("q1", "d", "g", "0", BjtModel(i_s=1e-14, b_f=200.0)),
        Resistor("rk", "d", "0", d["warm"]),
        Resistor("rb", "drive", "g", d["base"]),
        VoltageSource("vg", "drive", "0", Dc(5.0)),
    )
    return Circuit(parts)


def in_reference(d: dict[str, np.ndarray], count: int) -> tuple[float, list[float]]:
    """Seconds per sample and LED currents of the reference altering and re-solving in one process."""
    head = """* bench
v1 in 0 26.5
rs in a 9
r1 a b 1200
d1 b c m1
d2 c d m2
q1 d g 0 mq
rk d 0 8200
rb drive g 5600
vg drive 0 5
.model m1 D(IS=1e-18 N=2 RS=8)
.model m2 D(IS=1e-18 N=2 RS=8)
.model mq NPN(IS=1e-14 BF=200)
.control
set numdgt=12
"""

    def text(n: int) -> str:
        lines = []
        for k in range(n):
            lines += [
                f"alter v1 = {float(d['rail'][k])!r}",
                f"alter rs = {float(d['source'][k])!r}",
                f"alter r1 = {float(d['series'][k])!r}",
                f"alter rk = {float(d['warm'][k])!r}",
                f"alter rb = {float(d['base'][k])!r}",
                f"altermod m1 is = {float(d['is1'][k])!r}",
                f"altermod m2 is = {float(d['is2'][k])!r}",
                "op",
                "print i(v1)",
                "destroy all",
            ]
        return head + "\n".join(lines) + "\nquit\n.endc\n.end\n"

    def go(n: int) -> tuple[float, str]:
        deck = text(n)
        start = time.perf_counter()
        out = reference.run(deck)
        return time.perf_counter() - start, out

    # The process's own start and reading are taken off with an almost empty run.
    empty, _ = go(1)
    taken, out = go(count)
    amps = [-float(line.split("=")[1]) for line in out.splitlines() if line.startswith("i(v1)")]
    return (taken - empty) / (count - 1), amps


def rectified() -> Circuit:
    """An AC winding, bridge, reservoir capacitor, resistor and two LEDs."""
    d = DiodeModel(i_s=5e-9, n=1.8, r_s=0.05)
    led_model = DiodeModel(i_s=1e-18, n=2.0, r_s=8.0)
    return Circuit(
        (
            VoltageSource("v1", "p", "m", Sine(0, 14.0, 50.0)),
            Resistor("rw", "p", "q", 4.0),
            Diode("d1", "q", "plus", d),
            Diode("d2", "m", "plus", d),
            Diode("d3", "0", "q", d),
            Diode("d4", "0", "m", d),
            Capacitor("c1", "plus", "0", 150e-6),
            Resistor("r1", "plus", "x", 820.0),
            Diode("d5", "x", "y", led_model),
            Diode("d6", "y", "0", led_model),
        )
    )


def position() -> Position:
    """A position as the workspace asks about it."""
    rail = Rail(Figure(22.0), Figure(24.5), Figure(26.0))
    return Position(rail, led.catalogue()["warm-5-diffused"], Figure(6e-3), in_series=2, lamp=lamp.catalogue()["1829"])


def over_http(times: int = 60) -> float:
    """Median seconds of one assess over HTTP on loopback, each with a value not asked before."""
    import os
    import tempfile

    os.environ["SWAPGLOW_VAR"] = tempfile.mkdtemp(prefix="swapglow-bench-")
    os.environ["DJANGO_SETTINGS_MODULE"] = "swapglow.web.settings.local"
    import django

    django.setup()
    from django.core.management import call_command
    from waitress import create_server

    call_command("migrate", verbosity=0)
    call_command("load_demo", verbosity=0)
    (__import__("pathlib").Path(os.environ["SWAPGLOW_VAR"]) / "static").mkdir()
    from swapglow.records.models import Position as Kept
    from swapglow.web.wsgi import application

    server = create_server(application, host="127.0.0.1", port=0, threads=2)
    threading.Thread(target=server.run, daemon=True).start()
    key = str(Kept.objects.first().pk)  # type: ignore[union-attr]  # the demo is loaded
    url = f"http://127.0.0.1:{server.effective_port}/api/positions/{key}/assess"
    taken = []
    for k in range(times):
        body = json.dumps({"changes": {"resistor_ohm": 1000.0 + k}}).encode()
        ask = urllib.request.Request(
            url, body, {"Content-Type": "application/json", "X-CSRFToken": "a" * 32, "Cookie": "csrftoken=" + "a" * 32}
        )
        start = time.perf_counter()
        urllib.request.urlopen(ask).read()
        taken.append(time.perf_counter() - start)
    return statistics.median(taken[5:])


def bare(samples: int) -> float:
    """The cost nobody can go under: four exponentials and one 4x4 solve a sample, five Newton steps."""
    rng = np.random.default_rng(3)
    v = rng.uniform(0.5, 1, (4, samples))
    a = rng.uniform(0, 1, (samples, 4, 4)) + 4 * np.eye(4)
    b = rng.uniform(0, 1, (samples, 4, 1))
    return timed(lambda: [(np.exp(v), np.linalg.solve(a, b)) for _ in range(5)])


def main() -> None:
    """Print the table."""
    d = draws(SAMPLES)
    circuit = typical(d)
    # The machine's speed wanders, so both are timed turn by turn and compared within each turn.
    turns = []
    for _ in range(ROUNDS):
        mine = timed(lambda: operating_point(circuit), 15)
        per_sample, theirs = in_reference(d, EACH)
        turns.append((mine, per_sample * SAMPLES))
    ratios = sorted(b / a for a, b in turns)
    ours = statistics.median(a for a, _ in turns)
    amps = -operating_point(circuit).require().current("v1")[:EACH]
    gap = float(np.max(np.abs(amps / np.array(theirs) - 1)))
    rows = [
        ("Monte Carlo, 10 000 samples", f"{ours * 1e3:.1f} ms"),
        ("  reference, altering and re-solving", f"{statistics.median(b for _, b in turns) * 1e3:.0f} ms"),
        (f"  times faster, median of {ROUNDS} turns", f"{statistics.median(ratios):.0f}"),
        ("  least and most of the turns", f"{ratios[0]:.0f} to {ratios[-1]:.0f}"),
        ("  largest difference in current", f"{gap:.1e}"),
        ("  bare solves and exponentials", f"{bare(SAMPLES) * 1e3:.1f} ms"),
        ("  cost over bare", f"{ours / bare(SAMPLES):.1f}"),
    ]
    p = position()
    rows.append(("assess, warm", f"{timed(lambda: assess(p), 21) * 1e3:.2f} ms"))
    ceilings = iter([3.0 + k / 100 for k in range(40)])

    def elsewhere() -> None:
        volts = next(ceilings)
        led_ = replace(p.led, vf_low=volts - 0.1, vf_typ=volts, vf_high=volts + 0.1)
        assess(replace(p, led=led_))

    rows.append(("assess, another LED each time", f"{timed(elsewhere, 21) * 1e3:.2f} ms"))
    rows.append(("assess over HTTP, median", f"{over_http() * 1e3:.1f} ms"))
    ac = rectified()
    rows.append(("rectified AC to steady state", f"{timed(lambda: steady_state(ac)) * 1e3:.0f} ms"))
    for kind in ("inverse_diode", "bridge_cap"):
        q = on_a_winding(kind)
        assess(q)
        sizes = iter([1000.0 + 7 * k for k in range(9)])
        seconds = timed(lambda q=q, sizes=sizes: assess(replace(q, resistor_ohm=next(sizes))), 7)
        rows.append((f"assess, a new resistor, {kind}", f"{seconds * 1e3:.0f} ms"))
    rows += searches()
    rows += many_lamps.rows()
    for n in (1, 10, 100, 1000, 10_000):
        some = typical({k: x[:n] for k, x in d.items()})
        rows.append((f"growth: {n} samples", f"{timed(partial(operating_point, some)) * 1e3:.2f} ms"))
    for n in (10, 30, 100, 300, 1000):
        taken = timed(partial(operating_point, ladder(n)), 3)
        rows.append((f"growth: ladder of {n} nodes", f"{taken * 1e3:.2f} ms"))
    for name, value in rows:
        print(f"{name:<40}{value:>14}")


def typed(rail: dict[str, object], **position: object) -> Position:
    """A position from texts, as the API reads it."""
    return position_of(PositionInput.model_validate(position), RailInput.model_validate(rail))


def texts(**details: str) -> dict[str, dict[str, str]]:
    """Quantities as typed, by name."""
    return {name: Quantity(text=text).model_dump() for name, text in details.items()}


def on_a_winding(kind: str) -> Position:
    """A lamp on a bell winding, rectified so."""
    rail = {"kind": "winding", "details": texts(open="10.4V", load="0.2A"), **texts(usual="9.1Vac")}
    return typed(rail, led_id="red-5-diffused", rectification=kind, **texts(target="5mA"))


def searches() -> list[tuple[str, str]]:
    """The search for the best swap: a position never seen before, and the same once more."""

    def made(volts: float, kind: str, details: dict[str, str], count: int = 1) -> Position:
        return typed(
            dict(texts(usual=f"{volts:.2f}V")),
            led_id="red-5-diffused",
            in_series=count,
            driver_kind=kind,
            driver_details=texts(**details),
            lamp_id="own",
            lamp_volts="8V",
            lamp_amps="0.07A",
            lamp_candela="0.3",
            **texts(target="5mA"),
        )

    kinds: dict[str, Callable[[float], Position]] = {
        "straight from the rail": lambda v: made(v, "direct", {}),
        "keep-warm resistor": lambda v: made(v, "low_side", {"keep_warm": "470R"}, 2),
        "shared feed": lambda v: made(v + 8, "shared", {"dropper": "82R", "loads": "a 8V 0.05A; b 18mA; c max 16V"}),
        "lamps in series": lambda v: made(v, "series_lamps", {"others": "1"}),
        "flasher": lambda v: made(v, "flasher", {"trip": "0.9A", "place": "metal"}, 3),
        "AC winding": lambda v: typed(
            {"kind": "winding", **texts(usual=f"{v:.2f}Vac")}, led_id="red-5-diffused", **texts(target="5mA")
        ),
    }
    rows = []
    for name, make in kinds.items():
        search(make(11.9))
        volts = iter([12 + k / 20 for k in range(8)])
        new = timed(lambda make=make, volts=volts: search(make(next(volts))), 5)
        again = make(12.0)
        rows.append(
            (f"search, {name}: new, again", f"{new * 1e3:.0f}, {timed(lambda p=again: search(p)) * 1e3:.1f} ms")
        )
    return rows


def ladder(nodes: int) -> Circuit:
    """A feed with a wire's resistance and an LED with its resistor at every node."""
    parts: list[Element] = [VoltageSource("v1", "n0", "0", Dc(12.0))]
    for k in range(max(1, nodes // 2)):
        parts += [
            Resistor(f"rw{k}", f"n{k}", f"n{k + 1}", 0.05),
            Resistor(f"r{k}", f"n{k + 1}", f"x{k}", 1000.0),
            Diode(f"d{k}", f"x{k}", "0", DiodeModel(i_s=1e-18, n=2.0)),
        ]
    return Circuit(tuple(parts))


if __name__ == "__main__":
    main()
