"""Arrivals: from the bag into the tank, and the weeks in a tub before."""

import math

from loquen.core.data.library import Species
from loquen.core.errors import Impossible
from loquen.core.model.quantity import Sentence, Term, of, say
from loquen.core.physics import animals as biology
from loquen.core.physics import chemistry, dilution, nitrogen
from loquen.core.sheet.judging import at_most
from loquen.core.sheet.nodes import Verdict, check, figure, step


def unless_expected(expected: bool) -> None:
    """Raise Impossible "not_needed" while nobody is on the way."""
    if not expected:
        raise Impossible("not_needed")


@figure(
    "Float the bag for",
    formula="{float_min_per_l} × {bagged_l} × ln(|{water_c} − {bag_c}| ÷ 1 K), to within a degree",
    source="practice",
)
def floating_min(float_min_per_l: float, bagged_l: float, water_c: float, bag_c: float) -> float:
    return float(dilution.float_minutes(abs(water_c - bag_c), bagged_l, 1.0, float_min_per_l))


@figure(
    "Ammonia in the bag",
    formula="{bag_rate} × {bag_mass_g} × {bag_h} ÷ {bagged_l}, half when fasted ({bag_fasted})",
    source="practice",
)
def bag_ammonia_mg_l(bag_rate: float, bag_mass_g: float, bag_h: float, bagged_l: float, bag_fasted: bool) -> float:
    return float(dilution.bag_ammonia_mg_l(bag_mass_g, bag_h, bagged_l, bag_rate, bag_fasted))


@figure(
    "Un-ionised while it is sealed",
    formula="{bag_ammonia_mg_l} × share at pH {bag_ph} and {bag_c}",
    source="emerson1975",
)
def sealed_unionised_mg_l(bag_ammonia_mg_l: float, bag_ph: float, bag_c: float) -> float:
    return bag_ammonia_mg_l * float(chemistry.ammonia_fraction(bag_ph, bag_c))


@figure(
    "pH minutes after opening",
    formula="aerated pH of {bag_kh_dkh} at {bag_c}, air at {room_co2_ppm}",
    source="plummer1982",
    kind="ph",
)
def opened_ph(bag_kh_dkh: float, bag_c: float, room_co2_ppm: float) -> float:
    return chemistry.aerated_ph(bag_kh_dkh, bag_c, room_co2_ppm)


@figure(
    "Un-ionised minutes after opening",
    formula="{bag_ammonia_mg_l} × share at pH {opened_ph} and {bag_c}",
    source="emerson1975",
)
def opened_unionised_mg_l(bag_ammonia_mg_l: float, opened_ph: float, bag_c: float) -> float:
    return bag_ammonia_mg_l * float(chemistry.ammonia_fraction(opened_ph, bag_c))


@figure(
    "Tank water after this drip",
    formula="V ÷ ({bagged_l} + V), V = {drops_per_s} × 60 × {drip_min} × 0.05 ÷ 1000",
    source="balance",
)
def dripped_frac(bagged_l: float, drops_per_s: float, drip_min: float) -> float:
    return float(dilution.drip_share(bagged_l, drops_per_s, drip_min))


@figure(
    "Drip for the wanted share",
    formula="{bagged_l} × {drip_frac} ÷ (1 − {drip_frac}) × 1000 ÷ ({drops_per_s} × 60 × 0.05)",
    source="balance",
)
def wanted_min(bagged_l: float, drip_frac: float, drops_per_s: float) -> float:
    return float(dilution.drip_minutes(bagged_l, drops_per_s, drip_frac))


@figure(
    "Drops a second for it in that time",
    formula="{drops_per_s} × {wanted_min} ÷ {drip_min}",
    source="balance",
    kind="ratio",
)
def wanted_drops(drops_per_s: float, wanted_min: float, drip_min: float) -> float:
    return drops_per_s * wanted_min / drip_min


@figure(
    "Gap in dissolved solids",
    formula="|{settled_us_cm} − {bag_us_cm}| ÷ {bag_us_cm}",
    source="definition",
)
def bag_gap_frac(settled_us_cm: float, bag_us_cm: float) -> float:
    return abs(settled_us_cm - bag_us_cm) / bag_us_cm


@figure(
    "Dissolved solids move by the hour at this drip",
    formula="|{settled_us_cm} − {bag_us_cm}| × {dripped_frac} ÷ ({drip_min} ÷ 60)",
    source="balance",
    kind="conductivity",
)
def drip_rate(settled_us_cm: float, bag_us_cm: float, dripped_frac: float, drip_min: float) -> float:
    return abs(settled_us_cm - bag_us_cm) * dripped_frac / (drip_min / 60)


@figure(
    "Days to move over in a tub",
    formula="ln(larger ÷ smaller of {settled_us_cm} and {bag_us_cm}) ÷ ln(1 + {borne_solids_frac}), rounded up",
    source="practice",
)
def tub_move_d(settled_us_cm: float, bag_us_cm: float, borne_solids_frac: float) -> float:
    ratio = max(settled_us_cm, bag_us_cm) / min(settled_us_cm, bag_us_cm)
    return float(math.ceil(math.log(ratio) / math.log1p(borne_solids_frac)))


@check(
    "Opening the bag",
    stage="arrivals",
    judges="opened_unionised_mg_l",
    mends=("arrival.bag_h", "arrival.bagged_l"),
    caution="The bag's water never goes into the tank.",
)
def bag_opens(
    expected: bool,
    opened_unionised_mg_l: float,
    sealed_unionised_mg_l: float,
    unionised_harm_mg_l: float,
    opened_ph: float,
) -> Verdict:
    unless_expected(expected)
    terms = {
        "sealed": of(sealed_unionised_mg_l, "sealed_unionised_mg_l"),
        "opened": of(opened_unionised_mg_l, "opened_unionised_mg_l"),
        "ph": Term(opened_ph, "ph", "opened_ph"),
        "harm": Term(unionised_harm_mg_l, "unionised"),
    }
    if opened_unionised_mg_l > unionised_harm_mg_l:
        text = (
            "Sealed, {sealed} is un-ionised; opened, pH climbs to {ph} and it becomes {opened}, {harm} harms. "
            "Float it closed, then net them out at once: no drip."
        )
    else:
        text = "Opened, pH climbs to {ph} and un-ionised ammonia to {opened}; {harm} harms. There is time to drip."
    return at_most(opened_unionised_mg_l, unionised_harm_mg_l, "unionised", say(text, **terms))


@check(
    "The step into this water",
    stage="arrivals",
    judges="bag_gap_frac",
    mends=("arrival.bag_us_cm",),
)
def bag_step(
    expected: bool, bag_gap_frac: float, rude_step_frac: float, dripped_frac: float, wanted_min: float
) -> Verdict:
    unless_expected(expected)
    reason = say(
        "Dissolved solids lie {gap} apart. This drip mixes in {share}; the share you want takes {minutes}. "
        "Over {most} a tub of their own water, changed over days, is the way.",
        gap=of(bag_gap_frac, "bag_gap_frac"),
        share=of(dripped_frac, "dripped_frac"),
        minutes=of(wanted_min, "wanted_min"),
        most=Term(rude_step_frac, "share"),
    )
    return at_most(bag_gap_frac, rude_step_frac, "share", reason)


# Quarantine -------------------------------------------------------------------------------------


@figure(
    "Waste in one tub",
    formula="food for {tub_mass_g} at {water_c} × 0.42 of protein × 0.16 × (1 − {kept_grown}) × 1000",
    source="timmons",
)
def tub_mg_d(tub_mass_g: float, water_c: float, kept_grown: float) -> float:
    feed = float(biology.feed_g_d(tub_mass_g, water_c, "light"))
    return float(nitrogen.ammonia_from_feed_mg_d(feed, 0.42, kept_grown, 0.0))


@figure(
    "Seeded media take of it",
    formula="0.60 × N ÷ (1 + N) × 1.08^({water_c} − 25) × {tub_media_m2} × 1000 at {allowed_ammonia_mg_l}",
    source="monod",
)
def tub_taken_mg_d(tub_media_m2: float, water_c: float, allowed_ammonia_mg_l: float) -> float:
    return float(nitrogen.nitrification_rate_g_m2_d(allowed_ammonia_mg_l, water_c)) * tub_media_m2 * 1000


@figure(
    "Hours to the ammonia limit, nothing done",
    formula="{allowed_ammonia_mg_l} × {tub_l} ÷ ({tub_mg_d} − {tub_taken_mg_d}) × 24",
    source="balance",
)
def tub_h(allowed_ammonia_mg_l: float, tub_l: float, tub_mg_d: float, tub_taken_mg_d: float) -> float:
    left = tub_mg_d - tub_taken_mg_d
    if left <= 0:
        raise Impossible("media_take_all")
    return allowed_ammonia_mg_l * tub_l / left * 24


@figure(
    "Change each day that keeps under it",
    formula="({tub_mg_d} − {tub_taken_mg_d}) ÷ {tub_l} ÷ {allowed_ammonia_mg_l}",
    source="balance",
)
def tub_change_frac(tub_mg_d: float, tub_taken_mg_d: float, tub_l: float, allowed_ammonia_mg_l: float) -> float:
    return max(0.0, tub_mg_d - tub_taken_mg_d) / tub_l / allowed_ammonia_mg_l


@figure(
    "All through quarantine in", formula="rounded up {batches} ÷ {tub_count} × {wait_weeks}", source="definition"
)
def through_weeks(batches: int, tub_count: int, wait_weeks: float) -> float:
    return -(-batches // tub_count) * wait_weeks


@check(
    "The tub stays clean enough",
    stage="arrivals",
    judges="tub_change_frac",
    mends=("arrival.tub_l", "arrival.tub_media_m2"),
    caution="Nets, hoses and hands go from the display to the tub, never back. Medicines: a vet and local law.",
)
def tub_holds(expected: bool, tub_change_frac: float, tub_mg_d: float, allowed_ammonia_mg_l: float) -> Verdict:
    unless_expected(expected)
    reason = say(
        "They make {made}; kept under {limit} it takes a change of {share} every day, or media from a healthy tank.",
        made=of(tub_mg_d, "tub_mg_d"),
        limit=of(allowed_ammonia_mg_l, "allowed_ammonia_mg_l"),
        share=of(tub_change_frac, "tub_change_frac"),
    )
    return at_most(tub_change_frac, 1.0, "share", reason)


@check("Nobody aboard whom copper kills", stage="arrivals")
def copper_borne(copper_used: bool, animal: tuple[Species, ...]) -> Verdict:
    if not copper_used:
        raise Impossible("not_needed")
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


@step()
def arrivals_order(batches: int, tub_count: int, wait_weeks: float) -> tuple[tuple[int, int, float, float], ...]:
    """Batch, tub, first and last week, in the order in which tubs come free."""
    return tuple(
        (n + 1, n % tub_count + 1, n // tub_count * wait_weeks, (n // tub_count + 1) * wait_weeks)
        for n in range(batches)
    )


@step()
def arrivals_result(
    opened_unionised_mg_l: float,
    unionised_harm_mg_l: float,
    floating_min: float,
    wanted_min: float,
    drip_frac: float,
) -> Sentence:
    minutes = of(floating_min, "floating_min")
    if opened_unionised_mg_l > unionised_harm_mg_l:
        return say("Float the closed bag for {minutes}, open it, and net them across at once.", minutes=minutes)
    return say(
        "Float the closed bag for {minutes}, then drip for {drip} until {share} is tank water; net them across.",
        minutes=minutes,
        drip=of(wanted_min, "wanted_min"),
        share=Term(drip_frac, "share"),
    )
