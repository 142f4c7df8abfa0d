"""What no advice may do, whatever it mends: the rules that a check by itself does not see."""

from loquen.core.graph.keys import Key
from loquen.core.graph.nodes import WORST_FIRST, State
from loquen.core.library.whole import Library
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.system.planner.practice import usual
from loquen.core.system.planner.standing import Standing, difference, sensible
from loquen.core.system.planner.steps.changing import delicate
from loquen.core.system.told import rows_of

SOFTENED = ("no_shock", "gas_borne", "stays_covered")
"""Checks of what a change does: none is mended by a larger one."""
MOST_CHANGED, MOST_CHANGED_DELICATE = usual("advised_at_once_frac"), usual("delicate_advised_at_once_frac")
FOUND = ("company", "pairs", "clashes")
Finding = tuple[tuple[str, ...], str]


def lawful(before: Standing, after: Standing, mended: Key) -> bool:
    """Whether a plan may be advised in the place of another, to mend a check.

    It makes sense; moves nothing that is a fact or was read; enlarges no change that it softens, nor any to more than is
    advised; leaves no kind under its group; and sets no animal worse against another or against its water.
    """
    return (
        sensible(after.plan, before.library)
        and not touches_what_is(before.plan, after.plan)
        and not changes_too_much(before.plan, after.plan, mended, before.library)
        and not breaks_a_group(before.plan, after.plan, before.library)
        and not sets_worse(before, after)
    )


def touches_what_is(before: Plan, after: Plan) -> bool:
    """Whether anything differs that nobody decides: a fact, or what was read. Rows that come are bought."""
    for path in difference(before, after):
        entry = PLAN.entry_at(path)
        if path not in PLAN.rows and entry is not None and entry.given in ("fact", "reading"):
            return True
    return False


def changes_too_much(before: Plan, after: Plan, mended: Key, library: Library) -> bool:
    now, then = before.changes.change_frac, after.changes.change_frac
    if then <= now:
        return False
    most = MOST_CHANGED_DELICATE if delicate(after, library) else MOST_CHANGED
    return mended in SOFTENED or then > most


def counts(plan: Plan) -> dict[str, int]:
    found: dict[str, int] = {}
    for group in plan.animals:
        found[group.species] = found.get(group.species, 0) + group.number
    return found


def breaks_a_group(before: Plan, after: Plan, library: Library) -> bool:
    """Whether some of a kind go and the rest are fewer than are at ease; all of them may go."""
    then = counts(after)
    return any(
        0 < then.get(key, 0) < min(number, library.species[key].group_least)
        for key, number in counts(before).items()
        if then.get(key, 0) < number
    )


def findings(standing: Standing) -> dict[Finding, State]:
    """What is found about every animal: its company, each pair, its water; the worst of the same."""
    sheet, found = standing.sheet, dict[Finding, State]()
    rows = [row for key in FOUND for row in rows_of(sheet, key)]
    for i in range(len(standing.plan.animals)):
        rows += rows_of(sheet, f"animals.{i}.suited")
    for row in rows:
        key = (row.who, row.what)
        found[key] = min((row.state, found.get(key, "holds")), key=WORST_FIRST.index)
    return found


def sets_worse(before: Standing, after: Standing) -> bool:
    """Whether any falls short with another, or in its water, that did not before."""
    now = findings(before)
    return any(state == "short" and now.get(key) != "short" for key, state in findings(after).items())
