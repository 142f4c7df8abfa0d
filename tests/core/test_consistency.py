"""Contradictions in a plan, each told at the field it is typed in."""

import pytest

from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.heat import Heat
from loquen.core.model.parts.running import Filter
from loquen.core.model.parts.tank import Tank
from loquen.core.model.parts.water import Recipe
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.plan import PLAN
from tests.core.plans import plan


@pytest.mark.parametrize(
    ("parts", "code", "path"),
    [
        ({"animals": (Group("unicorn", 1),)}, "unknown_in_library", "animals.0.species"),
        ({"recipe": Recipe(calcium_salt="gravel")}, "unknown_in_library", "recipe.calcium_salt"),
        ({"recipe": Recipe(carbonate_salt="gypsum")}, "unknown_in_library", "recipe.carbonate_salt"),
        ({"filters": (Filter(media="cheese"),)}, "unknown_in_library", "filters.0.media"),
        ({"animals": (Group("guppy", 3, males=4),)}, "more_males_than_animals", "animals.0.males"),
        ({"animals": (Group("guppy", 3),) * 41}, "too_many", "animals"),
        (
            {"tank": Tank(fill_by="height", part_fill_cm=60, tank_height_cm=45)},
            "fill_above_glass",
            "tank.part_fill_cm",
        ),
        ({"tank": Tank(freeboard_cm=45, tank_height_cm=45)}, "no_water_left", "tank.freeboard_cm"),
        ({"tank": Tank(tank_height_cm=20, bed_back_cm=18)}, "bed_above_water", "tank.bed_back_cm"),
        ({"tank": Tank(shape="bow_front", bow_cm=60)}, "bow_too_deep", "tank.bow_cm"),
        ({"tank": Tank(shape="l_shape", notch_length_cm=89)}, "notch_too_large", "tank.notch_length_cm"),
        ({"tank": Tank(tank_length_cm=20, pane_mm=60)}, "pane_fills_tank", "tank.pane_mm"),
        ({"tank": Tank(tank_length_cm=6, pane_mm=40)}, "pane_fills_tank", "tank.pane_mm"),
        ({"tank": Tank(rock_kg=400)}, "hardscape_fills_tank", "tank.rock_kg"),
        ({"heat": Heat(room_months_c=(20.0,) * 11)}, "twelve_months", "heat.room_months_c"),
        ({"heat": Heat(room_cold_c=30, room_warm_c=20)}, "room_upside_down", "heat.room_cold_c"),
    ],
)
def test_named_at_its_field(parts, code, path):
    whole = plan(**parts)
    found = {(conflict.code, conflict.path): conflict.nearest for conflict in conflicts(whole, shipped())}
    assert (code, path) in found
    if (nearest := found[code, path]) is not None:
        mended = PLAN.changed(whole, {path: nearest})
        assert (code, path) not in {(left.code, left.path) for left in conflicts(mended, shipped())}


def test_no_value_is_offered_that_can_not_be_entered():
    # No rock at all would still leave too much wood.
    (wood,) = conflicts(plan(tank=Tank(rock_kg=400, wood_l=400)), shipped())
    assert (wood.code, wood.nearest) == ("hardscape_fills_tank", None)


def test_a_sensible_plan_has_none():
    assert conflicts(plan(), shipped()) == []
