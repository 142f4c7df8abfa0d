"""From a bag's water to the tank's: minutes where they lie close, days in a tub where they do not; and the card that says so."""

from dataclasses import dataclass

from loquen.core.graph.judging import at_most, no_harm
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.library.rows.animals import ShockClass
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.physics import chemistry

ROUNDING = 1e-9
"""A whole number of days is not made one more by a machine's rounding."""
MOST_DROPS = 20.0
"""More than this a second is a stream, no drip."""
MOST_DAYS = 400
LEAST_SALT_G = 0.5
"""Less a day is not weighed: it is water that is swapped."""
RUDE_KH_STEPS = 3.0
"""Times the carbonate step that is borne at a change, from which a move takes days; keepers' practice, unverified."""


@figure(
    "Salinity of its water",
    formula="{bag_salinity_ppt} as read, else practical salinity of {bag_water_us_cm} at 25 °C",
    source="teos10",
    row="bags",
    kind="salinity",
)
def bag_ppt(bag_salinity_ppt: float | None, bag_water_us_cm: float) -> float:
    if bag_salinity_ppt is not None:
        return bag_salinity_ppt
    return chemistry.salinity_from_conductivity_ppt(bag_water_us_cm)


@dataclass(frozen=True, slots=True)
class TubDay:
    """A day of a move in a tub: the tank's water swapped in, or the salt weighed in its place, and what it then reads."""

    day: int
    swapped_l: float
    salt_g: float
    us_cm: float


@step("bags")
def tub_days(
    settled_us_cm: float,
    bag_water_us_cm: float,
    tank_salinity_ppt: float,
    bag_ppt: float,
    salt_move_ppt_d: float,
    shock_classes: tuple[ShockClass, ...],
    settled_kh_dkh: float,
    bag_kh_dkh: float,
    borne_dkh: float,
    tub_l: float,
    water_c: float,
    salt_purity_frac: float,
) -> tuple[TubDay, ...]:
    """Day by day from the bag's water to the tank's, as the part of it that is the tank's: no day moves solids, salt or
    carbonate by more than the most delicate bear."""
    up, down = min(r.conductivity_frac for r in shock_classes), min(r.down_frac for r in shock_classes)
    apart, salted = settled_us_cm - bag_water_us_cm, tank_salinity_ppt - bag_ppt
    kh_steps = abs(settled_kh_dkh - bag_kh_dkh) / borne_dkh
    most = 1 / kh_steps if kh_steps > RUDE_KH_STEPS else 1.0
    if abs(salted) > salt_move_ppt_d:
        most = min(most, salt_move_ppt_d / abs(salted))
    part, rows = 0.0, list[TubDay]()
    while part < 1 - ROUNDING and len(rows) < MOST_DAYS and (apart or most < 1):
        level = bag_water_us_cm + part * apart
        by_solids = level * (up if apart > 0 else down) / abs(apart) if apart else 1.0
        then = min(1.0, part + min(most, by_solids))
        salt = max(0.0, salted) * (then - part)
        grams = float(chemistry.salt_to_add_g(tub_l, salt, 0.0, water_c, salt_purity_frac)) if salt > 0 else 0.0
        swapped = tub_l * (then - part) / (1 - part)
        rows.append(TubDay(len(rows) + 1, swapped, grams, bag_water_us_cm + then * apart))
        part = then
    return tuple(rows)


@figure("Days to move over in a tub", formula="days of {tub_days}", source="practice", row="bags", kind="days")
def tub_move_d(tub_days: tuple[TubDay, ...]) -> float:
    return float(len(tub_days))


@figure(
    "Days in a tub before they join",
    formula="{tub_move_d} where {bag_gap_frac} is over {rude_step_frac}, or salt or carbonate lie over a day's step apart ({bag_ppt}, "
    "{tank_salinity_ppt}, {salt_move_ppt_d}; {bag_kh_dkh}, {settled_kh_dkh}, {borne_dkh}); else 0",
    source="practice",
    row="bags",
    kind="days",
)
def in_tub_d(
    tub_move_d: float,
    bag_gap_frac: float,
    rude_step_frac: float,
    bag_ppt: float,
    tank_salinity_ppt: float,
    salt_move_ppt_d: float,
    bag_kh_dkh: float,
    settled_kh_dkh: float,
    borne_dkh: float,
) -> float:
    salty = abs(bag_ppt - tank_salinity_ppt) > salt_move_ppt_d
    hard = abs(bag_kh_dkh - settled_kh_dkh) > RUDE_KH_STEPS * borne_dkh
    return tub_move_d if bag_gap_frac > rude_step_frac or salty or hard else 0.0


@figure(
    "Dripped for",
    formula="{drip_min}; 0 where {bag_gap_frac} is under {drip_needed_frac}, {opened_unionised_mg_l} passes {unionised_harm_mg_l}, or "
    "they wait in a tub ({in_tub_d})",
    source="practice",
    row="bags",
)
def dripped_for_min(
    drip_min: float,
    bag_gap_frac: float,
    drip_needed_frac: float,
    opened_unionised_mg_l: float,
    unionised_harm_mg_l: float,
    in_tub_d: float,
) -> float:
    needless = bag_gap_frac < drip_needed_frac or opened_unionised_mg_l > unionised_harm_mg_l or in_tub_d > 0
    return 0.0 if needless else drip_min


@step("bags")
def bag_result(
    bag_name: str,
    opened_unionised_mg_l: float,
    unionised_harm_mg_l: float,
    floating_min: float,
    wanted_drops: float,
    dripped_for_min: float,
    drip_frac: float,
    in_tub_d: float,
    tub_days: tuple[TubDay, ...],
    bag_water_us_cm: float,
    tub_l: float,
    label_ml: float | None,
    copper_borne: Verdict | None,
) -> Sentence:
    """How one arrival is brought across: a veto where there is one, else the slowest of all that its checks ask."""
    if copper_borne is not None and copper_borne.state == "short":
        vetoed = copper_borne.reason
        return Sentence("{name}: not into this tank. " + vetoed.text, {**vetoed.terms, "name": Term(bag_name)})
    poisoned = opened_unionised_mg_l > unionised_harm_mg_l
    if in_tub_d > 0:
        dose_ml = None if label_ml is None else label_ml * tub_l / 100
        return tub_first(bag_name, in_tub_d, tub_days, bag_water_us_cm, tub_l, dose_ml, poisoned)
    warmth = "float the closed bag for {minutes}" if floating_min > 0 else "as warm as the tank, no floating"
    if poisoned:
        then = "open it, and net them across at once."
    elif dripped_for_min == 0:
        then = "its water is as the tank's: open it, and net them across."
    elif wanted_drops > MOST_DROPS:
        then = "then pour tank water into their bucket by the cup over {drip} until {share} is tank water; net them across."
    else:
        then = "then drip {drops} drops a second into a bucket for {drip} until {share} is tank water; net them across."
    return say(
        f"{{name}}: {warmth}, {then}",
        name=bag_name,
        minutes=Term(floating_min, "minutes"),
        drops=Term(wanted_drops, "ratio"),
        drip=Term(dripped_for_min, "minutes"),
        share=Term(drip_frac, "share"),
    )


def tub_first(
    name: str,
    days: float,
    rows: tuple[TubDay, ...],
    bag_us_cm: float,
    tub_l: float,
    dose_ml: float | None,
    poisoned: bool,
) -> Sentence:
    """Waters too far apart for a drip: a tub of water like theirs, moved over by the day."""
    text = "{name}: not into the tank today. Into a tub of {tub} with water like theirs, {us} and as warm"
    text += ", {dose} of conditioner in it where it is made of the tap" if dose_ml else ""
    text += ", netted across at once; " if poisoned else "; "
    text += "then {days} in it, a part of the tank's water in its place each day"
    terms: dict[str, Term | str] = {
        "name": name,
        "tub": Term(tub_l, "volume"),
        "us": Term(bag_us_cm, "conductivity"),
        "days": Term(days, "days"),
        **({"dose": Term(dose_ml, "dose")} if dose_ml else {}),
    }
    if rows:
        text += ": {first} on the first, {last} on the last"
        terms |= {"first": Term(rows[0].swapped_l, "volume"), "last": Term(rows[-1].swapped_l, "volume")}
        if max(row.salt_g for row in rows) > LEAST_SALT_G:
            text += ", or {grams} of salt on the first and {most} on the last instead"
            terms |= {
                "grams": Term(rows[0].salt_g, "small_mass"),
                "most": Term(max(row.salt_g for row in rows), "small_mass"),
            }
    return say(text + ". Then net them across.", **terms)


@check("The step into this water", stage="arrivals", judges="widest_gap_frac")
def bag_step(
    widest_gap_frac: float,
    bag_name: tuple[str, ...],
    bag_gap_frac: tuple[float, ...],
    dripped_frac: tuple[float, ...],
    wanted_min: tuple[float, ...],
    in_tub_d: tuple[float, ...],
    rude_step_frac: float,
) -> Verdict:
    slowest = max(in_tub_d)
    at = in_tub_d.index(slowest) if slowest > 0 else bag_gap_frac.index(widest_gap_frac)
    key = f"bags.{at}."
    terms: dict[str, Term | str] = {
        "name": bag_name[at],
        "gap": of(bag_gap_frac[at], key + "bag_gap_frac"),
        "share": of(dripped_frac[at], key + "dripped_frac"),
        "minutes": of(wanted_min[at], key + "wanted_min"),
        "days": Term(slowest, "days", key + "in_tub_d"),
        "most": Term(rude_step_frac, "share"),
    }
    if slowest > 0:
        text = "{name}: dissolved solids lie {gap} apart, salt and carbonate counted: {days} in a tub of their own water, moved over day by day, is the way."
        verdict = no_harm(at_most(bag_gap_frac[at], rude_step_frac, "share", say(text, **terms)))
        return Verdict(
            "tight", verdict.margin, say("{days} in a tub", days=terms["days"]), verdict.reason, verdict.gauge
        )
    text = (
        "{name}: dissolved solids lie {gap} apart. This drip mixes in {share}; the share you want takes {minutes}. "
        "Over {most} a tub of their own water, changed over days, is the way."
    )
    return at_most(widest_gap_frac, rude_step_frac, "share", say(text, **terms))


@step()
def arrivals_result(bag_result: tuple[Sentence, ...], opened_unionised_mg_l: tuple[float, ...]) -> Sentence:
    if not bag_result:
        return say("Nobody is on the way.")
    return bag_result[opened_unionised_mg_l.index(max(opened_unionised_mg_l))]
