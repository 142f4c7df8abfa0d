"""Who breeds: how many of each sex, in which tank, bought how, and what that does to the line."""

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most, by_practice, no_harm
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.growout.broods import age_at_length_d
from loquen.core.growout.homes import Home, Housed
from loquen.core.growout.lines import effective_number
from loquen.core.library.rows.animals import Breeding, Species
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.register.buying import chance_grown, to_buy

BARE_ROCK_KG, BARE_WOOD_L = 5.0, 2.0
"""Rock and wood in a tank that a net still goes round; keepers' practice, unverified."""
GENERATION_LOSS_FRAC = 0.05
"""Of a line's breadth lost in a generation: breeders of rare kinds stay under it; keepers' practice, unverified."""
PAIR_LEEWAY_FRAC = 0.25
"""Of the length by the rule that a pair kept alone to breed may lack; keepers' practice, unverified."""


@step()
def kind(species: str, library: Library) -> Species:
    return library.species[species]


@step()
def breeds(species: str, library: Library) -> Breeding:
    found = library.breeds(species)
    if found is None:
        raise NamedCase("broods_unknown")
    return found


@step()
def tank_there(home: Home | None) -> Home:
    """The tank that it is kept in, by its own sheet."""
    if home is None:
        raise NamedCase("no_tank_chosen")
    return home


@step()
def colony_tank(colony_home: Home | None, home: Home | None) -> Home:
    """The tank of the colony: its own, or one like those that the young grow in."""
    if colony_home is not None:
        return colony_home
    return tank_there(home)


@step()
def colony_there(colony_housed: Housed | None) -> Housed:
    if colony_housed is None:
        raise NamedCase("no_tank_chosen")
    return colony_housed


@figure("Length of the females", formula="{female_cm} as entered, else adult length of {kind}", source="taxonomy")
def mother_cm(female_cm: float | None, kind: Species) -> float:
    return kind.adult_length_cm if female_cm is None else female_cm


@figure("Animals that breed", formula="{females} + {males}", source="definition", kind="count")
def breeders(females: int, males: int) -> float:
    return float(females + males)


@figure(
    "Animals bought grown",
    formula="{females} + {males} + 1 where a spare male is kept: {spare_male}",
    source="definition",
    kind="count",
)
def wanted_grown(females: int, males: int, spare_male: bool) -> float:
    return float(females + males + spare_male)


@figure(
    "Young to buy",
    formula="fewest of which {females} females and {males} males (a spare one: {spare_male}) grow up with a chance of {chance_frac}; "
    "{male_frac} males, {reared_frac} grow up",
    source="definition",
    kind="count",
)
def young_to_buy(
    females: int, males: int, spare_male: bool, chance_frac: float, male_frac: float, reared_frac: float
) -> float:
    return float(to_buy(males + spare_male, females, chance_frac, male_frac, reared_frac))


@figure(
    "Chance with so many",
    formula="chance that of {young_to_buy} enough of both grow up: {females} females, {males} males (a spare one: {spare_male}); "
    "{male_frac} males, {reared_frac} grow up",
    source="definition",
    kind="share",
)
def chance_reached(
    young_to_buy: float, females: int, males: int, spare_male: bool, male_frac: float, reared_frac: float
) -> float:
    return chance_grown(round(young_to_buy), males + spare_male, females, male_frac, reared_frac)


@figure(
    "Young over once they are sexed",
    formula="{young_to_buy} × {reared_frac} − {wanted_grown}, not below 0",
    source="balance",
    kind="count",
)
def young_over(young_to_buy: float, reared_frac: float, wanted_grown: float) -> float:
    return max(0.0, young_to_buy * reared_frac - wanted_grown)


@figure(
    "Old enough to be sexed after",
    formula="365.25 ÷ K × ln((L∞ − start) ÷ (L∞ − length)) of {breeds} and {kind}",
    source="bertalanffy1938",
)
def sexed_d(breeds: Breeding, kind: Species) -> float:
    return age_at_length_d(breeds.sexed_cm, kind.adult_length_cm, kind.growth_per_year, breeds.start_cm)


@figure(
    "The colony costs",
    formula="{young_to_buy} × {young_money} where {bought} is young, else {wanted_grown} × {grown_money}",
    source="definition",
)
def colony_money(
    bought: str, young_to_buy: float | None, young_money: float, wanted_grown: float, grown_money: float
) -> float:
    if bought == "grown":
        return wanted_grown * grown_money
    if young_to_buy is None:
        raise NamedCase("never_both")
    return young_to_buy * young_money


@figure("Tank by the length rule", formula="adult length of {kind} × its ratio", source="practice")
def by_rule_cm(kind: Species) -> float:
    return kind.adult_length_cm * kind.length_ratio


@figure(
    "Balance the colony uses", formula="by the tank's own sheet: {colony_there}", source="balance", kind="share"
)
def colony_balance_frac(colony_there: Housed) -> float:
    if colony_there.balance_frac is None:
        raise NamedCase("nothing_taken")
    return colony_there.balance_frac


@figure(
    "Effective number, by sexes alone",
    formula="4 × {males} × {females} ÷ ({males} + {females})",
    source="wright1931",
    kind="count",
)
def effective_count(males: int, females: int) -> float:
    return effective_number(males, females)


@figure(
    "Effective number, at worst",
    formula="{effective_count} × {effective_low_part}",
    source="practice",
    kind="count",
)
def effective_low_count(effective_count: float, effective_low_part: float) -> float:
    return effective_count * effective_low_part


@figure(
    "Breadth lost in a generation, at least",
    formula="1 ÷ (2 × {effective_count})",
    source="wright1931",
)
def lost_least_frac(effective_count: float) -> float:
    if effective_count == 0:
        raise NamedCase("no_pair")
    return 1 / (2 * effective_count)


@figure(
    "Breadth lost in a generation, at most",
    formula="1 ÷ (2 × {effective_low_count}), 1 at most",
    source="wright1931",
)
def lost_most_frac(effective_low_count: float) -> float:
    if effective_low_count == 0:
        raise NamedCase("no_pair")
    return min(1.0, 1 / (2 * effective_low_count))


@check("Females to each male", stage="colony", mends=("colony.females", "colony.males"))
def sexes_fit(females: int, males: int, breeds: Breeding | None, kind: Species) -> Verdict:
    if males == 0:
        text = "Without a male there is no young; livebearers may bring some from stores for months."
        return Verdict("short", -1.0, say("no male"), say(text))
    least = breeds.pairs_ratio if breeds else max(1.0, float(kind.females_per_male))
    reason = say(
        "{females} females to {males} males; {kind} wants {ratio} or more to each.",
        females=Term(females, "count"),
        males=Term(males, "count"),
        ratio=Term(least, "ratio"),
        kind=kind.common,
    )
    return by_practice(at_least(females / males, least, "ratio", reason, scale=0.0), least)


@check("Females enough", stage="colony", judges="breeders", mends=("colony.females",))
def females_enough(females: int, breeds: Breeding, purpose: str) -> Verdict:
    least = breeds.females_least
    reason = say(
        "{females} females; from {least} on one that rests or dies does not stop the broods.",
        females=Term(females, "count"),
        least=Term(least, "count"),
    )
    return no_harm(at_least(females, least, "count", reason, scale=0.0))


@check("A spare male", stage="colony", mends=("colony.spare_male",))
def male_spared(spare_male: bool, males: int) -> Verdict:
    if spare_male or males > 1:
        return Verdict("holds", 1.0, say("there is one"), say("If the male dies, another is there."))
    text = "One male dies, and the broods stop until another is grown: keep a spare one, or two together where they bear it."
    return Verdict("tight", 0.0, say("none"), say(text))


@check(
    "Tank by the length rule",
    stage="colony",
    glass="colony",
    judges="by_rule_cm",
    mends=("stand.system",),
)
def long_enough(by_rule_cm: float, colony_tank: Home, females: int, breeds: Breeding | None) -> Verdict:
    reason = say(
        "{wanted} by the length rule; the tank is {length} long.",
        wanted=of(by_rule_cm, "by_rule_cm"),
        length=Term(colony_tank.length_cm, "length"),
    )
    alone = breeds is not None and breeds.females_least == 1 and females == 1
    leeway = PAIR_LEEWAY_FRAC * by_rule_cm if alone else None
    return by_practice(at_least(colony_tank.length_cm, by_rule_cm, "length", reason), by_rule_cm, leeway)


@check("Tank by the balance", stage="colony", judges="colony_balance_frac", mends=("colony.females",))
def colony_carried(colony_balance_frac: float) -> Verdict:
    reason = say(
        "The colony makes {share} of what this tank's filter and changes take.",
        share=of(colony_balance_frac, "colony_balance_frac"),
    )
    return at_most(colony_balance_frac, 1.0, "share", reason)


@check(
    "The tank's own checks",
    stage="colony",
    caution="What a tank refuses is reckoned on all the same: the money may be right and the tank wrong.",
)
def tank_accepts(colony_there: Housed) -> Verdict:
    against = colony_there.against
    if not against:
        if colony_there.state == "tight":
            return Verdict(
                "tight", 0.0, say("just"), say("Its sheet takes this colony, with nothing to spare somewhere.")
            )
        return Verdict("holds", 1.0, say("takes them"), say("Its sheet takes this colony full grown."))
    more = " {more} more stand against it on that tank's own sheet." if len(against) > 1 else ""
    first = against[0]
    reason = Sentence(first.text + more, {**first.terms, "more": Term(len(against) - 1, "count")})
    return Verdict("short", -float(len(against)), say("refuses them"), reason)


@check("Fish can be caught", stage="colony")
def catchable(colony_tank: Home, breeds: Breeding | None) -> Verdict:
    holds_ground = breeds is not None and breeds.way in ("cave", "mouthbrooder", "substrate")
    rock, wood = Term(colony_tank.rock_kg, "mass"), Term(colony_tank.wood_l, "volume")
    if colony_tank.rock_kg <= BARE_ROCK_KG and colony_tank.wood_l <= BARE_WOOD_L:
        return Verdict("holds", 1.0, say("a net goes round"), say("Little stands in the way of a net."))
    text = "{rock} of rock and {wood} of wood lie in it: to catch anyone all of it comes out. "
    text += (
        "Leave in what they spawn on, as single pieces that lift out: {wants}."
        if holds_ground
        else "Leave it out; {wants} is all they ask for, in a bundle that lifts out."
    )
    wants = breeds.wants if breeds else "plants"
    return Verdict("tight", 0.0, say("hard to net"), say(text, rock=rock, wood=wood, wants=wants))


@check(
    "Breadth of the line",
    stage="colony",
    judges="lost_least_frac",
    mends=("colony.males", "colony.females"),
    caution="A guide, not a measurement: who breeds with whom is not seen. Note the lines in the register, swap animals with "
    "keepers of the same stock, never mix kinds or stocks of different places, and cull what is crooked.",
)
def line_broad(lost_least_frac: float, lost_most_frac: float, effective_count: float, purpose: str) -> Verdict:
    reason = say(
        "An effective number of {ne} at best: {least} to {most} of its breadth goes in each generation without new animals.",
        ne=of(effective_count, "effective_count", "count"),
        least=of(lost_least_frac, "lost_least_frac"),
        most=of(lost_most_frac, "lost_most_frac"),
    )
    verdict = at_most(lost_least_frac, GENERATION_LOSS_FRAC, "share", reason)
    return verdict if purpose == "line" and lost_least_frac > 2 * GENERATION_LOSS_FRAC else no_harm(verdict)


@step()
def colony_result(
    females: int,
    males: int,
    kind: Species,
    young_to_buy: float | None,
    bought: str,
    sexed_d: float | None,
    colony_money: float,
    lines: int,
) -> Sentence:
    terms: dict[str, Term | str] = {
        "females": Term(females, "count"),
        "males": Term(males, "count"),
        "kind": kind.common,
        "money": of(colony_money, "colony_money"),
        "lines": Term(lines, "count"),
    }
    if bought == "grown" or young_to_buy is None:
        return say("{females} females and {males} males of {kind}, bought grown for {money}.", **terms)
    terms["young"] = of(young_to_buy, "young_to_buy", "count")
    when = " They can be sexed at {age}." if sexed_d is not None else ""
    if sexed_d is not None:
        terms["age"] = of(round(sexed_d), "sexed_d")
    from_lines = ", shared among {lines} lines," if lines > 1 else ""
    text = (
        "For {females} females and {males} males of {kind} buy {young} young" + from_lines + " for {money}." + when
    )
    return say(text, **terms)
