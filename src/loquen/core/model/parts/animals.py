"""Who lives in a plan, and how they come."""

from dataclasses import dataclass
from typing import Annotated, Literal

from loquen.core.model.inputs.quantity import Choice, Quantity

SizeBy = Literal["adult", "length", "age"]
FeedBy = Literal["usual", "light", "normal", "growing", "weighed"]


@dataclass(frozen=True, slots=True)
class Group:
    """Animals of one kind, bought and fed together."""

    species: Annotated[str, Choice("Animal", table="species", given="fact")]
    number: Annotated[int, Quantity("How many", "count", 1, 2000, whole=True)]
    males: Annotated[int | None, Quantity("Males among them", "count", 0, 2000, whole=True, given="fact")] = None
    size_by: Annotated[
        SizeBy, Choice("Size today", {"adult": "full grown", "length": "measured", "age": "by age"}, given="fact")
    ] = "adult"
    length_cm: Annotated[float, Quantity("Length today", "length", 0.2, 200, given="reading")] = 3.0
    age_months: Annotated[float, Quantity("Age", "months", 0, 1200, given="fact")] = 3.0
    feed_by: Annotated[
        FeedBy,
        Choice(
            "Feeding",
            {
                "usual": "usual for its size",
                "light": "light",
                "normal": "normal",
                "growing": "heavy, for growth",
                "weighed": "weighed",
            },
        ),
    ] = "usual"
    weighed_g_d: Annotated[float, Quantity("Food for the group, on a day with food", "feed", 0, 50_000)] = 1.0
    food_protein_frac: Annotated[float | None, Quantity("Protein of their food", "share", 0.02, 0.95)] = None
    food: Annotated[str, Choice("Food", table="foods")] = "dry"
    own_litres: Annotated[
        float | None, Quantity("Litres for one adult, by your own rule", "volume", 0.05, 5000)
    ] = None
    own_lengths: Annotated[float | None, Quantity("Tank in adult lengths, by your own rule", "ratio", 1, 30)] = None
    own_reason: Annotated[str, Choice("Why", table="text")] = ""
    meals_d: Annotated[int, Quantity("Meals on a day with food", "count", 1, 12, whole=True)] = 2
    fasting_d_wk: Annotated[int, Quantity("Days a week without food", "count", 0, 6, whole=True)] = 0
    uneaten_frac: Annotated[float, Quantity("Left uneaten", "share", 0, 0.9)] = 0.0


@dataclass(frozen=True, slots=True)
class Bag:
    """One arrival: the bag its animals come in, and the drip they are given."""

    bag_name: Annotated[str, Choice("Who comes", table="text", given="fact")] = "Newcomers"
    bagged_l: Annotated[float, Quantity("Water in the bag", "volume", 0.05, 200, given="fact")] = 1.5
    bag_mass_g: Annotated[float, Quantity("Animals in it", "small_mass", 0.01, 20_000, given="fact")] = 10.0
    bag_number: Annotated[int, Quantity("How many they are", "count", 1, 2000, whole=True, given="fact")] = 1
    bag_protein_frac: Annotated[float, Quantity("Protein of their food", "share", 0.02, 0.95, given="fact")] = 0.42
    bag_h: Annotated[float, Quantity("On the way for", "hours", 0, 120, given="fact")] = 6.0
    bag_fasted: Annotated[bool, Choice("Not fed the day before", given="fact")] = True
    bag_c: Annotated[float, Quantity("Bag's temperature", "temperature", 2, 38, given="reading")] = 21.0
    bag_kh_dkh: Annotated[float, Quantity("KH of its water", "carbonate", 0.1, 30, given="reading")] = 4.0
    bag_ph: Annotated[float, Quantity("pH while sealed", "ph", 4, 9, given="reading")] = 6.6
    bag_us_cm: Annotated[
        float | None, Quantity("Conductivity of its water", "conductivity", 1, 40_000, given="reading")
    ] = None
    bag_salinity_ppt: Annotated[
        float | None, Quantity("Salinity of its water", "salinity", 0, 40, given="reading")
    ] = None
    drops_per_s: Annotated[float, Quantity("Drops a second", "ratio", 0.1, 20)] = 2.0
    drip_min: Annotated[float, Quantity("Drip for", "minutes", 1, 600)] = 40.0
    drip_frac: Annotated[float, Quantity("Tank water wanted in it", "share", 0.1, 0.95)] = 0.8


@dataclass(frozen=True, slots=True)
class Quarantine:
    """The tubs in which arrivals wait before they join the others."""

    tub_l: Annotated[float, Quantity("A tub holds", "volume", 1, 2000, given="bought")] = 18.0
    tub_count: Annotated[int, Quantity("Tubs", "count", 1, 100, whole=True, given="bought")] = 1
    wait_weeks: Annotated[float, Quantity("Each waits", "weeks", 1, 26)] = 4.0
    tub_media_m2: Annotated[float, Quantity("Seeded media in it", "area", 0, 50, given="bought")] = 0.0
    treatment_notes: Annotated[str, Choice("Treatment notes", table="text")] = ""
    copper_used: Annotated[bool, Choice("Treated with copper")] = False


@dataclass(frozen=True, slots=True)
class Stocking:
    """The school of stocking that the keeper goes by."""

    decides: Annotated[
        Literal["balance", "volume", "length", "surface", "crowd", "group"],
        Choice(
            "The school that decides",
            {
                "balance": "balance",
                "volume": "volume",
                "length": "length",
                "surface": "surface",
                "crowd": "crowd",
                "group": "group",
            },
        ),
    ] = "balance"
    raised_together: Annotated[bool, Choice("They grew up together", given="fact")] = False
    stays: Annotated[
        Literal["good", "months", "length"],
        Choice("They stay", {"good": "for good", "months": "for some months", "length": "until one measures"}),
    ] = "good"
    stays_months: Annotated[float, Quantity("Months they stay", "months", 0.5, 600)] = 9.0
    stays_until_cm: Annotated[float, Quantity("Length at which they leave", "length", 0.5, 200)] = 8.0
    logged_waste_frac: Annotated[
        float | None, Quantity("Waste by the log, of what is reckoned", "ratio", 0.05, 5, given="reading")
    ] = None
    held_months: Annotated[
        float | None, Quantity("Months that its readings have held", "months", 0, 600, given="reading")
    ] = None
