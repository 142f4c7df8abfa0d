"""Cycling in plain figures: one run, or an ensemble over what nobody knows exactly."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Literal

import numpy as np
from scipy.special import ndtr

from loquen.core.errors import OutOfRange, UnknownKey
from loquen.core.physics.elementwise import Array, at_least
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.physics.ranges import within
from loquen.core.timeline.process.carbonate import outdoor_co2_mg_l
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.process.lime import Lime
from loquen.core.timeline.process.nitrogen import Bacteria
from loquen.core.timeline.process.plants import Plants
from loquen.core.timeline.process.soil import Soil
from loquen.core.timeline.run import HOURS
from loquen.core.timeline.state import State, state_of
from loquen.core.timeline.surroundings import Surroundings
from loquen.core.timeline.tending.keeper import KEPT, ChangeRule, Happening, Keeper, Source, Tended, tend
from loquen.core.timeline.tending.tally import Tally
from loquen.core.timeline.warm import warm_at

Mode = Literal["empty_with_ammonia", "with_animals", "active_soil"]
MODES = ("empty_with_ammonia", "with_animals", "active_soil")
DOSES = ("ammonium_chloride", "ammonia_solution")


@dataclass(frozen=True, slots=True)
class Run:
    """What a run comes to; levels in mg/L of N, nitrate as the ion, days None where they never come."""

    day_done: float | None
    clear_from_day: float | None
    stalled_day: float | None
    peak_ammonia_mg_l_n: float
    peak_ammonia_day: float
    peak_nitrite_mg_l_n: float
    peak_nitrite_day: float
    kh_end_dkh: float
    kh_lowest_dkh: float
    nitrate_end_ion_mg_l: float
    ammonia_dosed_mg_l_n: float
    changes_made: int
    end_day: float
    hours: Mapping[str, Array]
    """Hourly: day, ammonia, nitrite, nitrate (mg/L N), kh (dKH), capacities (mg/L N/d)."""


@dataclass(frozen=True, slots=True)
class Ensemble:
    """Many runs over what is uncertain; days are 10, 50 and 90 %, infinite where that share is not done."""

    days_10_50_90: tuple[float, float, float]
    not_done_frac: float
    days: Array
    """Done or clear from, per member; infinite for never within the run."""
    bands: Mapping[str, Array]
    """Hourly, three rows each (10, 50, 90 %): ammonia, nitrite, nitrate, kh."""


@dataclass(frozen=True, slots=True)
class Inputs:
    """A cycle to run, in the keywords of `simulate`."""

    mode: Mode = "empty_with_ammonia"
    temp_c: float = 26
    kh_dkh: float = 8
    co2_mg_l: float = 2
    salinity_ppt: float = 0
    ph_highest: float | None = None
    source_nitrate_ion_mg_l: float = 5
    start_nitrate_ion_mg_l: float | None = None
    source_kh_dkh: float | None = None
    source_ammonia_mg_l_n: float = 0
    seed_ammonia_oxidisers_mg_l_d: float = 0.004
    seed_nitrite_oxidisers_mg_l_d: float = 0.002
    x_max_mg_l_d: float | None = None
    load_mg_l_d_n: float = 0
    plants_take_mg_l_d_n: float = 0
    run_days: int = 90
    dose_kind: str = "ammonium_chloride"
    full_dose_mg_l_n: float = 2
    soil_ammonia_mg_l_n: float = 0
    soil_release_per_d: float = 0.05
    soil_holds_ph_at_most: float | None = 6.6
    soil_takes_up_kh: bool = True
    soil_hold_meq_l: float = 40
    soil_least_kh_dkh: float = 0
    lime_per_d: float = 0
    """Share of the way to its ceiling that lime lifts the water in a day."""
    lime_ceiling_dkh: float = 0
    read: tuple[str, ...] = ("ammonia", "nitrite")
    changes: tuple[Mapping[str, Any], ...] = ()
    timed_events: tuple[Mapping[str, Any], ...] = ()

    def checked(self) -> "Inputs":
        """Itself, when every number is one that the relations hold for."""
        if self.mode not in MODES:
            raise UnknownKey("modes of a cycle", self.mode)
        if self.dose_kind not in DOSES:
            raise UnknownKey("kinds of dose", self.dose_kind)
        within("temp_c", self.temp_c, 0, 36, "°C")
        within("kh_dkh", self.kh_dkh, 0, 40, "dKH")
        within("co2_mg_l", self.co2_mg_l, 0.05, 200, "mg/L")
        within("salinity_ppt", self.salinity_ppt, 0, 45, "ppt")
        within("run_days", self.run_days, 1, 3660, "d")
        for name in ("source_nitrate_ion_mg_l", "source_ammonia_mg_l_n", "load_mg_l_d_n", "full_dose_mg_l_n"):
            within(name, getattr(self, name), 0, 1000, "mg/L")
        for name in ("seed_ammonia_oxidisers_mg_l_d", "seed_nitrite_oxidisers_mg_l_d", "plants_take_mg_l_d_n"):
            within(name, getattr(self, name), 0, 1000, "mg/L N/d")
        if self.x_max_mg_l_d is not None and self.x_max_mg_l_d <= 0:
            raise OutOfRange("x_max_mg_l_d", self.x_max_mg_l_d, 0, float("inf"), "mg/L N/d")
        return self

    @property
    def soil(self) -> bool:
        return self.mode == "active_soil"

    def around(self, **varied: Array) -> Surroundings[Any]:
        """What is at work in a litre of it, one or many: of `varied`, temp_c, load, the soil's release, and what bacteria
        are like."""
        c: Any = table()
        soil: Soil[Any] | None = None
        release: Any = varied.pop("release", float(self.soil_release_per_d))
        warm_c: Any = varied.pop("temp_c", float(self.temp_c))
        load: Any = varied.pop("load", float(self.load_mg_l_d_n))
        if self.soil or self.soil_ammonia_mg_l_n > 0:
            takes = c.soil_takes_kh_per_d if self.soil and self.soil_takes_up_kh else 0.0
            held = self.soil_holds_ph_at_most if self.soil else None
            soil = Soil(release / HOURS, takes / HOURS, 10**-held if held is not None else 0.0)
        like: dict[str, Any] = {
            "growth_a": c.growth_ammonia_oxidisers,
            "growth_n": c.growth_nitrite_oxidisers,
            "half_a": c.half_ammonia_mg_l,
            "half_n": c.half_nitrite_mg_l,
            **varied,
        }
        return Surroundings(
            warm=warm_at(warm_c, float(self.salinity_ppt)),
            least_hydrogen=10**-self.ph_highest if self.ph_highest is not None else 0.0,
            bacteria=Bacteria(
                load_mg_h=load / HOURS,
                per_most_capacity=1 / self.x_max_mg_l_d if self.x_max_mg_l_d else 0.0,
                **like,
            ),
            plants=Plants(self.plants_take_mg_l_d_n / HOURS) if self.plants_take_mg_l_d_n > 0 else None,
            soil=soil,
            lime=Lime(self.lime_per_d / HOURS, self.lime_ceiling_dkh) if self.lime_per_d > 0 else None,
            least_kh=float(self.soil_least_kh_dkh) if self.soil else 0.0,
        )

    def state(self, **varied: Array) -> State[Any]:
        """A litre of it at the start, one or many."""
        begins = (
            self.source_nitrate_ion_mg_l if self.start_nitrate_ion_mg_l is None else self.start_nitrate_ion_mg_l
        )
        warm_c: Any = varied.get("temp_c", float(self.temp_c))
        parts: dict[str, Any] = {
            "temp_c": warm_c,
            "volume_l": 1.0,
            # Water gives off what it holds over the air's CO2, never the other way: no pH is higher than that of aerated water.
            "carbon_dioxide": at_least(0 * warm_c + float(self.co2_mg_l), outdoor_co2_mg_l(warm_c)),
            "nitrate": begins / NITRATE_PER_N,
            "on_ammonia": float(self.seed_ammonia_oxidisers_mg_l_d),
            "on_nitrite": float(self.seed_nitrite_oxidisers_mg_l_d),
            "kh": float(self.kh_dkh),
            "soil": float(self.soil_ammonia_mg_l_n),
            "hold": float(self.soil_hold_meq_l) if self.soil else 0.0,
            "salinity": float(self.salinity_ppt),
            **varied,
        }
        return state_of(**parts)

    def keeper(self) -> Keeper[Any]:
        source_kh = self.kh_dkh if self.source_kh_dkh is None else self.source_kh_dkh
        return Keeper(
            source=Source(self.source_nitrate_ion_mg_l / NITRATE_PER_N, source_kh, self.source_ammonia_mg_l_n),
            fishless=self.mode == "empty_with_ammonia",
            full_dose=float(self.full_dose_mg_l_n),
            dose_kh_per_n=table().kh_per_n if self.dose_kind == "ammonia_solution" else 0.0,
            changes=tuple(rule_of(change) for change in self.changes),
            reads_ammonia="ammonia" in self.read,
            reads_nitrite="nitrite" in self.read,
        )

    def happenings(self) -> tuple[Happening, ...]:
        return tuple(happening_of(event) for event in self.timed_events)


def rule_of(change: Mapping[str, Any]) -> ChangeRule:
    """A change as it is asked for: every so many days, on days, or when carbonate hardness reads low."""
    within("share", change["share"], 0, 1, "share")
    return ChangeRule(
        share=change["share"],
        every_days=change.get("every_days"),
        on_days=tuple(change.get("on_days", ())),
        kh_read_under_dkh=change.get("when_kh_read_under_dkh"),
    )


def happening_of(event: Mapping[str, Any]) -> Happening:
    """A timed event as it is asked for: a new load, or a loss of bacteria."""
    rest = {key: value for key, value in event.items() if key != "day"}
    known = {"load_mg_l_d_n", "capacity_lost_share"}
    for key in rest:
        if key not in known:
            raise UnknownKey("timed events", key)
    return Happening(hour=round(event["day"] * HOURS), **rest)


def asked_of(inputs: Mapping[str, Any]) -> Inputs:
    """Keywords as inputs; raise OutOfRange, UnknownKey."""
    held: dict[str, Any] = {key: tuple(v) if isinstance(v, list) else v for key, v in inputs.items()}
    return Inputs(**held).checked()


def simulate(**inputs: Any) -> Run:
    """A cycle from day 0, in plain figures.

    Equation: the rates of `rates.rates`, each day read, decide, dose, change
    Parameters:
        inputs: those of `Inputs`, by keyword; None means the aerated pH, the source's nitrate, the start's KH, no
            limit of the media.
    Returns: a Run; a fishless one ends on its done day, others after run_days.
    Raises: OutOfRange; UnknownKey.
    Source: henze2000
    """
    asked = asked_of(inputs)
    return told(tend(asked.state(), asked.around(), asked.keeper(), asked.run_days, asked.happenings()))


def told(tended: Tended[float]) -> Run:
    """A run's levels and tally as the figures that are asked of it."""
    tally, hours = tended.tally, tended.hours

    def day(value: float) -> float | None:
        return None if math.isnan(value) else value

    return Run(
        day_done=day(tally.day_done),
        clear_from_day=day(tally.clear_from_day),
        stalled_day=day(tally.stalled_day),
        peak_ammonia_mg_l_n=tally.peak_ammonia,
        peak_ammonia_day=tally.peak_ammonia_day,
        peak_nitrite_mg_l_n=tally.peak_nitrite,
        peak_nitrite_day=tally.peak_nitrite_day,
        kh_end_dkh=tended.end.kh,
        kh_lowest_dkh=tally.kh_lowest,
        nitrate_end_ion_mg_l=tended.end.nitrate * NITRATE_PER_N,
        ammonia_dosed_mg_l_n=tally.dosed,
        changes_made=int(tally.changes_made),
        end_day=tally.end_day,
        hours={"day": np.arange(len(hours["ammonia"])) / HOURS, **{name: hours[name] for name in KEPT}},
    )


RANGES = {
    "seed_a": ("times", 3.0),
    "seed_n": ("times", 3.0),
    "growth_a": ("share", 0.20),
    "growth_n": ("share", 0.20),
    "half_a": ("share", 0.40),
    "half_n": ("share", 0.40),
    "load": ("share", 0.25),
    "temp": ("plus", 1.0),
}
"""What is uncertain in every cycle, with its 90 % range: times or divided by, plus or minus a share, or a number."""
TAILS_FROM, TAILS = 1.0, 0.5
"""Standard deviations from which "mostly" bends away, and by how much: at 2.5 of them another four times, about."""

OF_A_RANGE = 1.645
CUT = 3.0
"""Standard deviations that no member lies beyond."""

Factors = Mapping[str, Array]


def drawn(members: int, seed: int) -> Array:
    """Standard normal numbers of every member, a row an uncertain thing."""
    return np.random.default_rng(seed).standard_normal((len(RANGES), members))


def factors_of(z: Array, ranges: Mapping[str, tuple[str, float]] = RANGES) -> Factors:
    """Factors (or kelvins) of members from standard normal numbers, cut at three standard deviations."""
    return {
        name: spread(kind, reach, np.clip(row, -CUT, CUT))
        for (name, (kind, reach)), row in zip(ranges.items(), z, strict=True)
    }


def spread(kind: str, reach: float, z: Array) -> Array:
    """Standard normal numbers as a range is told: times, share, plus, any within times or divided by, or mostly within them
    and seldom far outside."""
    if kind == "mostly":
        far = np.sign(z) * np.maximum(np.abs(z) - TAILS_FROM, 0.0) ** 2
        return np.asarray(np.exp(z * np.log(reach) / OF_A_RANGE + TAILS * far))
    if kind == "times":
        return np.asarray(np.exp(z * np.log(reach) / OF_A_RANGE))
    if kind == "any within":
        return np.asarray(np.exp((2 * ndtr(z) - 1) * np.log(reach)))
    return (1.0 if kind == "share" else 0.0) + z * reach / OF_A_RANGE


def members_of(asked: Inputs, factors: Factors) -> tuple[State[Array], Surroundings[Array], Keeper[Array]]:
    """State, surroundings and keeper of every member."""
    c, warm = table(), np.clip(asked.temp_c + factors["temp"], 0.0, 36.0)
    around = asked.around(
        temp_c=warm,
        growth_a=c.growth_ammonia_oxidisers * factors["growth_a"],
        growth_n=c.growth_nitrite_oxidisers * factors["growth_n"],
        half_a=c.half_ammonia_mg_l * factors["half_a"],
        half_n=c.half_nitrite_mg_l * factors["half_n"],
        load=asked.load_mg_l_d_n * factors["load"],
        **({"release": asked.soil_release_per_d * factors["release"]} if "release" in factors else {}),
    )
    state = asked.state(
        temp_c=warm,
        on_ammonia=asked.seed_ammonia_oxidisers_mg_l_d * factors["seed_a"],
        on_nitrite=asked.seed_nitrite_oxidisers_mg_l_d * factors["seed_n"],
        **({"soil": asked.soil_ammonia_mg_l_n * factors["soil"]} if "soil" in factors else {}),
    )
    return state, around, replace(asked.keeper(), full_dose=asked.full_dose_mg_l_n * factors["load"])


def ensemble(*, members: int = 200, seed: int = 0, **inputs: Any) -> Ensemble:
    """A cycle over what is uncertain of it.

    Equation: members drawn from RANGES, each run as `simulate` runs it
    Parameters:
        members: count, scalar, 2 to 5000. Of the ensemble.
        seed: count, scalar. Of the draw.
        inputs: those of `simulate`.
    Returns: an Ensemble; the day is that of being done without animals, of being clear with them.
    Raises: OutOfRange; UnknownKey.
    Source: henze2000
    """
    within("members", members, 2, 5000, "count")
    asked = asked_of(inputs)
    state, around, keeper = members_of(asked, factors_of(drawn(members, seed)))
    tended = tend(state, around, keeper, asked.run_days, asked.happenings(), members)
    days = done_days(tended.tally, keeper.fishless)
    return Ensemble(
        days_10_50_90=quantiles(days),
        not_done_frac=float(np.isinf(days).mean()),
        days=days,
        bands=bands(tended.hours),
    )


def done_days(tally: Tally[Array], fishless: bool) -> Array:
    """The day that members are done on, or clear from; infinite for never."""
    days = tally.day_done if fishless else tally.clear_from_day
    return np.where(np.isnan(days), np.inf, days)


def quantiles(days: Array) -> tuple[float, float, float]:
    """The days by which 10, 50 and 90 % are done; infinite where so many never are."""
    low, middle, high = np.quantile(days, [0.1, 0.5, 0.9], method="higher")
    return float(low), float(middle), float(high)


def bands(hours: Mapping[str, Array], every_h: int = 1, most_h: int | None = None) -> dict[str, Array]:
    """10, 50 and 90 % of the levels of members, every so many hours up to an hour."""
    until = None if most_h is None else most_h + 1
    names = ("ammonia", "nitrite", "nitrate", "kh")
    return {name: np.quantile(hours[name][:until:every_h], [0.1, 0.5, 0.9], axis=1) for name in names}
