"""The carbonate reserve: what nitrification uses, what soil takes, what lime gives back, and how long it lasts."""

import math

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, between
from loquen.core.graph.nodes import Gauge, Verdict, check, figure, step
from loquen.core.library.rows.animals import Species
from loquen.core.model.inputs.quantity import Term, of, say
from loquen.core.physics import nitrogen
from loquen.core.physics.chemistry.carbonate import MEQ_L_PER_DKH
from loquen.core.system.animals.food import require_animals
from loquen.core.system.changes.course import Course, Pull, settled_course
from loquen.core.system.tank.glass import Floor

LIFETIME_D = 36_525.0
LIME_BEDS = ("coral", "aragonite_sand")


@figure(
    "Carbonate hardness used a day",
    formula="({load_full_mg_d} × (7.14 ÷ 17.848 − {alkalinity_made_dkh_per_n}) − plants {plants_mg_d} × "
    "{alkalinity_made_dkh_per_n}) ÷ {real_volume_l}, not below 0",
    source="wolfgladrow2007",
)
def used_dkh_d(
    load_full_mg_d: float, alkalinity_made_dkh_per_n: float, plants_mg_d: float, real_volume_l: float
) -> float:
    made, taken = load_full_mg_d / real_volume_l, min(plants_mg_d, load_full_mg_d) / real_volume_l
    spent = float(nitrogen.alkalinity_used_dkh(made)) - made * alkalinity_made_dkh_per_n
    return max(0.0, spent - taken * alkalinity_made_dkh_per_n)


@figure(
    "Active soil",
    formula="{footprint_m2} × depth × 10 of what is soil in {floor} × {tank_count}",
    source="definition",
)
def soil_l(footprint_m2: float, floor: tuple[Floor, ...], tank_count: int) -> float:
    return sum(part.litres(footprint_m2) for part in floor if part.bed.key == "soil") * tank_count


@figure(
    "Carbonate hardness the soil can still take",
    formula="{soil_left_meq_l} × {soil_l} ÷ {real_volume_l} ÷ 0.35665",
    source="balance",
)
def soil_holds_dkh(soil_left_meq_l: float, soil_l: float, real_volume_l: float) -> float:
    return soil_left_meq_l * soil_l / real_volume_l / MEQ_L_PER_DKH


@figure(
    "Part of the floor that is soil",
    formula="Σ share of what is soil in {floor}",
    source="definition",
)
def soil_frac(floor: tuple[Floor, ...]) -> float:
    return sum(part.floor_frac for part in floor if part.bed.key == "soil" and part.depth_cm > 0)


@figure(
    "Of the carbonate hardness, soil takes a day",
    formula="{soil_takes_per_d} × {soil_frac} × {soil_left_meq_l} ÷ {soil_fresh_meq_l}, never more than fresh",
    source="practice",
    kind="share",
)
def soil_per_d(soil_takes_per_d: float, soil_frac: float, soil_left_meq_l: float, soil_fresh_meq_l: float) -> float:
    return soil_takes_per_d * soil_frac * min(1.0, soil_left_meq_l / soil_fresh_meq_l)


@figure(
    "Surface of coral and shell",
    formula="({lime_kg} ÷ {lime_kg_l} + {display_m2} × {lime_bed_cm} × 10 × solid share of what is lime in {floor}) "
    "× 6 ÷ {lime_grain_mm}",
    source="definition",
)
def lime_m2(
    lime_kg: float,
    lime_kg_l: float,
    display_m2: float,
    lime_bed_cm: float,
    floor: tuple[Floor, ...],
    lime_grain_mm: float,
) -> float:
    beds = [part for part in floor if part.bed.key in LIME_BEDS]
    depths = sum(part.floor_frac * min(lime_bed_cm, part.depth_cm) * part.bed.displaced_share for part in beds)
    washed = display_m2 * depths * 10
    return (lime_kg / lime_kg_l + washed) * 6 / lime_grain_mm


@figure(
    "Part of the way to its ceiling that lime brings the water in a day",
    formula="{lime_m2} × {lime_lift_l_m2_d} ÷ {real_volume_l}",
    source="practice",
    kind="share",
)
def lime_per_d(lime_m2: float, lime_lift_l_m2_d: float, real_volume_l: float) -> float:
    return lime_m2 * lime_lift_l_m2_d / real_volume_l


@step()
def kh_pull(
    used_dkh_d: float,
    soil_per_d: float,
    lime_per_d: float,
    coral_dkh: float | None,
    drip_per_d: float,
    new_kh_dkh: float,
) -> Pull:
    lifts = lime_per_d if coral_dkh is not None else 0.0
    return Pull(used_dkh_d, soil_per_d, lifts, coral_dkh or 0.0, drip_per_d, new_kh_dkh)


@step()
def kh_course(new_kh_dkh: float, gaps_d: tuple[float, ...], swapped_frac: float, kh_pull: Pull) -> Course:
    return settled_course(new_kh_dkh, gaps_d, swapped_frac, kh_pull)


@figure(
    "Carbonate hardness just before a change",
    formula="lowest of the settled cycle {kh_course}: changes of {swapped_frac} with {new_kh_dkh}, between them {kh_pull}",
    source="balance",
)
def settled_kh_dkh(kh_course: Course, swapped_frac: float, new_kh_dkh: float, kh_pull: Pull) -> float:
    return min(kh_course.before_dkh)


@figure(
    "Highest carbonate hardness",
    formula="the higher of {new_kh_dkh} and {kh_course}; over active soil that still takes it ({kh_pull}) just after a change",
    source="balance",
)
def highest_kh_dkh(new_kh_dkh: float, kh_course: Course | None, kh_pull: Pull) -> float:
    if kh_course is None:
        return new_kh_dkh
    in_tank = max(*kh_course.before_dkh, *kh_course.after_dkh)
    return in_tank if kh_pull.soil_per_d > 0 else max(new_kh_dkh, in_tank)


@figure(
    "Days that carbonate hardness lasts without a change",
    formula="days from just after a change ({kh_course}) until {kh_pull} have taken it to 0",
    source="balance",
)
def kh_lasts_d(kh_course: Course, kh_pull: Pull) -> float:
    start, used = min(kh_course.after_dkh), kh_pull.used_dkh_d
    if used <= 0:
        raise NamedCase("kh_not_used")
    days = kh_pull.days_left(start)
    if math.isinf(days):
        raise NamedCase("kh_held")
    if days > LIFETIME_D:
        raise NamedCase("kh_hardly_used")
    return days


@figure(
    "The soil takes a day",
    formula="share a day of {kh_pull} × mean of {kh_course}",
    source="balance",
    kind="carbonate_rate",
)
def soil_spends_dkh_d(kh_pull: Pull, kh_course: Course) -> float:
    if kh_pull.soil_per_d == 0:
        raise NamedCase("no_soil")
    return kh_pull.soil_per_d * kh_course.mean_dkh


@figure(
    "GH that lime gives, less what soil takes",
    formula="(what lime gives a day in {kh_course} − share into the soil of {kh_pull} × its mean), as much calcium as "
    "carbonate, × {standing_peak_d}",
    source="balance",
    kind="hardness",
)
def floor_gh_dgh(kh_pull: Pull, kh_course: Course, standing_peak_d: float) -> float:
    return (kh_course.lime_dkh_d - kh_pull.soil_per_d * kh_course.mean_dkh) * standing_peak_d


@figure(
    "Days until the soil is spent",
    formula="{soil_holds_dkh} ÷ {soil_spends_dkh_d}",
    source="balance",
)
def soil_lasts_d(soil_holds_dkh: float, soil_spends_dkh_d: float) -> float:
    if soil_holds_dkh >= LIFETIME_D * soil_spends_dkh_d:
        raise NamedCase("soil_hardly_used")
    return soil_holds_dkh / soil_spends_dkh_d


@check(
    "The carbonate reserve lasts",
    stage="changes",
    glass="buffer",
    judges="settled_kh_dkh",
    mends=("changes.change_frac", "tank.lime_kg"),
    caution="When it is used up pH falls and the filter stops; a correction then sets poisonous ammonia free. "
    "Raise it slowly, by water changes.",
)
def reserve_lasts(
    settled_kh_dkh: float,
    kh_low_dkh: float,
    used_dkh_d: float,
    kh_lasts_d: float | None,
    kh_pull: Pull,
    soil_lasts_d: float | None,
    soil_warn_d: float,
    soil_frac: float,
    animal: tuple[Species, ...],
) -> Verdict:
    require_animals(animal)
    if kh_pull.soil_per_d > 0 and settled_kh_dkh < kh_low_dkh:
        # A corner of it is no floor of it.
        return between(soil_holds(soil_lasts_d, soil_warn_d), soil_frac < SOIL_HOLDS_FRAC)
    if settled_kh_dkh <= 0:
        return spent(used_dkh_d, kh_lasts_d)
    reason = say(
        "Nitrification uses {use}; just before a change {left} are left. Below {low} pH has no floor.",
        use=of(used_dkh_d, "used_dkh_d"),
        left=of(settled_kh_dkh, "settled_kh_dkh"),
        low=Term(kh_low_dkh, "carbonate"),
    )
    verdict = at_least(settled_kh_dkh, kh_low_dkh, "carbonate", reason, scale=5)
    if verdict.state == "short" and all(kind.kh_low_dkh == 0 for kind in animal):
        # Kept so on purpose, with soft-water animals: care, not a fault.
        headline = say("{by} under, as they like it", by=Term(-verdict.margin, "carbonate"))
        return Verdict("tight", verdict.margin, headline, reason, verdict.gauge)
    return verdict


SOIL_HOLDS_FRAC = 0.5
"""Of the floor, from which soil by itself holds pH for all of the water."""


def soil_holds(lasts_d: float | None, warn_d: float) -> Verdict:
    """Active soil holds pH instead of carbonate hardness, as long as it has room."""
    if lasts_d is None:
        text = "The soil takes the little carbonate hardness there is and holds pH; at this change water it is never spent."
        return Verdict("holds", 1.0, say("held by the soil"), say(text))
    days = of(lasts_d, "soil_lasts_d")
    text = (
        "The soil takes carbonate hardness and holds pH for {days} more; then pH follows the change water. "
        "Renew a third of it before, or use softer change water."
    )
    gauge = Gauge(lasts_d, 1.25 * max(lasts_d, warn_d), "days", low=warn_d)
    verdict = Verdict("holds", lasts_d, say("{days} of soil", days=days), say(text, days=days), gauge)
    return between(verdict, lasts_d < warn_d)


def spent(used_dkh_d: float, kh_lasts_d: float | None) -> Verdict:
    """What is said where nothing of the reserve is left before a change, and nothing else holds pH."""
    text = "Nitrification uses {use}, and nothing is left before a change"
    terms = {"use": of(used_dkh_d, "used_dkh_d")}
    if kh_lasts_d is not None and kh_lasts_d > 0:
        text += "; without one it lasts {days}"
        terms["days"] = of(kh_lasts_d, "kh_lasts_d")
    text += (
        ": pH falls, the filter stops, and ammonia turns poisonous when pH comes back. Raise KH with each change, "
        "change more often, or keep active soil that holds pH."
    )
    return Verdict("short", -1.0, say("none left"), say(text, **terms))
