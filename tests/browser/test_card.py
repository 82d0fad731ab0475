"""A lamp's job card on paper: one page, its text whole, read back by another library (pypdf)."""

import io
import re
import unicodedata

import pypdf
import pytest
from playwright.sync_api import expect

from swapglow.core.drawing.svg import UNIT_MM
from swapglow.records.models import Position
from tests.browser.conftest import axe

LAMPS = ["Wind hold", "Shutter closed", "Arc ready"]


def plain(text):
    """Text without its blanks, of which a page may have more: a sign of another face stands by itself there."""
    return re.sub(r"\s+", "", unicodedata.normalize("NFKC", text))


@pytest.mark.parametrize("name", LAMPS)
@pytest.mark.parametrize("paper", ["A4", "Letter"])
def test_a_card_is_one_page_that_says_all(name, paper, demo, tab, served):
    lamp = Position.objects.get(inputs__name=name)
    tab.goto(f"{served}/position/{lamp.pk}/card")
    card = tab.get_by_role("article", name="Job card")
    card.get_by_role("heading", name=name).wait_for()
    pages = pypdf.PdfReader(io.BytesIO(tab.pdf(format=paper, prefer_css_page_size=False))).pages
    assert len(pages) == 1
    # Letters of 14 units of the drawing are at least 8 pt (1 pt is 96/72 CSS px).
    tab.emulate_media(media="print")
    drawn = card.get_by_role("img", name="Circuit as fitted")
    shrunk = drawn.evaluate("i => i.getBoundingClientRect().width / i.naturalWidth")
    assert shrunk * 14 * UNIT_MM / 25.4 * 72 >= 8
    printed = plain(pages[0].extract_text())
    assert plain("Print, or save as PDF") not in printed
    # Every word of the card stands on the paper, in whatever order its columns are read.
    missing = {w for w in card.inner_text().split() if plain(w) not in printed}
    assert missing == set()
    findings = card.get_by_role("listitem").all_inner_texts()
    assert findings
    for finding in findings:
        assert plain(finding) in printed


def test_a_card_is_reached_from_the_job_and_reads_on_a_phone(demo, tab, served):
    lamp = Position.objects.get(inputs__name="Wind hold")
    tab.goto(f"{served}/position/{lamp.pk}")
    tab.get_by_role("button", name="Build and card", exact=True).click()
    tab.get_by_role("link", name="Job card to print").click()
    card = tab.get_by_role("article", name="Job card")
    expect(card.get_by_role("img", name="Bands: orange, orange, red, gold")).to_be_visible()
    # The figures are those of the workspace.
    expect(card.get_by_role("row", name=re.compile("^Usual"))).to_contain_text("6.73 mA")
    expect(card.get_by_role("img", name=re.compile(r"^Staircase: Rail 26\.3 V, Driver"))).to_be_visible()
    assert axe(tab) == []
    tab.set_viewport_size({"width": 390, "height": 844})
    assert tab.evaluate("document.documentElement.scrollWidth") <= 390
    assert axe(tab) == []


def test_a_cover_is_printed_with_all_cards_each_on_its_page(demo, tab, served):
    item = Position.objects.get(inputs__name="Dial, left").equipment
    lamps = [p.input.name for p in item.positions.all()]
    tab.goto(f"{served}/equipment/{item.pk}/card")
    tab.get_by_role("button", name="With all cards").click()
    expect(tab.get_by_role("article", name="Job card")).to_have_count(len(lamps), timeout=60_000)
    for picture in tab.get_by_role("img", name="Circuit as fitted").all():
        picture.evaluate("i => i.decode()")
    pages = pypdf.PdfReader(io.BytesIO(tab.pdf(format="A4"))).pages
    texts = [plain(page.extract_text()) for page in pages]
    assert all(plain(name) in texts[0] for name in lamps)
    assert len(texts) == 1 + len(lamps)
    for name, text in zip(lamps, texts[1:], strict=True):
        assert text.startswith(plain(name))
