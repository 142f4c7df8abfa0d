"""Who drives whom: between any two kinds and within one, and the ways of keeping them in which nobody is."""

import math
from dataclasses import dataclass
from itertools import combinations
from typing import NamedTuple

from loquen.core.graph.nodes import WORST_FIRST, State, Verdict, check, figure, step
from loquen.core.library.rows.animals import Species
from loquen.core.model.inputs.quantity import Term, say
from loquen.core.system.animals.findings import Finding, verdict_over
from loquen.core.system.animals.food import require_animals

ROUGH = ("fierce", "territorial")
BITES = ("turtle",)
"""Bodies that bite pieces off what they can not swallow."""
QUICK_LENGTHS = 9.0
"""Of its own lengths a tank must have for a kind that swims all day: it is quick."""
FEW_MALES = range(2, 6)
SPREADS = 5
"""Least company of a kind whose chases spread over so many that no one is hunted."""


class Kept(NamedTuple):
    """All of one kind aboard: how many, the longest and shortest planned for, males and females where they are known."""

    kind: Species
    number: int
    long_cm: float
    short_cm: float
    males: int | None

    @property
    def females(self) -> int | None:
        return None if self.males is None else self.number - self.males

    @property
    def grounds(self) -> float:
        """How many of them hold a ground of their own."""
        if self.kind.holds_ground == "nothing":
            return 0.0
        return float(self.males or max(1, math.ceil(self.number / 2)))


@step()
def kept_kinds(
    animal: tuple[Species, ...],
    number: tuple[int, ...],
    males: tuple[int | None, ...],
    length_then_cm: tuple[float, ...],
) -> tuple[Kept, ...]:
    """Every kind aboard, all its groups together."""
    found: dict[str, Kept] = {}
    for kind, count, known, length in zip(animal, number, males, length_then_cm, strict=True):
        before = found.get(kind.key, Kept(kind, 0, length, length, 0))
        of_both = None if known is None or before.males is None else before.males + known
        lengths = (max(before.long_cm, length), min(before.short_cm, length))
        found[kind.key] = Kept(kind, before.number + count, *lengths, of_both)
    return tuple(found.values())


def territory_m2(kept: Kept, pair_lengths: float, single_lengths: float) -> float:
    """The floor that those of a kind hold against others: a circle for each, wider where they breed."""
    lengths = pair_lengths if kept.number > 1 else single_lengths
    return kept.grounds * math.pi * (lengths * kept.kind.adult_length_cm / 100) ** 2


@figure(
    "Floor that they hold",
    formula="Σ π × ({territory_pair_lengths} adult lengths where they breed, {territory_single_lengths} for one alone)² of "
    "{kept_kinds}",
    source="practice",
)
def territories_m2(
    kept_kinds: tuple[Kept, ...], territory_pair_lengths: float, territory_single_lengths: float
) -> float:
    return sum(territory_m2(kept, territory_pair_lengths, territory_single_lengths) for kept in kept_kinds)


@dataclass(frozen=True, slots=True)
class Peace:
    """The ways in which rough ones are kept and nobody is driven to death: which of them this plan is."""

    crowd: bool
    bachelors: bool
    raised: bool
    room: bool

    @property
    def label(self) -> str:
        names = ("a crowd", "males alone", "grown up together", "room for each")
        stands = [
            name
            for name, is_so in zip(names, (self.crowd, self.bachelors, self.raised, self.room), strict=True)
            if is_so
        ]
        return ", ".join(stands) or "none of the schools"


@step()
def peace(
    kept_kinds: tuple[Kept, ...],
    crowd_least: float,
    raised_together: bool,
    hides: bool,
    display_m2: float,
    territories_m2: float,
) -> Peace:
    crowding = [kept for kept in kept_kinds if kept.kind.crowd]
    few = [kept for kept in crowding if kept.males in FEW_MALES]
    holders = [kept for kept in kept_kinds if kept.kind.holds_ground != "nothing"]
    dressed = [kept.kind.looks or kept.kind.scientific.split()[0] for kept in holders]
    alone = all(kept.males == kept.number == 1 and kept.kind.bachelors for kept in holders)
    return Peace(
        crowd=sum(kept.number for kept in crowding) >= crowd_least and not few,
        bachelors=len(holders) > 1 and alone and len(set(dressed)) == len(dressed),
        raised=raised_together,
        room=hides and display_m2 >= territories_m2,
    )


def alike(a: Species, b: Species) -> bool:
    """Whether one takes the other for its own: of a genus and a body, or in the same dress."""
    of_a_genus = a.scientific.split()[0] == b.scientific.split()[0] and a.shape == b.shape
    return of_a_genus or (bool(a.looks) and a.looks == b.looks and a.shape == b.shape)


def strikes(a: Kept, b: Kept, fights_from: float, of_its_size: float) -> tuple[State, str]:
    """How one kind stands against another, and why, in words that name {a} and {b}."""
    one, other = a.kind, b.kind
    if a.long_cm < fights_from * one.adult_length_cm:
        return "holds", ""
    sized, larger = b.long_cm >= of_its_size * a.long_cm, b.short_cm * of_its_size > a.long_cm
    if one.alone and (other.alone or other.temper == "fierce") and sized and not larger:
        return "short", "{a} is kept singly, without {b} or any other so fierce beside it"
    taken_for_own = alike(one, other)
    if one.temper == "fierce":
        return fierce(one, other, sized, larger, taken_for_own)
    if one.temper == "hunter":
        return hunting(a, b)
    if one.temper == "territorial" and one.drives_off in ("alike", "smaller", "all") and taken_for_own and sized:
        return "tight", "{a} holds a place, and takes {b} for its own"
    if one.temper == "nippy" and one.shape != "shrimp":
        if other.long_fins:
            return "short", "{a} bites fins, and {b} has long ones"
        if other.current == "still" and not other.armoured:
            return "tight", "{a} bites fins, and {b} is slow"
    return "holds", ""


def fierce(one: Species, other: Species, sized: bool, larger: bool, taken_for_own: bool) -> tuple[State, str]:
    reaches_all = one.drives_off in ("all", "smaller")
    of_a_family = one.family == other.family
    if (taken_for_own and one.drives_off != "own_males") or (
        of_a_family and one.alone and other.temper == "fierce"
    ):
        return "short", "{a} fights {b}, which it takes for its own"
    if other.shape in ("shrimp", "snail"):
        return "tight", "{a} is fierce, and picks at {b}"
    if not reaches_all:
        near = (of_a_family and one.alone) or (one.alone and other.long_fins)
        return ("tight", "{a} takes {b} for a rival: fins and feelers are bitten") if near else ("holds", "")
    if sized and not larger and other.temper == "fierce":
        return "short", "{a} and {b} are both fierce: one of them is driven to death"
    if sized and not larger and other.temper == "territorial":
        return "short", "{a} is fierce, and {b} holds a place that it wants"
    if other.armoured:
        return "tight", "{a} is fierce; {b} is armoured"
    if larger or quick(other) or apart(one, other):
        return "tight", "{a} is fierce; {b} keeps out of its way"
    return "short", "{a} is fierce, and {b} has nowhere to go"


def hunting(a: Kept, b: Kept) -> tuple[State, str]:
    one, other = a.kind, b.kind
    if other.armoured or other.shape in ("snail", "shrimp"):
        return "holds", ""
    if one.shape in BITES and other.shape not in BITES:
        if quick(other):
            return "tight", "{a} bites pieces off what it catches; {b} is quick"
        return "short", "{a} bites pieces off what it catches, and {b} is slow"
    if other.temper == "peaceful" and b.short_cm < a.long_cm:
        return "tight", "{a} hunts: {b} is too large for its mouth, and never at rest"
    return "holds", ""


def quick(kind: Species) -> bool:
    return kind.length_ratio >= QUICK_LENGTHS or kind.current == "strong"


def apart(one: Species, other: Species) -> bool:
    return "all" not in (one.level, other.level) and one.level != other.level


def borne(state: State, a: Species, b: Species, peace: Peace) -> tuple[State, str]:
    """A clash as it stands in this company, and the school by which it is borne."""
    if state != "short":
        return ("holds", "") if peace.crowd and a.crowd and b.crowd else (state, "")
    worst_of_them = "fierce" in (a.temper, b.temper)
    if peace.crowd and a.crowd and b.crowd:
        note = "; borne in a crowd alone: it comes last, and goes first"
        return ("tight", note) if worst_of_them else ("holds", "")
    if peace.bachelors and a.bachelors and b.bachelors:
        return "tight", "; one male of each and no female: watch who colours"
    if peace.raised:
        return "tight", "; grown up together: watch from when they colour"
    if peace.room:
        return "tight", "; there is floor for each, out of sight: watch, and have a second tank ready"
    return state, ""


@step()
def clashes(
    kept_kinds: tuple[Kept, ...], peace: Peace, fights_from_frac: float, rival_from_frac: float
) -> tuple[Finding, ...]:
    """Every two kinds, the worse way round, and every kind within itself."""
    found = []
    for a, b in combinations(kept_kinds, 2):
        ways = [(*strikes(x, y, fights_from_frac, rival_from_frac), x, y) for x, y in ((a, b), (b, a))]
        state, why, one, other = min(ways, key=lambda way: WORST_FIRST.index(way[0]))
        state, note = borne(state, one.kind, other.kind, peace)
        if why and state != "holds":
            terms = {"a": one.kind.common, "b": other.kind.common}
            found.append(Finding((a.kind.common, b.kind.common), "temper", state, say(why + note, **terms)))
    among_males = (males_of(kept, peace) for kept in kept_kinds)
    return (*found, *(finding for finding in among_males if finding is not None))


def males_of(kept: Kept, peace: Peace) -> Finding | None:
    """What several males of a kind do to each other, where its males fight."""
    kind, males = kept.kind, kept.males
    fight = kind.temper in ROUGH and kind.females_per_male > 0 and kind.drives_off not in ("nobody", "smaller")
    shoal = not kind.crowd and kept.number >= kind.group_least >= SPREADS
    if not fight or kept.number < 2 or kind.alone or shoal:
        return None
    who = (kind.common,)
    if males is None:
        return Finding(
            who, "males", "measure", say("how many of them are males? Two to five fight until one is left")
        )
    count = Term(males, "count")
    if males in FEW_MALES and kept.females == 0 and males == kept.number and peace.raised:
        return Finding(
            who, "males", "tight", say("{count} males grown up together: watch from when they colour", count=count)
        )
    if males in FEW_MALES:
        state: State = "tight" if peace.room or peace.raised else "short"
        return Finding(
            who, "males", state, say("{count} males: one drives the others; one, or six and more", count=count)
        )
    if males > 1 and kept.females == 0 and not kind.bachelors:
        return Finding(who, "males", "short", say("{count} males without females are not kept so", count=count))
    return None


@check("Nobody is driven", stage="animals", mends=("animals.*.number",))
def peace_kept(clashes: tuple[Finding, ...], animal: tuple[Species, ...]) -> Verdict:
    require_animals(animal)
    return verdict_over(list(clashes), "None of them drives another.")
