"""Reports as people's files really are: what is plain is read, what is ambiguous is refused with line and column."""

import random

import pytest

from loquen.checked.plan import SourceSchema
from loquen.devices import water_reports
from loquen.exchange.reports import UnreadReport, read_report

GOOD = water_reports.report("marrow_bridge_winter")
MUTATIONS = 400
SIGNS = (*'",;\t\r\n\0\ufeff. #0159-+eE', "\u00b5", "\u03bc", "\u00b0", "\ud800", "🐟", '""', "\r\n", "\u2028")


def faults(text):
    with pytest.raises(UnreadReport) as caught:
        read_report(text)
    return [(fault.line, fault.column, fault.what) for fault in caught.value.faults]


@pytest.mark.parametrize(
    ("line", "field", "value"),
    [
        ("nitrate,11.5,mg/L N", "src_nitrate_mg_l", 11.5),
        ('nitrate,"11,5",mg/L N', "src_nitrate_mg_l", 11.5),
        ("nitrate;11,5;mg/L N", "src_nitrate_mg_l", 11.5),
        ("nitrate\t11,5\tmg/L N", "src_nitrate_mg_l", 11.5),
        ("\ufeffnitrate,11.5,mg/L N", "src_nitrate_mg_l", 11.5),
        ("conductivity,455,\u00b5S/cm", "src_us_cm", 455),
        ("conductivity,455,\u03bcS/cm", "src_us_cm", 455),
        ("Conductivity ,455, uS/cm ", "src_us_cm", 455),
        ("conductivity,1 234,uS/cm", "src_us_cm", 1234),
        ('conductivity,"1,234.5",uS/cm', "src_us_cm", 1234.5),
        ("conductivity;1.234,5;uS/cm", "src_us_cm", 1234.5),
        ('conductivity,"0,455",uS/cm', "src_us_cm", 0.455),
        ("temperature,8,\u2103", "src_c", 8),
        ("temperature,8,°C", "src_c", 8),
        ('name,"Tap, kitchen",', "src_name", "Tap, kitchen"),
        ('name,"The ""old"" tap",', "src_name", 'The "old" tap'),
        ("kind,Well,", "src_kind", "well"),
    ],
)
def test_what_is_plain_is_read(line, field, value):
    assert read_report(line)[field] == value


def test_a_head_and_remarks_are_passed_over():
    assert read_report("# of spring\nparameter,value,unit\n\n,,\nkind,rain,") == {"src_kind": "rain"}


@pytest.mark.parametrize("end", ["\n", "\r\n", "\r"])
def test_lines_may_end_as_any_system_ends_them(end):
    assert read_report(GOOD.replace("\n", end)) == read_report(GOOD)


@pytest.mark.parametrize(
    ("text", "place", "words"),
    [
        ('nitrate,"1,234",mg/L N', (1, 9), "may be 1234 or 1.234"),
        ("nitrate;1,234;mg/L N", (1, 9), "may be 1234 or 1.234"),
        ("nitrate;1.234;mg/L N", (1, 9), "may be 1234 or 1.234"),
        ("nitrate,5,1,mg/L N", (1, 9), "decimal comma into quotation marks"),
        ('kind,tap,\nname,"Our tap\nnitrate,11,mg/L N', (2, 1), "opened and not closed"),
        ('name,Our "tap",', (1, 1), None),
        ("nitrate,1,mg/L N\nchloride,3,\nnitrate,2,mg/L N", (3, 1), "nitrate stands twice: in line 1 too"),
        ("nitrate,1e999,mg/L N", (1, 9), "not a number"),
        ("nitrate,nan,mg/L N", (1, 9), "not a number"),
        ("nitrate,1_000,mg/L N", (1, 9), "not a number"),
        ("nitrate,\u0663,mg/L N", (1, 9), "not a number"),
        ("nitrate,,mg/L N", (1, 9), "not a number"),
        ("nitrate,1,furlongs", (1, 11), "in “furlongs”"),
        ('nitrate,"1",furlongs', (1, 13), "in “furlongs”"),
        ("happiness,1,", (1, 1), "“happiness” is not known"),
        ("nitrate,1\0,mg/L N", (1, 1), "no text"),
        ("kind,puddle,", (1, 6), "none of tap"),
        ("name,,", (1, 6), "1 to 80 letters"),
    ],
)
def test_what_is_not_is_refused_where_it_stands(text, place, words):
    if words is None:
        assert read_report(text)["src_name"] == 'Our "tap"'
        return
    ((line, column, what),) = faults(text)
    assert ((line, column), words in what) == (place, True), what


def test_an_unclosed_quote_takes_nothing_else_with_it():
    ((line, _, _),) = faults('nitrate,11,mg/L N\nname,"Our tap\nchloride,3,')
    assert line == 2


def test_a_report_has_an_end():
    assert faults("\n".join(["# x"] * 300))[0][:2] == (201, 1)


def test_no_mutation_of_a_good_report_is_more_than_refused():
    rng = random.Random(7)
    for _ in range(MUTATIONS):
        text = list(GOOD)
        for _ in range(rng.randint(1, 4)):
            at = rng.randrange(len(text))
            text[at : at + rng.choice([0, 0, 1, 3])] = rng.choice(SIGNS)
        try:
            found = read_report("".join(text))
        except UnreadReport as refused:
            told = [(fault.line >= 1, fault.column >= 1, fault.what != "") for fault in refused.faults]
        else:
            told = [(set(found) <= set(SourceSchema.model_fields),)]
        assert all(map(all, told))
