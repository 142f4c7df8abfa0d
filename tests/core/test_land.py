"""Land in plans that are proposed: of their size, with room over it, and the water as high as it leaves."""

from dataclasses import replace

import pytest

from loquen.core.library.whole import shipped
from loquen.core.model.inputs.quantity import as_text
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.tank import Tank
from loquen.core.model.roots.consistency import conflicts
from loquen.core.system.book import sheet_of
from loquen.core.system.build.buying import parts
from loquen.core.system.planner.settle import settle
from loquen.core.system.planner.three_ways import first_plans
from loquen.core.system.told import verdict_of
from loquen.exchange.drawing import Words, section
from tests.core.plans import plan

ASHORE = {
    "a slider of 27 cm": ("trachemys_elegans", 1, "box"),
    "a musk turtle": ("common_musk_turtle", 1, "platform"),
    "two painted turtles": ("painted_turtle", 2, "box"),
    "newts": ("great_crested_newt", 3, "platform"),
    "toads": ("fire_bellied_toad", 4, "bank"),
    "a mudskipper": ("atlantic_mudskipper", 1, "bank"),
    "crabs": ("red_clawed_crab", 3, "bank"),
}


def first(species, number):
    return first_plans("x", (Group(species, number),), shipped()).proposals[0].plan


@pytest.mark.parametrize(("species", "number", "kind"), ASHORE.values(), ids=ASHORE)
def test_a_first_plan_has_land_and_is_filled_as_it_lets(species, number, kind):
    found = first(species, number)
    sheet = sheet_of(found, shipped())
    assert found.land.land_kind == kind
    assert verdict_of(sheet, "land_suits").state == "holds"
    depth = verdict_of(sheet, "depth_suits")
    # Newts swim in water of any depth.
    assert depth is None if species == "great_crested_newt" else depth.state == "holds"
    # None of them stands 3 cm under the rim.
    assert sheet.value("inside_height_cm") - sheet.value("water_height_cm") >= 8
    assert not conflicts(found, shipped())
    bought = {row.label: row for row in parts(sheet)}
    assert any(row.where == "land" for row in bought.values())
    written = [item.text for item in section(sheet, {}).items if isinstance(item, Words)]
    assert any(text.startswith("land ") and "over the water" in text for text in written)


def test_a_turtle_s_parts_are_a_place_a_way_up_lamps_a_timer_and_a_thermometer():
    labels = " ".join(row.label for row in parts(sheet_of(first("common_musk_turtle", 1), shipped())))
    for part in ("Platform at the surface, 17 × 17 cm", "Ramp", "Wood or shelf to rest on", "Lamp to bask under",
                 "Ultraviolet-B lamp", "Timer", "probe at the dry place"):  # fmt: skip
        assert part in labels
    assert "Ramp" not in " ".join(row.label for row in parts(sheet_of(plan(), shipped())))


def test_fish_are_asked_for_no_land():
    found = first("zebra_danio", 10)
    assert found.land.land_kind == "unknown"
    assert found.tank.freeboard_cm == 3.0


def test_settling_gives_a_turtle_without_land_a_place_and_moves_no_reading():
    bare = replace(plan(animals=(Group("common_musk_turtle", 1),)), land=replace(plan().land, land_kind="none"))
    bare = replace(bare, heat=replace(bare.heat, lid="mesh"))
    assert "land_suits" in {row.check for row in settle(bare, shipped(), frozenset({"land"})).left}
    found = settle(bare, shipped())
    assert found.plan.land.land_kind in ("platform", "box")
    assert verdict_of(sheet_of(found.plan, shipped()), "land_suits").state == "holds"
    assert found.plan.land.foothold_cm is None
    assert "Dry place" in {move.label for move in found.moves}


def test_a_place_over_the_glass_or_the_rim_is_refused_with_the_nearest_that_fits():
    turtle = plan(animals=(Group("painted_turtle", 1),))
    wide = replace(
        turtle,
        land=replace(turtle.land, land_kind="bank", land_length_cm=100.0, land_width_cm=50.0, land_above_cm=0.0),
    )
    (one,) = conflicts(wide, shipped())
    # Nine tenths of 100 × 50 cm, 50 wide.
    assert (one.path, one.nearest) == ("land.land_length_cm", pytest.approx(90))
    high = replace(turtle, land=replace(turtle.land, land_kind="platform", land_above_cm=30.0))
    assert [one.path for one in conflicts(high, shipped())] == ["land.land_above_cm"]


def test_hatchlings_are_not_a_dozen_by_a_grown_one_s_litres():
    """Two of 3 cm in 50 L: by ten US gallons an inch of shell that is 89 L."""
    two = Group("trachemys_elegans", 2, size_by="length", length_cm=3.0)
    sheet = sheet_of(
        plan(
            animals=(two,),
            tank=Tank(tank_length_cm=50, tank_width_cm=40, tank_height_cm=25, freeboard_cm=0, bed="none"),
        ),
        shipped(),
        0.0,
    )
    (shell,) = [row for row in sheet.value("schools") if row.key == "shell"]
    assert shell.share == pytest.approx(2 * 3 * 14.9 / 50, rel=0.02)
    assert as_text(shell.allows, {}) == "1 such animal"
    (volume,) = [row for row in sheet.value("schools") if row.key == "volume"]
    # By length of shell a hatchling takes a ninth of a grown one's 400 L, so 50 L hold one.
    assert as_text(volume.allows, {}) == "1 such animal"


def test_deeper_water_never_helps_the_weak_and_more_land_never_harms():
    order = ("short", "tight", "holds")
    for kind in ("trachemys_elegans", "common_musk_turtle", "painted_turtle"):
        young = plan(animals=(Group(kind, 1, size_by="length", length_cm=4.0),))
        sheet = sheet_of(replace(young, tank=replace(young.tank, fill_by="height")), shipped(), 0.0)
        states = [
            verdict_of(sheet.changed({"tank.part_fill_cm": cm}), "depth_suits").state
            for cm in (6.0, 8.0, 10.0, 15.0, 25.0, 45.0)
        ]
        ranks = [order.index(state) for state in states]
        assert ranks == sorted(ranks, reverse=True), (kind, states)
        dry = sheet.changed({"land.land_kind": "box", "land.land_cover_cm": 60.0})
        states = [
            verdict_of(dry.changed({"land.land_length_cm": cm, "land.land_width_cm": cm}), "land_suits").state
            for cm in (2.0, 8.0, 15.0, 30.0, 60.0)
        ]
        ranks = [order.index(state) for state in states]
        assert ranks == sorted(ranks), (kind, states)
