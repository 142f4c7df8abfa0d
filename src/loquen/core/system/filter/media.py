"""The media of the filters: how much of them there is, how old, and whether they stand wet."""

from dataclasses import dataclass

from loquen.core.graph.nodes import figure, step
from loquen.core.library.rows.machines import FilterKind, Media
from loquen.core.library.whole import Library


@step("filters")
def filter_type(filter_kind: str, library: Library) -> FilterKind:
    return library.filter_kinds[filter_kind]


@step("filters")
def media_row(media: str, library: Library) -> Media:
    return library.media[media]


@step("filters")
def stands_dry(
    filter_type: FilterKind,
    hang_on_reach_cm: float,
    inside_height_cm: float,
    water_height_cm: float,
    draws_at_cm: float,
) -> str:
    """What of a filter stands above the water, so that it draws air: its lip, its intake, or nothing."""
    if filter_type.key == "hang_on" and inside_height_cm - water_height_cm > hang_on_reach_cm:
        return "lip"
    return "intake" if draws_at_cm >= water_height_cm else ""


@figure(
    "Media that counts",
    formula="{media_l}, at most {display_m2} × {undergravel_counted_cm} × 10 over an undergravel plate ({filter_type})",
    source="practice",
    row="filters",
)
def media_counted_l(
    media_l: float, display_m2: float, undergravel_counted_cm: float, filter_type: FilterKind
) -> float:
    if filter_type.key == "undergravel":
        return min(media_l, display_m2 * undergravel_counted_cm * 10)
    return media_l


@figure(
    "Maturity of its surfaces today",
    formula="{seeded_frac} + (1 − {seeded_frac}) × {age_weeks} ÷ {mature_weeks}, at most 1; only what is seeded before it runs",
    source="practice",
)
def system_mature_frac(seeded_frac: float, age_weeks: float | None, mature_weeks: float) -> float:
    return seeded_frac + (1 - seeded_frac) * min(1.0, (age_weeks or 0.0) / mature_weeks)


@figure(
    "Media area once mature",
    formula="{media_counted_l} × area × share used of {media_row}",
    source="timmons",
    row="filters",
)
def media_whole_m2(media_counted_l: float, media_row: Media) -> float:
    return media_counted_l * media_row.area_m2_l * media_row.share_used


@figure(
    "Media area at work",
    formula="{media_whole_m2} × {maturity_frac} as entered, else × {system_mature_frac}",
    source="timmons",
    row="filters",
)
def media_area_m2(media_whole_m2: float, maturity_frac: float | None, system_mature_frac: float) -> float:
    return media_whole_m2 * (system_mature_frac if maturity_frac is None else maturity_frac)


@figure(
    "The tank's own surfaces, once mature",
    formula="({perimeter_cm} × {water_height_cm} ÷ 10000 + {footprint_m2}) × {tank_count} × {wetted_share}",
    source="practice",
)
def tank_area_m2(
    perimeter_cm: float, water_height_cm: float, footprint_m2: float, tank_count: int, wetted_share: float
) -> float:
    return (perimeter_cm * water_height_cm / 1e4 + footprint_m2) * tank_count * wetted_share


@dataclass(frozen=True, slots=True)
class Beds:
    """Media beds, each by what flows through it and its area once mature, and the surfaces that water passes freely.

    A bed has its own maturity where one was entered; all else matures with the system.
    """

    flows_lph: tuple[float, ...]
    areas_m2: tuple[float, ...]
    own_frac: tuple[float | None, ...]
    surfaces_m2: float

    @property
    def label(self) -> str:
        pairs = zip(self.flows_lph, self.areas_m2, strict=True)
        beds = [f"{area:.2f} m² at {flow:.0f} L/h" for flow, area in pairs if area > 0]
        return "; ".join([*beds, f"{self.surfaces_m2:.2f} m² of surface"])

    def at(self, mature_frac: float) -> "Beds":
        """The same beds with the area that works at a maturity of the system."""
        own = [mature_frac if frac is None else frac for frac in self.own_frac]
        areas = tuple(area * frac for area, frac in zip(self.areas_m2, own, strict=True))
        return Beds(self.flows_lph, areas, (1.0,) * len(areas), self.surfaces_m2 * mature_frac)

    def scaled(self, frac: float) -> "Beds":
        """The same beds with a part of their area at work."""
        areas = tuple(area * frac for area in self.areas_m2)
        return Beds(self.flows_lph, areas, self.own_frac, self.surfaces_m2 * frac)

    @property
    def driven_m2(self) -> float:
        """All of it that water reaches."""
        pairs = zip(self.flows_lph, self.areas_m2, strict=True)
        return sum(area for flow, area in pairs if flow > 0) + self.surfaces_m2


@step()
def beds(
    real_flow_lph: tuple[float, ...],
    media_whole_m2: tuple[float, ...],
    maturity_frac: tuple[float | None, ...],
    return_lph: float,
    sump_media_m2: float,
    tank_area_m2: float,
) -> Beds:
    """Every bed of media with what flows through it, the filters' and the sump's, and the tank's own surfaces."""
    return Beds(
        (*real_flow_lph, return_lph), (*media_whole_m2, sump_media_m2), (*maturity_frac, None), tank_area_m2
    )
