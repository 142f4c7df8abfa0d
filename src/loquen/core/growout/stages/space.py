"""How many young there are at a time, what they weigh and eat, and how many tanks that fills."""

import math
from functools import cache, partial

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, no_harm
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.growout.broods import mean_present
from loquen.core.growout.dated import Run, Way
from loquen.core.growout.homes import Home, Housed
from loquen.core.growout.young import NOBODY, Growth, Held, MassOf, held_of
from loquen.core.library.rows.animals import Species
from loquen.core.model.inputs.quantity import Term, of, say
from loquen.core.physics import animals as biology
from loquen.core.physics import nitrogen
from loquen.core.system.animals.food import masses_of

Lives = tuple[tuple[float, float], ...]


@cache
def masses(kind: Species) -> MassOf:
    """Grams by cm of a kind: the same function each time, so that what is summed with it is kept."""
    return partial(masses_of, kind)


def held_along(way: Way, from_d: float, until_d: float, lives: Lives, grows: Growth, kind: Species) -> Held:
    """What is held of those who go one way between two ages, for each young that comes a day."""

    def between(first: float, last: float, part: float) -> Held:
        first, last = max(first, from_d), min(last, until_d)
        if last <= first or part == 0:
            return NOBODY
        return held_of(first, last, lives, grows, masses(kind)).times(part)

    going = between(0.0, way.leaves_d, way.part)
    staying = between(way.leaves_d, way.leaves_d + way.kept_d, way.part * way.unsold_part)
    return going.plus(staying)


def held_by(
    ways: tuple[Way, ...], from_d: float, until_d: float, lives: Lives, grows: Growth, kind: Species
) -> Held:
    found = NOBODY
    for way in ways:
        found = found.plus(held_along(way, from_d, until_d, lives, grows, kind))
    return found


@step()
def raising_held(ways: tuple[Way, ...], moved_d: float, lives: Lives, grows: Growth, kind: Species) -> Held:
    """Before they are moved."""
    return held_by(ways, 0.0, moved_d, lives, grows, kind)


@step()
def growing_held(ways: tuple[Way, ...], moved_d: float, lives: Lives, grows: Growth, kind: Species) -> Held:
    """From then on."""
    return held_by(ways, moved_d, math.inf, lives, grows, kind)


@figure(
    "Young at a time",
    formula="{kept_per_day} × Σ over days of survivors, until they go: {raising_held}, {growing_held}",
    source="balance",
    kind="count",
)
def present(kept_per_day: float, raising_held: Held, growing_held: Held) -> float:
    return kept_per_day * (raising_held.present + growing_held.present)


@figure(
    "Young at a time, by Little's law",
    formula="Σ over ways and stages of {kept_per_day} × days × (1 − s) ÷ (−ln s): {ways}, {lives}",
    source="little1961",
    kind="count",
)
def little_present(kept_per_day: float, ways: tuple[Way, ...], lives: Lives) -> float:
    def until(age_d: float) -> float:
        begins, total, alive = 0.0, 0.0, 1.0
        for days, share in (*lives, (math.inf, 1.0)):
            stays = min(days, age_d - begins)
            if stays <= 0:
                break
            lived = share ** (stays / days) if math.isfinite(days) else 1.0
            total += mean_present(kept_per_day * alive, stays, lived)
            alive, begins = alive * lived, begins + stays
        return total

    return sum(
        way.part
        * (until(way.leaves_d) + way.unsold_part * (until(way.leaves_d + way.kept_d) - until(way.leaves_d)))
        for way in ways
    )


@figure(
    "Young that are moved weigh",
    formula="{kept_per_day} × Σ over days of survivors × mass, {growing_held}",
    source="froese2014",
)
def growing_g(kept_per_day: float, growing_held: Held) -> float:
    return kept_per_day * growing_held.mass_g


@figure(
    "What a young one of one gram eats",
    formula="0.030 × {feed_scale} × {feed_q10}^((water − 25) ÷ 10) × 1.8, water of {tank_there}",
    source="kleiber",
)
def one_gram_g_d(tank_there: Home, feed_scale: float, feed_q10: float) -> float:
    return feed_scale * float(biology.feed_g_d(1.0, tank_there.water_c, "growing", warmth_10k=feed_q10))


@figure(
    "Young eat",
    formula="{kept_per_day} × {one_gram_g_d} × Σ over days of survivors × mass^0.75, {raising_held} and {growing_held}",
    source="kleiber",
)
def young_feed_g_d(kept_per_day: float, one_gram_g_d: float, raising_held: Held, growing_held: Held) -> float:
    return kept_per_day * one_gram_g_d * (raising_held.eaten_g + growing_held.eaten_g)


@figure("The colony eats", formula="by the tank's own sheet: {colony_there}", source="kleiber")
def colony_feed_g_d(colony_there: Housed) -> float:
    return colony_there.feed_g_d


@figure(
    "Waste of the young that are moved",
    formula="{kept_per_day} × {one_gram_g_d} × 1000 × protein × 0.16 × (1 − {kept_growing}) × (1 − {removed_growing}), {kind}, {growing_held}",
    source="timmons",
)
def growing_mg_d(
    kept_per_day: float,
    one_gram_g_d: float,
    growing_held: Held,
    kind: Species,
    kept_growing: float,
    removed_growing: float,
) -> float:
    eaten = kept_per_day * one_gram_g_d * growing_held.eaten_g
    return float(nitrogen.ammonia_from_feed_mg_d(eaten, kind.protein_frac, kept_growing, removed_growing))


@figure(
    "Grow-out tanks by the balance",
    formula="{growing_mg_d} ÷ what filter and changes take in one: {tank_there}",
    source="balance",
    kind="ratio",
)
def by_balance(growing_mg_d: float, tank_there: Home) -> float:
    if tank_there.allowed_mg_d <= 0:
        raise NamedCase("nothing_taken")
    return growing_mg_d / tank_there.allowed_mg_d


@figure(
    "Grow-out tanks by weight",
    formula="{growing_g} ÷ ({stock_g_l} × litres of {tank_there})",
    source="practice",
    kind="ratio",
)
def by_weight(growing_g: float, stock_g_l: float, tank_there: Home) -> float:
    return growing_g / (stock_g_l * tank_there.litres)


@figure(
    "Grow-out tanks in use", formula="the larger of {by_balance} and {by_weight}", source="balance", kind="ratio"
)
def growing_mean(by_balance: float, by_weight: float) -> float:
    return max(by_balance, by_weight)


@figure("Grow-out tanks", formula="{growing_mean}, rounded up, 1 at least", source="balance", kind="count")
def growing_tanks(growing_mean: float) -> float:
    return float(max(1, math.ceil(growing_mean - 1e-9)))


@figure(
    "Tanks, steadily",
    formula="{colony_tanks} + {raising_tanks} + {growing_tanks}",
    source="balance",
    kind="count",
)
def tanks_needed(colony_tanks: int, raising_tanks: float, growing_tanks: float) -> float:
    return colony_tanks + raising_tanks + growing_tanks


@figure("Tanks at the peak", formula="most that are in use on a day of {run}", source="balance", kind="count")
def tanks_peak(run: Run) -> float:
    return float(run.peak_tanks)


@figure(
    "Young in a full grow-out tank",
    formula="{kept_per_day} × present of {growing_held} ÷ {growing_tanks}",
    source="balance",
    kind="count",
)
def full_tank(kept_per_day: float, growing_held: Held, growing_tanks: float) -> float:
    return kept_per_day * growing_held.present / growing_tanks


@check(
    "Tanks for it",
    stage="broods",
    glass="tanks",
    judges="tanks_needed",
    mends=("broods.most_of_batch", "broods.taken_month", "stand.all_tanks"),
)
def tanks_enough(all_tanks: int, tanks_needed: float) -> Verdict:
    reason = say(
        "{needed} tanks steadily; there are {there}.",
        needed=of(tanks_needed, "tanks_needed", "count"),
        there=Term(all_tanks, "count"),
    )
    return at_least(float(all_tanks), tanks_needed, "count", reason, scale=0.0)


@check("On the fullest day", stage="broods", glass="tanks", judges="tanks_peak")
def peak_fits(all_tanks: int, tanks_peak: float) -> Verdict:
    reason = say(
        "{peak} tanks on the fullest day of five years; there are {there}.",
        peak=of(tanks_peak, "tanks_peak", "count"),
        there=Term(all_tanks, "count"),
    )
    return no_harm(at_least(float(all_tanks), tanks_peak, "count", reason, scale=0.0))


@check("Their tank suits them", stage="broods", mends=("stand.system",))
def young_suited(young_housed: Housed | None) -> Verdict:
    if young_housed is None:
        raise NamedCase("no_tank_chosen")
    if young_housed.against:
        return Verdict("short", -1.0, say("refuses them"), young_housed.against[0])
    told = "Water, heat of summer and cold of winter suit them where they grow up, and they can not leave."
    return Verdict("holds", 1.0, say("takes them"), say(told))


@check("Two ways to count them", stage="broods", judges="growing_mean")
def young_crowded(by_balance: float, by_weight: float) -> Verdict:
    reason = say(
        "By weight they fill {weight} tanks, by what filter and changes take {balance}: the larger counts.",
        weight=of(by_weight, "by_weight", "ratio"),
        balance=of(by_balance, "by_balance", "ratio"),
    )
    decides = say("weight decides") if by_weight > by_balance else say("the balance decides")
    return Verdict("holds", 0.0, decides, reason)


@figure("Of all young, with no way to go", formula="1 − Σ {way_frac}, not below 0", source="definition")
def unplaced_frac(way_frac: tuple[float, ...]) -> float:
    return max(0.0, 1 - sum(way_frac))
