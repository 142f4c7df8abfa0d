"""The weeks in a tub before: what it makes, what it takes, who waits when."""

from dataclasses import dataclass

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_most
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.library.rows.animals import Species
from loquen.core.model.inputs.quantity import of, say
from loquen.core.physics import animals as biology
from loquen.core.physics import nitrogen
from loquen.core.system.arrivals.bags import worst_of
from loquen.core.system.filter.ammonia import Nitrifiers


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
    ways = (
        "it takes a change of {share} every day, or media from a healthy tank."
        if fullest_tub_frac <= 1
        else "no change a day is enough, it would be {share} of the tub: media from a healthy tank, a larger tub or fewer at a time."
    )
    reason = say(
        "{name}: they make {made}; kept under {limit} " + ways,
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
