"""Ways out of one check: what the planner's levers would do for it alone, and what one input would, solved."""

from loquen.core.graph import asking
from loquen.core.graph.engine import Key, Sheet
from loquen.core.graph.nodes import Remedy
from loquen.core.model.plan import Plan
from loquen.core.model.quantity import say
from loquen.core.system.planner.levers import LEVERS
from loquen.core.system.planner.standing import Standing, difference, sensible
from loquen.core.system.planner.words import joined, moved

QUICK = ("regime", "returns", "warmed", "hardness", "chiller")
"""Levers with a step or three: what they would do is known while a page is open. The others wait to be asked to settle."""


def ways_out(sheet: Sheet[Plan], check: Key) -> list[Remedy]:
    """Changes that bring a check up by themselves: of the quick levers, then of single inputs that they do not move."""
    now, found = Standing(sheet.root, sheet=sheet), []
    taken: set[Key] = set()
    for lever in LEVERS:
        if lever.key not in QUICK or not lever.bears_on(now, check):
            continue
        for plan in lever.steps(now, check):
            then = now.other(plan)
            if then.holds(check) and sensible(plan) and then.short < now.short:
                changes = difference(now.plan, plan)
                rows = moved(sheet, now.plan, changes)
                told = [say(f"{row.label}: {row.after.text}", **row.after.terms) for row in rows]
                found.append(Remedy(joined(told, ", "), changes))
                taken |= changes.keys()
                break
    return found + [remedy for remedy in asking.remedies(sheet, check) if not taken & remedy.changes.keys()]
