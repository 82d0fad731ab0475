"""Parts of our own netlists for the reference simulator.

A filament is I = V / (hot ohms · max((V/Vr)^0.45, 0.1)), the handbook's V^0.55 with a cold tenth (from memory), written
as a behavioural source; diodes by their models' own figures.
"""

from swapglow.core.parts.led import catalogue
from swapglow.core.parts.rectifier import rectifier

TEMPERATURE = ".options temp=25 tnom=25"


def filament(name, a, b, volts, amps, many=1):
    v = f"abs(v({a},{b}))"
    return f"b{name} {a} {b} i = {many}*v({a},{b})/({volts / amps}*max(pow({v}/{volts},0.45),0.1))"


def diode(name, a, b, model, area=1):
    return f"d{name} {a} {b} m{name} area={area}\n.model m{name} d(is={float(model[0])} n={model[1]} rs={model[2]})"


def led_model(id_):
    led = catalogue()[id_]
    junction = led.junction(led.vf_typ)
    return junction.i_s, junction.n, junction.r_s


def silicon(id_):
    chain = rectifier(id_).chain(1, 25.0)
    return chain.i_s, chain.n, chain.r_s


def deck(*lines):
    return "\n".join(["* ours", TEMPERATURE, *lines, ".end"]) + "\n"
