"""The wire's plan against the core's: same fields, same limits, nothing lost on the way and back."""

import json
from dataclasses import asdict, fields
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from loquen.checked.documents import A_PLAN, read_water
from loquen.checked.plan import PlanSchema
from loquen.core.library.whole import shipped
from loquen.core.model.inputs.fields import entries
from loquen.core.model.inputs.quantity import Quantity
from loquen.core.model.parts.heat import Lamp
from loquen.core.model.parts.tank import Planting
from loquen.core.model.roots.documents import document
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.system.book import sheet_of
from loquen.demo.sluice_street import long_hall, rope_walk_b, tidal_corner

LISTS = ("room_months_c", "curve_lph", "curve_head_m")
DEMO = [long_hall(), tidal_corner(), rope_walk_b()]


def test_every_field_of_the_core_is_on_the_wire():
    assert set(PlanSchema.model_fields) == {item.name for item in fields(Plan)}


@pytest.mark.parametrize("plan", DEMO, ids=lambda plan: plan.name)
def test_there_and_back_is_the_same(plan):
    assert A_PLAN.read(document(plan)) == plan


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
            assert getattr(getattr(A_PLAN.to_core(PlanSchema.model_validate(data)), section), name) == value
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


OLD_LIGHT = {"uvb_fitted": True, "uvb_cm": 25.0, "uvb_near_uvi": 6.0, "basking_c": 31.5}


@pytest.mark.parametrize("version", [None, 1])
def test_a_document_of_an_older_version_is_brought_forward(version):
    old = {"name": "Old", "tank": {"plants": "stems", "plant_cover_frac": 0.4}, "sump": {"sump_lid": "part"}}
    old |= {"heat": {"lid": "closed", "light_w": 30.0, "light_h": 11.0}, "light": OLD_LIGHT}
    plan = A_PLAN.read(json.dumps(old if version is None else {**old, "version": version}))
    # Until version 2 every surface counted as mature; until version 3 a closed lid left no gap, and lamps burned alike.
    assert plan.run_in.age_weeks == 52
    assert (plan.heat.lid, plan.sump.sump_lid) == ("tight", "part")
    assert plan.planting == (Planting("fast_stems", 0.4),)
    assert plan.lamps == (Lamp("display", 30.0, 11.0), Lamp("uvb", 0.0, 11.0, lamp_cm=25.0, near_uvi=6.0))
    assert plan.light.basking_c == 31.5


def test_a_bare_old_document_means_what_it_meant():
    plan = A_PLAN.read('{"name": "Old", "version": 2}')
    assert plan.heat.lid == "tight"
    assert plan.lamps == (Lamp("display", 20.0, 8.0),)
    assert plan.planting == ()


def test_a_plan_kept_by_an_earlier_release_is_read_and_means_the_same():
    stored = (Path(__file__).parent / "documents/plan-0.1.0.json").read_text(encoding="utf-8")
    plan = A_PLAN.read(stored)
    assert plan.name == "Long Hall"
    assert plan.animals[0].species == "threadfin_rainbowfish"
    assert plan.flow.way == "none"
    # What that release computed: 468.3 L in the display and 13 L in two canisters.
    assert sheet_of(plan, shipped()).value("real_volume_l") == pytest.approx(481.3, abs=0.1)


def test_a_plan_of_0_13_is_set_up_and_what_nobody_told_in_it_is_asked():
    stored = (Path(__file__).parent / "documents/plan-0.13.0.json").read_text(encoding="utf-8")
    plan = A_PLAN.read(stored)
    assert plan.run_in.stands == "set_up"
    # A tap that was taken to be clean; a dry place of 33 °C that the program had written itself.
    assert plan.sources[0].src_disinfectant == "unknown"
    assert plan.light.basking_c is None
    assert plan.water.dose_margin is None
    sheet = sheet_of(plan, shipped())
    assert {key: sheet.look(key).state for key in ("treated", "basks")} == {
        "treated": "measure",
        "basks": "measure",
    }


@pytest.mark.parametrize(
    ("water", "sources", "then"),
    [
        (
            {"disinfectant": "chloramine", "disinfectant_mg_l": 1.6, "dose_margin": 1.5},
            [],
            ("chloramine", 1.6, 1.5),
        ),
        ({"disinfectant": "chlorine"}, [], ("chlorine", 1.0, None)),
        ({"disinfectant": "none", "dose_margin": 1.0}, [], ("unknown", None, None)),
        # With waters mixed it is theirs that counts.
        ({"disinfectant": "none"}, [{"src_kind": "rain"}], ("none", None, None)),
    ],
)
def test_what_an_older_plan_said_of_its_tap_stays_said(water, sources, then):
    plan = A_PLAN.read(json.dumps({"name": "Old", "version": 3, "water": water, "sources": sources}))
    assert (plan.water.disinfectant, plan.water.disinfectant_mg_l, plan.water.dose_margin) == then


@pytest.mark.parametrize(
    ("stored", "then"),
    [
        ({"src_disinfectant": "none", "src_chlorine_mg_l": 0.0}, ("unknown", None)),
        ({"src_kind": "well", "src_disinfectant": "none", "src_chlorine_mg_l": 0.0}, ("none", None)),
        ({"src_disinfectant": "chloramine", "src_chlorine_mg_l": 1.6}, ("chloramine", 1.6)),
        # Answered since: none.
        ({"src_disinfectant": "none", "src_chlorine_mg_l": None}, ("none", None)),
    ],
)
def test_a_water_that_was_stored_before_anybody_was_asked(stored, then):
    water = read_water(json.dumps(stored))
    assert (water.src_disinfectant, water.src_chlorine_mg_l) == then


def test_a_reading_that_was_told_stays_told_without_a_day():
    old = {"name": "Old", "version": 3, "water": {"tank_ph": 6.8}, "sources": [{"src_kh_dkh": 3.0}]}
    assert set(A_PLAN.read(json.dumps(old)).told.told_on) == {"water.tank_ph", "sources.0.src_kh_dkh"}


@pytest.mark.parametrize("row", ["water.tank_ph 2026-02-30", "nothing.at_all", "water.tank_ph yesterday"])
def test_a_row_of_what_was_told_names_an_input_and_a_day(row):
    with pytest.raises(ValidationError):
        PlanSchema.model_validate({"name": "x", "told": {"told_on": [row]}})
