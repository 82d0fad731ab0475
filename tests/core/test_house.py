"""What the house promises of itself: a kind is named in its own module, functions say what they take."""

import ast
import inspect
import pkgutil
import re
from functools import cache
from importlib import import_module
from pathlib import Path

import numpy as np
import pytest

import swapglow.core
from swapglow.core.drivers import DRIVERS
from swapglow.core.network.cases import Batch, Block
from swapglow.core.supplies import SUPPLIES

ROOT = Path(__file__).resolve().parents[2]
# The demo is data: positions on every kind there is. Migrations speak of the past.
EXEMPT = ("swapglow/records/demo/", "swapglow/records/migrations/")
# Other things of the same name: the danger of a vehicle's battery at take-in, the winding that a circuit hangs on.
HOMONYMS = {("swapglow/core/intake/hazards.py", "vehicle"), ("swapglow/core/circuits/kinds/hum.py", "winding")}


def sources(folder, *suffixes):
    for path in sorted((ROOT / folder).rglob("*")):
        name = path.relative_to(ROOT).as_posix()
        if path.suffix in suffixes and ".test." not in name and not name.startswith(EXEMPT):
            yield name, path.read_text()


@cache
def nodes():
    """What could name a kind in the program: constants and imports, with their file."""
    return [
        (name, node)
        for name, text in sources("swapglow", ".py")
        for node in ast.walk(ast.parse(text))
        if isinstance(node, ast.Constant | ast.ImportFrom)
    ]


@pytest.mark.parametrize("kinds", [SUPPLIES, DRIVERS], ids=["supplies", "drivers"])
def test_a_kind_is_named_in_its_own_module_only(kinds):
    named = [
        (name, node.lineno, node.value)
        for name, node in nodes()
        if isinstance(node, ast.Constant)
        and node.value in kinds
        and not name.endswith(f"/{node.value}.py")
        and (name, node.value) not in HOMONYMS
    ]
    assert named == []


@pytest.mark.parametrize("kinds", [SUPPLIES, DRIVERS], ids=["supplies", "drivers"])
def test_nobody_imports_a_kind(kinds):
    homes = {type(kind).__module__ for kind in kinds.values()}
    imported = [
        (name, node.lineno, node.module)
        for name, node in nodes()
        if isinstance(node, ast.ImportFrom) and node.module in homes
    ]
    assert imported == []


@pytest.mark.parametrize("kinds", [SUPPLIES, DRIVERS], ids=["supplies", "drivers"])
def test_the_front_end_names_no_kind(kinds):
    named = [
        (name, kind)
        for name, text in sources("frontend/src", ".ts", ".tsx")
        if "/test/" not in name and not name.endswith("schema.d.ts")
        for kind in kinds
        if f'"{kind}"' in text
    ]
    assert named == []


def documented():
    """Public functions and methods of the core that take more than one argument."""
    for found in pkgutil.walk_packages(swapglow.core.__path__, "swapglow.core."):
        module = import_module(found.name)
        for owner in (module, *(c for c in vars(module).values() if inspect.isclass(c))):
            if inspect.isclass(owner) and (owner.__module__ != module.__name__ or owner.__name__[0] == "_"):
                continue
            for name, thing in vars(owner).items():
                function = getattr(thing, "__func__", thing)
                if name[0] != "_" and inspect.isfunction(function) and function.__module__ == module.__name__:
                    yield owner, function


def said(owner, function):
    """The documentation of a function, or of what it overrides."""
    classes = inspect.getmro(owner) if inspect.isclass(owner) else (owner,)
    texts = [inspect.getdoc(vars(c).get(function.__name__)) or "" for c in classes]
    return next((t for t in texts if "Args:" in t), texts[0])


def test_functions_say_what_they_take_and_give():
    silent = []
    for owner, function in documented():
        signature = inspect.signature(function)
        names = [n for n in signature.parameters if n not in ("self", "cls")]
        if len(names) < 2:
            continue
        text = said(owner, function)
        told = text.partition("Args:")[2]
        gives = signature.return_annotation not in (None, "None", inspect.Signature.empty)
        # A line of its own, or one shared with others: "low, high: ...".
        missing = [n for n in names if not re.search(rf"^\s+[\w*, ]*\b{n}\b[\w*, ]*:", told, re.M)]
        if gives and "Returns:" not in text and "Yields:" not in text:
            missing.append("what comes back")
        if missing:
            silent.append((function.__module__, function.__qualname__, missing))
    assert silent == []


def blocks():
    """Two blocks: two corners of rail and LED, and three places along a rule at usual and most volts."""
    corners = Block(
        {"rail": ("low", "high"), "led": ("least", "most")},
        rail=np.array([[9.0, 9.0], [15.0, 15.0]]),
        vf=np.array([[1.8, 2.2], [1.8, 2.2]]),
        ohms=np.full((2, 2), 680.0),
    )
    rule = Block(
        {"curve": ("usual", "most"), "place": ("0", "1", "2")},
        rail=np.array([[12.0] * 3, [15.0] * 3]),
        vf=np.full((2, 3), 2.0),
        ohms=np.array([[470.0, 680.0, 1000.0]] * 2),
        source=np.array([[1.0] * 3, [2.0] * 3]),
    )
    return Batch({"corners": corners, "rule": rule}, drop=0.3, source=7.0)


def test_a_batch_gives_back_cases_by_name_and_axis():
    batch = blocks()
    cases = batch.cases()
    assert batch.samples == cases.samples == 10
    assert list(cases.rail[batch.index("corners", rail="high")]) == [15.0, 15.0]
    assert list(cases.vf[batch.index("corners", led="most")]) == [2.2, 2.2]
    assert list(cases.vf[batch.index("corners", rail="low", led="least")]) == [1.8]
    assert list(cases.ohms[batch.index("rule", place="2")]) == [1000.0, 1000.0]
    assert list(cases.source[batch.index("rule", curve="most")]) == [2.0, 2.0, 2.0]
    # A block that does not say takes the batch's own.
    assert set(cases.source[batch.index("corners")]) == {7.0}
    assert cases.drop == 0.3
    assert batch.of(cases.ohms, "rule").tolist() == [[470.0, 680.0, 1000.0]] * 2
    with pytest.raises(KeyError, match="no axis 'led'"):
        batch.index("rule", led="most")
    with pytest.raises(ValueError, match="not in tuple"):
        batch.index("corners", rail="usual")


def test_where_a_block_is_put_does_not_matter():
    there = blocks()
    turned = Batch(dict(reversed(list(there._blocks.items()))), drop=0.3, source=7.0)
    for name, at in (("corners", {"rail": "high"}), ("rule", {"curve": "usual", "place": "1"})):
        assert list(there.cases().ohms[there.index(name, **at)]) == list(turned.cases().ohms[turned.index(name, **at)])
        assert list(there.cases().rail[there.index(name, **at)]) == list(turned.cases().rail[turned.index(name, **at)])
