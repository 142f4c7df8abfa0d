"""Feeding: mixes by hand, whose mouth a food fits, rotas whose sums are the balance's, cultures, what is left."""

from dataclasses import replace

import pytest

from loquen.core.feeding.cultures import grown
from loquen.core.feeding.foods import at_hand, fits_mouth, mixed, nourishes, reaches, suitable, why_none
from loquen.core.feeding.left import part_after
from loquen.core.feeding.means import crushed_for, how
from loquen.core.feeding.rota import days_of_green, days_with_food, nearness, rota, week_of_foods
from loquen.core.graph.asking import number
from loquen.core.library.whole import shipped
from loquen.core.model.inputs.quantity import as_text
from loquen.core.model.parts.animals import Group
from loquen.core.model.records.feeding import Kept, Larder, Mix, Part, larder_faults
from loquen.core.model.roots.plan import Plan
from loquen.core.routine.away import one_menu
from loquen.core.routine.care.feeding import rota_duties
from loquen.core.routine.consumables import foods_of
from loquen.core.system.book import sheet_of
from loquen.demo.sluice_street import bottle_shelf, long_hall, old_copper, rope_walk_b, tidal_corner

EVERYTHING = Larder(tuple(key for key, food in shipped().foods.items() if food.form != key))
WEEK = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")


def sheet_with(*groups):
    return sheet_of(Plan(name="Tank", animals=groups), shipped(), 0.0)


def fed(sheet, larder=EVERYTHING, part=1.0):
    return rota(sheet, larder, part)


def told(row):
    return " ".join(as_text(sentence, {}) for sentence in row.told)


# Foods --------------------------------------------------------------------------------------------


def test_a_mix_by_hand():
    # 60 g of green granules (0.92 dry, 0.36, 0.8) and 200 g of courgette (0.06, 0.20, 1) with 140 g of water:
    # dry 55.2 + 12 = 67.2 of 400 g; protein (19.872 + 2.4) ÷ 67.2; plant (44.16 + 12) ÷ 67.2.
    made = mixed(Mix("cake", (Part("green_pellets", 60), Part("courgette", 200)), 140, 5), shipped())
    assert made.dry_frac == pytest.approx(0.168)
    assert made.protein_frac == pytest.approx(0.331429, rel=1e-5)
    assert made.plant_frac == pytest.approx(0.835714, rel=1e-5)
    assert (made.piece_g, made.bitten, made.coloured) == (5, True, False)


def test_a_larder_holds_each_food_once_and_what_is_known():
    larder = Larder(("flakes", "flakes", "gone"), (Mix("cake", (Part("peas", 100),)), Mix("empty")))
    assert [food.label for food in at_hand(larder, shipped())] == ["flakes", "cake"]


@pytest.mark.parametrize(
    ("food", "kind", "length", "fits"),
    [
        ("flakes", "neon_tetra", 3.5, True),  # 2 mm, under half of 7 mm
        ("meat_pellets", "neon_tetra", 3.5, True),  # 3 mm just so
        ("large_pellets", "neon_tetra", 3.5, False),  # 6 mm are over half of 7
        ("frozen_brine", "neon_tetra", 3.5, True),  # 5 mm of shrimp are swallowed lengthwise
        ("fry_powder", "neon_tetra", 3.5, False),  # dust to a grown fish
        ("fry_powder", "neon_tetra", 0.8, True),
        ("algae_wafers", "neon_tetra", 0.8, True),  # bitten off
        ("frozen_daphnia", "axolotl", 23.0, False),
        ("earthworms", "axolotl", 23.0, True),
    ],
)
def test_what_fits_a_mouth(food, kind, length, fits):
    assert fits_mouth(shipped().foods[food], shipped().species[kind], length) is fits


@pytest.mark.parametrize(
    ("food", "kind", "alone", "got"),
    [
        ("flakes", "neon_tetra", False, True),
        ("bottom_tablets", "neon_tetra", False, False),
        ("flakes", "panda_corydoras", False, False),
        ("soft_granules", "panda_corydoras", False, False),
        ("soft_granules", "panda_corydoras", True, True),
        ("bottom_tablets", "panda_corydoras", False, True),
        ("water_snails", "green_spotted_puffer", False, True),  # hard food is looked for
        ("turtle_sticks", "common_musk_turtle", True, True),
        ("fruit_flies", "panda_corydoras", True, False),
    ],
)
def test_what_gets_where_they_feed(food, kind, alone, got):
    assert reaches(shipped().foods[food], shipped().species[kind], alone) is got


def test_grazers_get_no_rich_meat_and_meat_eaters_no_leaves():
    grazer = next(
        kind for kind in shipped().species.values() if kind.feeds_on == "herbivore" and kind.family == "Cichlidae"
    )
    assert not nourishes(shipped().foods["frozen_midge"], grazer, shipped())
    assert nourishes(shipped().foods["green_pellets"], grazer, shipped())
    assert not nourishes(shipped().foods["courgette"], shipped().species["axolotl"], shipped())
    assert nourishes(shipped().foods["earthworms"], shipped().species["axolotl"], shipped())


def test_why_nothing_suits_is_the_first_reason():
    rows = [shipped().foods["large_pellets"]]
    assert "small enough; they swallow up to 0.7 cm" in as_text(
        why_none(rows, shipped().species["neon_tetra"], 3.5, False, shipped()), {}
    )
    rows = [shipped().foods["flakes"]]
    assert "sinks to the bottom" in as_text(
        why_none(rows, shipped().species["panda_corydoras"], 5, False, shipped()), {}
    )
    rows = [shipped().foods["courgette"]]
    assert "Axolotl eat meat" in as_text(why_none(rows, shipped().species["axolotl"], 20, False, shipped()), {})
    assert suitable(rows, shipped().species["axolotl"], 20, False, shipped()) == []


# By what means ------------------------------------------------------------------------------------


def test_sifters_take_powder_from_the_current_and_nothing_else():
    sifter = shipped().species["bamboo_shrimp"]
    foods = [
        shipped().foods[key] for key in ("fry_powder", "shrimp_biofilm", "algae_wafers", "frozen_cyclops", "flakes")
    ]
    assert {food.key for food in suitable(foods, sifter, 8.0, False, shipped())} <= {"fry_powder", "shrimp_biofilm"}
    assert suitable(foods[:2], sifter, 8.0, False, shipped())
    assert "nothing at hand is fine powder" in as_text(why_none(foods[2:], sifter, 8.0, False, shipped()), {})


@pytest.mark.parametrize(
    ("kind", "length", "food", "crushed"),
    [
        ("trachemys_elegans", 3.0, "turtle_sticks", True),  # 6 mm for a mouth that takes 0.4 of 9 mm
        ("trachemys_elegans", 27.0, "turtle_sticks", False),
        ("guppy", 0.8, "flakes", True),  # 2 mm for fry of 8 mm
        ("guppy", 4.0, "large_pellets", False),  # grown: not crushed, and too large
    ],
)
def test_dry_food_is_crushed_for_the_young(kind, length, food, crushed):
    row, one = shipped().foods[food], shipped().species[kind]
    assert crushed_for(row, one, length) is crushed
    assert fits_mouth(row, one, length) is (crushed or food == "turtle_sticks")


@pytest.mark.parametrize(
    ("species", "length", "said"),
    [
        ("bamboo_shrimp", 8.0, "into the current"),
        ("trachemys_elegans", 3.0, "crush dry food to under 3.6 mm"),  # 0.4 of 0.3 of 3 cm
        ("african_clawed_frog", 11.0, "two to four times a week. It is planned on 7 days"),
        ("surinam_toad", 17.0, "every third to seventh day"),  # gulps prey half its own length
        ("fire_eel", 60.0, "after the lamps are out"),
        ("neon_tetra", 3.5, ""),
    ],
)
def test_how_it_is_given(species, length, said):
    kind = shipped().species[species]
    found = " ".join(
        as_text(row, {}) for row in how(kind, length, 100.0, 7, [(shipped().foods["turtle_sticks"], None)])
    )
    assert said in found
    assert bool(found) == bool(said)


def test_less_than_half_a_cube_is_given_seldom():
    cube = shipped().foods["frozen_daphnia"]
    neon = shipped().species["neon_tetra"]
    (row,) = how(neon, 3.5, 0.5, 7, [(cube, 0.05)])
    assert "half a piece is as much as 10 days of this" in as_text(row, {})
    assert list(how(neon, 3.5, 0.5, 7, [(cube, 0.5)])) == []
    (seldom,) = how(shipped().species["african_clawed_frog"], 11.0, 150.0, 3, [])
    assert "days without food" not in as_text(seldom, {})


def test_the_week_and_the_round_say_how():
    week = fed(sheet_with(Group("bamboo_shrimp", 2), Group("neon_tetra", 10)), Larder(("shrimp_biofilm", "flakes")))
    row = week.fed[0]
    assert row.meals
    assert "into the current" in as_text(row.how[0], {})
    steps = [
        as_text(step, {})
        for duty in rota_duties(sheet_with(Group("bamboo_shrimp", 2)), week)
        for step in duty.steps
    ]
    assert any("into the current" in step for step in steps)


# Rotas --------------------------------------------------------------------------------------------


@pytest.mark.parametrize("plan", [long_hall, tidal_corner, rope_walk_b, old_copper, bottle_shelf])
def test_a_week_sums_to_the_balances_own_food(plan):
    sheet = sheet_of(plan(), shipped(), 0.0)
    week = fed(sheet)
    for row in week.fed:
        balance = number(sheet, f"animals.{row.place}.feed_now_g_d")
        assert sum(meal.grams * meal.food.dry_frac for meal in row.meals) == pytest.approx(7 * balance)
        assert len(row.meals) == 7
    half = fed(sheet, part=0.5)
    assert half.fed[0].dry_g_wk == pytest.approx(week.fed[0].dry_g_wk / 2)


def test_fasting_days_have_nothing_and_the_others_the_whole_ration():
    sheet = sheet_with(Group("neon_tetra", 10, fasting_d_wk=2))
    row = fed(sheet).fed[0]
    assert [meal.day for meal in row.meals] == ["Tue", "Wed", "Thu", "Sat", "Sun"]
    assert sum(meal.dry_g for meal in row.meals) == pytest.approx(7 * number(sheet, "animals.0.feed_now_g_d"))
    assert len({round(meal.dry_g, 9) for meal in row.meals}) == 1


def test_days_without_food_are_those_on_which_nobody_is_there():
    assert days_with_food(2, ("Mon", "Tue", "Wed", "Thu", "Fri")) == ["Mon", "Tue", "Wed", "Thu", "Fri"]
    assert days_with_food(0, WEEK) == list(WEEK)


def test_a_puffer_has_two_hard_days_and_is_told_when_nothing_hard_is_at_hand():
    sheet = sheet_with(Group("green_spotted_puffer", 1))
    row = fed(sheet).fed[0]
    assert sum(meal.food.hard for meal in row.meals) == 2
    assert row.state == "holds"
    soft = fed(sheet, Larder(("frozen_brine", "frozen_midge"))).fed[0]
    assert soft.state == "tight"
    assert "their teeth want something hard on 2 days a week" in told(soft)


def test_a_mixed_tank_feeds_each_where_it_feeds():
    sheet = sheet_with(Group("neon_tetra", 12), Group("panda_corydoras", 8), Group("pea_puffer", 3))
    week = fed(sheet)
    tetras, corydoras, puffers = week.fed
    assert all(meal.food.sinking != "sinks" or meal.food.form == "live" for meal in tetras.meals)
    assert all(meal.food.sinking == "sinks" or meal.food.form == "live" for meal in corydoras.meals)
    assert {meal.food.key for meal in puffers.meals if meal.food.hard} == {"water_snails"}
    sinking = sum(meal.dry_g for meal in corydoras.meals)
    share = sinking / sum(row.dry_g_wk for row in week.fed)
    mind = next(one for one in week.minds if "bottom" in one.text)
    assert mind.terms["share"].value == pytest.approx(share)
    assert week.state == "tight"


def test_grazers_have_their_greens_and_are_kept_from_the_meat_of_others():
    grazer = "zebra_mbuna"
    alone = fed(sheet_with(Group(grazer, 12)))
    row = alone.fed[0]
    assert 0.6 <= row.plant_frac <= 1
    assert abs(row.protein_frac - shipped().species[grazer].protein_frac) < 0.08
    assert (row.state, alone.minds) == ("holds", ())
    with_catfish = fed(sheet_with(Group(grazer, 12), Group("upside_down_catfish", 4)))
    assert any("graze" in mind.text for mind in with_catfish.minds)


def test_nothing_that_suits_is_short_and_poor_food_is_told():
    lone = fed(sheet_with(Group("axolotl", 2)), Larder(("flakes",)))
    assert (lone.state, lone.fed[0].state, lone.fed[0].meals) == ("short", "short", ())
    poor = fed(sheet_with(Group("neon_tetra", 10)), Larder(("green_pellets",))).fed[0]
    assert "80 % of it is plant, 70 % is the most" in told(poor)
    rich = fed(sheet_with(Group("zebra_mbuna", 10)), Larder(("soft_granules", "flakes"))).fed
    assert rich[0].meals == ()
    lean = fed(sheet_with(Group("neon_tetra", 10)), Larder(("frozen_brine",))).fed[0]
    assert "5 % of it is plant, at least 20 % is wanted" in told(lean)
    assert "richer than the 42 %" in told(lean)


def test_green_days_bring_protein_nearest_within_the_plants_they_thrive_on():
    # A shrimp wants 0.35; green 0.33 and 0.9 plant, tablets 0.45 and 0.35: with 6 of 7 days green 0.347.
    green = [replace(shipped().foods["algae_wafers"], plant_frac=0.9)]
    soft = [shipped().foods["bottom_tablets"]]
    shrimp = shipped().species["crystal_shrimp"]
    assert days_of_green(green, soft, shrimp, 7, shipped()) == 6
    assert days_of_green(green, [], shrimp, 7, shipped()) == 7
    assert days_of_green([], soft, shrimp, 7, shipped()) == 0
    # A meat-eater wants none.
    assert days_of_green(green, soft, shipped().species["axolotl"], 7, shipped()) == 0


def test_foods_alternate_with_the_nearest_every_other_day():
    row = fed(sheet_with(Group("neon_tetra", 10)), Larder(("flakes", "frozen_daphnia", "water_fleas"))).fed[0]
    assert [meal.food.key for meal in row.meals] == [
        "flakes",
        "water_fleas",
        "flakes",
        "frozen_daphnia",
        "flakes",
        "water_fleas",
        "flakes",
    ]


def test_of_two_foods_as_far_off_the_poorer_is_nearer():
    kind = shipped().species["neon_tetra"]
    poor, rich = (replace(shipped().foods["flakes"], protein_frac=kind.protein_frac + off) for off in (-0.05, 0.05))
    assert nearness(poor, kind) < nearness(rich, kind)
    assert nearness(rich, kind) < nearness(replace(poor, protein_frac=kind.protein_frac - 0.08), kind)


def test_pieces_are_grams_over_what_one_weighs():
    row = fed(sheet_with(Group("boeseman_rainbowfish", 10)), Larder(("frozen_brine",))).fed[0]
    assert row.meals[0].pieces == pytest.approx(row.meals[0].grams / 3)
    flakes = fed(sheet_with(Group("neon_tetra", 10)), Larder(("flakes",))).fed[0]
    assert flakes.meals[0].pieces is None


# What hangs on a rota -------------------------------------------------------------------------------


def test_the_round_feeds_each_day_what_the_rota_says():
    sheet = sheet_with(Group("neon_tetra", 10), Group("axolotl", 1, fasting_d_wk=4))
    week = fed(sheet)
    duties = list(rota_duties(sheet, week))
    assert sorted(day for duty in duties for day in duty.rhythm.weekdays) == sorted(WEEK)
    for duty in duties:
        for day in duty.rhythm.weekdays:
            assert duty.event.grams == pytest.approx(sum(meal.grams for _, meal in week.on(day)), abs=1e-3)
    assert all(duty.key.startswith("feed.rota") for duty in duties)


def test_stock_is_used_up_as_the_rota_gives_it():
    week = fed(sheet_with(Group("neon_tetra", 10)), Larder(("flakes",)))
    [use] = foods_of(week)
    assert (use.key, use.label) == ("food.flakes", "Flakes")
    assert use.a_week == pytest.approx(week.fed[0].dry_g_wk / 0.93)
    assert week_of_foods([week, week])["flakes"][1] == pytest.approx(2 * use.a_week)


def test_cultures_yield_against_what_is_wanted():
    week = fed(sheet_with(Group("bumblebee_goby", 200)), Larder(("grindal",)))
    wanted = week_of_foods([week])["grindal"][1]
    larder = Larder(("grindal",), (), (Kept("grindal_box", 1), Kept("fly_jar", 2)))
    rows = {row.key: row for row in grown(larder, [week], shipped())}
    box = rows["grindal_box"]
    assert (box.yield_g_wk, box.wanted_g_wk) == (7, pytest.approx(wanted))
    assert box.lacks
    assert box.enough * 7 >= wanted > (box.enough - 1) * 7
    assert (rows["fly_jar"].yield_g_wk, rows["fly_jar"].wanted_g_wk, rows["fly_jar"].lacks) == (6, 0, False)
    assert set(rows) == {"grindal_box", "fly_jar"}


@pytest.mark.parametrize(
    ("meals", "part"),
    [
        ([], 1.0),
        (["eaten", "eaten"], 1.0),
        (["eaten"] * 3, 1.1),
        (["eaten"] * 6, 1.21),
        (["some"], 0.9),
        (["much"], 0.75),
        (["eaten", "eaten", "some", "eaten", "eaten"], 0.9),
        (["much"] * 9, 0.4),
        (["eaten"] * 60, 1.6),
    ],
)
def test_what_is_left_moves_the_next_meals(meals, part):
    assert part_after(meals) == pytest.approx(part)


def test_a_larder_that_can_not_be():
    assert larder_faults(Larder()) == []
    row = Mix("cake", (Part("peas"),))
    assert [fault.code for fault in larder_faults(Larder(mixes=(row, replace(row, name="Cake "))))] == ["mix_twice"]
    assert [fault.code for fault in larder_faults(Larder(mixes=(Mix(" ", (Part("peas"),)),)))] == [
        "mix_without_name"
    ]
    assert [fault.code for fault in larder_faults(Larder(mixes=(Mix("cake"),)))] == ["mix_of_nothing"]


def test_tables_of_food_are_whole():
    for food in shipped().foods.values():
        assert 0 < food.dry_frac <= 1
        assert 0 < food.protein_frac < 1
        assert 0 <= food.plant_frac <= 1
    assert set(shipped().diets) == {kind.feeds_on for kind in shipped().species.values()}
    assert all(row.food in shipped().foods for row in shipped().cultures.values())
    assert set(shipped().hard_foods) <= {kind.family for kind in shipped().species.values()}
    # Meat holds more protein than leaves; dry food hardly any water, fresh leaves mostly.
    assert shipped().foods["frozen_shrimp"].protein_frac > shipped().foods["leaves_dark"].protein_frac
    assert shipped().foods["flakes"].dry_frac > 0.85
    assert shipped().foods["leaves_dark"].dry_frac < 0.25


def test_a_stand_in_gives_one_meal_of_the_week_on_every_visit():
    sheet = sheet_with(Group("neon_tetra", 10), Group("axolotl", 1, fasting_d_wk=4))
    duties = list(rota_duties(sheet, fed(sheet)))
    assert len(duties) > 2
    [meal] = one_menu(duties)
    assert len(meal.steps) == 2
    other = replace(duties[0], key="glass", kind="clean")
    assert one_menu([other, *duties]) == [other, meal]
