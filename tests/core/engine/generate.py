"""Lamp circuits from a seed: the kinds a bench meets, with values drawn at random."""

import numpy as np

from swapglow.core.engine.netlist import (
    Bjt,
    BjtModel,
    Capacitor,
    Circuit,
    CurrentSource,
    Dc,
    Diode,
    DiodeModel,
    Resistor,
    Sine,
    Switch,
    SwitchModel,
    VoltageSource,
)


def led(rng) -> DiodeModel:
    """An LED of some forward voltage, 1.7 to 3.4 V at 10 mA.

    The emission coefficient rises with it, as in real parts; and the reference simulator lifts a
    saturation current under 1e-28 A to that, which is then another diode.
    """
    vf = rng.uniform(1.7, 3.4)
    n = vf * rng.uniform(0.95, 1.2)
    return DiodeModel(i_s=0.01 / np.expm1((vf - 0.1) / (n * 0.02585)), n=n, r_s=rng.uniform(2, 20))


def small_diode(rng) -> DiodeModel:
    bv = float(rng.uniform(60, 120)) if rng.random() < 0.5 else np.inf
    return DiodeModel(i_s=10 ** rng.uniform(-10, -8), n=rng.uniform(1.5, 2), r_s=rng.uniform(0.02, 1), bv=bv)


def ohms(rng, low=47.0, high=22e3) -> float:
    return float(np.exp(rng.uniform(np.log(low), np.log(high))))


def string(rng, top, bottom, tag, count=None):
    """A resistor and LEDs in series from one node to another."""
    count = count or int(rng.integers(1, 5))
    parts = [Resistor(f"r{tag}", top, f"s{tag}0", ohms(rng))]
    for k in range(count):
        after = bottom if k == count - 1 else f"s{tag}{k + 1}"
        parts.append(Diode(f"d{tag}{k}", f"s{tag}{k}", after, led(rng)))
    return parts


def strings(rng):
    rail = rng.uniform(3, 40)
    parts = [VoltageSource("v1", "feed", "0", Dc(rail)), Resistor("rs", "feed", "a", ohms(rng, 0.5, 50))]
    for k in range(int(rng.integers(1, 4))):
        parts += string(rng, "a", "0", f"{k}x")
    return parts


def bleed(rng):
    """A switch that is open and a keep-warm resistor across it."""
    parts = [VoltageSource("v1", "feed", "0", Dc(rng.uniform(4, 30))), *string(rng, "feed", "low", "x")]
    return [
        *parts,
        Resistor("rk", "low", "0", ohms(rng, 100, 10e3)),
        Resistor("rsh", "feed", "low", ohms(rng, 220, 4e3)),
    ]


def divider(rng):
    parts = [VoltageSource("v1", "feed", "0", Dc(rng.uniform(8, 40)))]
    parts += [Resistor("ra", "feed", "m", ohms(rng, 100, 2e3)), Resistor("rb", "m", "0", ohms(rng, 100, 2e3))]
    return [*parts, *string(rng, "m", "0", "x", 1), CurrentSource("i1", "m", "0", Dc(rng.uniform(0, 2e-3)))]


def transistor(rng):
    """Driven by one transistor or a Darlington, to ground or from the rail."""
    rail = rng.uniform(5, 30)
    npn = BjtModel(i_s=10 ** rng.uniform(-15, -13), b_f=rng.uniform(50, 300), b_r=rng.uniform(1, 5))
    parts = [VoltageSource("v1", "feed", "0", Dc(rail))]
    level = rng.uniform(2.5, 5) if rng.random() < 0.7 else 0.0
    if rng.random() < 0.3:
        pnp = BjtModel(-1, npn.i_s, npn.b_f, npn.b_r)
        parts += [Bjt("q1", "high", "b", "feed", pnp), Resistor("rbase", "b", "0", ohms(rng, 2e3, 50e3))]
        return [*parts, *string(rng, "high", "0", "x", 1)]
    parts += [VoltageSource("v2", "in", "0", Dc(level)), Resistor("rbase", "in", "b", ohms(rng, 2e3, 50e3))]
    parts += string(rng, "feed", "c", "x", int(rng.integers(1, 3)))
    parts.append(Resistor("rk", "c", "0", ohms(rng, 1e3, 100e3)))
    if rng.random() < 0.4:
        return [*parts, Bjt("q1", "c", "b", "e", npn), Bjt("q2", "c", "e", "0", npn)]
    early = BjtModel(1, npn.i_s, npn.b_f, npn.b_r, v_af=80.0) if rng.random() < 0.3 else npn
    return [*parts, Bjt("q1", "c", "b", "0", early)]


def bridge(rng):
    """A DC feed of either polarity through a bridge."""
    d = small_diode(rng)
    parts = [VoltageSource("v1", "p", "m", Dc(rng.uniform(4, 24) * rng.choice([-1, 1])))]
    parts += [Diode("db1", "p", "plus", d), Diode("db2", "m", "plus", d)]
    parts += [Diode("db3", "0", "p", d), Diode("db4", "0", "m", d)]
    return [*parts, *string(rng, "plus", "0", "x", int(rng.integers(1, 4)))]


def back_to_back(rng):
    """An LED and an inverse diode or a second LED, on either polarity."""
    parts = [VoltageSource("v1", "feed", "0", Dc(rng.uniform(-20, 20))), Resistor("r1", "feed", "a", ohms(rng))]
    other = led(rng) if rng.random() < 0.5 else small_diode(rng)
    return [*parts, Diode("d1", "a", "0", led(rng)), Diode("d2", "0", "a", other)]


def contact(rng):
    """A contact that follows a control voltage."""
    model = SwitchModel(r_on=0.1, r_off=1e7, threshold=2.0)
    parts = [VoltageSource("v1", "feed", "0", Dc(rng.uniform(5, 24))), *string(rng, "feed", "low", "x", 2)]
    parts += [VoltageSource("v2", "in", "0", Dc(rng.choice([0.5, 4.0]))), Resistor("rin", "in", "0", 1e4)]
    return [*parts, Switch("s1", "low", "0", "in", "0", model)]


KINDS = (strings, bleed, divider, transistor, bridge, back_to_back, contact)


def circuit(seed: int) -> Circuit:
    """One circuit at DC."""
    rng = np.random.default_rng(seed)
    kind = KINDS[seed % len(KINDS)]
    celsius = float(rng.choice([27.0, 0.0, 60.0]))
    return Circuit(tuple(kind(rng)), celsius, f"{kind.__name__} {seed}")


def leaky(seed: int) -> Circuit:
    """Diodes every way round, some resistors, one feed: many a node is held by leakage alone."""
    rng = np.random.default_rng(seed)
    names = ["0", "s", *(f"n{k}" for k in range(int(rng.integers(2, 6))))]
    parts = [VoltageSource("v1", "s", "0", Dc(rng.uniform(1, 60) * rng.choice([-1, 1])))]
    for node in names[2:] * 2:
        other = str(rng.choice([n for n in names if n != node]))
        if rng.random() < 0.7:
            ends = (node, other) if rng.random() < 0.5 else (other, node)
            n = rng.uniform(1, 2.5)
            model = DiodeModel(i_s=10 ** rng.uniform(-20, -8), n=n, r_s=rng.uniform(0.05, 5))
            parts.append(Diode(f"d{len(parts)}", *ends, model))
        else:
            parts.append(Resistor(f"r{len(parts)}", node, other, 10 ** rng.uniform(1, 6)))
    return Circuit(tuple(parts), title=f"leaky {seed}")


def rectifier(seed: int) -> Circuit:
    """A winding, half-wave or bridge, with or without a reservoir capacitor, and a string."""
    rng = np.random.default_rng(1000 + seed)
    d = DiodeModel(i_s=10 ** rng.uniform(-10, -8), n=rng.uniform(1.6, 2), r_s=rng.uniform(0.05, 0.5))
    parts = [VoltageSource("v1", "p", "m" if seed % 2 else "0", Sine(0, rng.uniform(9, 25), rng.choice([50.0, 60.0])))]
    parts.append(Resistor("rw", "p", "q", rng.uniform(2, 20)))
    if seed % 2:
        parts += [Diode("db1", "q", "plus", d), Diode("db2", "m", "plus", d)]
        parts += [Diode("db3", "0", "q", d), Diode("db4", "0", "m", d), Resistor("rg", "m", "0", 1e6)]
    else:
        parts.append(Diode("db1", "q", "plus", d))
    if seed % 3:
        parts.append(Capacitor("c1", "plus", "0", 10 ** rng.uniform(-5, -3.7)))
    return Circuit((*parts, *string(rng, "plus", "0", "x", int(rng.integers(1, 3)))), title=f"rectifier {seed}")
