"""A venture as a keeper describes it: a colony in a sort of tank, its broods, who takes the young, what that costs."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from loquen.core.model.inputs.quantity import Choice, Most, Quantity
from loquen.core.model.inputs.shape import Shape

VENTURE_VERSION = 1
NO_TANK = 0
"""The system of a venture that no tank is chosen for; of its colony, where that lives in tanks like the others."""


@dataclass(frozen=True, slots=True)
class Stand:
    """The tanks it is kept in, all like one of a system, and since when."""

    system: Annotated[int, Quantity("Tanks like those of", "count", 0, 1e9, whole=True)] = NO_TANK
    colony_system: Annotated[int, Quantity("The colony lives in", "count", 0, 1e9, whole=True)] = NO_TANK
    colony_tanks: Annotated[int, Quantity("Tanks for the colony", "count", 0, 60, whole=True)] = 1
    all_tanks: Annotated[int, Quantity("Tanks there are for it, in all", "count", 1, 300, whole=True)] = 4
    stock_g_l: Annotated[float, Quantity("Growing fish in a litre, g", "ratio", 0.05, 20)] = 1.0
    set_on: Annotated[str, Choice("Colony set on", table="date")] = ""
    settle_d: Annotated[float, Quantity("Days until the first brood", "days", 0, 1000)] = 30.0
    notes: Annotated[str, Choice("Notes", table="text")] = ""


@dataclass(frozen=True, slots=True)
class Colony:
    """Who breeds, and how they are bought."""

    species: Annotated[str, Choice("Animal", table="species")]
    purpose: Annotated[
        Literal["sale", "line"], Choice("Bred", {"sale": "to sell", "line": "to keep the line going"})
    ] = "sale"
    females: Annotated[int, Quantity("Females", "count", 0, 1000, whole=True)] = 4
    males: Annotated[int, Quantity("Males", "count", 0, 1000, whole=True)] = 2
    spare_male: Annotated[bool, Choice("A spare male, kept elsewhere")] = True
    female_cm: Annotated[float | None, Quantity("Length of the females", "length", 0.5, 200)] = None
    bought: Annotated[
        Literal["grown", "young"], Choice("Bought", {"grown": "grown", "young": "young, to be sexed later"})
    ] = "young"
    lines: Annotated[int, Quantity("From so many lines", "count", 1, 20, whole=True)] = 2
    chance_frac: Annotated[float, Quantity("Sure of both sexes by", "share", 0.5, 0.999)] = 0.95
    male_frac: Annotated[float, Quantity("Males among young", "share", 0.02, 0.98)] = 0.5
    reared_frac: Annotated[float, Quantity("Of bought young that grow up", "share", 0.05, 1)] = 0.9
    young_money: Annotated[float, Quantity("A young one costs", "money", 0, 100_000)] = 4.0
    grown_money: Annotated[float, Quantity("A grown one costs", "money", 0, 100_000)] = 15.0
    breeds_weeks: Annotated[float, Quantity("Breeds for", "weeks", 4, 1500)] = 104.0


@dataclass(frozen=True, slots=True)
class Broods:
    """How the young come, and where they are until they can go to the others."""

    brood_size: Annotated[float | None, Quantity("Young of a brood", "count", 0.1, 10_000)] = None
    interval_d: Annotated[float | None, Quantity("Days from brood to brood", "days", 0.5, 1000)] = None
    fertile_frac: Annotated[float, Quantity("Broods that come to something", "share", 0, 1)] = 0.8
    raised: Annotated[
        Literal["parents", "holding", "raising"],
        Choice(
            "Young are",
            {
                "parents": "left with the colony",
                "holding": "dropped in a holding tank, raised there",
                "raising": "moved to a raising tank, brood by brood",
            },
        ),
    ] = "raising"
    holding_d: Annotated[float, Quantity("Days a female is held before", "days", 0, 90)] = 7.0
    stripped: Annotated[bool, Choice("Mouths are stripped")] = False
    taken_month: Annotated[float | None, Quantity("Batches raised a month, at most", "ratio", 0.05, 200)] = None
    most_of_batch: Annotated[float | None, Quantity("Young raised of a batch, at most", "count", 1, 10_000)] = None
    culled_frac: Annotated[float, Quantity("Culled when they are sorted", "share", 0, 0.95)] = 0.05
    move_cm: Annotated[float, Quantity("Moved to grow on at", "length", 0.2, 100)] = 1.5


@dataclass(frozen=True, slots=True)
class Raising:
    """A stage of young life, and how many live through it."""

    stage_name: Annotated[str, Choice("Stage", table="text")] = "Growing on"
    stage_d: Annotated[float, Quantity("for", "days", 1, 2000)] = 90.0
    lives_frac: Annotated[float, Quantity("of them live", "share", 0, 1)] = 0.9


@dataclass(frozen=True, slots=True)
class Sale:
    """Young of a sex that go one way: at a size, for a price, to so many buyers."""

    sale_name: Annotated[str, Choice("Called", table="text")] = ""
    sex: Annotated[
        Literal["any", "male", "female"], Choice("Who", {"any": "both sexes", "male": "males", "female": "females"})
    ] = "any"
    channel: Annotated[
        Literal["shop", "club", "direct"],
        Choice("To", {"shop": "a shop", "club": "the club", "direct": "keepers direct"}),
    ] = "shop"
    part_frac: Annotated[float, Quantity("Of those", "share", 0, 1)] = 1.0
    sale_cm: Annotated[float | None, Quantity("at", "length", 0.2, 200)] = None
    colour_d: Annotated[float, Quantity("coloured after", "days", 0, 3000)] = 0.0
    price_money: Annotated[float | None, Quantity("for", "money", 0, 100_000)] = None
    sells_frac: Annotated[float, Quantity("find a buyer", "share", 0, 1)] = 0.8
    ships_frac: Annotated[float, Quantity("arrive well", "share", 0.2, 1)] = 1.0
    buyers_wk: Annotated[float | None, Quantity("buyers a week", "ratio", 0, 10_000)] = None
    wait_d: Annotated[float, Quantity("wait for one", "days", 0, 1000)] = 14.0
    kept_d: Annotated[float, Quantity("the rest stay", "days", 0, 1500)] = 60.0
    unsold_money: Annotated[float, Quantity("and then bring", "money", -1000, 100_000)] = 0.0


@dataclass(frozen=True, slots=True)
class Costs:
    """What an hour, food, power and water cost; the tank's own work, litres and power are its plan's."""

    hour_money: Annotated[float, Quantity("An hour of work", "money", 0, 1000)] = 12.0
    tank_min: Annotated[float, Quantity("Feeding and glass, a tank a week", "minutes", 0, 600)] = 5.25
    sale_min: Annotated[float, Quantity("Catching and packing one", "minutes", 0, 240)] = 1.5
    feed_kg_money: Annotated[float, Quantity("Dry food, a kg", "money", 0, 10_000)] = 30.0
    kwh_money: Annotated[float | None, Quantity("Electricity, per kWh", "money", 0, 100)] = None
    water_money: Annotated[float, Quantity("Water and drain, per 1000 L", "money", 0, 1000)] = 4.0
    commission_frac: Annotated[float, Quantity("Kept by who sells them on", "share", 0, 0.9)] = 0.0
    other_money: Annotated[float, Quantity("Other costs a week", "money", 0, 100_000)] = 0.0
    set_up_money: Annotated[float, Quantity("Tanks and what belongs to them", "money", 0, 1_000_000)] = 0.0


@dataclass(frozen=True, slots=True)
class Doubts:
    """How far things may be from what is likely, as parts of it; empty ones go by practice."""

    broods_low: Annotated[float | None, Quantity("Broods, at worst", "share", 0.05, 1)] = None
    broods_high: Annotated[float | None, Quantity("Broods, at best", "share", 1, 10)] = None
    lives_low: Annotated[float | None, Quantity("Survival, at worst", "share", 0.05, 1)] = None
    lives_high: Annotated[float | None, Quantity("Survival, at best", "share", 1, 5)] = None
    pace_low: Annotated[float | None, Quantity("Growth, at worst", "share", 0.2, 1)] = None
    pace_high: Annotated[float | None, Quantity("Growth, at best", "share", 1, 3)] = None
    price_low: Annotated[float | None, Quantity("Prices, at worst", "share", 0.05, 1)] = None
    price_high: Annotated[float | None, Quantity("Prices, at best", "share", 1, 10)] = None
    sells_low: Annotated[float | None, Quantity("Buyers, at worst", "share", 0, 1)] = None
    sells_high: Annotated[float | None, Quantity("Buyers, at best", "share", 1, 10)] = None
    work_low: Annotated[float | None, Quantity("Work, at worst", "share", 1, 10)] = None
    work_high: Annotated[float | None, Quantity("Work, at best", "share", 0.1, 1)] = None


USUAL_RAISING = (Raising("First food", 30.0, 0.7), Raising("Growing on", 150.0, 0.95))


@dataclass(frozen=True, slots=True)
class Venture:
    """One kind bred in one sort of tank, whole."""

    name: str
    colony: Colony
    stand: Stand = field(default_factory=Stand)
    broods: Broods = field(default_factory=Broods)
    raising: Annotated[tuple[Raising, ...], Most(8)] = USUAL_RAISING
    sales: Annotated[tuple[Sale, ...], Most(12)] = ()
    costs: Costs = field(default_factory=Costs)
    doubts: Doubts = field(default_factory=Doubts)
    version: int = VENTURE_VERSION


VENTURE = Shape(Venture)
