"""What was fitted when a reading was taken: a reading is a fact about that circuit, and of no other."""

from dataclasses import dataclass, fields, replace

from swapglow.core.analysis.sizing import size
from swapglow.core.design.position import Position
from swapglow.core.parts.led import catalogue
from swapglow.core.quantities import FARAD, OHM, Unit, show

_SAID: dict[str, str] = {
    "led": "{} was fitted, now {}",
    "module": "another ready-made lamp was fitted",
    "in_series": "{} LEDs stood in series, now {}",
    "branches": "{} strings stood side by side, now {}",
    "ohm": "{} was fitted, now {}",
    "shunt": "{} stood across it, now {}",
    "rectification": "it was rectified otherwise",
    "farad": "{} was fitted, now {}",
    "regulator": "another regulator was fitted",
}
_UNITS: dict[str, Unit] = {"ohm": OHM, "shunt": OHM, "farad": FARAD}
_NONE = "none"


@dataclass(frozen=True)
class Fitted:
    """What may be changed at a lamp, each as a text that is stored.

    Attributes:
        led, in_series, branches: which LED, and how many.
        module: which ready-made lamp, by its band and current.
        ohm: each resistor, Ω.
        shunt: what stands across it, Ω.
        rectification, farad, regulator: what stands before the string; the capacitor in F.
    """

    led: str
    module: str
    in_series: str
    branches: str
    ohm: str
    shunt: str
    rectification: str
    farad: str
    regulator: str

    @property
    def text(self) -> str:
        """As it is stored: "led=red-5-diffused;ohm=1200;..."."""
        return ";".join(f"{f.name}={getattr(self, f.name)}" for f in fields(self))


def fitted_in(position: Position) -> str:
    """What is fitted in a lamp as it stands.

    Args:
        position: the swap.

    Returns:
        The text that a reading keeps.
    """
    p, sizing = position, size(position)
    return Fitted(
        p.led.id,
        _NONE if p.module is None else f"{p.module.low:g}-{p.module.high:g}V {p.module.amps:g}A",
        str(p.in_series),
        str(p.branches),
        f"{sizing.each_ohm:.5g}",
        f"{p.shunt_ohm:.5g}" if p.shunt_ohm else _NONE,
        p.rectification.id if p.rail.supply.alternates else _NONE,
        f"{sizing.farads:.5g}" if sizing.farads else _NONE,
        p.regulator_id or _NONE,
    ).text


def since_changed(then: str, now: str) -> str:
    """What was changed since a reading was taken.

    Args:
        then: what was fitted then, as stored; "" where nobody noted it.
        now: what is fitted now.

    Returns:
        The first difference in words; "" where there is none.
    """
    if not then or then == now:
        return ""
    before, after = _parts(then), _parts(now)
    for name, said in _SAID.items():
        a, b = before.get(name), after.get(name)
        if a is not None and b is not None and a != b:
            return said.format(_word(name, a), _word(name, b))
    return ""


def as_it_stood(position: Position, then: str) -> Position | None:
    """A lamp as it stood when a reading was taken.

    Args:
        position: as it stands now.
        then: what was fitted then, as stored.

    Returns:
        The same place with what was in it; None where that was a ready-made lamp, or an LED that is known no more.
    """
    was = _parts(then)
    led = position.led if was.get("led") == position.led.id else catalogue().get(was.get("led", ""))
    if led is None or was.get("module") != _NONE or position.module is not None:
        return None
    try:
        return replace(
            position.with_resistor(float(was["ohm"])),
            led=led,
            in_series=int(was["in_series"]),
            branches=int(was["branches"]),
            shunt_ohm=None if was["shunt"] == _NONE else float(was["shunt"]),
            rectification_id=None if was["rectification"] == _NONE else was["rectification"],
            capacitor_f=None if was["farad"] == _NONE else float(was["farad"]),
            regulator_id="" if was["regulator"] == _NONE else was["regulator"],
        )
    except (KeyError, ValueError):
        # Written by a version that noted less, or by another hand.
        return None


def _parts(text: str) -> dict[str, str]:
    return dict(part.split("=", 1) for part in text.split(";") if "=" in part)


def _word(name: str, value: str) -> str:
    if name in _UNITS and value != _NONE:
        return show(float(value), _UNITS[name])
    if name == "led":
        known = catalogue().get(value)
        return value if known is None else known.label
    return "nothing" if value == _NONE else value
