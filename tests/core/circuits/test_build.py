"""What is done at the bench for an option: against the netlists before and after it, element by element."""

import numpy as np
import pytest

from swapglow.core.circuits import CIRCUITS
from swapglow.core.engine.netlist import Capacitor, Diode, Resistor
from swapglow.core.quantities import Input, Source
from tests.core.circuits.results import worked
from tests.core.circuits.test_pictures import EVERY, NO_WIRING


def sizes(kind, typed):
    """Each part one can hold, with its size: no wires, no paths that never conduct, no sources, no contacts."""
    wiring = kind.wired(kind.case(typed))
    found = {}
    for e in wiring.parts:
        if e.name in wiring.switches or e.name in wiring.modelled:
            continue
        if isinstance(e, Resistor) and np.min(e.ohms) > 0.1 and np.max(e.ohms) < 1e8 and e.name not in wiring.laws:
            found[e.name] = (float(np.min(e.ohms)), float(np.max(e.ohms)))
        elif isinstance(e, Capacitor):
            found[e.name] = float(np.max(e.farads))
        elif isinstance(e, Diode):
            found[e.name] = ""
    return found


def options():
    for name in CIRCUITS:
        if name not in NO_WIRING:
            yield from ((name, o.id) for o in worked(name, **EVERY[name]).options if o.changes)


@pytest.mark.parametrize(("name", "option"), options())
def test_every_part_that_an_option_changes_is_told_and_no_other(name, option):
    kind = CIRCUITS[name]
    typed = kind.read({k: Input(v, Source.MEASURED) for k, v in EVERY[name].items()})
    result = kind.work(typed, option)
    changes = next(o.changes for o in result.options if o.id == option)
    old, new = sizes(kind, typed), sizes(kind, typed.changed(changes))
    told = {b.id: b.done for b in result.build}
    for part in old.keys() | new.keys():
        was, becomes = old.get(part), new.get(part)
        if was is None:
            assert told.pop(part) == "fit"
        elif becomes is None:
            assert told.pop(part) == "remove"
        elif was != becomes and told.get(part):
            assert told.pop(part) == "change"
        elif was != becomes:
            # Three figures of it are the same, as they are written.
            assert np.allclose(was, becomes, rtol=5e-3)
    assert not [part for part in told if part in old or part in new]


def test_what_comes_out_comes_first_and_each_is_put_back():
    result = worked("hum", **EVERY["hum"])
    assert [b.done for b in result.build] == ["remove", "fit"]
    assert [b.back.split(":")[0] for b in result.build] == ["Fit again", "Remove"]


def test_a_circuit_that_nothing_is_done_to_has_nothing_to_build():
    assert worked("dropper", **EVERY["dropper"]).build == ()
