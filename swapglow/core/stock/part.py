"""A part in the drawer: what it is, how much of it is there, and what it costs."""

from dataclasses import dataclass
from typing import Literal

PartKind = Literal["resistor", "led", "lamp", "module", "regulator", "diode", "capacitor", "driver", "sundry"]
KINDS: dict[PartKind, str] = {
    "resistor": "Resistors",
    "led": "LEDs",
    "lamp": "Filament lamps",
    "module": "Ready-made LED lamps",
    "regulator": "Regulators",
    "diode": "Diodes and bridges",
    "capacitor": "Capacitors",
    "driver": "Drivers",
    "sundry": "Sleeves, clips, holders",
}
Level = Literal["full", "low", "empty"]
LEVELS: dict[Level, str] = {"full": "Full", "low": "Low", "empty": "Empty"}


@dataclass(frozen=True)
class Part:
    """One compartment.

    Attributes:
        id: the record's own.
        kind, label: what it is.
        ohm, farad, volts: value of a resistor or capacitor, and what it stands; None where it is not known.
        tolerance: 0.05 for 5 %; None where it is not known.
        rating_w: W; None where it is not known.
        of: its id in the catalogue, "" for none.
        kept_in: where it lies.
        said: how full it is, as people keep it; a count goes before it.
        count: how many are there; None where nobody counts.
        least: from how many on it is low.
        pack: how many come in one.
        price: of a pack, in the shop's own money; None where it is not known.
        on_order: how many are on their way.
    """

    id: str
    kind: PartKind
    label: str
    ohm: float | None = None
    farad: float | None = None
    volts: float | None = None
    tolerance: float | None = None
    rating_w: float | None = None
    of: str = ""
    kept_in: str = ""
    said: Level = "full"
    count: int | None = None
    least: int = 0
    pack: int = 1
    price: float | None = None
    on_order: int = 0

    @property
    def level(self) -> Level:
        """How full it is: by the count where there is one."""
        if self.count is None:
            return self.said
        return "empty" if self.count == 0 else "low" if self.count <= self.least else "full"

    @property
    def there(self) -> bool:
        """Whether any is left."""
        return self.level != "empty"


def same_ohms(one: float, other: float) -> bool:
    """Whether two resistances are printed alike, to six figures.

    Args:
        one, other: Ω.

    Returns:
        True where they are.
    """
    return f"{one:.6g}" == f"{other:.6g}"
