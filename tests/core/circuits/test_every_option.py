"""Every option of every kind, the advised one or not: what it changes, to which value, and what holds once it is done.

Values and ratings are sums by hand (Ohm, Joule, Kirchhoff), written out beside them; preferred values by IEC 60063.
"""

import pytest

from swapglow.core.circuits import CIRCUITS
from swapglow.core.circuits.answer import answer
from swapglow.core.quantities import OHM, Input
from swapglow.core.quantities.inputs import read_single
from tests.core.circuits.results import option, worked

# Two values, two lamps, two rails of each, so that first, last, lowest and highest can be told apart.
TYPED = {
    "sense_board": {
        "sense_ohm": "22 ‖ 33",
        "wanted": "60 %",
        "read": "20mA",
        "plug": "4W",
        "count": "10",
        "each": "3V",
    },
    "chip_bank": {"rail": "5V", "banks": "keys: 8 white × 150R\nbar: 5 red × 330R", "wanted": "25 %"},
    "light_string": {"feed": "dc", "volts": "30V", "count": "10", "keep": "8", "amps": "20mA", "led": "red-5-diffused"},
    "power_led": {"led_v": "30-36V", "led_a": "900mA", "driver_a": "700mA", "sink": "4.7K/W", "case": "0.8K/W"},
    "strobed": {"volts": "18V", "duty": "1/6", "led": "red-5-diffused", "ohm": "220R", "diode": "yes", "mean": "3mA"},
    "lamp_matrix": {"volts": "15V", "rows": "3", "columns": "4", "ohm": "470R", "led": "red-5-diffused"},
    "phase_dimmer": {"volts": "24V", "led": "red-5-diffused", "ohm": "470R", "mean": "8mA"},
    "regulator_pick": {"low": "9.6V", "high": "15.2V", "amps": "12mA", "led": "red-5-diffused"},
    "new_light": {"feed": "cmos", "high": "4.7V", "most": "5V", "amps": "2mA", "led": "red-5-diffused"},
    "charge_lamp": {"rest_volts": "12.6V", "lamp_volts": "12V", "lamp_amps": "0.18A", "field": "8R", "ohm": "1k"},
    "two_feeds": {"volts": "13.8V", "side_volts": "12V", "side_amps": "3.5A", "ohm": "680R", "led": "green-5-clear"},
    "lamp_net": {
        "volts": "12.8V",
        "feeds": "TAIL, STOP",
        "lamps": "tail: TAIL to shell, 12V 0.4A\nstop: STOP to shell, 12V 1.75A\nplate: TAIL to ground, 12V 0.42A",
    },
    "rheostat": {
        "volts": "13.6V",
        "track": "25R",
        "count": "4",
        "lamp_volts": "12V",
        "lamp_amps": "0.12A",
        "led": "green-5-clear",
        "ohm": "680R",
    },
    "coil": {
        "low": "22V",
        "high": "29V",
        "coil": "320R",
        "lamp_volts": "12V",
        "lamp_amps": "80mA",
        "pull": "42mA",
        "hold": "15mA",
        "ohm": "1k5",
    },
    "sensor": {
        "lamp_volts": "6V",
        "lamp_amps": "0.3A",
        "run": "5.2V",
        "read": "120uA",
        "led_amps": "10mA",
        "feed": "5V",
    },
    "warmer": {"volts": "12V", "lamp_volts": "12V", "lamp_amps": "0.4A", "room": "4°C", "warm": "19°C", "damp": "98 %"},
    "gauge": {"low": "4.2V", "usual": "6V", "lamp_volts": "6V", "lamp_amps": "50mA", "ohm": "680R"},
    "cable": {"volts": "24V", "snub": "100nF", "ohm": "2k2"},
    "hum": {"volts": "6.3V", "source": "0.4R", "ohm": "330R", "also": "heaters"},
}
# A magneto wants a regulator; a dropper and a converter are left alone; a clip has nothing to choose.
NO_OPTION = {"magneto", "dropper", "converter_board", "blind_clip"}
EVERY = [(kind, o.id) for kind, typed in TYPED.items() for o in worked(kind, **typed).options]


def test_every_kind_that_offers_something_is_here():
    assert {kind for kind, _ in EVERY} == set(CIRCUITS) - NO_OPTION


@pytest.mark.parametrize(("kind", "id_"), EVERY)
def test_what_is_said_to_come_after_is_what_is_shown_once_it_is_done(kind, id_):
    typed = TYPED[kind]
    chosen = worked(kind, id_, **typed)
    changes = option(chosen, id_).changes
    if not changes:
        return
    # What somebody read afterwards, and what was marked, decide by themselves: they are left out here.
    done = worked(
        kind, **{**typed, **changes, "read": "", "plug": ""} if kind == "sense_board" else {**typed, **changes}
    )
    after = {f.id: f.after.value for f in chosen.figures if f.after is not None}
    now = {f.id: f.now.value for f in done.figures}
    if kind == "sense_board":
        # Its current is the board's own: Vref over what is there (textbook), so that the ratio is what is compared.
        share = option(chosen, id_).outcome.value
        assert after["current"] == pytest.approx(0.020 * share)
        assert now["current"] / worked(kind, sense_ohm="22 ‖ 33").figures[0].now.value == pytest.approx(share, rel=1e-3)
        return
    if chosen.figures and after:
        assert after == pytest.approx({k: now[k] for k in after}, rel=1e-6), changes


@pytest.mark.parametrize(("kind", "id_"), EVERY)
def test_an_option_that_may_be_taken_brings_no_stop(kind, id_):
    before = worked(kind, **TYPED[kind])
    one = option(before, id_)
    if one.bars or not one.changes or kind == "lamp_net":
        return
    known = {f.id for f in before.findings if f.grade == "stop"}
    after = {f.id for f in worked(kind, **{**TYPED[kind], **one.changes}).findings if f.grade == "stop"}
    assert after <= known


def changed(kind, id_, detail):
    text = option(worked(kind, **TYPED[kind]), id_).changes[detail]
    return read_single(detail, text, OHM)


@pytest.mark.parametrize(
    ("kind", "id_", "detail", "ohm"),
    [
        # 18 V - 2 V - 0.8 V over 3 mA x 6 is 844 Ω: the next of E24.
        ("strobed", "fit", "ohm", 910.0),
        # 15 V - 2 V - 0.7 V over 2 mA x 3, less both switches, is 2.05 kΩ: the next of E24.
        ("lamp_matrix", "fit", "ohm", 2200.0),
        # 12.6 V less the filament's share leave 173 mA to the field (Kirchhoff): (12.6 - 1.39) V over 163 mA is 69 Ω.
        ("charge_lamp", "beside", "beside", 68.0),
        # A tenth over 42 mA leaves 7.2 V: the LED takes 3.5 mA of 46.2, and 7.2 V over 42.7 mA are 169 Ω.
        ("coil", "beside", "beside", 150.0),
        # 13.6 V over 4 x 129 mA is 26.4 Ω, what the old lamps were: the next of E12.
        ("rheostat", "shunt", "shunt", 27.0),
        ("gauge", "follow", "ohm", 390.0),
        ("gauge", "follow", "across", 330.0),
    ],
)
def test_it_changes_one_part_to_a_value_by_hand(kind, id_, detail, ohm):
    assert changed(kind, id_, detail) == pytest.approx(ohm)


@pytest.mark.parametrize(
    ("id_", "left"),
    # I goes with 1/R (Ohm): 13.2 Ω of now over what is there then. 60 % is 22 Ω: for the 22 that is 66, so 68 of E24;
    # for the 33 nothing, for the 22 alone has that.
    [
        ("clip-22", 13.2 / 33),
        ("clip-33", 13.2 / 22),
        ("series", 13.2 / (13.2 + 9.1)),
        ("exchange-22-68", 13.2 / (68 * 33 / 101)),
        ("exchange-33-47", None),
    ],
)
def test_each_change_of_a_board_leaves_its_ratio(id_, left):
    options = {o.id: o.outcome.value for o in worked("sense_board", **TYPED["sense_board"]).options}
    if left is None:
        assert id_ not in options
    else:
        assert options[id_] == pytest.approx(left, rel=2e-3)


def test_what_was_done_takes_what_was_read_afterwards_for_now():
    typed = {**TYPED["sense_board"], "plug_after": "2.4W"}
    kind = CIRCUITS["sense_board"]
    read = kind.read({name: Input(text) for name, text in typed.items()})
    for one in answer(kind, read, "series").result.options:
        assert (one.changes["plug"], one.changes["plug_after"], one.changes["read"]) == ("2.4W", "", "")


@pytest.mark.parametrize(
    ("kind", "id_", "says"),
    [
        # 14.2 V on 68 Ω while its wire is on the frame is 2.95 W (Joule), over half of five.
        ("charge_lamp", "beside", "2.95\u00a0W while its wire is on the frame: 10 W stands it"),
        # 29 V leave 8.8 V across 150 Ω: 0.51 W.
        ("coil", "beside", "514\u00a0mW at the highest rail: 2 W stands it"),
        # 13.6 V on 27 Ω are 6.85 W.
        ("rheostat", "shunt", "6.85\u00a0W at the bright end: no leaded body stands it"),
        # 24 V on 1.8 kΩ are 320 mW.
        ("cable", "bleed", "320\u00a0mW while it is on: 1 W stands it"),
        # 20 mA through 330 Ω are 132 mW, over half of an eighth and under half of a half.
        ("light_string", "parts-1", "half its rating or less"),
        # 12 V on 27 Ω are 5.33 W.
        ("warmer", "all", "5.33\u00a0W"),
    ],
)
def test_its_heat_and_the_body_that_stands_it(kind, id_, says):
    assert says in option(worked(kind, **TYPED[kind]), id_).what


def test_modes_other_than_the_usual_one():
    """Half a wave is half of a bridge's light and current (Talbot-Plateau); all banks together are the sum of each."""
    whole, half = (worked("phase_dimmer", **{**TYPED["phase_dimmer"], "way": way}) for way in ("bridge", "half"))
    by_id = [{f.id: f.now.value for f in w.figures} for w in (whole, half)]
    # One diode less in the loop: a little more than half.
    assert 0.5 < by_id[1]["mean"] / by_id[0]["mean"] < 0.53
    for where in ("column", "lamp", "row"):
        one = worked("lamp_matrix", **{**TYPED["lamp_matrix"], "where": where}).figures[0].now.value
        # One lamp alone: 15 V - 2 V - 0.75 V over 470 Ω and two switches, wherever the resistor is (Ohm).
        assert one == pytest.approx(12.25 / 470.2, rel=0.01)
    banks = worked("chip_bank", **TYPED["chip_bank"])
    assert banks.figures[0].now.value == pytest.approx(
        sum(count * s.amps.value for count, s in zip((8, 5), banks.stairs, strict=True))
    )
    volts = [sum(step.volts for step in s.steps) for s in banks.stairs]
    assert volts == pytest.approx([5.0, 5.0])
