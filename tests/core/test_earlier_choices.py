"""Options that were stored by their words are found by id: against every option that circuits offer today."""

import pytest

from swapglow.inputs.earlier_choices import chosen_id
from swapglow.inputs.equipment import FittedInput

# As versions before this one stored them, and what each is called now.
STORED = [
    ("sense_board", "Clip the 91\u00a0Ω", "clip-91"),
    ("sense_board", "Clip the 6.8\u00a0Ω", "clip-6.8"),
    ("sense_board", "68\u00a0Ω for the 22\u00a0Ω", "exchange-22-68"),
    ("sense_board", "1.2\u00a0kΩ for the 330\u00a0mΩ", "exchange-0.33-1200"),
    ("sense_board", "Add 39\u00a0Ω in series", "series"),
    ("chip_bank", "Raise the resistors of all banks", "raise"),
    ("chip_bank", "Raise the resistors of logo", "raise"),
    ("chip_bank", "Add one resistor in the shared wire", "common"),
    ("chip_bank", "Make the banks look equal", "equal"),
    ("chip_bank", "680\u00a0Ω for keys for play", "bank-keys for play-680"),
    ("light_string", "330\u00a0Ω, 0.25 W", "parts-1"),
    ("light_string", "2 × 1\u00a0kΩ, 2 W each", "parts-2"),
    ("light_string", "1\u00a0kΩ by practice's sum", "practice"),
    ("power_led", "A sink of 1.5 K/W or better", "sink"),
    ("power_led", "Drive it at 540\u00a0mA", "drive"),
    ("regulator_pick", "5 V regulator TO-220", "fixed-5-to220"),
    ("strobed", "Fit 1\u00a0kΩ", "fit"),
    ("new_light", "From the pin to ground", "to-ground"),
    ("new_light", "Through a transistor", "transistor"),
    ("charge_lamp", "68\u00a0Ω beside it", "beside"),
    ("coil", "150\u00a0Ω beside it", "beside"),
    ("two_feeds", "Between the feeds, in a bridge", "bridge"),
    ("lamp_net", "A ground at shell", "ground-shell"),
    ("lamp_net", "A diode before stop lamp, its band to stop lamp", "diode-stop lamp"),
    ("rheostat", "27\u00a0Ω across the LEDs", "shunt"),
    ("rheostat", "Pulses of a width", "pulses"),
    ("warmer", "What is needed: 100\u00a0Ω where the lamp was", "needed"),
    ("gauge", "390\u00a0Ω in series and 330\u00a0Ω across", "follow"),
    ("cable", "1.5\u00a0kΩ across LED and resistor", "bleed"),
    ("hum", "Two LEDs head to tail", "pair"),
]


@pytest.mark.parametrize(("kind", "words", "id_"), STORED)
def test_words_become_the_id(kind, words, id_):
    assert chosen_id(kind, words) == id_
    assert FittedInput.model_validate({"kind": kind, "chosen": words}).chosen == id_


@pytest.mark.parametrize(("kind", "_words", "id_"), STORED)
def test_an_id_stays_as_it_is(kind, _words, id_):
    assert chosen_id(kind, id_) == id_


@pytest.mark.parametrize(("kind", "text"), [("sense_board", "Clip the other"), ("dropper", "Fit 1 kΩ"), ("coil", "")])
def test_what_is_neither_stays_as_it_was_typed(kind, text):
    assert chosen_id(kind, text) == text
