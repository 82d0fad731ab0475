"""Backups at the bench, photographs that wait, texts in panels that are shut, and steps that cannot be undone."""

import re

import pytest
from playwright.sync_api import expect

from swapglow.records.models import BenchLed, Equipment, Photo, Position, Shop, StockPart
from tests.api.page import Bench
from tests.api.test_take_in import picture
from tests.browser.line import Line
from tests.browser.test_bad_bench import box, there
from tests.browser.test_bench_to_reading import saved, until


@pytest.fixture(autouse=True)
def room(settings, tmp_path):
    settings.VAR = tmp_path
    settings.PHOTOGRAPHS = tmp_path / "photographs"
    return tmp_path


@pytest.fixture
def line(demo, served, server):
    made = Line(server.effective_port)
    yield made
    made.mend()
    made.close()


def test_an_item_that_was_deleted_comes_back_out_of_a_backup(demo, app, other_databases):
    app.get_by_role("link", name="Backups, and moving the bench").click()
    app.get_by_role("button", name="Back up now").click()
    row = app.get_by_role("row", name=re.compile("Asked for"))
    expect(row).to_contain_text("25")
    key = Equipment.objects.get(inputs__name="Transit chronograph").pk
    assert Bench()("DELETE", f"equipment/{key}")[0] == 204
    app.reload()
    expect(row).to_contain_text("1 more than now")
    row.get_by_role("button", name=re.compile("^Bring back")).click()
    app.get_by_role("button", name="Bring back Transit chronograph").click()
    expect(app.get_by_role("heading", name="Transit chronograph", level=1)).to_be_visible()
    expect(app.get_by_text("Brought back Transit chronograph.")).to_be_visible()
    assert Equipment.objects.filter(pk=key).exists()


def test_the_whole_bench_is_brought_back_and_that_too(demo, app, other_databases):
    app.get_by_role("link", name="Backups, and moving the bench").click()
    app.get_by_role("button", name="Back up now").click()
    app.get_by_role("row", name=re.compile("Asked for")).wait_for()
    for e in Equipment.objects.all()[:5]:
        assert Bench()("DELETE", f"equipment/{e.pk}")[0] == 204
    app.get_by_role("button", name=re.compile("^Bring back")).click()
    app.get_by_role("button", name="Bring back the whole bench").click()
    expect(app.get_by_text("Brought back: 25 items")).to_be_visible()
    assert Equipment.objects.count() == 25
    before = app.get_by_role("row", name=re.compile("Before a backup was brought back"))
    expect(before).to_contain_text("5 fewer than now")
    before.get_by_role("button").click()
    app.get_by_role("button", name="Bring back the whole bench").click()
    expect(app.get_by_text("Brought back: 20 items")).to_be_visible()
    assert Equipment.objects.count() == 20


def test_a_folder_that_is_not_there_is_refused_in_its_field(demo, app, tmp_path):
    app.get_by_role("link", name="Backups, and moving the bench").click()
    field = app.get_by_role("textbox", name=re.compile("^Folder on this machine"))
    field.fill(str(tmp_path / "no stick"))
    app.get_by_role("button", name="Copy every backup there").click()
    expect(app.get_by_text("Plug the stick in, or make the folder first.")).to_be_visible()
    expect(field).to_have_value(str(tmp_path / "no stick"))


def files(*contents):
    return [
        {"name": f"shot-{n}.jpg", "mimeType": "image/jpeg", "buffer": content} for n, content in enumerate(contents, 1)
    ]


def add(page, *contents):
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Add photographs").click()
    chooser.value.set_files(files(*contents))


def test_each_of_several_photographs_has_its_own_line(page, line):
    item = Equipment.objects.get(inputs__name="Plate camera console")
    there(page, line, f"/equipment/{item.pk}/take-in")
    add(page, picture(), b"no picture at all", picture((90, 60)))
    coming = page.get_by_role("status", name="Photographs on their way")
    expect(coming).to_contain_text("shot-2.jpg: not taken. This is no picture that can be read.")
    expect(page.get_by_alt_text("Photograph without a caption")).to_have_count(2)
    assert Photo.objects.filter(equipment=item).count() == 2
    # The refusal stays over a reload, until it is taken off.
    page.reload()
    expect(coming).to_contain_text("shot-2.jpg: not taken")
    page.get_by_role("button", name="Take shot-2.jpg off the list").click()
    expect(coming).to_have_text("")


def test_photographs_wait_for_the_line_and_outlive_a_reload(page, line):
    item = Equipment.objects.get(inputs__name="Plate camera console")
    there(page, line, f"/equipment/{item.pk}/take-in")
    page.route("**/photos/*", lambda route: route.abort())
    add(page, picture(), picture((90, 60)), picture((60, 90)))
    coming = page.get_by_role("status", name="Photographs on their way")
    for n in (2, 3):
        expect(coming).to_contain_text(f"shot-{n}.jpg: waiting")
    assert Photo.objects.filter(equipment=item).count() == 0
    page.reload()
    expect(coming).to_contain_text("shot-3.jpg: waiting")
    page.unroute_all()
    expect(page.get_by_alt_text("Photograph without a caption")).to_have_count(3)
    until(page, lambda: Photo.objects.filter(equipment=item).count() == 3)


def crash(page):
    with pytest.raises(Exception, match="crash"):
        page.goto("chrome://crash", timeout=5000)


SHUT = {
    "habits": ("build", "The shop's habits", "Sleeve on plus", "red, 3 mm"),
    "figures": ("drawer", "Figures of Silicon diode", "Where it lies", "tin 9, lid taped"),
    "job": ("lamp", "Build and card", "Air around it", "41°C"),
}


@pytest.mark.parametrize("which", SHUT)
def test_a_text_in_a_panel_that_is_shut_is_mentioned_after_a_crash(apart, line, which):
    view, opens, label, text = SHUT[which]
    lamp = Equipment.objects.get(inputs__name="Plate camera console").positions.first()
    path = {"build": f"/position/{lamp.pk}/build", "drawer": "/drawer", "lamp": f"/position/{lamp.pk}"}[view]
    page = there(apart.new_page(), line, path)
    if view == "drawer":
        # All of it stands: what comes later would move the button from under the press.
        page.get_by_role("button", name="820 Ω, empty").wait_for()
    page.get_by_role("button", name=opens, exact=True).click()
    box(page, label).fill(text)
    crash(page)
    again = there(apart.new_page(), line, "/day")
    said = again.get_by_text(f"{label} was typed and not saved: “{text}”")
    expect(said).to_be_visible()
    again.get_by_role("link", name="Go to it").click()
    # The panel opens by itself, with the text in its field.
    expect(box(again, label)).to_have_value(text)
    expect(said).to_have_count(0)
    again.get_by_role("button", name="Save", exact=True).click()
    saved(again)
    kept = [
        Shop.own().inputs,
        *StockPart.objects.values_list("inputs", flat=True),
        Position.objects.get(pk=lamp.pk).inputs,
    ]
    assert any(text in str(k) for k in kept)


def test_a_text_for_a_part_that_is_gone_is_said_where_one_is_and_can_be_discarded(page, line):
    part = StockPart.objects.get(inputs__name="Silicon diode")
    there(page, line, "/drawer")
    page.get_by_role("button", name="Figures of Silicon diode", exact=True).click()
    assert Bench()("DELETE", f"parts/{part.pk}")[0] == 204
    box(page, "Where it lies").fill("tin 9")
    page.keyboard.press("Tab")
    said = page.get_by_text("Where it lies was not saved: That record is not here any more.")
    expect(said).to_be_visible()
    page.get_by_role("button", name="Discard Where it lies").click()
    expect(said).to_have_count(0)


def test_a_step_that_cannot_be_undone_says_why_and_can_be_left(page, line):
    bench = Bench()
    part = StockPart.objects.get(inputs__name="Silicon diode")
    assert bench("PUT", "parts/00000000-0000-4000-8000-0000000000aa", {"resistance": "3k01"})[0] == 200
    assert bench("PATCH", f"parts/{part.pk}", {"lot": "of May"})[0] == 200
    # As an earlier version left it: nobody wrote down what stood there before.
    StockPart.history.filter(id=part.pk, step=None).delete()
    there(page, line, "/drawer")
    undo = page.get_by_role("button", name=re.compile("^Undo edit Silicon diode"))
    undo.click()
    expect(page.get_by_text("What stood there before is not known any more.")).to_be_visible()
    page.get_by_role("button", name="Leave this step and go on to the one before").click()
    page.get_by_role("button", name=re.compile("^Undo put in 3.01")).click()
    until(page, lambda: not StockPart.objects.filter(inputs__resistance="3k01").exists())
    assert StockPart.objects.get(pk=part.pk).inputs["lot"] == "of May"
    assert BenchLed.objects.count() == 2


def test_a_date_that_no_longer_reads_stands_in_its_field_with_the_question(page, line):
    item = Equipment.objects.get(inputs__name="Plate camera console")
    Equipment.objects.filter(pk=item.pk).update(inputs={**item.inputs, "promised": "by Easter"})
    there(page, line, f"/equipment/{item.pk}")
    field = box(page, "Promised for")
    expect(field).to_have_value("by Easter")
    expect(page.get_by_text("write it as 2031-05-20")).to_be_visible()
    box(page, "Owner").fill("the society")
    page.keyboard.press("Tab")
    saved(page)
    assert Equipment.objects.get(pk=item.pk).inputs["promised"] == "by Easter"
    field.fill("2031-04-13")
    page.keyboard.press("Tab")
    saved(page)
    assert Equipment.objects.get(pk=item.pk).inputs["promised"] == "2031-04-13"
