"""Known, told or guessed: where inputs are from is obeyed; what nobody told holds nothing; what is advised breaks no rule."""

import random
from dataclasses import replace

import pytest

from loquen.core.graph.nodes import Verdict
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import shipped
from loquen.core.model.inputs.quantity import as_text
from loquen.core.model.inputs.told import is_row, is_told, read_on, with_told
from loquen.core.model.parts.animals import Bag, Group
from loquen.core.model.parts.heat import Heat, Lamp, Light
from loquen.core.model.parts.land import Land
from loquen.core.model.parts.running import Changes, Filter, RunIn
from loquen.core.model.parts.tank import Tank
from loquen.core.model.parts.water import Source, Water
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.routine.care.whole import care_of
from loquen.core.system.assumed import assumed
from loquen.core.system.book import sheet_of, system_book
from loquen.core.system.planner.settle import settle
from loquen.core.system.planner.standing import Standing, applied
from loquen.core.system.planner.three_ways import first_plans
from loquen.core.system.planner.ways_out import WaysOut
from loquen.core.system.told import asks_of, verdict_of
from tests.core.plans import plan


def entries():
    """Every input of a plan by its path without places."""
    for section, model in PLAN.sections.items():
        for name in model.__dataclass_fields__:
            path = f"{section}.0.{name}" if section in PLAN.rows else f"{section}.{name}"
            entry = PLAN.entry_at(path)
            if entry is not None:
                yield path, entry


def random_plan(seed, most_kinds=3):
    """A plan as somebody may have it: any company, glass, tap and habits; it makes sense, and that is all."""
    chance = random.Random(seed)
    kinds = chance.sample(list(shipped().species), min(most_kinds, chance.choice([1, 1, 2, 3])))
    animals = tuple(
        Group(key, chance.choice([1, 2, shipped().species[key].group_least, 20]), males=chance.choice([None, 0, 1]))
        for key in kinds
    )
    lamps = [(Lamp(),), (Lamp(), Lamp("basking", 50.0), Lamp("uvb", 24.0, lamp_cm=25.0)), ()]
    return Plan(
        name="any",
        animals=animals,
        tank=Tank(
            tank_length_cm=chance.choice([40, 60, 100, 150, 240]),
            tank_width_cm=chance.choice([25, 40, 60]),
            tank_height_cm=chance.choice([30, 45, 60]),
            pane_mm=chance.choice([6, 10, 15]),
            fill_by=chance.choice(["freeboard", "freeboard", "height"]),
            part_fill_cm=15.0,
        ),
        filters=tuple(
            Filter(
                chance.choice(["sponge", "hang_on", "canister"]), media_l=chance.choice([0.5, 4, 12]), rated_lph=lph
            )
            for lph in chance.sample([200, 600, 1500, 3000], chance.choice([0, 1, 2]))
        ),
        run_in=RunIn(chance.choice(["planned", "set_up"]), age_weeks=chance.choice([None, 3, 80])),
        heat=Heat(
            target_c=chance.choice([18, 22, 25, 28]),
            heated=chance.choice([True, False]),
            lid=chance.choice(["glass", "mesh", "open"]),
            room_warm_c=chance.choice([24, 28, 33]),
        ),
        light=Light(basking_c=chance.choice([None, 25.0, 33.0])),
        lamps=chance.choice(lamps),
        water=Water(
            tank_ph=chance.choice([6.5, 7.4, 8.2]),
            salinity_ppt=chance.choice([0.0, 0.0, 6.0]),
            source_c=chance.choice([10.0, 24.0]),
            disinfectant=chance.choice(["unknown", "none", "chlorine", "chloramine"]),
            treatment=chance.choice(["container", "tank", "none", "aged", "carbon"]),
            dose_margin=chance.choice([None, 0.5, 1.0]),
        ),
        sources=chance.choice([(), (Source(),), (Source(), Source("Rain", "rain", 2.0))]),
        changes=Changes(
            weekdays=chance.choice([("Sat",), ("Tue", "Fri"), ()]), change_frac=chance.choice([0.1, 0.3, 0.6, 0.9])
        ),
        bags=chance.choice([(), (Bag(),), (Bag(bag_us_cm=1800.0),)]),
    )


PLANS = range(300)


# Where an input is from -------------------------------------------------------------------------------------------


def test_what_is_read_is_said_to_be_read():
    """A number that is called measured, read, or of a test is no setting; what animals are is none either."""
    for path, entry in entries():
        if (
            any(word in entry.label for word in ("Measured", "measured", "reads", "read today"))
            and path != "tank.measured"
        ):
            assert entry.given == "reading", path
    of = dict(entries())
    for path in (
        "water.tank_ph",
        "sources.0.src_kh_dkh",
        "light.basking_c",
        "light.measured_uvi",
        "bags.0.bag_us_cm",
    ):
        assert of[path].given == "reading"
    for path in ("animals.0.species", "heat.room_cold_c", "run_in.stands", "lamps.0.near_uvi"):
        assert of[path].given == "fact"
    assert {of[path].given for path in ("changes.change_frac", "heat.target_c", "recipe.target_kh_dkh")} == {
        "setting"
    }
    assert {of[path].given for path in ("filters.0.rated_lph", "tank.tank_length_cm", "heat.fitted_w")} == {
        "bought"
    }


def test_no_check_names_a_reading_or_a_fact_as_its_way_out():
    for node in system_book().nodes.values():
        for pattern in node.check.mends if node.check else ():
            entry = PLAN.entry_at(pattern.replace("*", "0"))
            assert entry.given in ("setting", "bought"), (node.name, pattern)


def test_what_was_told_has_its_day():
    told = with_told(plan(), {"water.tank_ph": "2026-06-17", "water.tank_gh_dgh": ""}).told.told_on
    assert read_on("water.tank_ph", told) == "2026-06-17"
    assert is_told("water.tank_gh_dgh", told)
    assert read_on("water.tank_gh_dgh", told) == ""
    assert not is_told("water.source_kh_dkh", told)
    again = with_told(with_told(plan(), {"water.tank_ph": "2026-06-17"}), {"water.tank_ph": "2026-06-20"})
    assert again.told.told_on == ("water.tank_ph 2026-06-20",)


@pytest.mark.parametrize(
    ("row", "good"),
    [
        ("water.tank_ph 2026-06-17", True),
        ("sources.0.src_kh_dkh", True),
        ("water.tank_ph 2026-02-30", False),
        ("water.nothing 2026-06-17", False),
        ("", False),
    ],
)
def test_a_row_names_an_input_and_a_day_that_there_is(row, good):
    assert is_row(row) == good


# Nothing is green that nobody knows -------------------------------------------------------------------------------


@pytest.mark.parametrize("seed", PLANS)
def test_no_check_holds_whose_figure_hangs_on_what_nobody_told(seed):
    sheet = sheet_of(random_plan(seed), shipped())
    for key, node in sheet.wiring.checks:
        verdict = sheet.look(key)
        if not isinstance(verdict, Verdict) or not node.check.judges:
            continue
        judged = node.check.judges
        entered = ".".join(system_book().inputs.get(judged, ()))
        hangs_on = set(sheet.wiring.upstream(judged)) if judged in sheet.wiring.nodes else {entered}
        untold = {
            path
            for path in hangs_on
            if (entry := PLAN.entry_at(path)) is not None
            and entry.untold is not None
            and sheet.known[path] in (None, "unknown")
        }
        # Of waters, those that are in the mix, and do not come clean.
        plan_ = sheet.root
        # Land that nobody told takes no water: its own check waits for it.
        untold -= {"land.land_kind"}
        untold -= {"water.disinfectant"} if plan_.sources else set()
        untold -= {
            f"sources.{i}.src_disinfectant"
            for i, row in enumerate(plan_.sources)
            if row.src_kind in ("rain", "well")
        }
        if untold:
            assert verdict.state in ("short", "measure"), (key, untold)
        else:
            assert verdict.state != "measure", key


def test_telling_it_takes_the_question_away_and_leaves_the_verdict():
    """An edit moves the sheet as a fresh one stands: the same tap, told to be what it was reckoned as."""
    untold = sheet_of(plan(water=Water()), shipped())
    assert untold.look("treated").state == "measure"
    assert untold.look("treated").asks == ("water.disinfectant",)
    told = untold.changed({"water.disinfectant": "chloramine", "water.disinfectant_mg_l": 2.5})
    fresh = sheet_of(plan(water=Water(disinfectant="chloramine", disinfectant_mg_l=2.5)), shipped())
    assert told.look("treated") == fresh.look("treated")
    assert told.look("treated").state != "measure"
    for key in ("dose_ml", "topup_dose_ml", "left_chlorine_mg_l"):
        assert told.look(key) == untold.look(key) or told.value(key) == pytest.approx(untold.value(key))


def test_a_turtle_asks_for_its_place_and_is_judged_when_it_is_read():
    (first, *_) = first_plans("x", (Group("common_musk_turtle", 1),), shipped()).proposals
    light = first.plan.light
    assert (light.basking_c, light.measured_uvi) == (None, None)
    assert any(lamp.lamp_kind == "basking" for lamp in first.plan.lamps)
    sheet = sheet_of(first.plan, shipped())
    assert {verdict_of(sheet, key).state for key in ("basks", "uvb_reaches")} == {"measure"}
    said = [as_text(row, {}) for row in first.asks]
    assert any("Measure the dry place" in row for row in said)
    assert any("index" in row for row in said)
    read = sheet.changed({"light.basking_c": 32.0})
    assert verdict_of(read, "basks").state == "holds"
    assert verdict_of(sheet.changed({"light.basking_c": 24.0}), "basks").state == "short"


def test_what_has_to_be_told_is_a_duty_until_it_is():
    turtle = replace(plan(animals=(Group("common_musk_turtle", 1),)), lamps=(Lamp("basking", 50.0),), water=Water())
    keys = {duty.key for duty in care_of(sheet_of(turtle, shipped(), 0.0))}
    assert {"tell.light.basking_c", "tell.water.disinfectant", "tell.land.land_kind"} <= keys
    read = replace(turtle, land=Land("box"), light=Light(basking_c=32.0), water=Water(disinfectant="none"))
    assert not [duty.key for duty in care_of(sheet_of(read, shipped(), 0.0)) if duty.key.startswith("tell.")]
    pages = {duty.key: duty.page for duty in care_of(sheet_of(turtle, shipped(), 0.0))}
    assert (pages["tell.light.basking_c"], pages["tell.water.disinfectant"]) == ("heat", "source")
    assert pages["tell.land.land_kind"] == "tank"


def test_a_plan_is_only_to_be_built_until_it_is_set_up():
    (first, *_) = first_plans("x", (Group("guppy", 8),), shipped()).proposals
    sheet = sheet_of(first.plan, shipped(), 0.0)
    assert [duty.key for duty in care_of(sheet)] == ["set_up"]
    assert verdict_of(sheet, "media_carry").headline.text == "holds once cycled"


def test_every_litre_that_comes_in_carries_its_millilitres():
    """25 mL for 100 L, twice for chloramine, 1.7 times for the 2.5 mg/L of an untold tap: 0.85 mL a litre."""
    duties = {duty.key: duty for duty in care_of(sheet_of(plan(water=Water()), shipped(), 0.0))}
    litres = duties["top_up"].words.terms["litres"].value
    assert duties["top_up"].words.terms["dose"].value == pytest.approx(0.85 * litres)
    card = [as_text(step, {}) for step in duties["change"].steps]
    assert any(f"{0.85 * 125:.0f} mL of conditioner" in line for line in card)
    pure = {duty.key: duty for duty in care_of(sheet_of(plan(water=Water(topped_up="pure")), shipped(), 0.0))}
    assert "dose" not in pure["top_up"].words.terms
    raw = {duty.key: duty for duty in care_of(sheet_of(plan(water=Water(treatment="none")), shipped(), 0.0))}
    assert "never as it comes" in as_text(raw["top_up"].words, {})


def test_what_a_plan_assumes_is_what_could_turn_it_and_no_more_than_a_few():
    rows = assumed(
        sheet_of(
            plan(water=Water(source_kh_dkh=3.0, disinfectant="none"), animals=(Group("neon_tetra", 12),)), shipped()
        )
    )
    assert 0 < len(rows) <= 5
    sheet = sheet_of(
        plan(water=Water(source_kh_dkh=3.0, disinfectant="none"), animals=(Group("neon_tetra", 12),)), shipped()
    )
    for row in rows:
        worse = [
            key
            for key, node in sheet.wiring.checks
            if node.label in row.decides
            for end in (row.low.value, row.high.value)
            if (verdict := verdict_of(sheet.changed({row.path: end}), key)) and verdict.state in ("short", "tight")
        ]
        assert worse, row.path
    confirmed = with_told(sheet.root, {row.path: "" for row in rows})
    assert not {row.path for row in rows} & {row.path for row in assumed(sheet_of(confirmed, shipped()))}


def test_a_tub_for_an_arrival_is_conditioned_and_copper_is_a_veto():
    """18 L at 0.85 mL for an untold tap."""
    far = plan(water=Water(), bags=(Bag("Barbs", bag_us_cm=2500.0),))
    card = sheet_of(far, shipped()).value("bags.0.bag_result")
    assert card.terms["dose"].value == pytest.approx(0.85 * 18)
    well = replace(far, water=Water(disinfectant="none"))
    assert "dose" not in sheet_of(well, shipped()).value("bags.0.bag_result").terms
    met = replace(far, animals=(Group("cherry_shrimp", 20),), quarantine=replace(far.quarantine, copper_used=True))
    said = as_text(sheet_of(met, shipped()).value("bags.0.bag_result"), {})
    assert said.startswith("Barbs: not into this tank.")
    assert "do not survive copper" in said


BARE = ("short by {by}", "{by} over", "{by} over the band", "{left} to spare", "{left} below the limit")


@pytest.mark.parametrize("seed", range(0, 300, 3))
def test_tight_past_a_limit_says_so_and_why_it_is_borne(seed):
    sheet = sheet_of(random_plan(seed), shipped())
    for key, _ in sheet.wiring.checks:
        verdict = verdict_of(sheet, key)
        gauge = verdict.gauge if verdict and verdict.state == "tight" else None
        if gauge is None:
            continue
        over = gauge.high is not None and gauge.value > gauge.high * (1 + 1e-9)
        under = gauge.low is not None and gauge.value < gauge.low * (1 - 1e-9)
        if over or under:
            assert verdict.headline.text not in BARE, key


# What is advised --------------------------------------------------------------------------------------------------


def found_of(sheet: Sheet):
    rows = (
        [*(sheet.look("company") or ()), *(sheet.look("pairs") or ())]
        if isinstance(sheet.look("company"), tuple)
        else []
    )
    return {(row.who, row.what) for row in rows if row.state == "short"}


@pytest.mark.parametrize("seed", PLANS)
def test_what_is_offered_mends_its_check_and_breaks_no_rule(seed):
    start = random_plan(seed)
    sheet = sheet_of(start, shipped())
    before = Standing(start, shipped(), sheet=sheet)
    ways = WaysOut(sheet)
    for check in before.short:
        for remedy in ways.of(check):
            then = Standing(applied(start, remedy.changes), shipped())
            assert check not in then.short
            assert then.short < before.short
            for path, value in remedy.changes.items():
                entry = PLAN.entry_at(path)
                assert path in PLAN.rows or entry.given in ("setting", "bought"), path
                assert value not in ("unknown",)
            assert then.plan.changes.change_frac <= max(start.changes.change_frac, 0.75)
            if check in ("no_shock", "stays_covered"):
                assert then.plan.changes.change_frac <= start.changes.change_frac
            assert found_of(then.sheet) <= found_of(sheet)
            for group in start.animals:
                left = sum(row.number for row in then.plan.animals if row.species == group.species)
                was = sum(row.number for row in start.animals if row.species == group.species)
                least = shipped().species[group.species].group_least
                assert left >= was or left == 0 or left >= min(was, least)


@pytest.mark.parametrize("seed", range(12))
def test_a_plan_is_settled_within_the_rules(seed):
    start = random_plan(1000 + seed, most_kinds=1)
    found = settle(start, shipped())
    for path in {path for move in found.moves for path in move.changes}:
        entry = PLAN.entry_at(path)
        assert path in PLAN.rows or entry.given in ("setting", "bought"), path
    assert found.plan.light == start.light
    for section in ("tank_ph", "tank_gh_dgh", "source_kh_dkh", "disinfectant"):
        assert getattr(found.plan.water, section) == getattr(start.water, section)
    assert found.plan.changes.change_frac <= max(start.changes.change_frac, 0.75)
    assert found_of(sheet_of(found.plan, shipped())) <= found_of(sheet_of(start, shipped()))
    assert {as_text(row, {}) for row in found.asks} == {
        PLAN.entry_at(path).untold.how for path in asks_of(sheet_of(found.plan, shipped()))
    }


def test_a_predator_is_told_first_and_its_plan_is_no_strong_advice():
    (first, *_) = first_plans("x", (Group("oscar", 2), Group("guppy", 6)), shipped()).proposals
    top = first.left[0]
    assert (top.check, top.kills) == ("pairs_agree", True)
    said = as_text(top.reason, {})
    assert said.startswith("Oscar and Guppy, mouth")


def test_all_that_stands_against_a_company_is_told():
    found = first_plans(
        "x", (Group("white_cloud", 8), Group("discus", 6), Group("oscar", 2), Group("guppy", 6)), shipped()
    )
    said = [as_text(row, {}) for row in found.why]
    assert any("White cloud minnow and Discus" in row for row in said)
    assert any("Oscar" in row and "mouth" in row for row in said)


# Laws -------------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize("seed", range(60))
def test_more_conditioner_never_leaves_more_and_a_stronger_tap_never_less(seed):
    chance = random.Random(seed)
    water = Water(
        disinfectant=chance.choice(["chlorine", "chloramine"]),
        disinfectant_mg_l=chance.uniform(0.1, 8),
        treatment=chance.choice(["container", "tank"]),
        dose_margin=chance.uniform(0.5, 4.5),
    )

    def left(**more):
        return sheet_of(plan(water=replace(water, **more)), shipped()).value("left_chlorine_mg_l")

    assert left(dose_margin=water.dose_margin * 1.1) <= left() + 1e-12
    assert left(disinfectant_mg_l=water.disinfectant_mg_l * 1.1) >= left() - 1e-12
    # Nothing jumps for a ten-thousandth more.
    assert left(disinfectant_mg_l=water.disinfectant_mg_l * 1.0001) == pytest.approx(left(), abs=2e-3)


@pytest.mark.parametrize("seed", range(60))
def test_a_longer_way_never_takes_fewer_days_and_no_day_is_too_much(seed):
    chance = random.Random(seed)
    ppt = chance.choice([0.0, chance.uniform(1.5, 20)])
    bag_us = chance.uniform(60, 3000)
    sheet = sheet_of(
        plan(
            animals=(Group("figure_eight_puffer", 1),),
            water=Water(salinity_ppt=ppt, disinfectant="none"),
            bags=(Bag(bag_us_cm=bag_us),),
        ),
        shipped(),
    )
    days = sheet.value("bags.0.tub_days")
    (aboard,) = sheet.value("shock_classes")
    target, start_ppt = sheet.value("settled_us_cm"), sheet.value("bags.0.bag_ppt")
    level = bag_us
    for day in days:
        step = day.us_cm / level - 1
        assert -aboard.down_frac - 1e-9 <= step <= aboard.conductivity_frac + 1e-9
        salt_step = abs(day.us_cm - level) / abs(target - bag_us) * abs(ppt - start_ppt)
        assert salt_step <= 1.0 + 1e-9 or abs(ppt - start_ppt) <= 1.0
        level = day.us_cm
    if days:
        assert level == pytest.approx(target, rel=1e-6)
    far = sheet.changed({"bags.0.bag_us_cm": bag_us * (0.8 if bag_us < target else 1.25)})
    assert far.value("bags.0.tub_move_d") >= sheet.value("bags.0.tub_move_d")
