"""Rows and columns switched in turn, solved as the whole network they are: every lamp in every row's turn."""

from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import CircuitResult, Fault, Option, Row, Table
from swapglow.core.circuits.toolkit import asks, pulses, values
from swapglow.core.circuits.toolkit.ratings import RatedLed
from swapglow.core.circuits.toolkit.solved import States, solve_states
from swapglow.core.circuits.toolkit.wiring import OFF_OHM, Wiring
from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Diode, DiodeModel
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.photometry.words import eye_text
from swapglow.core.quantities import (
    AMPERE,
    CANDELA,
    HERTZ,
    OHM,
    SECOND,
    VOLT,
    WATT,
    InputError,
    number_text,
    show,
    shown,
)
from swapglow.core.values import preferred

FloatArray = NDArray[np.float64]
Where = Literal["column", "lamp", "row"]

VOLTS = Detail("volts", "Volts of a row while it is on", VOLT, "18V, from behind the switches")
ROWS = Detail("rows", "Rows, switched one after another", None, "How many")
COLUMNS = Detail("columns", "Columns", None, "How many")
WHERE = Detail(
    "where",
    "Where its resistors are",
    None,
    "",
    (("column", "One in each column"), ("lamp", "One beside each lamp"), ("row", "One in each row")),
)
LED_OHM = asks.led_ohm("680R; empty sizes it", "Each of them")
DIODE = Detail("diode", "Diode beside each lamp", None, "", (("yes", "One"), ("no", "None")))
REST = Detail("rest", "A row that is off", None, "", (("open", "Floats"), ("held", "Is held at the other side")))
MEAN = Detail("mean", "Mean current wanted in a lamp", AMPERE, "2mA; empty takes that")
LEAK = Detail("leak", "Resistance past an open switch", OHM, "47k, from volts and amps; empty: none known")
OFTEN = Detail("hertz", "All rows, so often a second", HERTZ, "120Hz; empty: not known")
FALL = Detail("fall", "Time a row takes to switch off", SECOND, "20us; empty: not known")

_MOST_SIDE, _MOST_LAMPS = 16, 128
_USUAL_A = 2e-3
_ON_OHM = 0.1
# What an LED stands in reverse, and what it then carries (data sheets, from memory).
_REVERSE_V, _REVERSE_A = 5.0, 1e-5
_SEEN_SHARE = 0.01


@dataclass(frozen=True)
class Grid:
    """A matrix.

    Attributes:
        volts: of a row while it is on.
        rows, columns: how many.
        led: every lamp's.
        where: where the resistors are.
        ohm: each of them, Ω; ``typed_ohm`` whether it was typed.
        diode: whether each lamp has its own.
        leak: past an open switch, Ω; None for nothing.
        held: whether a row that is off is held at ground.
        mean_a: mean current wanted in a lamp, A.
        sized: the resistor for that, Ω; None where none gives it.
        bleed: from each row to ground and from each column to the feed, Ω; None for none.
    """

    volts: float
    rows: int
    columns: int
    led: Led
    where: Where
    ohm: float
    typed_ohm: bool
    diode: bool
    leak: float | None
    held: bool
    mean_a: float
    sized: float | None
    bleed: float | None = None

    @property
    def peak_a(self) -> float:
        """One lamp alone in its row, in its turn, A."""
        return float(amps(self, 1)[0, 0])

    def candela(self, peak: float) -> float:
        """Mean light of a lamp that carries so much in its turn, cd."""
        return pulses.mean_candela(self.led, peak, 1 / self.rows)

    @property
    def reverse_v(self) -> float:
        """The most any LED stands in reverse while one lamp is lit, V."""
        found = solve(self, 1, 1)
        return max(0.0, -min(float(found.across(n)[0]) for n in _names(self)))


def _names(g: Grid) -> list[str]:
    return [f"D{i}_{j}" for i in range(g.rows) for j in range(g.columns)]


@lru_cache(maxsize=64)
def solve(g: Grid, on: int, lit: int) -> States:
    """The network while the first rows are on and the first columns closed; "D2_3" is row 2, column 3, from 0.

    Args:
        g: the matrix.
        on, lit: how many rows are on and how many columns closed.

    Returns:
        The state.

    Raises:
        NotConverged: it has no answer.
    """
    open_ohm = g.leak or OFF_OHM
    w = Wiring("a row's turn")
    w.source("Vrow", "feed", g.volts)
    for i in range(g.rows):
        top = f"top{i}" if g.where == "row" else f"row{i}"
        w.switches.append(f"Rrow{i}")
        w.resistor(f"Rrow{i}", "feed", top, _ON_OHM if i < on else open_ohm)
        if g.held and i >= on:
            w.resistor(f"Rheld{i}", top, "0", _ON_OHM)
        if g.bleed is not None:
            w.resistor(f"Rbleed{i}", top, "0", g.bleed)
        if g.where == "row":
            w.resistor(f"R{i}", top, f"row{i}", g.ohm)
    for j in range(g.columns):
        foot = f"foot{j}" if g.where == "column" else f"column{j}"
        if g.where == "column":
            w.resistor(f"R{j}", f"column{j}", foot, g.ohm)
        if g.bleed is not None:
            w.resistor(f"Rlift{j}", "feed", f"column{j}", g.bleed)
        w.switches.append(f"Rcolumn{j}")
        w.resistor(f"Rcolumn{j}", foot, "0", _ON_OHM if j < lit else open_ohm)
    junction, guard = g.led.junction(g.led.vf_typ), rectifier("signal").chain(1, REFERENCE_C)
    model = DiodeModel(
        float(junction.i_s), junction.n, junction.r_s, bv=_REVERSE_V, ibv=_REVERSE_A, nominal_c=REFERENCE_C
    )
    for i in range(g.rows):
        for j in range(g.columns):
            node = f"row{i}"
            if g.where == "lamp":
                w.resistor(f"R{i}_{j}", node, f"in{i}_{j}", g.ohm)
                node = f"in{i}_{j}"
            if g.diode:
                w.add(Diode(f"Dguard{i}_{j}", node, f"lamp{i}_{j}", guard))
                node = f"lamp{i}_{j}"
            w.add(Diode(f"D{i}_{j}", node, f"column{j}", model))
            w.lights.append(f"D{i}_{j}")
    # In its turn the first lamp carries most; what the others see in reverse is judged apart, for they break down.
    w.ratings.append(RatedLed("D0_0", "a lamp", "lamp", g.led, duty=1 / g.rows, guarded=True))
    return solve_states(w, "In its turn")


def amps(g: Grid, lit: int, on: int = 1) -> FloatArray:
    """What every lamp carries in the first row's turn, A, (rows, columns), never less than nothing.

    Args:
        g: the matrix.
        lit, on: how many columns are closed and how many rows are on.

    Returns:
        A, (rows, columns).
    """
    found = solve(g, on, lit)
    return np.array([max(float(found.amps(n)[0]), 0.0) for n in _names(g)]).reshape(g.rows, g.columns)


class LampMatrix(CircuitKind[Grid]):
    """Displays, pinball panels, crosspoint boards: many lamps on few wires."""

    id = "lamp_matrix"
    order = 8
    label = "Matrix of rows and columns"
    looks = (
        "Many lamps on few wires: one side of each goes to a row, the other to a column, with a diode beside it. "
        "A meter shows a lamp's volts far under the supply's, for each row has only its turn."
    )
    never = (
        "Take out no diode: without it other lamps glow through this one. Read the supply behind the switches, never "
        "across a lamp with a slow meter. Some panels switch tens of volts: supply off while parts are changed."
    )
    parts = (
        ("Vrow", "feed", "volts"),
        ("Rrow", "row switch", "rows"),
        ("Rcolumn", "column switch", "columns"),
        ("R", "resistor", "ohm"),
        ("Dguard", "diode", "diode"),
        ("D", "LED", "led"),
        ("Rbleed", "leak", "leak"),
        ("Rlift", "leak", "leak"),
        ("Rheld", "switch to ground", "rest"),
    )
    details = (VOLTS, ROWS, COLUMNS, asks.led_detail(), WHERE, LED_OHM, DIODE, REST, MEAN, LEAK, OFTEN, FALL)

    def case(self, typed: Details) -> Grid:
        """The matrix as typed; resistors that nobody typed are sized."""
        volts = typed.value(VOLTS.id)
        if volts is None:
            raise InputError(VOLTS.id, f"Type the {VOLTS.label.lower()}: {VOLTS.hint}.")
        for side in (ROWS, COLUMNS):
            if not typed.text(side.id):
                raise InputError(side.id, "Type how many rows and how many columns it has.")
        rows, columns = typed.count(ROWS.id, _MOST_SIDE), typed.count(COLUMNS.id, _MOST_SIDE)
        if rows * columns > _MOST_LAMPS:
            raise InputError(ROWS.id, f"{rows} × {columns} lamps are more than the {_MOST_LAMPS} taken here.")
        led, wanted = asks.read_led(typed), typed.value(MEAN.id) or _USUAL_A
        diode, ohm = typed.choice(DIODE.id) == "yes", typed.value(LED_OHM.id)
        # The next higher value at which one lamp alone carries so much in its turn (Ohm).
        peak = wanted * rows
        drop = float(led.junction(led.vf_typ).volts(peak))
        drop += rectifier("signal").volts(peak, 1, REFERENCE_C) if diode else 0
        exact = (volts - drop) / peak - 2 * _ON_OHM
        sized = preferred.prefer(exact, "E24", "up") if exact >= 1 else None
        if not ohm and sized is None:
            raise InputError(MEAN.id, f"{show(peak, AMPERE)} in its turn do not flow on {show(volts, VOLT)}.")
        where: Where = typed.choice(WHERE.id)  # type: ignore[assignment]  # one of its options
        return Grid(
            volts,
            rows,
            columns,
            led,
            where,
            ohm or sized or 0.0,
            ohm is not None,
            diode,
            typed.value(LEAK.id),
            typed.choice(REST.id) == "held",
            wanted,
            sized,
        )

    def states(self, case: Grid) -> tuple[States, ...]:
        """One lamp lit, and a whole row."""
        return (solve(case, 1, 1), solve(case, 1, case.columns))

    def wired(self, case: Grid) -> Wiring:
        """Two rows and two columns of it: all others are the same again."""
        return solve(replace(case, rows=min(case.rows, 2), columns=min(case.columns, 2)), 1, 1).wiring

    def options(self, now: Grid, typed: Details, chosen: str) -> list[Option]:
        """The resistors for the mean current that is wanted."""
        if not now.typed_ohm or now.sized is None or now.peak_a <= 0:
            return []
        then = replace(now, ohm=now.sized)
        flows = f"{show(now.mean_a, AMPERE)} on average, {show(now.mean_a * now.rows, AMPERE)} in its turn"
        light = then.candela(then.peak_a) / now.candela(now.peak_a)
        return pulses.fit_option(now.sized, then.peak_a / now.peak_a, flows, light)

    def report(self, job: Job[Grid]) -> CircuitResult:
        """One lamp and all of them lit, what glows that should not, and what a fault does."""
        g = job.now
        turn, mean = "one lamp lit, while its row is on", f"one turn of {g.rows}"
        return CircuitResult(
            line=f"{g.rows} × {g.columns} lamps behind {show(g.ohm, OHM)}: {show(g.peak_a / g.rows, AMPERE)} on "
            f"average in a lamp, {show(g.peak_a, AMPERE)} in its turn.",
            figures=(
                job.pair("peak", "In its turn", lambda x: shown(x.peak_a, AMPERE, turn)),
                job.pair("mean", "On average", lambda x: shown(x.peak_a / x.rows, AMPERE, mean)),
                job.pair("light", "Light", lambda x: shown(x.candela(x.peak_a), CANDELA, "mean of all turns")),
            ),
            tables=(_patterns(g),),
            faults=tuple(_faults(g)),
            findings=tuple(_findings(job.typed, g)),
            spice=solve(g, 1, g.columns).deck(),
        )


KIND = LampMatrix()


def _beside(g: Grid) -> float:
    """Light of a lamp with its whole row lit beside that it has alone."""
    return g.candela(float(amps(g, g.columns)[0, 0])) / max(g.candela(g.peak_a), 1e-15)


def _ghost(g: Grid) -> tuple[float, str]:
    """The most that any lamp but the lit one carries, A, and where it is."""
    dark = amps(g, 1)
    dark[0, 0] = 0.0
    i, j = (int(k) for k in np.unravel_index(int(dark.argmax()), dark.shape))
    where = "in the same row" if i == 0 else "in the same column" if j == 0 else "elsewhere"
    return float(dark[i, j]), where


def _ghost_seen(g: Grid) -> str:
    return visibility(g.candela(_ghost(g)[0]) * g.rows)


def _patterns(g: Grid) -> Table:
    """A lamp with nothing else lit in its row, and with all of it; and the worst that should be dark."""
    ghost, where = _ghost(g)
    rows = (
        ("alone", "Alone in its row", g.peak_a, ""),
        (
            "row",
            "With its whole row",
            float(amps(g, g.columns)[0, 0]),
            f"{eye_text(_beside(g))} × the light it has alone",
        ),
        ("ghost", "Brightest that should be dark", ghost, f"{where}: {WORDS[visibility(g.candela(ghost) * g.rows)]}"),
    )
    return Table(
        "patterns",
        "The same lamp in other pictures",
        ("In its turn", "On average"),
        tuple(
            Row(
                id_,
                label,
                (shown(peak, AMPERE, "while its row is on"), shown(peak / g.rows, AMPERE, "over all turns")),
                words,
            )
            for id_, label, peak, words in rows
        ),
    )


def _faults(g: Grid) -> list[Fault]:
    """What a switch that stays closed, and an LED that is open, do to the others (each solved)."""
    out = []
    if g.rows > 1:
        share = float(amps(g, 1, on=2)[0, 0]) / g.peak_a
        out.append(
            Fault(
                "row-shorted",
                "A row's switch stays closed",
                "It shows every other row's picture as well, and each of the two lamps then carries "
                f"{share * 100:.0f} %.",
            )
        )
    if g.columns > 1:
        share = float(amps(g, 2)[0, 0]) / g.peak_a
        tail = f", and takes its neighbour down to {share * 100:.0f} %." if share < 0.95 else "; the others stay."
        out.append(Fault("column-shorted", "A column's switch stays closed", f"A lamp of it lights in every row{tail}"))
    out.append(Fault("led-open", "An LED is open", "It is dark; nothing else changes."))
    return out


def _bled(g: Grid) -> str:
    """The largest value that leads past what leaks, tried in the network itself."""
    most = g.leak or OFF_OHM
    ohm = values.largest(lambda v: _ghost_seen(replace(g, bleed=v)) == "dark", most / 300, most)
    if ohm is None:
        return "No bleeder keeps it dark: better switches, or an LED that shows less of so little."
    return (
        f"{show(ohm, OHM)} from each row to ground and from each column to the feed keep it dark; each turns up to "
        f"{show(g.volts**2 / ohm, WATT, 2)} into heat."
    )


def _findings(typed: Details, g: Grid) -> list[Finding]:
    out: list[Finding] = []
    if g.peak_a > g.led.rated_a:
        out.append(
            Finding(
                "scan-stops",
                "mind",
                f"If the scan stops, one row carries {show(g.peak_a, AMPERE)} all the time.",
                show(g.peak_a, AMPERE),
                show(g.led.rated_a, AMPERE),
                "A stopped program leaves a row on: look for what guards it, or stay under "
                f"{show(g.led.rated_a, AMPERE)}.",
            )
        )
    breaks = g.reverse_v >= _REVERSE_V * 0.98
    if not g.diode:
        out.append(
            Finding(
                "no-matrix-diode",
                "stop" if breaks else "mind",
                f"No diode beside each lamp: an unlit LED stands {show(g.reverse_v, VOLT)} in reverse.",
                show(g.reverse_v, VOLT),
                show(_REVERSE_V, VOLT),
                f"Some {_REVERSE_V:g} V are what it stands. Keep the lamp's own diode.",
            )
        )
    if _beside(g) < 0.8:
        out.append(
            Finding(
                "shared-resistor",
                "mind",
                f"With its whole row lit a lamp has {eye_text(_beside(g))} × the light it has alone.",
                why="One resistor for a row is shared by all that are lit in it: one in each column keeps them alike.",
            )
        )
    ghost, where = _ghost(g)
    seen = visibility(g.candela(ghost) * g.rows)
    if seen != "dark" and (g.diode or not breaks):
        message = f"A lamp {where} glows on what leaks past open switches: {show(ghost, AMPERE)}, {WORDS[seen]}."
        out.append(Finding("ghost", "mind", message, why=_bled(g)))
    hertz, fall = typed.value(OFTEN.id), typed.value(FALL.id)
    if hertz is not None:
        out.append(pulses.flickers(hertz))
    if hertz is not None and fall is not None:
        lingers = min(fall * hertz * g.rows, 1.0)
        plain = lingers > _SEEN_SHARE
        out.append(
            Finding(
                "slow-off",
                "mind" if plain else "note",
                f"A row that goes off in {show(fall, SECOND)} shows {number_text(lingers * 100)} % of the next one's "
                "picture.",
                why="A stronger pull-down, or a pause between rows, ends it." if plain else "Not seen.",
            )
        )
    return out
