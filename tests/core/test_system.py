"""Figures, checks and named cases of whole plans against values from outside the code."""

import re
from pathlib import Path

import numpy as np
import pytest

from loquen.core.system.book import system_book
from loquen.core.system.cases import ALL_CASES, CASES
from tests.core import plan_cases
from tests.core.plan_cases import CASE, STATES

HERE = Path(__file__).parent
LISTED = [row for file in ("system.toml", "plans.toml") for row in plan_cases.listed(file)]
CLOSE = 2e-3
SHEETS = {}


def sheet_for(case):
    """Several expectations of one case share its sheet."""
    return SHEETS.setdefault(id(case), SHEETS.get(id(case)) or plan_cases.sheet_for(case))


@pytest.mark.parametrize(("case", "key", "expected"), LISTED, ids=[f"{key}={value}" for _, key, value in LISTED])
def test_it_comes_out(case, key, expected):
    value = plan_cases.found(sheet_for(case), key)
    if isinstance(expected, str):
        assert value == expected
    else:
        assert value == pytest.approx(expected, rel=case.get("rtol", CLOSE), abs=1e-9), case["origin"]


def plain(key):
    return key.rsplit(".", 1)[-1]


def test_every_check_holds_once_and_does_not_hold_once():
    checks = {name for name, node in system_book().nodes.items() if node.check}
    holding = {plain(key) for _, key, value in LISTED if value == "holds"}
    falling = {plain(key) for _, key, value in LISTED if value in STATES and value != "holds"}
    # Where copper is used there is always something to mind.
    assert checks - holding == {"copper_borne"}
    assert checks - falling == set()


def test_every_named_case_arises_once():
    told = {str(value).removeprefix(CASE) for _, _, value in LISTED if str(value).startswith(CASE)}
    # What a fault and a refusal come to, and what only a proposal asks, is tested where they arise.
    elsewhere = {
        "already_saturated",
        "not_begun",
        "not_set_up",
        "young_not_begun",
        "nothing_read",
        "fault_inside",
        "failure_untold",
        "beyond_relation",
        "no_stock_tank",
        "no_sump_holds",
        "no_depth_holds",
    }
    # These no figure of a system comes to, at least not yet.
    of_relations = {
        "no_flow",
        "no_share_reaches",
        "heater_too_weak",
        "room_not_colder",
        "dissolves_on",
        "pane_too_long",
    }
    assert set(CASES) - told == elsewhere | of_relations


def test_every_named_case_that_is_raised_has_its_words_and_none_other():
    core = Path(__file__).parents[2] / "src/loquen"
    text = "\n".join(path.read_text(encoding="utf-8") for path in core.rglob("*.py"))
    raised = set(re.findall(r'NamedCase\(\s*"(\w+)"', text)) | {"kh_not_used", "kh_hardly_used"}
    assert raised == set(ALL_CASES)


def test_every_figure_has_a_value_from_outside_the_code():
    others = "\n".join(path.read_text(encoding="utf-8") for path in HERE.glob("test_*.py"))
    named = {plain(key) for _, key, value in LISTED if not isinstance(value, str)}
    numbers = {name for name, node in system_book().nodes.items() if node.is_number}
    assert {name for name in numbers - named if not re.search(rf"\b{name}\b", others)} == set()


# Formulas ---------------------------------------------------------------------------------------

NUMBER = r"[\d.]+"
ARITHMETIC = re.compile(rf"(?:\{{\w+\}}|{NUMBER}|[\s+−×÷^()Σ])+")
SUMMED = re.compile(rf"Σ ((?:\{{\w+\}}|{NUMBER})(?: × (?:\{{\w+\}}|{NUMBER}))*)")


def reckoned(formula, values):
    """What a formula that is nothing but arithmetic comes to, read as a person reads it."""
    text = SUMMED.sub(r"total(\1)", formula)
    for sign, python in {"−": "-", "×": "*", "÷": "/", "^": "**"}.items():
        text = text.replace(sign, python)
    names = {name: np.asarray(value, float) for name, value in values.items()}
    return float(eval(re.sub(r"\{(\w+)\}", r"\1", text), {"total": np.sum}, names))


LOOKED_UP = {"panes_kg"}
"""These name a material or a plant, whose number stands in the library."""
FORMULAS = [
    node
    for node in system_book().nodes.values()
    if node.is_number and ARITHMETIC.fullmatch(node.formula) and node.name not in LOOKED_UP
]


@pytest.mark.parametrize("node", FORMULAS, ids=lambda node: node.name)
def test_a_formula_says_what_its_figure_does(node):
    compared = 0
    for case in FORMULA_PLANS:
        sheet = plan_cases.sheet_for(case)
        for prefix in [f"{node.row}.{i}." for i in range(len(getattr(sheet.root, node.row)))] if node.row else [""]:
            arguments = sheet.wiring.arguments[prefix + node.name]
            values = {
                name: sheet.look(key) if isinstance(key, str) else tuple(map(sheet.look, key))
                for name, key in zip(node.parameters, arguments, strict=True)
            }
            value = sheet.look(prefix + node.name)
            if isinstance(value, float | int):
                assert value == pytest.approx(reckoned(node.formula, values), rel=1e-9, abs=1e-12)
                compared += 1
    assert compared


ROWS = {
    "air.outlets": 4,
    "heat.lid": "mesh",
    "tank.bed": "soil",
    "water.source_kh_dkh": 4.0,
    "lamps": [
        {"lamp_w": 30.0, "lamp_h": 9.0},
        {"lamp_kind": "uvb", "lamp_w": 24.0, "screen_frac": 0.3, "lamp_age_months": 3.0},
    ],
    "changes.side_drip_l_d": 5.0,
    "water.disinfectant": "chlorine",
    "water.treatment": "container",
    "osmosis.membrane_fitted": True,
    "recipe.product_g": 4.0,
    "recipe.target_gh_dgh": 14.0,
    "tank.rock_kg": 12.0,
    "land.land_kind": "platform",
    "sources": [
        {"src_name": "Tap", "src_kh_dkh": 5.0, "src_disinfectant": "chlorine", "src_chlorine_mg_l": 1.0},
        {"src_name": "Rain", "src_parts": 2.0, "src_kh_dkh": 0.5},
    ],
    "bags": [{"bag_name": "One"}, {"bag_name": "Two", "bag_mass_g": 30.0}],
    "animals": [{"species": "zebra_danio", "number": 12}, {"species": "painted_turtle", "number": 1}],
}
FORMULA_PLANS = [{"base": "bare", "set": ROWS}, {"base": "sumped", "set": ROWS}]


def test_most_plain_formulas_are_read():
    assert len(FORMULAS) >= 65
