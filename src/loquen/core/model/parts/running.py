"""How a plan is run: filters, beginning, cycle, changes, what was told, what building it takes."""

from dataclasses import dataclass
from typing import Annotated, Literal

from loquen.core.model.inputs.quantity import Choice, Most, Quantity
from loquen.core.physics.nitrogen import NITRATE_PER_N

Weekday = Literal["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"]


@dataclass(frozen=True, slots=True)
class Filter:
    """One generic filter: what it holds and what it moves."""

    filter_kind: Annotated[str, Choice("Kind", table="filter_kinds", given="bought")] = "canister"
    media: Annotated[str, Choice("Media", table="media", given="bought")] = "sponge_20"
    media_l: Annotated[float, Quantity("Media", "volume", 0, 500, given="bought")] = 6.0
    maturity_frac: Annotated[float | None, Quantity("Mature", "share", 0, 1, given="fact")] = None
    rated_lph: Annotated[float, Quantity("Rated flow", "flow", 5, 50_000, given="bought")] = 1000.0
    measured_lph: Annotated[float | None, Quantity("Measured flow", "flow", 0, 50_000, given="reading")] = None
    holds_l: Annotated[float, Quantity("Water it holds", "volume", 0, 500, given="bought")] = 0.0
    filter_w: Annotated[float, Quantity("Electricity", "power", 0, 2000, given="bought")] = 10.0
    outlet: Annotated[
        Literal["usual", "submerged", "spill", "spray"],
        Choice(
            "Its outlet",
            {
                "usual": "as its kind does",
                "submerged": "under the water",
                "spill": "spills over a lip",
                "spray": "sprays over the water",
            },
        ),
    ] = "usual"
    draws_at_cm: Annotated[float, Quantity("Its intake stands above the bottom", "length", 0, 150)] = 5.0
    zeolite_g: Annotated[float, Quantity("Zeolite in it", "small_mass", 0, 100_000)] = 0.0


@dataclass(frozen=True, slots=True)
class RunIn:
    """How long the system has run with something to turn over, and when its animals go in."""

    stands: Annotated[
        Literal["planned", "set_up"],
        Choice("The system", {"planned": "is planned", "set_up": "is set up"}, given="fact"),
    ] = "planned"
    set_up_on: Annotated[str, Choice("Set up on", table="date", given="fact")] = ""
    age_weeks: Annotated[float | None, Quantity("Running for", "weeks", 0, 5000, given="fact")] = None
    seeded_frac: Annotated[float, Quantity("Media from a mature filter", "share", 0, 1)] = 0.0
    stocked: Annotated[
        Literal["now", "cycled"],
        Choice("Its animals", {"now": "are in it now", "cycled": "go in once it is cycled"}, given="fact"),
    ] = "now"


@dataclass(frozen=True, slots=True)
class Cycle:
    """How the filter is brought to life, and since when."""

    begun_by: Annotated[
        Literal["running", "empty", "animals", "soil"],
        Choice(
            "The filter",
            {
                "running": "has long been running",
                "empty": "is started empty, with ammonia",
                "animals": "is started with animals in it",
                "soil": "is started on active soil",
            },
            given="fact",
        ),
    ] = "running"
    begun_on: Annotated[str, Choice("Started on", table="date", given="fact")] = ""
    seeded_by: Annotated[
        Literal["nothing", "plants", "bottle", "media"],
        Choice(
            "Bacteria come with",
            {
                "nothing": "water and dust alone",
                "plants": "plants, pond or tank water",
                "bottle": "a bottle of bacteria",
                "media": "media of a running filter",
            },
        ),
    ] = "nothing"
    donor_frac: Annotated[float, Quantity("Part of the donor's media", "share", 0, 1)] = 0.3
    donor_mg_d: Annotated[
        float, Quantity("Nitrogen the donor turns over", "nitrogen_load", 0, 100_000, given="fact")
    ] = 100.0
    dose_kind: Annotated[
        Literal["ammonium_chloride", "ammonia_solution"],
        Choice("Dosed as", {"ammonium_chloride": "ammonium chloride", "ammonia_solution": "a solution of ammonia"}),
    ] = "ammonium_chloride"
    solution_pct: Annotated[float, Quantity("Ammonia in the solution, percent", "ratio", 0.1, 35, given="fact")] = (
        9.5
    )
    soil_gives_mg_l: Annotated[
        float, Quantity("Ammonia the soil gives up in all", "ammonia", 0, 60, given="fact")
    ] = 6.0
    camp: Annotated[
        Literal["changes", "rescue", "none", "detoxifier"],
        Choice(
            "With animals in it",
            {
                "changes": "water is changed when a limit is passed",
                "rescue": "a detoxifier each day, and changes by the readings",
                "none": "no water is changed",
                "detoxifier": "a detoxifier is dosed each day",
            },
        ),
    ] = "changes"
    detoxifier_ml_100l: Annotated[
        float | None, Quantity("Detoxifier for 100 L, by its label", "dose", 0.1, 1000, given="fact")
    ] = None
    tank_chloride_mg_l: Annotated[
        float, Quantity("Chloride in the water, mg/L", "ratio", 0, 40_000, given="reading")
    ] = 20.0


@dataclass(frozen=True, slots=True)
class Changes:
    """The regime of water changes and what it must hold."""

    target_nitrate_mg_l: Annotated[float, Quantity("Nitrate at most", "nitrate", 0.2, 100)] = 40 / NITRATE_PER_N
    regime: Annotated[
        Literal["weekdays", "every", "trigger", "pulses", "drip"],
        Choice(
            "Changed",
            {
                "weekdays": "on weekdays",
                "every": "every so many days",
                "trigger": "when nitrate reads your limit",
                "pulses": "flow-through pulses",
                "drip": "a steady drip",
            },
        ),
    ] = "weekdays"
    weekdays: Annotated[tuple[Weekday, ...], Choice("Days"), Most(7)] = ("Sat",)
    there: Annotated[tuple[Weekday, ...], Choice("Days you are there", given="fact"), Most(7)] = (
        "Mon",
        "Tue",
        "Wed",
        "Thu",
        "Fri",
        "Sat",
        "Sun",
    )
    read_nitrate_mg_l: Annotated[
        float | None, Quantity("Nitrate read today", "nitrate", 0, 200, given="reading")
    ] = None
    logged_rise_nitrate_mg_l_d: Annotated[
        float | None, Quantity("Nitrate made a day, as the log says", "nitrate_rate", 0, 50, given="reading")
    ] = None
    every_d: Annotated[int, Quantity("Every", "days", 1, 120, whole=True)] = 7
    shortest_gap_d: Annotated[float, Quantity("No sooner than every", "days", 0.5, 60)] = 3.0
    change_frac: Annotated[float, Quantity("Each time", "share", 0.01, 1)] = 0.4
    pulse_days: Annotated[tuple[Weekday, ...], Choice("Pulses on"), Most(7)] = (
        "Mon",
        "Tue",
        "Wed",
        "Thu",
        "Fri",
        "Sat",
        "Sun",
    )
    pulses_d: Annotated[int, Quantity("Pulses a day", "count", 1, 48, whole=True)] = 1
    short_cut_frac: Annotated[float, Quantity("Runs straight to the drain", "share", 0, 0.9)] = 0.1
    drip_l_d: Annotated[float, Quantity("Drips in", "volume_per_day", 0.1, 20_000)] = 20.0
    side_drip_l_d: Annotated[float, Quantity("A drip beside it", "volume_per_day", 0, 20_000)] = 0.0
    away_d: Annotated[float, Quantity("A holiday without changes", "days", 0, 90)] = 14.0
    hose_l_min: Annotated[float, Quantity("Hose", "fill_rate", 0.2, 100, given="fact")] = 8.0
    setup_min: Annotated[float, Quantity("Setting up each time", "minutes", 0, 240, given="fact")] = 12.0


@dataclass(frozen=True, slots=True)
class Told:
    """Which inputs the keeper told, each with the day it was read on where that is known: "water.tank_ph 2026-06-17".

    What is not told is what Loquen assumes, or a plan aims at.
    """

    told_on: Annotated[tuple[str, ...], Choice("Told", table="told", given="fact"), Most(200)] = ()


@dataclass(frozen=True, slots=True)
class Building:
    """What building it for somebody asks beside the parts."""

    build_h: Annotated[float, Quantity("Hours to build it", "hours", 0, 2000)] = 6.0
    hour_money: Annotated[float, Quantity("An hour", "money", 0, 1000)] = 12.0
    margin_frac: Annotated[float, Quantity("Margin on a quote", "share", 0, 2)] = 0.0
