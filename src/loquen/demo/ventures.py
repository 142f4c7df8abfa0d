"""What Sluice Street breeds: goodeids kept for the line, rainbowfish and shrimps sold to pay for them."""

from collections.abc import Mapping
from dataclasses import replace
from datetime import datetime, timedelta

from sqlmodel import Session

from loquen.core.events.kinds.lives import Arrived, Born, Sold
from loquen.core.events.ledger import LifeEvent
from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.running import Changes, RunIn
from loquen.core.model.parts.tank import Planting, Tank
from loquen.core.model.parts.water import Water
from loquen.core.model.records.register import Resident
from loquen.core.model.roots.documents import document
from loquen.core.model.roots.plan import Plan
from loquen.core.model.roots.venture import Broods, Colony, Costs, Raising, Sale, Stand, Venture
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.system.planner.steps.filters import filter_of
from loquen.demo.residents import day
from loquen.store.documents import systems
from loquen.store.happened import register
from loquen.store.tables import VENTURE

PAPERS = "Every pair that leaves goes to somebody who keeps the line, with its papers."
HOUR = 4.0
"""What the room reckons an hour of its volunteers at."""
BROODS = ((330, 7), (276, 9), (221, 6), (168, 10), (115, 8), (61, 8), (9, 6))
"""Days ago, and young, of the skiffias' broods."""


def rope_walk_a(heat: Plan, sources: Plan) -> Plan:
    """One of the twelve goodeid tanks: 54 litres, cool, planted, two females to each male."""
    return Plan(
        name="Rope Walk A, tank 4",
        run_in=RunIn("set_up", age_weeks=110),
        animals=(Group("golden_skiffia", 9, males=3),),
        tank=Tank(
            tank_length_cm=60,
            tank_width_cm=30,
            tank_height_cm=30,
            pane_mm=5,
            bed="sand",
            bed_front_cm=1,
            bed_back_cm=1,
        ),
        filters=(filter_of("sponge_small", shipped()),),
        planting=(Planting("slow_rooted", 0.4), Planting("floating_plants", 0.3)),
        heat=replace(
            heat.heat,
            heated=False,
            lid="glass",
            fitted_heaters=None,
            fitted_w=None,
            room_cold_c=17.0,
            room_warm_c=23.0,
        ),
        lamps=(),
        water=Water(
            tank_ph=7.6,
            tank_gh_dgh=9,
            source_c=17.0,
            source_kh_dkh=5.0,
            source_nitrate_mg_l=11 / NITRATE_PER_N,
            disinfectant="chloramine",
            disinfectant_mg_l=1.6,
        ),
        sources=sources.sources,
        changes=Changes(target_nitrate_mg_l=25 / NITRATE_PER_N, weekdays=("Wed", "Sat"), change_frac=0.25),
    )


def fill(session: Session, places: Mapping[str, tuple[int, Plan]], now: datetime) -> None:
    """The goodeids' tank with its line in the register, and four ventures."""
    goodeids = systems.create(session, document(rope_walk_a(places["hall"][1], places["walk_b"][1]))).id
    line(session, goodeids, now)
    walk_b, hall, shelf = places["walk_b"][0], places["hall"][0], places["shelf"][0]
    costs = Costs(hour_money=HOUR, feed_kg_money=28.0)
    for made in (
        Venture(
            "Golden skiffia, Marrow Bridge line",
            Colony("golden_skiffia", "line", females=6, males=3, grown_money=12.0),
            Stand(goodeids, colony_tanks=1, all_tanks=3, set_on=day(now - timedelta(days=360)), notes=PAPERS),
            Broods(raised="parents", taken_month=0.5, move_cm=1.8),
            sales=(Sale("To other keepers of the line", "any", "club", 1.0, 2.8, 120.0, 0.0, 0.9, wait_d=30.0),),
            costs=costs,
        ),
        Venture(
            "Threadfin rainbowfish",
            Colony("threadfin_rainbowfish", females=6, males=3, young_money=3.0, grown_money=7.0),
            Stand(walk_b, colony_tanks=1, all_tanks=6, set_on=day(now - timedelta(days=120))),
            Broods(taken_month=1.0, culled_frac=0.1, most_of_batch=150, move_cm=1.0),
            (Raising("First food", 30.0, 0.6), Raising("Growing on", 150.0, 0.95)),
            (
                Sale("Males in full fin", "male", "direct", 0.5, 3.4, 210.0, 8.0, 0.9, 0.97, 6.0),
                Sale("Males", "male", "shop", 0.5, 3.0, 150.0, 4.5, 0.85, 1.0, 10.0),
                Sale(
                    "Females", "female", "shop", 1.0, 2.6, 0.0, 3.0, 0.75, 1.0, 10.0, kept_d=30.0, unsold_money=0.5
                ),
            ),
            costs,
        ),
        Venture(
            "Boeseman's rainbowfish",
            Colony("boeseman_rainbowfish", females=4, males=2, young_money=5.0, grown_money=16.0),
            Stand(walk_b, colony_system=hall, colony_tanks=0, all_tanks=5, set_on=day(now - timedelta(days=200))),
            Broods(taken_month=0.5, most_of_batch=45, culled_frac=0.1, move_cm=1.6),
            (Raising("First food", 30.0, 0.6), Raising("Growing on", 150.0, 0.95)),
            (
                Sale("Coloured males", "male", "direct", 0.5, 6.0, 270.0, 14.0, 0.9, 0.97, 3.0),
                Sale("Pairs' share of males", "male", "shop", 0.5, 5.0, 240.0, 7.0, 0.8, 1.0, 6.0),
                Sale("Females", "female", "shop", 1.0, 4.5, 0.0, 4.0, 0.5, 1.0, 6.0, unsold_money=1.0),
            ),
            costs,
        ),
        Venture(
            "Crystal red shrimp",
            Colony("crystal_shrimp", females=8, males=6, bought="grown", spare_male=False, grown_money=4.0),
            Stand(shelf, colony_tanks=1, all_tanks=3, set_on=day(now - timedelta(days=300))),
            Broods(raised="parents", culled_frac=0.2, taken_month=0.2, move_cm=1.0),
            (Raising("First weeks", 30.0, 0.5), Raising("Growing on", 90.0, 0.9)),
            (Sale("Graded", "any", "direct", 1.0, 1.8, 90.0, 3.5, 0.85, 0.95, 12.0),),
            costs,
        ),
    ):
        systems.create(session, document(made), VENTURE)


def line(session: Session, tank: int, now: datetime) -> None:
    """The skiffias: five founders of two sources, their broods here, and who went on to other keepers."""
    founders = Resident(
        "golden_skiffia",
        sex="mixed",
        line="Marrow Bridge",
        source="a friend of the house",
        born=day(now - timedelta(days=700)),
    )
    arrived = Arrived(day(now - timedelta(days=360)), 9, tank, males=3, money=12.0)
    register.add(session, document(founders), [arrived])
    for ago, young in BROODS:
        brood = Resident(
            "golden_skiffia",
            line="Marrow Bridge",
            source="our own broods",
            born=day(now - timedelta(days=ago)),
            generation=1,
        )
        rows: list[LifeEvent] = [Born(day(now - timedelta(days=ago)), young, tank)]
        if ago > 150:
            rows.append(Sold(day(now - timedelta(days=ago - 140)), young - 1, tank, money=0.0))
        register.add(session, document(brood), rows)
