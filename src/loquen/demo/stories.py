"""What happened in Sluice Street: logs made by the simulations, with noise, read off charts in steps. The seed is fixed."""

from collections.abc import Iterator
from dataclasses import replace
from datetime import datetime, timedelta
from itertools import pairwise

import numpy as np

from loquen.core.events.kinds.keeping import Noted, Rinsed, Tried
from loquen.core.events.kinds.water import Changed, Read
from loquen.core.events.ledger import Logged
from loquen.core.library.whole import Library
from loquen.core.model.roots.plan import Plan
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.system.book import sheet_of
from loquen.core.system.cycle.setup import begun
from loquen.core.timeline.nitrogen import Inputs
from loquen.core.timeline.run import HOURS
from loquen.core.timeline.tending.keeper import tend

SEED = 1926
WEEKS = 36
GUTTER_WEEKS = 13
"""Since when the gutter of rooted plants runs along Rope Walk B."""


class Eye:
    """Someone who reads kits: a little off each time, and in the steps that a chart has."""

    def __init__(self, seed: int, library: Library) -> None:
        self.kits = library.kits
        self.chance = np.random.default_rng(seed)

    def reading(self, at: datetime, kit_key: str, level: float, when: str = "") -> Logged:
        kit = self.kits[kit_key]
        seen = max(level, 1e-4) * kit.factor * float(np.exp(kit.blur_frac * self.chance.standard_normal()))
        if kit.steps:
            chart = kit.chart
            edges = [0.0, *((a + b) / 2 for a, b in pairwise(chart))]
            value = kit.steps[max(step for step, edge in enumerate(edges) if seen >= edge)]
        else:
            value = f"{seen:.3g}"
        return Logged(at, Read(kit.measure, value, kit_key, when))  # type: ignore[arg-type]


def evening(now: datetime, days_ago: float, hour: int = 19) -> datetime:
    """An evening some days ago; never later than now."""
    day = (now - timedelta(days=days_ago)).replace(hour=hour, minute=0, second=0, microsecond=0)
    return min(day, now - timedelta(minutes=5))


def soil_cycle(plan: Plan, now: datetime, library: Library) -> Iterator[Logged]:
    """A tank on active soil since nineteen days: ammonia off the soil, nitrite after it."""
    eye, cycle = Eye(SEED, library), begun(sheet_of(plan, library), now.tzinfo, now.date())  # type: ignore[arg-type]
    asked = replace(cycle.asked, seed_ammonia_oxidisers_mg_l_d=0.02, seed_nitrite_oxidisers_mg_l_d=0.01)
    hours = tend(asked.state(), asked.around(), cycle.keeper(), 21).hours
    for day in (3, 6, 9, 12, 15, 18):
        at = cycle.start + timedelta(days=day, hours=18)
        hour = day * HOURS + 18
        yield eye.reading(at, "ammonia_drops", hours["ammonia"][hour])
        yield eye.reading(at + timedelta(minutes=5), "nitrite_drops", hours["nitrite"][hour])


def nitrate_creep(plan: Plan, now: datetime, library: Library) -> Iterator[Logged]:
    """Weekly nitrate of a heavily fed tank, and what a gutter of rooted house plants did to it."""
    eye, sheet = Eye(SEED + 1, library), sheet_of(plan, library)
    made, source = float(sheet.value("made_nitrate_mg_l_d")), float(sheet.value("new_nitrate_mg_l"))
    share, level = plan.changes.change_frac, float(sheet.value("peak_nitrate_mg_l"))
    for week in range(WEEKS, 0, -1):
        at = evening(now, 7 * week - 3)
        yield eye.reading(at, "nitrate_drops", level, "before")
        yield Logged(at + timedelta(minutes=25), Changed(share=share))
        level += share * (source - level)
        if week == GUTTER_WEEKS:
            what = "gutter of rooted house plants along the rack"
            yield Logged(at + timedelta(minutes=40), Tried(what))
        level += 7 * made * (0.35 if week <= GUTTER_WEEKS else 1.0)


def mature(load: float, **more: object) -> Inputs:
    """A tank that has long been running: bacteria for its load, and half as much again."""
    seeds = {
        "seed_ammonia_oxidisers_mg_l_d": 12 * load,
        "seed_nitrite_oxidisers_mg_l_d": 11 * load,
        "mode": "with_animals",
        "load_mg_l_d_n": load,
        "kh_dkh": 5,
        "run_days": 30,
    }
    return Inputs(**{**seeds, **more})  # type: ignore[arg-type]


def blip(inputs: Inputs, now: datetime, first_ago: float, days: tuple[int, ...], eye: Eye) -> Iterator[Logged]:
    """Ammonia and nitrite on some days of a run that began so many days ago."""
    hours = tend(inputs.state(), inputs.around(), inputs.keeper(), 30, inputs.happenings()).hours
    for day in days:
        at = evening(now, first_ago - day)
        hour = day * HOURS + 19
        yield eye.reading(at, "ammonia_drops", hours["ammonia"][hour])
        yield eye.reading(at + timedelta(minutes=5), "nitrite_drops", hours["nitrite"][hour])


def chloramine_slip(plan: Plan, now: datetime, library: Library) -> Iterator[Logged]:
    """In spring the conditioner was forgotten: chloramine killed bacteria, and brought ammonia with it."""
    load = float(sheet_of(plan, library).value("load_full_mg_d")) / float(
        sheet_of(plan, library).value("real_volume_l")
    )
    change = {"on_days": [6], "share": 0.4}
    event = {"day": 6, "capacity_lost_share": 0.85}
    inputs = mature(load, changes=(change,), timed_events=(event,), source_ammonia_mg_l_n=0.9)
    yield from blip(inputs, now, 206, (2, 5, 7, 8, 10, 13, 16, 20, 27), Eye(SEED + 2, library))
    yield Logged(evening(now, 200, 12), Changed(share=0.4, note="in a hurry, between two school classes"))
    yield Logged(evening(now, 199), Noted("conditioner bottle found full: the change went in untreated"))
    yield Logged(evening(now, 198), Changed(share=0.3, note="treated twice over"))


def drifting_heater(plan: Plan, now: datetime, library: Library) -> Iterator[Logged]:
    """A thermostat that crept upwards by a third of a kelvin a month until somebody laid a second thermometer in."""
    eye = Eye(SEED + 3, library)
    for week in range(26, 0, -1):
        warmer = min(max(0, 22 - week), 16) * 7 * 0.011 if week > 5 else 0.0
        at = evening(now, 7 * week - 2)
        yield eye.reading(at, "thermometer", plan.heat.target_c + warmer)
        if week % 2 == 0:
            yield eye.reading(at + timedelta(minutes=3), "nitrate_drops", 13 / NITRATE_PER_N, "before")
            yield Logged(at + timedelta(minutes=30), Changed(share=0.3))
    yield Logged(evening(now, 36), Noted("heater's thermostat reads low: replaced"))


def cleaned_too_well(plan: Plan, now: datetime, library: Library) -> Iterator[Logged]:
    """All media washed under the tap in one evening."""
    load = float(sheet_of(plan, library).value("load_full_mg_d")) / float(
        sheet_of(plan, library).value("real_volume_l")
    )
    inputs = mature(load, timed_events=({"day": 4, "capacity_lost_share": 0.7},), run_days=30)
    yield Logged(evening(now, 96), Rinsed("tap", 1.0, note="socks and foam, hot water"))
    yield from blip(inputs, now, 100, (3, 5, 6, 8, 10, 12, 15, 19, 24), Eye(SEED + 4, library))
