"""The front door as a hand uses it."""

from playwright.sync_api import Page, expect


def add_lamp(page: Page, start: str = "Bulb in a holder", *answers: str, leave: bool = False) -> None:
    """Add what somebody has in hand from an item's page.

    ``leave``: the questions that are left stay open; else the last answer adds it.
    """
    page.get_by_role("button", name="Add a lamp").first.click()
    page.get_by_role("link", name=start).click()
    for answer in answers:
        page.get_by_role("button", name=answer).click()
    if leave:
        page.get_by_role("button", name="Add it now, and leave this open").click()
    page.wait_for_url(lambda url: "/add" not in url)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
