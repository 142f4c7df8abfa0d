"""Arrivals: from the bag into the tank, and the weeks in a tub before."""

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_most
from loquen.core.graph.nodes import Verdict, check, figure
from loquen.core.model.inputs.quantity import Term, of, say
from loquen.core.physics import chemistry, dilution

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
    "Conductivity of its water",
    formula="{bag_us_cm} as measured; else a shop's usual {usual_bag_us_cm}, with the salt of {bag_salinity_ppt} where that was read; "
    "into water over {salted_ppt} ({tank_salinity_ppt}) one of the two has to be measured",
    source="practice",
    row="bags",
)
def bag_water_us_cm(
    bag_us_cm: float | None,
    bag_salinity_ppt: float | None,
    usual_bag_us_cm: float,
    tank_salinity_ppt: float,
    salted_ppt: float,
) -> float:
    if bag_us_cm is not None:
        return bag_us_cm
    if bag_salinity_ppt is None and tank_salinity_ppt > salted_ppt:
        raise NamedCase("bag_not_measured")
    return usual_bag_us_cm + chemistry.salt_conductivity_us_cm(bag_salinity_ppt or 0.0)


@figure(
    "Gap in dissolved solids",
    formula="|{settled_us_cm} − {bag_water_us_cm}| ÷ {bag_water_us_cm}",
    source="definition",
    row="bags",
)
def bag_gap_frac(settled_us_cm: float, bag_water_us_cm: float) -> float:
    return abs(settled_us_cm - bag_water_us_cm) / bag_water_us_cm


@figure(
    "Dissolved solids move by the hour at this drip",
    formula="|{settled_us_cm} − {bag_water_us_cm}| × {dripped_frac} ÷ ({drip_min} ÷ 60)",
    source="balance",
    row="bags",
    kind="conductivity",
)
def drip_rate(settled_us_cm: float, bag_water_us_cm: float, dripped_frac: float, drip_min: float) -> float:
    return abs(settled_us_cm - bag_water_us_cm) * dripped_frac / (drip_min / 60)


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
