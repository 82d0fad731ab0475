"""Read the subset of SPICE that the engine solves: R, C, L, V, I, D, Q, S, .model, .op, .dc, .tran.

27 °C and SPICE's model defaults hold where the file is silent. What cannot be read is refused with
its line number; what would be read but not solved (junction charge in a run) is refused too.
"""

import itertools
from dataclasses import dataclass

from swapglow.core.constants import NOMINAL_C
from swapglow.core.engine.netlist import (
    Bjt,
    BjtModel,
    Capacitor,
    Circuit,
    CurrentSource,
    Dc,
    Diode,
    DiodeModel,
    Element,
    Inductor,
    Pulse,
    Pwl,
    Resistor,
    Sine,
    Switch,
    SwitchModel,
    VoltageSource,
    Wave,
)
from swapglow.core.engine.spice.lines import Line, SpiceError, logical_lines, number

MOST_SWEEP = 100_000


@dataclass(frozen=True)
class DcSweep:
    """.dc: a source stepped from start to stop."""

    source: str
    start: float
    stop: float
    step: float


@dataclass(frozen=True)
class Tran:
    """.tran: printing step, end, first instant kept, longest step, and whether from conditions."""

    step: float
    stop: float
    start: float = 0.0
    longest: float | None = None
    from_conditions: bool = False


@dataclass(frozen=True)
class Deck:
    """A file: the circuit and the analyses it asks for."""

    circuit: Circuit
    op: bool
    dc: DcSweep | None
    tran: Tran | None


@dataclass(frozen=True)
class _Model:
    line: Line
    kind: str
    values: dict[str, float]


# Parameters of charge: they change nothing at DC, and the engine does not solve them in time.
_CHARGE = {
    "d": {"cjo", "cj0", "cj", "vj", "m", "mj", "tt", "fc", "pb"},
    "q": {
        "cje",
        "vje",
        "pe",
        "mje",
        "me",
        "cjc",
        "vjc",
        "pc",
        "mjc",
        "mc",
        "xcjc",
        "cjs",
        "vjs",
        "mjs",
        "tf",
        "tr",
        "xtf",
        "vtf",
        "itf",
        "ptf",
        "fc",
    },
}
_DIODE = {"is": "i_s", "n": "n", "rs": "r_s", "bv": "bv", "ibv": "ibv", "eg": "e_g", "xti": "x_ti", "tnom": "nominal_c"}
_BJT = {
    "is": "i_s",
    "bf": "b_f",
    "br": "b_r",
    "nf": "n_f",
    "nr": "n_r",
    "vaf": "v_af",
    "va": "v_af",
    "eg": "e_g",
    "xti": "x_ti",
    "xtb": "x_tb",
    "tnom": "nominal_c",
}
_SWITCH = {"ron": "r_on", "roff": "r_off", "vt": "threshold", "vh": "hysteresis"}
# Words that shape the printing or the search and not the answer.
_SILENT = {".print", ".plot", ".save", ".probe", ".width", ".title"}
_TOLERANCES = {
    "reltol",
    "abstol",
    "vntol",
    "chgtol",
    "trtol",
    "itl1",
    "itl2",
    "itl4",
    "itl5",
    "method",
    "noacct",
    "acct",
    "nopage",
    "post",
    "numdgt",
}


def read_deck(text: str) -> Deck:
    """Read a file.

    Raises:
        SpiceError: a line cannot be read, or asks for what is not solved.
    """
    title, lines = logical_lines(text)
    return _Reader(title, lines).deck()


class _Reader:
    def __init__(self, title: str, lines: list[Line]) -> None:
        self.title = title
        self.celsius = NOMINAL_C
        self.nominal = NOMINAL_C
        self.op: Line | None = None
        self.dc: tuple[Line, DcSweep] | None = None
        self.tran: tuple[Line, Tran] | None = None
        self.models: dict[str, _Model] = {}
        self.names: dict[str, int] = {}
        parts = [line for line in lines if not line.words[0].startswith(".")]
        for line in lines:
            if line.words[0].startswith("."):
                self._control(line)
        self.elements = tuple(self._element(line) for line in parts)

    def deck(self) -> Deck:
        circuit = Circuit(self.elements, self.celsius, self.title)
        if self.dc is not None:
            line, sweep = self.dc
            if sweep.source not in {e.name for e in self.elements if isinstance(e, VoltageSource | CurrentSource)}:
                raise line.refuse(f'.dc sweeps "{sweep.source}", which is no source of this circuit')
        return Deck(circuit, self.op is not None, self.dc[1] if self.dc else None, self.tran[1] if self.tran else None)

    # --- dot lines ------------------------------------------------------------------------

    def _control(self, line: Line) -> None:
        word, rest = line.words[0], line.words[1:]
        if word in _SILENT:
            return
        if word == ".model":
            self._model(line)
        elif word == ".op":
            self.op = line
        elif word == ".dc":
            self._dc(line, rest)
        elif word == ".tran":
            self._tran(line, rest)
        elif word == ".temp":
            if len(rest) != 1:
                raise line.refuse(".temp takes one temperature")
            self.celsius = number(line, rest[0], "the temperature")
        elif word in (".options", ".option", ".opt"):
            self._options(line, rest)
        else:
            raise line.refuse(f'"{word}" is not read here; .model, .op, .dc, .tran, .temp and .options are')

    def _options(self, line: Line, rest: tuple[str, ...]) -> None:
        k = 0
        while k < len(rest):
            name = rest[k]
            has_value = k + 2 < len(rest) + 0 and rest[k + 1] == "="
            value = rest[k + 2] if has_value else ""
            k += 3 if has_value else 1
            if name in ("temp", "tnom") and has_value:
                celsius = number(line, value, name)
                if name == "temp":
                    self.celsius = celsius
                else:
                    self.nominal = celsius
            elif name not in _TOLERANCES:
                raise line.refuse(f'the option "{name}" would change the answer and is not read here')

    def _dc(self, line: Line, rest: tuple[str, ...]) -> None:
        if len(rest) != 4:
            raise line.refuse(".dc takes a source, start, stop and step; one sweep at a time")
        start, stop, step = (number(line, w, "the sweep's value") for w in rest[1:])
        if step == 0 or (stop - start) * step < 0:
            raise line.refuse(f"a step of {step:g} never gets from {start:g} to {stop:g}")
        points = abs((stop - start) / step)
        if points > MOST_SWEEP:
            raise line.refuse(f"{points:.3g} points in the sweep; {MOST_SWEEP} are the most")
        self.dc = (line, DcSweep(rest[0], start, stop, step))

    def _tran(self, line: Line, rest: tuple[str, ...]) -> None:
        uic = "uic" in rest
        values = [number(line, w, "the time") for w in rest if w != "uic"]
        if not 2 <= len(values) <= 4:
            raise line.refuse(".tran takes a step and an end, then the first instant and the longest step")
        step, stop = values[0], values[1]
        start = values[2] if len(values) > 2 else 0.0
        longest = values[3] if len(values) > 3 and values[3] > 0 else None
        if not (step > 0 and stop > 0 and 0 <= start < stop):
            raise line.refuse(".tran needs a step and an end above 0, and a start before the end")
        self.tran = (line, Tran(min(step, stop), stop, start, longest, uic))

    def _model(self, line: Line) -> None:
        if len(line.words) < 3:
            raise line.refuse(".model takes a name, a type and parameters")
        name, kind, rest = line.words[1], line.words[2], line.words[3:]
        if kind not in ("d", "npn", "pnp", "sw"):
            raise line.refuse(f'a model of type "{kind}" is not read here; D, NPN, PNP and SW are')
        values: dict[str, float] = {}
        if len(rest) % 3 or any(rest[k + 1] != "=" for k in range(0, len(rest), 3)):
            raise line.refuse("a model's parameters are written NAME=value")
        for k in range(0, len(rest), 3):
            values[rest[k]] = number(line, rest[k + 2], rest[k])
        if name in self.models:
            raise line.refuse(f'the model "{name}" is already on line {self.models[name].line.number}')
        self.models[name] = _Model(line, kind, values)

    # --- parts ----------------------------------------------------------------------------

    def _element(self, line: Line) -> Element:
        name = line.words[0]
        if name in self.names:
            raise line.refuse(f"{name} is already on line {self.names[name]}")
        self.names[name] = line.number
        build = {
            "r": self._resistor,
            "c": self._capacitor,
            "l": self._inductor,
            "v": self._source,
            "i": self._source,
            "d": self._diode,
            "q": self._bjt,
            "s": self._switch,
        }.get(name[0])
        if build is None:
            raise line.refuse(f'"{name}" is no part that is read here; R, C, L, V, I, D, Q and S are')
        return build(line)

    def _nodes(self, line: Line, count: int) -> list[str]:
        nodes = list(line.words[1 : 1 + count])
        if len(nodes) < count or "=" in nodes:
            raise line.refuse(f"{line.words[0]} needs {count} nodes")
        return nodes

    def _value(self, line: Line, what: str, *, zero: bool = False) -> float:
        rest = [w for w in line.words[3:] if w not in ("=", "r", "c", "l")]
        if not rest:
            raise line.refuse(f"{line.words[0]} has no {what}")
        value = number(line, rest[0], f"the {what}")
        if value < 0 or (value == 0 and not zero):
            raise line.refuse(f"the {what} of {line.words[0]} is {value:g}; it must be more than 0")
        return value

    def _resistor(self, line: Line) -> Element:
        a, b = self._nodes(line, 2)
        if len([w for w in line.words[3:] if w not in ("=", "r")]) > 1:
            raise line.refuse(f"{line.words[0]} has more than a value; no more is read")
        return Resistor(line.words[0], a, b, self._value(line, "resistance"))

    def _capacitor(self, line: Line) -> Element:
        a, b = self._nodes(line, 2)
        return Capacitor(line.words[0], a, b, self._value(line, "capacitance"), self._initial(line))

    def _inductor(self, line: Line) -> Element:
        a, b = self._nodes(line, 2)
        return Inductor(line.words[0], a, b, self._value(line, "inductance"), self._initial(line))

    def _initial(self, line: Line) -> float | None:
        rest = line.words[4:]
        if not rest:
            return None
        if len(rest) == 3 and rest[:2] == ("ic", "="):
            return number(line, rest[2], "IC")
        raise line.refuse(f'"{" ".join(rest)}" after the value is not read here; IC= is')

    def _source(self, line: Line) -> Element:
        name = line.words[0]
        plus, minus = self._nodes(line, 2)
        dc, wave = self._waves(line, list(line.words[3:]))
        kind = VoltageSource if name[0] == "v" else CurrentSource
        if wave is None:
            return kind(name, plus, minus, Dc(dc or 0.0))
        return kind(name, plus, minus, wave, dc)

    def _waves(self, line: Line, rest: list[str]) -> tuple[float | None, Wave | None]:
        dc: float | None = None
        wave: Wave | None = None
        while rest:
            word = rest.pop(0)
            if word in ("sin", "pulse", "pwl"):
                values = []
                while rest and rest[0] not in ("ac", "dc"):
                    values.append(number(line, rest.pop(0), f"a value of {word.upper()}"))
                wave = self._wave(line, word, values)
            elif word == "dc":
                if not rest:
                    raise line.refuse("DC without a value")
                dc = number(line, rest.pop(0), "the DC value")
            elif word == "ac":
                # A small-signal stimulus: no part in .op, .dc or .tran.
                while rest and rest[0] not in ("sin", "pulse", "pwl", "dc"):
                    number(line, rest.pop(0), "the AC value")
            elif dc is None and wave is None and word[:1] in "+-.0123456789":
                dc = number(line, word, "the value")
            else:
                raise line.refuse(f'"{word}" is no source that is read here; DC, SIN, PULSE and PWL are')
        return dc, wave

    def _wave(self, line: Line, word: str, v: list[float]) -> Wave:
        if word == "sin":
            if not 2 <= len(v) <= 6 or (len(v) > 2 and v[2] <= 0):
                raise line.refuse("SIN takes offset, amplitude and a frequency above 0")
            hertz = v[2] if len(v) > 2 else (1 / self._span(line))
            return Sine(v[0], v[1], hertz, *v[3:])
        if word == "pulse":
            if not 2 <= len(v) <= 7:
                raise line.refuse("PULSE takes two levels, then delay, rise, fall, width and period")
            step = self.tran[1].step if self.tran else 1e-9
            span = self._span(line)
            got = v[2:] + [0.0] * (7 - len(v))
            delay, rise, fall, width, period = got
            return Pulse(v[0], v[1], delay, rise or step, fall or step, width or span, period or span)
        if len(v) < 2 or len(v) % 2:
            raise line.refuse("PWL takes pairs of time and level")
        points = tuple(zip(v[0::2], v[1::2], strict=True))
        if any(b[0] <= a[0] for a, b in itertools.pairwise(points)):
            raise line.refuse("the times of PWL must rise")
        return Pwl(points)

    def _span(self, line: Line) -> float:
        return self.tran[1].stop if self.tran else 1.0

    def _found(self, line: Line, name: str, kinds: tuple[str, ...]) -> _Model:
        model = self.models.get(name)
        if model is None:
            raise line.refuse(f'there is no .model "{name}"')
        if model.kind not in kinds:
            raise line.refuse(f'the model "{name}" is of type {model.kind.upper()}')
        return model

    def _known(self, model: _Model, known: dict[str, str], charge: set[str]) -> dict[str, float]:
        out: dict[str, float] = {}
        for name, value in model.values.items():
            if name in known:
                out[known[name]] = value
            elif name in charge:
                if (
                    self.tran is not None
                    and value != 0
                    and name in ("cjo", "cj0", "cj", "tt", "cje", "cjc", "cjs", "tf", "tr")
                ):
                    raise model.line.refuse(f"{name.upper()} (junction charge) is not solved in a .tran")
            else:
                raise model.line.refuse(f"the parameter {name.upper()} is not read here")
        if "nominal_c" not in out and model.kind != "sw":
            out["nominal_c"] = self.nominal
        return out

    def _area(self, line: Line, at: int) -> float:
        rest = [w for w in line.words[at:] if w not in ("=", "area")]
        if len(rest) > 1:
            raise line.refuse(f'"{" ".join(rest[1:])}" is not read here')
        return number(line, rest[0], "the area") if rest else 1.0

    def _model_name(self, line: Line, at: int) -> str:
        if len(line.words) <= at:
            raise line.refuse(f"{line.words[0]} names no model")
        return line.words[at]

    def _diode(self, line: Line) -> Element:
        a, b = self._nodes(line, 2)
        model = self._found(line, self._model_name(line, 3), ("d",))
        values = self._known(model, _DIODE, _CHARGE["d"])
        if values.get("bv") is not None and values["bv"] <= 0:
            raise model.line.refuse("BV must be more than 0")
        return Diode(line.words[0], a, b, DiodeModel(**values), self._area(line, 4))

    def _bjt(self, line: Line) -> Element:
        c, b, e = self._nodes(line, 3)
        model = self._found(line, self._model_name(line, 4), ("npn", "pnp"))
        values = self._known(model, _BJT, _CHARGE["q"])
        polarity = 1 if model.kind == "npn" else -1
        return Bjt(line.words[0], c, b, e, BjtModel(polarity, **values), self._area(line, 5))

    def _switch(self, line: Line) -> Element:
        a, b, plus, minus = self._nodes(line, 4)
        model = self._found(line, self._model_name(line, 5), ("sw",))
        values = self._known(model, _SWITCH, set())
        state = line.words[6:]
        if state not in ((), ("on",), ("off",)):
            raise line.refuse(f'"{" ".join(state)}" is not read here; ON or OFF is')
        return Switch(line.words[0], a, b, plus, minus, SwitchModel(**values), state == ("on",))


__all__ = ["DcSweep", "Deck", "SpiceError", "Tran", "read_deck"]
