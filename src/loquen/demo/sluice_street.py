"""The made-up fish room of Sluice Street: its systems as plans."""

from sqlalchemy import Engine

from loquen.api.schemas.plan import document
from loquen.core.model.plan import Air, Changes, Filter, Group, Heat, Plan, Tank, Water
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.sheet.starting import filter_of
from loquen.store import systems
from loquen.store.database import transaction

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
            plants="stems",
            plant_cover_frac=0.35,
        ),
        filters=(filter_of("canister_1500"), filter_of("canister_2400")),
        heat=cellar(24.5, lid="closed", light_w=40.0, fitted_heaters=2, fitted_w=200.0),
        air=Air(fall_cm=4.0),
        water=tap(tank_ph=7.3, tank_gh_dgh=9, source_c=22),
        changes=Changes(target_nitrate_mg_l=ion(40), weekdays=("Sat",), change_frac=0.3),
    )


def tidal_corner() -> Plan:
    return Plan(
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
        filters=(filter_of("canister_1000"),),
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
        filters=(Filter("sponge", "sponge_30", 1.4, 1.0, 300, None, 0, 3), filter_of("sponge_large")),
        heat=cellar(26.0, lid="part"),
        water=tap(tank_ph=7.4, tank_gh_dgh=9, source_c=22),
        changes=Changes(target_nitrate_mg_l=ion(40), weekdays=("Wed", "Sat"), change_frac=0.45),
    )


def fill(engine: Engine) -> None:
    """Put the demo systems into an empty database; leave any other alone."""
    with transaction(engine) as session:
        if not systems.list_all(session):
            for plan in (long_hall(), tidal_corner(), rope_walk_b()):
                systems.create(session, document(plan))
