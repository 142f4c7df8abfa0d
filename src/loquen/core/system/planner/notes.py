"""What a keeper has to know of a proposed plan before anything is bought."""

from collections.abc import Iterator

from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.system.cycle.promise import empty_cycle
from loquen.core.system.planner.standing import Standing
from loquen.core.system.planner.steps.changing import delicate
from loquen.core.system.planner.steps.water import purified_share


def notes(chosen: Standing) -> Iterator[Sentence]:
    """What a keeper has to know before anything is bought: a fan, a chiller, glass that nobody sells, purified water."""
    plan = chosen.plan
    if plan.heat.chiller_w > 0:
        yield say(
            "A room of {room} is too warm for them: a chiller of {watts} is in this plan.",
            room=Term(plan.heat.room_warm_c, "temperature"),
            watts=Term(plan.heat.chiller_w, "power"),
        )
    if plan.heat.fan_fitted:
        yield say(
            "A room of {room} is too warm for them: a fan over the water is in this plan, and evaporates up to {litres}.",
            room=Term(plan.heat.room_warm_c, "temperature"),
            litres=of(chosen.sheet.value("evaporation_most_l_d"), "evaporation_most_l_d"),
        )
    sold = {(t.length_cm, t.width_cm, t.height_cm) for t in chosen.library.stock_tanks.values()}
    tank = plan.tank
    if tank.shape == "box" and (tank.tank_length_cm, tank.tank_width_cm, tank.tank_height_cm) not in sold:
        yield say(
            "No tank of a usual size has room for them: {length} by {width} by {height} has.",
            length=Term(tank.tank_length_cm, "length"),
            width=Term(tank.tank_width_cm, "length"),
            height=Term(tank.tank_height_cm, "length"),
        )
    if delicate(plan, chosen.library):
        yield say(
            "Delicate ones are among them: nitrate is held under {limit}.",
            limit=Term(plan.changes.target_nitrate_mg_l, "nitrate"),
        )
    if plan.heat.hot_day_lid == "mesh":
        yield say(
            "On hot days mesh takes the lid's place: {meshed} in a room of {room}, {shut} without.",
            meshed=of(chosen.sheet.value("summer_c"), "summer_c"),
            room=Term(plan.heat.room_warm_c, "temperature"),
            shut=of(chosen.sheet.value("shut_c"), "shut_c"),
        )
    if plan.water.aired:
        yield say("Change water warmed by the hot tap brings more gas than they bear: air it before it goes in.")
    if plan.water.topped_up == "pure":
        yield say("What evaporates is topped up with pure water, or hardness creeps up.")
    if len(plan.sources) > 1 and (share := purified_share(plan)) > 0:
        yield say("{share} of the change water is purified.", share=Term(share, "share"))
    if plan.animals and (cycle := empty_cycle(chosen.sheet)) is not None:
        yield cycle
