"""Circuits worked out as the app does, and what they come to, by id."""

from swapglow.core.circuits import CIRCUITS
from swapglow.core.quantities import Input


def worked(kind, chosen="", **typed):
    """A circuit of these texts, worked out with an option chosen."""
    k = CIRCUITS[kind]
    return k.work(k.read({name: Input(str(text)) for name, text in typed.items()}), chosen)


def figure(result, id_):
    """A figure."""
    return next(f for f in result.figures if f.id == id_)


def option(result, id_, number=""):
    """What may be done; the number that its label names."""
    found = next(o for o in result.options if o.id == id_)
    assert number in found.label
    return found


def finding(result, id_, number=""):
    """A judgement, None for none; the number that it names."""
    found = next((f for f in result.findings if f.id == id_), None)
    assert found is None or number in found.message, found
    return found
