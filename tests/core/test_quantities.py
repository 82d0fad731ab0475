"""Texts as people write them. The spellings are those of the product brief."""

import contextlib
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from swapglow.core.quantities import (
    AMPERE,
    CELSIUS,
    FARAD,
    OHM,
    VOLT,
    WATT,
    QuantityError,
    echo,
    engineering,
    number_text,
    parse,
    parse_single,
    percent,
    show,
    shown,
    times_text,
)
from swapglow.core.quantities.bare import with_unit
from swapglow.core.quantities.part_heat import FAILS_C, part_celsius, part_shown


@pytest.mark.parametrize(
    ("text", "unit", "value"),
    [
        ("4k7", OHM, 4700),
        ("470R", OHM, 470),
        ("1M", OHM, 1e6),
        ("4,7 k", OHM, 4700),
        ("R47", OHM, 0.47),
        ("1.2kΩ", OHM, 1200),
        ("2meg", OHM, 2e6),
        ("20mA", AMPERE, 0.02),
        (".02 A", AMPERE, 0.02),
        ("500µA", AMPERE, 5e-4),
        ("13.8", VOLT, 13.8),
        ("3V3", VOLT, 3.3),
        ("24 V dc", VOLT, 24),
        ("2.2E-2A", AMPERE, 0.022),
    ],
)
def test_reads_one_value(text, unit, value):
    assert parse_single(text, unit) == pytest.approx(value, rel=1e-12)


@pytest.mark.parametrize(
    ("text", "low", "usual", "high"),
    [
        ("5V±2%", 4.9, 5, 5.1),
        ("5V +/- 0.1V", 4.9, 5, 5.1),
        ("12-14.4V", 12, 13.2, 14.4),
        ("12.0–14.4 V", 12, 13.2, 14.4),
        ("12V to 14V", 12, 13, 14),
        # As a rail is read back: the usual value, its ends in brackets.
        ("13.2 (12.1-14.5)", 12.1, 13.2, 14.5),
        ("13.2 V (12.1 V to 14.5 V)", 12.1, 13.2, 14.5),
        ("13.2V (12-14)", 12, 13.2, 14),
    ],
)
def test_reads_a_spread(text, low, usual, high):
    read = parse(text, VOLT)
    assert (read.low, read.usual, read.high) == pytest.approx((low, usual, high))


def test_says_whether_it_is_ac():
    assert parse("6.3Vac", VOLT).kind == "ac"


@pytest.mark.parametrize(
    ("text", "unit", "says"),
    [
        ("", VOLT, "Nothing is written"),
        ("abc", VOLT, "does not begin with a number"),
        ("1,000", OHM, "write 1000 or 1.000"),
        ("5m", OHM, "write M for megohms"),
        ("1.2.3", VOLT, "more than one decimal mark"),
        ("20mV", AMPERE, '"mV" is not its unit'),
        ("nan", VOLT, "does not begin with a number"),
        ("1e999", VOLT, "too large"),
        ("5V±120%", VOLT, "leaves nothing"),
        ("9" * 70, VOLT, "longer than"),
        ("1-2-3", VOLT, "is not its unit"),
        ("1e14", OHM, "beyond"),
    ],
)
def test_refuses_and_says_what_would_do(text, unit, says):
    with pytest.raises(QuantityError, match=says) as refused:
        parse(text, unit)
    assert "Write it like" in str(refused.value) or "like" in str(refused.value)


def test_bounds_are_enforced():
    with pytest.raises(QuantityError, match="more than 0"):
        parse("0V", VOLT, above=0)
    with pytest.raises(QuantityError, match="more than 0"):
        parse("-5V", VOLT, above=0)


@given(st.floats(1e-6, 1e9, allow_nan=False))
def test_what_is_shown_reads_back(value):
    # Shown to six figures, so within half a unit of the sixth.
    assert parse_single(show(value, OHM, 6), OHM) == pytest.approx(value, rel=1e-5)


@given(st.text(max_size=12))
def test_any_text_is_read_or_refused(text):
    with contextlib.suppress(QuantityError):
        assert math.isfinite(parse(text, VOLT).usual)


@pytest.mark.parametrize(
    ("value", "printed"),
    [(0.99996, ("1", "")), (4700, ("4.7", "k")), (0.01378, ("13.8", "m")), (0, ("0", "")), (1e6, ("1", "M"))],
)
def test_engineering_form(value, printed):
    assert engineering(value) == printed


@pytest.mark.parametrize(
    ("text", "unit", "ends"),
    [
        ("10-5mA", AMPERE, (5e-3, 7.5e-3, 10e-3)),
        ("470-1k", OHM, (470, 735, 1000)),
        ("12-14mA", AMPERE, (12e-3, 13e-3, 14e-3)),
        ("14-12V", VOLT, (12, 13, 14)),
        ("12V 5%", VOLT, (11.4, 12, 12.6)),
        ("1/4 W", WATT, (0.25, 0.25, 0.25)),
        ("10 MFD", FARAD, (10e-6, 10e-6, 10e-6)),
        ("0.1MFD", FARAD, (1e-7, 1e-7, 1e-7)),
        ("2-4k7", OHM, (2000, 3350, 4700)),
    ],
)
def test_texts_as_people_write_them(text, unit, ends):
    """The smaller first is not required, a tolerance needs no sign, a rating may be a fraction (common practice)."""
    read = parse(text, unit)
    assert (read.low, read.usual, read.high) == pytest.approx(ends)


@pytest.mark.parametrize(
    ("value", "unit", "text"),
    [
        (1e-10, FARAD, "100\u00a0pF"),
        (4.7e-12, FARAD, "4.7\u00a0pF"),
        (0.0, AMPERE, "0\u00a0A"),
        (-0.0, AMPERE, "0\u00a0A"),
    ],
)
def test_small_values_keep_their_figure_and_nothing_is_nothing(value, unit, text):
    assert show(value, unit) == text


@pytest.mark.parametrize(
    ("value", "text"), [(130.4, "130"), (0.0412, "0.041"), (1.96, "2"), (0.0, "0"), (-1e-9, "-0.000000001")]
)
def test_a_bare_number_has_no_exponent(value, text):
    assert number_text(value) == text


@pytest.mark.parametrize(("share", "text"), [(-0.001, "0 %"), (0.456, "46 %"), (1.0, "100 %")])
def test_nothing_is_never_less_than_nothing(share, text):
    assert percent(share) == text


@pytest.mark.parametrize("text", ["15 (12-14)", "13 (12)", "13 (12-14) (11-15)", "(12-14)"])
def test_ends_in_brackets_hold_the_value_before_them(text):
    with pytest.raises(QuantityError):
        parse(text, VOLT)


@pytest.mark.parametrize(
    ("text", "milliamps", "amps"),
    [
        ("20", "20mA", "20A"),
        (".5", ".5mA", ".5A"),
        ("10-5", "10-5mA", "10-5A"),
        ("20 ±5%", "20mA ±5%", "20A ±5%"),
        ("2e1", "2e1mA", "2e1A"),
        ("7 (5-9)", "7mA (5-9)", "7A (5-9)"),
    ],
)
def test_a_current_without_a_unit_is_asked_for_it_in_texts_that_read(text, milliamps, amps):
    """20 on a bench is 20 mA a hundred times for once 20 A (common practice)."""
    with pytest.raises(QuantityError, match="of what\\? Write") as refusal:
        echo(text, AMPERE)
    assert str(refusal.value) == f'"{text}" of what? Write {milliamps} or {amps}.'
    assert with_unit(text, "mA") == milliamps
    assert parse(milliamps, AMPERE).usual == pytest.approx(parse(amps, AMPERE).usual / 1000)
    # Nought is nought, and other units need not be asked.
    assert echo("0", AMPERE) and echo(text.split()[0], VOLT) and with_unit("20mA", "mA") == "20mA"


@pytest.mark.parametrize(
    ("text", "unit", "value"),
    [
        # IEC 60062: colours, three and four digits, a letter for the point; the EIA's code of 1 % chips (from memory).
        ("yellow violet red gold", OHM, 4700),
        ("mark 472", OHM, 4700),
        ("marked 4702", OHM, 47_000),
        ("chip 0R47", OHM, 0.47),
        ("01C", OHM, 10_000),
        ("Brown black BROWN", OHM, 100),
        ("104", FARAD, 100e-9),
        ("104K", FARAD, 100e-9),
        ("mark 229", FARAD, 2.2e-12),
        ("mark 4n7", FARAD, 4.7e-9),
    ],
)
def test_a_mark_stands_where_a_value_is_asked(text, unit, value):
    assert parse_single(text, unit) == pytest.approx(value)
    assert echo(text, unit) == show(value, unit, 4)


@pytest.mark.parametrize("text", ["mark 999999", "gold red violet yellow", "mark 000", "97A"])
def test_a_mark_that_no_part_has_is_refused_as_such(text):
    with pytest.raises(QuantityError):
        parse(text, OHM)


@pytest.mark.parametrize(
    ("text", "asks"),
    [
        ("222", "2.2 kΩ"),
        ("223", "22 kΩ"),
        ("4702", "47 kΩ"),
        ("681", "680 Ω"),
        ("105", "1 MΩ"),
        ("0222", "2.2 kΩ"),
        ("470", ""),
        ("680", ""),
        ("1200", ""),
        ("1234", ""),
        ("47", ""),
        ("222R", ""),
        ("10000", ""),
    ],
)
def test_digits_that_are_a_chips_mark_rather_than_a_value_are_asked_about(text, asks):
    """E24 of IEC 60063: 470, 680 and 1200 are made; 222 is not, and 2.2 kΩ is."""
    if not asks:
        assert echo(text, OHM)
        return
    with pytest.raises(QuantityError, match=f"write {text}R, or mark {text}") as asked:
        echo(text, OHM)
    assert asks in str(asked.value).replace("\u00a0", " ")
    # What was kept before anybody asked stays what it was taken for.
    assert parse_single(text, OHM) == float(text)
    assert parse_single(f"{text}R", OHM) == float(text)


def test_no_figure_claims_more_than_it_can():
    """A kelvin is never a kilo-degree; past a thousand a ratio says that it is, and past 250 °C a part fails."""
    assert show(1300, "°C") == "1300\u00a0°C"
    assert shown(0.4, CELSIUS, "").text == "0.4\u00a0°C"
    assert [times_text(r) for r in (5.6e10, 999, 1.37, 0, 1e-9)] == ["over 1000", "999", "1.4", "0", "under 0.001"]
    assert part_celsius(249) == "249\u00a0°C"
    assert part_celsius(251) == "over 250\u00a0°C, where it fails"
    assert part_shown(1e5, "").value == FAILS_C
