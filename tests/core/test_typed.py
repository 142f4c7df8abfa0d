"""Numbers as people type them."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from loquen.core.model.inputs.typed import Ambiguous, NotANumber, read_number


@pytest.mark.parametrize(
    ("typed", "value"),
    [
        ("12.5", 12.5),
        ("12,5", 12.5),
        (" 1 000 ", 1000),
        ("1\u202f234,5", 1234.5),
        ("\u22123", -3),
        ("+3", 3),
        (".5", 0.5),
        (",5", 0.5),
        ("1e3", 1000),
        ("0,234", 0.234),
        ("1,2345", 1.2345),
        ("1,234,567", 1234567),
        ("1.234.567,8", 1234567.8),
        ("1.234", 1.234),
    ],
)
def test_plain(typed, value):
    assert read_number(typed) == value


@pytest.mark.parametrize(
    "typed", ["", "abc", "1 2", "1,2,3", "1e999", "nan", "inf", "1_000", "٣", "0x10", "1.2.3", "--1", "1,2e3"]
)
def test_none(typed):
    with pytest.raises(NotANumber):
        read_number(typed)


@pytest.mark.parametrize(
    ("typed", "dots"), [("1,234", False), ("999,000", False), ("-1,234", False), ("1.234", True)]
)
def test_two(typed, dots):
    with pytest.raises(Ambiguous) as caught:
        read_number(typed, dots_may_group=dots)
    assert float(caught.value.thousands) == 1000 * float(caught.value.decimals)


@given(st.floats(allow_nan=False, allow_infinity=False, width=32))
def test_every_number_as_it_is_written_is_itself(value):
    assert read_number(repr(value)) == value


@given(st.integers(min_value=0, max_value=10**9), st.integers(min_value=0, max_value=99))
def test_grouped_by_thin_spaces_with_a_decimal_comma(whole, hundredths):
    grouped = f"{whole:,}".replace(",", "\u2009")
    assert read_number(f"{grouped},{hundredths:02d}") == pytest.approx(whole + hundredths / 100)
