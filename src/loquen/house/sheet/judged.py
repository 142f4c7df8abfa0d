"""From any sheet to what its page is told: figures, verdicts with their remedies, glasses and stages."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from loquen.core.graph import asking
from loquen.core.graph.keys import Key, Missing
from loquen.core.graph.nodes import WORST_FIRST, CheckWords, Node, Remedy, State, Verdict, worst
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.system.cases import told_case
from loquen.core.system.told import sentence_of, verdict_of
from loquen.house.sheet.answers import Check, Figure, Glass, Stage

OwnRemedies = Mapping[str, Callable[[Sheet], list[Remedy]]]


@dataclass(frozen=True)
class Told:
    """A sheet that a page was told of, with what was said of it: what hangs on the same values is said by the same objects."""

    sheet: Sheet
    figures: Mapping[Key, Figure]
    checks: Mapping[Key, Check]

    def stands(self, key: Key, value: Any) -> bool:
        """Whether a figure or check had this very value."""
        return self.sheet.known.get(key, self) is value


def figures_of(sheet: Sheet, before: Told | None = None) -> dict[Key, Figure]:
    """Every figure's value, or why there is none."""
    return {key: figure_of(sheet, key, node, before) for key, node in sheet.wiring.figures}


def figure_of(sheet: Sheet, key: Key, node: Node, before: Told | None) -> Figure:
    value = sheet.look(key)
    if before is not None and key in before.figures and before.stands(key, value):
        return before.figures[key]
    if isinstance(value, Missing):
        return Figure(key, node.label, node.kind, None, None, None, told_case(value.case)[1])
    return Figure(key, node.label, node.kind, float(value), None, None, None)


def checks_of(
    sheet: Sheet,
    own_remedies: OwnRemedies | None = None,
    for_glasses: bool = False,
    before: Told | None = None,
) -> Iterable[Check]:
    """Every check that applies; with remedies where it falls short when there are own ones; for glasses those that fill one."""
    for key, node in sheet.wiring.checks:
        if node.check is None or (for_glasses and not node.check.glass):
            continue
        if before is not None and key in before.checks and before.stands(key, sheet.look(key)):
            yield before.checks[key]
            continue
        verdict = verdict_of(sheet, key)
        if verdict is None:
            continue
        solve = verdict.state == "short" and own_remedies is not None
        own = own_remedies[key](sheet) if solve and own_remedies and key in own_remedies else []
        yield checked(key, node.label, node.check, verdict, [*own, *asking.remedies(sheet, key)] if solve else [])


def checked(key: Key, label: str, words: CheckWords, verdict: Verdict, solutions: list[Remedy]) -> Check:
    return Check(
        key=key,
        label=label,
        stage=words.stage,
        state=verdict.state,
        headline=verdict.headline,
        reason=verdict.reason,
        figure=words.judges,
        gauge=verdict.gauge,
        remedies=solutions,
        caution=words.caution,
    )


def glasses_of(sheet: Sheet, checks: list[Check], labels: Mapping[str, str]) -> list[Glass]:
    """One glass per kind of check: the worst of its checks fills it."""
    nodes = sheet.wiring.nodes
    filling: dict[str, list[Check]] = {}
    for check in checks:
        words = nodes[check.key].check
        filling.setdefault(words.glass if words else "", []).append(check)
    glasses = []
    for glass, label in labels.items():
        if glass not in filling:
            continue
        decisive = min(filling[glass], key=lambda check: WORST_FIRST.index(check.state))
        glasses.append(
            Glass(
                key=glass,
                label=label,
                state=decisive.state,
                check=decisive.key,
                stage=decisive.stage,
                headline=level_of(decisive),
                gauge=decisive.gauge,
            )
        )
    return glasses


def level_of(check: Check) -> Sentence:
    """What a glass says: how high it stands and where its limit is; the check's headline where it has no gauge."""
    gauge = check.gauge
    if gauge is None or check.state == "measure":
        return check.headline
    terms = {"value": Term(gauge.value, gauge.kind, bare=True)}
    if gauge.low is not None and gauge.high is not None:
        ends = {"low": Term(gauge.low, gauge.kind, bare=True), "high": Term(gauge.high, gauge.kind)}
        return say("{value}, in {low} to {high}", **terms, **ends)
    if gauge.high is not None:
        return say("{value}, at most {high}", **terms, high=Term(gauge.high, gauge.kind))
    return say("{value}, at least {low}", **terms, low=Term(gauge.low or 0.0, gauge.kind))


def stages_of(sheet: Sheet, checks: list[Check], labels: Mapping[str, str]) -> list[Stage]:
    """Each stage with the worst of its checks and its result in a sentence."""
    states: dict[str, list[State]] = {}
    for check in checks:
        states.setdefault(check.stage, []).append(check.state)
    stages = []
    for key, label in labels.items():
        state = worst(states[key]) if key in states else "holds"
        result = sentence_of(sheet, f"{key}_result")
        stages.append(Stage(key=key, label=label, state=state, result=result))
    return stages
