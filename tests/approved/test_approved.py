"""The demo's lamps as they are reported today, line by line, against what was approved."""

import difflib
import os
import re

import pytest

from swapglow.records import demo
from swapglow.records.demo.cart import CART
from swapglow.records.demo.drivers import DRIVERS
from swapglow.records.demo.generator import GENERATOR
from swapglow.records.demo.observatory import EQUIPMENT
from swapglow.records.demo.supplies import SUPPLIES
from swapglow.records.models import Equipment
from tests.api.page import Bench
from tests.approved.lines import approved, lines

APPROVE = bool(os.environ.get("APPROVE"))
KEY = re.compile(r"[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}")


def said(bench: Bench, e: Equipment) -> list[str]:
    """Everything that is worked out for an item's rails and lamps; keys are told by their order."""
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
    keys: dict[str, str] = {}
    return [KEY.sub(lambda m: keys.setdefault(m[0], f"key {len(keys) + 1}"), line) for line in out]


ITEMS = [spec["name"] for spec in (*EQUIPMENT, *SUPPLIES, *DRIVERS, *CART, *GENERATOR)]


@pytest.fixture(scope="module", autouse=True)
def loaded(begun):
    with begun():
        demo.load()


@pytest.mark.django_db
@pytest.mark.parametrize("name", ITEMS)
def test_the_demos_lamps_are_reported_as_they_were_approved(name):
    now, path = said(Bench(), Equipment.objects.get(inputs__name=name)), approved(name)
    if APPROVE:
        path.write_text("\n".join(now) + "\n")
    was = path.read_text().splitlines() if path.exists() else []
    assert now == was, "\n".join(difflib.unified_diff(was, now, "approved", "now", n=0, lineterm=""))
