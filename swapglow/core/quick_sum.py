"""The quick sum: what its rail's text says. All else is a lamp's own report, so that both say the same."""

import re

from swapglow.core.quantities import VOLT, InputError, show
from swapglow.core.quantities.inputs import read_quantity
from swapglow.core.supplies import SUPPLIES
from swapglow.core.supplies.rail import MOST_AC_V, MOST_DC_V
from swapglow.core.supplies.waveform import Waveform

_MAINS = re.compile(r"(?i)\b(mains|line|house ?current|wall)\b")


def quick_rail(text: str) -> str:
    """The kind of supply that a quick sum's text speaks of.

    Args:
        text: as typed: "24V", "12.6Vac", "mains".

    Returns:
        The kind's id: a steady rail, or a winding where the text says AC.

    Raises:
        InputError: ``usual``: it is mains or high tension, or volts that could be either.
    """
    if _MAINS.search(text):
        raise InputError(
            "usual",
            "Mains is no quick sum: qualified people only. Keep it as equipment, mark it as mains, and no "
            "live reading is asked.",
        )
    read = read_quantity("usual", text, VOLT, above=0)
    if read.kind == "ac":
        if read.high > MOST_AC_V:
            raise InputError(
                "usual",
                f"{show(read.high, VOLT)} AC is mains work: over {MOST_AC_V:g} V AC nothing is summed here. "
                "Qualified people only.",
            )
        return next(k.id for k in SUPPLIES.values() if k.waveform is Waveform.SINE and k.sags)
    if read.kind is None and read.high > MOST_AC_V:
        raise InputError("usual", f'"{text}" of what? Write {read.usual:g}Vdc, or {read.usual:g}Vac.')
    if read.high > MOST_DC_V:
        raise InputError(
            "usual",
            f"{show(read.high, VOLT)} DC is high tension: over {MOST_DC_V:g} V nothing is summed here. "
            "Qualified people only.",
        )
    return SUPPLIES.usual.id
