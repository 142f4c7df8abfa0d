"""Arrivals: from the bag into the tank, and the weeks in a tub before."""

import math
from dataclasses import dataclass

from loquen.core.data import library
from loquen.core.data.library import Species
from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_most
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.quantity import Sentence, Term, of, say
from loquen.core.physics import animals as biology
from loquen.core.physics import chemistry, dilution, nitrogen
from loquen.core.system.filter.media import Nitrifiers

ROUNDING = 1e-9
"""A whole number of days is not made one more by a machine's rounding."""
MOST_DROPS = 20.0
"""More than this a second is a stream, no drip."""


def worst_of(figures: tuple[float, ...]) -> float:
    """The largest of the bags' figures; NamedCase "not_needed" while nobody is on the way."""
    if not figures:
        raise NamedCase("not_needed")
    return max(figures)


@figure(
    "Float the bag for",
    formula="{float_min_per_l} × {bagged_l} × ln(|{water_c} − {bag_c}| ÷ 1 K), to within a degree",
    source="practice",
    row="bags",
)
def floating_min(float_min_per_l: float, bagged_l: float, water_c: float, bag_c: float) -> float:
    return float(dilution.float_minutes(abs(water_c - bag_c), bagged_l, 1.0, float_min_per_l))


@figure(
    "Ammonia in the bag",
    formula="{bag_rate} × {bag_mass_g} × {bag_h} ÷ {bagged_l}, half when fasted ({bag_fasted})",
    source="practice",
    row="bags",
)
def bag_ammonia_mg_l(bag_rate: float, bag_mass_g: float, bag_h: float, bagged_l: float, bag_fasted: bool) -> float:
    return float(dilution.bag_ammonia_mg_l(bag_mass_g, bag_h, bagged_l, bag_rate, bag_fasted))


@figure(
    "Un-ionised while it is sealed",
    formula="{bag_ammonia_mg_l} × share at pH {bag_ph} and {bag_c}",
    source="emerson1975",
    row="bags",
)
def sealed_unionised_mg_l(bag_ammonia_mg_l: float, bag_ph: float, bag_c: float) -> float:
    return bag_ammonia_mg_l * float(chemistry.ammonia_fraction(bag_ph, bag_c))


@figure(
    "pH minutes after opening",
    formula="aerated pH of {bag_kh_dkh} at {bag_c}, air at {room_co2_ppm}",
    source="plummer1982",
    row="bags",
    kind="ph",
)
def opened_ph(bag_kh_dkh: float, bag_c: float, room_co2_ppm: float) -> float:
    return chemistry.aerated_ph(bag_kh_dkh, bag_c, room_co2_ppm)


@figure(
    "Un-ionised minutes after opening",
    formula="{bag_ammonia_mg_l} × share at pH {opened_ph} and {bag_c}",
    source="emerson1975",
    row="bags",
)
def opened_unionised_mg_l(bag_ammonia_mg_l: float, opened_ph: float, bag_c: float) -> float:
    return bag_ammonia_mg_l * float(chemistry.ammonia_fraction(opened_ph, bag_c))


@figure(
    "Tank water after this drip",
    formula="V ÷ ({bagged_l} + V), V = {drops_per_s} × 60 × {drip_min} × 0.05 ÷ 1000",
    source="balance",
    row="bags",
)
def dripped_frac(bagged_l: float, drops_per_s: float, drip_min: float) -> float:
    return float(dilution.drip_share(bagged_l, drops_per_s, drip_min))


@figure(
    "Drip for the wanted share",
    formula="{bagged_l} × {drip_frac} ÷ (1 − {drip_frac}) × 1000 ÷ ({drops_per_s} × 60 × 0.05)",
    source="balance",
    row="bags",
)
def wanted_min(bagged_l: float, drip_frac: float, drops_per_s: float) -> float:
    return float(dilution.drip_minutes(bagged_l, drops_per_s, drip_frac))


@figure(
    "Drops a second for it in that time",
    formula="{drops_per_s} × {wanted_min} ÷ {drip_min}",
    source="balance",
    row="bags",
    kind="ratio",
)
def wanted_drops(drops_per_s: float, wanted_min: float, drip_min: float) -> float:
    return drops_per_s * wanted_min / drip_min


@figure(
    "Gap in dissolved solids",
    formula="|{settled_us_cm} − {bag_us_cm}| ÷ {bag_us_cm}",
    source="definition",
    row="bags",
)
def bag_gap_frac(settled_us_cm: float, bag_us_cm: float) -> float:
    return abs(settled_us_cm - bag_us_cm) / bag_us_cm


@figure(
    "Dissolved solids move by the hour at this drip",
    formula="|{settled_us_cm} − {bag_us_cm}| × {dripped_frac} ÷ ({drip_min} ÷ 60)",
    source="balance",
    row="bags",
    kind="conductivity",
)
def drip_rate(settled_us_cm: float, bag_us_cm: float, dripped_frac: float, drip_min: float) -> float:
    return abs(settled_us_cm - bag_us_cm) * dripped_frac / (drip_min / 60)


@figure(
    "Days to move over in a tub",
    formula="ln({settled_us_cm} ÷ {bag_us_cm}) ÷ ln(1 + the daily step that {shock_classes} bear upwards), or downwards "
    "÷ ln(1 − that step), rounded up",
    source="practice",
    row="bags",
)
def tub_move_d(settled_us_cm: float, bag_us_cm: float, shock_classes: tuple[library.ShockClass, ...]) -> float:
    if settled_us_cm >= bag_us_cm:
        a_day = math.log1p(min(row.conductivity_frac for row in shock_classes))
    else:
        a_day = math.log1p(-min(row.down_frac for row in shock_classes))
    return float(math.ceil(math.log(settled_us_cm / bag_us_cm) / a_day - ROUNDING))


@figure(
    "Dripped for",
    formula="{drip_min}; 0 where {bag_gap_frac} is under {drip_needed_frac}, or {opened_unionised_mg_l} passes "
    "{unionised_harm_mg_l}",
    source="practice",
    row="bags",
)
def dripped_for_min(
    drip_min: float,
    bag_gap_frac: float,
    drip_needed_frac: float,
    opened_unionised_mg_l: float,
    unionised_harm_mg_l: float,
) -> float:
    needless = bag_gap_frac < drip_needed_frac or opened_unionised_mg_l > unionised_harm_mg_l
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
) -> Sentence:
    """How one arrival is brought across."""
    warmth = "float the closed bag for {minutes}" if floating_min > 0 else "as warm as the tank, no floating"
    if opened_unionised_mg_l > unionised_harm_mg_l:
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


# Over all arrivals ------------------------------------------------------------------------------


@figure("Un-ionised in the worst opened bag", formula="largest of {opened_unionised_mg_l}", source="definition")
def worst_opened_mg_l(opened_unionised_mg_l: tuple[float, ...]) -> float:
    return worst_of(opened_unionised_mg_l)


@figure("Widest gap in dissolved solids", formula="largest of {bag_gap_frac}", source="definition")
def widest_gap_frac(bag_gap_frac: tuple[float, ...]) -> float:
    return worst_of(bag_gap_frac)


@check(
    "Opening the bag",
    stage="arrivals",
    judges="worst_opened_mg_l",
    mends=("bags.*.bag_h", "bags.*.bagged_l"),
    caution="The bag's water never goes into the tank.",
)
def bag_opens(
    worst_opened_mg_l: float,
    bag_name: tuple[str, ...],
    opened_unionised_mg_l: tuple[float, ...],
    sealed_unionised_mg_l: tuple[float, ...],
    opened_ph: tuple[float, ...],
    unionised_harm_mg_l: float,
) -> Verdict:
    worst = opened_unionised_mg_l.index(worst_opened_mg_l)
    key = f"bags.{worst}."
    terms: dict[str, Term | str] = {
        "name": bag_name[worst],
        "sealed": of(sealed_unionised_mg_l[worst], key + "sealed_unionised_mg_l"),
        "opened": of(worst_opened_mg_l, key + "opened_unionised_mg_l"),
        "ph": Term(opened_ph[worst], "ph", key + "opened_ph"),
        "harm": Term(unionised_harm_mg_l, "unionised"),
    }
    if worst_opened_mg_l > unionised_harm_mg_l:
        text = (
            "{name}: sealed, {sealed} is un-ionised; opened, pH climbs to {ph} and it becomes {opened}, {harm} harms. "
            "Float it closed, then net them out at once: no drip."
        )
    else:
        text = (
            "{name}: opened, pH climbs to {ph} and un-ionised ammonia to {opened}; {harm} harms. "
            "There is time to drip."
        )
    return at_most(worst_opened_mg_l, unionised_harm_mg_l, "unionised", say(text, **terms))


@check("The step into this water", stage="arrivals", judges="widest_gap_frac", mends=("bags.*.bag_us_cm",))
def bag_step(
    widest_gap_frac: float,
    bag_name: tuple[str, ...],
    bag_gap_frac: tuple[float, ...],
    dripped_frac: tuple[float, ...],
    wanted_min: tuple[float, ...],
    rude_step_frac: float,
) -> Verdict:
    widest = bag_gap_frac.index(widest_gap_frac)
    key = f"bags.{widest}."
    reason = say(
        "{name}: dissolved solids lie {gap} apart. This drip mixes in {share}; the share you want takes {minutes}. "
        "Over {most} a tub of their own water, changed over days, is the way.",
        name=bag_name[widest],
        gap=of(widest_gap_frac, key + "bag_gap_frac"),
        share=of(dripped_frac[widest], key + "dripped_frac"),
        minutes=of(wanted_min[widest], key + "wanted_min"),
        most=Term(rude_step_frac, "share"),
    )
    return at_most(widest_gap_frac, rude_step_frac, "share", reason)


# Quarantine -------------------------------------------------------------------------------------


@figure(
    "Waste in one tub",
    formula="food for {bag_number} of {bag_mass_g} together at {water_c} (× {feed_q10} over ten kelvin, × {feed_scale}) "
    "× {bag_protein_frac} × 0.16 × (1 − {kept_grown}) × 1000",
    source="timmons",
    row="bags",
)
def tub_mg_d(
    bag_mass_g: float,
    bag_number: int,
    bag_protein_frac: float,
    water_c: float,
    kept_grown: float,
    feed_scale: float,
    feed_q10: float,
) -> float:
    one = float(biology.feed_g_d(bag_mass_g / bag_number, water_c, "light", warmth_10k=feed_q10))
    feed = feed_scale * bag_number * one
    return float(nitrogen.ammonia_from_feed_mg_d(feed, bag_protein_frac, kept_grown, 0.0))


@figure(
    "Seeded media take of it",
    formula="what {tub_media_m2} take at {allowed_ammonia_mg_l}, {water_c}: {nitrifiers}",
    source="monod",
)
def tub_taken_mg_d(
    tub_media_m2: float, water_c: float, allowed_ammonia_mg_l: float, nitrifiers: Nitrifiers
) -> float:
    return nitrifiers.taken_mg_d(allowed_ammonia_mg_l, tub_media_m2, water_c)


@figure(
    "Hours to the ammonia limit, nothing done",
    formula="{allowed_ammonia_mg_l} × {tub_l} ÷ ({tub_mg_d} − {tub_taken_mg_d}) × 24",
    source="balance",
    row="bags",
)
def tub_h(allowed_ammonia_mg_l: float, tub_l: float, tub_mg_d: float, tub_taken_mg_d: float) -> float:
    left = tub_mg_d - tub_taken_mg_d
    if left <= 0:
        raise NamedCase("media_take_all")
    return allowed_ammonia_mg_l * tub_l / left * 24


@figure(
    "Change each day that keeps under it",
    formula="({tub_mg_d} − {tub_taken_mg_d}) ÷ {tub_l} ÷ {allowed_ammonia_mg_l}",
    source="balance",
    row="bags",
)
def tub_change_frac(tub_mg_d: float, tub_taken_mg_d: float, tub_l: float, allowed_ammonia_mg_l: float) -> float:
    return max(0.0, tub_mg_d - tub_taken_mg_d) / tub_l / allowed_ammonia_mg_l


@figure("Change a day in the fullest tub", formula="largest of {tub_change_frac}", source="definition")
def fullest_tub_frac(tub_change_frac: tuple[float, ...]) -> float:
    return worst_of(tub_change_frac)


@figure(
    "All through quarantine in",
    formula="rounded up (arrivals {bag_name} ÷ {tub_count}) × {wait_weeks}",
    source="definition",
)
def through_weeks(bag_name: tuple[str, ...], tub_count: int, wait_weeks: float) -> float:
    return -(-len(bag_name) // tub_count) * wait_weeks


@check(
    "The tub stays clean enough",
    stage="arrivals",
    judges="fullest_tub_frac",
    mends=("quarantine.tub_l", "quarantine.tub_media_m2"),
    caution="Nets, hoses and hands go from the display to the tub, never back. Medicines: a vet and local law.",
)
def tub_holds(
    fullest_tub_frac: float,
    bag_name: tuple[str, ...],
    tub_change_frac: tuple[float, ...],
    tub_mg_d: tuple[float, ...],
    allowed_ammonia_mg_l: float,
) -> Verdict:
    fullest = tub_change_frac.index(fullest_tub_frac)
    key = f"bags.{fullest}."
    reason = say(
        "{name}: they make {made}; kept under {limit} it takes a change of {share} every day, "
        "or media from a healthy tank.",
        name=bag_name[fullest],
        made=of(tub_mg_d[fullest], key + "tub_mg_d"),
        limit=of(allowed_ammonia_mg_l, "allowed_ammonia_mg_l"),
        share=of(fullest_tub_frac, key + "tub_change_frac"),
    )
    return at_most(fullest_tub_frac, 1.0, "share", reason)


@check("Nobody aboard whom copper kills", stage="arrivals")
def copper_borne(copper_used: bool, animal: tuple[Species, ...]) -> Verdict:
    if not copper_used:
        raise NamedCase("not_needed")
    who = ", ".join(dict.fromkeys(kind.common for kind in animal if kind.copper_sensitive))
    if not who:
        return Verdict(
            "tight",
            0.0,
            say("tub only"),
            say("Keep copper in the tub: it lingers in silicone and rock, and kills invertebrates."),
        )
    reason = say("{who} do not survive copper; equipment that met it never goes into this tank.", who=who)
    return Verdict("short", -1.0, say("deadly to some"), reason)


@dataclass(frozen=True, slots=True)
class Batch:
    """One arrival in quarantine: its tub, and the weeks it enters and leaves."""

    name: str
    tub: int
    enters: float
    leaves: float


@step()
def arrivals_order(bag_name: tuple[str, ...], tub_count: int, wait_weeks: float) -> tuple[Batch, ...]:
    """Every arrival, in the order in which tubs come free."""
    return tuple(
        Batch(name, n % tub_count + 1, n // tub_count * wait_weeks, (n // tub_count + 1) * wait_weeks)
        for n, name in enumerate(bag_name)
    )


@step()
def arrivals_result(bag_result: tuple[Sentence, ...], opened_unionised_mg_l: tuple[float, ...]) -> Sentence:
    if not bag_result:
        return say("Nobody is on the way.")
    return bag_result[opened_unionised_mg_l.index(max(opened_unionised_mg_l))]
