"""Write the current picture of each main view to docs/screenshots: ``make shots``."""

import os
import re
import shutil
import tempfile
import threading
from collections.abc import Callable
from pathlib import Path

import django
from django.core.management import call_command
from playwright.sync_api import Page, sync_playwright

OUT = Path(__file__).resolve().parents[1] / "docs" / "screenshots"
ARGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


def _bench(page: Page) -> None:
    page.get_by_label("Rail", exact=True).fill("30-33V")
    page.get_by_text("Rating to fit").wait_for()


def _lamp(name: str) -> Callable[[Page], None]:
    def go(page: Page) -> None:
        page.get_by_role("link", name=re.compile(f"^{name}")).click()
        page.get_by_role("slider").wait_for()

    return go


def _equipment(page: Page) -> None:
    page.get_by_role("link", name="Dome rotation desk").click()
    page.get_by_text("Supply rails").wait_for()


def _drawer(page: Page) -> None:
    page.get_by_role("link", name="Drawer").click()
    page.get_by_role("button", name="820 Ω, empty").wait_for()


def _backups(page: Page) -> None:
    from swapglow.records.backups import shelf
    from swapglow.records.models import Equipment

    shelf.make("start")
    Equipment.objects.filter(inputs__name="Plate camera console").delete()
    shelf.make("hourly")
    Equipment.objects.filter(inputs__name="Stair markers").delete()
    page.get_by_role("link", name="Backups, and moving the bench").click()
    page.get_by_role("button", name=re.compile("^Bring back")).first.click()
    page.get_by_text("Or one item").wait_for()
    page.get_by_role("button", name="Bring back Stair markers").wait_for()


def _phones(page: Page) -> None:
    from swapglow.devices.models import Device

    Device.issue(name="Phone beside the vice")
    Device.issue(name="Tablet of the evening class", may_write=False)
    page.get_by_role("link", name="Add a phone").click()
    page.get_by_role("button", name="Add a phone").click()
    page.get_by_role("img", name="Code to scan").wait_for()


def _first_start(page: Page) -> None:
    from swapglow.records.models import Equipment

    Equipment.objects.all().delete()
    page.reload()
    page.get_by_role("button", name="Start my bench").wait_for()


def _day(page: Page) -> None:
    page.get_by_role("link", name="Day", exact=True).click()
    page.get_by_role("group", name="From").get_by_role("spinbutton").first.click()
    page.keyboard.type("203105200900")
    page.get_by_text("8 h", exact=True).click()
    page.get_by_role("list", name="The day").get_by_text("09:00").first.wait_for()


def _take_in(page: Page) -> None:
    page.get_by_role("link", name="Chart room reading lights").click()
    page.get_by_role("button", name="Take-in sheet").click()
    page.get_by_text("Originals removed").wait_for()


def _readings(name: str) -> Callable[[Page], None]:
    def go(page: Page) -> None:
        _lamp(name)(page)
        page.get_by_role("button", name="Readings").click()
        page.get_by_role("link", name="Readings before the swap").click()
        page.get_by_text("Readings taken").wait_for()

    return go


def _build(page: Page) -> None:
    _lamp("Shutter closed")(page)
    page.get_by_role("button", name="Build and card", exact=True).click()
    page.get_by_role("link", name="Build it, step by step").click()
    page.get_by_text("Before and after").first.wait_for()


def _swaps(page: Page) -> None:
    _lamp("Door running")(page)
    page.get_by_role("button", name="Options").click()
    page.get_by_text("weighed at every corner").wait_for()


def _match(page: Page) -> None:
    _equipment(page)
    page.get_by_role("button", name="Match", exact=True).click()
    page.get_by_role("button", name="Match them").click()
    page.get_by_text("All within a fifth").wait_for()


def _dimming(page: Page) -> None:
    page.get_by_role("link", name="Transit chronograph").click()
    page.get_by_role("link", name="Tape gate light").click()
    page.get_by_text("What this eye wants").wait_for()


def _circuit(page: Page) -> None:
    page.get_by_role("link", name="Transit chronograph").click()
    page.get_by_role("link", name="Chart backlight").click()
    page.get_by_text("Branches side by side").wait_for()


def _front_door(page: Page) -> None:
    page.get_by_role("link", name="Add a lamp").click()
    page.get_by_role("link", name="Projector or power LED").wait_for()


def _card(page: Page) -> None:
    _lamp("Wind hold")(page)
    page.goto(f"{page.url}/card")
    page.get_by_role("article", name="Job card").wait_for()


# name, what to do from the bench, look, width, height
VIEWS: list[tuple[str, Callable[[Page], None], str, int, int]] = [
    ("bench", _bench, "day", 1280, 800),
    ("equipment", _equipment, "day", 1280, 800),
    ("position", _lamp("Wind hold"), "day", 1280, 800),
    ("position-lamp-room", _lamp("Dial, left"), "lamp", 1280, 800),
    ("position-phone", _lamp("Shutter open"), "lamp", 390, 844),
    ("match", _match, "day", 1280, 800),
    ("dimming", _dimming, "day", 1280, 800),
    ("circuit", _circuit, "day", 1280, 800),
    ("job-card", _card, "day", 1280, 1120),
    ("drawer", _drawer, "day", 1280, 800),
    ("front-door", _front_door, "day", 1280, 800),
    ("day", _day, "day", 1280, 800),
    ("take-in", _take_in, "day", 1280, 800),
    ("readings", _readings("Left bracket"), "day", 1280, 800),
    ("build", _build, "day", 1280, 800),
    ("position-swaps", _swaps, "day", 1280, 800),
    ("phones", _phones, "day", 1280, 800),
    # The last two: they change what is on the bench.
    ("backups", _backups, "day", 1280, 800),
    ("first-start", _first_start, "day", 1280, 800),
]


def main() -> None:
    """Serve the demo from a database of its own and photograph it."""
    work = tempfile.mkdtemp(prefix="swapglow-shots-")
    os.environ["SWAPGLOW_VAR"] = work
    os.environ["DJANGO_SETTINGS_MODULE"] = "swapglow.web.settings.local"
    os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"
    django.setup()
    call_command("migrate", verbosity=0)
    call_command("migrate", "devices", database="devices", verbosity=0)
    call_command("collectstatic", verbosity=0, interactive=False)
    call_command("load_demo")
    from waitress import create_server

    from swapglow.records import summaries
    from swapglow.web.wsgi import application

    # Nobody works off the queue here: the lamps are worked out before the first picture.
    summaries.mark_outdated()
    summaries.refresh()
    server = create_server(application, host="127.0.0.1", port=0, threads=4)
    threading.Thread(target=server.run, daemon=True).start()
    OUT.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path=shutil.which("chromium-headless-shell"), args=ARGS)
        for name, act, look, width, height in VIEWS:
            context = browser.new_context(viewport={"width": width, "height": height}, reduced_motion="reduce")
            page = context.new_page()
            page.add_init_script(f"localStorage.setItem('swapglow.look', '{look}')")
            page.goto(f"http://127.0.0.1:{server.effective_port}/")
            page.get_by_role("link", name="Dome rotation desk").wait_for()
            act(page)
            page.wait_for_timeout(500)
            page.screenshot(path=OUT / f"{name}.png", full_page=width < 500)
            context.close()
            print(f"docs/screenshots/{name}.png")
        browser.close()
    shutil.rmtree(work, ignore_errors=True)


if __name__ == "__main__":
    main()
