"""What leaks to an LED that is off, and what its pulses put into a winding: against ngspice in time, and phasors."""

import math

import pytest

from scripts import reference
from swapglow.core.circuits.kinds.cable import CableRun, mean_a, meter_volts, seen
from swapglow.core.circuits.kinds.hum import WindingFeed, dc_a, harmonics_a
from swapglow.core.parts.led import catalogue
from swapglow.core.quantities import InputError
from tests.core.circuits.decks import deck, diode, led_model, silicon
from tests.core.circuits.results import figure, finding, worked

RED = catalogue()["red-5-diffused"]
CABLE = {"volts": "24V", "length": "60m", "snub": "100nF", "ohm": "2k2"}


def bridge(model, top="top", foot="0"):
    pairs = (("a", top, "plus"), ("b", foot, "plus"), ("c", "minus", top), ("d", "minus", foot))
    return [diode(n, a, b, silicon(model)) for n, a, b in pairs]


@pytest.mark.parametrize("bleed", [None, 1500.0])
@pytest.mark.parametrize("on", [True, False])
@pytest.mark.parametrize("whole", [True, False])
def test_what_reaches_the_led_is_the_references(whole, on, bleed):
    n = CableRun(24.0, 50.0, 106e-9, RED, 2200.0, whole, bleed)
    way_in = ["rsw feed line 0.05"] if on else ["ck feed line 106n", "rk feed line 1e9"]
    lamp = (
        [*bridge("signal"), "vm plus p 0", diode("l", "p", "minus", led_model("red-5-diffused"))]
        if whole
        else [
            "vm top p 0",
            diode("l", "p", "0", led_model("red-5-diffused")),
            diode("g", "0", "top", silicon("signal")),
        ]
    )
    text = deck(
        f"vfeed feed 0 sin(0 {24 * math.sqrt(2)} 50)",
        *way_in,
        *([f"rb line 0 {bleed}"] if bleed else []),
        "rl line top 2200",
        *lamp,
        ".tran 20u 0.4 0 20u",
    )
    theirs = reference.averages(text, ["vm#branch"], 0.36, 0.40)["vm#branch"]
    # Less than a microampere is no light and no figure (the reference's own steps move it by as much).
    assert mean_a(n, on=on) == pytest.approx(theirs, rel=5e-3, abs=2e-7)


def test_a_snubbed_triac_leaks_what_its_capacitor_lets_through():
    """2π · 50 Hz · 100 nF · 24 V are 0.754 mA (trade, and textbook); a meter of 10 MΩ hardly loads it."""
    w = worked("cable", volts="24V", snub="100nF", ohm="2k2")
    assert figure(w, "leak").now.value == pytest.approx(0.754e-3, rel=1e-3)
    reactance = 1 / (2 * math.pi * 50 * 100e-9)
    assert meter_volts(CableRun(24.0, 50.0, 100e-9, RED, 2200.0, True, None)) == pytest.approx(
        24 * abs(10e6 / complex(10e6, -reactance))
    )
    assert meter_volts(CableRun(24.0, 50.0, 0.0, RED, 2200.0, True, None)) == 0.0
    # 60 m of 100 pF are 6 nF.
    assert figure(worked("cable", **CABLE), "farads").now.value == pytest.approx(106e-9)
    longer = worked("cable", **{**CABLE, "per_metre": "150pF"})
    assert figure(longer, "farads").now.value == pytest.approx(109e-9)


def test_the_bleeder_is_the_largest_that_darkens_it():
    w = worked("cable", **CABLE)
    assert w.line.endswith("leak through the LED: seen in a lit room.")
    (one,) = w.options
    assert one.label == "1.5\u00a0kΩ across LED and resistor" and one.advised
    # 24² / 1500 is 384 mW, under half of one watt.
    assert "384\u00a0mW" in one.what and "1 W stands it" in one.what
    dark, next_one = (seen(CableRun(24.0, 50.0, 106e-9, RED, 2200.0, True, o), on=False) for o in (1500.0, 1800.0))
    assert dark == "dark" != next_one
    assert figure(w, "off").after.value < 1e-6 < figure(w, "off").now.value
    done = worked("cable", **CABLE, bleed="1k5")
    assert done.line.endswith("dark.") and done.options == () and finding(done, "glows-off") is None
    assert finding(done, "ghost-volts", "24").grade == "note"


def test_past_extra_low_voltage_nothing_is_to_be_done():
    assert finding(worked("cable", **{**CABLE, "volts": "51V", "ohm": "10k"}), "past-extra-low", "51").grade == "stop"
    assert finding(worked("cable", **{**CABLE, "volts": "50V", "ohm": "10k"}), "past-extra-low") is None
    # Both halves: (33.9 - 3.4) / 1500 is 20.3 mA at the crest and 12 on average, behind 820 ohm 37 and 22.
    assert not any(f.id.endswith("-led") for f in worked("cable", **{**CABLE, "ohm": "1k5"}).findings)
    assert finding(worked("cable", **{**CABLE, "ohm": "820R"}), "over-current-led").grade == "stop"
    # One half: (33.9 - 1.8) / 750 is 43 mA at the crest, over twice 20, and 12 on average.
    assert finding(worked("cable", **{**CABLE, "ohm": "750R", "bridge": "half"}), "crest-led").grade == "mind"


@pytest.mark.parametrize(
    ("changed", "field"),
    [
        ({"length": "", "snub": ""}, "length"),
        ({"length": "20000m"}, "length"),
        ({"snub": "20uF"}, "snub"),
        ({"hertz": "10Hz"}, "hertz"),
        ({"volts": "1V"}, "volts"),
        ({"ohm": ""}, "ohm"),
        ({"snub": "", "length": "900m", "per_metre": "20nF"}, "per_metre"),
    ],
)
def test_a_cable_refuses_what_cannot_be(changed, field):
    with pytest.raises(InputError) as refused:
        worked("cable", **{**CABLE, **changed})
    assert refused.value.field == field


# --- hum --------------------------------------------------------------------------------------------

HUM = {"volts": "6.3V", "source": "0.4R", "lamp_amps": "150mA", "ohm": "330R", "also": "heaters"}


@pytest.mark.parametrize("fed", ["half", "bridge", "smoothed", "pair"])
def test_what_is_in_the_winding_is_the_references(fed):
    """Its DC and its first three harmonics, taken apart in the reference by sine and cosine (Fourier)."""
    led = led_model("red-5-diffused")
    parts = {
        "half": [diode("a", "top", "plus", silicon("power")), "rl plus d 330", diode("l", "d", "0", led)],
        "pair": ["rl top d 330", diode("l", "d", "0", led), diode("o", "0", "d", led)],
        "bridge": [*bridge("power"), "rl plus e 330", diode("l", "e", "minus", led)],
        "smoothed": [
            *bridge("power"),
            "rl plus e 330",
            diode("l", "e", "minus", led),
            "cs plus minus 100u",
            "rq minus 0 1e8",
        ],
    }[fed]
    # Nothing but the capacitor remembers the cycle before.
    begin, end = (0.36, 0.4) if fed == "smoothed" else (0.08, 0.12)
    waves = [
        f"b{f}{k} {f}{k} 0 v=(v(emf)-v(top))/0.4*{f}(6.283185307179586*{50 * k}*time)"
        for k in (1, 2, 3)
        for f in ("sin", "cos")
    ]
    text = deck(
        f"vw emf 0 sin(0 {6.3 * math.sqrt(2)} 50)",
        "rs emf top 0.4",
        *parts,
        *waves,
        "bdc dc 0 v=(v(emf)-v(top))/0.4",
        f".tran 10u {end} 0 10u",
    )
    nodes = ["dc", *(f"{f}{k}" for k in (1, 2, 3) for f in ("sin", "cos"))]
    theirs = reference.averages(text, nodes, begin, end)
    f = WindingFeed(6.3, 50.0, 0.4, RED, 330.0, fed, 100e-6)
    assert dc_a(f) == pytest.approx(abs(theirs["dc"]), rel=5e-3, abs=2e-6)
    for k in (1, 2, 3):
        rms = math.sqrt(2) * math.hypot(theirs[f"sin{k}"], theirs[f"cos{k}"])
        assert harmonics_a(f)[k - 1] == pytest.approx(rms, rel=1e-2, abs=1e-5), k


def test_half_a_wave_biases_the_core_and_both_halves_do_not():
    w = worked("hum", **HUM)
    assert w.line == "5.05\u00a0mA of DC in the winding, 3.58\u00a0mA of harmonics."
    assert finding(w, "dc-in-winding", "5.05").grade == "mind"
    assert finding(worked("hum", **{**HUM, "also": "nothing"}), "dc-in-winding", "5.05").grade == "note"
    # Under a hundredth of what the old lamp carried it is not spoken of: 5.05 of 600 mA.
    assert finding(worked("hum", **{**HUM, "lamp_amps": "600mA"}), "dc-in-winding") is None
    best = w.options[0]
    assert best.id == "pair" and best.advised and best.changes == {"fed": "pair"}
    assert figure(w, "dc").after.value == pytest.approx(0, abs=1e-7)
    rows = {r.label: r.cells for r in w.tables[0].rows}
    # Without DC or even harmonics: symmetric; √Σ of the rest over 0.4 Ω is what stands on the winding.
    assert rows["A bridge, nothing stored"][0].value == rows["A bridge, nothing stored"][2].value == 0
    buzz = math.sqrt(sum(c.value**2 for c in rows["Half a wave: one diode"][2:]))
    assert figure(w, "hum-volts").now.value == pytest.approx(0.4 * buzz, rel=1e-6)


def test_direct_current_is_worse_than_as_much_of_harmonics():
    """A bridge with its capacitor puts in far more harmonics than half a wave, and is yet the quieter: it has no DC."""
    labels = [x.label for x in worked("hum", **HUM, fed="pair").options]
    assert labels == ["A bridge, nothing stored", "A bridge and a capacitor", "Half a wave: one diode"]


def test_a_capacitors_pulses_and_a_receiver_are_said():
    smoothed = worked("hum", **HUM, fed="smoothed")
    pulse = finding(smoothed, "charging-pulses", "120")
    assert pulse.grade == "mind" and "8 times what the LED takes" in pulse.message
    assert finding(worked("hum", **{**HUM, "also": "nothing"}, fed="smoothed"), "charging-pulses") is None
    assert finding(worked("hum", **{**HUM, "also": "receiver"}), "receiver").grade == "mind"
    assert finding(worked("hum", **HUM), "receiver") is None
    # Nothing is advised where nothing listens, and nothing where the quietest is there.
    assert not any(x.advised for x in worked("hum", **{**HUM, "also": "nothing"}).options)
    assert not any(x.advised for x in worked("hum", **HUM, fed="pair").options)


@pytest.mark.parametrize(
    ("changed", "field"), [({"volts": "2V"}, "volts"), ({"hertz": "2kHz"}, "hertz"), ({"ohm": ""}, "ohm")]
)
def test_hum_refuses_what_cannot_be(changed, field):
    with pytest.raises(InputError) as refused:
        worked("hum", **{**HUM, **changed})
    assert refused.value.field == field
