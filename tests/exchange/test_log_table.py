"""A log as a table: taken out and brought in again as nothing new, whatever stands in it; and tables that people keep."""

import csv
import io
from datetime import UTC, datetime, timedelta, timezone

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from loquen.core.library.whole import shipped
from loquen.core.model.records.log import KINDS, Entry, LogLine
from loquen.exchange.log_table import UnreadTable, read_table, write_table

texts = st.one_of(
    st.text(st.characters(exclude_categories=("Cs",), exclude_characters="\0"), max_size=30),
    st.sampled_from(
        [
            "=1+1",
            "'=1+1",
            "''",
            "'",
            "  two blanks",
            "a\nb",
            "a\r\nb",
            "a\rb",
            '"q", "',
            "-1",
            "\tx",
            "@a",
            ";",
            "sep=;",
            " ",
        ]
    ),
)
moments = st.datetimes(
    datetime(1901, 1, 1),
    datetime(2190, 1, 1),
    timezones=st.sampled_from([UTC, timezone(timedelta(hours=-9, minutes=-30))]),
)
entries = st.builds(
    Entry,
    kind=st.sampled_from(KINDS),
    what=texts,
    value=texts,
    kit=texts,
    when=st.sampled_from(["", "before", "after"]),
    litres=st.none() | st.floats(0, 200_000),
    share=st.none() | st.floats(0, 1),
    amount=st.none() | st.floats(0, 1e6),
    note=texts,
    unit=texts,
    product=texts,
    filter=texts,
    resident=st.none() | st.integers(1, 10**9),
)


@settings(max_examples=400, deadline=None)
@given(st.lists(st.builds(LogLine, moments, entries), min_size=1, max_size=4))
def test_a_log_taken_out_comes_in_as_it_was(log):
    text = write_table(log)
    read = read_table(text, UTC, shipped())
    assert read.faults == []
    assert [(row.at, row.entry) for _, row in read.rows] == [(row.at, row.entry) for row in log]
    cells = [cell for row in csv.reader(io.StringIO(text, newline="")) for cell in row]
    assert not [cell for cell in cells if cell.startswith(("=", "+", "@", "-", "\t"))]


def test_lines_are_counted_as_a_person_counts_them():
    text = 'sep=;\nDatum;Nitrat;Notiz\n\n01.02.2026;12,5;"two\nlines"\n02.02.2026;much;\n'
    read = read_table(text, UTC, shipped())
    assert [(row.at.date().isoformat(), row.entry.value or row.entry.note) for _, row in read.rows] == [
        ("2026-02-01", "12.5"),
        ("2026-02-01", "two\nlines"),
        ("2026-02-02", "much"),
    ]
    assert [line for line, _ in read.rows] == [4, 4, 6]


@pytest.mark.parametrize(
    ("heading", "cell", "value"),
    [
        ("Nitrat (mg/L)", "12,5", "12.5"),
        ("Temperatur", "24,5 °C", "24.5"),
        ("NO3", "20 ppm", "20"),
        ("KH", "6 dKH", "6"),
    ],
)
def test_units_and_decimal_commas_are_read(heading, cell, value):
    [(_, row)] = read_table(f"Datum;{heading}\n01.02.2026;{cell}", UTC, shipped()).rows
    assert row.entry.value == value


@pytest.mark.parametrize(
    ("heading", "cells", "changes", "shares", "either"),
    [
        ("change", ["40", "1"], None, [0.4, 0.01], False),
        ("change", ["0.4", "1"], None, [0.4, 1.0], False),
        ("change", ["1", "1"], None, [0.01, 0.01], True),
        ("change", ["1", "1"], "share", [1.0, 1.0], False),
        ("change", ["1", "1"], "percent", [0.01, 0.01], False),
        ("change %", ["1", "0.5"], None, [0.01, 0.005], False),
        ("change", ["1 %", "40 %"], None, [0.01, 0.4], False),
    ],
)
def test_a_column_of_changes_says_what_one_is(heading, cells, changes, shares, either):
    text = "\n".join([f"date;{heading}", *(f"0{n}.02.2026;{cell}" for n, cell in enumerate(cells, 1))])
    read = read_table(text, UTC, shipped(), changes=changes)
    assert [row.entry.share for _, row in read.rows] == shares
    assert read.either_change == either
    assert read.columns[1].taken_for.startswith("change, ")


def test_changes_in_litres_by_their_heading():
    [(_, row)] = read_table("date;change (L)\n2026-02-01;40", UTC, shipped()).rows
    assert (row.entry.litres, row.entry.share) == (40, None)


@pytest.mark.parametrize("day", ["30.02.2026", "0001-01-01", "9999-12-31", "01.01.1899"])
def test_what_is_no_day_of_ours_is_told_at_its_line(day):
    read = read_table(f"date;NO3\n{day};20", UTC, shipped())
    assert (read.rows, [(cell.line, cell.column) for cell in read.faults]) == ([], [(2, "date")])
    own = read_table("at,kind,note\r\n0001-01-01T00:00:00+14:00,note,x\r\n", UTC, shipped())
    assert (own.rows, [(cell.line, cell.what) for cell in own.faults]) == ([], [(2, "is no moment")])


@pytest.mark.parametrize("text", ["", "\n\n", "x" * 200_000, "date;NO3\n" + "2026-01-01;1\n" * 50_001])
def test_what_is_no_table_is_refused_with_a_sentence(text):
    with pytest.raises(UnreadTable, match=r"\w"):
        read_table(text, UTC, shipped())
