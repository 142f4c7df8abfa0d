"""The recipe of one change: minerals and salt weighed in, warm water drawn, all on one card."""

import math

from loquen.core.data.minerals import ions, mineral_salts
from loquen.core.errors import NamedCase
from loquen.core.graph.judging import caution
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.physics import chemistry
from loquen.core.system.roots import root
from loquen.core.system.source.waters import CALCIUM_MG_PER_DGH

PIPED = ("tap", "well")
"""Waters that come by a pipe, and with a hot side."""
LEAST_WARMING_K = 0.05
MOST_ADDED_DGH = 60.0


@figure(
    "Hardness to add",
    formula="{target_gh_dgh} − {poured_gh_dgh}, not below 0; where only {target_us_cm} is wanted, degrees of {calcium_salt} and "
    "{magnesium_salt}, {calcium_frac} calcium, that conduct what {mix_us_cm} lacks of it",
    source="balance",
)
def added_dgh(
    target_gh_dgh: float | None,
    poured_gh_dgh: float,
    target_us_cm: float | None,
    mix_us_cm: float,
    calcium_salt: str,
    magnesium_salt: str,
    calcium_frac: float,
) -> float:
    if target_gh_dgh is not None:
        return max(0.0, target_gh_dgh - poured_gh_dgh)
    if target_us_cm is None or target_us_cm <= mix_us_cm:
        return 0.0

    def lacking(degrees: float) -> float:
        calcium = degrees * calcium_frac * chemistry.salt_for_degree_mg_l(calcium_salt)
        magnesium = degrees * (1 - calcium_frac) * chemistry.salt_for_degree_mg_l(magnesium_salt)
        return salts_us_cm({calcium_salt: calcium}, {magnesium_salt: magnesium}) - (target_us_cm - mix_us_cm)

    return root(lacking, 0.0, MOST_ADDED_DGH) if lacking(MOST_ADDED_DGH) > 0 else MOST_ADDED_DGH


def salts_us_cm(*weighed: dict[str, float]) -> float:
    """Conductivity at 25 °C of salts weighed in together, each in mg/L."""
    together: dict[str, float] = {}
    for salts in weighed:
        for salt, mg_l in salts.items():
            for ion, amount in ions_of(salt, mg_l).items():
                together[ion] = together.get(ion, 0.0) + amount
    return chemistry.conductivity_us_cm(together) if any(together.values()) else 0.0


@figure("Carbonate hardness to add", formula="{target_kh_dkh} − {mix_kh_dkh}, not below 0", source="balance")
def added_dkh(target_kh_dkh: float | None, mix_kh_dkh: float) -> float:
    return max(0.0, target_kh_dkh - mix_kh_dkh) if target_kh_dkh is not None else 0.0


@figure("KH of the change water", formula="{mix_kh_dkh} + {added_dkh}", source="balance")
def new_kh_dkh(mix_kh_dkh: float, added_dkh: float) -> float:
    return mix_kh_dkh + added_dkh


@figure("GH of the change water", formula="{poured_gh_dgh} + {added_dgh}", source="balance")
def new_gh_dgh(poured_gh_dgh: float, added_dgh: float) -> float:
    return poured_gh_dgh + added_dgh


@figure(
    "Calcium salt for one change",
    formula="{added_dgh} × {calcium_frac} × mg for a degree of {calcium_salt} × {change_l} ÷ 1000",
    source="iupac",
)
def calcium_g(added_dgh: float, calcium_frac: float, calcium_salt: str, change_l: float) -> float:
    return added_dgh * calcium_frac * chemistry.salt_for_degree_mg_l(calcium_salt) * change_l / 1000


@figure(
    "Magnesium salt for one change",
    formula="{added_dgh} × (1 − {calcium_frac}) × mg for a degree of {magnesium_salt} × {change_l} ÷ 1000",
    source="iupac",
)
def magnesium_g(added_dgh: float, calcium_frac: float, magnesium_salt: str, change_l: float) -> float:
    return added_dgh * (1 - calcium_frac) * chemistry.salt_for_degree_mg_l(magnesium_salt) * change_l / 1000


@figure(
    "Carbonate salt for one change",
    formula="{added_dkh} × mg for a degree of {carbonate_salt} × {change_l} ÷ 1000",
    source="iupac",
)
def carbonate_g(added_dkh: float, carbonate_salt: str, change_l: float) -> float:
    return added_dkh * chemistry.salt_for_degree_mg_l(carbonate_salt) * change_l / 1000


def ions_of(salt: str, mg_l: float) -> dict[str, float]:
    """Ions, in mg/L, that a weight of a salt gives a litre."""
    row = mineral_salts()[salt]
    moles = {
        "calcium": row.calcium_mol,
        "magnesium": row.magnesium_mol,
        "sodium": row.sodium_mol,
        "potassium": row.potassium_mol,
        "chloride": row.chloride_mol,
        "sulfate": row.sulfate_mol,
        "bicarbonate": row.alkalinity_eq,
    }
    return {key: mg_l / row.g_mol * count * ions()[key].g_mol for key, count in moles.items() if count}


@figure(
    "Conductivity that the tank's salt gives",
    formula="of {tank_salinity_ppt} at 25 °C",
    source="teos10",
)
def salt_us_cm(tank_salinity_ppt: float) -> float:
    return chemistry.salt_conductivity_us_cm(tank_salinity_ppt)


@figure(
    "Conductivity of the change water",
    formula="{mix_us_cm} + {salt_us_cm} + what the salts add: {calcium_g} of {calcium_salt}, {magnesium_g} of {magnesium_salt}, "
    "{carbonate_g} of {carbonate_salt} in {change_l}",
    source="robinsonstokes1959",
)
def new_us_cm(
    mix_us_cm: float,
    salt_us_cm: float,
    calcium_g: float,
    calcium_salt: str,
    magnesium_g: float,
    magnesium_salt: str,
    carbonate_g: float,
    carbonate_salt: str,
    change_l: float,
) -> float:
    weighed = ((calcium_salt, calcium_g), (magnesium_salt, magnesium_g), (carbonate_salt, carbonate_g))
    return mix_us_cm + salt_us_cm + salts_us_cm(*({salt: grams * 1000 / change_l} for salt, grams in weighed))


@check(
    "The mix can be brought to its hardness",
    stage="source",
    judges="poured_gh_dgh",
    mends=("sources.*.src_parts", "recipe.target_gh_dgh"),
)
def hardness_reached(
    target_gh_dgh: float | None,
    poured_gh_dgh: float,
    mix_kh_dkh: float,
    target_kh_dkh: float | None,
    hardness_close_deg: float,
) -> Verdict:
    if target_gh_dgh is None and target_kh_dkh is None:
        raise NamedCase("not_needed")
    over_gh = poured_gh_dgh - target_gh_dgh if target_gh_dgh is not None else -1.0
    over_kh = mix_kh_dkh - target_kh_dkh if target_kh_dkh is not None else -1.0
    if max(over_gh, over_kh) <= hardness_close_deg:
        return Verdict(
            "holds", 1.0, say("reached"), say("What is missing is weighed in; nothing has to be taken out.")
        )
    kind, over, what = ("hardness", over_gh, "GH") if over_gh >= over_kh else ("carbonate", over_kh, "KH")
    reason = say(
        "{what} of the mix is {over} above what is wanted: nothing that is weighed in takes it out. Use a larger part of a softer water.",
        what=what,
        over=Term(over, kind),
    )
    return Verdict("short", -over, say("{by} too hard", by=Term(over, kind)), reason)


@figure(
    "KH under which coral sand and shell dissolve",
    formula="KH at which aragonite no longer dissolves, from {new_kh_dkh} and {new_gh_dgh} with {calcium_frac} calcium, "
    "at {coral_co2_mg_l} of CO2 and {water_c}; at that calcium alone where the water has more KH",
    source="plummer1982",
)
def coral_dkh(
    new_kh_dkh: float, new_gh_dgh: float, calcium_frac: float, coral_co2_mg_l: float, water_c: float
) -> float:
    calcium, before = max(new_gh_dgh * calcium_frac * CALCIUM_MG_PER_DGH, 0.2), max(new_kh_dkh, 0.05)
    balance = chemistry.saturated_kh_dkh(calcium, coral_co2_mg_l, water_c)
    if before >= balance:
        return balance
    return chemistry.lime_ceiling_dkh(before, calcium, coral_co2_mg_l, water_c)


@figure(
    "Mixed salt by its label",
    formula="{added_dgh} × {product_g} × {change_l} ÷ 100; by label: {product_g}",
    source="practice",
)
def product_dose_g(added_dgh: float, product_g: float | None, change_l: float) -> float:
    if product_g is None:
        raise NamedCase("no_product")
    return added_dgh * product_g * change_l / 100


@figure(
    "Part of it that has a hot side",
    formula="{src_parts} of tap and well over Σ {src_parts}; all of one water entered by itself ({src_kind})",
    source="definition",
)
def piped_frac(src_parts: tuple[float, ...], src_kind: tuple[str, ...]) -> float:
    total = sum(src_parts)
    if total <= 0:
        return 1.0
    return sum(parts for parts, kind in zip(src_parts, src_kind, strict=True) if kind in PIPED) / total


@figure(
    "That part comes at",
    formula="Σ {src_parts} × {src_c} over tap and well, else {mix_c} ({src_kind})",
    source="balance",
)
def piped_c(
    src_parts: tuple[float, ...], src_c: tuple[float, ...], src_kind: tuple[str, ...], mix_c: float
) -> float:
    rows = [(p, c) for p, c, kind in zip(src_parts, src_c, src_kind, strict=True) if kind in PIPED and p > 0]
    return sum(p * c for p, c in rows) / sum(p for p, _ in rows) if rows else mix_c


def hot_part(new_c: float, mix_c: float, hot_c: float, piped_c: float, piped_frac: float) -> float:
    """The part of the mix that comes from the hot side, in place of as much from the cold, of the same water."""
    if hot_c <= piped_c or new_c <= mix_c:
        return 0.0
    return min(piped_frac, (new_c - mix_c) / (hot_c - piped_c))


@figure(
    "Part of it from the hot tap",
    formula="({new_c} − {mix_c}) ÷ ({hot_c} − {piped_c}), 0 to {piped_frac}",
    source="balance",
)
def hot_frac(new_c: float, mix_c: float, hot_c: float, piped_c: float, piped_frac: float) -> float:
    return hot_part(new_c, mix_c, hot_c, piped_c, piped_frac)


@figure(
    "Left for a heater to warm",
    formula="{new_c} − ({mix_c} + {hot_frac} × ({hot_c} − {piped_c})), not below 0",
    source="balance",
    kind="temperature_difference",
)
def warming_k(new_c: float, mix_c: float, hot_frac: float, hot_c: float, piped_c: float) -> float:
    left = new_c - (mix_c + hot_frac * (hot_c - piped_c))
    return left if left > LEAST_WARMING_K else 0.0


@figure(
    "Warming one change by a heater takes",
    formula="{change_l} × {water_heat_j_l_k} × {warming_k} ÷ 3600000",
    source="balance",
)
def warming_kwh(change_l: float, water_heat_j_l_k: float, warming_k: float) -> float:
    return change_l * water_heat_j_l_k * warming_k / 3.6e6


@figure(
    "Hours of that heater",
    formula="{warming_kwh} × 1000 ÷ {barrel_heater_w}",
    source="balance",
)
def warming_h(warming_kwh: float, barrel_heater_w: float) -> float:
    return warming_kwh * 1000 / barrel_heater_w


@figure(
    "Hardness that a hot-side softener takes out",
    formula="{src_gh_dgh} of waters softened on the hot side ({src_softened}), by {src_parts} of tap and well "
    "({src_kind}), × {hot_frac}",
    source="balance",
)
def hot_removed_dgh(
    src_gh_dgh: tuple[float, ...],
    src_softened: tuple[str, ...],
    src_parts: tuple[float, ...],
    src_kind: tuple[str, ...],
    hot_frac: float,
) -> float:
    rows = zip(src_gh_dgh, src_softened, src_parts, src_kind, strict=True)
    piped = [(gh, side, parts) for gh, side, parts, kind in rows if kind in PIPED and parts > 0]
    if not piped:
        return 0.0
    softened = sum(gh * parts for gh, side, parts in piped if side == "hot")
    return softened / sum(parts for _, _, parts in piped) * hot_frac


@figure(
    "Hardness of the mix as it is poured",
    formula="{mix_gh_dgh} − {hot_removed_dgh}",
    source="balance",
)
def poured_gh_dgh(mix_gh_dgh: float, hot_removed_dgh: float) -> float:
    return mix_gh_dgh - hot_removed_dgh


@figure(
    "First water to run off",
    formula="π ÷ 4 × {flush_bore_mm}² × {flush_m} ÷ 1000",
    source="definition",
)
def flush_l(flush_bore_mm: float, flush_m: float) -> float:
    return math.pi / 4 * flush_bore_mm**2 * flush_m / 1000


@figure(
    "Gas in the tank after a change, of what it holds",
    formula="1 + {swapped_frac} × (what holds at {mix_c} ÷ what holds at {new_c} − 1) of water warmed under pressure; "
    "1 where it is aired first ({aired}), stands aerated ({treatment}, {aerated}) or a heater warms it, {hot_frac} from the "
    "hot tap",
    source="colt1984",
    kind="share",
)
def gas_frac(
    swapped_frac: float,
    mix_c: float,
    new_c: float,
    treatment: str,
    aerated: bool,
    hot_frac: float,
    aired: bool,
) -> float:
    if hot_frac <= 0 or new_c <= mix_c or aired or (treatment == "aged" and aerated):
        return 1.0
    return 1 + swapped_frac * (float(chemistry.gas_saturation_frac(mix_c, new_c)) - 1)


@check(
    "It is not over-full of gas",
    stage="source",
    judges="gas_frac",
    mends=("water.aired", "changes.change_frac"),
    caution="Bubbles on the glass and on the animals after a change are the sign.",
)
def gas_borne(gas_frac: float, gas_most_frac: float, hot_frac: float, aired: bool) -> Verdict:
    if hot_frac <= 0:
        raise NamedCase("not_needed")
    terms = {"level": of(gas_frac, "gas_frac"), "most": Term(gas_most_frac, "share")}
    fine = (
        "Warmed under pressure and aired before it goes in, it leaves the tank at {level} of the gas it holds."
        if aired
        else "Warmed under pressure it brings the tank to {level} of the gas it holds; {most} is borne."
    )
    warning = (
        "Warmed under pressure it brings the tank to {level} of the gas it holds, {most} is borne: air it first, or let it splash "
        "over a column; or change less at a time."
    )
    return caution(gas_frac, "gas_frac", gas_most_frac, say(fine, **terms), say(warning, **terms))


@figure("Hot tap open for", formula="{hot_frac} × {change_l} ÷ {fill_l_min} × 60", source="balance")
def hot_s(hot_frac: float, change_l: float, fill_l_min: float) -> float:
    return hot_frac * change_l / fill_l_min * 60


@figure(
    "Hot tap open in summer for",
    formula="({new_c} − {mix_summer_c}) ÷ ({hot_c} − {mix_summer_c}), at most {piped_frac}, × {change_l} ÷ {fill_l_min} × 60",
    source="balance",
)
def hot_summer_s(
    new_c: float, mix_summer_c: float, hot_c: float, piped_frac: float, change_l: float, fill_l_min: float
) -> float:
    return hot_part(new_c, mix_summer_c, hot_c, mix_summer_c, piped_frac) * change_l / fill_l_min * 60


@figure(
    "Sodium from a hot-side softener",
    formula="8.2 × {hot_removed_dgh}",
    source="iupac",
    kind="level",
)
def hot_sodium(hot_removed_dgh: float) -> float:
    return float(chemistry.softener_sodium_mg_l(hot_removed_dgh))


@step()
def treating(
    treatment: str,
    present_disinfectant: str,
    present_chlorine_mg_l: float,
    tap_untold: bool,
    dose_ml: float | None,
    carbon_lph: float,
    aged_h: float,
    container_dose_ml: float | None,
    containers: float | None,
    topup_dose_ml: float | None,
) -> tuple[Sentence, ...]:
    """What is done to one change's water against its disinfectant."""
    lines: list[Sentence] = []
    if tap_untold:
        text = "reckoned as chloramine of {strength}: nobody has asked yet what this tap carries"
        lines.append(say(text, strength=of(present_chlorine_mg_l, "present_chlorine_mg_l")))
    if present_disinfectant != "none":
        how = {
            "carbon": say("run it through the carbon at {flow} or slower", flow=Term(carbon_lph, "flow")),
            "aged": say("let it stand for {hours}, then test", hours=Term(aged_h, "hours")),
        }
        if treatment in how:
            lines.append(how[treatment])
        elif dose_ml is not None:
            where = "into the barrel, and stir" if treatment == "container" else "into the tank, before refilling"
            lines.append(say("{dose} of conditioner {where}", dose=of(dose_ml, "dose_ml"), where=where))
            if container_dose_ml is not None and containers is not None:
                terms = {"each": of(container_dose_ml, "container_dose_ml"), "count": Term(containers, "count")}
                lines.append(say("that is {each} in each of {count} containers", **terms))
            if topup_dose_ml is not None:
                text = "evaporation is topped up with the same water: {dose} a week for it"
                lines.append(say(text, dose=of(topup_dose_ml, "topup_dose_ml")))
    return tuple(lines)


@step()
def card(
    change_l: float,
    src_name: tuple[str, ...],
    src_parts: tuple[float, ...],
    calcium_g: float,
    calcium_salt: str,
    magnesium_g: float,
    magnesium_salt: str,
    carbonate_g: float,
    carbonate_salt: str,
    added_dgh: float,
    product_g: float | None,
    change_salt_g: float,
    hot_s: float,
    hot_frac: float,
    fill_l_min: float,
    warming_k: float,
    warming_h: float,
    barrel_heater_w: float,
    new_c: float,
    flush_l: float,
    aired: bool,
    treating: tuple[Sentence, ...],
) -> tuple[Sentence, ...]:
    """One change's recipe, line by line in the order of the work."""
    salts = mineral_salts()
    total = sum(src_parts)
    lines = [say("For {litres}:", litres=of(change_l, "change_l"))]
    if flush_l > 0:
        lines.append(say("let the first {litres} run off", litres=of(flush_l, "flush_l")))
    if total > 0:
        lines += [
            say("{litres} of {name}", litres=Term(change_l * parts / total, "volume"), name=name)
            for name, parts in zip(src_name, src_parts, strict=True)
            if parts > 0
        ]
    lines += list(treating)
    weighed = [(calcium_g, calcium_salt), (magnesium_g, magnesium_salt), (carbonate_g, carbonate_salt)]
    if product_g is not None:
        grams = added_dgh * product_g * change_l / 100
        lines.append(
            say("{grams} of the mixed salt, by its label", grams=Term(grams, "small_mass", "product_dose_g"))
        )
        weighed = weighed[2:]
    lines += [
        say(
            "{grams} of {salt}",
            grams=Term(grams, "small_mass"),
            salt=salts[salt].label[0].lower() + salts[salt].label[1:],
        )
        for grams, salt in weighed
        if grams > 0
    ]
    if change_salt_g > 0:
        lines.append(say("{grams} of salt", grams=Term(change_salt_g, "small_mass", "change_salt_g")))
    if hot_frac > 0:
        lines.append(
            say(
                "at {rate}, {seconds} of it from the hot tap for {warm}",
                rate=Term(fill_l_min, "fill_rate"),
                seconds=Term(hot_s, "seconds", "hot_s"),
                warm=Term(new_c, "temperature"),
            )
        )
    if warming_k > 0:
        lines.append(
            say(
                "warm it by {rise} with a heater of {watts}: {hours}",
                rise=Term(warming_k, "temperature_difference", "warming_k"),
                watts=Term(barrel_heater_w, "power"),
                hours=of(warming_h, "warming_h"),
            )
        )
    if aired and hot_frac > 0:
        lines.append(say("air it before it goes in"))
    return tuple(lines)
