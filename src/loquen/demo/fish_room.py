"""The made-up fish room itself: two racks on a changer, a shelf and tubs by hand, a store of purified water."""

from datetime import date, timedelta

from loquen.core.model.roots.room import (
    Drain,
    Household,
    Place,
    Purified,
    Purifier,
    Rack,
    Room,
    Stations,
    Store,
    Supply,
    Treatment,
    Worth,
    Zone,
)
from loquen.core.physics.nitrogen import NITRATE_PER_N

RUNS_SINCE_D = 40


def cellar_room(today: date, walk_b: int, shelf: tuple[int, int]) -> Room:
    """The room of Sluice Street; the systems of Rope Walk B and of the shelf by their numbers."""
    rope_a = tuple(
        Place(
            tank_name=f"A{i + 1}",
            rack=1,
            shelf=3 - i // 4,
            slot=i % 4 + 1,
            zone=1,
            place_l=47.0,
            place_length_cm=60.0,
            place_width_cm=30.0,
            place_height_cm=30.0,
            place_c=20.0,
            place_nitrate_mg_l_d=0.35,
            place_limit_nitrate_mg_l=20 / NITRATE_PER_N,
            blocked_frac=0.45 if i == 11 else 0.0,
        )
        for i in range(12)
    )
    rope_b = tuple(
        Place(tank_name=f"B{i + 1}", system=walk_b, rack=2, shelf=2 - i // 5, slot=i % 5 + 1, zone=2)
        for i in range(10)
    )
    by_hand = (
        Place(tank_name="Shelf 1", system=shelf[1], rack=3, shelf=2, slot=1),
        Place(tank_name="Shelf 2", system=shelf[0], rack=3, shelf=2, slot=2),
        Place(
            "Shelf 3",
            rack=3,
            shelf=2,
            slot=3,
            place_l=32.0,
            place_length_cm=40,
            place_width_cm=32,
            place_height_cm=30,
        ),
        *(
            Place(
                f"Tub {i + 1}",
                rack=3,
                shelf=1,
                slot=i + 1,
                place_l=18.0,
                place_length_cm=38,
                place_width_cm=26,
                place_height_cm=24,
            )
            for i in range(4)
        ),
    )
    return Room(
        name="Sluice Street",
        supply=Supply(
            static_kpa=320.0,
            tested_lph=1100.0,
            tested_kpa=140.0,
            winter_c=7.0,
            summer_c=16.0,
            supply_nitrate_mg_l=11 / NITRATE_PER_N,
            supply_us_cm=460.0,
            supply_disinfectant="chloramine",
            air_gap=True,
        ),
        treatment=Treatment(
            feed_m=6.0,
            carbon_l=30.0,
            cartridge_l=30_000.0,
            cartridge_on=(today - timedelta(days=RUNS_SINCE_D)).isoformat(),
            setpoint_kpa=180.0,
        ),
        store=Store(mixed_c=23.0, store_l=200.0, hot_w=3000.0),
        household=(Household(6.5, 7.5, 30.0), Household(18.0, 19.0, 45.0)),
        stations=Stations(
            purifier_x_m=1.7, purifier_y_m=2.9, sink_x_m=2.6, sink_y_m=2.9, drain_x_m=3.6, drain_y_m=2.9
        ),
        racks=(
            Rack("Rope Walk A", 0.8, 0.0, "wall", 255.0, 36.0, 3, 25.0, 58.0, 55.0),
            Rack("Rope Walk B", 4.3, 0.0, "wall", 315.0, 46.0, 2, 45.0, 75.0, 70.0),
            Rack("Bottle Shelf", 0.0, 2.2, "room", 175.0, 40.0, 2, 40.0, 70.0, 30.0),
        ),
        places=(*rope_a, *rope_b, *by_hand),
        zones=(
            Zone("Rope Walk A", nominal_lph=24.0, header_mm=13.0, zone_min=20.0),
            Zone("Rope Walk B", nominal_lph=40.0, header_mm=13.0, zone_min=40.0),
        ),
        purifier=Purifier(
            purifier_fitted=True, membranes=1, membrane_l_d=280.0, purifier_kpa=320.0, purified_l=150.0
        ),
        purified=(
            Purified("Wed", 18.5, 20.0, 20.0),
            Purified("Sat", 10.0, 40.0, 110.0),
            Purified("Sun", 10.0, 30.0, 60.0),
        ),
        drain=Drain(collector_mm=50.0, leak_sensor=True, bund_l=150.0),
        worth=Worth(hour_money=14.0),
        notes="Two evenings a week, six of us: what the changer does we need not.",
    )
