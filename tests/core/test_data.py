"""The library: ranges, sources and cross-references of every row, and how broken rows are told."""

import json
from dataclasses import MISSING, dataclass, fields
from pathlib import Path

import pytest

from loquen.core.data.bodies import body_shapes
from loquen.core.data.materials import materials
from loquen.core.data.minerals import ions, mineral_salts
from loquen.core.data.tables import read_csv, sources, text
from loquen.core.errors import BrokenData, UnknownKey
from loquen.core.library import own
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.machines import FilterModel, Media
from loquen.core.library.whole import contradictions, shipped
from loquen.core.model.inputs.quantity import kind_of_name, kinds

TABLES = [
    shipped().species,
    body_shapes(),
    shipped().beds,
    materials(),
    shipped().media,
    shipped().filter_kinds,
    shipped().filter_models,
    shipped().turnovers,
    shipped().plant_covers,
    shipped().stock_tanks,
    shipped().plants,
    shipped().shock_classes,
    ions(),
    mineral_salts(),
    shipped().fittings,
    shipped().pipes,
    shipped().pump_models,
    shipped().heater_models,
]


@pytest.mark.parametrize("table", TABLES, ids=lambda t: t.name)
def test_every_row_names_a_known_source(table):
    for key, row in table.items():
        assert row.source in sources(), key


GROUPS = {
    "rainbowfish": ({"Melanotaeniidae", "Pseudomugilidae"}, 10),
    "tetras": ({"Characidae"}, 15),
    "barbs, danios, rasboras": ({"Cyprinidae", "Danionidae"}, 15),
    "livebearers": ({"Poeciliidae"}, 10),
    "goodeids": ({"Goodeidae"}, 8),
    "killifish": ({"Nothobranchiidae", "Aplocheilidae"}, 5),
    "labyrinth fish": ({"Osphronemidae"}, 8),
    "cichlids": ({"Cichlidae"}, 30),
    "catfishes": ({"Callichthyidae", "Loricariidae", "Mochokidae"}, 12),
    "loaches": ({"Botiidae", "Cobitidae", "Gastromyzontidae", "Nemacheilidae"}, 8),
    "puffers": ({"Tetraodontidae"}, 4),
    "dwarf shrimps": ({"Atyidae"}, 8),
    "turtles and terrapins": ({"Emydidae", "Kinosternidae"}, 6),
    "frogs": ({"Pipidae", "Bombinatoridae"}, 4),
    "newts and axolotl": ({"Salamandridae", "Ambystomatidae"}, 4),
}


@pytest.mark.parametrize("group", GROUPS)
def test_every_group_of_the_trade_is_there(group):
    families, least = GROUPS[group]
    assert sum(row.family in families for row in shipped().species.values()) >= least


def test_the_library_is_broad():
    rows = shipped().species.values()
    assert len(rows) >= 180
    assert len(shipped().plants) >= 40
    assert sum(row.shape == "snail" for row in rows) >= 6
    assert sum(row.crowd for row in rows) >= 15
    assert sum(row.salinity_low_ppt > 0 for row in rows) >= 6
    assert sum(row.temp_high_c <= 22 for row in rows) >= 10
    assert sum(row.shock_class == "sensitive" for row in rows) >= 10


@pytest.mark.parametrize("row", shipped().plants.values(), ids=lambda row: row.key)
def test_plants_lie_where_plants_grow(row):
    assert row.uptake in shipped().plant_covers
    assert 3 <= row.temp_low_c < row.temp_high_c <= 32
    assert 4.5 <= row.ph_low < row.ph_high <= 9
    assert 0 < row.ammonia_high_mg_l <= 3
    assert row.rooted == (row.rooted and row.uptake in ("slow", "stems"))


def test_pipes_are_narrower_inside_than_out_and_heaters_are_sold_sizes():
    for row in shipped().pipes.values():
        assert 0 < row.bore_mm < row.outside_mm
    stock = shipped().stock_heaters_w
    assert all(row.watts in stock for row in shipped().heater_models.values())


@pytest.mark.parametrize(("key", "grams"), [("gypsum", 172.17), ("calcium_carbonate", 100.09)])
def test_a_salt_weighs_what_it_is_made_of(key, grams):
    assert mineral_salts()[key].g_mol == pytest.approx(grams, abs=0.01)


# Shares of dry feed by what an animal eats: rules of practice.
PROTEIN = {"herbivore": 0.32, "omnivore": 0.42, "carnivore": 0.52, "reptile": 0.40, "shrimp": 0.35}


@pytest.mark.parametrize("row", shipped().species.values(), ids=lambda row: row.key)
def test_species_values_lie_where_animals_live(row):
    assert 1 <= row.adult_length_cm <= 100
    assert 0 <= row.temp_low_c < row.temp_high_c <= 34
    assert 3.5 <= row.ph_low < row.ph_high <= 9.2
    assert 0 <= row.gape_frac <= 2
    assert 0.05 <= row.growth_per_year <= 4
    assert 3 <= row.length_ratio <= 12
    assert len(row.scientific.split()) >= 2
    assert 0 <= row.kh_low_dkh < row.kh_high_dkh <= row.gh_high_dgh + 2
    assert 0 < row.litres_low <= row.litres_high
    assert 1 <= row.life_years <= 50
    assert row.copper_sensitive or row.shape not in ("shrimp", "snail")
    assert row.protein_frac == pytest.approx(PROTEIN[row.feeds_on], abs=0.08)
    assert not (row.alone and row.group_least > 1)


def test_scientific_names_stand_once():
    names = [row.scientific for row in shipped().species.values()]
    assert len(set(names)) == len(names)


def test_filters_refer_to_known_kinds_and_media():
    for row in shipped().filter_models.values():
        assert row.kind in shipped().filter_kinds
        assert row.media_key in shipped().media


@pytest.mark.parametrize(
    ("old", "new", "told"),
    [
        ("Discus,", "Discus,", None),
        (",disc,15,", ",disc,fifteen,", "adult_length_cm"),
        (",disc,15,", ",cube,15,", "shape"),
        (",27,30,", ",30,27,", "upside down"),
        (",territorial,", ",moody,", "temper"),
    ],
)
def test_a_broken_row_is_named(old, new, told):
    lines = text("species.csv").splitlines()
    discus = next(line for line in lines if line.startswith("discus,"))
    content = "\n".join([lines[0], discus.replace(old, new)])

    def load():
        for row in read_csv("species.csv", Species, content).values():
            for fault, found in contradictions(row, shipped()).items():
                if found:
                    raise BrokenData("species.csv", row.key, fault)

    if told is None:
        load()
        return
    with pytest.raises(BrokenData) as caught:
        load()
    assert caught.value.values["row"] == "discus"
    assert told in caught.value.values["reason"]


def test_a_key_that_stands_twice_is_named():
    head, first = text("media.csv").splitlines()[:2]
    with pytest.raises(BrokenData, match="stands twice"):
        read_csv("media.csv", Media, "\n".join([head, first, first]))


def test_an_unknown_key_names_its_table():
    with pytest.raises(UnknownKey) as caught:
        shipped().species["unicorn"]
    assert caught.value.values == {"table": "species.csv", "key": "unicorn"}


def test_every_kind_has_a_base_unit_and_suffixes_are_unique():
    seen = [suffix for kind in kinds().values() for suffix in kind.suffixes]
    assert len(seen) == len(set(seen))
    for kind in kinds().values():
        assert kind.units[0].factor in (1.0, 100.0) or kind.key in (
            "nitrate",
            "nitrate_rate",
            "ammonia",
            "unionised",
            "nitrite",
        )


@pytest.mark.parametrize(
    ("name", "kind"), [("a_l", "volume"), ("a_nitrate_mg_l", "nitrate"), ("a_l_wk", "volume_per_week")]
)
def test_a_name_says_its_kind(name, kind):
    assert kind_of_name(name) == kind


@pytest.mark.parametrize(
    ("kind", "unit", "base", "shown"),
    [
        ("temperature", "F", 25, 77),
        ("temperature_difference", "F", 5, 9),
        ("volume", "gal", 3.785411784, 1),
        ("length", "in", 2.54, 1),
        ("mass", "lb", 0.45359237, 1),
        ("pressure", "lbf/ft2", 1.915, 40.0),
        ("nitrate", "NO3", 10, 44.27),
    ],
)
def test_units_by_their_definitions(kind, unit, base, shown):
    found = next(u for u in kinds()[kind].units if u.key == unit)
    assert base * found.factor + found.offset == pytest.approx(shown, rel=1e-3)


def test_rows_have_no_unread_columns():
    for name, row in (("species.csv", Species), ("filters.csv", FilterModel)):
        own_alone = ["breeds_as"] if row is Species else [f.name for f in fields(row) if f.default is not MISSING]
        assert [*text(name).splitlines()[0].split(","), *own_alone] == [field.name for field in fields(row)]


# Rows of a keeper's own, by any release -----------------------------------------------------------

KEPT = json.loads((Path(__file__).parent / "cases/own_rows.json").read_text(encoding="utf-8"))


@pytest.mark.parametrize("release", KEPT)
@pytest.mark.parametrize("kind", own.KINDS)
def test_a_row_that_any_release_kept_is_read(release, kind):
    cells = KEPT[release][kind]
    row = own.kept_own_row(kind, cells, shipped())
    assert own.cells_of(row).items() >= cells.items()
    # And as it is kept now.
    assert own.kept_own_row(kind, own.versioned(kind, own.cells_of(row)), shipped()) == row


@dataclass(frozen=True)
class Tub:
    key: str
    litres: float
    source: str
    lidded: bool = True
    """A column that came later."""


def test_a_column_that_comes_later_has_its_default_and_one_that_goes_a_step(monkeypatch):
    old = {"key": "own_tub", "gallons": "10", "source": "mine"}
    steps = (lambda cells: {**cells, "litres": f"{float(cells.pop('gallons')) * 3.785412:.4f}"},)
    monkeypatch.setitem(own.STEPS, "media", steps)
    forward = own.brought_forward("media", old)
    assert own.read(Tub, forward) == Tub("own_tub", 37.8541, "mine", lidded=True)
    # What is kept from here on says its version, and is not brought forward twice.
    now = own.versioned("media", own.cells_of(Tub("own_tub", 20.0, "mine", lidded=False)))
    assert now["version"] == "2"
    assert own.read(Tub, own.brought_forward("media", now)) == Tub("own_tub", 20.0, "mine", lidded=False)
    # An empty cell is not a missing one: it is asked for.
    with pytest.raises(own.BadCells, match="lidded"):
        own.read(Tub, {**forward, "lidded": ""})


@pytest.mark.parametrize("version", ["2", "0", "soon", "-1"])
def test_a_row_of_a_newer_loquen_is_left_as_it_is(version):
    cells = {**KEPT["0.6 to 0.15"]["media"], "version": version}
    with pytest.raises(own.BadCells, match="newer one wrote it"):
        own.kept_own_row("media", cells, shipped())
