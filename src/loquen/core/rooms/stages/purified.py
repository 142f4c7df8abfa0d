"""Purified water over the week, and a softener's turns."""

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_most
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.physics.chemistry import permeate_lph
from loquen.core.rooms.supply import OsmosisWeek, osmosis_week, softener_litres, softener_sodium_mg_l

DAYS = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")
DAY_NAMES = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


def waste_lph_of(fitted: bool, made_lph: float | None, ratio: float) -> float:
    """What the membranes let go while they run."""
    return (made_lph or 0.0) * ratio if fitted else 0.0


@figure(
    "Purified in winter",
    formula="{membranes} × {membrane_l_d} ÷ 24 × ({purifier_kpa} − {back_kpa} − 0.07 × solids) ÷ ({membrane_kpa} − 17.5) × "
    "1.03^({winter_c} − 25), solids {supply_us_cm} × {meter_factor}",
    source="osmosis",
)
def purified_lph(
    purifier_fitted: bool,
    membranes: int,
    membrane_l_d: float,
    purifier_kpa: float,
    back_kpa: float,
    membrane_kpa: float,
    winter_c: float,
    supply_us_cm: float,
    meter_factor: float,
) -> float:
    if not purifier_fitted:
        raise NamedCase("no_membrane")
    solids = supply_us_cm * meter_factor
    return membranes * permeate_lph(
        membrane_l_d / 24, purifier_kpa, solids, winter_c, membrane_kpa, back_kpa=back_kpa
    )


@step()
def purified_week(
    purifier_fitted: bool,
    membranes: int,
    membrane_l_d: float,
    purifier_kpa: float,
    back_kpa: float,
    membrane_kpa: float,
    winter_c: float,
    supply_us_cm: float,
    meter_factor: float,
    waste_ratio: float,
    rejects_frac: float,
    purified_l: float,
    purified_day: tuple[str, ...],
    purified_h: tuple[float, ...],
    purified_min: tuple[float, ...],
    drawn_l: tuple[float, ...],
    reservoir_purified_l_d: float | None,
    run_days: tuple[str, ...],
    window_to_h: tuple[float, ...],
    refill_lph: float,
) -> OsmosisWeek:
    if not purifier_fitted:
        raise NamedCase("no_membrane")
    return osmosis_week(
        membranes=membranes,
        rated_l_d=membrane_l_d,
        feed_kpa=purifier_kpa,
        tds_mg_l=supply_us_cm * meter_factor,
        temp_c=winter_c,
        waste_ratio=waste_ratio,
        rejection_frac=rejects_frac,
        store_l=purified_l,
        demand=[
            {"day": DAYS.index(day), "hour": hour, "minutes": minutes, "litres": litres}
            for day, hour, minutes, litres in [
                *zip(purified_day, purified_h, purified_min, drawn_l, strict=True),
                *reservoir_draws(reservoir_purified_l_d or 0.0, run_days, window_to_h, refill_lph),
            ]
        ],
        rated_kpa=membrane_kpa,
        back_kpa=back_kpa,
    )


def reservoir_draws(
    litres_d: float, run_days: tuple[str, ...], window_to_h: tuple[float, ...], refill_lph: float
) -> list[tuple[str, float, float, float]]:
    """What the reservoir draws: after the last hour in which zones run, as fast as it is refilled."""
    if litres_d <= 0:
        return []
    after = max(window_to_h, default=0.0) % 24
    return [(day, after, min(1440.0, 60 * litres_d / refill_lph), litres_d) for day in dict.fromkeys(run_days)]


@figure(
    "Drawn a week",
    formula="sum of {drawn_l} + {reservoir_purified_l_d} × number of {run_days}",
    source="definition",
)
def purified_l_wk(
    drawn_l: tuple[float, ...],
    reservoir_purified_l_d: float | None,
    run_days: tuple[str, ...],
    purifier_fitted: bool,
) -> float:
    if not purifier_fitted:
        raise NamedCase("no_membrane")
    return sum(drawn_l) + (reservoir_purified_l_d or 0.0) * len(set(run_days))


@figure("Made a week at most in winter", formula="{purified_lph} × 168", source="balance")
def purified_most_l_wk(purified_lph: float) -> float:
    return purified_lph * 168


@figure("Hours to fill its store", formula="{purified_l} ÷ {purified_lph}", source="balance")
def purified_fill_h(purified_l: float, purified_lph: float) -> float:
    return purified_l / purified_lph


@figure("Drained for it a week", formula="{waste_ratio} × what is made, of {purified_week}", source="balance")
def purifier_waste_l_wk(purified_week: OsmosisWeek, waste_ratio: float) -> float:
    return purified_week.made_l_wk * waste_ratio


@figure("Conductivity of what it makes", formula="{supply_us_cm} × (1 − {rejects_frac})", source="osmosis")
def purified_us_cm(supply_us_cm: float, rejects_frac: float, purifier_fitted: bool) -> float:
    if not purifier_fitted:
        raise NamedCase("no_membrane")
    return supply_us_cm * (1 - rejects_frac)


@check(
    "The purified store lasts the week",
    stage="purified",
    judges="purified_l_wk",
    glass="purified",
    mends=("purifier.purified_l", "purifier.membranes", "purifier.membrane_l_d"),
    caution="Purified and softened water attack copper, and animals die of it: plastic only after them.",
)
def purified_lasts(purified_week: OsmosisWeek, purified_l_wk: float, purified_most_l_wk: float) -> Verdict:
    week = purified_week
    terms: dict[str, Term | str] = {
        "wanted": of(purified_l_wk, "purified_l_wk"),
        "most": of(purified_most_l_wk, "purified_most_l_wk"),
        "least": Term(week.min_l, "volume"),
        "when": moment(week.min_at_h),
        "short": Term(week.short_l, "volume"),
    }
    if week.holds_for_good:
        text = (
            "{wanted} are drawn of {most} that can be made in winter; on {when} the store is lowest, with {least}."
        )
        return at_most(purified_l_wk, purified_most_l_wk, "volume_per_week", say(text, **terms))
    if week.first_short_week == 1 and week.first_short_h is not None:
        text = "{wanted} are drawn of {most} that can be made in winter, but on {when} the store is empty: {short} are missing."
        terms["when"] = moment(week.first_short_h)
    else:
        text = "{wanted} are drawn of {most} that can be made in winter: the store sinks week by week, and is empty in the {nth}th."
        terms["nth"] = Term(str(week.first_short_week))
    return Verdict("short", -max(week.short_l, 1.0), say("runs dry"), say(text, **terms))


def moment(hours: float) -> str:
    """An hour of the week as day and clock."""
    minutes = round(hours * 60)
    return f"{DAY_NAMES[minutes // 1440 % 7]}, {minutes % 1440 // 60:02d}:{minutes % 60:02d}"


@figure(
    "Softened between two regenerations",
    formula="{resin_grains} × 64.79891 × {resin_frac} ÷ (17.848 × {removed_dgh})",
    source="definition",
)
def softened_l(softener_on: str, resin_grains: float, resin_frac: float, removed_dgh: float) -> float:
    if softener_on == "none":
        raise NamedCase("not_needed")
    return softener_litres(capacity_grains=resin_grains, removed_dgh=removed_dgh, usable_frac=resin_frac)


@figure(
    "Days between regenerations",
    formula="{softened_l} ÷ {changer_l_d}, or on the hot side ({softener_on}) {street_l_d} × {winter_hot_frac}",
    source="balance",
)
def softener_d(
    softened_l: float, changer_l_d: float, street_l_d: float, softener_on: str, winter_hot_frac: float
) -> float:
    through = street_l_d * winter_hot_frac if softener_on == "hot" else changer_l_d
    if through <= 0:
        raise NamedCase("not_needed")
    return softened_l / through


@figure(
    "Sodium that it adds",
    formula="{removed_dgh} × 17.848 × 0.4594, on the share of the side it is on ({softener_on}, {winter_hot_frac})",
    source="definition",
    kind="sodium",
)
def softener_sodium(removed_dgh: float, softener_on: str, winter_hot_frac: float) -> float:
    if softener_on == "none":
        raise NamedCase("not_needed")
    whole = softener_sodium_mg_l(removed_dgh=removed_dgh)
    return whole * (winter_hot_frac if softener_on == "hot" else 1.0)


@step()
def purified_result(purified_lph: float, purified_fill_h: float, purified_l_wk: float) -> Sentence:
    return say(
        "In winter {flow} are made, {hours} for a full store; {wanted} are drawn.",
        flow=of(purified_lph, "purified_lph"),
        hours=of(purified_fill_h, "purified_fill_h"),
        wanted=of(purified_l_wk, "purified_l_wk"),
    )
