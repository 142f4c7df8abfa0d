"""The recipe of one change: minerals and salt weighed in, warm water drawn, all on one card."""

from dataclasses import dataclass

from loquen.core.data import library
from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import State, Verdict, check, figure, step
from loquen.core.model.quantity import Sentence, Term, of, say
from loquen.core.physics import chemistry
from loquen.core.system.source.waters import CALCIUM_MG_PER_DGH

PIPED = ("tap", "well")
"""Waters that come by a pipe, and with a hot side."""
LEAST_WARMING_K = 0.05


@figure("Hardness to add", formula="{target_gh_dgh} − {poured_gh_dgh}, not below 0", source="balance")
def added_dgh(target_gh_dgh: float | None, poured_gh_dgh: float) -> float:
    return max(0.0, target_gh_dgh - poured_gh_dgh) if target_gh_dgh is not None else 0.0


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
    row, ions = library.mineral_salts()[salt], library.ions()
    moles = {
        "calcium": row.calcium_mol,
        "magnesium": row.magnesium_mol,
        "sodium": row.sodium_mol,
        "potassium": row.potassium_mol,
        "chloride": row.chloride_mol,
        "sulfate": row.sulfate_mol,
        "bicarbonate": row.alkalinity_eq,
    }
    return {key: mg_l / row.g_mol * count * ions[key].g_mol for key, count in moles.items() if count}


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
    together: dict[str, float] = {}
    for salt, grams in ((calcium_salt, calcium_g), (magnesium_salt, magnesium_g), (carbonate_salt, carbonate_g)):
        for ion, amount in ions_of(salt, grams * 1000 / change_l).items():
            together[ion] = together.get(ion, 0.0) + amount
    return mix_us_cm + salt_us_cm + (chemistry.conductivity_us_cm(together) if any(together.values()) else 0.0)


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
    "KH that coral sand brings it to",
    formula="KH at which aragonite no longer dissolves, from {new_kh_dkh} and {new_gh_dgh} with {calcium_frac} calcium, "
    "at {coral_co2_mg_l} of CO2 and {water_c}",
    source="plummer1982",
)
def coral_dkh(
    new_kh_dkh: float, new_gh_dgh: float, calcium_frac: float, coral_co2_mg_l: float, water_c: float
) -> float:
    calcium = max(new_gh_dgh * calcium_frac * CALCIUM_MG_PER_DGH, 0.2)
    return chemistry.lime_ceiling_dkh(max(new_kh_dkh, 0.05), calcium, coral_co2_mg_l, water_c)


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


@figure(
    "Salt for one change",
    formula="{change_l} × density × {tank_salinity_ppt} × 1.00472 ÷ {salt_purity_frac} at {water_c}",
    source="teos10",
)
def change_salt_g(change_l: float, tank_salinity_ppt: float, salt_purity_frac: float, water_c: float) -> float:
    return float(chemistry.salt_to_add_g(change_l, tank_salinity_ppt, 0.0, water_c, salt_purity_frac))


@figure(
    "Days to the wanted salinity",
    formula="|{move_to_ppt} − {tank_salinity_ppt}| ÷ {move_ppt_d}, rounded up",
    source="practice",
)
def move_d(move_to_ppt: float | None, tank_salinity_ppt: float, move_ppt_d: float) -> float:
    if move_to_ppt is None:
        raise NamedCase("no_move")
    gap = abs(move_to_ppt - tank_salinity_ppt)
    return float(-(-round(gap * 1e6) // round(move_ppt_d * 1e6)))


@dataclass(frozen=True, slots=True)
class SaltDay:
    """One day of a move: the salinity at its end, what is added or changed, what the hydrometer then reads."""

    day: int
    salinity_ppt: float
    salt_g: float
    fresh_l: float
    gravity: float


@step()
def salt_days(
    move_d: float,
    move_to_ppt: float | None,
    tank_salinity_ppt: float,
    move_ppt_d: float,
    real_volume_l: float,
    salt_purity_frac: float,
    hydrometer_c: float,
    water_c: float,
) -> tuple[SaltDay, ...]:
    """Day by day: salt by weight on the way up, a change for fresh water on the way down."""
    assert move_to_ppt is not None
    level, rows = tank_salinity_ppt, []
    for day in range(1, int(move_d) + 1):
        aim = level + max(-move_ppt_d, min(move_ppt_d, move_to_ppt - level))
        salt = (
            float(chemistry.salt_to_add_g(real_volume_l, aim, level, water_c, salt_purity_frac))
            if aim > level
            else 0.0
        )
        fresh = real_volume_l * (level - aim) / level if aim < level else 0.0
        rows.append(SaltDay(day, aim, salt, fresh, float(chemistry.specific_gravity(aim, water_c, hydrometer_c))))
        level = aim
    return tuple(rows)


@check(
    "The move in salinity is borne",
    stage="source",
    judges="move_d",
    mends=("recipe.move_ppt_d", "recipe.move_to_ppt"),
    caution="Test salinity before each step; above 5 ppt the filter slows until its bacteria have followed.",
)
def move_borne(
    move_d: float,
    move_to_ppt: float | None,
    tank_salinity_ppt: float,
    move_ppt_d: float,
    salt_move_ppt_d: float,
    animal: tuple[library.Species, ...],
) -> Verdict:
    if move_to_ppt is None:
        raise NamedCase("no_move")
    step_ppt = move_ppt_d if move_to_ppt > tank_salinity_ppt else -move_ppt_d
    levels = [tank_salinity_ppt + step_ppt * day for day in range(int(move_d))] + [move_to_ppt]
    for day, level in enumerate(levels):
        for kind in animal:
            if not kind.salinity_low_ppt <= level <= kind.salinity_high_ppt:
                reason = say(
                    "{who} leaves its range of {low} to {high} on day {day}, at {level}: it does not live there.",
                    who=kind.common,
                    low=Term(kind.salinity_low_ppt, "salinity"),
                    high=Term(kind.salinity_high_ppt, "salinity"),
                    day=str(day),
                    level=Term(level, "salinity"),
                )
                return Verdict("short", -1.0, say("not for {who}", who=kind.common), reason)
    terms = {"rate": Term(move_ppt_d, "salinity"), "usual": Term(salt_move_ppt_d, "salinity")}
    if move_ppt_d > salt_move_ppt_d:
        state: State = "short" if move_ppt_d > 2 * salt_move_ppt_d else "tight"
        reason = say("{rate} a day; animals and the filter follow {usual} a day.", **terms)
        return Verdict(state, salt_move_ppt_d - move_ppt_d, say("too fast"), reason)
    reason = say("In {days}, {rate} a day, inside what all of them live in.", days=of(move_d, "move_d"), **terms)
    return Verdict("holds", 1.0, say("slow enough"), reason)


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
    treatment: str,
    present_disinfectant: str,
    dose_ml: float | None,
    carbon_lph: float,
    aged_h: float,
) -> tuple[Sentence, ...]:
    """One change's recipe, line by line in the order of the work."""
    salts = library.mineral_salts()
    total = sum(src_parts)
    lines = [say("For {litres}:", litres=of(change_l, "change_l"))]
    if total > 0:
        lines += [
            say("{litres} of {name}", litres=Term(change_l * parts / total, "volume"), name=name)
            for name, parts in zip(src_name, src_parts, strict=True)
            if parts > 0
        ]
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
    return tuple(lines)
