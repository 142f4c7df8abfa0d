"""Parts of a room that can not both be true, each named with the field it is typed in."""

from loquen.core.errors import PlanConflict
from loquen.core.model.roots.room import BY_HAND, ROOM, Room


def conflicts(room: Room) -> list[PlanConflict]:
    """Every contradiction in a room, with the nearest value that works; empty when it makes sense."""
    return [*lists(room), *spots(room), *hours(room), *supply(room), *reservoir(room)]


def lists(room: Room) -> list[PlanConflict]:
    return [
        PlanConflict("too_many_rows", path, most=most, rows=len(rows))
        for path, most in ROOM.limits.items()
        if "." not in path and len(rows := getattr(room, path)) > most
    ]


def spots(room: Room) -> list[PlanConflict]:
    found: list[PlanConflict] = []
    taken: dict[tuple[int, int, int], int] = {}
    for i, tank in enumerate(room.places):
        at = f"places.{i}"
        if not 1 <= tank.rack <= len(room.racks):
            nearest = max(1, min(tank.rack, len(room.racks))) if room.racks else None
            found.append(PlanConflict("off_every_rack", f"{at}.rack", nearest, racks=len(room.racks)))
            continue
        shelves = room.racks[tank.rack - 1].shelves
        if tank.shelf > shelves:
            found.append(PlanConflict("above_the_rack", f"{at}.shelf", shelves, shelves=shelves))
        if tank.zone != BY_HAND and tank.zone > len(room.zones):
            found.append(PlanConflict("no_such_zone", f"{at}.zone", len(room.zones), zones=len(room.zones)))
        spot = (tank.rack, tank.shelf, tank.slot)
        if spot in taken:
            used = {place.slot for place in room.places if (place.rack, place.shelf) == spot[:2]}
            free = next(slot for slot in range(1, 62) if slot not in used)
            found.append(PlanConflict("two_in_one_place", f"{at}.slot", free, other=taken[spot] + 1))
        taken.setdefault(spot, i)
    return found


def hours(room: Room) -> list[PlanConflict]:
    windows = [
        PlanConflict("ends_before_it_begins", f"windows.{i}.window_to_h", min(24.0, row.window_from_h + 1))
        for i, row in enumerate(room.windows)
        if row.window_to_h <= row.window_from_h
    ]
    draws = [
        PlanConflict("ends_before_it_begins", f"household.{i}.house_to_h", min(24.0, row.house_from_h + 1))
        for i, row in enumerate(room.household)
        if row.house_to_h <= row.house_from_h
    ]
    ranges = [
        PlanConflict("range_turned_round", f"tasks.{i}.task_low_min", row.task_min)
        for i, row in enumerate(room.tasks)
        if not row.task_low_min <= row.task_min <= row.task_high_min
    ]
    return windows + draws + ranges


def supply(room: Room) -> list[PlanConflict]:
    found = []
    if room.supply.tested_kpa >= room.supply.static_kpa:
        found.append(
            PlanConflict(
                "test_not_lower",
                "supply.tested_kpa",
                max(0.0, room.supply.static_kpa - 50),
                static=room.supply.static_kpa,
            )
        )
    if room.supply.summer_c < room.supply.winter_c:
        found.append(PlanConflict("summer_colder", "supply.summer_c", room.supply.winter_c))
    if room.store.hot_c <= room.store.mixed_c:
        found.append(PlanConflict("mix_hotter_than_store", "store.hot_c", min(90.0, room.store.mixed_c + 10)))
    return found


def reservoir(room: Room) -> list[PlanConflict]:
    own = room.reservoir
    fed = [i for i, zone in enumerate(room.zones) if zone.fed_from == "reservoir"]
    found = []
    if fed and own.reservoir_l <= 0:
        found.append(PlanConflict("no_reservoir", "reservoir.reservoir_l", 100.0, zone=fed[0] + 1))
    if own.reservoir_l > 0 and own.pump_tested_kpa >= own.pump_kpa:
        lower = max(0.0, own.pump_kpa - 50)
        found.append(PlanConflict("test_not_lower", "reservoir.pump_tested_kpa", lower, static=own.pump_kpa))
    if fed and own.reservoir_purified_frac > 0 and not room.purifier.purifier_fitted:
        found.append(PlanConflict("nothing_purifies", "reservoir.reservoir_purified_frac", 0.0))
    return found
