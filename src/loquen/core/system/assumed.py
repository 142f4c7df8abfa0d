"""What a plan assumes: usual values that stand in for what nobody told, those that decide most first."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache

from loquen.core.data.tables import toml
from loquen.core.graph.asking import label_of
from loquen.core.graph.keys import Key
from loquen.core.graph.nodes import State
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Quantity, Term
from loquen.core.model.inputs.told import is_told
from loquen.core.model.roots.plan import Plan
from loquen.core.system.source.waters import CLEAN_KINDS
from loquen.core.system.told import verdict_of

MOST = 5
"""More than these are a wall of questions."""
RANK: dict[State, int] = {"holds": 0, "unknown": 0, "measure": 0, "tight": 1, "short": 2}
SHORT_WEIGHT = 3


@dataclass(frozen=True, slots=True)
class Assumed:
    """One usual value that stands in: what it is, and the checks that could come out worse were it another."""

    path: Key
    label: str
    value: Term
    low: Term
    high: Term
    decides: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Usual:
    """How far the truth usually lies from what stands in."""

    low: float
    high: float


@cache
def usual() -> dict[str, Usual]:
    return {path: Usual(row["low"], row["high"]) for path, row in toml("assumed.toml").items()}


def candidates(sheet: Sheet[Plan]) -> Iterator[tuple[Key, Usual]]:
    """The inputs that stand in for what nobody told, in this plan."""
    plan = sheet.root
    for pattern, ends in usual().items():
        section, *rest = pattern.split(".")
        if section == "sources":
            for i, row in enumerate(plan.sources):
                if row.src_parts > 0 and row.src_kind not in CLEAN_KINDS:
                    yield f"sources.{i}.{rest[-1]}", ends
        elif not (plan.sources and pattern.startswith("water.source_")):
            yield pattern, ends


def assumed(sheet: Sheet[Plan]) -> tuple[Assumed, ...]:
    """What a plan assumes that decides anything: each input moved to both ends of what is usual, and the checks that come
    out worse counted, those that would fall short thrice."""
    checks = {key: node.label for key, node in sheet.wiring.checks}
    now = {key: state_of(sheet, key) for key in checks}
    found = []
    for path, ends in candidates(sheet):
        if is_told(path, sheet.root.told.told_on):
            continue
        entry = sheet.book.shape.entry_at(path)
        assert isinstance(entry, Quantity)
        worse: dict[Key, int] = {}
        for end in (ends.low, ends.high):
            then = sheet.changed({path: end})
            for key in checks.keys() & sheet.wiring.users_of(path):
                state = RANK[state_of(then, key)]
                if state > RANK[now[key]]:
                    worse[key] = max(worse.get(key, 0), state)
        if worse:
            weight = sum(SHORT_WEIGHT if state == RANK["short"] else 1 for state in worse.values())
            decides = tuple(checks[key] for key in sorted(worse, key=lambda key: -worse[key]))
            value, low, high = (Term(v, entry.kind) for v in (sheet.known[path], ends.low, ends.high))
            found.append((weight, Assumed(path, called(sheet, path), value, low, high, decides)))
    found.sort(key=lambda row: -row[0])
    return tuple(row for _, row in found[:MOST])


def called(sheet: Sheet[Plan], path: Key) -> str:
    """An input's label, of a water with its name."""
    section, *rest = path.split(".")
    label = label_of(sheet, path)
    return f"{label} of {sheet.root.sources[int(rest[0])].src_name}" if section == "sources" else label


def state_of(sheet: Sheet[Plan], key: Key) -> State:
    verdict = verdict_of(sheet, key)
    return "holds" if verdict is None else verdict.state
