"""One question, one answer: what a lamp comes to is the same in every view, command and export that says it."""

import contextlib
import io
import json
import os
import re
import uuid

import pytest

from scripts.fuzz.documents import document
from swapglow.cli import main
from swapglow.core.quantities import OHM, InputError, parse
from swapglow.inputs.to_core import position_of
from swapglow.records.models import Equipment, Position, Rail, Summary
from swapglow.records.summaries import refresh
from tests.api.page import Bench

pytestmark = pytest.mark.django_db

ITEMS = 500 if os.environ.get("TORTURE") else 6
# What a document holds of a lamp says all of these; what lies in the drawer and the house's habits it does not.
OF_THE_LAMP = ("sizing", "current", "power", "heat", "supply", "runtime", "glow", "findings", "warmth", "cycle", "duty")


@pytest.fixture
def bench():
    return Bench()


def reads(rail, lamp):
    try:
        position_of(lamp, rail)
    except InputError:
        return False
    return True


def items():
    """Random items: a rail, and one to three lamps that read on it."""
    made, seed = 0, 70_000
    while made < ITEMS:
        seed += 1
        rail, first = document(seed)
        others = [document(seed * 7 + k)[1] for k in range(seed % 3)]
        lamps = [lamp for lamp in (first, *others) if reads(rail, lamp)]
        if lamps:
            made += 1
            yield seed, rail, lamps


def kept(seed, rail, lamps):
    """An item in the records; its key and its lamps'."""
    item = Equipment.objects.create(inputs={"name": f"Item {seed}"}, order=seed)
    feed = Rail.objects.create(equipment=item, inputs=rail.model_dump(mode="json"), order=0)
    keys = []
    for k, lamp in enumerate(lamps):
        inputs = {**lamp.model_dump(mode="json"), "name": f"Lamp {k}"}
        keys.append(str(Position.objects.create(equipment=item, rail=feed, inputs=inputs, order=k).pk))
        Summary.objects.create(position_id=keys[-1])
    return str(item.pk), str(feed.pk), keys


def command(data, *more):
    """What ``swapglow assess`` says of a document."""
    path = f"/tmp/one-answer-{uuid.uuid4()}.json"
    with open(path, "wb") as file:
        file.write(data)
    out = io.StringIO()
    try:
        with contextlib.redirect_stdout(out):
            assert main(["assess", *more, path]) == 0
    finally:
        os.remove(path)
    return out.getvalue()


def by_word(lines, word):
    return next((line.split(word, 1)[1].strip() for line in lines.splitlines() if line.startswith(f"  {word} ")), "")


def test_every_view_says_the_same(bench):
    asked = lasting = 0
    for seed, rail, lamps in items():
        item, feed, keys = kept(seed, rail, lamps)
        seen = {k: bench("POST", f"positions/{k}/assess", {}) for k in keys}
        if any(status != 200 for status, _ in seen.values()):
            # What has no answer is refused by name wherever it is asked.
            assert all(body["errors"][0]["message"] for status, body in seen.values() if status != 200), seed
            continue
        asked += 1
        report = {k: body["report"] for k, (_, body) in seen.items()}
        exported = bench.raw(f"equipment/{item}/document.json")[1]
        told = {p["id"]: p["report"] for p in json.loads(command(exported, "--json"))["positions"]}
        lines = command(exported)
        row = {lamp["id"]: lamp for lamp in bench("GET", f"equipment/{item}/row")[1]["lamps"]}
        _, budget = bench("GET", f"rails/{feed}/budget")
        refresh()
        shown = {p["id"]: p for e in bench("GET", "bench")[1]["equipment"] for p in e["positions"]}
        for key, lamp in zip(keys, lamps, strict=True):
            r = report[key]
            for section in OF_THE_LAMP:
                assert told[key][section] == r[section], (seed, section)
            own = lines.split(f"Lamp {keys.index(key)}\n", 1)[1]
            assert by_word(own, "resistor").startswith(r["sizing"]["total"]["number"]), seed
            assert f"usual {said(r['current']['usual'])}" in by_word(own, "current"), seed
            assert by_word(own, "heat").startswith(said(r["power"]["each"])), seed
            usual = next(g for g in r["glow"]["lamps"] if g["id"] == "usual")
            # Beside each other lamps are compared in candela; by itself one that lights a thing gives lumens.
            if usual["amount"]["unit"].endswith("cd"):
                assert said(row[key]["amount"]) == said(usual["amount"]), seed
            assert shown[key]["grade"] == (r["findings"][0]["grade"] if r["findings"] else None), seed
            as_is = [s for s in swaps(bench, key) if s["id"] == "as-is"]
            assert all(s["current"] == said(r["current"]["usual"]) for s in as_is if s["current"]), seed
            if r["runtime"] is not None and budget.get("hours_after"):
                lasting += 1
                assert budget["hours_after"]["value"] == pytest.approx(r["runtime"]["led"]["value"]), seed
            deck = bench("GET", f"positions/{key}/spice")[1].get("text", "")
            ohms = re.search(r"^R1 \S+ \S+ (\S+)", deck, re.MULTILINE)
            if ohms is not None and lamp.branches == 1 and not lamp.beside and r["sizing"]["total"]["value"]:
                assert float(ohms[1]) * parts(deck) == pytest.approx(r["sizing"]["total"]["value"], rel=1e-6), seed
        if len(keys) == 1 and plain(rail):
            quick(bench, rail, lamps[0], report[keys[0]], seed)
    assert asked > ITEMS / 3 and lasting >= ITEMS / 60 - 1


def said(figure):
    return f"{figure['number']} {figure['unit']}".replace("\u00a0", " ")


def swaps(bench, key):
    status, body = bench("GET", f"positions/{key}/swaps")
    return (
        [{k: v.replace("\u00a0", " ") if isinstance(v, str) else v for k, v in s.items()} for s in body["swaps"]]
        if status == 200
        else []
    )


def parts(deck):
    """How many resistors stand in the string."""
    return 2 if re.search(r"^R2 ", deck, re.MULTILINE) else 1


def plain(rail):
    """Whether a rail is all said in one text, as the quick sum takes it."""
    return rail.kind == "regulated" and not (rail.low.text or rail.high.text or rail.fuse or rail.details)


def quick(bench, rail, lamp, report, seed):
    """The quick sum of the same."""
    status, body = bench("POST", "quick", {"rail": rail.usual.text, "position": lamp.model_dump(mode="json")})
    assert status == 200, (seed, body)
    for section in ("sizing", "current", "power", "heat"):
        assert body["report"][section] == report[section], (seed, section)


@pytest.mark.parametrize("seed", range(90_000, 90_000 + ITEMS))
def test_a_text_is_read_alike_by_every_reader(bench, seed):
    """What a resistor's field shows as taken is what the sum is made with."""
    _, lamp = document(seed)
    if not lamp.resistor:
        return
    status, body = bench("POST", "echo", {"text": lamp.resistor, "unit": OHM.symbol})
    assert status == 200
    assert parse(body["echo"], OHM).usual == pytest.approx(parse(lamp.resistor, OHM).usual, rel=5e-3)
