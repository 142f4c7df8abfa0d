"""The made-up fish room of Sluice Street: its systems as plans."""

import json
from collections.abc import Callable, Iterable
from dataclasses import asdict, replace
from datetime import datetime, timedelta

from loquen.core.events.ledger import Logged
from loquen.core.library.whole import Library, shipped
from loquen.core.model.inputs.told import with_told
from loquen.core.model.parts.animals import Bag, Group, Quarantine
from loquen.core.model.parts.flow import Chamber, Flow, Outlet, RunPart, Sump
from loquen.core.model.parts.heat import Air, Heat, Lamp
from loquen.core.model.parts.running import Changes, Cycle, Filter, RunIn
from loquen.core.model.parts.tank import Planting, Tank
from loquen.core.model.parts.water import Recipe, Source, Water
from loquen.core.model.roots.documents import document
from loquen.core.model.roots.plan import Plan
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.system.planner.steps.filters import filter_of
from loquen.demo import evenings, larder, newcomers, residents, stories, ventures
from loquen.demo.fish_room import cellar_room
from loquen.store.database import Database
from loquen.store.documents import systems, waters
from loquen.store.happened import ledger
from loquen.store.tables import ROOM

Story = Callable[[Plan, datetime, Library], Iterable[Logged]]
TAP_NITRATE = 11 / NITRATE_PER_N


def ion(nitrate_mg_l: float) -> float:
    """Nitrate as kits read it, as mg/L of N."""
    return nitrate_mg_l / NITRATE_PER_N


def cellar(target_c: float, **more: object) -> Heat:
    """The cellar of the old rope works: cool, even, a cut-out on every heater."""
    room = {"room_cold_c": 15.0, "room_warm_c": 22.0, "room_mean_c": 19.0, "humidity_frac": 0.6, "cut_out": True}
    return Heat(target_c=target_c, **{**room, **more})  # type: ignore[arg-type]


def tap(**more: object) -> Water:
    """The town's water: moderately hard, chloraminated, treated in the barrel before it is used."""
    usual = {
        "source_kh_dkh": 5.0,
        "source_nitrate_mg_l": TAP_NITRATE,
        "source_us_cm": 460.0,
        "disinfectant": "chloramine",
        "disinfectant_mg_l": 1.6,
    }
    return Water(**{**usual, **more})  # type: ignore[arg-type]


def long_hall() -> Plan:
    return Plan(
        run_in=RunIn("set_up", age_weeks=104),
        name="Long Hall",
        animals=(
            Group("threadfin_rainbowfish", 14, males=6),
            Group("boeseman_rainbowfish", 10, males=4),
            Group("hillstream_loach", 12),
        ),
        tank=Tank(
            tank_length_cm=180,
            tank_width_cm=55,
            tank_height_cm=55,
            pane_mm=15,
            bed="sand",
            bed_front_cm=3,
            bed_back_cm=6,
            rock_kg=28,
            wood_l=9,
        ),
        planting=(Planting("fast_stems", 0.35),),
        flow=Flow(
            way="weir",
            weir_cm=40,
            box_length_cm=40,
            box_width_cm=20,
            box_lip_cm=5,
            drain_kind="siphon",
            drain_pipe="pvc_40",
            emergency_pipe="waste_50",
            drain_length_m=1.6,
            drain_elbows=3,
            shutoff_head_m=3.4,
            pump_max_lph=4000,
            pump_w=42,
        ),
        run=(
            RunPart("pipe", "pvc_32", 1, 2.2),
            RunPart("elbow_90", "pvc_32", 3),
            RunPart("union", "pvc_32", 1),
            RunPart("ball_valve", "pvc_32", 1),
        ),
        returns=(Outlet("pvc_25", 0.5, 1, 1.0, 2.0), Outlet("pvc_25", 1.6, 2, 1.0, 2.0)),
        sump=Sump(
            sump_lid="glass",
            sump_length_cm=120,
            sump_width_cm=45,
            sump_height_cm=45,
            sump_pane_mm=8,
            return_level_cm=22,
            intake_cm=9,
            stand_cm=80,
            stand_room_cm=74,
            topper_l=6,
        ),
        chambers=(
            Chamber("settling", 24, 30),
            Chamber("media", 46, 28),
            Chamber("heater", 14, 27),
            Chamber("trap", 4, 25),
            Chamber("return", 32, 22),
        ),
        heat=cellar(24.5, lid="glass", fitted_heaters=2, fitted_w=300.0),
        lamps=(Lamp(lamp_w=40.0),),
        air=Air(fall_cm=4.0),
        water=tap(tank_ph=7.3, tank_gh_dgh=9, source_c=22),
        changes=Changes(target_nitrate_mg_l=ion(40), weekdays=("Sat",), change_frac=0.3),
    )


def tidal_corner() -> Plan:
    return Plan(
        run_in=RunIn("set_up", age_weeks=104),
        name="Tidal Corner",
        animals=(Group("bumblebee_goby", 9, males=4), Group("orange_chromide", 2, males=1)),
        tank=Tank(
            tank_length_cm=90,
            tank_width_cm=45,
            tank_height_cm=45,
            pane_mm=10,
            bed="sand",
            bed_front_cm=2,
            bed_back_cm=5,
            rock_kg=14,
        ),
        filters=(filter_of("canister_1000", shipped()),),
        heat=cellar(25.5),
        water=tap(
            tank_ph=7.9,
            tank_gh_dgh=14,
            salinity_ppt=4,
            source_kh_dkh=6,
            source_us_cm=7600,
            source_c=23,
            topped_up="pure",
        ),
        changes=Changes(target_nitrate_mg_l=ion(40), weekdays=("Sun",), change_frac=0.25),
    )


def rope_walk_b() -> Plan:
    return Plan(
        run_in=RunIn("set_up", age_weeks=104),
        name="Rope Walk B, tank 3",
        animals=(
            Group("boeseman_rainbowfish", 8, size_by="age", age_months=4, feed_by="growing"),
            Group("beckford_pencilfish", 10, size_by="age", age_months=5, feed_by="growing"),
        ),
        tank=Tank(
            tank_length_cm=60,
            tank_width_cm=40,
            tank_height_cm=40,
            pane_mm=8,
            bed="none",
            freeboard_cm=2,
        ),
        filters=(Filter("sponge", "sponge_30", 1.4, None, 300, None, 0, 3), filter_of("sponge_large", shipped())),
        heat=cellar(26.0, lid="part"),
        water=tap(tank_ph=7.4, tank_gh_dgh=9, source_c=22),
        changes=Changes(target_nitrate_mg_l=ion(40), weekdays=("Wed", "Sat"), change_frac=0.45),
    )


def old_copper() -> Plan:
    """Three river tanks on one sump that is a little too small: what comes down does not fit."""
    return Plan(
        run_in=RunIn("set_up", age_weeks=104),
        name="Old Copper",
        animals=(Group("stream_goby", 18, males=6), Group("glowlight_danio", 30)),
        tank=Tank(
            tank_count=3,
            tank_length_cm=100,
            tank_width_cm=40,
            tank_height_cm=40,
            pane_mm=10,
            bed="gravel",
            bed_front_cm=2,
            bed_back_cm=4,
            rock_kg=18,
        ),
        flow=Flow(
            way="holes",
            hole_mm=40,
            hole_count=2,
            drain_pipe="waste_50",
            drain_count=2,
            emergency_pipe="waste_50",
            drain_length_m=1.4,
            shutoff_head_m=4.8,
            pump_max_lph=6500,
            pump_w=70,
            air_break=False,
        ),
        run=(
            RunPart("pipe", "pvc_40", 1, 2.5),
            RunPart("elbow_90", "pvc_40", 4),
            RunPart("tee_branch", "pvc_40", 1),
        ),
        returns=(Outlet("pvc_25", 0.8, 2, 1.0, 3.0),),
        sump=Sump(
            sump_lid="glass",
            sump_length_cm=80,
            sump_width_cm=35,
            sump_height_cm=38,
            return_level_cm=20,
            intake_cm=8,
            stand_cm=60,
            stand_room_cm=66,
        ),
        chambers=(Chamber("settling", 16, 27), Chamber("media", 30, 25), Chamber("return", 34, 20)),
        heat=cellar(23.0, lid="glass"),
        lamps=(Lamp(lamp_w=60.0),),
        air=Air(surface_movement="strong", fall_cm=6.0),
        water=tap(tank_ph=7.2, tank_gh_dgh=8, source_c=21),
        changes=Changes(target_nitrate_mg_l=ion(30), weekdays=("Thu",), change_frac=0.3),
    )


def waters_of_the_house() -> tuple[Source, ...]:
    """The tap, the rain tank on the roof, the small reverse-osmosis unit."""
    tap_water = Source(
        src_name="Marrow Bridge tap",
        src_gh_dgh=9.2,
        src_kh_dkh=5.1,
        src_ph=7.6,
        src_us_cm=455,
        src_nitrate_mg_l=TAP_NITRATE,
        src_sodium_mg_l=14,
        src_chloride_mg_l=24,
        src_c=8,
        src_summer_c=17,
        src_disinfectant="chloramine",
        src_chlorine_mg_l=1.6,
    )
    rain = Source("Rain tank", "rain", 1, 0.5, 0.3, 6.2, 25, ion(0.5), 1, 2, 12, 19)
    osmosis = Source("Reverse osmosis", "osmosis", 1, 0.2, 0.2, None, 12, ion(1.2), 1, 1, 14, 18)
    return (tap_water, rain, osmosis)


def bottle_shelf() -> Plan:
    """One of three small tanks of dwarf shrimp on active soil: soft water made of osmosis and salts."""
    osmosis = replace(waters_of_the_house()[2], src_parts=1.0)
    return Plan(
        run_in=RunIn("set_up", age_weeks=104),
        name="Bottle Shelf, tank 2",
        animals=(Group("crystal_shrimp", 25),),
        tank=Tank(
            tank_length_cm=40, tank_width_cm=32, tank_height_cm=30, pane_mm=5, bed="soil", bed_front_cm=3,
            bed_back_cm=5,
        ),
        filters=(filter_of("sponge_small", shipped()),),
        planting=(Planting("slow_rooted", 0.6),),
        heat=cellar(21.0, lid="glass"),
        lamps=(Lamp(lamp_w=12.0),),
        water=Water(tank_ph=6.3, tank_gh_dgh=5, tank_us_cm=190, source_c=20.5),
        sources=(osmosis,),
        recipe=Recipe(target_gh_dgh=5.0, calcium_salt="calcium_chloride_dihydrate"),
        changes=Changes(target_nitrate_mg_l=ion(15), weekdays=("Sun",), change_frac=0.2),
        bags=(
            Bag(
                "Ten shrimp from the next shelf", bagged_l=0.6, bag_mass_g=1.5, bag_number=10, bag_protein_frac=0.35, bag_h=0.5, bag_c=22, bag_kh_dkh=1,
                bag_ph=6.4, bag_us_cm=210, drops_per_s=2, drip_min=60, drip_frac=0.5,
            ),
            Bag(
                "Fifteen shrimp by post", bagged_l=0.5, bag_mass_g=2.2, bag_number=15, bag_protein_frac=0.35, bag_h=44, bag_c=17, bag_kh_dkh=3,
                bag_ph=6.5, bag_us_cm=340, drops_per_s=2, drip_min=60, drip_frac=0.5,
            ),
        ),
        quarantine=Quarantine(tub_l=18, tub_count=4),
    )  # fmt: skip


def bottle_shelf_new(now: datetime) -> Plan:
    """The first of the three, still cycling: on active soil since nineteen days, its shrimp yet to come."""
    return replace(
        bottle_shelf(),
        name="Bottle Shelf, tank 1",
        run_in=RunIn("set_up", age_weeks=19 / 7, stocked="cycled"),
        cycle=Cycle(
            begun_by="soil",
            begun_on=(now - timedelta(days=19)).date().isoformat(),
            seeded_by="plants",
            soil_gives_mg_l=6.0,
        ),
        bags=(),
    )


TESTED = ("source_kh_dkh", "source_nitrate_mg_l", "source_us_cm", "tank_gh_dgh")
TESTED_IN = ("src_gh_dgh", "src_kh_dkh", "src_us_cm", "src_nitrate_mg_l")


def as_tested(plan: Plan, now: datetime) -> Plan:
    """A plan whose waters the volunteers tested together, a while ago."""
    day = (now - timedelta(days=17)).date().isoformat()
    paths = [f"water.{name}" for name in TESTED]
    paths += [f"sources.{i}.{name}" for i in range(len(plan.sources)) for name in TESTED_IN]
    return with_told(plan, dict.fromkeys(paths, day))


def fill(database: Database) -> None:
    """Put the demo room with its logs into an empty database; leave any other alone."""
    now = datetime.now().astimezone()
    told: tuple[tuple[Plan, Story | None], ...] = (
        (long_hall(), stories.drifting_heater),
        (tidal_corner(), stories.chloramine_slip),
        (rope_walk_b(), stories.nitrate_creep),
        (old_copper(), stories.cleaned_too_well),
        (bottle_shelf(), None),
        (bottle_shelf_new(now), stories.soil_cycle),
    )
    with database.writing() as session:
        if not systems.list_all(session):
            numbers: list[int] = []
            for plan, story in told:
                made = systems.create(session, document(as_tested(plan, now)))
                numbers.append(made.id)
                if story:
                    ledger.write(
                        session, made.id, [ledger.new(row.event, row.at) for row in story(plan, now, shipped())]
                    )
            walk_b, shelf, new_shelf = numbers[2], numbers[4], numbers[5]
            room = cellar_room(now.date(), walk_b, (shelf, new_shelf))
            systems.create(session, document(room), ROOM)
            evenings.fill(session, numbers, now)
            residents.fill(session, list(zip(numbers, (plan for plan, _ in told), strict=True)), now)
            places = dict(
                zip(
                    ("hall", "tidal", "walk_b", "copper", "shelf", "new"),
                    zip(numbers, (plan for plan, _ in told), strict=True),
                    strict=True,
                )
            )
            newcomers.fill(session, places["hall"], places["walk_b"], places["shelf"], now)
            larder.fill(session, walk_b, now)
            ventures.fill(session, places, now)
            for water in waters_of_the_house():
                waters.create(session, json.dumps(asdict(water)))
