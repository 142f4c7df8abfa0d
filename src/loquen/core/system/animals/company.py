"""Who lives with whom: each group by itself, every pair, and every animal in this water."""

from dataclasses import dataclass, replace
from functools import lru_cache, partial
from itertools import combinations

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import State, Verdict, check, step, worst
from loquen.core.library.rows.animals import Species
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.system.animals.findings import Finding, verdict_over
from loquen.core.system.animals.food import require_animals
from loquen.core.system.animals.mouths import Growing, among, eaten

CURRENTS = ("still", "gentle", "moderate", "strong")
STREAM_AND_STILL = 2
PLANT_AND_MEAT = {"herbivore", "carnivore"}


@dataclass(frozen=True, slots=True)
class Leeways:
    """How far past its range an animal is before harm can be argued; past it is care, not a fault."""

    temp_k: float
    ph: float
    hardness_deg: float

    @property
    def label(self) -> str:
        return f"{self.temp_k:.2g} K, {self.ph:.2g} pH, {self.hardness_deg:.2g} degrees"

    def of(self, what: str, *kinds: Species) -> float:
        """The leeway in one quantity; in salinity it is the kind's own."""
        if what == "salinity":
            return max(kind.salt_leeway_ppt for kind in kinds)
        return {"temperature": self.temp_k, "pH": self.ph}.get(what, self.hardness_deg)


@step()
def leeways(temp_leeway_k: float, ph_leeway: float, hardness_leeway_deg: float) -> Leeways:
    return Leeways(temp_leeway_k, ph_leeway, hardness_leeway_deg)


SEA_SALT_DGH_PER_PPT = 10.1
"""Calcium and magnesium of 10.28 and 52.8 mmol/kg at 35 of sea water, recalled; 0.1785 mmol to a degree."""
RANGES: tuple[tuple[str, str, str, str], ...] = (
    ("temperature", "temperature", "temp_low_c", "temp_high_c"),
    ("pH", "ph", "ph_low", "ph_high"),
    ("hardness", "hardness", "gh_low_dgh", "gh_high_dgh"),
    ("carbonate hardness", "carbonate", "kh_low_dkh", "kh_high_dkh"),
    ("salinity", "salinity", "salinity_low_ppt", "salinity_high_ppt"),
)
"""What of the water a kind has a range in: its name, the kind of quantity, and the columns of its two ends."""


HARDNESS = 2


def range_of(kind: Species, low: str, high: str) -> tuple[float, float]:
    return getattr(kind, low), getattr(kind, high)


def overlap(
    what: str,
    kind: str,
    a: Species,
    b: Species,
    first: tuple[float, float],
    second: tuple[float, float],
    leeways: Leeways,
) -> Finding:
    """Whether two ranges share anything: tight when they share under a tenth of the narrower, or miss by a leeway."""
    low, high = max(first[0], second[0]), min(first[1], second[1])
    who = (a.common, b.common)
    if low > high:
        text = "no {what} suits both: {low} is the least of one, {high} the most of the other"
        missed: State = "tight" if low - high <= leeways.of(what, a, b) else "short"
        return Finding(who, what, missed, say(text, what=what, low=Term(low, kind), high=Term(high, kind)))
    narrow = min(first[1] - first[0], second[1] - second[0])
    state: State = "tight" if high - low < 0.1 * narrow else "holds"
    text = "they share {low} to {high}"
    return Finding(who, what, state, say(text, low=Term(low, kind), high=Term(high, kind)))


def diets(a: Species, b: Species) -> Finding | None:
    if {a.feeds_on, b.feeds_on} == PLANT_AND_MEAT:
        text = "one grazes, one eats meat: feed them apart, since each other's food harms them"
        return Finding((a.common, b.common), "diet", "tight", say(text))
    return None


def currents(a: Species, b: Species) -> Finding | None:
    apart = abs(CURRENTS.index(a.current) - CURRENTS.index(b.current))
    if apart >= STREAM_AND_STILL:
        text = "one wants {first} water, the other {second}"
        state: State = "short" if apart > STREAM_AND_STILL else "tight"
        return Finding((a.common, b.common), "current", state, say(text, first=a.current, second=b.current))
    return None


def pair_findings(a: Species, b: Species, growing: Growing, leeways: Leeways) -> list[Finding]:
    """Everything compared between two kinds."""
    waters, habits = by_nature(a, b, leeways)
    return [*waters, growing.worst(lambda lengths: eaten(a, b, lengths)), *habits]


@lru_cache(2048)
def by_nature(a: Species, b: Species, leeways: Leeways) -> tuple[tuple[Finding, ...], tuple[Finding, ...]]:
    """What is found between two kinds whatever their sizes, in water and in habits: kept, as it is asked at every key."""
    waters = tuple(
        overlap(what, kind, a, b, range_of(a, low, high), range_of(b, low, high), leeways)
        for what, kind, low, high in RANGES
    )
    habits = (diets(a, b), currents(a, b))
    return waters, tuple(finding for finding in habits if finding is not None)


@step()
def pairs(animal: tuple[Species, ...], sizes_to_come: Growing, leeways: Leeways) -> tuple[Finding, ...]:
    """Every pair of kinds aboard, and of two sizes of one kind; mouths as they are today and as they grow."""
    kinds = list(dict.fromkeys(animal))
    found = [finding for a, b in combinations(kinds, 2) for finding in pair_findings(a, b, sizes_to_come, leeways)]
    within = [sizes_to_come.worst(partial(among, kind)) for kind in kinds]
    return (*found, *(finding for finding in within if finding.state != "holds"))


@step()
def apart_frac(
    animal: tuple[Species, ...], number: tuple[int, ...], real_volume_l: float, hides: bool, alone_room: float
) -> float:
    """How far what is kept alone has the room to keep out of each other's sight: from 1 on it has."""
    wanted = sum(kind.litres_high * count for kind, count in zip(animal, number, strict=True) if kind.alone)
    return real_volume_l / (alone_room * wanted) if hides and wanted else 0.0


@step()
def company(
    animal: tuple[Species, ...],
    number: tuple[int, ...],
    males: tuple[int | None, ...],
    crowd_least: float,
    company_least_frac: float,
    apart_frac: float,
) -> tuple[Finding, ...]:
    """Every kind by itself, all its groups together: enough company, alone where it must be, sexes in proportion."""
    counts: dict[str, int] = {}
    for kind, count in zip(animal, number, strict=True):
        counts[kind.key] = counts.get(kind.key, 0) + count
    crowded = sum(count for kind, count in zip(animal, number, strict=True) if kind.crowd) >= crowd_least
    mixed = len({kind.key for kind in animal if kind.crowd}) > 1
    found: list[Finding] = []
    for kind in dict.fromkeys(animal):
        told = [m for row, m in zip(animal, males, strict=True) if row.key == kind.key]
        known = None if None in told else sum(m for m in told if m is not None)
        if kind.crowd and mixed and crowded:
            text = "one of a mixed crowd: {count} of them among so many is a way to keep them"
            found.append(
                Finding((kind.common,), "group", "holds", say(text, count=Term(counts[kind.key], "count")))
            )
        else:
            found += group_findings(kind, counts[kind.key], known, company_least_frac, apart_frac >= 1)
    return tuple(found)


def group_findings(
    animal: Species, number: int, males: int | None, least_frac: float, apart: bool
) -> list[Finding]:
    """Enough company, alone where it must be, sexes in proportion."""
    who = (animal.common,)
    count, least = Term(number, "count"), Term(animal.group_least, "count")
    found = []
    if animal.alone:
        state: State = "holds" if number == 1 else "tight" if apart else "short"
        text = "kept singly; there are {count}"
        if state == "tight":
            text += ", with room to keep out of each other's sight: watch them, and have a second tank ready"
        found.append(Finding(who, "group", state, say(text, count=count)))
    elif animal.group_least > 1:
        few: State = "tight" if number >= least_frac * animal.group_least else "short"
        state = "holds" if number >= animal.group_least else few
        found.append(
            Finding(who, "group", state, say("{count}; at ease from {least} on", count=count, least=least))
        )
    if males is not None and animal.females_per_male > 0 and males > 0 and number > 1:
        per_male = (number - males) / males
        bachelors = animal.bachelors and males >= 6 and males == number
        enough = per_male >= animal.females_per_male or bachelors
        text = "{males} males and {females} females; at least {ratio} females to each male"
        terms = {
            "males": Term(males, "count"),
            "females": Term(number - males, "count"),
            "ratio": Term(animal.females_per_male, "count"),
        }
        found.append(Finding(who, "sexes", "holds" if enough else "short", say(text, **terms)))
    return found


def suits(
    what: str, kind: str, kind_name: str, value: float, low: float, high: float, leeway: float, note: str = ""
) -> Finding:
    """Whether a value of this water lies in an animal's range, or past it by no more than a leeway."""
    terms: dict[str, Term | str] = {"value": Term(value, kind), "low": Term(low, kind), "high": Term(high, kind)}
    if not low <= value <= high:
        past = max(low - value, value - high)
        state: State = "tight" if past <= leeway else "short"
        told = note if state == "tight" else ""
        text = "{value}; it wants {low} to {high}" + (": {note}" if told else "")
        return Finding((kind_name,), what, state, say(text, **terms, **({"note": told} if told else {})))
    near = min(value - low, high - value) < 0.05 * (high - low) and value not in (0.0,)
    if near:
        return Finding((kind_name,), what, "tight", say("{value}, at the edge of {low} to {high}", **terms), near)
    return Finding((kind_name,), what, "holds", say("{value}, within {low} to {high}", **terms))


@step("animals")
def suited(
    animal: Species,
    water_c: float,
    tank_ph: float,
    tank_gh_dgh: float,
    settled_gh_dgh: float | None,
    settled_kh_dkh: float,
    tank_salinity_ppt: float,
    leeways: Leeways,
) -> tuple[Finding, ...]:
    """This water against the ranges of one kind; hardness as it is and where its changes take it."""

    def judged(place: int, value: float) -> Finding:
        what, kind, low, high = RANGES[place]
        note = animal.note if what == "salinity" else ""
        ends, leeway = range_of(animal, low, high), leeways.of(what, animal)
        return suits(what, kind, animal.common, value, *ends, leeway, note)

    values = (water_c, tank_ph, tank_gh_dgh, settled_kh_dkh, tank_salinity_ppt)
    found = [judged(place, value) for place, value in enumerate(values)]
    if settled_gh_dgh is not None and settled_gh_dgh != tank_gh_dgh:
        then = judged(HARDNESS, settled_gh_dgh)
        if worst((found[HARDNESS].state, then.state)) != found[HARDNESS].state:
            terms = {**then.sentence.terms, "now": Term(tank_gh_dgh, "hardness")}
            found[HARDNESS] = replace(
                then, sentence=Sentence(then.sentence.text + ". It settles there from {now}", terms)
            )
    if found[HARDNESS].state != "holds" and salted_hard(animal, tank_salinity_ppt, tank_gh_dgh):
        said = say("{value}, and what the sea salt adds", value=Term(tank_gh_dgh, "hardness"))
        found[HARDNESS] = Finding((animal.common,), RANGES[HARDNESS][0], "holds", said)
    return tuple(found)


def salted_hard(animal: Species, salinity_ppt: float, gh_dgh: float) -> bool:
    """Whether the salt that a kind wants makes up for what its water lacks in hardness."""
    salted = 0 < animal.salinity_low_ppt <= salinity_ppt
    return salted and gh_dgh < animal.gh_low_dgh <= gh_dgh + SEA_SALT_DGH_PER_PPT * salinity_ppt


@check("Each kind in fit company", stage="animals", mends=("animals.*.number",))
def company_fits(company: tuple[Finding, ...], animal: tuple[Species, ...]) -> Verdict:
    require_animals(animal)
    return verdict_over(list(company), "Every kind has the company it wants.")


@check("They agree with each other", stage="animals")
def pairs_agree(pairs: tuple[Finding, ...], animal: tuple[Species, ...]) -> Verdict:
    require_animals(animal)
    if len(set(animal)) < 2 and not pairs:
        raise NamedCase("one_kind")
    return verdict_over(list(pairs), "Ranges overlap and no mouth is large enough.")


@check(
    "This water suits them",
    stage="animals",
    mends=(
        "heat.target_c",
        "sources.*.src_parts",
        "recipe.target_gh_dgh",
        "water.salinity_ppt",
    ),
)
def water_suits(suited: tuple[tuple[Finding, ...], ...], animal: tuple[Species, ...]) -> Verdict:
    require_animals(animal)
    return verdict_over(
        [finding for row in suited for finding in row],
        "Temperature, pH, hardness, carbonate hardness and salinity lie in every range.",
    )
