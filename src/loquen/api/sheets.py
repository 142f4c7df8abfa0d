"""From a core sheet to what a page shows: values, verdicts, glasses, stages, and the working of a figure."""

import math
from collections.abc import Iterable
from typing import Any

from loquen.api.schemas import sheet as out
from loquen.core.data.tables import constants, sources
from loquen.core.model.fields import entry_at
from loquen.core.model.plan import Plan
from loquen.core.model.quantity import Choice, Quantity, Sentence, Term, say
from loquen.core.sheet import asking, life
from loquen.core.sheet.book import GLASSES, RESULTS_OF, STAGES, sheet_of, system_book
from loquen.core.sheet.changes import Regime, RegimeRow
from loquen.core.sheet.company import Finding
from loquen.core.sheet.engine import CONSTANT, Key, Missing, Sheet
from loquen.core.sheet.nodes import WORST_FIRST, CheckWords, Verdict, worst
from loquen.core.sheet.words import told_case

RANGED = ("dawn_oxygen_mg_l", "outage_h", "peak_nitrate_mg_l")
"""Figures whose range is shown without being asked for."""
INAPPLICABLE = {
    "not_needed",
    "no_crowd_fish",
    "one_kind",
    "no_trap",
    "no_sump",
    "no_disinfectant",
    "chloramine_stays",
}
"""Named cases in which a check does not apply to this plan at all."""
OWN_REMEDIES = {"nitrate_held": asking.least_work, "in_balance": asking.least_work}


def view(plan: Plan, months_ahead: float | None = None) -> out.SheetOut:
    """Everything a system's page shows, computed once; for the animals full grown unless months are given."""
    sheet = asked_sheet(plan, months_ahead)
    sheet.all()
    checks = sorted(checks_of(sheet), key=lambda check: list(STAGES).index(check.stage))
    return out.SheetOut(
        figures={figure.key: figure for figure in figures_of(sheet)},
        checks=checks,
        glasses=glasses_of(checks),
        stages=stages_of(sheet, checks),
        schools=schools_of(sheet),
        pairs=findings(listed(sheet, "pairs")),
        company=findings(f for i in range(len(plan.animals)) for f in listed(sheet, f"animals.{i}.company")),
        suited=findings(f for i in range(len(plan.animals)) for f in listed(sheet, f"animals.{i}.suited")),
        outgrown=[
            out.OutgrownOut(check=row.check, label=row.label, months=row.months) for row in life.outgrown(sheet)
        ],
        outage=out.SentenceOut.of(sentence_of(sheet, "outage_result")),
        flow=flow_of(sheet),
        failures=[out.FailureOut(label=row.label, temps_c=list(row.temps_c)) for row in listed(sheet, "failures")],
        least_regime=least_regime_of(sheet),
        regimes=[regime_row(row) for row in listed(sheet, "regime_rows")],
        questions=findings(
            f for i in range(len(plan.sources)) for f in listed(sheet, f"sources.{i}.src_questions")
        ),
        card=[out.SentenceOut.of(line) for line in listed(sheet, "card")],
        salt_days=[
            out.SaltDayOut(**{name: getattr(row, name) for name in out.SaltDayOut.model_fields})
            for row in listed(sheet, "salt_days")
        ],
        batches=[
            out.BatchOut(batch=batch, tub=tub, enters=enters, leaves=leaves)
            for batch, tub, enters, leaves in listed(sheet, "arrivals_order")
        ],
        saw_tooth=saw_tooth_of(sheet),
        section=section_of(sheet),
    )


def asked_sheet(plan: Plan, months_ahead: float | None) -> Sheet:
    """The sheet of a plan at the date asked about."""
    return sheet_of(plan) if months_ahead is None else sheet_of(plan, months_ahead=months_ahead)


def line(plan: Plan) -> tuple[Sentence, list[out.GlassOut], out.SectionOut]:
    """A system in the list: its size in words, glasses and section. Remedies are not solved."""
    sheet = sheet_of(plan)
    checks = list(checks_of(sheet, with_remedies=False))
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


def checks_of(sheet: Sheet, with_remedies: bool = True) -> Iterable[out.CheckOut]:
    for key, node in sheet.wiring.nodes.items():
        if node.check is None:
            continue
        verdict = verdict_of(sheet, key)
        if verdict is None:
            continue
        short = verdict.state == "short"
        yield checked(sheet, key, node.label, node.check, verdict, solve=short and with_remedies)


def verdict_of(sheet: Sheet, key: Key) -> Verdict | None:
    """A check's verdict; a named case as a verdict without a margin; None where it does not apply."""
    value = sheet.look(key)
    if not isinstance(value, Missing):
        return value if isinstance(value, Verdict) else None
    if value.case.code in INAPPLICABLE:
        return None
    state, sentence = told_case(value.case)
    headline = say({"short": "can not", "holds": "never"}.get(state, "not known yet"))
    return Verdict(state, -1.0 if state == "short" else 0.0, headline, sentence)


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
        remedies=[
            out.RemedyOut(sentence=out.SentenceOut.of(remedy.sentence), changes=dict(remedy.changes))
            for remedy in solutions
        ],
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


def sentence_of(sheet: Sheet, key: Key) -> Sentence:
    """A step's sentence, or that of the named case in its place."""
    found = sheet.look(key)
    sentence: Sentence = told_case(found.case)[1] if isinstance(found, Missing) else found
    return sentence


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
        for school in listed(sheet, "schools")
    ]


def listed(sheet: Sheet, key: Key) -> tuple[Any, ...]:
    """A list that a step made, empty where a named case stands."""
    value = sheet.look(key)
    return () if isinstance(value, Missing) else value


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


def saw_tooth_of(sheet: Sheet) -> out.SawToothOut | None:
    if isinstance(sheet.look("saw_tooth"), Missing):
        return None
    feed = constants()["feed_scale"]
    low, likely, high = (
        [
            out.Corner(day=day, nitrate=level)
            for day, level in sheet.changed({CONSTANT + "feed_scale": scale}).value("saw_tooth")
        ]
        for scale in (feed.low, feed.value, feed.high)
    )
    return out.SawToothOut(
        likely=likely,
        low=low,
        high=high,
        source=sheet.value("new_nitrate_mg_l"),
        target=sheet.plan.changes.target_nitrate_mg_l,
    )


def section_of(sheet: Sheet) -> out.SectionOut:
    plan, tank = sheet.plan, sheet.plan.tank
    return out.SectionOut(
        shape=tank.shape,
        length_cm=sheet.value("inside_length_cm"),
        width_cm=sheet.value("inside_width_cm"),
        height_cm=sheet.value("inside_height_cm"),
        water_cm=sheet.value("water_height_cm"),
        pane_cm=tank.pane_mm / 10,
        bed=tank.bed,
        bed_front_cm=tank.bed_front_cm if tank.bed != "none" else 0.0,
        bed_back_cm=tank.bed_back_cm if tank.bed != "none" else 0.0,
        rock_l=sheet.value("rock_displaced_l"),
        wood_l=tank.wood_l,
        plants=tank.plants,
        plant_cover_frac=tank.plant_cover_frac,
        closed=plan.heat.lid == "closed",
        heated=plan.heat.heated,
        filters=[row.filter_kind for row in plan.filters],
        tank_count=tank.tank_count,
        heaters_in=plan.heat.heaters_in if plan.flow.way != "none" else "tank",
        overflow=overflow_of(sheet),
        sump=sump_of(sheet),
        animals=[
            out.AnimalDrawn(
                label=sheet.value(f"animals.{i}.animal").common,
                shape=sheet.value(f"animals.{i}.animal").shape,
                length_cm=sheet.value(f"animals.{i}.adult_length_cm"),
                number=group.number,
                level=sheet.value(f"animals.{i}.animal").level,
            )
            for i, group in enumerate(plan.animals)
        ],
    )


def flow_of(sheet: Sheet) -> out.FlowOut | None:
    """The Flow stage's curves and cases; None without a sump or a return."""
    curve = sheet.look("curves")
    if isinstance(curve, Missing):
        return None
    return out.FlowOut(
        pump=[out.FlowPoint(flow=flow, head=head) for flow, head in curve.pump],
        system=[out.FlowPoint(flow=flow, head=head) for flow, head in curve.system],
        outlets_lph=list(sheet.value("outlet_flows")),
        cases=[
            out.FlowCaseOut(**{name: getattr(row, name) for name in out.FlowCaseOut.model_fields})
            for row in listed(sheet, "flow_cases")
        ],
        sump=out.SentenceOut.of(sentence_of(sheet, "sump_result")),
    )


def overflow_of(sheet: Sheet) -> out.OverflowDrawn | None:
    flow = sheet.plan.flow
    if flow.way == "none":
        return None
    return out.OverflowDrawn(
        way=flow.way,
        crest_cm=sheet.value("crest_cm"),
        drop_cm=sheet.value("drop_cm"),
        box_cm=flow.box_length_cm if flow.way == "weir" else 0.0,
        hole_cm=flow.hole_mm / 10,
        hole_count=flow.hole_count,
        drain_passes=sheet.value("drain_passes").state != "short",
        emergency=flow.emergency_pipe != "none",
        outlet_depths_cm=[row.outlet_depth_cm for row in sheet.plan.returns],
        pump_lph=sheet.value("return_lph"),
    )


def sump_of(sheet: Sheet) -> out.SumpDrawn | None:
    below = sheet.plan.sump
    if sheet.plan.flow.way == "none":
        return None
    return out.SumpDrawn(
        length_cm=below.sump_length_cm,
        height_cm=below.sump_height_cm,
        pane_cm=below.sump_pane_mm / 10,
        below_cm=below.stand_cm,
        room_cm=below.stand_room_cm,
        power_off_cm=sheet.value("power_off_cm"),
        fits=sheet.value("drain_down_fits").state != "short",
        intake_cm=below.intake_cm,
        media_l=sheet.value("sump_media_l"),
        chambers=[
            out.ChamberDrawn(
                kind=row.chamber_kind,
                length_cm=sheet.value(f"chambers.{i}.chamber_run_cm"),
                level_cm=sheet.value(f"chambers.{i}.chamber_level_cm"),
                baffle_cm=row.baffle_cm,
            )
            for i, row in enumerate(sheet.plan.chambers)
        ],
    )


def working(
    plan: Plan,
    key: Key,
    target: float | None = None,
    paths: list[Key] | None = None,
    months_ahead: float | None = None,
) -> out.WorkingOut:
    """The working of one figure down to its inputs, its range, what moves it, and what it would take.

    Without a target the limit of the check that judges the figure is used, if it falls short.
    """
    sheet = asked_sheet(plan, months_ahead)
    sheet.look(key)
    if target is None:
        target = limit_passed(sheet, key)
    answers = asking.answers(sheet, key, target, paths) if target is not None else []
    spread = asking.spread(sheet, key)
    return out.WorkingOut(
        figure=key,
        nodes={k: working_node(sheet, k) for k in [key, *sheet.wiring.upstream(key)]},
        low=spread[0] if spread else None,
        high=spread[1] if spread else None,
        movers=[
            out.MoverOut(
                path=mover.path,
                label=mover.label,
                nudge=out.TermOut(value=mover.nudge.value, kind=mover.nudge.kind, figure=""),
                change=mover.change,
            )
            for mover in asking.movers(sheet, key)
        ],
        target=target,
        answers=[out.AnswerOut(**{n: getattr(a, n) for n in out.AnswerOut.model_fields}) for a in answers],
    )


def limit_passed(sheet: Sheet, key: Key) -> float | None:
    """The limit that a figure passes, from the check that judges it; None when it holds."""
    for check_key, node in sheet.wiring.nodes.items():
        if node.check and node.check.judges == key:
            verdict = sheet.look(check_key)
            gauge = verdict.gauge if isinstance(verdict, Verdict) and verdict.state == "short" else None
            if gauge and gauge.high is not None and gauge.value > gauge.high:
                return gauge.high
            if gauge and gauge.low is not None and gauge.value < gauge.low:
                return gauge.low
    return None


def working_node(sheet: Sheet, key: Key) -> out.WorkingNode:
    node = sheet.wiring.nodes.get(key)
    value = sheet.look(key)
    if key.startswith(CONSTANT):
        name = key.removeprefix(CONSTANT)
        row = constants()[name]
        return plain(key, name.replace("_", " "), "", row.value, row.unit, sources()[row.source])
    if key == life.ASKED_MONTHS:
        words = "until full grown" if math.isinf(value) else ""
        return plain(key, "Months ahead", "months", None if words else float(value), words, "asked for")
    if node is None:
        entry = entry_at(key)
        label = asking.label_of(sheet, key)
        if isinstance(entry, Quantity) and isinstance(value, int | float):
            return plain(key, label, entry.kind, float(value), "", "entered", editable=True)
        return plain(key, label, "", None, entered_words(entry, value), "entered")
    words = ""
    if isinstance(value, Missing):
        words = told_case(value.case)[1].text
    elif not isinstance(value, int | float):
        words = described(value)
    parts = {
        name: [argument] if isinstance(argument, str) else list(argument)
        for name, argument in zip(node.parameters, sheet.wiring.arguments[key], strict=True)
    }
    number = float(value) if isinstance(value, int | float) and node.label else None
    return out.WorkingNode(
        key=key,
        label=node.label or node.name.replace("_", " "),
        kind=node.kind,
        value=number,
        words=words or (str(value).lower() if number is None and not node.label else ""),
        formula=node.formula,
        source=sources()[node.source] if node.source else "",
        parts=parts,
        editable=False,
    )


def plain(
    key: Key, label: str, kind: str, value: float | None, words: str, source: str, editable: bool = False
) -> out.WorkingNode:
    """A leaf of a working: an input or a constant."""
    return out.WorkingNode(
        key=key,
        label=label,
        kind=kind,
        value=value,
        words=words,
        formula="",
        source=source,
        parts={},
        editable=editable,
    )


def entered_words(entry: object, value: object) -> str:
    if isinstance(entry, Choice) and entry.options and isinstance(value, str):
        return entry.options[value]
    if isinstance(value, bool):
        return "yes" if value else "no"
    if value is None:
        return "not entered"
    return ", ".join(str(item) for item in value) if isinstance(value, tuple) else str(value)


def described(value: object) -> str:
    """Words for a looked-up row or a list of them."""
    if isinstance(value, tuple):
        return ", ".join(dict.fromkeys(described(item) for item in value))
    return str(getattr(value, "common", getattr(value, "label", value)))
