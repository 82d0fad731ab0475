"""The bench day at the screen: by item, ticked where it is read, taken back."""

import re

import pytest
from playwright.sync_api import expect

from swapglow.records.models import Position
from tests.browser.conftest import axe

pytestmark = pytest.mark.django_db(transaction=True)


def test_a_thing_is_ticked_in_the_day_and_undone(demo, tab, served):
    tab.goto(f"{served}/day")
    ticks = tab.get_by_role("checkbox")
    ticks.first.wait_for(timeout=60_000)
    name = ticks.first.get_attribute("aria-label") or ""
    said = re.fullmatch(r"Done: (?P<work>.+), (?P<lamp>[^,]+(, left|, right)?)", name)
    assert said, name
    lamp = Position.objects.get(inputs__name=said["lamp"])
    assert axe(tab) == []
    tab.get_by_role("checkbox", name=name).click()
    expect(tab.get_by_role("checkbox", name=name)).to_have_count(0)
    kept = {k: s["done"] for k, s in Position.objects.get(pk=lamp.pk).inputs["steps"].items() if k.startswith("day-")}
    assert list(kept.values()) == [True]
    tab.get_by_role("status").get_by_role("button", name="Undo").click()
    expect(tab.get_by_role("checkbox", name=name)).to_have_count(1)
    assert Position.objects.get(pk=lamp.pk).inputs["steps"] == lamp.inputs["steps"]


def test_two_hours_are_on_two_screens(demo, tab, served):
    tab.goto(f"{served}/day")
    tab.get_by_role("radio", name="2 h").check(force=True)
    expect(tab.get_by_text(re.compile("things, on .* lamps: 1[0-2]. min of hands"))).to_be_visible(timeout=60_000)
    assert tab.evaluate("document.documentElement.scrollHeight") <= 2 * 800
