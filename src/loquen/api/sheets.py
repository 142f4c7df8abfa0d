"""From a core sheet to what a page shows: values, verdicts, glasses and stages."""

from collections.abc import Iterable

from loquen.api.drawing import flow_of, saw_tooth_of, section_of
from loquen.api.schemas import sheet as out
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
from loquen.core.system.changes.side_by_side import RegimeRow
from loquen.core.system.propose import growth, sumps
from loquen.core.system.told import rows_of, sentence_of, verdict_of, where_known

RANGED = ("dawn_oxygen_mg_l", "outage_h", "peak_nitrate_mg_l")
"""Figures whose range is shown without being asked for."""
OWN_REMEDIES = {
    "nitrate_held": side_by_side.least_work,
    "in_balance": side_by_side.least_work,
    "drain_down_fits": sumps.raised_returns,
}


def view(plan: Plan, months_ahead: float | None = None) -> out.SheetOut:
    """Everything a system's page shows, computed once; for the animals full grown unless months are given."""
    sheet = sheet_of(plan, months_ahead)
    sheet.all()
    checks = sorted(checks_of(sheet), key=lambda check: list(STAGES).index(check.stage))
    return out.SheetOut(
        figures={figure.key: figure for figure in figures_of(sheet)},
        checks=checks,
        glasses=glasses_of(checks),
        stages=stages_of(sheet, checks),
        schools=schools_of(sheet),
        pairs=findings(rows_of(sheet, "pairs")),
        company=findings(f for i in range(len(plan.animals)) for f in rows_of(sheet, f"animals.{i}.company")),
        suited=findings(f for i in range(len(plan.animals)) for f in rows_of(sheet, f"animals.{i}.suited")),
        outgrown=[
            out.OutgrownOut(check=row.check, label=row.label, months=row.months)
            for row in where_known(lambda: growth.outgrown(sheet), ())
        ],
        outage=out.SentenceOut.of(sentence_of(sheet, "outage_result")),
        flow=where_known(lambda: flow_of(sheet), None),
        failures=[out.FailureOut(label=row.label, temps_c=list(row.temps_c)) for row in rows_of(sheet, "failures")],
        least_regime=least_regime_of(sheet),
        regimes=[regime_row(row) for row in rows_of(sheet, "regime_rows")],
        questions=findings(
            f for i in range(len(plan.sources)) for f in rows_of(sheet, f"sources.{i}.src_questions")
        ),
        card=[out.SentenceOut.of(line) for line in rows_of(sheet, "card")],
        salt_days=[
            out.SaltDayOut(**{name: getattr(row, name) for name in out.SaltDayOut.model_fields})
            for row in rows_of(sheet, "salt_days")
        ],
        bags=[out.SentenceOut.of(sentence_of(sheet, f"bags.{i}.bag_result")) for i in range(len(plan.bags))],
        batches=[
            out.BatchOut(name=name, tub=tub, enters=enters, leaves=leaves)
            for name, tub, enters, leaves in rows_of(sheet, "arrivals_order")
        ],
        saw_tooth=where_known(lambda: saw_tooth_of(sheet), None),
        section=section_of(sheet),
    )


def line(plan: Plan) -> tuple[Sentence, list[out.GlassOut], out.SectionOut]:
    """A system in the list: its size in words, glasses and section. Only what fills a glass is judged."""
    sheet = sheet_of(plan)
    checks = list(checks_of(sheet, for_glasses=True))
    terms = {"litres": sheet.value("real_volume_l"), "count": sheet.value("animal_count")}
    kinds = {"litres": "volume", "count": "count"}
    text = "{litres} real water · {count} animals" if terms["count"] else "{litres} real water · no animals yet"
    summary = say(text, **{name: Term(value, kinds[name]) for name, value in terms.items()})
    return summary, glasses_of(checks), section_of(sheet)


def figures_of(sheet: Sheet) -> Iterable[out.FigureOut]:
    ranges = asking.spreads(sheet, RANGED)
    for key, node in sheet.wiring.nodes.items():
        if not node.label or node.check:
            continue
        value = sheet.look(key)
        if isinstance(value, Missing):
            reason = out.SentenceOut.of(told_case(value.case)[1])
            yield out.FigureOut(key=key, label=node.label, kind=node.kind, value=None, missing=reason)
        else:
            low, high = ranges.get(key, (None, None))
            yield out.FigureOut(key=key, label=node.label, kind=node.kind, value=float(value), low=low, high=high)


def checks_of(sheet: Sheet, for_glasses: bool = False) -> Iterable[out.CheckOut]:
    """Every check that applies, with remedies where it falls short; for glasses only those that fill one, without."""
    for key, node in sheet.wiring.nodes.items():
        if node.check is None or (for_glasses and not node.check.glass):
            continue
        verdict = verdict_of(sheet, key)
        if verdict is None:
            continue
        solve = verdict.state == "short" and not for_glasses
        yield checked(sheet, key, node.label, node.check, verdict, solve)


def checked(sheet: Sheet, key: Key, label: str, words: CheckWords, verdict: Verdict, solve: bool) -> out.CheckOut:
    solutions = [*OWN_REMEDIES.get(key, lambda _: [])(sheet), *asking.remedies(sheet, key)] if solve else []
    return out.CheckOut(
        key=key,
        label=label,
        stage=words.stage,
        state=verdict.state,
        headline=out.SentenceOut.of(verdict.headline),
        reason=out.SentenceOut.of(verdict.reason),
        figure=words.judges,
        gauge=out.GaugeOut.of(verdict.gauge) if verdict.gauge else None,
        remedies=[out.RemedyOut.of(remedy) for remedy in solutions],
        caution=words.caution,
    )


def glasses_of(checks: list[out.CheckOut]) -> list[out.GlassOut]:
    """One glass per kind of check: the worst of its checks fills it."""
    book_glass = {key: node.check.glass for key, node in system_book().nodes.items() if node.check}
    glasses = []
    for glass, label in GLASSES.items():
        members = [check for check in checks if book_glass[check.key] == glass]
        if not members:
            continue
        decisive = min(members, key=lambda check: WORST_FIRST.index(check.state))
        glasses.append(
            out.GlassOut(
                key=glass,
                label=label,
                state=decisive.state,
                check=decisive.key,
                stage=decisive.stage,
                headline=decisive.headline,
                gauge=decisive.gauge,
            )
        )
    return glasses


def stages_of(sheet: Sheet, checks: list[out.CheckOut]) -> list[out.StageOut]:
    stages = []
    for key, label in STAGES.items():
        states = [check.state for check in checks if check.stage == key]
        state = worst(states) if states else "holds"
        result = out.SentenceOut.of(sentence_of(sheet, RESULTS_OF[key]))
        stages.append(out.StageOut(key=key, label=label, state=state, result=result))
    return stages


def schools_of(sheet: Sheet) -> list[out.SchoolOut]:
    return [
        out.SchoolOut(
            key=school.key,
            label=school.label,
            state=school.state,
            share=school.share,
            allows=out.SentenceOut.of(school.allows),
            why=school.why,
            applies=school.applies,
            binds=school.binds,
            picked=school.picked,
        )
        for school in rows_of(sheet, "schools")
    ]


def findings(found: Iterable[Finding]) -> list[out.FindingOut]:
    return [
        out.FindingOut(
            who=list(finding.who),
            what=finding.what,
            state=finding.state,
            sentence=out.SentenceOut.of(finding.sentence),
        )
        for finding in found
    ]


def least_regime_of(sheet: Sheet) -> out.RegimeOut | None:
    regime = sheet.look("least_regime")
    if not isinstance(regime, Regime):
        return None
    return out.RegimeOut(
        weekdays=list(regime.weekdays),
        change_frac=regime.change_frac,
        peak_nitrate_mg_l=regime.peak_nitrate_mg_l,
        change_l_wk=regime.change_l_wk,
        work_min=regime.work_min,
    )


def regime_row(row: RegimeRow) -> out.RegimeRowOut:
    values = {name: getattr(row, name) for name in out.RegimeRowOut.model_fields if name != "saw"}
    saw = [out.Corner(day=day, nitrate=level) for day, level in row.saw]
    return out.RegimeRowOut(**{**values, "weekdays": list(row.weekdays)}, saw=saw)
