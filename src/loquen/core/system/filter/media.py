"""Filtration: what the filters really move, and the ammonia level at which they keep up."""

from dataclasses import dataclass

import numpy as np

from loquen.core.data import library
from loquen.core.data.library import Species
from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_most, within_band
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.quantity import Sentence, Term, of, say
from loquen.core.physics import chemistry, nitrogen
from loquen.core.system.animals.food import require_animals
from loquen.core.system.roots import root

MOST_AMMONIA_MG_L = 50.0


@step("filters")
def filter_type(filter_kind: str) -> library.FilterKind:
    return library.filter_kinds()[filter_kind]


@step("filters")
def media_row(media: str) -> library.Media:
    return library.media()[media]


@figure(
    "Real flow",
    formula="{rated_lph} × share for {filter_type}, or {measured_lph} as measured",
    source="practice",
    row="filters",
)
def real_flow_lph(rated_lph: float, filter_type: library.FilterKind, measured_lph: float | None) -> float:
    return rated_lph * filter_type.flow_share if measured_lph is None else measured_lph


@figure(
    "Media that counts",
    formula="{media_l}, at most {display_m2} × {undergravel_counted_cm} × 10 over an undergravel plate ({filter_type})",
    source="practice",
    row="filters",
)
def media_counted_l(
    media_l: float, display_m2: float, undergravel_counted_cm: float, filter_type: library.FilterKind
) -> float:
    if filter_type.key == "undergravel":
        return min(media_l, display_m2 * undergravel_counted_cm * 10)
    return media_l


@figure(
    "Media area at work",
    formula="{media_counted_l} × area × share used of {media_row} × {maturity_frac}",
    source="timmons",
    row="filters",
)
def media_area_m2(media_counted_l: float, media_row: library.Media, maturity_frac: float) -> float:
    return media_counted_l * media_row.area_m2_l * media_row.share_used * maturity_frac


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
def turnover_bands(animal: tuple[Species, ...]) -> tuple[library.Turnover, ...]:
    require_animals(animal)
    return tuple(library.turnovers()[kind.turnover] for kind in animal)


@figure("Turnover at least", formula="lowest of the highest-needing animal: {turnover_bands}", source="practice")
def turnover_low_per_h(turnover_bands: tuple[library.Turnover, ...]) -> float:
    return max(band.low_per_h for band in turnover_bands)


@figure(
    "Turnover at most",
    formula="highest that the most delicate bears: {turnover_bands}, not under {turnover_low_per_h}",
    source="practice",
)
def turnover_high_per_h(turnover_bands: tuple[library.Turnover, ...], turnover_low_per_h: float) -> float:
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


@figure(
    "The tank's own surfaces",
    formula="({perimeter_cm} × {water_height_cm} ÷ 10000 + {footprint_m2}) × {tank_count} × {wetted_share}",
    source="practice",
)
def tank_area_m2(
    perimeter_cm: float, water_height_cm: float, footprint_m2: float, tank_count: int, wetted_share: float
) -> float:
    return (perimeter_cm * water_height_cm / 1e4 + footprint_m2) * tank_count * wetted_share


@dataclass(frozen=True, slots=True)
class Beds:
    """Media beds, each by what flows through it and the area at work in it."""

    flows_lph: tuple[float, ...]
    areas_m2: tuple[float, ...]

    @property
    def label(self) -> str:
        pairs = zip(self.flows_lph, self.areas_m2, strict=True)
        return "; ".join(f"{area:.2f} m² at {flow:.0f} L/h" for flow, area in pairs if area > 0)


@dataclass(frozen=True, slots=True)
class Nitrifiers:
    """How fast the film on media and surfaces turns ammonia over."""

    rate_g_m2_d: float
    half_mg_l: float
    warmth: float

    @property
    def label(self) -> str:
        return f"{self.rate_g_m2_d:.2g} g/m²/d at 25 °C in plenty, half at {self.half_mg_l:.2g} mg/L N"

    def most_mg_d(self, area_m2: float, water_c: float) -> float:
        """What an area takes when ammonia does not limit it."""
        return float(nitrogen.full_rate_g_m2_d(water_c, self.rate_g_m2_d, self.warmth)) * area_m2 * 1000

    def taken_mg_d(self, level_mg_l: float, area_m2: float, water_c: float) -> float:
        """What an area takes that the water of a level passes freely."""
        rate = nitrogen.nitrification_rate_g_m2_d(
            level_mg_l, water_c, self.half_mg_l, self.rate_g_m2_d, self.warmth
        )
        return float(rate) * area_m2 * 1000

    def removed_mg_d(self, level_mg_l: float, beds: Beds, tank_area_m2: float, water_c: float) -> float:
        """What media beds, each by its flow, and tank surfaces take together at a level."""
        flows, areas = np.asarray(beds.flows_lph), np.asarray(beds.areas_m2)
        driven = nitrogen.ammonia_removal_mg_d(
            level_mg_l, flows, areas, water_c, self.half_mg_l, self.rate_g_m2_d, self.warmth
        )
        return self.taken_mg_d(level_mg_l, tank_area_m2, water_c) + float(driven.sum())


@step()
def nitrifiers(nitrify_rate_g_m2_d: float, nitrify_half_mg_l: float, nitrify_warmth: float) -> Nitrifiers:
    return Nitrifiers(nitrify_rate_g_m2_d, nitrify_half_mg_l, nitrify_warmth)


@step()
def beds(
    real_flow_lph: tuple[float, ...],
    media_area_m2: tuple[float, ...],
    return_lph: float,
    sump_media_m2: float,
) -> Beds:
    """Every bed of media with what flows through it: the filters', and the sump's."""
    return Beds((*real_flow_lph, return_lph), (*media_area_m2, sump_media_m2))


@figure(
    "Most the media can turn over",
    formula="rate × warmth^({water_c} − 25) of {nitrifiers} × (Σ area of {beds} + {tank_area_m2}) × 1000",
    source="monod",
)
def capacity_mg_d(nitrifiers: Nitrifiers, water_c: float, beds: Beds, tank_area_m2: float) -> float:
    working = sum(area for area, flow in zip(beds.areas_m2, beds.flows_lph, strict=True) if flow > 0)
    return nitrifiers.most_mg_d(working + tank_area_m2, water_c)


@figure(
    "Ammonia at full load",
    formula="level N at which Σ 24·Q·N·(1 − e^(−1000·k·A ÷ 24·Q)) over {beds}, "
    "plus {tank_area_m2} of surface, takes {load_full_mg_d} at {water_c}: {nitrifiers}; at most {capacity_mg_d}",
    source="monod",
)
def settled_ammonia_mg_l(
    load_full_mg_d: float,
    capacity_mg_d: float,
    nitrifiers: Nitrifiers,
    beds: Beds,
    tank_area_m2: float,
    water_c: float,
) -> float:
    def excess(level: float) -> float:
        return nitrifiers.removed_mg_d(level, beds, tank_area_m2, water_c) - load_full_mg_d

    if load_full_mg_d == 0:
        return 0.0
    if load_full_mg_d >= capacity_mg_d or excess(MOST_AMMONIA_MG_L) < 0:
        raise NamedCase("media_can_not_carry", load=load_full_mg_d, most=capacity_mg_d)
    return root(excess, 0.0, MOST_AMMONIA_MG_L)


@figure(
    "Highest pH to reckon with",
    formula="the higher of {tank_ph} and the aerated pH of {new_kh_dkh} at {water_c}, air at {room_co2_ppm}",
    source="plummer1982",
    kind="ph",
)
def reckoned_ph(tank_ph: float, new_kh_dkh: float, water_c: float, room_co2_ppm: float) -> float:
    return max(tank_ph, chemistry.aerated_ph(max(new_kh_dkh, 0.02), water_c, room_co2_ppm))


@figure(
    "Poisonous share of ammonia",
    formula="1 ÷ (1 + 10^(pKa − {reckoned_ph})) at {water_c}, {tank_salinity_ppt}",
    source="emerson1975",
)
def unionised_frac(reckoned_ph: float, water_c: float, tank_salinity_ppt: float) -> float:
    return float(chemistry.ammonia_fraction(reckoned_ph, water_c, tank_salinity_ppt))


@figure(
    "Un-ionised ammonia at full load",
    formula="{settled_ammonia_mg_l} × {unionised_frac}",
    source="emerson1975",
)
def settled_unionised_mg_l(settled_ammonia_mg_l: float, unionised_frac: float) -> float:
    return settled_ammonia_mg_l * unionised_frac


@figure(
    "Ammonia they may live in",
    formula="the lower of {ammonia_limit_mg_l} and {unionised_limit_mg_l} ÷ {unionised_frac}",
    source="practice",
)
def allowed_ammonia_mg_l(ammonia_limit_mg_l: float, unionised_limit_mg_l: float, unionised_frac: float) -> float:
    return min(ammonia_limit_mg_l, unionised_limit_mg_l / unionised_frac)


@figure(
    "Waste the media take at that level",
    formula="Σ over {beds} and {tank_area_m2} at {allowed_ammonia_mg_l}, {water_c}: {nitrifiers}",
    source="monod",
)
def media_allow_mg_d(
    allowed_ammonia_mg_l: float, nitrifiers: Nitrifiers, beds: Beds, tank_area_m2: float, water_c: float
) -> float:
    return nitrifiers.removed_mg_d(allowed_ammonia_mg_l, beds, tank_area_m2, water_c)


@check(
    "Turnover",
    stage="filter",
    glass="flow",
    judges="turnover_per_h",
    mends=("filters.*.rated_lph", "filters.*.measured_lph"),
)
def turnover_fits(
    turnover_per_h: float, turnover_low_per_h: float, turnover_high_per_h: float, total_flow_lph: float
) -> Verdict:
    reason = say(
        "Filters and return really move {flow}: {turns}. These animals ask for {low} to {high}.",
        flow=of(total_flow_lph, "total_flow_lph"),
        turns=of(turnover_per_h, "turnover_per_h"),
        low=of(turnover_low_per_h, "turnover_low_per_h"),
        high=of(turnover_high_per_h, "turnover_high_per_h"),
    )
    return within_band(turnover_per_h, turnover_low_per_h, turnover_high_per_h, "turnover", reason)


@check("Drift they can hold against", stage="filter", judges="drift_cm_s", mends=("filters.*.rated_lph",))
def drift_fits(drift_cm_s: float, drift_borne_cm_s: float) -> Verdict:
    reason = say(
        "On the mean the water drifts at {drift}; the weakest swimmer aboard holds against {limit}.",
        drift=of(drift_cm_s, "drift_cm_s"),
        limit=of(drift_borne_cm_s, "drift_borne_cm_s"),
    )
    return at_most(drift_cm_s, drift_borne_cm_s, "speed", reason)


@check(
    "The media carry the waste",
    stage="filter",
    glass="waste",
    judges="settled_ammonia_mg_l",
    mends=("filters.*.media_l", "filters.*.rated_lph", "animals.*.number"),
    caution="A filter matures over weeks. Test ammonia and nitrite before the animals depend on it.",
)
def media_carry(
    settled_ammonia_mg_l: float,
    settled_unionised_mg_l: float,
    allowed_ammonia_mg_l: float,
    reckoned_ph: float,
    animal_count: float,
) -> Verdict:
    if animal_count == 0:
        raise NamedCase("no_animals")
    reason = say(
        "At full load ammonia settles at {level}, {free} of it un-ionised at pH {ph}. They may live in {limit}.",
        level=of(settled_ammonia_mg_l, "settled_ammonia_mg_l"),
        free=of(settled_unionised_mg_l, "settled_unionised_mg_l"),
        ph=Term(reckoned_ph, "ph", "reckoned_ph"),
        limit=of(allowed_ammonia_mg_l, "allowed_ammonia_mg_l"),
    )
    # Half the limit is the level called fine, so tight begins there.
    return at_most(settled_ammonia_mg_l, allowed_ammonia_mg_l, "ammonia", reason, scale=5 * allowed_ammonia_mg_l)


@step()
def filter_result(
    rated_total_lph: float,
    total_flow_lph: float,
    turnover_per_h: float,
    media_allow_mg_d: float,
    load_full_mg_d: float,
) -> Sentence:
    moved = "Rated for {rated} together, filters and return really move {flow}: {turns}. "
    if rated_total_lph == 0:
        moved = "The return alone moves {flow}: {turns}. "
    return say(
        moved + "The media take {allowed} at a safe ammonia level; these animals make {load}.",
        rated=of(rated_total_lph, "rated_total_lph"),
        flow=of(total_flow_lph, "total_flow_lph"),
        turns=of(turnover_per_h, "turnover_per_h"),
        allowed=of(media_allow_mg_d, "media_allow_mg_d"),
        load=of(load_full_mg_d, "load_full_mg_d"),
    )
