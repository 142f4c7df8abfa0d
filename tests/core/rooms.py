"""A room of twelve that holds, and the line of the system that stands in it."""

from loquen.core.library.whole import shipped
from loquen.core.model.roots.room import Drain, Place, Rack, Room, Store, Supply, Zone
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.rooms.book import sheet_of
from loquen.core.rooms.lines import Line
from loquen.core.system.told import verdict_of


def line(**more) -> Line:
    """A tank of ordinary fish at 25 °C."""
    usual = {
        "system": 1,
        "name": "Fish",
        "tanks": 1,
        "litres": 47.0,
        "length_cm": 60.0,
        "width_cm": 30.0,
        "height_cm": 30.0,
        "filled_kg": 60.0,
        "water_c": 25.0,
        "low_c": 23.0,
        "high_c": 28.0,
        "rise_nitrate_mg_l_d": 0.4,
        "limit_nitrate_mg_l": 40 / NITRATE_PER_N,
        "used_dkh_d": 0.1,
        "salinity_ppt": 0.0,
        "borne_k": 2.0,
        "borne_solids_frac": 0.25,
        "us_cm": 460.0,
        "change_l_wk": 15.0,
        "work_min_wk": 12.0,
        "evaporation_l_d": 0.5,
        "year_kwh": 100.0,
        "animals": 10,
        "shared": False,
    }
    return Line(**{**usual, **more})


def room(**more) -> Room:
    """Twelve tanks of 47 L on three shelves and one zone, which holds."""
    usual = {
        "name": "Twelve",
        "supply": Supply(
            air_gap=True, house_lph=200, supply_nitrate_mg_l=5 / NITRATE_PER_N, supply_disinfectant="chlorine"
        ),
        "store": Store(mixed_c=25),
        "racks": (Rack("Wall", rack_cm=260, rack_depth_cm=40),),
        "places": tuple(Place(f"A{i + 1}", 1, 1, 3 - i // 4, i % 4 + 1, 1) for i in range(12)),
        "zones": (Zone("One", zone_min=24),),
        "drain": Drain(floor_l_s=0.8, floor_kn_m2=8),
    }
    return Room(**{**usual, **more})


def told(given: Room, *lines: Line):
    known = {row.system: row for row in (lines or (line(),))}
    return sheet_of(given, shipped(), known)


def state(sheet, key):
    verdict = verdict_of(sheet, key)
    return verdict and verdict.state
