"""The fitted circuit drawn, with the symbols of IEC 60617.

The circuit is that of the SPICE text. Two wires are joined only where a dot says so.
"""

from dataclasses import replace

from swapglow.core.analysis.original_lamp import in_its_place
from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.spice_text import fitted_circuit
from swapglow.core.design.position import Position
from swapglow.core.drawing.drawing import Described, Drawing, draw, symbol_of
from swapglow.core.drawing.svg import svg
from swapglow.core.drawing.symbols import Symbol
from swapglow.core.engine.netlist import Capacitor, Diode, Element, Resistor, VoltageSource
from swapglow.core.network.builder import build
from swapglow.core.network.cases import Cases
from swapglow.core.network.sources import sine
from swapglow.core.quantities import AMPERE, FARAD, OHM, VOLT, show

# What each part of the circuit is called, and the panel in which it is changed, by how its name begins; the longest
# fits first.
_NAMES = {
    "Vrail": ("feed", "rail"),
    "Rsource": ("behind the feed", "rail"),
    "Rdropper": ("dropping resistor", "driver"),
    "Rleft": ("lamp left in", "driver"),
    "Rold": ("old lamp", "lamp"),
    "Rload": ("other load", "rail"),
    "Dload": ("other load", "rail"),
    "Vdload": ("other load", "rail"),
    "Idload": ("other load", "rail"),
    "Vdriver": ("driver", "driver"),
    "Rshunt": ("across", "resistor"),
    "Rinside": ("inside", "led"),
    "Vkept": ("regulator keeps", "resistor"),
    "Iregulator": ("regulator's own", "resistor"),
    "Rbeside": ("string beside", "led"),
    "Dbeside": ("string beside", "led"),
    "Dblocked": ("string beside", "led"),
    "Dseries": ("in series", "resistor"),
    "Dbridge": ("bridge", "rectification"),
    "Drectifier": ("rectifier", "rectification"),
    "Rinsulation": ("insulation", "rectification"),
    "C": ("capacitor", "rectification"),
    "Dinverse": ("across LED", "rectification"),
    "Dturned": ("back to back", "led"),
    "Dinner": ("inside", "led"),
    "Vregulator": ("regulator", "resistor"),
    "Iown": ("regulator's own", "resistor"),
    "Dregulator": ("regulator", "resistor"),
    "Down": ("regulator's own", "resistor"),
    "Vheld": ("inside", "led"),
    "Iheld": ("inside", "led"),
    "Dheld": ("inside", "led"),
    "R": ("resistor", "resistor"),
    "D": ("LED", "led"),
}
# Parts in the way of the lamp's current, besides its resistors and LEDs.
_WAY = (
    *("Rsource", "Rdropper", "Rleft", "Vdriver", "Rold"),
    *("Drectifier", "Vkept", "Vregulator", "Rinside", "Dseries", "Dinner"),
)
# The old lamp's element, and an ohm value where none is drawn.
_OLD = "Rold"
_ANY_OHM = 100.0
# A longer string is drawn as one junction, with its count.
_MOST_APART = 4
# So many steps across fit a page in letters that can be read there.
_FIT_A_PAGE = 7
# A winding's insulation is there for the arithmetic alone: nobody fits it.
_NOT_DRAWN = ("Rinsulation",)
# LEDs give light; other diodes do not.
_LIGHTS = ("Dbeside", "Dturned", "Dload")


def schematic(position: Position) -> str:
    """The fitted circuit as SVG text.

    Args:
        position: the swap.

    Returns:
        SVG; every part and node bears its name in the circuit as ``data-part`` and ``data-node``.

    Raises:
        NotConverged: its filaments have no rest.
        CannotBuild: a part of it is not built on its waveform.
    """
    apart = drawing(position)
    wide = max(n.across for n in apart.nodes) > _FIT_A_PAGE
    return svg(drawing(position, folded=True) if wide and position.in_series > 1 else apart)


def drawing(position: Position, *, folded: bool = False) -> Drawing:
    """The fitted circuit drawn.

    Args:
        position: the swap.
        folded: whether its string is one symbol, however short.

    Returns:
        Its parts, each with the panel that it opens.

    Raises:
        NotConverged: its filaments have no rest.
        CannotBuild: a part of it is not built on its waveform.
    """
    sized = size(position)
    folded = folded or position.in_series > _MOST_APART
    circuit = fitted_circuit(position, sized.total_ohm, sized.farads, stacked=folded)
    shown_ = tuple(e for e in circuit.elements if e.name not in _NOT_DRAWN)
    return draw(replace(circuit, elements=shown_), lambda e: _described(e, position, folded), _of_the_way)


def old_drawing(position: Position) -> Drawing:
    """The circuit as it was, the old lamp in its place.

    Args:
        position: the swap.

    Returns:
        Its parts. Only what they are is drawn: nothing is solved.

    Raises:
        CannotBuild: a part of it is not built on its waveform.
    """
    p = in_its_place(position)
    cases = Cases(p.rail.volts[1], p.led.vf_typ, _ANY_OHM, p.drop_v)
    wave = sine(p.rail.peaks[1], p.rail.supply.hertz[1], folded=False) if p.rail.supply.alternates else None
    circuit = build(p, cases, wave=wave, lamp_in=Resistor(_OLD, "", "", _ANY_OHM)).circuit
    return draw(circuit, lambda e: _described(e, p, True), _of_the_way)


def _of_the_way(e: Element) -> bool:
    """Whether a part stands in the way from the feed through the LEDs and back."""
    return e.name.startswith(_WAY) or (e.name[0] in "RD" and e.name[1:].isdigit())


def _lights(e: Element) -> bool:
    digits = e.name[1:].isdigit()
    light = e.name.startswith(_LIGHTS) and not e.name.endswith(("forth", "back"))
    return isinstance(e, Diode) and (digits or light)


def _symbol(e: Element, position: Position) -> Symbol:
    if e.name == "Vrail":
        return "alternating" if position.rail.supply.alternates else "supply"
    if e.name.startswith(("Rleft", _OLD)):
        return "lamp"
    # A block that keeps some volts is a source in the netlist alone.
    return "led" if _lights(e) else "block" if isinstance(e, VoltageSource) else symbol_of(e)


def _described(e: Element, position: Position, folded: bool) -> Described:
    """What a part is, how large, and which panel it opens."""
    longest = max((k for k in _NAMES if e.name.startswith(k)), key=len)
    name, opens = _NAMES[longest]
    if longest in ("R", "D"):
        name = e.name if longest == "R" else f"LED {e.name[1:]}"
        if longest == "D" and position.in_series > 1 and (position.rail.supply.alternates or folded):
            name = f"{position.in_series} LEDs"
    return Described(_symbol(e, position), name, _value(e, position), opens, _pencil(e, position))


def _pencil(e: Element, position: Position) -> bool:
    """Whether what is written at it is assumed."""
    if e.name == "Vrail":
        return position.rail.usual.source.is_assumed
    return e.name == "Vdriver" and position.driver.drop.source.is_assumed


def _value(e: Element, position: Position) -> str:
    if e.name == _OLD:
        return "" if position.lamp is None else f"{show(position.lamp.volts, VOLT)} {show(position.lamp.amps, AMPERE)}"
    if e.name.startswith("Rleft"):
        return ""
    if isinstance(e, Resistor):
        return show(_one(e.ohms), OHM)
    if isinstance(e, Capacitor):
        return show(_one(e.farads), FARAD)
    if isinstance(e, VoltageSource) and e.name != "Vrail":
        return show(_one(e.wave.level), VOLT) if hasattr(e.wave, "level") else ""
    if e.name == "Vrail":
        return f"{show(position.rail.usual.value, VOLT)}{' AC' if position.rail.supply.alternates else ''}"
    return ""


def _one(value: object) -> float:
    return float(value)  # type: ignore[arg-type]  # one case: a plain number
