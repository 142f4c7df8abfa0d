"""Plans as chance makes them, seeded: any company that shares a water, any glass, room, lid, heater, lime and regime."""

import random

from loquen.core.model.parts.heat import Heat
from loquen.core.model.parts.running import Changes, Filter
from loquen.core.model.parts.tank import Tank
from loquen.core.model.parts.water import Water
from tests.core.companies import companies
from tests.core.plans import plan

DAYS = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")


def random_plans(count, seed=33):
    chance = random.Random(seed)
    return [random_plan(animals, chance) for animals in companies(count, seed)]


def random_plan(animals, chance):
    between, one_of = chance.uniform, chance.choice
    cold = between(8, 20)
    mean = cold + between(1, 6)
    days = chance.sample(DAYS, one_of((1, 1, 2, 3)))
    fitted = one_of((None, 1, 2, 3))
    return plan(
        animals=animals,
        tank=Tank(
            tank_length_cm=between(40, 220),
            tank_width_cm=between(30, 70),
            tank_height_cm=between(35, 65),
            bed=one_of(("none", "sand", "gravel", "soil", "coral")),
            lime_kg=one_of((0.0, 0.0, between(0.5, 20))),
            rock_kg=one_of((0.0, between(2, 40))),
        ),
        filters=(Filter(media_l=between(1, 20), rated_lph=between(200, 3000)),),
        heat=Heat(
            heated=one_of((True, True, False)),
            target_c=between(20, 29),
            room_cold_c=cold,
            room_mean_c=mean,
            room_warm_c=mean + between(1, 10),
            lid=one_of(("open", "mesh", "part", "glass", "tight")),
            fitted_heaters=fitted,
            fitted_w=None if fitted is None else between(10, 300),
            chiller_w=one_of((0.0, 0.0, between(1, 200))),
        ),
        water=Water(
            source_kh_dkh=between(0.5, 14),
            tank_gh_dgh=between(1, 25),
            tank_ph=between(5.8, 8.4),
            source_nitrate_mg_l=between(0, 8),
            disinfectant="none",
        ),
        changes=Changes(weekdays=tuple(sorted(days, key=DAYS.index)), change_frac=between(0.05, 0.7)),
    )
