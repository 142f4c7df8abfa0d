"""The water itself: salinity, the carbonate reserve, the shock of a change."""

import math

from loquen.core.data import library
from loquen.core.data.library import Species
from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.quantity import Term, of, say
from loquen.core.physics import chemistry, nitrogen
from loquen.core.system.animals.food import require_animals
from loquen.core.system.changes.regime import NO_CAP

LIFETIME_D = 36_525.0


@figure(
    "Salinity of the tank",
    formula="{salinity_by}: {salinity_ppt} as entered, or S at which ρ(S, {water_c}) ÷ ρ(0, {hydrometer_c}) = {gravity_sg}",
    source="teos10",
)
def tank_salinity_ppt(
    salinity_by: str, salinity_ppt: float, gravity_sg: float, hydrometer_c: float, water_c: float
) -> float:
    if salinity_by == "ppt":
        return salinity_ppt
    return chemistry.salinity_from_sg_ppt(gravity_sg, water_c, hydrometer_c)


# The carbonate reserve --------------------------------------------------------------------------


@figure(
    "Carbonate hardness used a day",
    formula="({load_full_mg_d} × (7.14 ÷ 17.848 − {alkalinity_made_dkh_per_n}) − plants {plants_mg_d} × "
    "{alkalinity_made_dkh_per_n}) ÷ {real_volume_l}, not below 0",
    source="wolfgladrow2007",
)
def used_dkh_d(
    load_full_mg_d: float, alkalinity_made_dkh_per_n: float, plants_mg_d: float, real_volume_l: float
) -> float:
    made, taken = load_full_mg_d / real_volume_l, min(plants_mg_d, load_full_mg_d) / real_volume_l
    spent = float(nitrogen.alkalinity_used_dkh(made)) - made * alkalinity_made_dkh_per_n
    return max(0.0, spent - taken * alkalinity_made_dkh_per_n)


@figure(
    "Carbonate hardness just before a change",
    formula="{new_kh_dkh} − {used_dkh_d} × {standing_peak_d}, not below 0",
    source="balance",
)
def settled_kh_dkh(new_kh_dkh: float, used_dkh_d: float, standing_peak_d: float) -> float:
    return max(0.0, new_kh_dkh - used_dkh_d * standing_peak_d)


@figure(
    "Days that carbonate hardness lasts without a change",
    formula="({new_kh_dkh} − {used_dkh_d} × {standing_trough_d}) ÷ {used_dkh_d}, not below 0",
    source="balance",
)
def kh_lasts_d(new_kh_dkh: float, used_dkh_d: float, standing_trough_d: float) -> float:
    if used_dkh_d * LIFETIME_D <= new_kh_dkh:
        raise NamedCase("kh_not_used" if used_dkh_d <= 0 else "kh_hardly_used")
    return max(0.0, new_kh_dkh / used_dkh_d - standing_trough_d)


@check(
    "The carbonate reserve lasts",
    stage="changes",
    glass="buffer",
    judges="settled_kh_dkh",
    mends=("water.source_kh_dkh", "changes.change_frac"),
    caution="When it is used up pH falls and the filter stops; a correction then sets poisonous ammonia free. "
    "Raise it slowly, by water changes.",
)
def reserve_lasts(
    settled_kh_dkh: float,
    kh_low_dkh: float,
    used_dkh_d: float,
    kh_lasts_d: float | None,
    bed: str,
    animal: tuple[Species, ...],
) -> Verdict:
    require_animals(animal)
    if settled_kh_dkh <= 0 and bed != "soil":
        return spent(used_dkh_d, kh_lasts_d)
    reason = say(
        "Nitrification uses {use}; just before a change {left} are left. Below {low} pH has no floor.",
        use=of(used_dkh_d, "used_dkh_d"),
        left=of(settled_kh_dkh, "settled_kh_dkh"),
        low=Term(kh_low_dkh, "carbonate"),
    )
    verdict = at_least(settled_kh_dkh, kh_low_dkh, "carbonate", reason, scale=5)
    if verdict.state == "short" and all(kind.kh_low_dkh == 0 for kind in animal):
        # Kept so on purpose, with soft-water animals on active soil: care, not a fault.
        headline = say("{by} under, as they like it", by=Term(-verdict.margin, "carbonate"))
        return Verdict("tight", verdict.margin, headline, reason, verdict.gauge)
    return verdict


def spent(used_dkh_d: float, kh_lasts_d: float | None) -> Verdict:
    """What is said where nothing of the reserve is left before a change, and nothing else holds pH."""
    text = "Nitrification uses {use}, and nothing is left before a change"
    terms = {"use": of(used_dkh_d, "used_dkh_d")}
    if kh_lasts_d is not None and kh_lasts_d > 0:
        text += "; without one it lasts {days}"
        terms["days"] = of(kh_lasts_d, "kh_lasts_d")
    text += (
        ": pH falls, the filter stops, and ammonia turns poisonous when pH comes back. Raise KH with each change, "
        "change more often, or keep active soil that holds pH."
    )
    return Verdict("short", -1.0, say("none left"), say(text, **terms))


# The shock of a change --------------------------------------------------------------------------


@figure(
    "Conductivity the tank settles at",
    formula="{tank_us_cm} as measured, else ({new_us_cm} − {salt_us_cm}) × ({evaporation_l_d} × 7 + {change_l_wk}) ÷ "
    "{change_l_wk} when evaporation is topped up with unsalted change water ({topped_up}), + {salt_us_cm}",
    source="balance",
)
def settled_us_cm(
    tank_us_cm: float | None,
    new_us_cm: float,
    salt_us_cm: float,
    evaporation_l_d: float,
    change_l_wk: float,
    topped_up: str,
) -> float:
    if tank_us_cm is not None:
        return tank_us_cm
    if topped_up == "pure":
        return new_us_cm
    return salt_us_cm + float(chemistry.settled_solids(new_us_cm - salt_us_cm, evaporation_l_d, change_l_wk / 7))


@figure(
    "Step in temperature at a change",
    formula="{swapped_frac} × |{new_c} − {water_c}|",
    source="balance",
)
def step_k(swapped_frac: float, new_c: float, water_c: float) -> float:
    return swapped_frac * abs(new_c - water_c)


@figure(
    "Step in dissolved solids at a change",
    formula="{swapped_frac} × |{new_us_cm} − {settled_us_cm}| ÷ {settled_us_cm}",
    source="balance",
)
def step_solids_frac(swapped_frac: float, new_us_cm: float, settled_us_cm: float) -> float:
    return swapped_frac * abs(new_us_cm - settled_us_cm) / settled_us_cm


@figure(
    "Step in carbonate hardness at a change",
    formula="{swapped_frac} × |{new_kh_dkh} − {settled_kh_dkh}|",
    source="balance",
)
def step_dkh(swapped_frac: float, new_kh_dkh: float, settled_kh_dkh: float) -> float:
    return swapped_frac * abs(new_kh_dkh - settled_kh_dkh)


@step()
def shock_classes(animal: tuple[Species, ...]) -> tuple[library.ShockClass, ...]:
    require_animals(animal)
    return tuple(library.shock_classes()[kind.shock_class] for kind in animal)


@figure("Step in temperature they bear", formula="least of {shock_classes}", source="practice")
def borne_k(shock_classes: tuple[library.ShockClass, ...]) -> float:
    return min(row.temp_k for row in shock_classes)


@figure(
    "Step in dissolved solids they bear",
    formula="least of {shock_classes}, downwards when {new_us_cm} is under {settled_us_cm}",
    source="practice",
)
def borne_solids_frac(
    shock_classes: tuple[library.ShockClass, ...], new_us_cm: float, settled_us_cm: float
) -> float:
    down = new_us_cm < settled_us_cm
    return min(row.down_frac if down else row.conductivity_frac for row in shock_classes)


@figure("Step in carbonate hardness they bear", formula="least of {shock_classes}", source="practice")
def borne_dkh(shock_classes: tuple[library.ShockClass, ...]) -> float:
    return min(row.kh_dkh for row in shock_classes)


@step()
def shock_cap_frac(
    animal: tuple[Species, ...], new_c: float, water_c: float, new_us_cm: float, tank_us_cm: float | None
) -> float:
    """The largest exchange whose step in temperature and dissolved solids is borne; NO_CAP where any is."""
    if not animal:
        return NO_CAP
    rows = [library.shock_classes()[kind.shock_class] for kind in animal]
    tank = new_us_cm if tank_us_cm is None else tank_us_cm
    solids = min(row.down_frac if new_us_cm < tank else row.conductivity_frac for row in rows)
    whole = max(abs(new_c - water_c) / min(row.temp_k for row in rows), abs(new_us_cm - tank) / tank / solids)
    return 1 / whole if whole > 1 / NO_CAP else NO_CAP


@figure(
    "Largest step as a share of what they bear",
    formula="largest of {step_k} ÷ {borne_k}, {step_solids_frac} ÷ {borne_solids_frac}, {step_dkh} ÷ {borne_dkh}",
    source="practice",
)
def shock_frac(
    step_k: float,
    borne_k: float,
    step_solids_frac: float,
    borne_solids_frac: float,
    step_dkh: float,
    borne_dkh: float,
) -> float:
    return max(step_k / borne_k, step_solids_frac / borne_solids_frac, step_dkh / borne_dkh)


@check(
    "No change shocks them",
    stage="changes",
    judges="shock_frac",
    mends=("changes.change_frac", "water.source_c", "water.source_us_cm"),
)
def no_shock(
    shock_frac: float,
    step_k: float,
    step_solids_frac: float,
    step_dkh: float,
    shock_classes: tuple[library.ShockClass, ...],
) -> Verdict:
    delicate = min(shock_classes, key=lambda row: row.conductivity_frac)
    text = (
        "One change moves temperature by {warm}, dissolved solids by {solids} and carbonate hardness by {kh}; "
        "the most delicate aboard are {kind}."
    )
    if shock_frac > 1:
        text += " Split into {parts} smaller ones, a day apart, no step is too large."
    reason = say(
        text,
        parts=Term(math.ceil(shock_frac), "count"),
        warm=of(step_k, "step_k"),
        solids=of(step_solids_frac, "step_solids_frac"),
        kh=of(step_dkh, "step_dkh"),
        kind=delicate.label,
    )
    return at_most(shock_frac, 1.0, "share", reason)


@figure("Water of one change", formula="{passed_frac} × {real_volume_l}", source="definition")
def change_l(passed_frac: float, real_volume_l: float) -> float:
    return passed_frac * real_volume_l
