"""Who lives with whom: each group by itself, every pair, and every animal in this water."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache, partial
from itertools import combinations
from typing import NamedTuple

from loquen.core.data.bodies import body_shapes
from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import State, Verdict, check, step, worst
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.keeping import Lid
from loquen.core.model.inputs.quantity import Sentence, Term, joined, say
from loquen.core.system.animals.food import length_in, require_animals

CURRENTS = ("still", "gentle", "moderate", "strong")
STREAM_AND_STILL = 2
SLIPS_OUT = ("eel", "frog", "salamander")
"""Bodies that a gap for a pipe lets out."""
MONTHS_WATCHED = 24
Lengths = dict[str, tuple[float, float]]
PLANT_AND_MEAT = {"herbivore", "carnivore"}


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing found about an animal or a pair: what was compared, how it stands, and why."""

    who: tuple[str, ...]
    what: str
    state: State
    sentence: Sentence
    near: bool = False
    """Inside its range, though close to the edge."""


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


USUAL_DEPTH = body_shapes()["deep"].depth_frac


def bulk_cm(prey: Species, prey_cm: float) -> float:
    """The length of a prey of usual depth that is no easier to swallow: a disc or a ball counts by its depth."""
    shape = body_shapes().get(prey.shape)
    return prey_cm * max(1.0, shape.depth_frac / USUAL_DEPTH) if shape else prey_cm


class Meeting(NamedTuple):
    """The longest of one against the shortest of another, and whether it could be swallowed."""

    hunter: Species
    hunter_cm: float
    prey: Species
    prey_cm: float

    @property
    def state(self) -> State:
        gape_cm, bulk = self.hunter.gape_frac * self.hunter_cm, bulk_cm(self.prey, self.prey_cm)
        return "short" if bulk < gape_cm else "tight" if bulk < 1.25 * gape_cm else "holds"

    @property
    def finding(self) -> Finding:
        terms: dict[str, Term | str] = {
            "prey": self.prey.common,
            "length": Term(self.prey_cm, "length"),
            "gape": Term(self.hunter.gape_frac * self.hunter_cm, "length"),
            "hunter": self.hunter.common,
        }
        state = self.state
        text = (
            "{prey}, {length} long, fits in the mouth of {hunter}, which takes up to {gape}"
            if state == "short"
            else "{prey} outgrows the mouth of {hunter} by its {length} against {gape}; its young do not"
        )
        return Finding((self.hunter.common, self.prey.common), "mouth", state, say(text, **terms))


def tempers(a: Species, b: Species) -> Finding | None:
    who = (a.common, b.common)
    rough = {"fierce", "hunter"}
    if (a.temper in rough) != (b.temper in rough) and not (a.crowd and b.crowd):
        strong, weak = (a, b) if a.temper in rough else (b, a)
        text = "{strong} is {temper}; {weak} is {other}" + (", but armoured" if weak.armoured else "")
        terms = {"strong": strong.common, "temper": strong.temper, "weak": weak.common, "other": weak.temper}
        at_risk = weak.temper == "peaceful" and not weak.armoured
        return Finding(who, "temper", "short" if at_risk else "tight", say(text, **terms))
    if "nippy" in (a.temper, b.temper) and {a.current, b.current} & {"still"}:
        return Finding(who, "temper", "tight", say("one nips, the other is slow or long-finned"))
    return None


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


@dataclass(frozen=True, slots=True)
class Growing:
    """The shortest and the longest of every kind, in every month from today to when they are planned for."""

    months: tuple[Lengths, ...]

    @property
    def label(self) -> str:
        return f"{len(self.months) - 1} months"

    def worst(self, meeting: Callable[[Lengths], Meeting]) -> Finding:
        """What is found at the worst of all months, with the first month it stands so badly unless that is today."""
        met = [meeting(lengths) for lengths in self.months]
        states = [one.state for one in met]
        first = states.index(worst(states))
        found = met[first].finding
        if first == 0 or found.state == "holds":
            return found
        text = found.sentence.text + ", from about {when} on"
        return replace(found, sentence=Sentence(text, {**found.sentence.terms, "when": Term(first, "months")}))


def eaten(a: Species, b: Species, lengths: Lengths) -> Meeting:
    """Who could swallow whom, the longest of one against the shortest of the other."""
    (a_short, a_long), (b_short, b_long) = lengths[a.key], lengths[b.key]
    return Meeting(a, a_long, b, b_short) if a_long >= b_long else Meeting(b, b_long, a, a_short)


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
    habits = (tempers(a, b), diets(a, b), currents(a, b))
    return waters, tuple(finding for finding in habits if finding is not None)


def lengths_of(animal: tuple[Species, ...], lengths_cm: list[float]) -> Lengths:
    """The shortest and the longest of every kind."""
    lengths: Lengths = {}
    for kind, length in zip(animal, lengths_cm, strict=True):
        low, high = lengths.get(kind.key, (length, length))
        lengths[kind.key] = (min(low, length), max(high, length))
    return lengths


@step()
def sizes_to_come(
    animal: tuple[Species, ...],
    length_now_cm: tuple[float, ...],
    length_then_cm: tuple[float, ...],
    adult_length_cm: tuple[float, ...],
    judged_months: float,
) -> Growing:
    """Month by month for two years, or as far as is planned, and then as long as they are planned for."""
    rows = list(zip(animal, length_now_cm, adult_length_cm, strict=True))
    grown = all(now >= then for now, then in zip(length_now_cm, length_then_cm, strict=True))
    ahead = 0 if grown else int(min(judged_months, MONTHS_WATCHED))
    monthly = [
        lengths_of(animal, [length_in(month, adult, now, kind) for kind, now, adult in rows])
        for month in range(ahead + 1)
    ]
    return Growing((*monthly, lengths_of(animal, list(length_then_cm))))


@step()
def pairs(animal: tuple[Species, ...], sizes_to_come: Growing, leeways: Leeways) -> tuple[Finding, ...]:
    """Every pair of kinds aboard, and of two sizes of one kind; mouths as they are today and as they grow."""
    kinds = list(dict.fromkeys(animal))
    found = [finding for a, b in combinations(kinds, 2) for finding in pair_findings(a, b, sizes_to_come, leeways)]
    within = [sizes_to_come.worst(partial(among, kind)) for kind in kinds]
    return (*found, *(finding for finding in within if finding.state != "holds"))


def among(kind: Species, lengths: Lengths) -> Meeting:
    """The longest of a kind against its shortest; nobody swallows its like of one size."""
    low, high = lengths[kind.key]
    return Meeting(kind, high if high > low else 0.0, kind, low)


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
    if males is not None and animal.females_per_male > 0 and males > 0:
        per_male = (number - males) / males
        enough = per_male >= animal.females_per_male or males >= 6
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


DEADLY = ("mouth", "temper")
"""What kills at once, in this order."""
MOST_TOLD = 6


def dies_first(finding: Finding) -> tuple[bool, int]:
    """Who dies first comes first; what is only near comes last."""
    return finding.near, DEADLY.index(finding.what) if finding.what in DEADLY else len(DEADLY)


def told(finding: Finding) -> Sentence:
    """A finding as one sentence: who, in what, and how."""
    text = "{who}, {what}: " + finding.sentence.text + "."
    terms = {"who": Term(" and ".join(finding.who)), "what": Term(finding.what)}
    return Sentence(text, {**finding.sentence.terms, **terms})


def verdict_over(findings: list[Finding], fine: str) -> Verdict:
    """One verdict over many findings: the worst decide, and all of these are told, who dies first on top."""
    state = worst([finding.state for finding in findings] or ["holds"])
    bad = [finding for finding in findings if finding.state in ("short", "tight")]
    short = sum(finding.state == "short" for finding in bad)
    if not bad:
        return Verdict("holds", 0.0, say("all agree"), say(fine))
    worst_ones = sorted((finding for finding in bad if finding.state == state), key=dies_first)
    said = [told(finding) for finding in worst_ones[:MOST_TOLD]]
    if len(worst_ones) > MOST_TOLD:
        said.append(say("And {more} more.", more=Term(len(worst_ones) - MOST_TOLD, "count")))
    headline = say("{count} to settle", count=Term(len(bad), "count"))
    return Verdict(state, -float(short) if short else 0.0, headline, joined(said, " "))


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


def held(kind: Species, length_cm: float, free_cm: float) -> bool:
    """Whether the bare glass over the water holds a turtle: it does not climb what is higher than it is long."""
    return kind.shape == "turtle" and free_cm > length_cm


KEEPS_IN = ("nobody", "jumpers", "all")


@check("None can leave", stage="animals", mends=("heat.lid", "heat.hot_day_lid"))
def none_leaves(
    animal: tuple[Species, ...],
    length_then_cm: tuple[float, ...],
    lid_row: Lid,
    hot_lid_row: Lid,
    inside_height_cm: float,
    water_height_cm: float,
) -> Verdict:
    require_animals(animal)
    # Judged on the day on which it keeps the fewest in.
    keeps_in = min((lid_row.keeps_in, hot_lid_row.keeps_in), key=KEEPS_IN.index)
    free_cm = inside_height_cm - water_height_cm
    leaving = list(dict.fromkeys(kind for kind in animal if kind.jumper))
    if not leaving:
        return Verdict("holds", 1.0, say("no jumper"), say("None of these is known to jump or climb."))
    leavers = ", ".join(kind.common for kind in leaving)
    if keeps_in == "all":
        return Verdict("holds", 1.0, say("lid closed"), say("{who} jump or climb; the lid is closed.", who=leavers))
    if keeps_in == "jumpers":
        slim = ", ".join(kind.common for kind in leaving if kind.shape in SLIPS_OUT)
        if not slim:
            reason = say("{who} jump; the glass lies over them.", who=leavers)
            return Verdict("holds", 1.0, say("lid closed"), reason)
        reason = say("{who} climb and slip through what is left open for a pipe: stop every gap.", who=slim)
        return Verdict("tight", 0.0, say("gaps in the lid"), reason)
    if all(held(kind, length, free_cm) for kind, length in zip(animal, length_then_cm, strict=True) if kind.jumper):
        text = "{who} climb: the glass stands {free} over the water, more than their shell; measure from the highest foothold."
        reason = say(text, who=leavers, free=Term(free_cm, "length"))
        return Verdict("tight", 0.0, say("glass over their reach"), reason)
    reason = say("{who} jump or climb: the lid has to close, measured from the highest foothold.", who=leavers)
    return Verdict("short", -1.0, say("lid not closed"), reason)
