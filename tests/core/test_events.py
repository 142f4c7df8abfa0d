"""Events: every kind kept and read back, as a line and from one, brought forward, and what each means to duties."""

from datetime import UTC, datetime

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from loquen.core.events.effects import sees_to
from loquen.core.events.kinds.keeping import Fed, Noted, Pulsed, PutIn, Rinsed, SeenTo, Skipped, Tried
from loquen.core.events.kinds.lives import Arrived, Born, Died, Measured, Moved, SignsSeen, Sold
from loquen.core.events.kinds.water import Changed, Dosed, Read
from loquen.core.events.ledger import KINDS, NAMES, kept_as, read_back
from loquen.core.events.lines import IN_LINE, event_of, life_event, life_line, line_of
from loquen.core.events.upgrades import from_line
from loquen.core.model.records.log import IN_THE_REGISTER_ALONE, KIND_WORDS, Entry
from loquen.core.model.records.log import KINDS as LINE_KINDS
from loquen.core.model.roots.documents import Unreadable
from loquen.core.quarantine.stays import why_anew
from loquen.core.register.lives import comes_to

AT = datetime(2026, 3, 4, 23, 30, tzinfo=UTC)
LIVES = (Arrived, Born, Measured, Moved, Sold, Died, SignsSeen)
NEVER_SHOWN = {"seen_to", "skipped", "pulsed"}
RUN = Pulsed("monday", 3, 2, 90.0, 1.5, 4.0, 3.9, 24.0, "timetable")


def test_every_kind_has_a_name_a_line_and_words():
    assert set(LINE_KINDS) == set(KIND_WORDS) == set(KINDS) - NEVER_SHOWN
    assert set(IN_LINE) | set(LIVES) == {KINDS[name] for name in set(KINDS) - {"skipped", "pulsed"}}
    assert set(IN_THE_REGISTER_ALONE) < {NAMES[kind] for kind in LIVES}


@pytest.mark.parametrize("kind", KINDS.values())
def test_what_is_kept_is_read_back_with_its_kind(kind):
    event = RUN if kind is Pulsed else kind(what="nitrate") if kind is Read else kind()
    kept = kept_as(event)
    assert (kept["kind"], kept["version"]) == (NAMES[kind], 1)
    found, fields = read_back(kept)
    assert found(**fields) == event


texts = st.text(max_size=8)
numbers = st.none() | st.floats(0, 2000)
lines = st.builds(
    Entry, kind=st.sampled_from(LINE_KINDS), what=texts, value=texts, kit=texts, when=st.sampled_from(["", "before"]),
    litres=numbers, share=st.none() | st.floats(0, 1), amount=st.none() | st.integers(0, 2000).map(float), until=texts,
    note=texts, unit=texts, product=texts, filter=texts,
)  # fmt: skip


@settings(max_examples=300, deadline=None)
@given(lines)
def test_a_line_tells_an_event_that_tells_the_same_line_again(line):
    event = event_of(line, AT, 4)
    again = line_of(event)
    assert again.kind == line.kind
    assert event_of(again, AT, 4) == event
    # What its kind has a place for is not lost.
    names = IN_LINE.get(type(event), {"count": "amount", "signs": "note"})
    assert {getattr(again, name) for name in names.values()} == {getattr(line, name) for name in names.values()}


def test_a_line_about_animals_has_its_day_where_it_was_written():
    east = datetime.fromisoformat("2026-03-05T07:30:00+10:00")
    assert event_of(Entry("death", amount=2, note="fluff"), east, 4) == Died("2026-03-05", 2, 4, signs="fluff")
    assert line_of(Died("2026-03-05", 2, 4, signs="fluff"), 9) == Entry("death", amount=2, note="fluff", resident=9)


@pytest.mark.parametrize("kind", LIVES)
def test_a_line_of_the_register_is_the_event_and_back(kind):
    event = kind("2026-03-05", 3, 4, males=1, length_cm=2.5, money=4.0, signs="fluff")
    if kind is Moved:
        event = kind("2026-03-05", 3, 4, to=5)
    assert life_event(life_line(event)) == event


# Brought forward ---------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("old", "event"),
    [
        ({"kind": "feed", "what": "much", "amount": 2.0, "note": "late"}, Fed(2.0, "much", "late")),
        (
            {"kind": "experiment", "what": "gutter", "until": "2026-04-01", "note": ""},
            Tried("gutter", "2026-04-01"),
        ),
        ({"kind": "added", "what": "leaves", "amount": 3.0}, PutIn("leaves", 3.0)),
        ({"kind": "note", "note": "seen", "litres": 4.0, "kit": "x"}, Noted("seen; kit: x; litres: 4.0")),
        ({"kind": "death", "amount": 2.0, "note": "fluff"}, Died("", 2, 0, signs="fluff")),
        ({"kind": "death", "amount": 2.5, "note": ""}, Died("", 1, 0, signs="amount: 2.5")),
        ({"kind": "death", "amount": 9e9}, Died("", 1, 0, signs="amount: 9000000000.0")),
        ({"kind": "sale", "day": "2026-02-04", "count": 2, "system": 1, "to": 7}, Sold("2026-02-04", 2, 1)),
        ({"kind": "move", "day": "2026-02-04", "count": 2, "system": 1, "to": 7}, Moved("2026-02-04", 2, 1, to=7)),
    ],
)
def test_what_an_older_loquen_kept_is_the_event_it_told_of(old, event):
    kind, fields = read_back(old)
    assert kind(**fields) == event


@pytest.mark.parametrize(
    "kept", [{"kind": "flood"}, {}, {"kind": "note", "version": 2}, {"kind": "note", "version": "x"}]
)
def test_what_is_no_event_is_said(kept):
    with pytest.raises(Unreadable):
        read_back(kept)


def test_what_no_line_ever_had_is_not_taken_for_one():
    assert from_line({"kind": "note", "note": "x", "colour": "blue"})["colour"] == "blue"


# What they mean ----------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("event", "key"),
    [
        (Changed(share=0.3), "change"),
        (Read("kh", "4"), "read.kh"),
        (Fed(1.0), "feed."),
        (Rinsed("tank"), "rinse."),
        (Rinsed("tank", 1.0, note="a note is no hindrance"), "rinse."),
        (Rinsed("tank", 0.4, "sump"), "rinse.sump"),
        (Rinsed("tank", 1.0, "0"), "rinse.0"),
        (Rinsed("tank", 0.4), "rinse.?"),
        (Dosed("salt", 4.0, "g"), ""),
        (Skipped("away"), ""),
        (SeenTo(), ""),
        (RUN, ""),
    ],
)
def test_what_each_sees_to(event, key):
    assert sees_to(event) == key


@pytest.mark.parametrize(
    ("event", "heads", "anew_here", "anew_there"),
    [
        (Arrived("2026-03-05", 3, 1), ((1, 3),), "newcomer", None),
        (Born("2026-03-05", 3, 1), ((1, 3),), "newcomer", None),
        (Sold("2026-03-05", 3, 1), ((1, -3),), None, None),
        (Died("2026-03-05", 3, 1), ((1, -3),), "death", None),
        (Died("2026-03-05", None, 1), ((1, -1),), "death", None),
        (Moved("2026-03-05", 3, 1, to=2), ((1, -3), (2, 3)), None, "newcomer"),
        (Measured("2026-03-05", 1, 1, length_cm=2.0), (), None, None),
        (SignsSeen("2026-03-05", 1, 1), (), "signs", None),
    ],
)
def test_what_each_means_to_heads_and_waits(event, heads, anew_here, anew_there):
    assert comes_to(event) == heads
    assert (why_anew(event, 1), why_anew(event, 2)) == (anew_here, anew_there)
