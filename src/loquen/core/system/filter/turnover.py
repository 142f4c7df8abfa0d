"""What the filters really move, and the drift that animals hold against."""

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_most, by_practice, holds_for_you, tight_past, within_band
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.library.rows.animals import Species, Turnover
from loquen.core.library.rows.machines import FilterKind
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Term, of, say
from loquen.core.system.animals.food import require_animals


@figure(
    "Real flow",
    formula="{rated_lph} × share for {filter_type}, or {measured_lph} as measured; nothing where its lip or intake stands above "
    "the water ({stands_dry})",
    source="practice",
    row="filters",
)
def real_flow_lph(rated_lph: float, filter_type: FilterKind, measured_lph: float | None, stands_dry: str) -> float:
    if stands_dry:
        return 0.0
    return rated_lph * filter_type.flow_share if measured_lph is None else measured_lph


@figure("Rated flow of all filters", formula="Σ {rated_lph}", source="practice")
def rated_total_lph(rated_lph: tuple[float, ...]) -> float:
    return sum(rated_lph)


@figure("Real flow of filters and return", formula="Σ {real_flow_lph} + {return_lph}", source="practice")
def total_flow_lph(real_flow_lph: tuple[float, ...], return_lph: float) -> float:
    return sum(real_flow_lph) + return_lph


@figure("Real turnover", formula="{total_flow_lph} ÷ {real_volume_l}", source="definition")
def turnover_per_h(total_flow_lph: float, real_volume_l: float) -> float:
    return total_flow_lph / real_volume_l


@step()
def turnover_bands(animal: tuple[Species, ...], library: Library) -> tuple[Turnover, ...]:
    """Of the animals that a current moves; shrimps and snails go by the others, and decide only alone."""
    require_animals(animal)
    swimming = [kind for kind in animal if not kind.clings and kind.shape != "shrimp"] or list(animal)
    return tuple(library.turnovers[kind.turnover] for kind in swimming)


@figure("Turnover at least", formula="lowest of the highest-needing animal: {turnover_bands}", source="practice")
def turnover_low_per_h(turnover_bands: tuple[Turnover, ...]) -> float:
    return max(band.low_per_h for band in turnover_bands)


@figure(
    "Turnover at most",
    formula="highest that the most delicate bears: {turnover_bands}, not under {turnover_low_per_h}",
    source="practice",
)
def turnover_high_per_h(turnover_bands: tuple[Turnover, ...], turnover_low_per_h: float) -> float:
    highest = min(band.high_per_h for band in turnover_bands)
    return highest if highest > turnover_low_per_h else max(band.high_per_h for band in turnover_bands)


@figure(
    "Mean drift",
    formula="{total_flow_lph} ÷ {tank_count} × 1000 ÷ 3600 ÷ ({water_height_cm} × {inside_width_cm})",
    source="definition",
)
def drift_cm_s(total_flow_lph: float, tank_count: int, water_height_cm: float, inside_width_cm: float) -> float:
    return total_flow_lph / tank_count * 1000 / 3600 / (water_height_cm * inside_width_cm)


def sustained_bl_s(kind: Species, settled: float, weak: float, stream: float) -> float:
    """Drift in its own lengths that an animal can hold against all day."""
    return {"still": weak, "strong": stream}.get(kind.current, settled)


@figure(
    "Drift they can hold against",
    formula="least of {length_then_cm} × {drift_settled_bl_s}, {drift_weak_bl_s} weak or {drift_stream_bl_s} stream: {animal}",
    source="practice",
)
def drift_borne_cm_s(
    animal: tuple[Species, ...],
    length_then_cm: tuple[float, ...],
    drift_settled_bl_s: float,
    drift_weak_bl_s: float,
    drift_stream_bl_s: float,
) -> float:
    require_animals(animal)
    limits = (drift_settled_bl_s, drift_weak_bl_s, drift_stream_bl_s)
    return min(length * sustained_bl_s(kind, *limits) for kind, length in zip(animal, length_then_cm, strict=True))


@check(
    "Turnover",
    stage="filter",
    glass="flow",
    judges="turnover_per_h",
    mends=("filters.*.rated_lph",),
)
def turnover_fits(
    turnover_per_h: float,
    turnover_low_per_h: float,
    turnover_high_per_h: float,
    total_flow_lph: float,
    drift_cm_s: float,
    drift_borne_cm_s: float,
    turnover_least_frac: float,
    turnover_dead_per_h: float,
    held_months: float | None,
) -> Verdict:
    reason = say(
        "Filters and return really move {flow}: {turns}. These animals ask for {low} to {high}.",
        flow=of(total_flow_lph, "total_flow_lph"),
        turns=of(turnover_per_h, "turnover_per_h"),
        low=of(turnover_low_per_h, "turnover_low_per_h"),
        high=of(turnover_high_per_h, "turnover_high_per_h"),
    )
    verdict = within_band(turnover_per_h, turnover_low_per_h, turnover_high_per_h, "turnover", reason)
    if total_flow_lph == 0:
        text = "Nothing moves this water: ammonia, oxygen and warmth are judged apart, and the surface decides how many fit."
        return Verdict("tight", verdict.margin, say("no filter"), say(text), verdict.gauge)
    if turnover_per_h > turnover_high_per_h and drift_cm_s <= drift_borne_cm_s:
        # More than is usual harms nobody while the weakest swimmer holds against it.
        return tight_past(verdict, "they hold against it")
    # Oxygen and waste are judged apart: too little is a fault where corners stand still.
    still = min(turnover_least_frac * turnover_low_per_h, turnover_dead_per_h)
    return holds_for_you(by_practice(verdict, turnover_low_per_h, turnover_low_per_h - still), held_months)


DRY_TEXTS = {
    "lip": "{kind}: the water stands {gap} under the rim, and it reaches {reach}: it moves nothing, and its media take up nothing.",
    "intake": "{kind}: its intake stands {intake} above the bottom, the water {water}: it draws air, moves nothing, and its media "
    "take up nothing.",
}


@check(
    "Every filter stands in the water",
    stage="filter",
    glass="flow",
    mends=("tank.freeboard_cm", "tank.part_fill_cm"),
)
def filters_draw(
    stands_dry: tuple[str, ...],
    filter_type: tuple[FilterKind, ...],
    draws_at_cm: tuple[float, ...],
    water_height_cm: float,
    inside_height_cm: float,
    hang_on_reach_cm: float,
) -> Verdict:
    if not stands_dry:
        raise NamedCase("not_needed")
    dry = next((i for i, what in enumerate(stands_dry) if what), None)
    if dry is None:
        return Verdict("holds", 1.0, say("all under water"), say("Every intake and lip is where the water is."))
    reason = say(
        DRY_TEXTS[stands_dry[dry]],
        kind=filter_type[dry].label,
        gap=Term(inside_height_cm - water_height_cm, "length"),
        reach=Term(hang_on_reach_cm, "length"),
        intake=Term(draws_at_cm[dry], "length"),
        water=of(water_height_cm, "water_height_cm"),
    )
    return Verdict("short", -1.0, say("stands dry"), reason)


@check("Drift they can hold against", stage="filter", judges="drift_cm_s", mends=("filters.*.rated_lph",))
def drift_fits(drift_cm_s: float, drift_borne_cm_s: float) -> Verdict:
    reason = say(
        "On the mean the water drifts at {drift}; the weakest swimmer aboard holds against {limit}.",
        drift=of(drift_cm_s, "drift_cm_s"),
        limit=of(drift_borne_cm_s, "drift_borne_cm_s"),
    )
    return at_most(drift_cm_s, drift_borne_cm_s, "speed", reason)
