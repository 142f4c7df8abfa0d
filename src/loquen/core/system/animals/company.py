"""Who lives with whom: each group by itself, every pair, and every animal in this water."""

from dataclasses import dataclass
from itertools import combinations

from loquen.core.data.library import Species
from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import WORST_FIRST, State, Verdict, check, step, worst
from loquen.core.model.quantity import Sentence, Term, say
from loquen.core.system.animals.food import require_animals

CURRENTS = ("still", "gentle", "moderate", "strong")
STREAM_AND_STILL = 2
Lengths = dict[str, tuple[float, float]]
PLANT_AND_MEAT = {"herbivore", "carnivore"}


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing found about an animal or a pair: what was compared, how it stands, and why."""

    who: tuple[str, ...]
    what: str
    state: State
    sentence: Sentence


def overlap(
    what: str, kind: str, a: Species, b: Species, first: tuple[float, float], second: tuple[float, float]
) -> Finding:
    """Whether two ranges share anything: tight when they share under a tenth of the narrower."""
    low, high = max(first[0], second[0]), min(first[1], second[1])
    who = (a.common, b.common)
    if low > high:
        text = "no {what} suits both: {low} is the least of one, {high} the most of the other"
        return Finding(who, what, "short", say(text, what=what, low=Term(low, kind), high=Term(high, kind)))
    narrow = min(first[1] - first[0], second[1] - second[0])
    state: State = "tight" if high - low < 0.1 * narrow else "holds"
    text = "they share {low} to {high}"
    return Finding(who, what, state, say(text, low=Term(low, kind), high=Term(high, kind)))


def mouths(hunter: Species, hunter_cm: float, prey: Species, prey_cm: float) -> Finding:
    """Whether one could swallow the other at these lengths."""
    gape_cm = hunter.gape_frac * hunter_cm
    terms: dict[str, Term | str] = {
        "prey": prey.common,
        "length": Term(prey_cm, "length"),
        "gape": Term(gape_cm, "length"),
        "hunter": hunter.common,
    }
    if prey_cm < gape_cm:
        return Finding(
            (hunter.common, prey.common),
            "mouth",
            "short",
            say("{prey}, {length} long, fits in the mouth of {hunter}, which takes up to {gape}", **terms),
        )
    near: State = "tight" if prey_cm < 1.25 * gape_cm else "holds"
    return Finding(
        (hunter.common, prey.common),
        "mouth",
        near,
        say("{prey} outgrows the mouth of {hunter} by its {length} against {gape}; its young do not", **terms),
    )


def tempers(a: Species, b: Species) -> Finding | None:
    who = (a.common, b.common)
    rough = {"fierce", "hunter"}
    if (a.temper in rough) != (b.temper in rough) and not (a.crowd and b.crowd):
        strong, weak = (a, b) if a.temper in rough else (b, a)
        text = "{strong} is {temper}; {weak} is {other}"
        terms = {"strong": strong.common, "temper": strong.temper, "weak": weak.common, "other": weak.temper}
        return Finding(who, "temper", "short" if weak.temper == "peaceful" else "tight", say(text, **terms))
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


def eaten(a: Species, b: Species, times: tuple[Lengths, ...]) -> Finding:
    """Who could swallow whom, the longest of one against the shortest of the other, at the worst of some times."""
    found = []
    for lengths in times:
        (a_short, a_long), (b_short, b_long) = lengths[a.key], lengths[b.key]
        found.append(mouths(a, a_long, b, b_short) if a_long >= b_long else mouths(b, b_long, a, a_short))
    return min(found, key=lambda finding: WORST_FIRST.index(finding.state))


def pair_findings(a: Species, b: Species, times: tuple[Lengths, ...]) -> list[Finding]:
    """Everything compared between two kinds."""
    found: list[Finding | None] = [
        overlap("temperature", "temperature", a, b, (a.temp_low_c, a.temp_high_c), (b.temp_low_c, b.temp_high_c)),
        overlap("pH", "ph", a, b, (a.ph_low, a.ph_high), (b.ph_low, b.ph_high)),
        overlap("hardness", "hardness", a, b, (a.gh_low_dgh, a.gh_high_dgh), (b.gh_low_dgh, b.gh_high_dgh)),
        overlap(
            "carbonate hardness",
            "carbonate",
            a,
            b,
            (a.kh_low_dkh, a.kh_high_dkh),
            (b.kh_low_dkh, b.kh_high_dkh),
        ),
        overlap(
            "salinity",
            "salinity",
            a,
            b,
            (a.salinity_low_ppt, a.salinity_high_ppt),
            (b.salinity_low_ppt, b.salinity_high_ppt),
        ),
        eaten(a, b, times),
        tempers(a, b),
        diets(a, b),
        currents(a, b),
    ]
    return [finding for finding in found if finding is not None]


def lengths_of(animal: tuple[Species, ...], lengths_cm: tuple[float, ...]) -> Lengths:
    """The shortest and the longest of every kind."""
    lengths: Lengths = {}
    for kind, length in zip(animal, lengths_cm, strict=True):
        low, high = lengths.get(kind.key, (length, length))
        lengths[kind.key] = (min(low, length), max(high, length))
    return lengths


@step()
def pairs(
    animal: tuple[Species, ...], length_now_cm: tuple[float, ...], length_then_cm: tuple[float, ...]
) -> tuple[Finding, ...]:
    """Every pair of kinds aboard, and of two sizes of one kind; mouths as they are today and as they grow."""
    times = (lengths_of(animal, length_now_cm), lengths_of(animal, length_then_cm))
    kinds = list(dict.fromkeys(animal))
    found = [finding for a, b in combinations(kinds, 2) for finding in pair_findings(a, b, times)]
    within = [
        mouths(kind, high, kind, low)
        for kind in kinds
        for low, high in [max((time[kind.key] for time in times), key=lambda span: span[1] / span[0])]
        if high > low
    ]
    return (*found, *(finding for finding in within if finding.state != "holds"))


@step()
def company(
    animal: tuple[Species, ...], number: tuple[int, ...], males: tuple[int | None, ...], crowd_least: float
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
            found += group_findings(kind, counts[kind.key], known)
    return tuple(found)


def group_findings(animal: Species, number: int, males: int | None) -> list[Finding]:
    """Enough company, alone where it must be, sexes in proportion."""
    who = (animal.common,)
    count, least = Term(number, "count"), Term(animal.group_least, "count")
    found = []
    if animal.alone:
        state: State = "holds" if number == 1 else "short"
        found.append(Finding(who, "group", state, say("kept singly; there are {count}", count=count)))
    elif animal.group_least > 1:
        state = "holds" if number >= animal.group_least else "short"
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


def suits(what: str, kind: str, kind_name: str, value: float, low: float, high: float) -> Finding:
    """Whether a value of this water lies in an animal's range."""
    terms = {"value": Term(value, kind), "low": Term(low, kind), "high": Term(high, kind)}
    if not low <= value <= high:
        return Finding((kind_name,), what, "short", say("{value}; it wants {low} to {high}", **terms))
    near = min(value - low, high - value) < 0.05 * (high - low) and value not in (0.0,)
    return Finding(
        (kind_name,), what, "tight" if near else "holds", say("{value}, within {low} to {high}", **terms)
    )


@step("animals")
def suited(
    animal: Species,
    water_c: float,
    tank_ph: float,
    tank_gh_dgh: float,
    settled_kh_dkh: float,
    tank_salinity_ppt: float,
) -> tuple[Finding, ...]:
    """This water against the ranges of one kind."""
    name = animal.common
    return (
        suits("temperature", "temperature", name, water_c, animal.temp_low_c, animal.temp_high_c),
        suits("pH", "ph", name, tank_ph, animal.ph_low, animal.ph_high),
        suits("hardness", "hardness", name, tank_gh_dgh, animal.gh_low_dgh, animal.gh_high_dgh),
        suits("carbonate hardness", "carbonate", name, settled_kh_dkh, animal.kh_low_dkh, animal.kh_high_dkh),
        suits("salinity", "salinity", name, tank_salinity_ppt, animal.salinity_low_ppt, animal.salinity_high_ppt),
    )


def verdict_over(findings: list[Finding], fine: str) -> Verdict:
    """One verdict over many findings: the worst decides, and is the one that is told."""
    state = worst([finding.state for finding in findings] or ["holds"])
    bad = [finding for finding in findings if finding.state in ("short", "tight")]
    short = sum(finding.state == "short" for finding in bad)
    if not bad:
        return Verdict("holds", 0.0, say("all agree"), say(fine))
    first = next(finding for finding in bad if finding.state == state)
    reason = say("{who}, {what}: " + first.sentence.text + ".", who=" and ".join(first.who), what=first.what)
    reason = Sentence(reason.text, {**reason.terms, **first.sentence.terms})
    headline = say("{count} to settle", count=Term(len(bad), "count"))
    return Verdict(state, -float(short) if short else 0.0, headline, reason)


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
        "water.tank_ph",
        "water.tank_gh_dgh",
        "water.source_kh_dkh",
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


@check("None can leave", stage="animals", mends=("heat.lid",))
def none_leaves(
    animal: tuple[Species, ...],
    length_then_cm: tuple[float, ...],
    lid: str,
    inside_height_cm: float,
    water_height_cm: float,
) -> Verdict:
    require_animals(animal)
    free_cm = inside_height_cm - water_height_cm
    climbers = [
        kind
        for kind, length in zip(animal, length_then_cm, strict=True)
        if kind.jumper and not held(kind, length, free_cm)
    ]
    leavers = ", ".join(dict.fromkeys(kind.common for kind in animal if kind.jumper))
    if leavers and lid != "closed" and not climbers:
        text = "{who} climb: the glass stands {free} over the water, more than their shell; measure from the highest foothold."
        reason = say(text, who=leavers, free=Term(free_cm, "length"))
        return Verdict("tight", 0.0, say("glass over their reach"), reason)
    if not leavers:
        return Verdict("holds", 1.0, say("no jumper"), say("None of these is known to jump or climb."))
    if lid == "closed":
        return Verdict("holds", 1.0, say("lid closed"), say("{who} jump or climb; the lid is closed.", who=leavers))
    reason = say("{who} jump or climb: the lid has to close, measured from the highest foothold.", who=leavers)
    return Verdict("short", -1.0, say("lid not closed"), reason)
