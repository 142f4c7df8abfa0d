"""The wire's plan against the core's: same fields, same limits, nothing lost on the way and back."""

import json
from dataclasses import asdict, fields
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from loquen.api.wire.documents import read_document
from loquen.api.wire.plan import PlanSchema, to_core
from loquen.core.model.documents import document
from loquen.core.model.fields import entries
from loquen.core.model.plan import PLAN, Lamp, Plan, Planting
from loquen.core.model.quantity import Quantity
from loquen.core.system.book import sheet_of
from loquen.demo.sluice_street import long_hall, rope_walk_b, tidal_corner

LISTS = ("room_months_c", "curve_lph", "curve_head_m")
DEMO = [long_hall(), tidal_corner(), rope_walk_b()]


def test_every_field_of_the_core_is_on_the_wire():
    assert set(PlanSchema.model_fields) == {item.name for item in fields(Plan)}


@pytest.mark.parametrize("plan", DEMO, ids=lambda plan: plan.name)
def test_there_and_back_is_the_same(plan):
    assert read_document(document(plan)) == plan


@pytest.mark.parametrize(
    ("section", "name", "entry"),
    [
        (section, name, entry)
        for section, model in PLAN.sections.items()
        for name, entry in entries(model).items()
        if isinstance(entry, Quantity) and section not in PLAN.rows and name not in LISTS
    ],
)
def test_limits_are_the_cores(section, name, entry):
    base = asdict(Plan(name="x"))
    for value, good in ((entry.low, True), (entry.high, True), (entry.low - 1, False), (entry.high + 1, False)):
        data = {**base, section: {**base[section], name: value}}
        if good:
            assert getattr(getattr(to_core(PlanSchema.model_validate(data)), section), name) == value
        else:
            with pytest.raises(ValidationError):
                PlanSchema.model_validate(data)


def test_unknown_fields_are_refused():
    with pytest.raises(ValidationError):
        PlanSchema.model_validate({"name": "x", "colour": "green"})


@pytest.mark.parametrize(("typed", "value"), [("24,5", 24.5), ("24.5", 24.5), (" 24 ", 24)])
def test_a_decimal_comma_is_read(typed, value):
    plan = PlanSchema.model_validate({"name": "x", "heat": {"target_c": typed}})
    assert plan.heat.target_c == value


@given(st.text(max_size=12))
def test_no_text_passes_as_a_number_by_accident(text):
    try:
        plan = PlanSchema.model_validate({"name": "x", "heat": {"target_c": text}})
    except ValidationError:
        return
    assert 4 <= plan.heat.target_c <= 36


OLD_LIGHT = {"uvb_fitted": True, "uvb_cm": 25.0, "uvb_near_uvi": 6.0, "basking_c": 33.0}


@pytest.mark.parametrize("version", [None, 1])
def test_a_document_of_an_older_version_is_brought_forward(version):
    old = {"name": "Old", "tank": {"plants": "stems", "plant_cover_frac": 0.4}, "sump": {"sump_lid": "part"}}
    old |= {"heat": {"lid": "closed", "light_w": 30.0, "light_h": 11.0}, "light": OLD_LIGHT}
    plan = read_document(json.dumps(old if version is None else {**old, "version": version}))
    # Until version 2 every surface counted as mature; until version 3 a closed lid left no gap, and lamps burned alike.
    assert plan.run_in.age_weeks == 52
    assert (plan.heat.lid, plan.sump.sump_lid) == ("tight", "part")
    assert plan.planting == (Planting("fast_stems", 0.4),)
    assert plan.lamps == (Lamp("display", 30.0, 11.0), Lamp("uvb", 0.0, 11.0, lamp_cm=25.0, near_uvi=6.0))
    assert plan.light.basking_c == 33.0


def test_a_bare_old_document_means_what_it_meant():
    plan = read_document('{"name": "Old", "version": 2}')
    assert plan.heat.lid == "tight"
    assert plan.lamps == (Lamp("display", 20.0, 8.0),)
    assert plan.planting == ()


def test_a_plan_kept_by_an_earlier_release_is_read_and_means_the_same():
    stored = (Path(__file__).parent / "documents/plan-0.1.0.json").read_text(encoding="utf-8")
    plan = read_document(stored)
    assert plan.name == "Long Hall"
    assert plan.animals[0].species == "threadfin_rainbowfish"
    assert plan.flow.way == "none"
    # What that release computed: 468.3 L in the display and 13 L in two canisters.
    assert sheet_of(plan).value("real_volume_l") == pytest.approx(481.3, abs=0.1)
