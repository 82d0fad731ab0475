"""Rows and columns switched in turn, solved as the whole network they are: every lamp in every row's turn."""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Circuit, Dc, Diode, DiodeModel, Element, Resistor, VoltageSource
from swapglow.core.engine.operating_point import operating_point
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.worked import Fault, Figure, Judged, Row, Table, Way, Worked, gravest_first, picked
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.photometry.flicker import flicker_limit
from swapglow.core.photometry.light_law import relative_light
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
    Shown,
    Source,
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
LED = led_detail()
WHERE = Detail("where", "Where its resistors are", None, "", (
    ("column", "One in each column"), ("lamp", "One beside each lamp"), ("row", "One in each row"),
))  # fmt: skip
OHM_ = Detail("ohm", "Each of them", OHM, "680R; empty sizes it", none="link")
DIODE = Detail("diode", "Diode beside each lamp", None, "", (("yes", "One"), ("no", "None")))
REST = Detail("rest", "A row that is off", None, "", (
    ("open", "Floats"), ("held", "Is held at the other side"),
))  # fmt: skip
MEAN = Detail("mean", "Mean current wanted in a lamp", AMPERE, "2mA; empty takes that")
LEAK = Detail("leak", "Resistance past an open switch", OHM, "47k, from volts and amps; empty: none known")
HERTZ_ = Detail("hertz", "All rows, so often a second", HERTZ, "120Hz; empty: not known")
FALL = Detail("fall", "Time a row takes to switch off", SECOND, "20us; empty: not known")

_MOST_SIDE, _MOST_LAMPS = 16, 128
_USUAL_A = 2e-3
_ON_OHM, _OPEN_OHM = 0.1, 1e9
# What an LED stands in reverse, and what it then carries (data sheets, from memory).
_REVERSE_V, _REVERSE_A = 5.0, 1e-5
# Peak over rated that short pulses allow: over the root of the share of the time, never five times (from memory).
_MOST_PEAK = 5.0
_SEEN_SHARE = 0.01


@dataclass(frozen=True)
class Grid:
    """A matrix.

    Attributes:
        volts: of a row while it is on.
        rows, columns: how many.
        led: every lamp's.
        where: where the resistors are.
        ohm: each of them, Ω.
        diode: whether each lamp has its own.
        leak: past an open switch, Ω; None for nothing.
        held: whether a row that is off is held at ground.
        bleed: from each row to ground and from each column to the feed, Ω; None for none.
    """

    volts: float
    rows: int
    columns: int
    led: Led
    where: Where
    ohm: float
    diode: bool
    leak: float | None = None
    held: bool = False
    bleed: float | None = None


def turn(grid: Grid, on: frozenset[int], lit: frozenset[int]) -> Circuit:
    """The network while some rows are on and some columns are closed.

    Args:
        grid: the matrix.
        on: rows that are on, from 0.
        lit: columns that are closed.

    Returns:
        The circuit; lamp "D2_3" is that of row 2 and column 3, from 0.
    """
    open_ohm = grid.leak or _OPEN_OHM
    parts: list[Element] = [VoltageSource("Vrow", "feed", "0", Dc(grid.volts))]
    for i in range(grid.rows):
        top = f"top{i}" if grid.where == "row" else f"row{i}"
        parts.append(Resistor(f"Rrow{i}", "feed", top, _ON_OHM if i in on else open_ohm))
        if grid.held and i not in on:
            parts.append(Resistor(f"Rheld{i}", top, "0", _ON_OHM))
        if grid.bleed is not None:
            parts.append(Resistor(f"Rbleed{i}", top, "0", grid.bleed))
        if grid.where == "row":
            parts.append(Resistor(f"R{i}", top, f"row{i}", grid.ohm))
    for j in range(grid.columns):
        foot = f"foot{j}" if grid.where == "column" else f"column{j}"
        if grid.where == "column":
            parts.append(Resistor(f"R{j}", f"column{j}", foot, grid.ohm))
        if grid.bleed is not None:
            parts.append(Resistor(f"Rlift{j}", "feed", f"column{j}", grid.bleed))
        parts.append(Resistor(f"Rcolumn{j}", foot, "0", _ON_OHM if j in lit else open_ohm))
    junction = grid.led.junction(grid.led.vf_typ)
    model = DiodeModel(float(junction.i_s), junction.n, junction.r_s, bv=_REVERSE_V, ibv=_REVERSE_A,
                       nominal_c=REFERENCE_C)  # fmt: skip
    guard = rectifier("signal").chain(1, REFERENCE_C)
    for i in range(grid.rows):
        for j in range(grid.columns):
            node = f"row{i}"
            if grid.where == "lamp":
                parts.append(Resistor(f"R{i}_{j}", node, f"in{i}_{j}", grid.ohm))
                node = f"in{i}_{j}"
            if grid.diode:
                parts.append(Diode(f"Dguard{i}_{j}", node, f"lamp{i}_{j}", guard))
                node = f"lamp{i}_{j}"
            parts.append(Diode(f"D{i}_{j}", node, f"column{j}", model))
    return Circuit(tuple(parts), celsius=REFERENCE_C, title="a row's turn")


def amps(grid: Grid, on: frozenset[int], lit: frozenset[int]) -> tuple[FloatArray, float]:
    """What every lamp carries in a row's turn, and the most any LED stands in reverse.

    Args:
        grid: the matrix.
        on: rows that are on.
        lit: columns that are closed.

    Returns:
        A, (rows, columns), never less than nothing; V.

    Raises:
        NotConverged: it has no answer.
    """
    point = operating_point(turn(grid, on, lit)).require()
    shape = (grid.rows, grid.columns)
    names = [f"D{i}_{j}" for i in range(grid.rows) for j in range(grid.columns)]
    found = np.array([max(float(point.current(n)[0]), 0.0) for n in names]).reshape(shape)
    return found, max(0.0, -min(float(point.across(n)[0]) for n in names))


class LampMatrix(FittedKind):
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
    details = (VOLTS, ROWS, COLUMNS, LED, WHERE, OHM_, DIODE, REST, MEAN, LEAK, HERTZ_, FALL)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """One lamp and all of them lit, what glows that should not, and what a fault does."""
        grid, sized, wanted = _grid(typed)
        one, some = _lit(grid, 1), _lit(grid, grid.columns)
        peak = float(one[0, 0])
        ways = _ways(grid, sized, wanted, peak) if typed.value(OHM_.id) is not None else ()
        way = picked(ways, chosen)
        after = None if way is None else peak * way.share.value
        lamps = f"{grid.rows} × {grid.columns} lamps"
        return Worked(
            line=f"{lamps} behind {show(grid.ohm, OHM)}: {show(peak / grid.rows, AMPERE)} on average in a lamp, "
                 f"{show(peak, AMPERE)} in its turn.",
            figures=_figures(grid, peak, after),
            tables=(_pictures(grid, one, some),),
            ways=ways,
            faults=_faults(grid, one),
            judged=_judged(typed, grid, one, some),
            spice=write_deck(turn(grid, frozenset({0}), frozenset(range(grid.columns)))),
        )  # fmt: skip


KIND = LampMatrix()


def _grid(typed: Details) -> tuple[Grid, float | None, float]:
    volts = typed.value(VOLTS.id)
    if volts is None:
        raise InputError(VOLTS.id, f"Type the {VOLTS.label.lower()}: {VOLTS.hint}.")
    for side in (ROWS, COLUMNS):
        if not typed.text(side.id):
            raise InputError(side.id, "Type how many rows and how many columns it has.")
    rows, columns = typed.count(ROWS.id, _MOST_SIDE), typed.count(COLUMNS.id, _MOST_SIDE)
    if rows * columns > _MOST_LAMPS:
        raise InputError(ROWS.id, f"{rows} × {columns} lamps are more than the {_MOST_LAMPS} taken here.")
    led, wanted = catalogue()[typed.choice(LED.id)], typed.value(MEAN.id) or _USUAL_A
    where: Where = typed.choice(WHERE.id)  # type: ignore[assignment]  # one of its options
    grid = Grid(volts, rows, columns, led, where, 1.0, typed.choice(DIODE.id) == "yes", typed.value(LEAK.id),
                typed.choice(REST.id) == "held")  # fmt: skip
    sized = _sized(grid, wanted * rows)
    ohm = typed.value(OHM_.id) or sized
    if ohm is None:
        raise InputError(
            MEAN.id, f"{show(wanted * rows, AMPERE)} in its turn do not flow on {show(volts, VOLT)}."
        )
    return replace(grid, ohm=ohm), sized, wanted


def _sized(grid: Grid, peak: float) -> float | None:
    """The next higher value at which one lamp alone carries so much in its turn (Ohm)."""
    drop = float(grid.led.junction(grid.led.vf_typ).volts(peak))
    if grid.diode:
        drop += rectifier("signal").volts(peak, 1, REFERENCE_C)
    exact = (grid.volts - drop) / peak - 2 * _ON_OHM
    return preferred.prefer(exact, "E24", "up") if exact >= 1 else None


def _lit(grid: Grid, columns: int) -> FloatArray:
    """What every lamp carries with so many columns closed in the first row's turn, A."""
    return amps(grid, frozenset({0}), frozenset(range(columns)))[0]


def _candela(grid: Grid, peak: float) -> float:
    """Mean light of a lamp that carries so much in its turn, cd (Talbot-Plateau)."""
    return float(relative_light(grid.led, np.array([peak]))[0]) * grid.led.candela / grid.rows


def _figures(grid: Grid, peak: float, after: float | None) -> tuple[Figure, ...]:
    def then(value: float | None, what: str) -> Shown | None:
        return None if value is None else shown(value, AMPERE, what)

    turn_, mean = "one lamp lit, while its row is on", f"one turn of {grid.rows}"
    return (
        Figure("In its turn", shown(peak, AMPERE, turn_), then(after, turn_)),
        Figure("On average", shown(peak / grid.rows, AMPERE, mean), then(after and after / grid.rows, mean)),
        Figure("Light", shown(_candela(grid, peak), CANDELA, "mean of all turns"),
               None if after is None else shown(_candela(grid, after), CANDELA, "mean of all turns")),
    )  # fmt: skip


def _pictures(grid: Grid, one: FloatArray, some: FloatArray) -> Table:
    """A lamp with nothing else lit in its row, and with all of it; and the worst that should be dark."""
    rows = [
        _row(grid, "Alone in its row", float(one[0, 0]), ""),
        _row(grid, "With its whole row", float(some[0, 0]), _beside(grid, one, some)),
    ]
    ghost, where = _ghost(one)
    words = f"{where}: {WORDS[visibility(_candela(grid, ghost) * grid.rows)]}"
    rows.append(_row(grid, "Brightest that should be dark", ghost, words))
    return Table("The same lamp in other pictures", ("In its turn", "On average"), tuple(rows))


def _row(grid: Grid, label: str, peak: float, words: str) -> Row:
    cells = (shown(peak, AMPERE, "while its row is on"), shown(peak / grid.rows, AMPERE, "over all turns"))
    return Row(label, cells, words)


def _beside(grid: Grid, one: FloatArray, some: FloatArray) -> str:
    share = _candela(grid, float(some[0, 0])) / max(_candela(grid, float(one[0, 0])), 1e-15)
    return f"{eye_text(share)} × the light it has alone"


def _ghost(one: FloatArray) -> tuple[float, str]:
    """The most that any lamp but the lit one carries, A, and where it is."""
    dark = one.copy()
    dark[0, 0] = 0.0
    i, j = (int(k) for k in np.unravel_index(int(dark.argmax()), dark.shape))
    where = "in the same row" if i == 0 else "in the same column" if j == 0 else "elsewhere"
    return float(dark[i, j]), where


def _ways(grid: Grid, sized: float | None, wanted: float, peak: float) -> tuple[Way, ...]:
    if sized is None or peak <= 0:
        return ()
    then = float(_lit(replace(grid, ohm=sized), 1)[0, 0])
    share, light = then / peak, _candela(grid, then) / max(_candela(grid, peak), 1e-15)
    return (Way(
        f"Fit {show(sized, OHM)}", f"{show(wanted, AMPERE)} on average, {show(wanted * grid.rows, AMPERE)} in its turn",
        Shown(share, f"{share * 100:.0f}", "%", Source.COMPUTED, "of the current"),
        f"{eye_text(light)} × the light.", "", True, {OHM_.id: show(sized, OHM)},
    ),)  # fmt: skip


def _faults(grid: Grid, one: FloatArray) -> tuple[Fault, ...]:
    """What a switch that stays closed, and an LED that is a short, do to the others (each solved)."""
    peak = float(one[0, 0])
    out = []
    if grid.rows > 1:
        both = amps(grid, frozenset({0, 1}), frozenset({0}))[0]
        share = float(both[0, 0]) / peak
        out.append(Fault(
            "A row's switch stays closed",
            f"It shows every other row's picture as well, and each of the two lamps then carries {share * 100:.0f} %.",
        ))  # fmt: skip
    if grid.columns > 1:
        both = amps(grid, frozenset({0}), frozenset({0, 1}))[0]
        share = float(both[0, 0]) / peak
        out.append(Fault(
            "A column's switch stays closed", "A lamp of it lights in every row"
            + (f", and takes its neighbour down to {share * 100:.0f} %." if share < 0.95 else "; the others stay."),
        ))  # fmt: skip
    out.append(Fault("An LED is open", "It is dark; nothing else changes."))
    return tuple(out)


def _bled(grid: Grid) -> str:
    """The largest value that leads past what leaks, tried in the network itself."""
    most = grid.leak or _OPEN_OHM
    values = preferred.values("E12", most / 300, most).tolist()

    def dark(ohm: float) -> bool:
        ghost = _ghost(_lit(replace(grid, bleed=ohm), 1))[0]
        return visibility(_candela(grid, ghost) * grid.rows) == "dark"

    # More ohms lead less past, so that halving finds the last that does.
    low, high = -1, len(values)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if dark(values[middle]) else (low, middle)
    if low >= 0:
        heat = grid.volts**2 / values[low]
        return (
            f"{show(values[low], OHM)} from each row to ground and from each column to the feed keep it dark; each "
            f"turns up to {show(heat, WATT, 2)} into heat."
        )
    return "No bleeder keeps it dark: better switches, or an LED that shows less of so little."


def _judged(typed: Details, grid: Grid, one: FloatArray, some: FloatArray) -> tuple[Judged, ...]:
    out: list[Judged] = []
    peak = float(one[0, 0])
    most = grid.led.rated_a * min(grid.rows**0.5, _MOST_PEAK)
    if peak > most:
        why = "Rated current over the root of its share of the time, never five times (from memory)."
        message = (
            f"{show(peak, AMPERE)} in its turn is over {show(most, AMPERE)}, the most at 1 in {grid.rows}."
        )
        out.append(Judged("stop", message, why))
    if peak > grid.led.rated_a:
        message = f"If the scan stops, one row carries {show(peak, AMPERE)} all the time."
        out.append(Judged("mind", message, "A stopped program leaves a row on: look for what guards it, or stay "
                                           f"under {show(grid.led.rated_a, AMPERE)}."))  # fmt: skip
    back = amps(grid, frozenset({0}), frozenset({0}))[1]
    if not grid.diode:
        grade: Literal["stop", "mind"] = "stop" if back >= _REVERSE_V * 0.98 else "mind"
        message = f"No diode beside each lamp: an unlit LED stands {show(back, VOLT)} in reverse."
        out.append(
            Judged(grade, message, f"Some {_REVERSE_V:g} V are what it stands. Keep the lamp's own diode.")
        )
    share = _candela(grid, float(some[0, 0])) / max(_candela(grid, peak), 1e-15)
    if share < 0.8:
        message = f"With its whole row lit a lamp has {eye_text(share)} × the light it has alone."
        out.append(Judged("mind", message, "One resistor for a row is shared by all that are lit in it: one in each "
                                           "column keeps them alike."))  # fmt: skip
    ghost, where = _ghost(one)
    seen = visibility(_candela(grid, ghost) * grid.rows)
    broken = not grid.diode and back >= _REVERSE_V * 0.98
    if seen != "dark" and not broken:
        message = (
            f"A lamp {where} glows on what leaks past open switches: {show(ghost, AMPERE)}, {WORDS[seen]}."
        )
        out.append(Judged("mind", message, _bled(grid)))
    hertz, fall = typed.value(HERTZ_.id), typed.value(FALL.id)
    if hertz is not None:
        limit = flicker_limit(hertz)
        message = f"It goes out {show(hertz, HERTZ)}: wholly modulated; low-risk is up to {limit:.0f} %."
        why = "A filament smoothed it (IEEE 1789-2015 for the limit). Moving eyes see the pulses as dots."
        out.append(Judged("mind" if limit < 100 else "note", message, why))
    if hertz is not None and fall is not None:
        lingers = min(fall * hertz * grid.rows, 1.0)
        part = number_text(lingers * 100)
        message = f"A row that goes off in {show(fall, SECOND)} shows {part} % of the next one's picture."
        why = (
            "A stronger pull-down, or a pause between rows, ends it."
            if lingers > _SEEN_SHARE
            else "Not seen."
        )
        out.append(Judged("mind" if lingers > _SEEN_SHARE else "note", message, why))
    return gravest_first(out)
