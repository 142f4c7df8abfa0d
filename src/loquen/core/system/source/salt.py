"""Salt: what one change takes, and a move to another salinity day by day, for animals, plants and filter."""

from dataclasses import dataclass

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import State, Verdict, check, figure, step
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.keeping import Plant
from loquen.core.model.inputs.quantity import Term, of, say
from loquen.core.physics import chemistry
from loquen.core.system.filter.ammonia import Nitrifiers
from loquen.core.system.filter.media import Beds

LEAST_MOVE_PPT = 0.05
"""Less is neither weighed nor read: a tap has more."""


@figure(
    "Salt for one change",
    formula="{change_l} × density × {tank_salinity_ppt} × 1.00472 ÷ {salt_purity_frac} at {water_c}",
    source="teos10",
)
def change_salt_g(change_l: float, tank_salinity_ppt: float, salt_purity_frac: float, water_c: float) -> float:
    return float(chemistry.salt_to_add_g(change_l, tank_salinity_ppt, 0.0, water_c, salt_purity_frac))


@figure(
    "Days to the wanted salinity",
    formula="|{move_to_ppt} − {tank_salinity_ppt}| ÷ {move_ppt_d}, rounded up",
    source="practice",
)
def move_d(move_to_ppt: float | None, tank_salinity_ppt: float, move_ppt_d: float) -> float:
    if move_to_ppt is None or abs(move_to_ppt - tank_salinity_ppt) < LEAST_MOVE_PPT:
        raise NamedCase("no_move")
    gap = abs(move_to_ppt - tank_salinity_ppt)
    return float(-(-round(gap * 1e6) // round(move_ppt_d * 1e6)))


@dataclass(frozen=True, slots=True)
class SaltDay:
    """One day of a move: the salinity at its end, what is added or changed, what the hydrometer then reads, and the
    salt that the new water of a change on that day takes."""

    day: int
    salinity_ppt: float
    salt_g: float
    fresh_l: float
    gravity: float
    poured_salt_g: float


@step()
def salt_days(
    move_d: float,
    move_to_ppt: float | None,
    tank_salinity_ppt: float,
    move_ppt_d: float,
    real_volume_l: float,
    salt_purity_frac: float,
    hydrometer_c: float,
    water_c: float,
    change_l: float,
) -> tuple[SaltDay, ...]:
    """Day by day: salt by weight on the way up, a change for fresh water on the way down."""
    assert move_to_ppt is not None
    level, rows = tank_salinity_ppt, []
    for day in range(1, int(move_d) + 1):
        aim = level + max(-move_ppt_d, min(move_ppt_d, move_to_ppt - level))
        salt = (
            float(chemistry.salt_to_add_g(real_volume_l, aim, level, water_c, salt_purity_frac))
            if aim > level
            else 0.0
        )
        fresh = real_volume_l * (level - aim) / level if aim < level else 0.0
        poured = float(chemistry.salt_to_add_g(change_l, aim, 0.0, water_c, salt_purity_frac)) if aim > 0 else 0.0
        gravity = float(chemistry.specific_gravity(aim, water_c, hydrometer_c))
        rows.append(SaltDay(day, aim, salt, fresh, gravity, poured))
        level = aim
    return tuple(rows)


@figure(
    "Ammonia while the filter follows the salt",
    formula="level at which {salt_follows_frac} of {beds}, {system_mature_frac} mature, takes {judged_load_mg_d} at {judged_c}: "
    "{nitrifiers}; for a rise past {nitrify_salt_from_ppt}, to {move_to_ppt} from {tank_salinity_ppt}",
    source="monod",
)
def moving_ammonia_mg_l(
    move_to_ppt: float | None,
    tank_salinity_ppt: float,
    nitrify_salt_from_ppt: float,
    salt_follows_frac: float,
    beds: Beds,
    nitrifiers: Nitrifiers,
    system_mature_frac: float,
    judged_load_mg_d: float,
    judged_c: float,
) -> float:
    if move_to_ppt is None or abs(move_to_ppt - tank_salinity_ppt) < LEAST_MOVE_PPT:
        raise NamedCase("no_move")
    if move_to_ppt <= max(nitrify_salt_from_ppt, tank_salinity_ppt):
        raise NamedCase("filter_follows")
    return nitrifiers.level_mg_l(judged_load_mg_d, beds.at(system_mature_frac).scaled(salt_follows_frac), judged_c)


@check(
    "The move in salinity is borne",
    stage="source",
    judges="move_d",
    mends=("recipe.move_ppt_d", "recipe.move_to_ppt"),
    caution="Test salinity before each step, and ammonia every day above 5 ppt: the filter slows until its bacteria have followed.",
)
def move_borne(
    move_d: float,
    move_to_ppt: float | None,
    tank_salinity_ppt: float,
    move_ppt_d: float,
    salt_move_ppt_d: float,
    moving_ammonia_mg_l: float | None,
    allowed_ammonia_mg_l: float | None,
    animal: tuple[Species, ...],
    plant_row: tuple[Plant, ...],
) -> Verdict:
    if move_to_ppt is None or abs(move_to_ppt - tank_salinity_ppt) < LEAST_MOVE_PPT:
        raise NamedCase("no_move")
    step_ppt = move_ppt_d if move_to_ppt > tank_salinity_ppt else -move_ppt_d
    levels = [tank_salinity_ppt + step_ppt * day for day in range(int(move_d))] + [move_to_ppt]
    for day, level in enumerate(levels):
        for kind in animal:
            if not kind.salinity_low_ppt <= level <= kind.salinity_high_ppt:
                reason = say(
                    "{who} leaves its range of {low} to {high} on day {day}, at {level}: it does not live there.",
                    who=kind.common,
                    low=Term(kind.salinity_low_ppt, "salinity"),
                    high=Term(kind.salinity_high_ppt, "salinity"),
                    day=str(day),
                    level=Term(level, "salinity"),
                )
                past = max(kind.salinity_low_ppt - level, level - kind.salinity_high_ppt)
                state: State = "tight" if past <= kind.salt_leeway_ppt else "short"
                if state == "short":
                    return Verdict(state, -1.0, say("not for {who}", who=kind.common), reason)
    terms = {"rate": Term(move_ppt_d, "salinity"), "usual": Term(salt_move_ppt_d, "salinity")}
    if move_ppt_d > salt_move_ppt_d:
        fast: State = "short" if move_ppt_d > 2 * salt_move_ppt_d else "tight"
        reason = say("{rate} a day; animals and the filter follow {usual} a day.", **terms)
        return Verdict(fast, salt_move_ppt_d - move_ppt_d, say("too fast"), reason)
    if moving_ammonia_mg_l is not None and allowed_ammonia_mg_l is not None and animal:
        reason = say(
            "While the filter follows the salt, for some weeks, ammonia stands at {level}; they may live in {allowed}. "
            "Feed less and test daily until it has followed.",
            level=of(moving_ammonia_mg_l, "moving_ammonia_mg_l"),
            allowed=of(allowed_ammonia_mg_l, "allowed_ammonia_mg_l"),
        )
        if moving_ammonia_mg_l > allowed_ammonia_mg_l:
            return Verdict("short", -1.0, say("the filter does not keep up"), reason)
        return Verdict("tight", 0.0, say("the filter has to follow"), reason)
    for day, level in enumerate(levels):
        lost = next((row for row in plant_row if level > row.salinity_high_ppt), None)
        if lost is not None:
            text = "{who} bears {high}: it rots from day {day} on, at {level}. Take it out before."
            reason = say(
                text,
                who=lost.common,
                high=Term(lost.salinity_high_ppt, "salinity"),
                day=str(day),
                level=Term(level, "salinity"),
            )
            return Verdict("tight", 0.0, say("not for {who}", who=lost.common), reason)
    reason = say("In {days}, {rate} a day, inside what all of them live in.", days=of(move_d, "move_d"), **terms)
    return Verdict("holds", 1.0, say("slow enough"), reason)
