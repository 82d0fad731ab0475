"""Lamps that feed each other: every combination by brute force in ngspice, the path and its cure by hand."""

import re
from itertools import product

import pytest

from scripts import reference
from swapglow.core.circuits import CIRCUITS
from swapglow.core.circuits.kinds.lamp_net import fed_by, path, read_net, solve
from swapglow.core.quantities import Input, InputError
from tests.core.circuits.decks import deck, diode, filament, led_model, silicon
from tests.core.circuits.results import worked

TRAILER = "tail: TAIL to shell, 12V 0.4A\nstop: STOP to shell, 12V 1.75A\nplate: TAIL to ground, 12V 0.42A"
NET = {"volts": "12.8V", "feeds": "TAIL, STOP", "lamps": TRAILER}
TELL = "tell: x to ground, led 680R\na: LEFT to x, diode\nb: RIGHT to x, diode\nl: LEFT to ground, 12V 1.75A\n"
TELL += "r: RIGHT to ground, 12V 1.75A\nhigh: HIGH to ground, 12V 0.2A"


def net(**typed):
    kind = CIRCUITS["lamp_net"]
    return read_net(kind.read({k: Input(v) for k, v in typed.items()}))


@pytest.mark.parametrize(
    ("feeds", "lines", "typed"),
    [
        (
            ("TAIL", "STOP"),
            [
                ("tail", "TAIL", "shell", (12, 0.4)),
                ("stop", "STOP", "shell", (12, 1.75)),
                ("plate", "TAIL", "0", (12, 0.42)),
            ],
            TRAILER,
        ),
        (
            ("LEFT", "RIGHT", "HIGH"),
            [
                ("tell", "x", "0", 680),
                ("a", "LEFT", "x", None),
                ("b", "RIGHT", "x", None),
                ("l", "LEFT", "0", (12, 1.75)),
                ("r", "RIGHT", "0", (12, 1.75)),
                ("high", "HIGH", "0", (12, 0.2)),
            ],
            TELL,
        ),
    ],
)
def test_every_combination_is_the_references(feeds, lines, typed):
    """Brute force: a netlist of its own for each combination, each current within a thousandth."""
    decks = []
    for on in product((False, True), repeat=len(feeds)):
        parts = [f"rsw{f} feed {f} {0.05 if yes else 1e9}" for f, yes in zip(feeds, on, strict=True)]
        parts += [f"rair{e} {e} 0 1e9" for e in ("shell", "x") if any(e in x[1:3] for x in lines)]
        for name, top, foot, what in lines:
            parts.append(f"vm{name} {top} {name}in 0")
            if what is None:
                parts.append(diode(name, f"{name}in", foot, silicon("power")))
            elif isinstance(what, tuple):
                parts.append(filament(name, f"{name}in", foot, *what))
            else:
                parts += [
                    f"r{name} {name}in {name}d {what}",
                    diode(name, f"{name}d", foot, led_model("red-5-diffused")),
                ]
        decks.append(deck("vfeed feed 0 12.8", *parts).lower())
    found = solve(net(volts="12.8V", feeds=", ".join(feeds), lamps=typed))
    for state, theirs in enumerate(reference.operating_points(decks)):
        for k, (name, *_rest) in enumerate(lines):
            ours = found.amps(f"V{k}")[state]
            assert ours == pytest.approx(theirs[f"i(vm{name})"], rel=1e-3, abs=1e-7), (state, name)


def test_a_lost_ground_is_found_by_its_path_and_cured():
    """With the shell off ground the stop lamp returns through tail, and through the number plate to ground."""
    w = worked("lamp_net", **NET)
    assert w.line == "Wrong: STOP on: tail and plate glow, stop is not lit."
    (sneak,) = w.paths
    assert sneak.stations == ("STOP", "stop", "shell", "tail", "TAIL", "plate", "ground") and not sneak.wanted
    assert (
        sneak.state == "STOP on"
        and sneak.said == "tail and plate glow"
        and sneak.amps.value == pytest.approx(0.284, abs=1e-3)
    )
    assert [j.message for j in w.findings] == [
        "STOP on: tail and plate glow, stop is not lit.",
        "TAIL on: tail is not lit.",
        "TAIL and STOP on: tail and stop are not lit.",
    ]
    best = w.options[0]
    assert best.id == "ground-shell" and best.advised and best.outcome.value == 0
    cured = worked("lamp_net", **{**NET, "lamps": best.changes["lamps"]})
    assert (
        cured.line == "Right in every combination of the switches."
        and cured.options == cured.paths == cured.findings == ()
    )
    rows = {r.label: r for r in cured.tables[0].rows}
    assert rows["STOP on"].words == "tail: dark; stop: lit; plate: dark"
    assert rows["All off"].cells[0].value == 0


def test_a_diode_keeps_a_feed_out_of_another():
    """Two lamps that share a heavy one to ground are right; with a light one each feeds the other's wire."""
    crossed = "one: A to x, 12V 0.1A\ntwo: B to x, 12V 0.1A\nload: x to ground, 12V 2A"
    w = worked("lamp_net", volts="12V", feeds="A B", lamps=crossed)
    assert w.line == "Right in every combination of the switches."
    # Without the heavy load the same net feeds back: it glows through the other's own ground lamp.
    back = "one: A to x, 12V 0.3A\ntwo: B to x, 12V 0.3A\nfar: B to ground, 12V 0.3A\nx: x to ground, 12V 0.3A"
    wrong = worked("lamp_net", volts="12V", feeds="A, B", lamps=back)
    assert any(p.stations == ("A", "one", "x", "two", "B", "far", "ground") for p in wrong.paths)
    assert "A diode before two, its band to two" in [x.label for x in wrong.options]
    better = next(x for x in wrong.options if x.id == "diode-two")
    again = worked("lamp_net", volts="12V", feeds="A, B", lamps=better.changes["lamps"])
    assert len(again.paths) < len(wrong.paths)
    assert (
        "two-d: B to two-d, diode" in better.changes["lamps"] and "two: two-d to x, 12V 0.3A" in better.changes["lamps"]
    )


def test_a_lamp_at_half_its_volts_is_not_lit():
    """Two alike in series have 6.4 V of 12 each: over the eighth that is seen, under the two thirds that are lit."""
    w = worked("lamp_net", volts="12.8V", feeds="A", lamps="one: A to x, 12V 0.4A\ntwo: x to ground, 12V 0.4A")
    assert w.line == "Wrong: A on: one is not lit."
    assert {r.label: r.words for r in w.tables[0].rows}["A on"] == "one: glows; two: glows"
    # A ground between them would leave the other with both ends there: nothing of one part cures it.
    assert w.options == ()


def test_only_what_helps_is_offered_and_only_what_cures_is_advised():
    """Of the trailer's cures a diode before stop or plate leaves as much wrong as there was."""
    assert [(x.label, x.outcome.value, x.advised) for x in worked("lamp_net", **NET).options] == [
        ("A ground at shell", 0, True),
        ("A diode before tail, its band to tail", 4, False),
    ]
    # With that ground out of reach nothing cures it whole: what leaves least is first, and not advised.
    back = "one: A to x, 12V 0.3A\ntwo: B to x, 12V 0.3A\nfar: B to ground, 12V 0.3A\nx: x to ground, 12V 0.3A"
    ways = worked("lamp_net", volts="12V", feeds="A, B", lamps=back).options
    lefts = [x.outcome.value for x in ways]
    assert lefts == sorted(lefts) and [x.advised for x in ways] == [k == 0 and lefts[0] == 0 for k in range(len(ways))]
    diodes = [x for x in ways if x.id.startswith("diode")]
    assert diodes and all(x.outcome.value > 0 and not x.advised for x in diodes)


def test_a_feed_reaches_through_diodes_and_both_on_at_one_end_still_lights():
    n = net(volts="12.8V", feeds="LEFT RIGHT HIGH", lamps=TELL)
    assert fed_by(n, "x") == {"LEFT", "RIGHT"} and fed_by(n, "ground") == frozenset() and fed_by(n, "HIGH") == {"HIGH"}
    w = worked("lamp_net", volts="12.8V", feeds="LEFT RIGHT HIGH", lamps=TELL)
    assert w.line == "Right in every combination of the switches." and len(w.tables[0].rows) == 8
    assert path(n, 0, n.combinations.index((True, False, False))) == ("LEFT", "a", "x", "tell", "ground")


def test_every_part_is_judged_against_what_it_stands():
    """12.8 V less some 3 over 47 ohm is some 200 mA through an LED of 20; a lamp of 6 V on 12.8 burns out (Ohm)."""
    lamps = "tell: LEFT to ground, led 47R\nl: LEFT to ground, 6V 1A"
    w = worked("lamp_net", volts="12.8V", feeds="LEFT", lamps=lamps)
    said = [j.message for j in w.findings if j.grade == "stop"]
    assert any(m.startswith("LEFT on: the LED of tell carries 199") and "over its rated 20" in m for m in said)
    assert any(m.startswith("l: 12.7") and "a lamp of 6" in m for m in said)
    assert w.line.startswith("Wrong: LEFT on: the LED of tell carries")


def test_a_tell_tale_between_two_feeds_is_dark_with_both_on_and_one_way_round_is_wrong():
    lamps = "tell: LEFT to RIGHT, led 680R\nl: LEFT to ground, 12V 1.75A\nr: RIGHT to ground, 12V 1.75A"
    w = worked("lamp_net", volts="12.8V", feeds="LEFT RIGHT", lamps=lamps)
    assert [j.message for j in w.findings] == [
        "RIGHT on: the LED of tell sees 12.7\u00a0V in reverse, over its 5\u00a0V.",
        "RIGHT on: tell is not lit.",
    ]
    assert "wrong way round" in w.findings[1].why


@pytest.mark.parametrize("ground", ["ground", "Ground", "GND", "earth", "0"])
def test_ground_is_ground_however_it_is_written(ground):
    """One that was not taken for it would hang in the air, and nothing would be lit."""
    n = net(**{**NET, "lamps": TRAILER.replace("ground", ground)})
    assert n.parts[2].foot == "ground"


@pytest.mark.parametrize(
    ("changed", "field", "said"),
    [
        ({"lamps": TRAILER + "\nfog: Tail to ground, 12V 1A"}, "lamps", 'Is "Tail" the same as "TAIL"'),
        ({"feeds": "TAIL, STOP, GND"}, "feeds", "none of them ground"),
        ({"volts": ""}, "volts", "Type this too"),
        ({"feeds": ""}, "feeds", "Type this too"),
        ({"feeds": "A B C D E"}, "feeds", "Up to 4"),
        ({"feeds": "TAIL TAIL"}, "feeds", "each once"),
        ({"feeds": "TAIL, STOP, FOG"}, "feeds", 'No line has "FOG"'),
        ({"lamps": ""}, "lamps", "Type this too"),
        ({"lamps": "tail TAIL shell 12V"}, "lamps", "is no line"),
        ({"lamps": "t: TAIL to TAIL, diode"}, "lamps", "both ends"),
        ({"lamps": TRAILER + "\ntail: STOP to ground, diode"}, "lamps", "there twice"),
        ({"lamps": "t: TAIL to STOP, 12V"}, "lamps", "12V 5W for a lamp"),
        ({"lamps": "t: TAIL to STOP, 12V x"}, "lamps", "x"),
        ({"lamps": "t: TAIL to STOP, led 0R"}, "lamps", "0R"),
        ({"lamps": "\n".join(f"l{k}: TAIL to STOP, 12V 1A" for k in range(13))}, "lamps", "13 lines"),
    ],
)
def test_what_is_no_net_is_refused_at_its_field(changed, field, said):
    with pytest.raises(InputError, match=said) as refused:
        worked("lamp_net", **{**NET, **changed})
    assert refused.value.field == field


def test_its_text_for_a_simulator_is_all_on_with_filaments_at_rest():
    """Read by the reference: tail and plate carry what every combination's last one says."""
    w = worked("lamp_net", **NET)
    (theirs,) = reference.operating_points([re.sub(r"^\.op\s*$", "", w.spice.lower(), flags=re.M)])
    found = solve(net(**NET))
    for k in range(3):
        assert theirs[f"i(v{k})"] == pytest.approx(found.amps(f"V{k}")[-1], rel=1e-3)
