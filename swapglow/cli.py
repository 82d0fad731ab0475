"""The program from a shell: the core's ``size``, ``solve``, ``assess`` and ``catalogue``, and the records' commands."""

import argparse
import json
import sys
import time
from collections.abc import Sequence
from typing import NoReturn

from swapglow.core.constant_vf import ConstantVf, ConstantVfResult, size_constant
from swapglow.core.design.rectification import RECTIFICATIONS
from swapglow.core.engine.run_deck import run_deck
from swapglow.core.engine.spice import SpiceError, read_deck
from swapglow.core.engine.spice.lines import LONGEST_TEXT
from swapglow.core.parts import lamp, led
from swapglow.core.presentation.report import Report
from swapglow.core.quantities import AMPERE, OHM, VOLT, Parsed, QuantityError, parse, parse_single, show
from swapglow.core.quantities.units import WATT, Unit
from swapglow.core.values import preferred
from swapglow.web.commands import add_commands

BAD_INPUT = 2
# As a shell has it for a program that Ctrl+C ended.
STOPPED = 130
# A run that takes longer says how far it is.
PATIENCE_S = 1.0


class _Parser(argparse.ArgumentParser):
    """Says what was wrong in one line, and exits with 2."""

    def error(self, message: str) -> NoReturn:
        print(f"swapglow: {message}", file=sys.stderr)
        raise SystemExit(BAD_INPUT)


def main(argv: Sequence[str] | None = None) -> int:
    """Run a command; returns the exit code. Bad input exits with 2 and one line on stderr."""
    parser = _parser()
    args = parser.parse_args(argv)
    try:
        return int(args.run(args))
    except ValueError as problem:
        print(f"swapglow: {' '.join(str(problem).split())}", file=sys.stderr)
        return BAD_INPUT
    except KeyboardInterrupt:
        print("swapglow: stopped; nothing was printed.", file=sys.stderr)
        return STOPPED


def _parser() -> _Parser:
    parser = _Parser(prog="swapglow", description="LEDs where filament lamps were: the arithmetic.")
    commands = parser.add_subparsers(required=True, metavar="command")
    _size_command(commands.add_parser("size", help="size a resistor for LEDs on a DC rail"))
    solving = commands.add_parser("solve", help="run the analyses of a SPICE file")
    solving.add_argument("file", help="a netlist: R, C, L, V, I, D, Q, S, .model, .op, .dc, .tran")
    solving.add_argument("--json", action="store_true", help="print JSON")
    solving.set_defaults(run=_solve)
    assessing = commands.add_parser("assess", help="report on every lamp of an equipment document")
    assessing.add_argument("file", help="a document saved from the equipment's page")
    assessing.add_argument("--json", action="store_true", help="print JSON, as the screen gets it")
    assessing.set_defaults(run=_assess)
    listing = commands.add_parser("catalogue", help="list the generic LEDs and lamps")
    listing.add_argument("--json", action="store_true", help="print JSON")
    listing.set_defaults(run=_catalogue)
    add_commands(commands)
    return parser


def _size_command(size: argparse.ArgumentParser) -> None:
    size.add_argument("--rail", required=True, help="usual rail: 24V, 12.0-14.4V, 5V±5%%")
    size.add_argument("--rail-low", help="lowest rail")
    size.add_argument("--rail-high", help="highest rail")
    size.add_argument("--vf", required=True, help="typical forward voltage, or a range")
    size.add_argument("--vf-low", help="lowest forward voltage")
    size.add_argument("--vf-high", help="highest forward voltage")
    size.add_argument("--in-series", default="1", help="LEDs in series")
    size.add_argument("--current", required=True, help="forward current wanted: 20mA")
    size.add_argument("--rated", help="rated current; the current wanted where not given")
    size.add_argument("--series", default="E24", help="preferred series, E3 to E192")
    size.add_argument("--round", default="up", dest="rounding", help="up or nearest")
    size.add_argument("--tolerance", default="5%", help="the resistor's: 5%%, 1%%")
    size.add_argument("--driver-drop", default="0V", help="volts the driver keeps")
    size.add_argument("--json", action="store_true", help="print JSON")
    size.set_defaults(run=_size)


def _named(option: str, text: str, parsed: Parsed) -> Parsed:
    if parsed.kind == "ac":
        raise QuantityError(f'{option} "{text}" is AC; size takes a DC rail, like 24V.')
    return parsed


def _spread(option: str, text: str, low: str | None, high: str | None) -> tuple[float, float, float, bool]:
    """Low, usual and high of a quantity in volts with separate ends, and whether ends were given."""
    try:
        usual = _named(option, text, parse(text, VOLT, above=0))
    except QuantityError as problem:
        raise QuantityError(f"{option} {problem}") from None
    ends = [usual.low, usual.high]
    for k, (suffix, end) in enumerate((("-low", low), ("-high", high))):
        if end is None:
            continue
        try:
            ends[k] = parse_single(end, VOLT, above=0)
        except QuantityError as problem:
            raise QuantityError(f"{option}{suffix} {problem}") from None
    known = usual.spread != "none" or low is not None or high is not None
    if not ends[0] <= usual.usual <= ends[1]:
        raise QuantityError(
            f"{option}-low, {option} and {option}-high must rise: {ends[0]:g}, {usual.usual:g}, {ends[1]:g} V do not."
        )
    return ends[0], usual.usual, ends[1], known


def _one(option: str, text: str, unit_: Unit, **bounds: float | None) -> float:
    try:
        return parse_single(text, unit_, **bounds)
    except QuantityError as problem:
        raise QuantityError(f"{option} {problem}") from None


def _size(args: argparse.Namespace) -> int:
    rail = _spread("--rail", args.rail, args.rail_low, args.rail_high)
    vf = _spread("--vf", args.vf, args.vf_low, args.vf_high)
    count = args.in_series.strip()
    if not (count.isascii() and count.isdigit() and 1 <= int(count) <= 200):
        raise ValueError(f'--in-series "{args.in_series}" must be a whole number, 1 to 200.')
    rounding = args.rounding.strip().lower()
    if rounding not in ("up", "nearest"):
        raise ValueError(f'--round "{args.rounding}" must be up or nearest.')
    result = size_constant(
        ConstantVf(
            rail=rail[:3],
            vf=vf[:3],
            in_series=int(count),
            amps=_one("--current", args.current, AMPERE, above=0),
            drop=_one("--driver-drop", args.driver_drop, VOLT, minimum=0),
            series=args.series.strip().upper(),
            rounding="up" if rounding == "up" else "nearest",
            rated_a=_one("--rated", args.rated, AMPERE, above=0) if args.rated else None,
            spread_known=rail[3],
            tolerance=_percent(args.tolerance),
        )
    )
    print(_as_json(result) if args.json else _as_text(result, rounding, args.series.upper()))
    return 0


def _percent(text: str) -> float:
    try:
        share = float(text.strip().removesuffix("%")) / 100
    except ValueError:
        share = -1.0
    if not 0 <= share < 0.5:
        raise ValueError(f'--tolerance "{text}" must be a percentage under 50, such as 5%.')
    return share


def _as_json(r: ConstantVfResult) -> str:
    findings = [
        {
            "id": f.id,
            "grade": f.grade,
            "message": f.message.replace("\u00a0", " "),
            "figure": f.figure.replace("\u00a0", " "),
            "limit": f.limit.replace("\u00a0", " "),
            "why": f.why,
            "remedies": [
                {"id": m.id, "label": m.label.replace("\u00a0", " "), "changes": m.changes} for m in f.remedies
            ],
        }
        for f in r.findings
    ]
    out = {
        "exact_ohm": r.exact_ohm,
        "resistor_ohm": r.resistor_ohm,
        "current_a": dict(zip(("low", "usual", "high"), r.current_a, strict=True)),
        "resistor_power_w": r.resistor_power_w,
        "resistor_rating_w": r.resistor_rating_w,
        "findings": findings,
    }
    return json.dumps(out, ensure_ascii=False, indent=2, allow_nan=False)


def _as_text(r: ConstantVfResult, rounding: str, series: str) -> str:
    lines = []
    if r.exact_ohm is None or r.resistor_ohm is None:
        lines.append("exact      none: the rail does not reach the LEDs")
    else:
        words = "next up" if rounding == "up" else "nearest"
        rating = f"{r.resistor_rating_w:g} W" if r.resistor_rating_w else "none large enough"
        currents = "  ".join(
            f"{w} {show(a, AMPERE)}" for w, a in zip(("low", "usual", "high"), r.current_a, strict=True)
        )
        lines += [
            f"exact      {show(r.exact_ohm, OHM, 4)}",
            f"fit        {show(r.resistor_ohm, OHM)}  ({words}, {series})",
            f"current    {currents}",
            f"heat       {show(r.resistor_power_w, WATT)}  fit {rating}",
        ]
    lines += [f"{f.grade:<10} {f.message}" for f in r.findings]
    return "\n".join(lines).replace("\u00a0", " ")


def _solve(args: argparse.Namespace) -> int:
    try:
        with open(args.file, encoding="utf-8") as handle:
            text = handle.read(LONGEST_TEXT + 1)
    except OSError as problem:
        raise ValueError(f"{args.file}: {problem.strerror}.") from None
    except UnicodeDecodeError:
        raise ValueError(f"{args.file}: not a text file (UTF-8 is wanted).") from None
    progress = _Progress()
    try:
        answer = run_deck(read_deck(text), progress.tell)
    except SpiceError as problem:
        raise ValueError(f"{args.file}: {problem}") from None
    finally:
        progress.end()
    if args.json:
        print(json.dumps(answer, allow_nan=False))
        return 0
    for analysis, values in answer.items():
        print(f".{analysis}")
        for node, volts in values["v"].items():
            print(f"  v({node})  {_ends(volts, 'V')}")
        for source, amps in values["i"].items():
            print(f"  i({source})  {_ends(amps, 'A')}")
    return 0


class _Progress:
    """How far a long run is, on the error output; a short one says nothing."""

    def __init__(self) -> None:
        self._started = self._said = time.monotonic()
        self._shown = False

    def tell(self, done: float) -> None:
        now = time.monotonic()
        if now - self._started > PATIENCE_S and now - self._said > PATIENCE_S / 4:
            self._said, self._shown = now, True
            print(f"\rsolving  {done:4.0%}  (Ctrl+C stops it)", end="", file=sys.stderr, flush=True)

    def end(self) -> None:
        if self._shown:
            print(file=sys.stderr)


def _assess(args: argparse.Namespace) -> int:
    # Its checks take longer to load than the other commands take to answer.
    from swapglow.document.read import LARGEST_BYTES, DocumentError, read_document
    from swapglow.document.report import report_data, reports

    try:
        with open(args.file, "rb") as handle:
            document = read_document(handle.read(LARGEST_BYTES + 1))
    except OSError as problem:
        raise ValueError(f"{args.file}: {problem.strerror}.") from None
    except DocumentError as problem:
        raise ValueError(f"{args.file}: {problem}") from None
    found = reports(document.equipment)
    if args.json:
        rows = [
            {"id": str(p.id), "name": name, "report": report_data(report)}
            for p, (name, report) in zip(document.equipment.positions, found, strict=True)
        ]
        out = {"equipment": document.equipment.name, "positions": rows}
        print(json.dumps(out, ensure_ascii=False, indent=1, allow_nan=False))
        return 0
    print(document.equipment.name)
    for name, report in found:
        print("\n".join(["", name, *_report_lines(report)]).replace("\u00a0", " "))
    return 0


def _report_lines(r: Report) -> list[str]:
    """A report in plain lines: supply, sizing, currents, heat, cycle, battery, findings, next thing."""
    lines = [f"  supply     {r.supply.label}, {r.snapshots[0].staircase.stairs[0].text}"]
    if r.cycle is not None:
        c = r.cycle
        lines.append(f"  rectified  {RECTIFICATIONS[c.rectification].label}, crest {c.crest.text}")
        if c.capacitor is not None:
            rating = f", {c.capacitor_rating.text} or more" if c.capacitor_rating else ""
            lines.append(f"  capacitor  {c.capacitor.text}{rating}")
    exact = r.sizing.exact.text if r.sizing.exact else "none"
    lines += [
        f"  resistor   {r.sizing.total.text}  (exact {exact}, {r.sizing.rounding})",
        f"  current    low {r.current.low.text}  usual {r.current.usual.text}  high {r.current.high.text}",
        f"  heat       {r.power.each.text}" + (f", fit {r.power.to_fit.text}" if r.power.to_fit else ""),
    ]
    if r.runtime is not None:
        before = f", before the swap {r.runtime.lamp.text}" if r.runtime.lamp else ""
        lines.append(f"  lasts      {r.runtime.led.text}{before}")
    lines += [f"  {f.grade:<10} {f.message}" for f in r.findings]
    lines += [f"  reading    {v.line}" for v in r.diagnoses]
    n = r.next_step
    lines.append(f"  next       {n.act}: {n.meter}; {n.points}; {n.state}; expect {n.expect}")
    return lines


def _ends(values: float | list[float], unit: str) -> str:
    """One value, or the least and most of many, in engineering form."""
    if isinstance(values, float):
        return show(values, unit, 6)
    return f"{show(min(values), unit, 6)} to {show(max(values), unit, 6)}"


def _catalogue(args: argparse.Namespace) -> int:
    leds = [
        {"id": k.id, "label": k.label, "vf_v": [k.vf_low, k.vf_typ, k.vf_high], "rated_a": k.rated_a}
        for k in led.catalogue().values()
    ]
    lamps = [
        {"id": k.id, "label": k.label, "volts": k.volts, "amps": k.amps, "base": k.base}
        for k in lamp.catalogue().values()
    ]
    if args.json:
        print(json.dumps({"leds": leds, "lamps": lamps, "series": preferred.SERIES}, indent=2))
        return 0
    for row in (*leds, *lamps):
        print(f"{row['id']:<16} {row['label']}")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
