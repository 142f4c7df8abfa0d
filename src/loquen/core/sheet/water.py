"""The water itself: salinity, the carbonate reserve, the shock of a change, disinfectant."""

from loquen.core.data import library
from loquen.core.data.library import Species
from loquen.core.errors import Impossible
from loquen.core.model.quantity import Term, of, say
from loquen.core.physics import chemistry, nitrogen
from loquen.core.sheet.animals import require_animals
from loquen.core.sheet.judging import at_least, at_most
from loquen.core.sheet.nodes import Verdict, check, figure, step


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
    formula="{source_kh_dkh} − {used_dkh_d} × {standing_peak_d}, not below 0",
    source="balance",
)
def settled_kh_dkh(source_kh_dkh: float, used_dkh_d: float, standing_peak_d: float) -> float:
    return max(0.0, source_kh_dkh - used_dkh_d * standing_peak_d)


@figure(
    "Days that carbonate hardness lasts without a change",
    formula="({source_kh_dkh} − {used_dkh_d} × {standing_trough_d}) ÷ {used_dkh_d}, not below 0",
    source="balance",
)
def kh_lasts_d(source_kh_dkh: float, used_dkh_d: float, standing_trough_d: float) -> float:
    if used_dkh_d <= 0:
        raise Impossible("kh_not_used")
    return max(0.0, source_kh_dkh / used_dkh_d - standing_trough_d)


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
    settled_kh_dkh: float, kh_low_dkh: float, used_dkh_d: float, animal: tuple[Species, ...]
) -> Verdict:
    require_animals(animal)
    reason = say(
        "Nitrification uses {use}; just before a change {left} are left. Below {low} pH has no floor.",
        use=of(used_dkh_d, "used_dkh_d"),
        left=of(settled_kh_dkh, "settled_kh_dkh"),
        low=Term(kh_low_dkh, "carbonate"),
    )
    verdict = at_least(settled_kh_dkh, kh_low_dkh, "carbonate", reason, scale=5)
    if verdict.state == "short" and settled_kh_dkh > 0 and all(kind.kh_low_dkh == 0 for kind in animal):
        # Kept so on purpose, with soft-water animals on active soil: care, not a fault.
        return Verdict("tight", verdict.margin, verdict.headline, reason, verdict.gauge)
    return verdict


# The shock of a change --------------------------------------------------------------------------


@figure(
    "Conductivity the tank settles at",
    formula="{tank_us_cm} as measured, else {source_us_cm} × ({evaporation_l_d} × 7 + {change_l_wk}) ÷ {change_l_wk} "
    "when evaporation is topped up with change water ({topped_up})",
    source="balance",
)
def settled_us_cm(
    tank_us_cm: float | None, source_us_cm: float, evaporation_l_d: float, change_l_wk: float, topped_up: str
) -> float:
    if tank_us_cm is not None:
        return tank_us_cm
    if topped_up == "pure":
        return source_us_cm
    return float(chemistry.settled_solids(source_us_cm, evaporation_l_d, change_l_wk / 7))


@figure(
    "Step in temperature at a change",
    formula="{change_frac} × |{source_c} − {water_c}|",
    source="balance",
)
def step_k(change_frac: float, source_c: float, water_c: float) -> float:
    return change_frac * abs(source_c - water_c)


@figure(
    "Step in dissolved solids at a change",
    formula="{change_frac} × |{source_us_cm} − {settled_us_cm}| ÷ {settled_us_cm}",
    source="balance",
)
def step_solids_frac(change_frac: float, source_us_cm: float, settled_us_cm: float) -> float:
    return change_frac * abs(source_us_cm - settled_us_cm) / settled_us_cm


@figure(
    "Step in carbonate hardness at a change",
    formula="{change_frac} × |{source_kh_dkh} − {settled_kh_dkh}|",
    source="balance",
)
def step_dkh(change_frac: float, source_kh_dkh: float, settled_kh_dkh: float) -> float:
    return change_frac * abs(source_kh_dkh - settled_kh_dkh)


@step()
def shock_classes(animal: tuple[Species, ...]) -> tuple[library.ShockClass, ...]:
    require_animals(animal)
    return tuple(library.shock_classes()[kind.shock_class] for kind in animal)


@figure("Step in temperature they bear", formula="least of {shock_classes}", source="practice")
def borne_k(shock_classes: tuple[library.ShockClass, ...]) -> float:
    return min(row.temp_k for row in shock_classes)


@figure(
    "Step in dissolved solids they bear",
    formula="least of {shock_classes}, downwards when {source_us_cm} is under {settled_us_cm}",
    source="practice",
)
def borne_solids_frac(
    shock_classes: tuple[library.ShockClass, ...], source_us_cm: float, settled_us_cm: float
) -> float:
    down = source_us_cm < settled_us_cm
    return min(row.down_frac if down else row.conductivity_frac for row in shock_classes)


@figure("Step in carbonate hardness they bear", formula="least of {shock_classes}", source="practice")
def borne_dkh(shock_classes: tuple[library.ShockClass, ...]) -> float:
    return min(row.kh_dkh for row in shock_classes)


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
    reason = say(
        "One change moves temperature by {warm}, dissolved solids by {solids} and carbonate hardness by {kh}; "
        "the most delicate aboard are {kind}.",
        warm=of(step_k, "step_k"),
        solids=of(step_solids_frac, "step_solids_frac"),
        kh=of(step_dkh, "step_dkh"),
        kind=delicate.label,
    )
    return at_most(shock_frac, 1.0, "share", reason)


# Disinfectant -----------------------------------------------------------------------------------


@figure("Water of one change", formula="{change_frac} × {real_volume_l}", source="definition")
def change_l(change_frac: float, real_volume_l: float) -> float:
    return change_frac * real_volume_l


@figure(
    "Water the conditioner is dosed for",
    formula="{treatment}: {change_l} in a container, {real_volume_l} when treated in the tank",
    source="practice",
)
def dosed_l(treatment: str, change_l: float, real_volume_l: float) -> float:
    if treatment == "none":
        raise Impossible("not_treated")
    return change_l if treatment == "container" else real_volume_l


@figure(
    "Conditioner for one change",
    formula="{dosed_l} ÷ 100 × {conditioner_ml}, × {chloramine_factor} for chloramine ({disinfectant})",
    source="practice",
)
def dose_ml(dosed_l: float, conditioner_ml: float, chloramine_factor: float, disinfectant: str) -> float:
    if disinfectant == "none":
        raise Impossible("no_disinfectant")
    return dosed_l / 100 * conditioner_ml * (chloramine_factor if disinfectant == "chloramine" else 1.0)


@figure(
    "Or sodium thiosulfate by weight",
    formula="7.0 × {dosed_l} × {disinfectant_mg_l} × {thiosulfate_margin} ÷ 1000; {disinfectant}",
    source="practice",
)
def thiosulfate_g(dosed_l: float, disinfectant_mg_l: float, thiosulfate_margin: float, disinfectant: str) -> float:
    if disinfectant == "none":
        raise Impossible("no_disinfectant")
    return float(chemistry.thiosulfate_mg(dosed_l * disinfectant_mg_l, thiosulfate_margin)) / 1000


@figure(
    "Disinfectant in the tank after a change",
    formula="{disinfectant_mg_l} × {change_frac} when it is not treated ({treatment}), else 0",
    source="balance",
)
def left_chlorine_mg_l(disinfectant_mg_l: float, change_frac: float, treatment: str) -> float:
    return disinfectant_mg_l * change_frac if treatment == "none" else 0.0


@figure(
    "Ammonia that chloramine sets free at a change",
    formula="{disinfectant_mg_l} × 0.1975 × {chloramine_ammonia_scale} × {change_frac}; {disinfectant}",
    source="iupac",
)
def freed_ammonia_mg_l(
    disinfectant_mg_l: float, chloramine_ammonia_scale: float, change_frac: float, disinfectant: str
) -> float:
    if disinfectant != "chloramine":
        return 0.0
    freed = float(chemistry.chloramine_ammonia_mg_l(disinfectant_mg_l))
    return freed * chloramine_ammonia_scale * change_frac


@check(
    "The change water is treated",
    stage="changes",
    judges="left_chlorine_mg_l",
    mends=("water.treatment",),
    caution="Test total chlorine with a kit that reads low enough; the figure is a plan, the test is the safety.",
)
def treated(
    disinfectant: str,
    left_chlorine_mg_l: float,
    chlorine_limit_mg_l: float,
    freed_ammonia_mg_l: float,
    unionised_frac: float,
) -> Verdict:
    if disinfectant == "none":
        raise Impossible("not_needed")
    terms = {
        "left": of(left_chlorine_mg_l, "left_chlorine_mg_l"),
        "limit": Term(chlorine_limit_mg_l, "chlorine"),
        "freed": of(freed_ammonia_mg_l, "freed_ammonia_mg_l"),
        "free": Term(freed_ammonia_mg_l * unionised_frac, "unionised"),
    }
    if left_chlorine_mg_l > chlorine_limit_mg_l:
        reason = say(
            "Untreated, a change leaves {left} in the tank; {limit} is the most. Dilution is not treatment.",
            **terms,
        )
    elif freed_ammonia_mg_l > 0:
        reason = say(
            "Breaking chloramine sets {freed} free in the tank, {free} of it un-ionised, until the filter has taken it.",
            **terms,
        )
    else:
        reason = say("Treated, no chlorine reaches the animals.")
    return at_most(left_chlorine_mg_l, chlorine_limit_mg_l, "chlorine", reason)
