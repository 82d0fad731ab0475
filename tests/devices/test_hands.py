"""More than one pair of hands: whose a step is, whose undo it is, and that others' changes are followed."""

import io
import uuid
from urllib.parse import quote

import pytest
import segno

from tests.api.page import Bench

pytestmark = pytest.mark.django_db(transaction=True, databases=["default", "devices"])


def named(name):
    page = Bench()
    page.client.cookies["hand"] = quote(name)
    return page


def log(bench, lamp):
    return [(s["label"], s["by"]) for s in bench("GET", f"positions/{lamp}/past")[1]["states"]]


def test_every_step_carries_the_name_chosen_on_its_device(bench, phone):
    keys = bench.made()
    phone("PATCH", f"positions/{keys['position']}", {"resistor": "3k3"})
    phone.cookies["hand"] = quote("Änne  O'Hara")
    phone("PATCH", f"positions/{keys['position']}", {"notes": "a joint is dull"})
    named("Bo")("PATCH", f"positions/{keys['position']}", {"rating_w": 0.5})
    assert [by for _, by in log(bench, keys["position"])] == ["Bo", "Änne O'Hara", "Vice", ""]


def test_each_undoes_their_own(bench, phone):
    keys = bench.made()
    path = f"positions/{keys['position']}"
    phone("PATCH", path, {"resistor": "3k3"})
    bench("PATCH", path, {"notes": "mine"})
    # The view's undo is of one's own last step, whatever others did since.
    mine = bench("GET", path)[1]["steps"]["undo"]
    theirs = phone("GET", path)[1]["steps"]["undo"]
    assert "note" in mine["label"] and "resistor" in theirs["label"]
    status, answer = bench("POST", "undo", {"step": theirs["id"]})
    assert status == 409 and answer["errors"][0]["message"].startswith("Vice did that.")
    assert phone("POST", "undo", {"step": theirs["id"]})[0] == 200
    assert bench("GET", path)[1]["position"]["resistor"] != "3k3"
    assert bench("GET", path)[1]["position"]["notes"] == "mine"
    # And redo likewise.
    assert bench("GET", path)[1]["steps"]["redo"] is None
    assert phone("POST", "redo", {"step": phone("GET", path)[1]["steps"]["redo"]["id"]})[0] == 200


def test_what_was_done_before_a_name_was_chosen_stays_ones_own(bench, phone):
    keys = bench.made()
    path = f"positions/{keys['position']}"
    phone("PATCH", path, {"resistor": "3k3"})
    phone.cookies["hand"] = "Ines"
    step = phone("GET", path)[1]["steps"]["undo"]
    assert phone("POST", "undo", {"step": step["id"]})[0] == 200


def test_two_names_at_one_bench_are_two_people(bench):
    keys = bench.made()
    path = f"positions/{keys['position']}"
    one, other = named("Ada"), named("Bo")
    one("PATCH", path, {"resistor": "3k3"})
    step = one("GET", path)[1]["steps"]["undo"]
    assert other("GET", path)[1]["steps"]["undo"] is None or other("GET", path)[1]["steps"]["undo"] != step
    assert other("POST", "undo", {"step": step["id"]})[0] == 409
    assert one("POST", "undo", {"step": step["id"]})[0] == 200


def test_two_hands_on_one_field_within_a_gesture_are_two_steps(bench, phone):
    """Edits of one person within two seconds are one step back; two people's are two."""
    keys = bench.made()
    path = f"positions/{keys['position']}"
    bench("PATCH", path, {"resistor": "3k3"})
    phone("PATCH", path, {"resistor": "3k9"})
    assert [by for _, by in log(bench, keys["position"])][:2] == ["Vice", ""]


def test_the_number_of_changes_goes_up_with_every_change_and_with_nothing_else(bench, phone):
    keys = bench.made()
    before = phone("GET", "pulse")[1]["changes"]
    bench("GET", "bench")
    bench("POST", f"positions/{keys['position']}/assess", {})
    bench("PATCH", f"positions/{keys['position']}", {"resistor": "far too much"})
    assert phone("GET", "pulse")[1]["changes"] == before
    bench("PATCH", f"positions/{keys['position']}", {"resistor": "3k3"})
    assert phone("GET", "pulse")[1]["changes"] == before + 1


@pytest.mark.parametrize("what", ["restore", "item"])
def test_what_changes_the_whole_bench_is_followed_too(bench, phone, other_databases, what):
    keys = bench.made()
    backup = bench("POST", "backups")[1]["name"]
    before = phone("GET", "pulse")[1]["changes"]
    assert bench("POST", f"backups/{backup}/{what}", {"item": keys["equipment"]})[0] == 200
    assert phone("GET", "pulse")[1]["changes"] > before


def test_a_link_shows_one_card_and_nothing_else(bench, stranger):
    keys = bench.made()
    other = bench.made()
    status, made = bench("POST", "devices/links", {"position": keys["position"]})
    assert status == 200 and made["url"].startswith("https://")
    token = made["url"].rsplit("/", 1)[1]
    assert stranger.open(f"/look/{token}") == 200
    status, card = stranger("GET", f"look/{token}")
    assert status == 200 and card["view"]["position"]["id"] == keys["position"]
    # The figures are those of the lamp's own view.
    report = bench("POST", f"positions/{keys['position']}/assess", {})[1]["report"]
    assert card["report"]["sizing"] == report["sizing"] and card["report"]["current"] == report["current"]
    assert card["view"]["siblings"] == [] and other["position"] not in str(card)
    assert card["view"]["steps"] == {"undo": None, "redo": None}
    assert stranger.raw("GET", f"/api/look/{token}/schematic.svg")[1].startswith(b"<svg")
    assert stranger.raw("GET", f"/api/look/{token}/code.svg")[0] == 200
    for path in ("bench", f"positions/{keys['position']}", f"equipment/{keys['equipment']}"):
        assert stranger("GET", path)[0] == 401
    [link] = bench("GET", "devices")[1]["links"]
    assert link["name"] == "Ready, Tide gauge" and token not in str(link)
    assert bench("DELETE", f"devices/links/{link['id']}")[0] == 204
    assert stranger("GET", f"look/{token}")[0] == 404


def photograph(text):
    """A code as a phone's camera gives it: small, off the middle, on a card."""
    from PIL import Image

    drawn = io.BytesIO()
    segno.make_qr(text).save(drawn, kind="png", scale=4, border=4)
    code = Image.open(drawn).convert("RGB").rotate(7, expand=True, fillcolor="white")
    sheet = Image.new("RGB", (1600, 1200), (226, 222, 210))
    sheet.paste(code, (420, 310))
    out = io.BytesIO()
    sheet.save(out, "JPEG", quality=80)
    return out.getvalue()


def test_a_lamp_is_opened_by_either_code_of_its_card(bench):
    from swapglow.document.compact import compact
    from swapglow.records import transfer
    from swapglow.records.models import Position

    keys = bench.made()
    lamp = Position.objects.get(pk=keys["position"])
    figures = compact(transfer.to_document(lamp.equipment, photographs=False), lamp.pk)
    for text in (f"urn:uuid:{lamp.pk}", f"https://10.0.0.7:8418/position/{lamp.pk}", figures):
        status, found = bench.send("scan", "card.jpg", photograph(text))
        assert (status, found) == (200, {"lamp": keys["position"]}), text


@pytest.mark.parametrize(
    ("content", "said"),
    [
        (lambda: photograph(f"urn:uuid:{uuid.uuid4()}"), "of no lamp on this bench"),
        (lambda: photograph("https://shop.example/part/4711"), "of no lamp on this bench"),
        (lambda: b"no picture", "no picture that can be read"),
        (lambda: __import__("tests.hostile.make", fromlist=["jpeg"]).jpeg(), "No code can be read"),
    ],
    ids=["another bench's", "another code", "no picture", "no code"],
)
def test_what_is_no_card_of_this_bench_is_refused_in_a_sentence(bench, content, said):
    status, answer = bench.send("scan", "card.jpg", content())
    assert status == 422 and said in answer["errors"][0]["message"]


def read(svg):
    """The text of a code that is served, by another reader than the one that drew it."""
    import re

    import zxingcpp
    from PIL import Image, ImageDraw

    size = int(re.search(r'width="(\d+)"', svg)[1])
    picture = Image.new("L", (size, size), 255)
    pen = ImageDraw.Draw(picture)
    scale = float(re.search(r"scale\(([\d.]+)\)", svg)[1])
    [path] = [d for d in re.findall(r'd="([^"]+)"', svg) if "h" in d and "m" in d.lower() and "z" not in d]
    x = y = 0.0
    for kind, numbers in re.findall(r"([Mmh])([^Mmh]*)", path):
        values = [float(v) for v in re.findall(r"-?[\d.]+", numbers)]
        if kind == "h":
            pen.rectangle((x * scale, (y - 0.5) * scale, (x + values[0]) * scale - 1, (y + 0.5) * scale - 1), fill=0)
            x += values[0]
        else:
            x, y = values if kind == "M" else (x + values[0], y + values[1])
    return zxingcpp.read_barcodes(picture)[0].text


def test_the_small_code_names_the_lamp_and_where_the_bench_is_reached(bench, stranger, port):
    keys = bench.made()
    status, content, _ = bench.raw(f"positions/{keys['position']}/name.svg")
    assert status == 200 and read(content.decode()) == f"https://127.0.0.2:{port}/position/{keys['position']}"
    bench("POST", "devices/share", {"on": False})
    assert read(bench.raw(f"positions/{keys['position']}/name.svg")[1].decode()) == f"urn:uuid:{keys['position']}"
