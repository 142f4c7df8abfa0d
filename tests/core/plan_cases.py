"""Whole plans written as TOML: a base, what is set on it, and what must come out."""

import tomllib
from dataclasses import asdict
from pathlib import Path

from loquen.core.graph.keys import CONSTANT, Missing
from loquen.core.library.whole import shipped
from loquen.core.model.roots.documents import rebuilt
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.system.book import sheet_of
from loquen.core.system.told import verdict_of
from tests.core.plans import plan, sumped

CASES = Path(__file__).parent / "cases"
BASES = {"bare": plan, "sumped": sumped, "new": lambda: Plan(name="new")}
STATES = ("holds", "tight", "short", "unknown")
CASE = "case "


def listed(file):
    """Every expectation of a file, by itself: (its case, key, expected)."""
    for case in tomllib.loads((CASES / file).read_text(encoding="utf-8"))["case"]:
        assert case["origin"]
        for key, expected in case["expect"].items():
            yield case, key, expected


def plan_of(case):
    """The plan of a case: lists of rows are put in whole, other values one by one by their path."""
    data = asdict(BASES[case.get("base", "bare")]())
    for path, value in case.get("set", {}).items():
        if path.startswith(CONSTANT):
            continue
        section, _, name = path.partition(".")
        if isinstance(value, dict):
            data[path] = value
        elif name:
            assert name in data[section], path
            data[section][name] = value
        else:
            assert section in PLAN.rows, path
            data[section] = value
    return rebuilt(Plan, data)


def sheet_for(case):
    """Its sheet; a constant may be set too."""
    sheet = sheet_of(plan_of(case), shipped(), case.get("months_ahead"))
    return sheet.changed({path: value for path, value in case.get("set", {}).items() if path.startswith(CONSTANT)})


def found(sheet, key):
    """What stands under a key: a number, the state of a check, or the code of the named case in its place."""
    value = sheet.look(key)
    node = sheet.wiring.nodes.get(key)
    verdict = verdict_of(sheet, key) if node is not None and node.check else None
    if verdict is not None:
        return verdict.state
    return CASE + value.case.code if isinstance(value, Missing) else value
