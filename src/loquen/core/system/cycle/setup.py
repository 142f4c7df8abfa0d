"""A cycle as the plan describes it: its water, load, media and seeds, taken from the sheet once."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, time, tzinfo
from typing import Any

from loquen.core.data.tables import constants
from loquen.core.errors import NamedCase
from loquen.core.events.kinds.water import Dosed
from loquen.core.graph.keys import Missing
from loquen.core.graph.sheet import Sheet
from loquen.core.model.parts.running import Cycle
from loquen.core.model.roots.phase import Phase, phase
from loquen.core.model.roots.plan import Plan
from loquen.core.physics.chemistry.carbonate import MOST_DKH
from loquen.core.physics.nitrogen import AMMONIA_PER_N, NITRATE_PER_N
from loquen.core.system.growing import waste_times
from loquen.core.system.source.disinfectant import CONDITIONED
from loquen.core.system.source.treating import conditioner_ml
from loquen.core.system.told import is_short
from loquen.core.timeline.nitrogen import RANGES, Inputs, Mode
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.run import HOURS
from loquen.core.timeline.setup import tank_of
from loquen.core.timeline.tending.keeper import BufferRule, ChangeRule, Happening, Keeper
from loquen.core.timeline.warm import warm_at
from loquen.core.timeline.watch import Limits

CO2_MG_L = 2.0
USUAL_C, USUAL_KH_DKH = 25.0, 4.0
"""Where a plan does not know them."""
CHLORIDE_G_MOL, N_G_MOL = 53.491, 14.007
SOLUTION_KG_L = 0.96
"""Density of a solution of ammonia of about a tenth."""
MODES: dict[str, Mode] = {"empty": "empty_with_ammonia", "animals": "with_animals", "soil": "active_soil"}
HALF_CHANGE = 0.5
GROW_EVERY_D = 10
RUN_DAYS = 90
BY_READINGS, DETOXIFIED = ("changes", "rescue"), ("detoxifier", "rescue")
"""Ways in which water is changed by what is read, and in which a detoxifier is dosed each day."""
HALF_BOUND = 0.5
UNSURE: dict[str, tuple[str, float]] = {
    "seed_a": ("mostly", 3.0),
    "seed_n": ("mostly", 3.0),
    "load": ("mostly", 1.25),
}
"""What a keeper's tank may be far from: what it began with, and what is fed or given off in it."""
UNSURE_OF_SOIL: dict[str, tuple[str, float]] = {"soil": ("mostly", 2.5), "release": ("times", 1.8)}
"""How much a bag of soil holds, and how fast it gives it, is known from the readings of its water, not before."""


@dataclass(frozen=True, slots=True)
class Begun:
    """A cycle that the plan begins: what is run, what is uncertain of it, and what its animals may live in."""

    plan: Plan
    asked: Inputs
    ranges: dict[str, tuple[str, float]]
    limits: Limits
    litres: float
    animals_in: bool
    gills: bool
    """Whether any of its animals breathes water: to the others ammonia and nitrite are foul water, no poison."""
    load_full_mg_l_d: float
    most_proved_mg_l: float
    shock_of_all: float
    """What a change of all the water would be, in times of the step that the most delicate aboard bear."""
    start: datetime
    untreated: bool = False
    """Whether the change water still carries chlorine or chloramine into the tank."""
    growing: tuple[Happening, ...] = ()
    """What animals in it that still grow make more of as they do."""
    dose_ml_l: float | None = None
    """Conditioner for a litre of change water, mL; None where none is dosed."""

    @property
    def cycle(self) -> Cycle:
        return self.plan.cycle

    @property
    def fishless(self) -> bool:
        return self.asked.mode == "empty_with_ammonia"

    @property
    def detoxified(self) -> bool:
        """Whether a detoxifier is dosed for its animals each day."""
        return self.animals_in and self.cycle.camp in DETOXIFIED

    @property
    def detoxifier_ml(self) -> float | None:
        """A day's detoxifier for all of the water; None where its label was not told."""
        told = self.cycle.detoxifier_ml_100l
        return None if told is None else told * self.litres / 100

    def keeper(self, camp: str | None = None) -> Keeper[Any]:
        """Who tends it: with animals in it, by the camp that the plan goes by or the one that is asked for."""
        usual = self.asked.keeper()
        if self.fishless:
            usual = replace(usual, **cures(self.asked))
        if self.fishless or not self.animals_in or (camp or self.cycle.camp) not in BY_READINGS:
            return replace(usual, most_settled=(self.limits.ammonia, self.limits.nitrite))
        return replace(usual, limits=self.limits, most_settled=(self.limits.ammonia, self.limits.nitrite))


def number(sheet: Sheet[Plan], key: str, otherwise: float) -> float:
    """A figure, or what stands for it where there is none."""
    found = sheet.look(key)
    return otherwise if isinstance(found, Missing) else float(found)


def begun(sheet: Sheet[Plan], zone: tzinfo, today: date) -> Begun:
    """The cycle of a plan; raise NamedCase "not_begun" for a filter that has long been running."""
    plan = sheet.root
    cycle = plan.cycle
    stands = phase(plan)
    if stands != "cycling":
        raise why_none(sheet, stands)
    tank = tank_of(sheet)
    c, x_max = table(), tank.x_max_mg_l_d
    temp = USUAL_C if tank.temp_c is None else tank.temp_c
    full_load = number(sheet, "load_full_mg_d", 0.0) / tank.litres
    animals_in = cycle.begun_by == "animals" or (cycle.begun_by == "soil" and plan.run_in.stocked == "now")
    load = number(sheet, "load_now_mg_d", 0.0) / tank.litres if animals_in and plan.animals else 0.0
    most_proved = c.proves_of_capacity * x_max * warm_at(temp).pace
    wanted = (
        min(max(c.dose_of_load * full_load, c.least_dose_mg_l), c.full_dose_mg_l) if full_load else c.full_dose_mg_l
    )
    least_kh = c.soil_least_kh_dkh if cycle.begun_by == "soil" else 0.0
    kh = min(max(USUAL_KH_DKH if tank.kh_dkh is None else tank.kh_dkh, least_kh), MOST_DKH)
    start = datetime.combine(date.fromisoformat(cycle.begun_on) if cycle.begun_on else today, time(), zone)
    ammonia_seed, nitrite_seed, ranges = seeds(cycle, tank.litres)
    asked = Inputs(
        mode=MODES[cycle.begun_by],
        temp_c=temp,
        kh_dkh=kh,
        co2_mg_l=CO2_MG_L,
        salinity_ppt=tank.salinity_ppt,
        source_nitrate_ion_mg_l=number(sheet, "new_nitrate_mg_l", 0.0) * NITRATE_PER_N,
        source_kh_dkh=kh,
        source_ammonia_mg_l_n=chloramine_ammonia(sheet),
        seed_ammonia_oxidisers_mg_l_d=ammonia_seed,
        seed_nitrite_oxidisers_mg_l_d=nitrite_seed,
        x_max_mg_l_d=x_max,
        load_mg_l_d_n=load,
        plants_take_mg_l_d_n=number(sheet, "plants_mg_d", 0.0) / tank.litres,
        run_days=RUN_DAYS,
        dose_kind=cycle.dose_kind,
        full_dose_mg_l_n=max(min(wanted, most_proved), 0.05),
        soil_ammonia_mg_l_n=cycle.soil_gives_mg_l if cycle.begun_by == "soil" else 0.0,
        soil_least_kh_dkh=least_kh,
        **lime(sheet, kh),
        soil_hold_meq_l=plan.tank.soil_left_meq_l * number(sheet, "soil_l", 0.0) / tank.litres,
        changes=regime(plan) if cycle.begun_by == "soil" else (),
    )
    return Begun(
        plan=plan,
        asked=asked,
        ranges=ranges,
        limits=limits_of(cycle.tank_chloride_mg_l),
        litres=tank.litres,
        animals_in=animals_in,
        gills=any(not sheet.library.species[group.species].breathes_air for group in plan.animals),
        load_full_mg_l_d=full_load,
        most_proved_mg_l=most_proved,
        shock_of_all=number(sheet, "shock_frac", 0.0) / max(number(sheet, "swapped_frac", 1.0), 0.01),
        untreated=is_short(sheet, "treated"),
        growing=growing(sheet, max(0, (today - start.date()).days)) if load > 0 else (),
        dose_ml_l=conditioner_ml(sheet, 1.0),
        start=start,
    )


def growing(sheet: Sheet[Plan], today: int) -> tuple[Happening, ...]:
    """Animals that grow, every few days from this day of a run on, each time by what they have since."""
    found, before = [], 1.0
    for days in range(GROW_EVERY_D, RUN_DAYS, GROW_EVERY_D):
        times = waste_times(sheet, days)
        if times != before:
            found.append(Happening((today + days) * HOURS, load_times=times / before))
        before = times
    return tuple(found)


def lime(sheet: Sheet[Plan], kh_dkh: float) -> dict[str, Any]:
    """Lime that lies in the water, as a cycle takes it; nothing where its ceiling is no higher than the water."""
    lifts, ceiling = number(sheet, "lime_per_d", 0.0), number(sheet, "coral_dkh", 0.0)
    return {"lime_per_d": lifts, "lime_ceiling_dkh": ceiling} if lifts > 0 and ceiling > kh_dkh else {}


def cures(asked: Inputs) -> dict[str, Any]:
    """What an empty cycle's keeper does when its carbonate hardness runs out: half a change where the new water brings
    enough, bicarbonate of soda where it does not."""
    c = table()
    if (asked.kh_dkh if asked.source_kh_dkh is None else asked.source_kh_dkh) >= c.change_lifts_from_dkh:
        return {"changes": (ChangeRule(HALF_CHANGE, kh_read_under_dkh=c.lift_under_dkh),)}
    return {"buffers": BufferRule(c.lift_under_dkh, c.bicarbonate_lifts_dkh)}


def why_none(sheet: Sheet[Plan], stands: Phase) -> NamedCase:
    """The case that there is no cycle: the same story as the filter's own page tells."""
    if stands == "planned":
        return NamedCase("not_set_up")
    young = isinstance(sheet.look("mature_in_d"), float)
    return NamedCase("young_not_begun") if young else NamedCase("not_begun")


def limits_of(chloride_mg_l: float) -> Limits:
    """What animals may live in for weeks: nitrite by the chloride that keeps it out of them."""
    values = constants()
    least, most = values["nitrite_limit_mg_l"].value, values["nitrite_most_mg_l"].value
    nitrite = min(most, max(least, chloride_mg_l / table().nitrite_chloride_margin))
    return Limits(values["ammonia_limit_mg_l"].value, values["unionised_limit_mg_l"].value, nitrite)


def seeds(cycle: Cycle, litres: float) -> tuple[float, float, dict[str, tuple[str, float]]]:
    """Capacity of both bacteria at the start, mg/L N a day, and what is uncertain of it."""
    table = constants("cycle.toml")
    ranges = {**RANGES, **UNSURE, **(UNSURE_OF_SOIL if cycle.begun_by == "soil" else {})}
    if cycle.seeded_by == "media":
        worth = cycle.donor_frac * cycle.donor_mg_d / litres
        return max(worth, 1e-4), max(worth, 1e-4), ranges
    low, high = table[f"seed_{cycle.seeded_by}_ammonia"], table[f"seed_{cycle.seeded_by}_nitrite"]
    if cycle.seeded_by == "bottle":
        # From nothing to a filter: any size alike.
        for name in ("seed_a", "seed_n"):
            ranges[name] = ("any within", 12.0)
        middles = [(row.low * row.high) ** 0.5 for row in (low, high)]  # type: ignore[operator]
        return middles[0], middles[1], ranges
    return low.value, high.value, ranges


def regime(plan: Plan) -> tuple[dict[str, Any], ...]:
    """The plan's changes as a rule that a run follows: the weekdays as every so many days."""
    changes = plan.changes
    if changes.regime == "weekdays" and changes.weekdays:
        return ({"every_days": max(1, round(7 / len(changes.weekdays))), "share": changes.change_frac},)
    if changes.regime == "every":
        return ({"every_days": changes.every_d, "share": changes.change_frac},)
    return ()


def rules(changes: Sequence[dict[str, Any]]) -> tuple[ChangeRule, ...]:
    return tuple(ChangeRule(share=row["share"], every_days=row["every_days"]) for row in changes)


def chloramine_ammonia(sheet: Sheet[Plan]) -> float:
    """Ammonia that the new water sets free when its chloramine is broken, mg/L N of new water.

    A conditioner binds anything from none to all of it for a day or two: half is taken.
    """
    freed, share = number(sheet, "freed_ammonia_mg_l", 0.0), number(sheet, "swapped_frac", 0.0)
    unbound = HALF_BOUND if sheet.root.water.treatment in CONDITIONED else 1.0
    return unbound * freed / share if share > 0 else 0.0


def bicarbonate_g(begun: Begun, lifts_dkh: float) -> float:
    """Sodium bicarbonate that lifts all of the water by so much, grams."""
    return lifts_dkh * begun.litres * float(table().bicarbonate_mg_l_per_dkh) / 1000


def dose_amount(begun: Begun, dose_mg_l: float) -> tuple[float, str]:
    """What to weigh or measure for a dose: grams of ammonium chloride, or millilitres of the solution."""
    per_unit, unit = ammonia_in(begun.cycle)
    return dose_mg_l * begun.litres / per_unit, unit


def ammonia_in(cycle: Cycle) -> tuple[float, str]:
    """Nitrogen in one gram or millilitre of what a plan doses, mg of N, and that unit."""
    if cycle.dose_kind == "ammonium_chloride":
        return N_G_MOL / CHLORIDE_G_MOL * 1000, "g"
    return in_solution(cycle.solution_pct), "mL"


def in_solution(percent: float) -> float:
    """Nitrogen in a millilitre of a solution of ammonia, mg of N."""
    return percent / 100 * SOLUTION_KG_L * 1000 / AMMONIA_PER_N


def ammonia_dose(cycle: Cycle, amount: float | None) -> Dosed:
    """A dose of what a plan doses now: written with its product, it stays what it was when the plan doses another."""
    _, unit = ammonia_in(cycle)
    product = CHLORIDE if unit == "g" else f"{SOLUTION}, {cycle.solution_pct:g} %"
    return Dosed("ammonia", amount, unit, product)


CHLORIDE, SOLUTION = "ammonium chloride", "solution of ammonia"


def dosed_nitrogen_mg_l(begun: Begun, dosed: Dosed) -> float:
    """Ammonia that a dose brought, mg/L N: by its unit and product; where those were not written, as the plan doses."""
    per_unit, _ = ammonia_in(begun.cycle)
    if dosed.unit == "g":
        per_unit = N_G_MOL / CHLORIDE_G_MOL * 1000
    elif dosed.unit == "mL":
        told = re.search(r"(\d+(?:\.\d+)?) ?%", dosed.product)
        per_unit = in_solution(float(told[1]) if told else begun.cycle.solution_pct)
    return (dosed.amount or 0.0) * per_unit / begun.litres
