"""From a core sheet to what a page shows: values, verdicts, glasses and stages."""

from dataclasses import replace

from loquen.core.graph import asking
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, counted, say
from loquen.core.model.roots.phase import phase
from loquen.core.model.roots.plan import Plan
from loquen.core.system.animals.findings import Finding
from loquen.core.system.assumed import assumed
from loquen.core.system.book import GLASSES, STAGES, sheet_of
from loquen.core.system.changes.regime import Regime
from loquen.core.system.filter import oxygen
from loquen.core.system.planner.ways_out import WaysOut
from loquen.core.system.propose import growth
from loquen.core.system.told import rows_of, sentence_of, where_known
from loquen.house.sheet.answers import Check, Ends, Glass, More, SheetAnswer
from loquen.house.sheet.drawing import Section, flow_of, saw_tooth_of, section_of
from loquen.house.sheet.judged import Told, checks_of, figures_of, glasses_of, stages_of

RANGED = ("hot_dawn_oxygen_mg_l", "outage_h", "peak_nitrate_mg_l")
"""Figures whose range is shown without being asked for."""
FOLLOW = ("outgrown", "settlings", "failures", "least_regime", "regimes", "salt_days", "saw_tooth", "assumed")
"""Lists that charts draw, and what looks ahead: they follow when the keys rest."""
ORDER = {stage: place for place, stage in enumerate(STAGES)}


def view(plan: Plan, library: Library, months_ahead: float | None = None) -> SheetAnswer:
    """Everything a system's page shows, computed once; for the animals full grown unless months are given."""
    sheet = sheet_of(plan, library, months_ahead)
    sheet.all()
    return with_more(at_once(sheet), more(sheet))


def with_more(answer: SheetAnswer, found: More) -> SheetAnswer:
    """An answer and what follows it, as one."""
    figures = {
        key: replace(figure, low=found.ranges[key].low, high=found.ranges[key].high)
        if key in found.ranges
        else figure
        for key, figure in answer.figures.items()
    }
    checks = [
        replace(
            check,
            remedies=found.remedies.get(check.key, []),
            reason=found.reasons.get(check.key, check.reason),
        )
        for check in answer.checks
    ]
    lists = {name: getattr(found, name) for name in FOLLOW}
    return replace(answer, figures=figures, checks=checks, **lists)


def more(sheet: Sheet[Plan]) -> More:
    """What takes longer than a keystroke may: ways out of what falls short, ranges, when it is outgrown."""
    short = [check for check in checks_of(sheet) if check.state == "short"]
    least, ways = sheet.look("least_regime"), WaysOut(sheet)
    reasons = {check.key: with_better_end(sheet, check).reason for check in short}
    return More(
        remedies={check.key: ways.of(check.key) for check in short},
        reasons={check.key: reasons[check.key] for check in short if reasons[check.key] is not check.reason},
        ranges={key: Ends(*ends) for key, ends in asking.spreads(sheet, RANGED).items()},
        outgrown=where_known(lambda: growth.outgrown(sheet), ()),
        settlings=rows_of(sheet, "settlings"),
        failures=rows_of(sheet, "failures"),
        least_regime=least if isinstance(least, Regime) else None,
        regimes=rows_of(sheet, "regime_rows"),
        salt_days=rows_of(sheet, "salt_days"),
        saw_tooth=where_known(lambda: saw_tooth_of(sheet), None),
        assumed=assumed(sheet),
    )


def at_once(sheet: Sheet[Plan], before: Told | None = None) -> SheetAnswer:
    """What a keystroke is answered with, of a sheet that is made; what stands as told before is the same object."""
    plan = sheet.root
    checks = sorted(checks_of(sheet, before=before), key=lambda check: ORDER[check.stage])
    return SheetAnswer(
        figures=figures_of(sheet, before),
        checks=checks,
        glasses=glasses_of(sheet, checks, GLASSES),
        stages=stages_of(sheet, checks, STAGES),
        schools=rows_of(sheet, "schools"),
        pairs=(*rows_of(sheet, "pairs"), *rows_of(sheet, "clashes")),
        company=rows_of(sheet, "company"),
        suited=found_for_each(sheet, "animals", "suited"),
        growing=[rows_of(sheet, f"planting.{i}.plant_findings") for i in range(len(plan.planting))],
        outgrown=(),
        outage=sentence_of(sheet, "outage_result"),
        flow=where_known(lambda: flow_of(sheet), None),
        settlings=(),
        failures=(),
        least_regime=None,
        regimes=(),
        questions=found_for_each(sheet, "sources", "src_questions"),
        disinfectant=sheet.value("present_disinfectant"),
        tap_untold=sheet.value("tap_untold"),
        card=rows_of(sheet, "card"),
        salt_days=(),
        bags=[sentence_of(sheet, f"bags.{i}.bag_result") for i in range(len(plan.bags))],
        batches=rows_of(sheet, "arrivals_order"),
        saw_tooth=None,
        assumed=(),
        phase=phase(plan),
        section=section_of(sheet),
    )


def with_better_end(sheet: Sheet, check: Check) -> Check:
    """Oxygen that falls short, with what it is at the better end of its range."""
    ends = oxygen.at_better_end(sheet) if check.state == "short" and check.key == "dawn_breathes" else None
    if ends is None:
        return check
    return replace(check, reason=say(f"{check.reason.text} {ends.text}", **check.reason.terms, **ends.terms))


def found_for_each(sheet: Sheet, rows: str, name: str) -> list[Finding]:
    """What was found about every row of a list."""
    return [found for i in range(len(getattr(sheet.root, rows))) for found in rows_of(sheet, f"{rows}.{i}.{name}")]


def measured_for(sheet: Sheet[Plan], keys: list[str]) -> int:
    """How many things have to be measured or asked for some checks, each once."""
    verdicts = [sheet.look(key) for key in keys]
    return len({path for found in verdicts for path in getattr(found, "asks", ()) or (str(found),)})


def line(plan: Plan, library: Library) -> tuple[Sentence, int, list[Glass], Section]:
    """A system in the list: its size in words, how much has to be measured or asked, glasses and section. Only what fills a
    glass is judged."""
    sheet = sheet_of(plan, library)
    checks = list(checks_of(sheet, for_glasses=True))
    litres, count = Term(sheet.value("real_volume_l"), "volume"), sheet.value("animal_count")
    many = "{litres} real water · " + ("{count} animals" if count else "no animals yet")
    summary = counted(count, "{litres} real water · {count} animal", many, litres=litres)
    keys = [check.key for check in checks if check.state == "measure"]
    return summary, measured_for(sheet, keys), glasses_of(sheet, checks, GLASSES), section_of(sheet)
