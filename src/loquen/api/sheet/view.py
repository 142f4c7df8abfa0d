"""From a core sheet to what a page shows: values, verdicts, glasses and stages."""

from collections.abc import Iterable

from loquen.api.sheet.answers import Check, Figure, Glass, SheetAnswer, Stage
from loquen.api.sheet.drawing import Section, flow_of, saw_tooth_of, section_of
from loquen.core.graph import asking
from loquen.core.graph.engine import Key, Missing, Sheet
from loquen.core.graph.nodes import WORST_FIRST, CheckWords, Verdict, worst
from loquen.core.model.plan import Plan
from loquen.core.model.quantity import Sentence, Term, say
from loquen.core.system.animals.company import Finding
from loquen.core.system.book import GLASSES, RESULTS_OF, STAGES, sheet_of, system_book
from loquen.core.system.cases import told_case
from loquen.core.system.changes import side_by_side
from loquen.core.system.changes.regime import Regime
from loquen.core.system.filter import oxygen
from loquen.core.system.propose import growth, sump_sizing
from loquen.core.system.told import rows_of, sentence_of, verdict_of, where_known

RANGED = ("hot_dawn_oxygen_mg_l", "outage_h", "peak_nitrate_mg_l")
"""Figures whose range is shown without being asked for."""
OWN_REMEDIES = {
    "nitrate_held": side_by_side.least_work,
    "in_balance": side_by_side.least_work,
    "drain_down_fits": sump_sizing.raised_returns,
}


def view(plan: Plan, months_ahead: float | None = None) -> SheetAnswer:
    """Everything a system's page shows, computed once; for the animals full grown unless months are given."""
    sheet = sheet_of(plan, months_ahead)
    sheet.all()
    checks = sorted(checks_of(sheet), key=lambda check: list(STAGES).index(check.stage))
    least = sheet.look("least_regime")
    return SheetAnswer(
        figures={figure.key: figure for figure in figures_of(sheet)},
        checks=checks,
        glasses=glasses_of(checks),
        stages=stages_of(sheet, checks),
        schools=rows_of(sheet, "schools"),
        pairs=rows_of(sheet, "pairs"),
        company=rows_of(sheet, "company"),
        suited=found_for_each(sheet, "animals", "suited"),
        growing=[rows_of(sheet, f"planting.{i}.plant_findings") for i in range(len(plan.planting))],
        outgrown=where_known(lambda: growth.outgrown(sheet), ()),
        outage=sentence_of(sheet, "outage_result"),
        flow=where_known(lambda: flow_of(sheet), None),
        settlings=rows_of(sheet, "settlings"),
        failures=rows_of(sheet, "failures"),
        least_regime=least if isinstance(least, Regime) else None,
        regimes=rows_of(sheet, "regime_rows"),
        questions=found_for_each(sheet, "sources", "src_questions"),
        disinfectant=sheet.value("present_disinfectant"),
        card=rows_of(sheet, "card"),
        salt_days=rows_of(sheet, "salt_days"),
        bags=[sentence_of(sheet, f"bags.{i}.bag_result") for i in range(len(plan.bags))],
        batches=rows_of(sheet, "arrivals_order"),
        saw_tooth=where_known(lambda: saw_tooth_of(sheet), None),
        section=section_of(sheet),
    )


def found_for_each(sheet: Sheet, rows: str, name: str) -> list[Finding]:
    """What was found about every row of a list."""
    return [found for i in range(len(getattr(sheet.root, rows))) for found in rows_of(sheet, f"{rows}.{i}.{name}")]


def line(plan: Plan) -> tuple[Sentence, list[Glass], Section]:
    """A system in the list: its size in words, glasses and section. Only what fills a glass is judged."""
    sheet = sheet_of(plan)
    checks = list(checks_of(sheet, for_glasses=True))
    terms = {"litres": sheet.value("real_volume_l"), "count": sheet.value("animal_count")}
    kinds = {"litres": "volume", "count": "count"}
    text = "{litres} real water · {count} animals" if terms["count"] else "{litres} real water · no animals yet"
    summary = say(text, **{name: Term(value, kinds[name]) for name, value in terms.items()})
    return summary, glasses_of(checks), section_of(sheet)


def figures_of(sheet: Sheet) -> Iterable[Figure]:
    ranges = asking.spreads(sheet, RANGED)
    for key, node in sheet.wiring.nodes.items():
        if not node.label or node.check:
            continue
        value = sheet.look(key)
        if isinstance(value, Missing):
            yield Figure(key, node.label, node.kind, None, None, None, told_case(value.case)[1])
        else:
            low, high = ranges.get(key, (None, None))
            yield Figure(key, node.label, node.kind, float(value), low, high, None)


def checks_of(sheet: Sheet, for_glasses: bool = False) -> Iterable[Check]:
    """Every check that applies, with remedies where it falls short; for glasses only those that fill one, without."""
    for key, node in sheet.wiring.nodes.items():
        if node.check is None or (for_glasses and not node.check.glass):
            continue
        verdict = verdict_of(sheet, key)
        if verdict is None:
            continue
        solve = verdict.state == "short" and not for_glasses
        yield checked(sheet, key, node.label, node.check, verdict, solve)


def checked(sheet: Sheet, key: Key, label: str, words: CheckWords, verdict: Verdict, solve: bool) -> Check:
    solutions = [*OWN_REMEDIES.get(key, lambda _: [])(sheet), *asking.remedies(sheet, key)] if solve else []
    ends = oxygen.at_better_end(sheet) if solve and key == "dawn_breathes" else None
    reason = verdict.reason
    if ends is not None:
        reason = say(f"{reason.text} {ends.text}", **reason.terms, **ends.terms)
    return Check(
        key=key,
        label=label,
        stage=words.stage,
        state=verdict.state,
        headline=verdict.headline,
        reason=reason,
        figure=words.judges,
        gauge=verdict.gauge,
        remedies=solutions,
        caution=words.caution,
    )


def glasses_of(checks: list[Check]) -> list[Glass]:
    """One glass per kind of check: the worst of its checks fills it."""
    book_glass = {key: node.check.glass for key, node in system_book().nodes.items() if node.check}
    glasses = []
    for glass, label in GLASSES.items():
        members = [check for check in checks if book_glass[check.key] == glass]
        if not members:
            continue
        decisive = min(members, key=lambda check: WORST_FIRST.index(check.state))
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
    if gauge is None:
        return check.headline
    terms = {"value": Term(gauge.value, gauge.kind, bare=True)}
    if gauge.low is not None and gauge.high is not None:
        ends = {"low": Term(gauge.low, gauge.kind, bare=True), "high": Term(gauge.high, gauge.kind)}
        return say("{value}, in {low} to {high}", **terms, **ends)
    if gauge.high is not None:
        return say("{value}, at most {high}", **terms, high=Term(gauge.high, gauge.kind))
    return say("{value}, at least {low}", **terms, low=Term(gauge.low or 0.0, gauge.kind))


def stages_of(sheet: Sheet, checks: list[Check]) -> list[Stage]:
    stages = []
    for key, label in STAGES.items():
        states = [check.state for check in checks if check.stage == key]
        state = worst(states) if states else "holds"
        result = sentence_of(sheet, RESULTS_OF[key])
        stages.append(Stage(key=key, label=label, state=state, result=result))
    return stages
