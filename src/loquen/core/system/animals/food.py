"""The animals: size, food and waste, today and at the size planned for."""

import math

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import figure, step
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.keeping import Food
from loquen.core.library.whole import Library
from loquen.core.physics import animals as biology
from loquen.core.physics import nitrogen
from loquen.core.physics.ranges import Number

DAYS_PER_MONTH = 365.25 / 12
START_LENGTH_CM = 1.0


@step("animals")
def animal(species: str, library: Library) -> Species:
    return library.species[species]


@figure(
    "Adult length",
    formula="from the library: {animal}, or {length_cm} when {size_by} longer",
    source="taxonomy",
    row="animals",
)
def adult_length_cm(animal: Species, size_by: str, length_cm: float) -> float:
    return max(animal.adult_length_cm, length_cm) if size_by == "length" else animal.adult_length_cm


@figure(
    "Length today",
    formula="{size_by}: {adult_length_cm}, {length_cm}, or L∞ − (L∞ − 1) × e^(−K × {age_months} ÷ 12) of {animal}",
    source="bertalanffy1938",
    row="animals",
)
def length_now_cm(
    size_by: str, adult_length_cm: float, length_cm: float, age_months: float, animal: Species
) -> float:
    if size_by == "length":
        return length_cm
    if size_by == "adult":
        return adult_length_cm
    start = min(START_LENGTH_CM, adult_length_cm / 4)
    age_d = age_months * DAYS_PER_MONTH
    return float(biology.length_at_age_cm(age_d, adult_length_cm, animal.growth_per_year, start))


def masses_of(animal: Species, length_cm: Number) -> Number:
    """Mass at a length: by body shape, or from the library's adult mass where shapes do not tell it."""
    if animal.adult_mass_g is not None:
        return animal.adult_mass_g * (length_cm / animal.adult_length_cm) ** 3
    return biology.body_mass_g(length_cm, animal.shape)


def mass_of(animal: Species, length_cm: float) -> float:
    """Mass of one at a length, as `masses_of`."""
    return float(masses_of(animal, length_cm))


@step()
def leaves_in_months(
    stays: str,
    stays_months: float,
    stays_until_cm: float,
    length_now_cm: tuple[float, ...],
    adult_length_cm: tuple[float, ...],
    animal: tuple[Species, ...],
) -> float:
    """When the stay ends: never, in so many months, or when the first of them is as long as was told."""
    if stays == "months":
        return stays_months
    if stays == "length":
        rows = zip(length_now_cm, adult_length_cm, animal, strict=True)
        return min((months_until(stays_until_cm, now, adult, kind) for now, adult, kind in rows), default=math.inf)
    return math.inf


def months_until(length_cm: float, now_cm: float, adult_cm: float, animal: Species) -> float:
    """Months until one is so long; infinite where it never is."""
    if now_cm >= length_cm:
        return 0.0
    if adult_cm <= length_cm:
        return math.inf
    return 12 * math.log((adult_cm - now_cm) / (adult_cm - length_cm)) / animal.growth_per_year


@step()
def judged_months(months_ahead: float, leaves_in_months: float) -> float:
    """The age that they are judged at: what is asked about, inside their stay."""
    return min(months_ahead, leaves_in_months)


@figure(
    "Length to plan for",
    formula="{adult_length_cm} − ({adult_length_cm} − {length_now_cm}) × e^(−K × {judged_months} ÷ 12) of {animal}",
    source="bertalanffy1938",
    row="animals",
)
def length_then_cm(adult_length_cm: float, length_now_cm: float, animal: Species, judged_months: float) -> float:
    return length_in(judged_months, adult_length_cm, length_now_cm, animal)


def length_in(months: float, adult_length_cm: float, length_now_cm: float, animal: Species) -> float:
    """Its length in so many months; full grown for an infinity of them."""
    if math.isinf(months):
        return adult_length_cm
    # A start below what the relation covers grows like one at its edge.
    start = min(length_now_cm, adult_length_cm)
    return float(biology.length_at_age_cm(months * DAYS_PER_MONTH, adult_length_cm, animal.growth_per_year, start))


@figure("Mass of one today", formula="a × {length_now_cm}^b of {animal}", source="froese2014", row="animals")
def mass_now_g(animal: Species, length_now_cm: float) -> float:
    return mass_of(animal, length_now_cm)


@figure("Mass of one to plan for", formula="a × {length_then_cm}^b of {animal}", source="froese2014", row="animals")
def mass_then_g(animal: Species, length_then_cm: float) -> float:
    return mass_of(animal, length_then_cm)


@figure("Mass of the group to plan for", formula="{number} × {mass_then_g}", source="balance", row="animals")
def group_mass_g(number: int, mass_then_g: float) -> float:
    return number * mass_then_g


@step("animals")
def growing(length_now_cm: float, adult_length_cm: float, grown_at: float) -> bool:
    return length_now_cm < grown_at * adult_length_cm


@step("animals")
def growing_then(length_then_cm: float, adult_length_cm: float, grown_at: float) -> bool:
    return length_then_cm < grown_at * adult_length_cm


@step("animals")
def food_row(food: str, library: Library) -> Food:
    return library.foods[food]


@figure(
    "Part of the week's days with food",
    formula="1 − {fasting_d_wk} ÷ 7",
    source="definition",
    row="animals",
)
def fed_frac(fasting_d_wk: int) -> float:
    return 1 - fasting_d_wk / 7


def level(feed_by: str, growing: bool) -> str:
    """The feeding level that is meant: “usual” is light for grown animals; nobody feeds for growth once it is over."""
    if feed_by in ("usual", "weighed"):
        return "normal" if growing else "light"
    return "normal" if feed_by == "growing" and not growing else feed_by


@figure(
    "Dry food today",
    formula="({number} × 0.030 × {mass_now_g}^0.75 × {feed_q10}^(({water_c} − 25) ÷ 10) × {feed_scale} × level "
    "({feed_by}, growing: {growing}), or {weighed_g_d} as weighed × dry part of {food_row}) × {fed_frac}",
    source="kleiber",
    row="animals",
)
def feed_now_g_d(
    number: int,
    mass_now_g: float,
    water_c: float,
    feed_scale: float,
    feed_q10: float,
    feed_by: str,
    growing: bool,
    weighed_g_d: float,
    food_row: Food,
    fed_frac: float,
) -> float:
    if feed_by == "weighed":
        return weighed_g_d * food_row.dry_frac * fed_frac
    return (
        number
        * feed_scale
        * fed_frac
        * float(biology.feed_g_d(mass_now_g, water_c, level(feed_by, growing), warmth_10k=feed_q10))
    )


@figure(
    "Dry food to plan for",
    formula="({number} × 0.030 × {mass_then_g}^0.75 × {feed_q10}^(({water_c} − 25) ÷ 10) × {feed_scale} × level "
    "({feed_by}, growing: {growing_then}), or {weighed_g_d} × ({mass_then_g} ÷ {mass_now_g})^0.75 as weighed × dry part of "
    "{food_row}) × {fed_frac}",
    source="kleiber",
    row="animals",
)
def feed_then_g_d(
    number: int,
    mass_then_g: float,
    mass_now_g: float,
    water_c: float,
    feed_scale: float,
    feed_q10: float,
    feed_by: str,
    growing_then: bool,
    weighed_g_d: float,
    food_row: Food,
    fed_frac: float,
) -> float:
    if feed_by == "weighed":
        return float(weighed_g_d * (mass_then_g / mass_now_g) ** 0.75) * food_row.dry_frac * fed_frac
    return (
        number
        * feed_scale
        * fed_frac
        * float(biology.feed_g_d(mass_then_g, water_c, level(feed_by, growing_then), warmth_10k=feed_q10))
    )


@figure(
    "Protein in the food",
    formula="{food_protein_frac} as entered, else from the library: {animal}",
    source="practice",
    row="animals",
)
def protein_frac(animal: Species, food_protein_frac: float | None) -> float:
    return animal.protein_frac if food_protein_frac is None else food_protein_frac


@figure(
    "Each meal, as it is given",
    formula="{feed_now_g_d} ÷ {fed_frac} ÷ dry part of {food_row} ÷ {meals_d}",
    source="definition",
    row="animals",
    kind="small_mass",
)
def meal_g(feed_now_g_d: float, fed_frac: float, food_row: Food, meals_d: int) -> float:
    return feed_now_g_d / fed_frac / food_row.dry_frac / meals_d


@figure(
    "Waste siphoned off before it rots",
    formula="{siphoned_frac} as entered; {siphoned_by}: {siphoned_weekly_frac} a week or {siphoned_daily_frac} a day from bare glass, "
    "{siphoned_bed_part} of it from a bed ({bed})",
    source="timmons",
)
def siphon_frac(
    siphoned_frac: float | None,
    siphoned_by: str,
    siphoned_weekly_frac: float,
    siphoned_daily_frac: float,
    siphoned_bed_part: float,
    bed: str,
) -> float:
    if siphoned_frac is not None:
        return siphoned_frac
    if siphoned_by == "usual":
        raise NamedCase("siphoned_as_usual")
    share = siphoned_daily_frac if siphoned_by == "daily" else siphoned_weekly_frac
    return share if bed == "none" else share * siphoned_bed_part


WASTE = (
    "{feed} × 1000 × {protein_frac} × 0.16 × ((1 − {uneaten_frac}) × (1 − kept) + {uneaten_frac}) × (1 − removed), "
    "growing: {growing} (kept {kept_growing} or {kept_grown}, removed {removed_growing} or {removed_grown}, "
    "or {siphon_frac} as siphoned); times {logged_waste_frac} where the log is used"
)


@figure(
    "Waste nitrogen today",
    formula=WASTE.replace("{feed}", "{feed_now_g_d}"),
    source="timmons",
    row="animals",
)
def waste_now_mg_d(
    feed_now_g_d: float,
    protein_frac: float,
    growing: bool,
    kept_growing: float,
    kept_grown: float,
    removed_growing: float,
    removed_grown: float,
    uneaten_frac: float,
    siphon_frac: float | None,
    logged_waste_frac: float | None,
) -> float:
    kept, removed = (kept_growing, removed_growing) if growing else (kept_grown, removed_grown)
    taken = removed if siphon_frac is None else siphon_frac
    # What nobody eats keeps none of its nitrogen from the water.
    waste = float(nitrogen.ammonia_from_feed_mg_d(feed_now_g_d, protein_frac, kept * (1 - uneaten_frac), taken))
    return waste if logged_waste_frac is None else waste * logged_waste_frac


@figure(
    "Waste nitrogen to plan for",
    formula=WASTE.replace("{feed}", "{feed_then_g_d}").replace("{growing}", "{growing_then}"),
    source="timmons",
    row="animals",
)
def waste_then_mg_d(
    feed_then_g_d: float,
    protein_frac: float,
    growing_then: bool,
    kept_growing: float,
    kept_grown: float,
    removed_growing: float,
    removed_grown: float,
    uneaten_frac: float,
    siphon_frac: float | None,
    logged_waste_frac: float | None,
) -> float:
    kept, removed = (kept_growing, removed_growing) if growing_then else (kept_grown, removed_grown)
    taken = removed if siphon_frac is None else siphon_frac
    # What nobody eats keeps none of its nitrogen from the water.
    waste = float(nitrogen.ammonia_from_feed_mg_d(feed_then_g_d, protein_frac, kept * (1 - uneaten_frac), taken))
    return waste if logged_waste_frac is None else waste * logged_waste_frac


@figure("Animals", formula="Σ {number}", source="definition", kind="count")
def animal_count(number: tuple[int, ...]) -> float:
    return sum(number)


@figure("Food today", formula="Σ {feed_now_g_d}", source="kleiber")
def feed_total_g_d(feed_now_g_d: tuple[float, ...]) -> float:
    return sum(feed_now_g_d)


@figure("Food to plan for", formula="Σ {feed_then_g_d}", source="kleiber")
def feed_full_g_d(feed_then_g_d: tuple[float, ...]) -> float:
    return sum(feed_then_g_d)


@figure("Waste nitrogen today", formula="Σ {waste_now_mg_d}", source="timmons")
def load_now_mg_d(waste_now_mg_d: tuple[float, ...]) -> float:
    return sum(waste_now_mg_d)


@figure("Waste nitrogen at that size", formula="Σ {waste_then_mg_d}", source="timmons")
def load_then_mg_d(waste_then_mg_d: tuple[float, ...]) -> float:
    return sum(waste_then_mg_d)


@figure(
    "Waste nitrogen at full load",
    formula="the larger of {load_now_mg_d} and {load_then_mg_d}",
    source="timmons",
)
def load_full_mg_d(load_now_mg_d: float, load_then_mg_d: float) -> float:
    return max(load_now_mg_d, load_then_mg_d)


@figure(
    "Waste nitrogen on a day with food",
    formula="the larger of Σ {waste_now_mg_d} ÷ {fed_frac} and Σ {waste_then_mg_d} ÷ {fed_frac}",
    source="timmons",
)
def load_fed_day_mg_d(
    waste_now_mg_d: tuple[float, ...], waste_then_mg_d: tuple[float, ...], fed_frac: tuple[float, ...]
) -> float:
    return max(
        sum(waste / fed for waste, fed in zip(wastes, fed_frac, strict=True))
        for wastes in (waste_now_mg_d, waste_then_mg_d)
    )


@figure("Coldest they bear", formula="highest low limit of {animal}", source="taxonomy")
def animals_low_c(animal: tuple[Species, ...]) -> float:
    require_animals(animal)
    return max(a.temp_low_c for a in animal)


@figure("Warmest they bear", formula="lowest high limit of {animal}", source="taxonomy")
def animals_high_c(animal: tuple[Species, ...]) -> float:
    require_animals(animal)
    return min(a.temp_high_c for a in animal)


def require_animals(animals: tuple[Species, ...]) -> None:
    """Raise NamedCase "no_animals" where a figure has no meaning without any."""
    if not animals:
        raise NamedCase("no_animals")
