"""Rows of the library that must agree with each other: one species under two names, kinds of one genus, what is bare-skinned."""

from dataclasses import fields
from itertools import combinations, groupby

import pytest

from loquen.core.library.whole import shipped

KINDS = sorted(shipped().species.values(), key=lambda kind: kind.scientific)
NAMES = {
    "key",
    "common",
    "scientific",
    "aliases",
    "confidence",
    "source",
    "note",
    "breeds_as",
    "growth_per_year",
    "life_years",
}
SEA_WATER_DKH = 6.5
"""Of natural sea water, 2.3 meq/L."""


def genus(kind):
    return kind.scientific.split()[0]


def binomial(kind):
    return " ".join(kind.scientific.split()[:2])


def sisters(of):
    return [pair for _, rows in groupby(KINDS, key=of) for pair in combinations(rows, 2)]


def named(pair):
    return " and ".join(kind.key for kind in pair)


ROUND_GOLDFISH = "goldfish_fancy"


@pytest.mark.parametrize("pair", sisters(binomial), ids=named)
def test_one_species_under_two_names_is_kept_alike(pair):
    one, other = pair
    if any(kind.key == ROUND_GOLDFISH for kind in pair):
        return
    differing = {
        field.name for field in fields(one) if getattr(one, field.name) != getattr(other, field.name)
    } - NAMES
    # A form may be shorter; all else has to be told in its note.
    assert differing <= {"adult_length_cm"} or (one.note != other.note and "line" in one.note + other.note)


@pytest.mark.parametrize("pair", sisters(genus), ids=named)
def test_kinds_of_a_genus_differ_no_more_than_kinds_of_a_genus_do(pair):
    one, other = pair
    assert one.copper_sensitive == other.copper_sensitive
    assert one.breathes_air == other.breathes_air
    assert abs(one.gape_frac - other.gape_frac) <= 0.2
    assert abs(one.gh_low_dgh - other.gh_low_dgh) <= 9
    if max(one.salinity_high_ppt, other.salinity_high_ppt) >= 30:
        assert abs(one.kh_low_dkh - other.kh_low_dkh) <= 3


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.key)
def test_what_a_row_says_is_possible(kind):
    if kind.family in shipped().bare_skinned:
        assert kind.copper_sensitive
    if kind.salinity_high_ppt >= 30:
        assert kind.kh_low_dkh <= SEA_WATER_DKH


@pytest.mark.parametrize("row", shipped().breeding.values(), ids=lambda row: row.key)
def test_a_female_of_the_table_is_no_longer_than_her_kind_and_her_brood_lies_in_its_range(row):
    assert row.at_female_cm <= 1.1 * shipped().species[row.key].adult_length_cm
    assert row.brood_low <= row.brood <= row.brood_high
    assert row.start_cm < row.sexed_cm
    assert row.start_cm < row.sale_cm < shipped().species[row.key].adult_length_cm
