"""The shipped library as frozen dataclasses: what each table's rows mean."""

from collections.abc import Callable
from dataclasses import dataclass, fields
from functools import cache
from typing import Any, Literal

from loquen.core.data import kits, own
from loquen.core.data.tables import Table, read_csv, toml
from loquen.core.errors import BrokenData

Confidence = Literal["high", "fair", "low"]
FeedsOn = Literal["herbivore", "omnivore", "carnivore", "shrimp", "reptile"]
Level = Literal["bottom", "middle", "top", "all"]
Current = Literal["still", "gentle", "moderate", "strong"]
Temper = Literal["peaceful", "nippy", "territorial", "fierce", "hunter"]


@dataclass(frozen=True, slots=True)
class BodyShape:
    key: str
    label: str
    a: float
    b: float
    depth_frac: float
    source: str


@dataclass(frozen=True, slots=True)
class Species:
    """One kind of animal, at adult size, with the ranges it is kept in.

    `group_least` is the smallest company it is kept in (1: alone or any number), `alone` that it must
    have none of its kind; `females_per_male` 0 when sexes do not matter. `gape_frac` is the longest
    prey as a share of the animal's own length; `length_ratio` and `width_ratio` are the footprint it wants
    in its own lengths. Past its range of salinity by `salt_leeway_ppt` it lives on, but not well; `uvi_low` and
    `uvi_high` bound the ultraviolet index where it basks, both 0 where it does not.
    """

    key: str
    common: str
    scientific: str
    family: str
    shape: str
    adult_length_cm: float
    adult_mass_g: float | None
    growth_per_year: float
    life_years: float
    temp_low_c: float
    temp_high_c: float
    ph_low: float
    ph_high: float
    gh_low_dgh: float
    gh_high_dgh: float
    kh_low_dkh: float
    kh_high_dkh: float
    salinity_low_ppt: float
    salinity_high_ppt: float
    feeds_on: FeedsOn
    protein_frac: float
    litres_low: float
    litres_high: float
    length_ratio: float
    width_ratio: float
    group_least: int
    alone: bool
    females_per_male: int
    crowd: bool
    temper: Temper
    gape_frac: float
    level: Level
    current: Current
    turnover: str
    shock_class: str
    jumper: bool
    breathes_air: bool
    digger: bool
    burrows: bool
    eats_plants: bool
    copper_sensitive: bool
    salt_leeway_ppt: float
    armoured: bool
    clings: bool
    uvi_low: float
    uvi_high: float
    aliases: tuple[str, ...]
    confidence: Confidence
    source: str
    note: str


@dataclass(frozen=True, slots=True)
class Bed:
    key: str
    label: str
    porosity: float
    displaced_share: float
    bulk_kg_l: float
    fine: bool
    source: str


@dataclass(frozen=True, slots=True)
class Food:
    """A food as it is given. `protein_frac` and `plant_frac` are of its dry matter, `dry_frac` of its weight.

    What is `bitten` off or rasped needs to fit no mouth; all else is swallowed in pieces of `piece_mm`. `piece_g` is
    what a cube, wafer or slice weighs, 0 where it is weighed out.
    """

    key: str
    label: str
    form: Literal["dry", "frozen", "fresh", "live"]
    dry_frac: float
    protein_frac: float
    plant_frac: float
    piece_mm: float
    bitten: bool
    sinking: Literal["floats", "slow", "sinks"]
    hard: bool
    coloured: bool
    piece_g: float
    source: str
    note: str


@dataclass(frozen=True, slots=True)
class Lid:
    """A cover by what it keeps back: vapour, warmth, who would leave, and ultraviolet-B from a lamp above it."""

    key: str
    label: str
    vapour_cover: float
    warm_cover: float
    keeps_in: Literal["nobody", "jumpers", "all"]
    uvb_passes: float
    source: str


@dataclass(frozen=True, slots=True)
class Material:
    key: str
    label: str
    conductivity_w_mk: float
    density_kg_l: float
    source: str


@dataclass(frozen=True, slots=True)
class Media:
    key: str
    label: str
    area_m2_l: float
    share_used: float
    source: str


@dataclass(frozen=True, slots=True)
class FilterKind:
    """How a kind of filter moves water; `air_share` is the air it lets out for the water it is rated for, `air_driven`
    that a pump outside the water drives it by air, `spills` that its water comes back over a lip, `rinse_weeks` how long
    its media go between rinses."""

    key: str
    label: str
    flow_share: float
    air_share: float
    air_driven: bool
    spills: bool
    rinse_weeks: float
    source: str


@dataclass(frozen=True, slots=True)
class FilterModel:
    key: str
    label: str
    kind: str
    rated_lph: float
    media_key: str
    media_l: float
    holds_l: float
    watts: float
    source: str


@dataclass(frozen=True, slots=True)
class Turnover:
    key: str
    label: str
    low_per_h: float
    high_per_h: float
    source: str


@dataclass(frozen=True, slots=True)
class ShockClass:
    """The largest step that animals bear at one water change."""

    key: str
    label: str
    temp_k: float
    conductivity_frac: float
    down_frac: float
    kh_dkh: float
    source: str


@dataclass(frozen=True, slots=True)
class Plant:
    """One kind of plant: what it takes up, the water it grows in, and whom it withstands."""

    key: str
    common: str
    scientific: str
    uptake: str
    light: Literal["low", "middling", "high"]
    temp_low_c: float
    temp_high_c: float
    ph_low: float
    ph_high: float
    gh_high_dgh: float
    salinity_high_ppt: float
    ammonia_high_mg_l: float
    height_cm: float
    rooted: bool
    withstands_grazers: bool
    withstands_diggers: bool
    invasive: bool
    confidence: Confidence
    source: str
    note: str


@dataclass(frozen=True, slots=True)
class HeaterModel:
    """A generic heater by its watts and how it is built in."""

    key: str
    label: str
    watts: float
    kind: Literal["tube", "inline", "mat"]
    length_cm: float
    source: str


@dataclass(frozen=True, slots=True)
class PlantCover:
    key: str
    label: str
    n_g_m2_d: float
    low_g_m2_d: float
    high_g_m2_d: float
    source: str


@dataclass(frozen=True, slots=True)
class Ion:
    """An ion with its limiting conductivity per equivalent at 25 °C."""

    key: str
    label: str
    g_mol: float
    charge: int
    conductivity_s_cm2_eq: float
    source: str


@dataclass(frozen=True, slots=True)
class MineralSalt:
    """A salt by what one mole of it gives: moles of Ca + Mg, equivalents of alkalinity, moles of each ion."""

    key: str
    label: str
    formula: str
    g_mol: float
    hardness_mol: float
    alkalinity_eq: float
    calcium_mol: float
    magnesium_mol: float
    sodium_mol: float
    potassium_mol: float
    chloride_mol: float
    sulfate_mol: float
    source: str


@dataclass(frozen=True, slots=True)
class Fitting:
    """A part of a pipe run by its loss coefficient K."""

    key: str
    label: str
    k: float
    note: str
    source: str


@dataclass(frozen=True, slots=True)
class Pipe:
    """A pipe by its true bore."""

    key: str
    label: str
    bore_mm: float
    outside_mm: float
    system: Literal["hose", "metric", "waste", "inch"]
    source: str


@dataclass(frozen=True, slots=True)
class PumpModel:
    """A generic return pump by the two ends of its curve."""

    key: str
    label: str
    shutoff_head_m: float
    max_flow_lph: float
    watts: float
    source: str


@dataclass(frozen=True, slots=True)
class StockTank:
    key: str
    length_cm: float
    width_cm: float
    height_cm: float
    pane_mm: float
    support: Literal["three_edges", "cross", "four_edges"]
    source: str


@cache
def body_shapes() -> Table[BodyShape]:
    return read_csv("body_shapes.csv", BodyShape)


@cache
def shipped_species() -> Table[Species]:
    table = read_csv("species.csv", Species)
    for row in table.values():
        check_species(row)
    return table


def species() -> Table[Species]:
    return own.beside("species", shipped_species())


def check_species(row: Species) -> None:
    """Raise BrokenData naming the row when its columns contradict each other."""
    for fault, found in contradictions(row).items():
        if found:
            raise BrokenData("species.csv", row.key, fault)


def contradictions(row: Species) -> dict[str, bool]:
    """What can not be true of a kind, and whether it stands so."""
    return {
        "shape is not in body_shapes.csv": row.shape not in body_shapes() and row.adult_mass_g is None,
        "turnover is not in turnover.csv": row.turnover not in turnovers(),
        "temperature range is upside down": row.temp_low_c >= row.temp_high_c,
        "pH range is upside down": row.ph_low >= row.ph_high,
        "hardness range is upside down": row.gh_low_dgh >= row.gh_high_dgh,
        "salinity range is upside down": row.salinity_low_ppt > row.salinity_high_ppt,
        "carbonate range is upside down": row.kh_low_dkh >= row.kh_high_dkh,
        "shock class is not in shock.csv": row.shock_class not in shock_classes(),
        "litres are upside down": row.litres_low > row.litres_high,
        "protein is not a share": not 0 < row.protein_frac < 1,
        "adult length is none": not 0.2 <= row.adult_length_cm <= 200,
        "growth is none": row.growth_per_year <= 0,
        "least company is none": row.group_least < 1,
        "gape is not a share of its length": not 0 <= row.gape_frac <= 3,
        "litres are none": row.litres_low <= 0,
    }


@cache
def beds() -> Table[Bed]:
    return read_csv("beds.csv", Bed)


@cache
def foods() -> Table[Food]:
    return read_csv("foods.csv", Food)


@cache
def lids() -> Table[Lid]:
    return read_csv("lids.csv", Lid)


@cache
def materials() -> Table[Material]:
    return read_csv("materials.csv", Material)


@cache
def shipped_media() -> Table[Media]:
    return read_csv("media.csv", Media)


def media() -> Table[Media]:
    return own.beside("media", shipped_media())


@cache
def filter_kinds() -> Table[FilterKind]:
    return read_csv("filter_kinds.csv", FilterKind)


@cache
def shipped_filter_models() -> Table[FilterModel]:
    return read_csv("filters.csv", FilterModel)


def filter_models() -> Table[FilterModel]:
    return own.beside("filters", shipped_filter_models())


@cache
def turnovers() -> Table[Turnover]:
    return read_csv("turnover.csv", Turnover)


@cache
def plant_covers() -> Table[PlantCover]:
    return read_csv("plant_covers.csv", PlantCover)


@cache
def shock_classes() -> Table[ShockClass]:
    return read_csv("shock.csv", ShockClass)


@cache
def shipped_plants() -> Table[Plant]:
    return read_csv("plants.csv", Plant)


def plants() -> Table[Plant]:
    return own.beside("plants", shipped_plants())


@cache
def heater_models() -> Table[HeaterModel]:
    return read_csv("heaters.csv", HeaterModel)


@cache
def ions() -> Table[Ion]:
    return read_csv("ions.csv", Ion)


@cache
def mineral_salts() -> Table[MineralSalt]:
    return read_csv("mineral_salts.csv", MineralSalt)


@cache
def fittings() -> Table[Fitting]:
    return read_csv("fittings.csv", Fitting)


def run_parts() -> dict[str, str]:
    """What may stand along a run, by key: straight pipe, and every fitting."""
    return {"pipe": "straight pipe", **{key: row.label for key, row in fittings().items()}}


@cache
def pipes() -> Table[Pipe]:
    return read_csv("pipes.csv", Pipe)


@cache
def shipped_pump_models() -> Table[PumpModel]:
    return read_csv("pumps.csv", PumpModel)


def pump_models() -> Table[PumpModel]:
    return own.beside("pumps", shipped_pump_models())


@cache
def stock_tanks() -> Table[StockTank]:
    return read_csv("tanks.csv", StockTank)


def stock_panes_mm() -> list[float]:
    return [float(mm) for mm in toml("stock.toml")["pane_mm"]]


def stock_heaters_w() -> list[float]:
    return [float(watts) for watts in toml("stock.toml")["heater_w"]]


@dataclass(frozen=True, slots=True)
class FirstChamber:
    """A chamber of a first sump: shares of the sump's length and height."""

    kind: Literal["settling", "media", "heater", "trap", "return"]
    length_frac: float
    baffle_frac: float


@dataclass(frozen=True, slots=True)
class FirstPart:
    """A part along the run of a first sump."""

    part: str
    count: int = 1
    length_m: float = 1.0


@dataclass(frozen=True, slots=True)
class FirstSump:
    """What a first sump is laid out from."""

    source: str
    length_of_tank_frac: float
    shortest_cm: float
    longest_cm: float
    narrower_than_tank_cm: float
    narrowest_cm: float
    lowest_cm: float
    return_level_frac: float
    narrowest_chamber_cm: float
    chambers: tuple[FirstChamber, ...]
    run: tuple[FirstPart, ...]


@cache
def first_sump() -> FirstSump:
    values = toml("first_sump.toml")
    chambers = tuple(FirstChamber(**row) for row in values["chambers"])
    run = tuple(FirstPart(**row) for row in values["run"])
    return FirstSump(**{**values, "chambers": chambers, "run": run})


@dataclass(frozen=True, slots=True)
class OwnKind:
    """A kind of row that a keeper may have of their own: what it is called, its columns and its shipped rows."""

    label: str
    row_type: type[Any]
    shipped: Callable[[], Table[Any]]
    name: str
    contradictions: Callable[[Any], dict[str, bool]] | None = None


OWN_KINDS: dict[own.Kind, OwnKind] = {
    "species": OwnKind("Animals", Species, shipped_species, "common", contradictions),
    "plants": OwnKind("Plants", Plant, shipped_plants, "common"),
    "media": OwnKind("Media", Media, shipped_media, "label"),
    "filters": OwnKind("Filters", FilterModel, shipped_filter_models, "label"),
    "pumps": OwnKind("Pumps", PumpModel, shipped_pump_models, "label"),
    "kits": OwnKind("Test kits", kits.Kit, kits.shipped_kits, "label", kits.contradictions),
}


def keyed(column: str) -> Table[Any] | None:
    """The table that a column's cell is a key of."""
    tables: dict[str, Callable[[], Table[Any]]] = {
        "shape": body_shapes,
        "turnover": turnovers,
        "shock_class": shock_classes,
        "uptake": plant_covers,
        "kind": filter_kinds,
        "media_key": media,
        "measure": kits.measures,
    }
    return tables[column]() if column in tables else None


def own_row(kind: own.Kind, cells: own.Cells) -> Any:
    """Cells as an own row of a kind; raise BadCells."""
    described = OWN_KINDS[kind]
    columns = {field.name for field in fields(described.row_type)}
    faults = {
        column: f"“{cells.get(column, '')}” is none of {', '.join(table)}"
        for column in columns
        if (table := keyed(column)) is not None and cells.get(column) not in table
    }
    faults.pop("shape", None) if cells.get("adult_mass_g") else None
    if faults:
        raise own.BadCells(faults)
    return own.read(described.row_type, cells, described.contradictions)


def kept_own_row(kind: own.Kind, cells: own.Cells) -> Any:
    """Cells that were kept or taken along, by any release, as an own row of this one; raise BadCells."""
    return own_row(kind, own.brought_forward(kind, cells))


@dataclass(frozen=True, slots=True)
class BareSkinned:
    """A family whose skin no scales, or few, protect against what is in the water."""

    key: str
    label: str
    source: str
    note: str


@cache
def bare_skinned() -> Table[BareSkinned]:
    """Families without a coat of scales, by name."""
    return read_csv("bare_skinned.csv", BareSkinned)


@dataclass(frozen=True, slots=True)
class Diet:
    """What plants are in the food of those who eat so, and how far over their own protein it may lie."""

    key: FeedsOn
    label: str
    plant_low_frac: float
    plant_high_frac: float
    protein_over_frac: float
    source: str
    note: str


@cache
def diets() -> Table[Diet]:
    """By what a kind feeds on."""
    return read_csv("diets.csv", Diet)


@dataclass(frozen=True, slots=True)
class HardFood:
    """A family whose teeth want something hard on so many days a week."""

    key: str
    label: str
    hard_d_wk: int
    source: str
    note: str


@cache
def hard_foods() -> Table[HardFood]:
    """Families that want hard food, by name."""
    return read_csv("hard_foods.csv", HardFood)


@dataclass(frozen=True, slots=True)
class Culture:
    """A culture of live food: what one of it yields a week once it is ready, and how often it is tended."""

    key: str
    label: str
    food: str
    yield_g_wk: float
    ready_d: int
    tended_d: int
    source: str
    note: str


@cache
def cultures() -> Table[Culture]:
    return read_csv("cultures.csv", Culture)


BreedWay = Literal[
    "livebearer", "scatterer", "substrate", "cave", "mouthbrooder", "bubble_nest", "shrimp", "amphibian"
]


@dataclass(frozen=True, slots=True)
class Breeding:
    """How a kind breeds: young of a brood that swim, of a female of some length; days between; when sexes, size and
    colour tell; what a spawn wants. `pairs_ratio` is females to each male."""

    key: str
    way: BreedWay
    brood: float
    brood_low: float
    brood_high: float
    at_female_cm: float
    interval_d: float
    interval_low_d: float
    interval_high_d: float
    start_cm: float
    pairs_ratio: float
    females_least: int
    sexed_cm: float
    sale_cm: float
    colour_d: float
    eats_young: bool
    wants: str
    source: str
    note: str


@cache
def breeding() -> Table[Breeding]:
    """Kinds whose breeding is known, by the key of the animal."""
    return read_csv("breeding.csv", Breeding)
