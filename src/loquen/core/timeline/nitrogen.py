"""Cycling in plain figures: one run, or an ensemble over what nobody knows exactly."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from loquen.core.errors import OutOfRange, UnknownKey
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.physics.ranges import within
from loquen.core.timeline import course, rates
from loquen.core.timeline.arithmetic import Many
from loquen.core.timeline.course import ChangeRule, Happening, Keeper, Source

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
    hours: Mapping[str, NDArray[np.float64]]
    """Hourly: day, ammonia, nitrite, nitrate (mg/L N), kh (dKH), capacities (mg/L N/d)."""


@dataclass(frozen=True, slots=True)
class Ensemble:
    """Many runs over what is uncertain; days are 10, 50 and 90 %, infinite where that share is not done."""

    days_10_50_90: tuple[float, float, float]
    not_done_frac: float
    days: NDArray[np.float64]
    """Done or clear from, per member; infinite for never within the run."""
    bands: Mapping[str, NDArray[np.float64]]
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

    def water(self, **varied: Any) -> rates.Water:
        takes = rates.table().soil_takes_kh_per_d if self.soil and self.soil_takes_up_kh else 0.0
        found = rates.water(
            temp_c=varied.pop("temp_c", self.temp_c),
            co2_mg_l=self.co2_mg_l,
            salinity_ppt=self.salinity_ppt,
            ph_highest=self.ph_highest,
            x_max_mg_l_d=self.x_max_mg_l_d,
            load_mg_l_d_n=self.load_mg_l_d_n,
            plants_take_mg_l_d_n=self.plants_take_mg_l_d_n,
            soil_release_per_d=self.soil_release_per_d,
            soil_holds_ph_at_most=self.soil_holds_ph_at_most if self.soil else None,
            soil_takes_kh_per_d=takes,
            soil_least_kh_dkh=self.soil_least_kh_dkh if self.soil else 0.0,
            soiled=self.soil or self.soil_ammonia_mg_l_n > 0,
        )
        return replace(found, **varied)

    def state(self, **varied: Any) -> tuple[Any, ...]:
        begins = (
            self.source_nitrate_ion_mg_l if self.start_nitrate_ion_mg_l is None else self.start_nitrate_ion_mg_l
        )
        parts = {
            "nitrate": begins / NITRATE_PER_N,
            "on_ammonia": self.seed_ammonia_oxidisers_mg_l_d,
            "on_nitrite": self.seed_nitrite_oxidisers_mg_l_d,
            "kh": self.kh_dkh,
            "soil": self.soil_ammonia_mg_l_n,
            "hold": self.soil_hold_meq_l if self.soil else 0.0,
        }
        return course.start(**{**parts, **varied})

    def keeper(self) -> Keeper:
        source_kh = self.kh_dkh if self.source_kh_dkh is None else self.source_kh_dkh
        return Keeper(
            source=Source(self.source_nitrate_ion_mg_l / NITRATE_PER_N, source_kh, self.source_ammonia_mg_l_n),
            fishless=self.mode == "empty_with_ammonia",
            soil=self.soil,
            full_dose=self.full_dose_mg_l_n,
            dose_kh_per_n=rates.table().kh_per_n if self.dose_kind == "ammonia_solution" else 0.0,
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
    return Happening(hour=round(event["day"] * course.HOURS), **rest)


def asked_of(inputs: Mapping[str, Any]) -> Inputs:
    """Keywords as inputs; raise OutOfRange, UnknownKey."""
    held: dict[str, Any] = {key: tuple(v) if isinstance(v, list) else v for key, v in inputs.items()}
    return Inputs(**held).checked()


def simulate(**inputs: Any) -> Run:
    """A cycle from day 0, in plain figures.

    Equation: the rates of `rates.rates`, by Heun's method at 1/24 day; each day read, decide, dose, change
    Parameters:
        inputs: those of `Inputs`, by keyword; None means the aerated pH, the source's nitrate, the start's KH, no
            limit of the media.
    Returns: a Run; a fishless one ends on its done day, others after run_days.
    Raises: OutOfRange; UnknownKey.
    Source: henze2000
    """
    asked = asked_of(inputs)
    record = course.one(asked.state(), asked.water(), asked.keeper(), asked.run_days, asked.happenings())
    return told(record)


def told(record: course.Record) -> Run:
    """A run's record as the figures that are asked of it."""
    ledger = record.ledger
    assert ledger is not None
    kept = np.array(record.hours)

    def day(value: float) -> float | None:
        return None if math.isnan(value) else value

    return Run(
        day_done=day(ledger.day_done),
        clear_from_day=day(ledger.clear_from_day),
        stalled_day=day(ledger.stalled_day),
        peak_ammonia_mg_l_n=ledger.peak_ammonia,
        peak_ammonia_day=ledger.peak_ammonia_day,
        peak_nitrite_mg_l_n=ledger.peak_nitrite,
        peak_nitrite_day=ledger.peak_nitrite_day,
        kh_end_dkh=record.end[rates.KH],
        kh_lowest_dkh=ledger.kh_lowest,
        nitrate_end_ion_mg_l=record.end[rates.NITRATE] * NITRATE_PER_N,
        ammonia_dosed_mg_l_n=ledger.dosed,
        changes_made=int(ledger.changes_made),
        end_day=ledger.end_day,
        hours={
            "day": np.arange(len(kept)) / course.HOURS,
            "ammonia": kept[:, rates.AMMONIA],
            "nitrite": kept[:, rates.NITRITE],
            "nitrate": kept[:, rates.NITRATE],
            "kh": kept[:, rates.KH],
            "on_ammonia": kept[:, rates.ON_AMMONIA],
            "on_nitrite": kept[:, rates.ON_NITRITE],
        },
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

OF_A_RANGE = 1.645
CUT = 3.0
"""Standard deviations that no member lies beyond."""

Factors = Mapping[str, NDArray[np.float64]]


def drawn(members: int, seed: int) -> NDArray[np.float64]:
    """Standard normal numbers of every member, a row an uncertain thing."""
    return np.random.default_rng(seed).standard_normal((len(RANGES), members))


def factors_of(z: NDArray[np.float64], ranges: Mapping[str, tuple[str, float]] = RANGES) -> Factors:
    """Factors (or kelvins) of members from standard normal numbers, cut at three standard deviations."""
    return {
        name: spread(kind, reach, np.clip(row, -CUT, CUT))
        for (name, (kind, reach)), row in zip(ranges.items(), z, strict=True)
    }


def spread(kind: str, reach: float, z: NDArray[np.float64]) -> NDArray[np.float64]:
    """Standard normal numbers as a range is told: times, share, plus, or any within times or divided by."""
    if kind == "times":
        return np.asarray(np.exp(z * np.log(reach) / OF_A_RANGE))
    if kind == "any within":
        return np.asarray(np.exp((2 * ndtr(z) - 1) * np.log(reach)))
    return (1.0 if kind == "share" else 0.0) + z * reach / OF_A_RANGE


def members_of(asked: Inputs, factors: Factors) -> tuple[NDArray[np.float64], rates.Water, Keeper]:
    """State, water and keeper of every member."""
    count = len(factors["temp"])
    warm = np.clip(asked.temp_c + factors["temp"], 0.0, 36.0)
    c = rates.table()
    w = asked.water(
        temp_c=warm,
        growth_a=c.growth_ammonia_oxidisers * factors["growth_a"],
        growth_n=c.growth_nitrite_oxidisers * factors["growth_n"],
        half_a=c.half_ammonia_mg_l * factors["half_a"],
        half_n=c.half_nitrite_mg_l * factors["half_n"],
        load=asked.load_mg_l_d_n * factors["load"],
    )
    state = asked.state(
        on_ammonia=asked.seed_ammonia_oxidisers_mg_l_d * factors["seed_a"],
        on_nitrite=asked.seed_nitrite_oxidisers_mg_l_d * factors["seed_n"],
    )
    keeper = replace(asked.keeper(), full_dose=asked.full_dose_mg_l_n * factors["load"])
    return Many(count).state(state), w, keeper


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
    state, w, keeper = members_of(asked, factors_of(drawn(members, seed)))
    record = course.many(state, w, keeper, asked.run_days, asked.happenings())
    ledger = record.ledger
    assert ledger is not None
    days = ledger.day_done if keeper.fishless else ledger.clear_from_day
    days = np.where(np.isnan(days), np.inf, days)
    return Ensemble(
        days_10_50_90=quantiles(days),
        not_done_frac=float(np.isinf(days).mean()),
        days=days,
        bands=bands(record.hours),
    )


def quantiles(days: NDArray[np.float64]) -> tuple[float, float, float]:
    """The days by which 10, 50 and 90 % are done; infinite where so many never are."""
    low, middle, high = np.quantile(days, [0.1, 0.5, 0.9], method="higher")
    return float(low), float(middle), float(high)


def bands(hours: NDArray[np.float64]) -> dict[str, NDArray[np.float64]]:
    """10, 50 and 90 % of every hour: hours × quantities × members as they are kept."""
    levels = np.quantile(hours[:, :4, :], [0.1, 0.5, 0.9], axis=2)
    return {name: levels[:, :, row] for row, name in enumerate(("ammonia", "nitrite", "nitrate", "kh"))}
