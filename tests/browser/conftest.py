"""Debian's Chromium, headless, as the tests drive it."""

import shutil
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

ROOT = Path(__file__).resolve().parents[2]

# The machines are noisy: a slow answer is not a wrong one.
expect.set_options(timeout=15_000)

CHROMIUM_ARGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    return {**browser_type_launch_args, "executable_path": shutil.which("chromium"), "args": CHROMIUM_ARGS}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    return {**browser_context_args, "viewport": {"width": 1280, "height": 800}, "color_scheme": "light"}


@pytest.fixture
def app(page: Page, served: str):
    """A page on the bench that fails on any script error or broken policy."""
    faults: list[str] = []
    page.on("pageerror", lambda e: faults.append(str(e)))
    page.on(
        "console",
        lambda m: faults.append(m.text) if "Content Security Policy" in m.text else None,
    )
    page.goto(served + "/")
    expect(page.get_by_label("Rail", exact=True)).to_be_visible()
    yield page
    assert faults == []


def axe(page: Page, but: tuple[str, ...] = (), rules: tuple[str, ...] = ()) -> list[str]:
    """Faults that axe finds on the page as it stands: of all WCAG 2.2 AA, or of some rules; but for some."""
    page.evaluate((ROOT / "frontend/node_modules/axe-core/axe.min.js").read_text())
    found = page.evaluate(
        """async (rules) => {
            const tags = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"];
            const { violations } = await axe.run(document, { runOnly: rules.length ? rules : tags });
            return violations.map((v) => [v.impact, v.id, v.nodes[0].html]);
        }""",
        list(rules),
    )
    return [f"{impact} {rule}: {html}" for impact, rule, html in found if rule not in but]
