"""The page on adding something, applied to a copy of the project: each addition is where people meet it."""

import json
import os
import re
import shutil
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
import uuid
from pathlib import Path

import pytest
from playwright.sync_api import expect

ROOT = Path(__file__).resolve().parents[2]
BLOCK = re.compile(r"`([^`\n]+)`, (?:new|after `([^\n]+)`):\n\n```\w+\n(.*?)```", re.S)


def apply(page: str, room: Path) -> list[str]:
    """Do what the page says; the files it touched."""
    touched = []
    for path, after, block in BLOCK.findall(page):
        file = room / path
        if after:
            lines = file.read_text().splitlines(keepends=True)
            at = [line.rstrip("\n") for line in lines].index(after)
            file.write_text("".join([*lines[: at + 1], block, *lines[at + 1 :]]))
        else:
            assert not file.exists(), f"{path} is no addition"
            file.parent.mkdir(parents=True, exist_ok=True)
            file.write_text(block)
        touched.append(path)
    return touched


class House:
    """A copy of the project that is being served."""

    def __init__(self, url):
        self.url = url

    def ask(self, method, path, body=None):
        """The answer of the API as JSON."""
        request = urllib.request.Request(
            self.url + path,
            json.dumps(body).encode() if body is not None else None,
            method=method,
            headers={"Content-Type": "application/json", "X-CSRFToken": "a" * 32, "Cookie": "csrftoken=" + "a" * 32},
        )
        text = urllib.request.urlopen(request).read()
        return json.loads(text) if text else None

    def lamp(self, rail, position):
        """A lamp on a rail of its own; its key."""
        item, feed, lamp = (str(uuid.uuid4()) for _ in range(3))
        self.ask("PUT", f"/api/equipment/{item}", {"name": "Signal box"})
        usual = {"text": "12V", "source": "measured"}
        self.ask("PUT", f"/api/rails/{feed}", {"equipment": item, "usual": usual, **rail})
        drive = {"text": "6mA", "source": "measured"}
        self.ask(
            "PUT",
            f"/api/positions/{lamp}",
            {"equipment": item, "rail": feed, "led_id": "red-5-diffused", "target": drive, **position},
        )
        return lamp

    def circuit(self, kind, texts):
        """An item with a circuit of a kind under "new"; the item's key."""
        item = str(uuid.uuid4())
        self.ask("PUT", f"/api/equipment/{item}", {"name": "Signal box"})
        details = {name: {"text": text} for name, text in texts.items()}
        made = {"kind": kind, "name": "Torch", "details": details}
        self.ask("PATCH", f"/api/equipment/{item}", {"fitted": {"new": made}})
        return item

    def report(self, lamp):
        """The report of a lamp as it stands."""
        return self.ask("POST", f"/api/positions/{lamp}/assess", {"changes": {}})["report"]


@pytest.fixture(scope="module")
def house(tmp_path_factory):
    room = tmp_path_factory.mktemp("copy")
    skip = shutil.ignore_patterns("node_modules", "dist")
    shutil.copytree(ROOT / "swapglow", room / "swapglow", ignore=skip)
    shutil.copytree(ROOT / "frontend", room / "frontend", ignore=skip)
    (room / "frontend/node_modules").symlink_to(ROOT / "frontend/node_modules")
    (room / "docs").mkdir()
    shutil.copy(ROOT / "manage.py", room)
    touched = apply((ROOT / "docs/adding.md").read_text(), room)
    assert len(touched) == 15
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    env = {
        **os.environ,
        "PYTHONPATH": str(room),
        "SWAPGLOW_VAR": str(room / "var"),
        "SWAPGLOW_PORT": str(port),
        "DJANGO_SETTINGS_MODULE": "swapglow.web.settings.local",
    }

    def run(*words, cwd=room):
        done = subprocess.run(words, cwd=cwd, env=env, capture_output=True, text=True)
        assert done.returncode == 0, done.stdout + done.stderr

    run(
        sys.executable,
        "manage.py",
        "export_openapi_schema",
        "--api",
        "swapglow.api.app.api",
        "--output",
        "docs/openapi.json",
    )
    run("npm", "run", "--silent", "types", cwd=room / "frontend")
    run("npm", "run", "--silent", "check", cwd=room / "frontend")
    run("npm", "run", "--silent", "build", cwd=room / "frontend")
    server = subprocess.Popen(
        [sys.executable, "-m", "swapglow.web.serve"], cwd=room, env=env, stdout=subprocess.DEVNULL
    )
    served = House(f"http://127.0.0.1:{port}")
    for _ in range(240):
        try:
            served.ask("GET", "/api/catalogue")
            break
        except urllib.error.URLError:
            assert server.poll() is None
            time.sleep(0.5)
    yield served
    server.terminate()
    server.wait()


def sheet(page, house, lamp, button):
    page.goto(f"{house.url}/position/{lamp}")
    page.get_by_role("slider").wait_for(timeout=60_000)
    page.get_by_role("button", name=button).first.click()
    return page.locator("[data-panel]")


def test_a_supply_with_a_source_resistance(house, page):
    """120 Ω behind the rail and 470 Ω in the lead are 590 Ω behind a stiff rail (Ohm)."""
    winding = {"text": "120R", "source": "measured"}
    lamp = house.lamp({"kind": "dynamo", "details": {"source": winding}}, {"resistor": "470R"})
    report = house.report(lamp)
    stiff = house.report(house.lamp({"kind": "regulated"}, {"resistor": "590R"}))
    assert report["current"]["usual"]["value"] == pytest.approx(stiff["current"]["usual"]["value"], rel=1e-6)
    assert report["supply"]["label"] == "Rectified dynamo"
    steps = {s["id"]: s for s in report["snapshots"][0]["staircase"]["stairs"]}
    assert "120" in steps["source"]["detail"]
    kinds = {k["id"]: k for k in house.ask("GET", "/api/catalogue")["supplies"]}
    assert [d["label"] for d in kinds["dynamo"]["details"]] == ["Winding resistance"]
    form = sheet(page, house, lamp, "Supply")
    expect(form.get_by_role("combobox", name="Kind of supply", exact=True)).to_have_value("Rectified dynamo")
    expect(form.get_by_label("Winding resistance", exact=True)).to_have_value("120R")
    form.get_by_text("Each end, fuse").click()
    expect(form.get_by_label("Volts, fast", exact=True)).to_be_visible()


def test_a_driver(house, page):
    lamp = house.lamp({}, {"driver_kind": "reed"})
    step = next(s for s in house.report(lamp)["snapshots"][0]["staircase"]["stairs"] if s["kind"] == "driver")
    assert (step["detail"], step["drop"]["usual"]) == ("reed contact", pytest.approx(0.02))
    form = sheet(page, house, lamp, "Supply")
    expect(form.get_by_role("combobox", name="What drives it", exact=True)).to_have_value("Reed contact")
    expect(form.get_by_text("Keeps some 20 mV")).to_be_visible()
    expect(form.get_by_label("What hangs on it", exact=True)).to_be_visible()


def test_a_circuit(house, page):
    """(9 V - 2.2 V) over 150 Ω is some 45 mA: the toolkit judges the LED, which the kind says nothing of.

    A red LED keeps 2 V at its 20 mA and a few tenths more at twice that (common practice).
    """
    key = house.circuit("torch", {"volts": "9V", "ohm": "150R"})
    answer = house.ask("GET", f"/api/equipment/{key}")["answers"]["new"]
    assert answer["result"]["figures"][0]["now"]["value"] == pytest.approx(0.045, rel=0.04)
    assert [f["id"] for f in answer["result"]["findings"]] == ["over-current-led"]
    page.goto(f"{house.url}/equipment/{key}/fitted/new")
    expect(page.get_by_role("status").filter(has_text="in the LED.")).to_be_visible(timeout=60_000)
    page.get_by_role("button", name="cells 9 V").click()
    expect(page.get_by_label("All cells together", exact=True)).to_have_value("9V")


def test_a_finding_and_its_remedy(house, page):
    lamp = house.lamp({}, {"in_series": 4})
    found = {f["id"]: f for f in house.report(lamp)["findings"]}["long-string"]
    assert found["remedies"][0]["changes"] == {"in_series": 3}
    page.goto(f"{house.url}/position/{lamp}")
    page.get_by_role("button", name="Preview: Keep 3").click()
    expect(page.locator("[data-finding=long-string]")).to_have_count(0)
    page.get_by_role("button", name="Use it").click()
    expect(page.locator("[data-bar]")).to_have_count(0)
    assert house.ask("GET", f"/api/positions/{lamp}")["position"]["in_series"] == 3


def test_an_led(house, page):
    lamp = house.lamp({}, {"led_id": "red-2-frosted"})
    stair = next(s for s in house.report(lamp)["snapshots"][0]["staircase"]["stairs"] if s["kind"] == "led")
    assert "Red 2 mm frosted" in stair["detail"]
    assert "red-2-frosted" in {k["id"] for k in house.ask("GET", "/api/catalogue")["leds"]}
    form = sheet(page, house, lamp, "LED and resistor")
    expect(form.get_by_role("combobox", name="LED", exact=True)).to_have_value("Red 2 mm frosted")


def test_a_field(house, page):
    """Its text is taken, kept, refused by its name, and acts; 60 Ω keep some 0.4 V at 6 mA and more (Ohm)."""
    lamp = house.lamp({}, {})
    form = sheet(page, house, lamp, "Build and card")
    field = form.get_by_label("Old holder's contact", exact=True)
    field.fill("much")
    field.blur()
    expect(form.get_by_text('"much" is not a resistance')).to_be_visible()
    field.fill("60R")
    field.blur()
    expect(form.get_by_text("Taken as 60 Ω")).to_be_visible()
    page.get_by_role("button", name="Close").click()
    expect(page.locator("[data-finding=tired-holder]")).to_contain_text("60 Ω keeps")
    kept = house.ask("GET", f"/api/positions/{lamp}")["position"]
    assert (kept["holder"], kept["echo"]["holder"].replace("\u00a0", " ")) == ("60R", "60 Ω")
    document = house.ask("GET", f"/api/equipment/{kept['equipment']}/document.json")
    assert document["equipment"]["positions"][0]["holder"] == "60R"


def test_a_fault(house):
    """12 V before the lamp's wire and 8.8 V behind it: what lies between is a contact, or the fuse holder, alike."""
    lamp = house.lamp({}, {"resistor": "1k"})
    for kind, text in (("current", "6.85mA"), ("plus_volts", "8.8V"), ("minus_volts", "0V"), ("supply_volts", "12V")):
        body = {"id": str(uuid.uuid4()), "what": kind, "text": text, "burden": "", "note": "", "state": "on"}
        house.ask("POST", f"/api/positions/{lamp}/reading", body)
    (first, *_) = house.report(lamp)["trouble"]["causes"]
    # No reading tells them apart: they are one cause, with both named.
    assert first["id"] in ("contact", "fuse-holder")
    assert "clips of the fuse holder" in first["message"] and "dirty contact" in first["message"].lower()


def test_a_build_step(house, page):
    lamp = house.lamp({}, {})
    ids = [s["id"] for s in house.report(lamp)["build"]]
    assert ids[ids.index("power") + 1] == "listen"
    page.goto(f"{house.url}/position/{lamp}/build")
    expect(page.get_by_text("does anything hum that did not before?")).to_be_visible(timeout=60_000)


def test_a_mark(house):
    """100 nF, 15 % either way."""
    read = house.ask("GET", "/api/marks/read?kind=capacitor&text=104L&expected=")
    assert "85" in json.dumps(read) and "115" in json.dumps(read)


def test_a_view(house, page):
    page.goto(f"{house.url}/colours")
    expect(page.get_by_role("heading", name="Colours")).to_be_visible(timeout=60_000)
    expect(page.get_by_role("list", name="LEDs").get_by_text("Red 5 mm diffused")).to_be_visible()
