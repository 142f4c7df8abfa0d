"""Animals as tables describe them: bodies, kinds, what they eat, how they breed, what they bear."""

from dataclasses import dataclass
from typing import Literal

Confidence = Literal["high", "fair", "low"]
FeedsOn = Literal["herbivore", "omnivore", "carnivore", "shrimp", "reptile"]
Level = Literal["bottom", "middle", "top", "all"]
Current = Literal["still", "gentle", "moderate", "strong"]
Temper = Literal["peaceful", "nippy", "territorial", "fierce", "hunter"]
Defends = Literal["by_temper", "nothing", "place", "brood", "ground"]
Land = Literal["by_body", "none", "basks", "walks", "island", "third", "half"]
Against = Literal["by_temper", "nobody", "own_males", "own_kind", "alike", "smaller", "all"]
BreedWay = Literal[
    "livebearer", "scatterer", "substrate", "cave", "mouthbrooder", "bubble_nest", "shrimp", "amphibian"
]


GROUND: dict[Temper, Defends] = {"territorial": "place", "fierce": "ground"}
DRIVEN: dict[Temper, Against] = {"territorial": "alike", "fierce": "all", "hunter": "smaller"}


@dataclass(frozen=True, slots=True)
class Species:
    """One kind of animal, at adult size, with the ranges it is kept in.

    `group_least` is the smallest company it is kept in (1: alone or any number), `alone` that it must
    have none of its kind; `females_per_male` 0 when sexes do not matter. `gape_frac` is the longest
    prey as a share of the animal's own length; `length_ratio` and `width_ratio` are the footprint it wants
    in its own lengths. Past its range of salinity by `salt_leeway_ppt` it lives on, but not well; `uvi_low` and
    `uvi_high` bound the ultraviolet index where it basks, both 0 where it does not. It breeds as the kind
    `breeds_as`, by the numbers of breeding.csv; how is not known where that is empty. It `defends` something `against`
    some; `looks` is its dress, by which others take it for their own; `bachelors` that males are kept without females.
    `land` is what it needs to leave the water: a place to bask, the same for one that walks the bottom, an island, or a
    part of the floor.
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
    defends: Defends = "by_temper"
    against: Against = "by_temper"
    looks: str = ""
    long_fins: bool = False
    bachelors: bool = False
    land: Land = "by_body"
    breeds_as: str = ""

    @property
    def holds_ground(self) -> Defends:
        """What it keeps others from: as written, else as such a temper does."""
        return GROUND.get(self.temper, "nothing") if self.defends == "by_temper" else self.defends

    @property
    def needs_land(self) -> Land:
        """What it needs to leave the water: as written, else a place where it basks."""
        if self.land != "by_body":
            return self.land
        return "basks" if self.uvi_high > 0 else "none"

    @property
    def drives_off(self) -> Against:
        """Whom it keeps from there: as written, else as such a temper does."""
        return DRIVEN.get(self.temper, "nobody") if self.against == "by_temper" else self.against


@dataclass(frozen=True, slots=True)
class BareSkinned:
    """A family whose skin no scales, or few, protect against what is in the water."""

    key: str
    label: str
    source: str
    note: str


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


@dataclass(frozen=True, slots=True)
class HardFood:
    """A family whose teeth want something hard on so many days a week."""

    key: str
    label: str
    hard_d_wk: int
    source: str
    note: str


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
