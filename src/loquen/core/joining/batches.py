"""In what order the animals of a plan go in, how many at once, and from which day on the filter carries them."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from math import ceil

from loquen.core.data.tables import constants
from loquen.core.errors import NamedCase
from loquen.core.graph.asking import number
from loquen.core.library.rows.animals import Species
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.plan import Plan
from loquen.core.system.book import sheet_of

RANKS = {"peaceful": 0, "nippy": 1, "territorial": 2, "fierce": 3, "hunter": 4}
HOLDS_GROUND = ("territorial", "fierce")


@dataclass(frozen=True, slots=True)
class Joins:
    """Some of a group of the plan that go in together."""

    place: int
    kind: Species
    count: int
    length_cm: float


@dataclass(frozen=True, slots=True)
class Batch:
    """Who goes in on one day: no sooner than the filter carries them, and some weeks after those before.

    `ready_d` is None where the filter never carries them.
    """

    day: date
    ready_d: float | None
    joins: tuple[Joins, ...]
    why: Sentence


def to_join(plan: Plan, living: Mapping[str, int], library: Library) -> list[Joins]:
    """Those of the plan that do not live there yet: the peaceful and the small first, hunters and the large last."""
    left = dict(living)
    found = []
    sheet = sheet_of(plan, library, 0.0)
    for place, group in enumerate(plan.animals):
        here = min(group.number, left.get(group.species, 0))
        left[group.species] = left.get(group.species, 0) - here
        if here < group.number:
            length = number(sheet, f"animals.{place}.length_now_cm") or 0.0
            found.append(Joins(place, library.species[group.species], group.number - here, length))
    return sorted(found, key=lambda row: (RANKS[row.kind.temper], row.kind.adult_length_cm))


def batches(plan: Plan, living: Mapping[str, int], today: date, library: Library) -> list[Batch]:
    """The days on which they go in.

    Those who hold ground in a crowd go in at once, as do the fewest that a kind is kept in; of all others half a group
    goes first where the filter does not carry the whole of it by then. The day is the first on which the media are
    mature enough for all that are in it by then, and so many days after the batch before.
    """
    gap = round(constants("joining.toml")["gap_d"].value)
    inside = {place: group.number for place, group in enumerate(plan.animals)}
    waiting = to_join(plan, living, library)
    for row in waiting:
        inside[row.place] -= row.count
    found: list[Batch] = []
    ground = any(holds_ground(row.kind) for row in waiting)
    for rows in lots(waiting):
        earliest = (found[-1].day - today).days + gap if found else 0
        for part in parts(plan, inside, rows, earliest, library):
            for row in part:
                inside[row.place] += row.count
            ready = ready_in_d(plan, inside, library)
            earliest = (found[-1].day - today).days + gap if found else 0
            days = max(earliest, ceil(ready) if ready is not None else 0)
            words = why(part, ready, earliest, ground=ground, first=not found)
            found.append(Batch(today + timedelta(days=days), ready, part, words))
    return found


def holds_ground(kind: Species) -> bool:
    return kind.temper in HOLDS_GROUND


def lots(waiting: Sequence[Joins]) -> list[tuple[Joins, ...]]:
    """Kinds that are kept as a crowd go in together, every other by itself."""
    crowd = tuple(row for row in waiting if row.kind.crowd)
    found: list[tuple[Joins, ...]] = []
    for row in waiting:
        if row.kind.crowd and len(crowd) > 1:
            if crowd not in found:
                found.append(crowd)
        else:
            found.append((row,))
    return found


def parts(
    plan: Plan, inside: Mapping[int, int], rows: tuple[Joins, ...], earliest: int, library: Library
) -> list[tuple[Joins, ...]]:
    """All of a lot at once, or in two halves where that spares waiting for the filter and leaves no group too small."""
    if len(rows) > 1 or rows[0].kind.crowd or holds_ground(rows[0].kind):
        return [rows]
    row = rows[0]
    half = max(1, row.kind.group_least, row.count // 2)
    whole, less = (
        ready_in_d(plan, {**inside, row.place: inside[row.place] + count}, library)
        for count in (row.count, min(half, row.count))
    )
    if half >= row.count or whole is None or less is None or whole <= max(earliest, less):
        return [rows]
    return [(replace(row, count=half),), (replace(row, count=row.count - half),)]


def ready_in_d(plan: Plan, inside: Mapping[int, int], library: Library) -> float | None:
    """Days until the filter carries those inside, 0 where it does; None where it never will."""
    groups = tuple(
        with_number(group, inside[place]) for place, group in enumerate(plan.animals) if inside.get(place, 0) > 0
    )
    run_in = replace(plan.run_in, stands="set_up", stocked="now")
    sheet = sheet_of(replace(plan, animals=groups, run_in=run_in), library, 0.0)
    try:
        found: float = sheet.value("mature_in_d")
        return found
    except NamedCase as case:
        return None if case.code == "never_mature_enough" else 0.0


def with_number(group: Group, count: int) -> Group:
    """A part of a group: its males by their share, its weighed food too."""
    share = count / group.number
    males = None if group.males is None else round(group.males * share)
    return replace(group, number=count, males=males, weighed_g_d=group.weighed_g_d * share)


def why(rows: Sequence[Joins], ready_d: float | None, earliest: int, *, ground: bool, first: bool) -> Sentence:
    """What the day hangs on, and why they go in now."""
    kind = rows[0].kind
    if len(rows) > 1 or kind.crowd:
        begins = "All at once, so that nobody holds the whole ground: "
    elif holds_ground(kind):
        begins = (
            "All of them together, for they hold their ground: " if first else "Late, for they hold their ground: "
        )
    elif kind.temper == "hunter":
        begins = "Last, for they hunt: "
    else:
        begins = (
            "Before those who hold ground: " if ground else "The peaceful and the small first: " if first else ""
        )
    if ready_d is None:
        text = "the filter never carries them; see the Filter stage."
    elif ready_d > earliest:
        text = "the filter carries them in {days}."
    elif earliest:
        text = "the filter carries them by then, and those before have settled."
    else:
        text = "the filter carries them today."
    text = begins + text
    return say(text[0].upper() + text[1:], days=Term(ceil(ready_d or 0), "days"))
