"""Currents and conductances of the nonlinear parts, in array form.

Each function takes junction voltages of shape (devices, samples) and returns currents and slopes
of the same shape. Equations follow the reference simulator's documented models, so that the same
netlist gives the same answer there.
"""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from swapglow.core.constants import ZERO_C, thermal_voltage
from swapglow.core.engine.netlist import BjtModel, DiodeModel

FloatArray = NDArray[np.float64]

GMIN = 1e-12  # S across every junction, as in SPICE
_LARGEST_EXPONENT = 300.0


def saturation_at(
    i_s: FloatArray, n: FloatArray, e_g: float, x_ti: float, celsius: float, nominal_c: float
) -> FloatArray:
    """Saturation current at temperature: Is·exp((T/T0 − 1)·Eg/(n·Vt))·(T/T0)^(Xti/n).

    The SPICE diode temperature law (Antognetti and Massobrio, Semiconductor Device Modeling).

    Args:
        i_s: saturation current at ``nominal_c``, A.
        n: emission coefficient.
        e_g: band gap, eV.
        x_ti: temperature exponent of Is.
        celsius: junction temperature, °C.
        nominal_c: temperature the model was taken at, °C.

    Returns:
        A, shape of ``i_s``.
    """
    ratio = (celsius + ZERO_C) / (nominal_c + ZERO_C)
    nvt = n * thermal_voltage(celsius)
    return i_s * np.exp((ratio - 1) * e_g / nvt) * ratio ** (x_ti / n)


def breakdown_knee(model: DiodeModel, i_s: float, celsius: float) -> float:
    """The voltage at which the breakdown exponential starts so that I(−BV) = −IBV (SPICE).

    Args:
        model: the diode, its BV in V and IBV in A.
        i_s: saturation current at temperature, A.
        celsius: junction temperature, °C.

    Returns:
        V.
    """
    vt = thermal_voltage(celsius)
    if model.ibv < i_s * model.bv / vt:
        return model.bv
    # The avalanche's own emission coefficient is the junction's where none is given (SPICE's NBV).
    nvt = float(np.asarray(model.n).flat[0]) * vt
    knee = model.bv - nvt * np.log(1 + model.ibv / i_s)
    for _ in range(25):
        knee = model.bv - nvt * np.log(model.ibv / i_s + 1 - knee / vt)
        reached = i_s * (np.exp((model.bv - knee) / nvt) - 1 + knee / vt)
        if abs(reached - model.ibv) <= 1e-6 * model.ibv:
            break
    return float(knee)


class Branch(NamedTuple):
    """Current and slope of a two-terminal part at its present voltage."""

    amps: FloatArray
    siemens: FloatArray


def junction(v: FloatArray, i_s: FloatArray, nvt: FloatArray, gmin: FloatArray | float) -> Branch:
    """Shockley junction, with SPICE's cubic tail below −3·n·Vt and gmin across it.

    Args:
        v: junction volts, (junctions, samples).
        i_s: saturation current, A, broadcast to it.
        nvt: n·Vt, V, broadcast to it.
        gmin: conductance across it, S.

    Returns:
        Current in A and slope in S, shape of ``v``.
    """
    with np.errstate(over="ignore", divide="ignore", invalid="ignore"):
        x = v / nvt
        slope = np.exp(np.minimum(x, _LARGEST_EXPONENT))
        amps = i_s * (slope - 1.0)
        slope *= i_s / nvt
        reverse = x < -3
        if reverse.any():
            third = (3 / np.e) / x
            # Two products: numpy takes a cube by logarithms, at forty times the time.
            tail = third * third * third
            amps = np.where(reverse, -i_s * (1 + tail), amps)
            slope = np.where(reverse, 3 * i_s * tail / v, slope)
    return Branch(amps + gmin * v, slope + gmin)


def breakdown(v: FloatArray, i_s: FloatArray, knee: FloatArray, nvt: FloatArray) -> Branch:
    """What the avalanche adds beyond the knee: −Is·exp(−(knee + v)/(n·Vt)) (SPICE).

    Args:
        v: junction volts, (junctions, samples).
        i_s: saturation current, A.
        knee: where the avalanche begins, V.
        nvt: n·Vt, V.

    Returns:
        Current in A and slope in S, shape of ``v``.
    """
    with np.errstate(over="ignore", invalid="ignore"):
        exp = np.where(v < -knee, np.exp(np.clip(-(knee + v) / nvt, -_LARGEST_EXPONENT, 80.0)), 0.0)
    return Branch(-i_s * exp, i_s * exp / nvt)


class Transistor(NamedTuple):
    """Collector and base currents with their slopes over Vbe and Vbc."""

    i_c: FloatArray
    i_b: FloatArray
    ic_vbe: FloatArray
    ic_vbc: FloatArray
    ib_vbe: FloatArray
    ib_vbc: FloatArray


@dataclass(frozen=True)
class BjtArrays:
    """Parameters of all transistors of a circuit, each of shape (transistors, samples or 1)."""

    i_s: FloatArray
    b_f: FloatArray
    b_r: FloatArray
    nvt_f: FloatArray
    nvt_r: FloatArray
    inv_vaf: FloatArray


def bjt_at(model: BjtModel, celsius: float) -> tuple[FloatArray, FloatArray, FloatArray]:
    """IS, BF and BR at temperature (SPICE's laws).

    Args:
        model: the transistor, its IS in A.
        celsius: junction temperature, °C.

    Returns:
        IS in A, BF, BR.
    """
    ratio = (celsius + ZERO_C) / (model.nominal_c + ZERO_C)
    factor = np.exp((ratio - 1) * model.e_g / thermal_voltage(celsius) + model.x_ti * np.log(ratio))
    gain = ratio**model.x_tb
    return (np.asarray(model.i_s) * factor, np.asarray(model.b_f) * gain, np.asarray(model.b_r) * gain)


def transistor(v_be: FloatArray, v_bc: FloatArray, p: BjtArrays, gmin: float) -> Transistor:
    """Ebers-Moll in transport form with the forward Early effect.

    Ic = (Ibe' − Ibc')·(1 − Vbc/Vaf) − Ibc'/Br, Ib = Ibe'/Bf + Ibc'/Br, where Ibe' and Ibc' are the
    two junctions' transport currents (Ebers and Moll 1954; SPICE's form).

    Args:
        v_be, v_bc: junction volts, (transistors, samples).
        p: parameters at temperature.
        gmin: conductance across each junction, S.

    Returns:
        Collector and base currents in A and their slopes in S, shape of ``v_be``.
    """
    be = junction(v_be, p.i_s, p.nvt_f, gmin)
    bc = junction(v_bc, p.i_s, p.nvt_r, gmin)
    early = 1.0 - v_bc * p.inv_vaf
    carried = be.amps - bc.amps
    return Transistor(
        i_c=carried * early - bc.amps / p.b_r,
        i_b=be.amps / p.b_f + bc.amps / p.b_r,
        ic_vbe=be.siemens * early,
        ic_vbc=-bc.siemens * early - carried * p.inv_vaf - bc.siemens / p.b_r,
        ib_vbe=be.siemens / p.b_f,
        ib_vbc=bc.siemens / p.b_r,
    )


# Smoothing of the behavioural parts' corners, V: small beside any drop on a bench.
SMOOTH_V = 1e-3
# Slope with which a regulator holds its output, Ω.
REGULATOR_OHM = 0.01


def _smooth_min(a: FloatArray, b: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Rounded min(a, b) and its slope over ``a`` (the slope over ``b`` is one minus that)."""
    gap = np.sqrt((a - b) ** 2 + SMOOTH_V**2)
    return (a + b - gap) / 2, (1 - (a - b) / gap) / 2


def _soft_positive(a: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Rounded max(a, 0), falling off exponentially below zero, and its slope."""
    tail = np.exp(-np.minimum(np.abs(a) / SMOOTH_V, _LARGEST_EXPONENT))
    value = np.maximum(a, 0.0) + SMOOTH_V * np.log1p(tail)
    return value, np.where(a > 0, 1.0, tail) / (1.0 + tail)


def regulator(
    v_in: FloatArray, v_out: FloatArray, volts: FloatArray, dropout: FloatArray, limit: FloatArray
) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Current from input to output and its slopes over Vin and Vout, both against ground.

    i = limit·tanh(max(min(Vset, Vin − dropout) − Vout, 0) / (limit·10 mΩ)): behavioural, our own.

    Args:
        v_in, v_out: volts against ground, (regulators, samples).
        volts: what it holds, V.
        dropout: what it keeps at least, V.
        limit: its current limit, A.

    Returns:
        Current in A, its slopes over Vin and over Vout in S, shape of ``v_in``.
    """
    target, d_set = _smooth_min(np.broadcast_to(volts, v_in.shape), v_in - dropout)
    error, d_error = _soft_positive(target - v_out)
    reach = np.tanh(error / (limit * REGULATOR_OHM))
    slope = (1 - reach**2) / REGULATOR_OHM * d_error
    return limit * reach, slope * (1 - d_set), -slope


def quiescent(v_in: FloatArray, amps: FloatArray) -> Branch:
    """A regulator's own current to ground: full above about a volt, none at zero.

    Args:
        v_in: volts against ground, (regulators, samples).
        amps: its own current, A.

    Returns:
        Current in A and slope in S, shape of ``v_in``.
    """
    reach = np.tanh(v_in)
    return Branch(amps * reach, amps * (1 - reach**2))


def current_source(v: FloatArray, amps: FloatArray, dropout: FloatArray) -> Branch:
    """A two-terminal current source: amps·tanh(3·max(v, 0)/dropout), 99.5 % at its dropout.

    The rounded corner is shifted to pass through zero, so that the part never gives power.

    Args:
        v: volts across it, (sources, samples).
        amps: what it holds, A.
        dropout: what it keeps at least, V.

    Returns:
        Current in A and slope in S, shape of ``v``.
    """
    head, d_head = _soft_positive(v)
    reach = np.tanh(3 * (head - SMOOTH_V * np.log(2.0)) / dropout)
    return Branch(amps * reach + GMIN * v, amps * 3 / dropout * (1 - reach**2) * d_head + GMIN)
