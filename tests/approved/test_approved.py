"""The demo as it is reported today, line by line, against what was approved: lamps, circuits, dims, the whole bench."""

import difflib
import os
import re
from dataclasses import asdict

import pytest

from swapglow.inputs.equipment import FittedInput
from swapglow.records import demo, summaries
from swapglow.records.demo.cart import CART
from swapglow.records.demo.drivers import DRIVERS
from swapglow.records.demo.generator import GENERATOR
from swapglow.records.demo.observatory import EQUIPMENT
from swapglow.records.demo.supplies import SUPPLIES
from swapglow.records.models import Equipment
from swapglow.records.reports import circuit_answer
from tests.api.page import Bench
from tests.approved.lines import approved, lines

APPROVE = bool(os.environ.get("APPROVE"))
KEY = re.compile(r"[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}")


def said(bench: Bench, e: Equipment) -> list[str]:
    """Everything that is worked out for an item; keys are told by their order."""
    out: list[str] = []
    for rail in e.rails.all():
        out += lines(bench("GET", f"rails/{rail.pk}/budget")[1], f"{rail.input.name}, budget")
    for p in e.positions.all():
        for what, answer in (
            ("report", bench("POST", f"positions/{p.pk}/assess", {"changes": {}})),
            ("swaps", bench("GET", f"positions/{p.pk}/swaps")),
        ):
            status, found = answer
            assert status == 200, (p.input.name, what, found)
            out += lines(found, f"{p.input.name}, {what}")
    item = bench("GET", f"equipment/{e.pk}")[1]
    for what in ("answers", "dimming"):
        for key, found in item[what].items():
            out += lines(found, f"{key}, {what}")
    for key, circuit in e.input.fitted.items():
        out += with_each_option(key, circuit)
    for what in ("match", "row") if e.positions.count() > 1 else ():
        out += lines(bench("GET", f"equipment/{e.pk}/{what}")[1], what)
    return by_order(out)


def with_each_option(key: str, circuit: FittedInput) -> list[str]:
    """What each option of a circuit comes to once it is chosen: its line and what its figures are afterwards."""
    result = circuit_answer(circuit).result
    out = []
    for option in result.options if result is not None else ():
        then = circuit_answer(circuit.model_copy(update={"chosen": option.id})).result
        after = {f.id: asdict(f.after) for f in then.figures if f.after is not None}
        out += lines({"line": then.line, "after": after}, f"{key}, {option.id} chosen")
    return out


def by_order(told: list[str]) -> list[str]:
    """Keys that are made anew each time by the order in which they come."""
    keys: dict[str, str] = {}
    return [KEY.sub(lambda m: keys.setdefault(m[0], f"key {len(keys) + 1}"), line) for line in told]


def against_approved(now: list[str], name: str) -> None:
    """Fail with the difference, or approve it."""
    path = approved(name)
    now = "\n".join(now).splitlines()  # a circuit's text has lines of its own
    if APPROVE:
        path.write_text("\n".join(now) + "\n")
    was = path.read_text().splitlines() if path.exists() else []
    assert now == was, "\n".join(difflib.unified_diff(was, now, "approved", "now", n=0, lineterm=""))


ITEMS = [spec["name"] for spec in (*EQUIPMENT, *SUPPLIES, *DRIVERS, *CART, *GENERATOR)]


@pytest.fixture(scope="module", autouse=True)
def loaded(begun):
    with begun():
        demo.load()


@pytest.mark.django_db
@pytest.mark.parametrize("name", ITEMS)
def test_the_demos_items_are_reported_as_they_were_approved(name):
    against_approved(said(Bench(), Equipment.objects.get(inputs__name=name)), name)


@pytest.mark.django_db
def test_the_bench_is_planned_and_bought_for_as_it_was_approved():
    """A day that begins at a fixed time, what must be bought, and the drawer."""
    summaries.mark_outdated()
    assert summaries.refresh()
    bench, out = Bench(), []
    for what in ("day?begins=2026-12-07%2009:00&hours=6", "day?begins=2026-12-07%2009:00&hours=1", "buying", "drawer"):
        status, found = bench("GET", what)
        assert status == 200, found
        out += lines(found, what.partition("?begins")[0])
    against_approved(by_order(out), "whole bench")
