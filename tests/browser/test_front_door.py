"""The front door: from what somebody has, or what is wrong, to the lamp, its view and its cure."""

import re

import pytest
from playwright.sync_api import expect

from swapglow.records.models import Equipment, Position


@pytest.fixture
def bench(demo, tab, served):
    tab.goto(f"{served}/")
    expect(tab.get_by_role("heading", name="On the bench")).to_be_visible()
    return tab


def test_from_the_bench_to_a_turn_signal_on_new_equipment(bench):
    before = Equipment.objects.count()
    bench.get_by_role("link", name="Add a lamp").click()
    bench.get_by_role("link", name="Vehicle bulb").click()
    bench.get_by_role("button", name="Turn signal").click()
    # Said too much: gone back to, and said anew.
    bench.get_by_role("button", name="It warms something").click()
    bench.go_back()
    bench.get_by_role("button", name="I do not know yet").click()
    bench.get_by_role("button", name="New equipment").dblclick()
    bench.wait_for_url("**/position/**")
    expect(bench.get_by_role("slider", name="Resistor")).to_be_visible()
    assert Equipment.objects.count() == before + 1
    lamp = Position.objects.get(equipment__inputs__name="New equipment")
    assert (lamp.rail.input.kind, lamp.input.driver_kind) == ("vehicle", "flasher")
    assert lamp.input.second_job == ""


def test_a_neon_lamp_is_refused_and_another_answer_goes_on(bench):
    bench.get_by_role("link", name="Add a lamp").click()
    bench.get_by_role("link", name="Bulb in a holder").click()
    bench.get_by_role("button", name="I do not know yet").click()
    bench.get_by_role("button", name="It is a neon or discharge lamp").click()
    expect(bench.get_by_text("fit the same type")).to_be_visible()
    expect(bench.get_by_role("button", name="New equipment")).to_be_hidden()
    # What was said is a way back.
    bench.get_by_role("link", name="I do not know yet").click()
    expect(bench.get_by_role("heading", name="What feeds it?")).to_be_visible()
    # A reload stays where it was.
    bench.reload()
    expect(bench.get_by_role("heading", name="What feeds it?")).to_be_visible()


def test_a_circuit_is_a_lamp_of_its_item_on_its_page_and_on_the_bench(bench):
    bench.get_by_role("link", name="Red chart torch").click()
    bench.get_by_role("button", name="Add a lamp").click()
    bench.get_by_role("link", name="Projector or power LED").click()
    bench.wait_for_url("**/fitted/**")
    expect(bench.get_by_role("combobox", name="What it is")).to_have_value(re.compile("Power LED"))
    bench.go_back()
    expect(bench.get_by_role("link", name=re.compile("^Power LED"))).to_be_visible()
    bench.get_by_role("link", name="Bench", exact=True).click()
    torch = bench.get_by_role("list", name="Lamps of Red chart torch")
    expect(torch.get_by_role("link", name=re.compile("^Power LED"))).to_be_visible()


def test_a_word_typed_on_the_bench_leads_to_the_trouble_the_lamp_and_the_panel(bench):
    bench.get_by_role("searchbox", name="Find").fill("hot")
    bench.get_by_role("link", name="It gets hot, or smells").click()
    expect(bench.get_by_text("Switch it off now.")).to_be_visible()
    bench.get_by_role("link", name="Wind hold").click()
    bench.get_by_role("link", name=re.compile("^See the heat in the resistor")).click()
    expect(bench.get_by_role("heading", name="Series resistor")).to_be_visible()
    expect(bench.get_by_role("heading", name="Wind hold", level=1)).to_be_visible()


def test_by_keys_alone_n_adds_what_most_have(bench):
    bench.get_by_role("link", name="Red chart torch").click()
    expect(bench.get_by_role("heading", name="Lamps")).to_be_visible()
    before = Position.objects.count()
    for heading in ("What do you have?", "What feeds it?"):
        bench.keyboard.press("n")
        expect(bench.get_by_role("heading", name=heading)).to_be_visible()
    bench.keyboard.press("n")
    bench.wait_for_url("**/position/**")
    expect(bench.get_by_role("slider", name="Resistor")).to_be_visible()
    assert Position.objects.count() == before + 1
