"""The drawer and the bench day at the screen: by keys, by a press, and what stands in the database then."""

import re

import pytest
import vobject
from playwright.sync_api import expect

from swapglow.records.models import BenchLed, Equipment, Position, StockPart
from tests.browser.conftest import axe
from tests.browser.hands import Mouse
from tests.browser.test_bench_to_reading import saved

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def stored(demo, app):
    """The bench with everything stored of its lamps, as a server that has run for a minute has it."""
    expect(app.get_by_role("region", name="Needs a hand now")).to_be_visible()
    return app


def compartment(page, text):
    return page.get_by_role("button", name=re.compile(rf"^{text}, "))


def test_the_drawer_is_worked_by_keys_alone(demo, app):
    app.keyboard.press("d")
    expect(app.get_by_role("heading", name="Drawer", level=1)).to_be_visible()
    cell = compartment(app, r"2.7\skΩ")
    cell.focus()
    app.keyboard.press("Enter")
    panel = app.get_by_role("region", name=re.compile("^2.7.kΩ: none kept"))
    # What it is made of meanwhile: of all pairs within 5 % these share the heat most evenly, 59 to 41 (by hand).
    expect(panel.get_by_role("listitem").first).to_contain_text("4.7 kΩ + 6.8 kΩ, side by side: 2.78 kΩ, +2.9 %")
    panel.get_by_role("button", name=re.compile("^Put 2.7.kΩ in")).focus()
    app.keyboard.press("Enter")
    panel = app.get_by_role("region", name=re.compile("^2.7.kΩ: full"))
    many = panel.get_by_label("How many")
    many.focus()
    app.keyboard.type("6")
    app.keyboard.press("Tab")
    app.keyboard.type("8")
    app.keyboard.press("Tab")
    saved(app)
    expect(cell).to_have_attribute("data-state", "low")
    app.keyboard.press("Escape")
    expect(cell).to_be_focused()
    app.reload()
    expect(compartment(app, r"2.7\skΩ")).to_have_attribute("aria-label", re.compile("low, 6 there$"))
    kept = StockPart.objects.get(inputs__resistance="2.7kΩ").input
    assert (kept.count, kept.least, kept.kind) == (6, 8, "resistor")


def test_what_cannot_be_a_count_is_refused_at_its_field_and_stays_there(demo, app):
    app.get_by_role("link", name="Drawer").click()
    app.get_by_role("button", name="Figures of Silicon diode").click()
    many = app.get_by_label("How many")
    many.fill("a few")
    many.press("Tab")
    expect(app.get_by_text(re.compile("valid integer|whole number", re.I)).first).to_be_visible()
    expect(many).to_have_value("a few")
    assert StockPart.objects.get(inputs__name="Silicon diode").input.count == 18
    many.fill("")
    many.press("Tab")
    saved(app)
    assert StockPart.objects.get(inputs__name="Silicon diode").input.count is None


def test_marks_are_read_by_colour_keys_and_the_doubtful_one_by_its_place(demo, tab, served):
    tab.goto(served + "/drawer/marks")
    for colour in ("brown", "black"):
        tab.get_by_role("button", name=colour, exact=True).click()
    # Two colours are no fault yet.
    expect(tab.get_by_text("2 bands")).to_have_count(0)
    for key in ("red", "in doubt", "gold"):
        tab.get_by_role("button", name=key, exact=True).click()
    expect(tab.get_by_label("As it stands on the part")).to_have_value("brown black red? gold")
    perhaps = tab.get_by_role("list", name="What it may be").get_by_role("listitem")
    expect(perhaps.first).to_contain_text("1 kΩ")
    tab.get_by_label("About what should be there").fill("90R")
    expect(perhaps.first).to_contain_text("100 Ω")
    tab.get_by_role("button", name="back", exact=True).click()
    expect(tab.get_by_label("As it stands on the part")).to_have_value("brown black red?")
    tab.get_by_label("As it stands on the part").fill("gold red red")
    expect(tab.get_by_text("Gold is no digit")).to_be_visible()
    tab.get_by_text("Capacitor", exact=True).click()
    tab.get_by_label("As it stands on the part").fill("104K")
    expect(tab.get_by_text("100 nF", exact=True)).to_be_visible()
    tab.get_by_role("button", name=re.compile("^Put 100.nF into")).click()
    saved(tab)
    assert StockPart.objects.filter(inputs__kind="capacitor", inputs__capacitance="100nF").count() == 2


def test_a_line_is_ordered_comes_in_and_lies_in_the_drawer(stored):
    page = stored
    page.get_by_role("link", name="Drawer").click()
    page.get_by_role("link", name="To buy").click()
    page.get_by_role("button", name="Ordered: Bridge of four").click()
    came = page.get_by_role("button", name="Came in: Bridge of four")
    expect(came).to_be_visible()
    kept = StockPart.objects.get(inputs__name="Bridge of four").input
    assert kept.count == 1 and kept.on_order % 5 == 0 and kept.on_order > 0
    page.reload()
    came.click()
    expect(came).to_have_count(0)
    now = StockPart.objects.get(inputs__name="Bridge of four").input
    assert (now.count, now.on_order) == (1 + kept.on_order, 0)
    page.keyboard.press("Control+z")
    expect(came).to_be_visible()
    assert StockPart.objects.get(inputs__name="Bridge of four").input == kept


def test_a_ticked_step_counts_the_drawer_down_and_undo_fills_it(demo, tab, served):
    lamp = Position.objects.get(inputs__name="Wind hold")
    bag = BenchLed.objects.get(inputs__name="Red diffused, old stock")
    bag.inputs = {**bag.inputs, "led_id": lamp.input.led_id}
    bag.save()
    tab.goto(f"{served}/position/{lamp.pk}/build")
    listed = tab.get_by_role("list", name="Out of the drawer")
    expect(listed).to_contain_text("Red diffused, old stock from drawer 2")
    tab.get_by_role("button", name=re.compile("^Look: Take the parts out")).click()
    saved(tab)
    taken = 40 - BenchLed.objects.get(pk=bag.pk).input.count
    assert taken == lamp.input.in_series * lamp.input.branches
    tab.get_by_role("button", name=re.compile("^Undo")).click()
    expect(listed).to_be_visible()
    assert BenchLed.objects.get(pk=bag.pk).input.count == 40


def test_a_value_made_of_several_is_fitted_from_the_lamp(demo, tab, served):
    lamp = Position.objects.get(inputs__name="Wind hold")
    tab.goto(f"{served}/position/{lamp.pk}")
    tab.get_by_role("button", name="LED and resistor", exact=True).first.click()
    tab.get_by_role("button", name="What it can be made of").click()
    made = tab.get_by_role("region", name=re.compile("made of what is there$"))
    take = made.get_by_role("button", name=re.compile(r" \+ ")).first
    value = re.match(r"Take ([\d.]+)", take.get_attribute("aria-label"))[1]
    take.click()
    saved(tab)
    kept = Position.objects.get(pk=lamp.pk).input
    assert kept.resistor.startswith(value[:3]) and kept.resistor_source == "computed"


def test_the_day_plans_waits_and_goes_out_as_a_calendar(stored):
    page = stored
    now = page.get_by_role("region", name="Needs a hand now")
    expect(now.get_by_role("link", name=re.compile("^Take the readings the app asks for: "))).to_have_count(5)
    now.get_by_role("link", name="The whole day").click()
    # Its parts are typed one after another, the year first.
    page.get_by_role("group", name="From").get_by_role("spinbutton").first.click()
    page.keyboard.type("203105200900")
    page.get_by_text("8 h", exact=True).click()
    blocks = page.get_by_role("list", name="The day")
    expect(blocks.get_by_text("09:00").first).to_be_visible()
    with page.expect_download() as coming:
        page.get_by_role("link", name="Calendar (iCalendar)").click()
    events = vobject.readOne(coming.value.path().read_text()).vevent_list
    assert f"{events[0].dtstart.value:%Y-%m-%d %H:%M}" == "2031-05-20 09:00"
    # An item that waits for its owner is out of the day, with the reason.
    item = Position.objects.get(inputs__name="Wind hold").equipment
    page.goto(page.url.replace("/day", f"/equipment/{item.pk}"))
    page.get_by_role("button", name="Add a wait").click()
    page.get_by_label("Paint, silicone, its owner's word").fill("Owner asked")
    page.keyboard.press("Tab")
    saved(page)
    # Until when is a day with a time, its parts typed one after another.
    page.get_by_role("button", name="Set a day: Until").click()
    expect(page.get_by_role("group", name="Until").get_by_role("spinbutton").first).to_be_focused()
    page.keyboard.type("203105211430")
    # Past the button that clears it.
    page.keyboard.press("Tab")
    page.keyboard.press("Tab")
    saved(page)
    [wait] = Equipment.objects.get(pk=item.pk).inputs["waits"].values()
    assert wait["until"] == "2031-05-21 14:30"
    page.keyboard.press("Escape")
    page.get_by_role("link", name="Day", exact=True).click()
    waits = page.get_by_role("region", name="Waits")
    expect(waits.get_by_role("listitem").filter(has_text="Wind hold").first).to_contain_text("Owner asked")
    page.get_by_role("group", name="From").get_by_role("spinbutton").first.click()
    page.keyboard.type("2031050")
    # Half a day is none: the plan is of now, and what was typed stands.
    expect(page.get_by_role("group", name="From")).to_contain_text("2031")
    assert axe(page) == []


def test_one_field_finds_lamps_by_value_and_parts_from_any_view(stored):
    page = stored
    page.keyboard.press("d")
    expect(page.get_by_role("heading", name="Drawer", level=1)).to_be_visible()
    page.keyboard.press("/")
    field = page.get_by_role("searchbox", name="Find")
    expect(field).to_be_focused()
    page.keyboard.type("small bag")
    found = page.get_by_role("list", name="Also found")
    expect(found.get_by_role("link", name="Warm white, small bag")).to_be_visible()
    lamp = Position.objects.get(inputs__name="Wind hold")
    ohm, volts = lamp.summary.data["ohm"], lamp.summary.data["volts"]
    field.fill(f"{ohm:g}R at {volts:.3g} V")
    page.keyboard.press("Enter")
    expect(found.get_by_role("link", name="Wind hold")).to_be_visible()
    field.fill("no such thing anywhere")
    expect(page.get_by_role("status").filter(has_text="neither lamp, item nor part")).to_be_visible()


def test_an_item_is_put_away_and_comes_back(demo, app):
    app.get_by_role("link", name="Transit chronograph").click()
    app.get_by_text("In the archive", exact=True).click()
    saved(app)
    app.get_by_role("link", name="Bench").click()
    expect(app.get_by_role("link", name="Transit chronograph")).to_have_count(0)
    app.get_by_role("button", name=re.compile("^Show the archive")).click()
    expect(app.get_by_role("list", name="The archive").get_by_role("link", name="Transit chronograph")).to_be_visible()
    assert Equipment.objects.get(inputs__name="Transit chronograph").input.archived
    app.get_by_role("link", name="Transit chronograph").click()
    expect(app.get_by_role("radio", name="In the archive")).to_be_checked()
    app.get_by_text("On the bench", exact=True).click()
    saved(app)
    assert not Equipment.objects.get(inputs__name="Transit chronograph").input.archived


def test_a_part_of_the_catalogue_is_put_in_at_one_press(demo, app):
    hand = Mouse(app)
    app.get_by_role("link", name="Drawer").click()
    for kind, which, shown in (
        ("Ready", "Bayonet BA9s 6", "Bayonet BA9s 6 V"),
        ("LED", "Blue 3", "Blue 3 mm diffused"),
    ):
        for field, text in (("Put in another part", kind), ("Which", which)):
            hand.pick(field, text)
            expect(app.get_by_role("option")).to_have_count(0)
        app.get_by_role("button", name="Put it in").click()
        expect(app.get_by_role("button", name=f"Figures of {shown}")).to_be_visible()
    saved(app)
    assert StockPart.objects.get(inputs__kind="module").input.catalogue_id == "bayonet-6"
    assert BenchLed.objects.get(inputs__name="Blue 3 mm diffused").input.led_id == "blue-3-diffused"
