"""A lamp's job card on paper: one page, its text whole, read back by another library (pypdf)."""

import io
import re
import unicodedata

import pypdf
import pytest
from playwright.sync_api import expect

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
