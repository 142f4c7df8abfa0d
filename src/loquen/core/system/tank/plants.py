"""The plants: what they take up, what they breathe at night, and whether they live in this water with these animals."""

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.keeping import Plant
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Term, say
from loquen.core.system.animals.company import Leeways
from loquen.core.system.animals.findings import Finding, verdict_over

BREATHES_IN_WATER = ("slow", "stems")
SHADE_MORE = {"high": 0.0, "middling": 0.4, "low": 0.7}
"""Part of the way from the shade that light-hungry plants bear to a closed surface, that others bear."""


@step("planting")
def plant_row(plant: str, library: Library) -> Plant:
    return library.plants[plant]


@figure(
    "Nitrogen they take",
    formula="uptake of {plant_row} × {display_m2} × {plant_cover_frac} × 1000",
    source="reineck",
    row="planting",
    kind="nitrogen_load",
)
def plant_mg_d(plant_row: Plant, display_m2: float, plant_cover_frac: float, library: Library) -> float:
    return library.plant_covers[plant_row.uptake].n_g_m2_d * display_m2 * plant_cover_frac * 1000


@figure("Plants take", formula="Σ {plant_mg_d}", source="reineck")
def plants_mg_d(plant_mg_d: tuple[float, ...]) -> float:
    return sum(plant_mg_d)


@figure(
    "Oxygen plants use in the dark",
    formula="{plant_night_mg_h_m2} × {display_m2} × Σ {plant_cover_frac} of those that stand in the water, {plant_row}",
    source="practice",
)
def plant_oxygen_mg_h(
    plant_night_mg_h_m2: float, display_m2: float, plant_cover_frac: tuple[float, ...], plant_row: tuple[Plant, ...]
) -> float:
    covers = zip(plant_cover_frac, plant_row, strict=True)
    return plant_night_mg_h_m2 * display_m2 * sum(c for c, row in covers if row.uptake in BREATHES_IN_WATER)


@step()
def rooted(plant_row: tuple[Plant, ...]) -> bool:
    """Whether anything roots in the bed and keeps it open."""
    return any(row.rooted for row in plant_row)


@step()
def hides(rock_kg: float, wood_l: float, plant_row: tuple[Plant, ...]) -> bool:
    """Whether anything in the tank breaks a line of sight."""
    return rock_kg > 0 or wood_l > 0 or bool(plant_row)


@figure(
    "Surface that floating plants shade",
    formula="Σ {plant_cover_frac} of those that float, {plant_row}, at most 1",
    source="definition",
)
def shaded_frac(plant_cover_frac: tuple[float, ...], plant_row: tuple[Plant, ...]) -> float:
    covers = zip(plant_cover_frac, plant_row, strict=True)
    return min(1.0, sum(cover for cover, row in covers if row.uptake == "floating"))


@step()
def spreads(plant_row: tuple[Plant, ...]) -> tuple[str, ...]:
    """Floating plants so small that they close any surface they are left on."""
    return tuple(dict.fromkeys(row.common for row in plant_row if row.uptake == "floating" and row.height_cm <= 1))


def eaters(row: Plant, animal: tuple[Species, ...]) -> list[str]:
    return [] if row.withstands_grazers else list(dict.fromkeys(kind.common for kind in animal if kind.eats_plants))


def uprooters(row: Plant, animal: tuple[Species, ...]) -> list[str]:
    if row.withstands_diggers or not row.rooted:
        return []
    return list(dict.fromkeys(kind.common for kind in animal if kind.digger))


@step("planting")
def plant_findings(
    plant_row: Plant,
    coldest_c: float,
    hottest_c: float,
    tank_ph: float,
    tank_gh_dgh: float,
    settled_gh_dgh: float | None,
    tank_salinity_ppt: float,
    settled_ammonia_mg_l: float | None,
    shaded_frac: float,
    shade_frac: float,
    spreads: tuple[str, ...],
    leeways: Leeways,
    animal: tuple[Species, ...],
) -> tuple[Finding, ...]:
    """What of this tank one kind of plant does not stand."""
    row, who, found = plant_row, (plant_row.common,), []

    def told(what: str, text: str, **terms: Term | str) -> None:
        found.append(Finding(who, what, "tight", say(text, **terms)))

    if hottest_c > row.temp_high_c + leeways.temp_k:
        terms = {"hot": Term(hottest_c, "temperature"), "high": Term(row.temp_high_c, "temperature")}
        told("heat", "{hot} on the hottest day; it grows up to {high}", **terms)
    if coldest_c < row.temp_low_c - leeways.temp_k:
        terms = {"cold": Term(coldest_c, "temperature"), "low": Term(row.temp_low_c, "temperature")}
        told("cold", "{cold} at the coldest; it grows from {low} on", **terms)
    if not row.ph_low - leeways.ph <= tank_ph <= row.ph_high + leeways.ph:
        terms = {"ph": Term(tank_ph, "ph"), "low": Term(row.ph_low, "ph"), "high": Term(row.ph_high, "ph")}
        told("pH", "{ph}; it grows from {low} to {high}", **terms)
    hardest = tank_gh_dgh if settled_gh_dgh is None else max(tank_gh_dgh, settled_gh_dgh)
    if hardest > row.gh_high_dgh + leeways.hardness_deg:
        terms = {"gh": Term(hardest, "hardness"), "high": Term(row.gh_high_dgh, "hardness")}
        told("hardness", "{gh}; it grows up to {high}", **terms)
    if tank_salinity_ppt > row.salinity_high_ppt:
        terms = {"salt": Term(tank_salinity_ppt, "salinity"), "high": Term(row.salinity_high_ppt, "salinity")}
        told("salt", "{salt}; it bears {high}, and rots in more", **terms)
    if settled_ammonia_mg_l is not None and settled_ammonia_mg_l > row.ammonia_high_mg_l:
        terms = {"now": Term(settled_ammonia_mg_l, "ammonia"), "high": Term(row.ammonia_high_mg_l, "ammonia")}
        told("ammonia", "{now} at full load; it bears {high}", **terms)
    if who_eats := eaters(row, animal):
        told("grazers", "{who} eat it", who=", ".join(who_eats))
    if who_digs := uprooters(row, animal):
        told("diggers", "{who} dig it up", who=", ".join(who_digs))
    borne_frac = shade_frac + SHADE_MORE[row.light] * (1 - shade_frac)
    if row.uptake in BREATHES_IN_WATER and shaded_frac > borne_frac:
        terms = {"share": Term(shaded_frac, "share"), "most": Term(borne_frac, "share")}
        told("shade", "floating plants shade {share} of the surface; it grows under up to {most}", **terms)
    elif row.uptake in BREATHES_IN_WATER and spreads:
        told(
            "shade",
            "{who} closes the surface within weeks: half of it is taken out each week",
            who=", ".join(spreads),
        )
    return tuple(found) or (Finding(who, "water", "holds", say("grows in this water, with these animals")),)


@check("The plants live here", stage="tank", mends=("heat.target_c", "water.salinity_ppt"))
def plants_live(plant_findings: tuple[tuple[Finding, ...], ...]) -> Verdict:
    if not plant_findings:
        raise NamedCase("not_needed")
    return verdict_over(
        [finding for row in plant_findings for finding in row],
        "All of them grow in this water, with these animals.",
    )
