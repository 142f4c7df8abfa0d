"""Ways out of one check: what the planner's levers would do for it alone, and what one input would, solved."""

from loquen.core.graph import asking
from loquen.core.graph.keys import Key
from loquen.core.graph.nodes import Remedy
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import joined, say
from loquen.core.model.roots.plan import Plan
from loquen.core.system.planner.lawful import lawful
from loquen.core.system.planner.levers import LEVERS
from loquen.core.system.planner.standing import Standing, applied, difference
from loquen.core.system.planner.words import moved

QUICK = (
    *("hot_lid", "regime", "hard_regime", "returns", "warmed", "hardness", "minerals", "salt", "topped_up", "mix"),
    *("sun", "fan", "chiller"),
)
"""Levers with a step or three: what they would do is known while a page is open. The others wait to be asked to settle."""


class WaysOut:
    """The ways out of the checks of one sheet; what was tried for one check is not tried again for the next."""

    def __init__(self, sheet: Sheet[Plan]) -> None:
        self.now = Standing(sheet.root, sheet.library, sheet=sheet)
        self.tried: list[tuple[Plan, Standing]] = []

    def of(self, check: Key) -> list[Remedy]:
        """Changes that bring a check up by themselves and nothing else down: of the quick levers, then of single inputs
        that they do not move."""
        found, taken = [], set[Key]()
        for lever in LEVERS:
            if lever.key not in QUICK or not lever.bears_on(self.now, check):
                continue
            plan = next((plan for plan in lever.steps(self.now, check) if self.mends(plan, check)), None)
            changes = difference(self.now.plan, plan) if plan is not None else {}
            # Many changes are not told beside a few that are easy.
            if not changes.keys() <= taken:
                rows = moved(self.now.sheet, self.now.plan, changes)
                told = [say(f"{row.label}: {row.after.text}", **row.after.terms) for row in rows]
                found.append(Remedy(joined(told, ", "), changes))
                taken |= changes.keys()
        single = [one for one in asking.remedies(self.now.sheet, check) if not taken & one.changes.keys()]
        return found + [one for one in single if self.mends(applied(self.now.plan, one.changes), check)]

    def mends(self, plan: Plan, check: Key) -> bool:
        """Whether a plan has the check up, nothing down that stood, and breaks no rule that a check does not see."""
        then = next((then for known, then in self.tried if known == plan), None)
        if then is None:
            then = self.now.other(plan)
            self.tried.append((plan, then))
        return then.holds(check) and bool(then.short < self.now.short) and lawful(self.now, then, check)


def ways_out(sheet: Sheet[Plan], check: Key) -> list[Remedy]:
    """The ways out of one check."""
    return WaysOut(sheet).of(check)
