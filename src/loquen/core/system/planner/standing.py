"""A plan and its sheet as the planner sees them: what falls short, and what it takes of room, work and power."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from loquen.core.graph.asking import number
from loquen.core.graph.keys import Key
from loquen.core.graph.nodes import Verdict
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.system.book import sheet_of
from loquen.core.system.heat.energy import running_kwh
from loquen.core.system.told import asks_of, verdict_of

Changes = dict[Key, Any]
"""New values by path; under the name of a list, all of its rows."""


@dataclass(frozen=True, slots=True)
class Takes:
    """What a plan takes: floor, water, hands, change water, electricity, and water that is purified."""

    footprint_m2: float
    litres: float
    work_min: float
    change_l_wk: float
    year_kwh: float
    year_money: float
    pure_l_wk: float


class Standing:
    """A plan, its sheet, and which of its checks fall short. A change is evaluated on the sheet that is there."""

    def __init__(
        self, plan: Plan, library: Library, months_ahead: float | None = None, sheet: Sheet[Plan] | None = None
    ) -> None:
        self.plan = plan
        self.library = library
        self.months_ahead = months_ahead
        self.sheet = sheet if sheet is not None else sheet_of(plan, library, months_ahead)

    def __getattr__(self, name: str) -> Any:
        # Reckoned when first asked for: most of what is tried is asked for one thing only.
        if name == "short":
            self.short = frozenset(key for key in check_keys(self.sheet) if falls_short(self.sheet, key))
            return self.short
        raise AttributeError(name)

    def other(self, plan: Plan) -> "Standing":
        """Another plan, on this sheet where its lists are as long; raise ValueError for one that contradicts itself."""
        if PLAN.counts(plan) != PLAN.counts(self.plan):
            return Standing(plan, self.library, self.months_ahead)
        return Standing(plan, self.library, self.months_ahead, self.sheet.moved_to(plan))

    def holds(self, key: Key) -> bool:
        return not falls_short(self.sheet, key)

    def margin(self, key: Key) -> float:
        verdict = verdict_of(self.sheet, key)
        return verdict.margin if verdict is not None else 0.0

    def tight(self) -> tuple[Sentence, ...]:
        """What is tight, each in the words of its glass and list."""
        nodes = self.sheet.wiring.nodes
        found = ((key, verdict_of(self.sheet, key)) for key in check_keys(self.sheet))
        return tuple(
            Sentence(
                "{check}: " + verdict.headline.text, {**verdict.headline.terms, "check": Term(nodes[key].label)}
            )
            for key, verdict in found
            if verdict and verdict.state == "tight"
        )

    def asks(self) -> tuple[Sentence, ...]:
        """What has to be measured or asked before all of it holds, each thing once."""
        entries = [self.sheet.book.shape.entry_at(path) for path in asks_of(self.sheet)]
        hows = dict.fromkeys(entry.untold.how for entry in entries if entry is not None and entry.untold)
        return tuple(say(how) for how in hows)

    def takes(self) -> Takes:
        def known(key: Key) -> float:
            return number(self.sheet, key) or 0.0

        return Takes(
            known("display_m2"),
            known("real_volume_l"),
            known("work_min"),
            known("change_l_wk"),
            running_kwh(self.sheet) + known("poured_kwh"),
            known("electricity_money"),
            known("pure_l_wk"),
        )


def check_keys(sheet: Sheet[Plan]) -> tuple[Key, ...]:
    return tuple(key for key, _ in sheet.wiring.checks)


def falls_short(sheet: Sheet[Plan], key: Key) -> bool:
    found = sheet.look(key)
    if isinstance(found, Verdict):
        return found.state == "short"
    verdict = verdict_of(sheet, key)
    return verdict is not None and verdict.state == "short"


def sensible(plan: Plan, library: Library) -> bool:
    """Whether the plan's parts do not contradict each other."""
    return not conflicts(plan, library)


def difference(before: Plan, after: Plan) -> Changes:
    """What leads from one plan to another: values by path, whole lists where rows came or went."""
    found: Changes = {}
    counts_before, counts_after = dict(PLAN.counts(before)), dict(PLAN.counts(after))
    whole = {section for section in PLAN.rows if counts_before[section] != counts_after[section]}
    found.update({section: getattr(after, section) for section in whole})
    old = dict(PLAN.leaves(before))
    for path, value in PLAN.leaves(after):
        if path.split(".")[0] not in whole and old[path] != value:
            found[path] = value
    return found


def applied(plan: Plan, changes: Mapping[Key, Any]) -> Plan:
    """The plan with changes made; lists first, then the values in them."""
    lists = {path: rows for path, rows in changes.items() if path in PLAN.rows}
    values = {path: value for path, value in changes.items() if path not in PLAN.rows}
    return PLAN.changed(replace(plan, **lists) if lists else plan, values)
