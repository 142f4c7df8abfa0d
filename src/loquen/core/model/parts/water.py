"""The waters of a plan: what is in the tank, what it is mixed from, what is added."""

from dataclasses import dataclass
from typing import Annotated, Literal

from loquen.core.model.inputs.quantity import UNKNOWN, Choice, Quantity, Untold
from loquen.core.physics.nitrogen import NITRATE_PER_N

Disinfectant = Literal["unknown", "none", "chlorine", "chloramine"]
DISINFECTANTS = {
    UNKNOWN: "not known yet",
    "none": "none: a well, rain, or it was asked",
    "chlorine": "chlorine",
    "chloramine": "chloramine",
}
TAP_UNTOLD = Untold(
    "to ask",
    "Ask the water company which disinfectant it uses and how much at most, or test total chlorine at the tap.",
)


@dataclass(frozen=True, slots=True)
class Water:
    """The water in the tank and the water that replaces it."""

    tank_ph: Annotated[float, Quantity("pH of the tank", "ph", 4, 10, given="reading")] = 7.4
    tank_gh_dgh: Annotated[float, Quantity("GH of the tank", "hardness", 0, 60, given="reading")] = 9.0
    salinity_by: Annotated[
        Literal["ppt", "gravity"], Choice("Salinity", {"ppt": "as salinity", "gravity": "by hydrometer"})
    ] = "ppt"
    salinity_ppt: Annotated[float, Quantity("Salinity", "salinity", 0, 40)] = 0.0
    gravity_sg: Annotated[float, Quantity("Hydrometer reads", "gravity", 0.99, 1.1, given="reading")] = 1.0
    hydrometer_c: Annotated[float, Quantity("Hydrometer is made for", "temperature", 0, 35, given="fact")] = 25.0
    tank_us_cm: Annotated[
        float | None, Quantity("Conductivity of the tank", "conductivity", 1, 40_000, given="reading")
    ] = None
    source_kh_dkh: Annotated[float, Quantity("KH of the change water", "carbonate", 0, 40, given="reading")] = 5.0
    source_nitrate_mg_l: Annotated[
        float, Quantity("Nitrate of the change water", "nitrate", 0, 50, given="reading")
    ] = 10 / NITRATE_PER_N
    source_us_cm: Annotated[
        float, Quantity("Conductivity of the change water", "conductivity", 1, 40_000, given="reading")
    ] = 450.0
    source_c: Annotated[float, Quantity("Change water comes at", "temperature", 0, 40)] = 24.0
    topped_up: Annotated[
        Literal["source", "pure"],
        Choice("Evaporation topped up with", {"source": "the change water", "pure": "pure water"}),
    ] = "source"
    disinfectant: Annotated[
        Disinfectant, Choice("Disinfectant", DISINFECTANTS, given="reading", untold=TAP_UNTOLD)
    ] = "unknown"
    disinfectant_mg_l: Annotated[float | None, Quantity("Its strength", "chlorine", 0, 10, given="reading")] = None
    treatment: Annotated[
        Literal["container", "tank", "carbon", "aged", "none"],
        Choice(
            "Treated",
            {
                "container": "conditioner, before it is poured",
                "tank": "conditioner in the tank, then refilled",
                "carbon": "run through carbon",
                "aged": "aged in a barrel",
                "none": "not at all",
            },
        ),
    ] = "container"
    aged_h: Annotated[float, Quantity("Stands for", "hours", 0, 1000)] = 48.0
    aerated: Annotated[bool, Choice("Aerated while it stands")] = True
    carbon_kind: Annotated[
        Literal["ordinary", "catalytic"],
        Choice("Carbon", {"ordinary": "ordinary", "catalytic": "catalytic"}, given="bought"),
    ] = "catalytic"
    carbon_l: Annotated[float, Quantity("Carbon in the cartridge", "volume", 0.05, 1000, given="bought")] = 2.0
    carbon_lph: Annotated[float, Quantity("Flow through it", "flow", 1, 20_000)] = 120.0
    conditioner_ml: Annotated[
        float, Quantity("Conditioner for 100 L, by its label", "dose", 0.01, 500, given="fact")
    ] = 25.0
    chloramine_factor: Annotated[float, Quantity("Times as much for chloramine", "ratio", 1, 10, given="fact")] = (
        2.0
    )
    dose_margin: Annotated[float | None, Quantity("Your own margin, times the label", "ratio", 0.5, 5)] = None
    dose_most: Annotated[float, Quantity("Label's most, times its dose", "ratio", 1, 20, given="fact")] = 5.0
    container_l: Annotated[float | None, Quantity("One container holds", "volume", 1, 2000, given="bought")] = None
    aired: Annotated[bool, Choice("Aired, or splashed over a column, before it goes in")] = False


@dataclass(frozen=True, slots=True)
class Source:
    """One water that change water is mixed from, by its test or its report."""

    src_name: Annotated[str, Choice("Name", given="fact")] = "Tap"
    src_kind: Annotated[
        Literal["tap", "well", "rain", "osmosis", "stored"],
        Choice(
            "Kind",
            {"tap": "tap", "well": "well", "rain": "rain", "osmosis": "reverse osmosis", "stored": "stored"},
            given="fact",
        ),
    ] = "tap"
    src_parts: Annotated[float, Quantity("Parts in the mix", "ratio", 0, 1000)] = 1.0
    src_gh_dgh: Annotated[float, Quantity("GH", "hardness", 0, 60, given="reading")] = 9.0
    src_kh_dkh: Annotated[float, Quantity("KH", "carbonate", 0, 40, given="reading")] = 5.0
    src_ph: Annotated[float | None, Quantity("pH of the test", "ph", 3, 11, given="reading")] = None
    src_us_cm: Annotated[float, Quantity("Conductivity", "conductivity", 1, 40_000, given="reading")] = 450.0
    src_nitrate_mg_l: Annotated[float, Quantity("Nitrate", "nitrate", 0, 50, given="reading")] = 2.0
    src_sodium_mg_l: Annotated[float, Quantity("Sodium", "level", 0, 10_000, given="reading")] = 10.0
    src_chloride_mg_l: Annotated[float, Quantity("Chloride", "level", 0, 20_000, given="reading")] = 20.0
    src_c: Annotated[float, Quantity("Comes at", "temperature", 0, 70, given="reading")] = 15.0
    src_summer_c: Annotated[float | None, Quantity("In summer at", "temperature", 0, 70, given="reading")] = None
    src_disinfectant: Annotated[
        Disinfectant, Choice("Disinfectant", DISINFECTANTS, given="reading", untold=TAP_UNTOLD)
    ] = "unknown"
    src_chlorine_mg_l: Annotated[float | None, Quantity("Its strength", "chlorine", 0, 10, given="reading")] = None
    src_softened: Annotated[
        Literal["none", "hot", "all"],
        Choice(
            "Salt softener", {"none": "none", "hot": "on the hot side only", "all": "on all of it"}, given="fact"
        ),
    ] = "none"


@dataclass(frozen=True, slots=True)
class Recipe:
    """What is made of the waters for one change: targets, salts, temperature, salt."""

    target_gh_dgh: Annotated[float | None, Quantity("GH wanted", "hardness", 0, 40)] = None
    target_us_cm: Annotated[
        float | None, Quantity("Conductivity wanted, where no GH is", "conductivity", 1, 20_000)
    ] = None
    target_kh_dkh: Annotated[float | None, Quantity("KH wanted", "carbonate", 0, 30)] = None
    calcium_salt: Annotated[str, Choice("Calcium from", table="calcium_salts")] = "gypsum"
    magnesium_salt: Annotated[str, Choice("Magnesium from", table="magnesium_salts")] = (
        "magnesium_sulfate_heptahydrate"
    )
    calcium_frac: Annotated[float, Quantity("Calcium's part of the hardness", "share", 0, 1)] = 0.75
    carbonate_salt: Annotated[str, Choice("KH from", table="carbonate_salts")] = "sodium_bicarbonate"
    product_g: Annotated[
        float | None,
        Quantity("Mixed salt: label's weight for a degree in 100 L", "small_mass", 0.1, 500, given="fact"),
    ] = None
    hot_c: Annotated[float, Quantity("Hot tap", "temperature", 20, 90, given="fact")] = 55.0
    fill_l_min: Annotated[float, Quantity("Filled at", "fill_rate", 0.2, 200, given="fact")] = 10.0
    flush_m: Annotated[float, Quantity("Old or metal pipe before the tap", "head", 0, 200, given="fact")] = 0.0
    flush_bore_mm: Annotated[float, Quantity("Its bore", "thickness", 4, 60, given="fact")] = 13.0
    salt_purity_frac: Annotated[float, Quantity("Salt in what is weighed", "share", 0.3, 1, given="fact")] = 1.0
    move_to_ppt: Annotated[float | None, Quantity("Move to a salinity of", "salinity", 0, 40)] = None
    move_ppt_d: Annotated[float, Quantity("A day at most", "salinity", 0.05, 3)] = 1.0


@dataclass(frozen=True, slots=True)
class Osmosis:
    """A reverse-osmosis membrane and the water it is fed with."""

    membrane_fitted: Annotated[bool, Choice("Reverse osmosis of your own", given="bought")] = False
    membrane_l_d: Annotated[
        float, Quantity("Membrane makes, as rated", "volume_per_day", 10, 20_000, given="bought")
    ] = 280.0
    membrane_kpa: Annotated[float, Quantity("Rated at", "pressure", 100, 2000, given="bought")] = 414.0
    feed_kpa: Annotated[float, Quantity("Pressure before it", "pressure", 50, 2000, given="reading")] = 350.0
    feed_c: Annotated[float, Quantity("Feed water", "temperature", 1, 40, given="reading")] = 12.0
    feed_us_cm: Annotated[float, Quantity("Feed, conductivity", "conductivity", 1, 20_000, given="reading")] = 450.0
    feed_gh_dgh: Annotated[float, Quantity("Feed, GH", "hardness", 0, 60, given="reading")] = 9.0
    feed_kh_dkh: Annotated[float, Quantity("Feed, KH", "carbonate", 0, 40, given="reading")] = 5.0
    feed_nitrate_mg_l: Annotated[float, Quantity("Feed, nitrate", "nitrate", 0, 50, given="reading")] = (
        10 / NITRATE_PER_N
    )
    rejects_frac: Annotated[float, Quantity("It rejects of solids", "share", 0.5, 0.999, given="fact")] = 0.96
    rejects_nitrate_frac: Annotated[float, Quantity("It rejects of nitrate", "share", 0.2, 0.999, given="fact")] = (
        0.87
    )
    waste_ratio: Annotated[float, Quantity("Litres to the drain for each made", "ratio", 0.2, 10, given="fact")] = (
        3.0
    )
    store_l: Annotated[float, Quantity("Store holds", "volume", 1, 20_000, given="bought")] = 100.0
