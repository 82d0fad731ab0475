"""Debian's Chromium, headless, as the tests drive it."""

import shutil
import socket
from pathlib import Path
from urllib.parse import urlsplit

import pytest
from playwright.sync_api import Page, expect

from tests.devices.conftest import ADDRESS

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
    # A page lives for seconds here: what is compiled a second time, to run faster, costs more than it gives. Nor is
    # a script parsed while it comes in, beside what another page's load has left of it.
    "--js-flags=--no-opt --no-maglev --no-script-streaming",
]
# One process for all pages: what one has parsed and compiled, the next need not.
TOGETHER = "--renderer-process-limit=1"


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    shell = shutil.which("chromium-headless-shell")
    return {**browser_type_launch_args, "executable_path": shell, "args": [*CHROMIUM_ARGS, TOGETHER]}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    return {**browser_context_args, "viewport": {"width": 1280, "height": 800}, "color_scheme": "light"}


@pytest.fixture(scope="session")
def rooms(browser, browser_context_args):
    """Browser contexts kept over all tests, by name: what one page has fetched and parsed, the next need not.

    ``rooms(name, ...)`` gives one; :func:`leave` makes it as new.
    """
    made = {}

    def room(name="bench", **more):
        if name not in made:
            made[name] = browser.new_context(**{**browser_context_args, **more})
            # A page that stays keeps the context's process warm, and is the way to its storage.
            made[name].new_page()
        return made[name]

    yield room
    for context in made.values():
        context.close()


def leave(context) -> None:
    """Leave a context as if nobody had been there: no page, nothing kept for any address."""
    porter, *pages = context.pages
    urls = [urlsplit(page.url) for page in pages]
    origins = {f"{url.scheme}://{url.netloc}" for url in urls if url.scheme == "http"}
    context.set_offline(False)
    for page in pages:
        page.close()
    context.unroute_all()
    context.clear_cookies()
    storage = context.new_cdp_session(porter)
    for origin in origins:
        kinds = "local_storage,indexeddb,service_workers,cache_storage"
        storage.send("Storage.clearDataForOrigin", {"origin": origin, "storageTypes": kinds})
    storage.detach()


@pytest.fixture
def context(rooms, served):
    """The bench's context, as new for each test; left before the database is emptied."""
    yield rooms()
    leave(rooms())


@pytest.fixture
def new_bench():
    """A bench that nobody has started yet."""


@pytest.fixture(autouse=True)
def begun(request):
    """The questions of a new bench were put, but where a test is about them."""
    # A bench on which something is asks nothing.
    if "served" in request.fixturenames and not {"new_bench", "demo"} & set(request.fixturenames):
        request.getfixturevalue("transactional_db")
        from swapglow.records.models import Shop

        shop = Shop.own()
        shop.join({"asked": "yes"})
        shop.save(force_insert=True)


@pytest.fixture
def apart(browser_type, browser_type_launch_args, browser_context_args):
    """A context in a browser of its own, in which a page may crash and take no other along."""
    with browser_type.launch(**{**browser_type_launch_args, "args": CHROMIUM_ARGS}) as own:
        yield own.new_context(**browser_context_args)


@pytest.fixture
def page(context):
    """A new page in it."""
    return context.new_page()


@pytest.fixture
def tab(page: Page, served: str):
    """A page, nothing shown on it yet, that fails on any script error or broken policy."""
    faults: list[str] = []
    page.on("pageerror", lambda e: faults.append(str(e)))
    page.on("console", lambda m: faults.append(m.text) if "Content Security Policy" in m.text else None)
    yield page
    assert faults == []


@pytest.fixture
def app(tab: Page, served: str):
    """The same, on the bench."""
    tab.goto(served + "/")
    # Waited for, not expected: a failed look of an expectation draws the whole page's tree of roles, each time.
    tab.get_by_label("Rail", exact=True).wait_for()
    return tab


@pytest.fixture
def sharing(monkeypatch, settings, tmp_path):
    """A port for the shared door; certificate and photographs of the test's own."""
    from swapglow.devices import door, pairing, rates

    settings.VAR = tmp_path
    settings.PHOTOGRAPHS = tmp_path / "photographs"
    with socket.socket() as found:
        found.bind((ADDRESS, 0))
        port = found.getsockname()[1]
    monkeypatch.setenv("SWAPGLOW_SHARE_ADDRESS", ADDRESS)
    monkeypatch.setenv("SWAPGLOW_SHARE_PORT", str(port))
    rates.forget()
    yield
    pairing.withdraw()
    door.shut_door()


def axe(page: Page, but: tuple[str, ...] = (), rules: tuple[str, ...] = ()) -> list[str]:
    """Faults that axe finds on the page as it stands: of all WCAG 2.2 AA, or of some rules; but for some."""
    if not page.evaluate("'axe' in window"):
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
