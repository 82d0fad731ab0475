"""Marks of resistors both ways: IEC 60062 (from memory), values of the eseries package."""

import eseries
import pytest

from swapglow.core.circuits.toolkit.marks import one_resistor
from swapglow.core.quantities import InputError
from swapglow.core.stock.mark import read_mark
from swapglow.core.values.resistor_marks import (
    COEFFICIENTS,
    TOLERANCES,
    MarkError,
    marks_of,
    read_bands,
    read_chip,
    write_bands,
    write_chip,
    write_e96,
)


@pytest.mark.parametrize(
    ("bands", "ohm", "tolerance", "coefficient"),
    [
        ("yellow violet red gold", 4700, 0.05, None),
        ("brown black black", 10, 0.2, None),
        ("orange white silver brown", 0.39, 0.01, None),
        ("red violet gold gold", 2.7, 0.05, None),
        ("brown black black red brown", 10e3, 0.01, None),
        ("green blue black silver green", 5.60, 0.005, None),
        ("blue grey black orange violet red", 680e3, 0.001, 50),
        ("bn bk gn sr", 1e6, 0.1, None),
        ("white brown pink gray", 0.091, 0.0001, None),
    ],
)
def test_bands_are_read_by_the_standard(bands, ohm, tolerance, coefficient):
    found = read_bands(bands)
    assert found.ohm == pytest.approx(ohm)
    assert (found.tolerance, found.coefficient) == (pytest.approx(tolerance), coefficient)


@pytest.mark.parametrize(
    ("bands", "says"),
    [
        ("gold red violet yellow", "Read it from the other end"),
        ("black brown red gold", "does not begin with black"),
        ("red red", "2 bands"),
        ("red red red red red red red", "7 bands"),
        ("red teal red", '"teal" is no colour'),
        ("red red red white", "White is no tolerance: it cannot be band 4"),
        ("red red red black black", "Black is no tolerance: it cannot be band 5"),
        ("red red red red brown gold", "Gold is no temperature coefficient: it cannot be band 6"),
        ("black black black", "a link of no ohms"),
    ],
)
def test_bands_that_cannot_be_are_refused_with_why(bands, says):
    with pytest.raises(MarkError, match=says):
        read_bands(bands)


@pytest.mark.parametrize(
    ("mark", "ohm"),
    [
        ("681", 680),
        ("680", 68),
        ("100", 10),
        ("4702", 47e3),
        ("1000", 100),
        ("4R7", 4.7),
        ("R47", 0.47),
        ("47R0", 47),
        ("R005", 0.005),
        ("1M0", 1e6),
        ("4k7", 4700),
        ("01A", 100),
        ("01C", 10e3),
        ("68X", 49.9),
        ("96D", 976e3),
        ("30Y", 2.0),
    ],
)
def test_a_chips_mark_is_read(mark, ohm):
    assert read_chip(mark).ohm == pytest.approx(ohm)


@pytest.mark.parametrize("mark", ["00C", "97A", "000", "R", "12345", "47", "4R7R", "teal"])
def test_what_is_on_no_chip_is_refused(mark):
    with pytest.raises(MarkError):
        read_chip(mark)


SERIES = {
    **{name: (getattr(eseries, name), 2) for name in ("E3", "E6", "E12", "E24")},
    **{name: (getattr(eseries, name), 3) for name in ("E48", "E96", "E192")},
}


@pytest.mark.parametrize("series", SERIES)
def test_every_value_is_written_and_read_again(series):
    """Every value of every series from 1 Ω to 10 MΩ with every tolerance of the standard, and as a chip's digits."""
    values, digits = SERIES[series]
    for ohm in eseries.erange(values, 1.0, 9.9e6):
        for percent in TOLERANCES.values():
            found = read_bands(" ".join(write_bands(ohm, percent / 100, digits)))
            assert found.ohm == pytest.approx(ohm)
            assert found.tolerance == pytest.approx(percent / 100)
        assert read_chip(write_chip(ohm, digits + 1)).ohm == pytest.approx(ohm)


def test_three_bands_and_six_are_written_too():
    assert write_bands(4700, 0.2) == ("yellow", "violet", "red")
    for coefficient in COEFFICIENTS.values():
        six = write_bands(68.1e3, 0.005, 3, coefficient)
        assert len(six) == 6
        assert read_bands(" ".join(six)).coefficient == coefficient
    assert write_bands(4700, 0.05) == ("yellow", "violet", "red", "gold")
    assert write_bands(0.47, 0.01) == ("yellow", "violet", "silver", "brown")


def test_every_code_of_e96_is_written_and_read_again():
    for ohm in eseries.erange(eseries.E96, 0.1, 9.76e6):
        assert read_chip(write_e96(ohm)).ohm == pytest.approx(ohm)
    assert write_e96(49.9) == "68X"
    with pytest.raises(MarkError, match="no such code"):
        write_e96(47)


@pytest.mark.parametrize(
    ("ohm", "tolerance", "bands", "chip", "code"),
    [
        (4700, 0.05, "yellow violet red gold", "472", ""),
        (4990, 0.01, "yellow white white brown brown", "4991", "68B"),
        # A value of three digits at 5 % has five bands; at 3 % there is no colour for it.
        (4990, 0.05, "yellow white white brown gold", "", "68B"),
        (4700, 0.03, "", "472", ""),
        (0.47, 0.05, "yellow violet silver gold", "R47", ""),
    ],
)
def test_a_fitted_resistor_says_how_it_is_marked(ohm, tolerance, bands, chip, code):
    found = marks_of(ohm, tolerance)
    assert (" ".join(found.bands), found.chip, found.code) == (bands, chip, code)


@pytest.mark.parametrize(
    ("write", "says"),
    [
        (lambda: write_bands(4990, 0.01), "more than 2 digits"),
        (lambda: write_bands(4700, 0.03), "No colour stands for 3 %"),
        (lambda: write_bands(1e13, 0.05), "No colour stands for a power of 12"),
        (lambda: write_bands(4700, 0.05, 2, 50), "the sixth of six"),
        (lambda: write_chip(0.047), "too small"),
    ],
)
def test_what_cannot_be_written_is_refused(write, says):
    with pytest.raises(MarkError, match=says):
        write()


@pytest.mark.parametrize(
    ("text", "ohm"),
    [
        ("mark 680", 68),
        ("SMD 4R7", 4.7),
        ("01A", 100),
        ("blue grey black gold", 68),
        ("68", 68),
        ("680R", 680),
        ("6k8", 6800),
    ],
)
def test_a_board_is_typed_as_it_is_read(text, ohm):
    assert one_resistor("sense_ohm", text) == pytest.approx(ohm)


def test_digits_that_may_be_two_things_are_asked_about():
    with pytest.raises(InputError) as asked:
        one_resistor("sense_ohm", "680")
    said = asked.value.message.replace("\u00a0", " ")
    assert said == '"680" may be 680 Ω, or a chip\'s mark for 68 Ω: write 680R, or mark 680.'
    assert asked.value.field == "sense_ohm"
    with pytest.raises(InputError, match="Read it from the other end"):
        one_resistor("sense_ohm", "gold red violet yellow")


@pytest.mark.parametrize(
    ("bands", "found"),
    [
        # 472 x 0.1 is no value that is made: four bands and a reliability band, as on old instrument parts.
        ("yellow violet red gold orange", [("4.7 kΩ", "±5 %")]),
        # 332 is a value of E96, so both are shown.
        (
            "orange orange red gold brown",
            [("33.2 Ω", "±1 %"), ("3.3 kΩ", "±5 %; the fifth band is then one of reliability")],
        ),
        ("brown black black red green", [("10 kΩ", "±0.5 %")]),
        ("brown black black red violet", [("10 kΩ", "±0.1 %")]),
        ("brown black black red orange", [("10 kΩ", "±0.05 %")]),
    ],
)
def test_reliability_bands_and_fine_tolerances_are_read(bands, found):
    """IEC 60062 and common practice, from memory."""
    assert [(m.text.replace("\u00a0", " "), m.said) for m in read_mark("bands", bands)] == found


@pytest.mark.parametrize(
    ("mark", "text", "said"),
    [
        ("100uF", "100 µF", ""),
        ("470pF", "470 pF", ""),
        ("100nFK", "100 nF", "±10 %"),
        ("4n7F", "4.7 nF", "±1 %"),
        ("104F", "100 nF", "±1 %"),
        ("338", "0.33 pF", ""),
        ("229", "2.2 pF", ""),
    ],
)
def test_an_f_behind_the_units_letter_is_farad_and_behind_digits_a_tolerance(mark, text, said):
    """IEC 60062 and common practice, from memory: 8 and 9 as third digit are hundredths and tenths."""
    (read,) = read_mark("capacitor", mark)
    assert read.text.replace("\u00a0", " ") == text
    assert said in read.said and (said or "±" not in read.said)
