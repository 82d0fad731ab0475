"""Write a circuit as SPICE text that a standard simulator opens, runs and answers alike."""

import numpy as np

from swapglow.core.engine.devices import REGULATOR_OHM, SMOOTH_V
from swapglow.core.engine.netlist import (
    Bjt,
    Capacitor,
    Circuit,
    CircuitError,
    CurrentRegulator,
    CurrentSource,
    Dc,
    Diode,
    Element,
    FullWave,
    Inductor,
    Param,
    Pulse,
    Pwl,
    Regulator,
    Resistor,
    Sine,
    Switch,
    VoltageSource,
    Wave,
    nodes_of,
)


def _n(value: Param | float) -> str:
    if isinstance(value, np.ndarray):
        raise CircuitError("SPICE text is of one set of values; pick a sample first.")
    # The shortest text that reads back to the same number.
    return repr(float(value))


def write_deck(circuit: Circuit, analyses: tuple[str, ...] = (".op",)) -> str:
    """The circuit and analyses as text, models after their parts.

    Args:
        circuit: the circuit, of one set of values.
        analyses: lines such as ".op".

    Returns:
        The netlist, from title to ".end".

    Raises:
        CircuitError: a parameter is an array of samples.
    """
    lines = [f"* {circuit.title}"]
    for e in circuit.elements:
        lines += _lines(e)
    lines += [f".temp {_n(circuit.celsius)}", *analyses, ".end"]
    return "\n".join(lines) + "\n"


def _named(letter: str, name: str) -> str:
    return name if name[:1].lower() == letter else f"{letter}_{name}"


def _lines(e: Element) -> list[str]:
    nodes = " ".join(nodes_of(e))
    match e:
        case Resistor():
            return [f"{_named('r', e.name)} {nodes} {_n(e.ohms)}"]
        case Capacitor():
            return [f"{_named('c', e.name)} {nodes} {_n(e.farads)}" + _initial(e.initial)]
        case Inductor():
            return [f"{_named('l', e.name)} {nodes} {_n(e.henries)}" + _initial(e.initial)]
        case VoltageSource():
            if isinstance(e.wave, FullWave):
                w = e.wave
                sine = f"sin({_n(2 * np.pi * w.hertz)}*time)"
                return [f"b_{e.name} {nodes} v={_n(w.amplitude)}*abs({sine})"]
            return [f"{_named('v', e.name)} {nodes} {_source(e.wave, e.dc)}"]
        case CurrentSource():
            return [f"{_named('i', e.name)} {nodes} {_source(e.wave, e.dc)}"]
        case Diode():
            m = e.model
            breakdown = f" BV={_n(m.bv)} IBV={_n(m.ibv)}" if np.isfinite(m.bv) else ""
            return [
                f"{_named('d', e.name)} {nodes} m_{e.name}{_area(e.area)}",
                f".model m_{e.name} D(IS={_n(m.i_s)} N={_n(m.n)} RS={_n(m.r_s)} EG={_n(m.e_g)} "
                f"XTI={_n(m.x_ti)} TNOM={_n(m.nominal_c)}{breakdown})",
            ]
        case Bjt():
            q = e.model
            early = f" VAF={_n(q.v_af)}" if np.isfinite(q.v_af) else ""
            kind = "NPN" if q.polarity > 0 else "PNP"
            return [
                f"{_named('q', e.name)} {nodes} m_{e.name}{_area(e.area)}",
                f".model m_{e.name} {kind}(IS={_n(q.i_s)} BF={_n(q.b_f)} BR={_n(q.b_r)} NF={_n(q.n_f)} "
                f"NR={_n(q.n_r)} EG={_n(q.e_g)} XTI={_n(q.x_ti)} XTB={_n(q.x_tb)} "
                f"TNOM={_n(q.nominal_c)}{early})",
            ]
        case Switch():
            s = e.model
            return [
                f"{_named('s', e.name)} {nodes} m_{e.name} {'ON' if e.starts_on else 'OFF'}",
                f".model m_{e.name} SW(RON={_n(s.r_on)} ROFF={_n(s.r_off)} VT={_n(s.threshold)} VH={_n(s.hysteresis)})",
            ]
        case Regulator():
            return _regulator(e)
        case CurrentRegulator():
            return _current_regulator(e)


def _area(area: float) -> str:
    # Named, and only where it is not one: a bare number there is taken for the model's name.
    return "" if area == 1.0 else f" area={_n(area)}"


def _initial(value: float | None) -> str:
    return "" if value is None else f" IC={_n(value)}"


def _source(wave: Wave, dc: Param | None) -> str:
    level = "" if dc is None else f"DC {_n(dc)} "
    match wave:
        case Dc(value):
            return f"DC {_n(value if dc is None else dc)}"
        case Sine() as s:
            return (
                f"{level}SIN({_n(s.offset)} {_n(s.amplitude)} {_n(s.hertz)} {_n(s.delay)} "
                f"{_n(s.damping)} {_n(s.phase_deg)})"
            )
        case Pulse() as p:
            long = 1e9
            times = (p.delay, p.rise, p.fall, min(p.width, long), min(p.period, 2 * long))
            return f"{level}PULSE({_n(p.initial)} {_n(p.pulsed)} {' '.join(_n(t) for t in times)})"
        case Pwl(points):
            return f"{level}PWL({' '.join(f'{_n(t)} {_n(v)}' for t, v in points)})"
        case FullWave():
            raise CircuitError("A folded sine is written as a voltage source of its own.")


def _soft(a: str) -> str:
    """The rounded max(a, 0) of the behavioural parts."""
    return f"(0.5*(({a})+abs({a}))+{SMOOTH_V}*ln(1+exp(-abs({a})/{SMOOTH_V})))"


def _regulator(e: Regulator) -> list[str]:
    i, o, g = nodes_of(e)
    head = f"(v({i},{g})-{_n(e.dropout)})"
    target = f"(0.5*({_n(e.volts)}+{head}-sqrt(({_n(e.volts)}-{head})^2+{SMOOTH_V**2})))"
    error = _soft(f"({target}-v({o},{g}))")
    return [
        f"b_{e.name} {i} {o} i={_n(e.limit)}*tanh({error}/{_n(float(np.asarray(e.limit)) * REGULATOR_OHM)})",
        f"b_{e.name}_q {i} {g} i={_n(e.quiescent)}*tanh(v({i},{g}))",
    ]


def _current_regulator(e: CurrentRegulator) -> list[str]:
    a, b = nodes_of(e)
    head = f"({_soft(f'v({a},{b})')}-{SMOOTH_V * np.log(2.0):.17g})"
    return [f"b_{e.name} {a} {b} i={_n(e.amps)}*tanh(3*{head}/{_n(e.dropout)})"]
