"""The phone beside the vice: two browsers as bench and phone, through TLS as a phone would."""

import re
from datetime import timedelta

import pytest
from django.utils import timezone
from playwright.sync_api import expect

from swapglow.devices.models import UNSEEN, Device
from tests.api.test_take_in import with_exif
from tests.browser.hands import PHONE

pytestmark = pytest.mark.django_db(transaction=True, databases=["default", "devices"])


@pytest.fixture
def phone(browser):
    """A page of another browser, on a phone."""
    context = browser.new_context(**PHONE, ignore_https_errors=True, color_scheme="light")
    yield context.new_page()
    context.close()


def begin(page, served, looks=False):
    """Press Add a phone at the bench; returns the address in the code, and the digits."""
    page.goto(f"{served}/devices")
    if looks:
        page.get_by_role("radiogroup", name="The phone").get_by_text("Only looks").click()
    page.get_by_role("button", name="Add a phone").click()
    code = page.get_by_role("img", name="Code to scan with the phone")
    expect(code).to_be_visible()
    offer = page.evaluate("fetch('/api/devices').then((r) => r.json())")["offer"]
    expect(page.get_by_text(f"{offer['digits'][:3]} {offer['digits'][3:]}")).to_be_visible()
    return offer["url"], offer["digits"]


def pair(page, phone, served, name="Vice", looks=False):
    url, digits = begin(page, served, looks)
    phone.goto(url)
    phone.get_by_label("Six digits").fill(digits)
    phone.get_by_label("What this phone is called").fill(name)
    phone.get_by_role("button", name="Pair").tap()
    expect(phone.get_by_role("heading", name="Paired")).to_be_visible()
    return url.split("/pair")[0]


def lamp(page, served, bench):
    """A lamp, its view open at the bench; its key and its item's."""
    keys = bench.made()
    page.goto(f"{served}/position/{keys['position']}")
    expect(page.get_by_role("slider")).to_be_visible()
    return keys


@pytest.fixture
def made():
    from tests.api.page import Bench

    return Bench()


def test_a_phone_is_paired_and_taken_away(page, phone, served, sharing):
    url = pair(page, phone, served)
    expect(page.get_by_text("Vice", exact=True)).to_be_visible()
    phone.get_by_role("link", name="Go to the bench").tap()
    expect(phone.get_by_role("heading", name="On the bench")).to_be_visible()
    assert phone.url.startswith(url)
    page.get_by_role("button", name="Take away Vice").click()
    expect(page.get_by_text("No phone is paired yet.")).to_be_visible()
    expect(phone.get_by_text("This phone is not paired with the bench any more.")).to_be_visible()


def test_a_wrong_code_five_times(page, phone, served, sharing):
    url, digits = begin(page, served)
    phone.goto(url)
    wrong = f"{(int(digits) + 1) % 10**6:06d}"
    for left in (4, 3, 2, 1):
        phone.get_by_label("Six digits").fill(wrong)
        phone.get_by_role("button", name="Pair").tap()
        expect(phone.get_by_text(re.compile(rf"\b{left} (try is|tries are) left"))).to_be_visible()
    phone.get_by_role("button", name="Pair").tap()
    expect(phone.get_by_role("alert")).to_contain_text("used up")
    # The bench offers a new one.
    expect(page.get_by_role("button", name="Add a phone")).to_be_visible()


def test_a_stolen_code_opens_nothing(page, phone, served, sharing, browser):
    """Whoever saw the screen types the same digits a moment later."""
    url, digits = begin(page, served)
    with browser.new_context(**PHONE, ignore_https_errors=True) as context:
        thief = context.new_page()
        thief.goto(url)
        phone.goto(url)
        for each in (phone, thief):
            each.get_by_label("Six digits").fill(digits)
            each.get_by_role("button", name="Pair").tap()
            if each is phone:
                expect(phone.get_by_role("heading", name="Paired")).to_be_visible()
        expect(thief.get_by_role("alert")).to_contain_text("used up")
        thief.goto(url.split("/pair")[0])
        expect(thief.get_by_role("heading", name="Not paired with the bench")).to_be_visible()


@pytest.mark.parametrize("how", ["taken away", "expired"])
def test_what_is_typed_on_a_phone_that_is_not_known_any_more_is_kept_until_it_is_paired_again(
    page, phone, served, sharing, made, how
):
    url = pair(page, phone, served)
    keys = made.made()
    phone.goto(f"{url}/position/{keys['position']}/build")
    hours = phone.get_by_role("textbox", name="Hours")
    hours.fill("1.")
    if how == "taken away":
        page.goto(f"{served}/devices")
        page.get_by_role("button", name="Take away Vice").click()
    else:
        Device.objects.update(seen=timezone.now() - UNSEEN - timedelta(hours=1))
    expect(phone.get_by_text("This phone is not paired")).to_be_visible()
    # Half typed: it stands there, and goes on.
    expect(hours).to_have_value("1.")
    hours.fill("1.5 h")
    hours.press("Enter")
    expect(phone.get_by_text("1 change is kept here")).to_be_visible()
    phone.reload()
    expect(phone.get_by_text("1.5 h")).to_have_count(0)
    pair(page, phone, served, "Vice again")
    phone.goto(f"{url}/position/{keys['position']}/build")
    expect(phone.get_by_role("textbox", name="Hours")).to_have_value("1.5 h")
    page.goto(f"{served}/position/{keys['position']}/build")
    expect(page.get_by_role("textbox", name="Hours")).to_have_value("1.5 h")


def test_a_photograph_taken_on_the_phone_is_seen_at_the_bench(page, phone, served, sharing, made):
    url = pair(page, phone, served)
    keys = made.made()
    page.goto(f"{served}/equipment/{keys['equipment']}/take-in")
    phone.goto(f"{url}/equipment/{keys['equipment']}/take-in")
    with phone.expect_file_chooser() as chooser:
        phone.get_by_role("button", name="Take a photograph").tap()
    # HTML Media Capture: the camera that looks away from the person.
    assert chooser.value.element.get_attribute("capture") == "environment"
    chooser.value.set_files({"name": "a.jpg", "mimeType": "image/jpeg", "buffer": with_exif()})
    expect(page.get_by_role("img", name="Photograph without a caption")).to_be_visible()


def test_two_people_on_one_lamp(page, phone, served, sharing, made):
    url = pair(page, phone, served)
    keys = lamp(page, served, made)
    page.goto(f"{served}/position/{keys['position']}/build")
    note = page.get_by_role("textbox", name="Parts, price")
    note.fill("2.")
    phone.goto(f"{url}/position/{keys['position']}/build")
    phone.get_by_role("textbox", name="Hours").fill("40 min")
    phone.get_by_role("textbox", name="Hours").press("Enter")
    # Within two seconds, and neither focus nor a half-typed text is taken from whoever types.
    expect(page.get_by_role("textbox", name="Hours")).to_have_value("40 min", timeout=4000)
    expect(note).to_be_focused()
    expect(note).to_have_value("2.")
    note.press_sequentially("10")
    note.press("Enter")
    expect(phone.get_by_role("textbox", name="Parts, price")).to_have_value("2.10", timeout=4000)
    # Each undoes their own.
    expect(page.get_by_role("button", name=re.compile("^Undo edit .*cost"))).to_be_enabled()
    expect(phone.get_by_role("button", name=re.compile("^Undo edit .*hours"))).to_be_enabled()


def test_a_name_chosen_here_is_in_the_log_there(page, phone, served, sharing, made):
    url = pair(page, phone, served)
    keys = made.made()
    phone.goto(f"{url}/position/{keys['position']}/build")
    phone.get_by_role("button", name="? Keys").tap()
    phone.get_by_label("Your name here").fill("Ines")
    phone.get_by_role("button", name="Close", exact=True).tap()
    phone.get_by_role("textbox", name="Hours").fill("2 h")
    phone.get_by_role("textbox", name="Hours").press("Enter")
    expect(phone.get_by_role("button", name=re.compile("^Undo edit .*hours"))).to_be_visible()
    past = made("GET", f"positions/{keys['position']}/past")[1]["states"]
    assert past[0]["by"] == "Ines"


def test_a_phone_that_only_looks_changes_nothing_and_says_so(page, phone, served, sharing, made):
    url = pair(page, phone, served, "Learner", looks=True)
    keys = made.made()
    phone.goto(f"{url}/position/{keys['position']}/build")
    expect(phone.get_by_text("Only looks", exact=True)).to_be_visible()
    phone.get_by_role("textbox", name="Hours").fill("9 h")
    phone.get_by_role("textbox", name="Hours").press("Enter")
    expect(
        phone.get_by_text("It may change nothing").or_(phone.get_by_text("may change nothing")).first
    ).to_be_visible()
    assert made("GET", f"positions/{keys['position']}")[1]["position"]["hours"] == ""


def test_a_card_is_read_by_its_link_until_that_is_taken_back(page, phone, served, sharing, made):
    keys = made.made()
    page.goto(f"{served}/position/{keys['position']}/card")
    page.get_by_role("button", name="Link to read this card").click()
    url = page.get_by_text(re.compile(r"^https://.*/look/")).inner_text()
    phone.goto(url)
    expect(phone.get_by_role("heading", name="Ready")).to_be_visible()
    # The same figures as at the bench.
    shown = page.get_by_role("article", name="Job card")
    read = phone.get_by_role("article", name="Job card")
    for section in ("Currents, typical LED", "To put it back"):
        at = shown.get_by_role("heading", name=section).locator("..")
        expect(read.get_by_role("heading", name=section).locator("..")).to_have_text(
            at.inner_text(), use_inner_text=True
        )
    page.goto(f"{served}/devices")
    page.get_by_role("button", name="Take back the link to Ready").click()
    expect(page.get_by_role("button", name="Take back the link to Ready")).to_have_count(0)
    phone.reload()
    expect(phone.get_by_role("alert")).to_contain_text("taken back")


def test_a_lamp_is_opened_by_a_photograph_of_its_card(page, phone, served, sharing, made):
    from tests.devices.test_hands import photograph

    url = pair(page, phone, served)
    keys = made.made()
    phone.goto(url)
    with phone.expect_file_chooser() as chooser:
        phone.get_by_role("button", name="Scan a card").tap()
    card = photograph(f"urn:uuid:{keys['position']}")
    chooser.value.set_files({"name": "card.jpg", "mimeType": "image/jpeg", "buffer": card})
    phone.wait_for_url(f"**/position/{keys['position']}")


def test_the_next_step_is_read_aloud(page, phone, served, sharing, made):
    """By the phone's own voice, which a machine without sound has none of: what it is given to say is listened to."""
    url = pair(page, phone, served)
    keys = made.made()
    phone.add_init_script("window.said = []; speechSynthesis.speak = (words) => window.said.push(words.text)")
    phone.goto(f"{url}/position/{keys['position']}")
    step = phone.get_by_role("region", name="Next thing on the bench")
    act = step.get_by_role("heading").inner_text().removeprefix("Next").strip()
    step.get_by_role("button", name=re.compile("^Read aloud")).tap()
    [words] = phone.evaluate("window.said")
    assert words.split()[:4] == act.split()[:4] and "Expect" in words
    assert not re.search(r"\dm?[VAΩ]\b|[ΩµV]\b", words)


def test_it_goes_on_the_home_screen_with_an_icon_of_its_own(page, phone, served, sharing):
    url = pair(page, phone, served)
    manifest = phone.evaluate("""async () => {
        const at = document.querySelector("link[rel=manifest]").href;
        const found = await (await fetch(at)).json();
        const sizes = await Promise.all(found.icons.map(async (icon) => {
            const picture = await createImageBitmap(await (await fetch(icon.src)).blob());
            return [icon.sizes, `${picture.width}x${picture.height}`];
        }));
        return { ...found, sizes };
    }""")
    assert manifest["display"] == "standalone" and manifest["name"] == "Swap Glow"
    assert {"192x192", "512x512"} == {said for said, _ in manifest["sizes"]}
    assert all(said == is_ for said, is_ in manifest["sizes"])
    assert phone.request.get(f"{url}/static/icon-180.png").ok
