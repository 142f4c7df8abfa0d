"""The numbers a room is built from: handbook values, replays at small steps, exhaustive search on small days."""

import itertools
import math
from datetime import date

import pytest
from scipy.integrate import quad

from loquen.core.errors import NamedCase, OutOfRange
from loquen.core.rooms.diagnosis import RunSeen, ZoneKnown, suspects
from loquen.core.rooms.drains import drain_depth_frac, room_drains
from loquen.core.rooms.labour import labour_week
from loquen.core.rooms.supply import (
    cartridge_change_date,
    osmosis_week,
    softener_litres,
    softener_sodium_mg_l,
)
from loquen.core.rooms.timetable import (
    hot_share_frac,
    longest_pulse_min,
    mixed_store_min,
    mixed_usable_frac,
    recovery_lph,
    rest_min,
    store_levels,
    timetable,
)
from loquen.core.rooms.zones import exchanged_frac, failed_mix_c, flow_ratio


def test_shares_of_a_run():
    assert exchanged_frac(ratios=[1 / 3]) == pytest.approx(0.283, abs=5e-4)
    assert exchanged_frac(ratios=[0.9 / 3]) == pytest.approx(0.259, abs=5e-4)
    assert flow_ratio(emitter_lph=40, minutes=30, volume_l=60, short_circuit_frac=0) == pytest.approx(1 / 3)
    assert exchanged_frac(ratios=[0.1, 0.2]) == pytest.approx(exchanged_frac(ratios=[0.3]))


@pytest.mark.parametrize(("fed", "ratio", "ends"), [(60, 1 / 3, 34.9), (60, 1 / 12, 27.8), (6, 1 / 3, 19.6)])
def test_a_mix_that_fails(fed, ratio, ends):
    assert failed_mix_c(tank_c=25, fed_c=fed, ratio=ratio) == pytest.approx(ends, abs=0.06)


def test_hot_water():
    assert hot_share_frac(mix_c=25, cold_c=6, hot_c=60) == pytest.approx(0.3519, abs=5e-5)
    assert hot_share_frac(mix_c=15, cold_c=18, hot_c=60) == 0
    assert recovery_lph(power_w=3000, cold_c=8, hot_c=60) == pytest.approx(49.62, abs=5e-3)
    assert recovery_lph(power_w=50, cold_c=8, hot_c=60, standing_loss_w=80) == 0
    assert mixed_usable_frac(hot_c=60, mix_c=25, cold_c=6) == pytest.approx(0.593, abs=5e-4)
    runs = {"store_l": 200, "hot_c": 60, "mix_c": 25, "cold_c": 6, "flow_lph": 1000, "power_w": 6000}
    assert mixed_store_min(**runs) == pytest.approx(27.7, abs=0.06)
    assert mixed_store_min(**{**runs, "power_w": 30_000}) is None
    assert longest_pulse_min(usable_l=133, reserve_l=20, hot_lph=586, recovery_lph=160) == pytest.approx(
        15.9, abs=0.02
    )
    assert longest_pulse_min(usable_l=133, reserve_l=20, hot_lph=100, recovery_lph=160) is None
    assert rest_min(pulse_min=12, hot_lph=586, recovery_lph=160) == pytest.approx(31.95, abs=5e-3)
    with pytest.raises(NamedCase, match="mix_hotter_than_store"):
        hot_share_frac(mix_c=61, cold_c=6, hot_c=60)


def test_a_store_is_exact_at_its_corners():
    found = store_levels(capacity_l=100, inflow_lph=40, draws=[(1, 1.5, 90), (2, 2.5, 80)])
    assert found.min_l == 0
    assert found.first_short_h == pytest.approx(2.4167, abs=5e-5)
    assert found.short_l == pytest.approx(10)
    assert found.end_l == 100


@pytest.mark.parametrize("start", [None, 12.0])
def test_a_store_like_a_replay_of_small_steps(start):
    draws = [(0.5, 3, 130), (2, 2.2, 25), (6, 6.5, 90), (6.25, 9, 10), (20, 23.9, 60)]
    found = store_levels(capacity_l=80, inflow_lph=22, draws=draws, start_l=start)
    steps, level, short, least = 24 * 3600, 80 if start is None else start, 0.0, 1e9
    for n in range(steps):
        hour = n / 3600
        out = sum(litres / (end - begin) for begin, end, litres in draws if begin <= hour < end) / 3600
        level += 22 / 3600 - out
        short += max(0.0, -level)
        level = min(80.0, max(0.0, level))
        least = min(least, level)
    assert found.end_l == pytest.approx(level, abs=0.1)
    assert found.short_l == pytest.approx(short, abs=0.2)
    assert found.min_l == pytest.approx(least, abs=0.1)


def test_a_store_that_ends_before_it_begins():
    with pytest.raises(NamedCase, match="ends_before_it_begins"):
        store_levels(capacity_l=10, inflow_lph=1, draws=[(3, 2, 5)])


STORE = {"capacity_l": 190, "hot_c": 60, "cold_c": 6, "mix_c": 25, "power_w": 6000}


def replayed(found, zones, windows, house, reserve, gap_min, store=STORE):
    """Whether a timetable is sound, minute by minute."""
    minutes = dict.fromkeys((zone["id"] for zone in zones), 0.0)
    flow = {zone["id"]: zone["flow_lph"] for zone in zones}
    rows = sorted(found.schedule, key=lambda row: row["start_h"])
    for row in rows:
        minutes[row["zone"]] += (row["end_h"] - row["start_h"]) * 60
        assert any(a - 1e-6 <= row["start_h"] and row["end_h"] <= b + 1e-6 for a, b in windows)
        assert abs(row["start_h"] * 60 - round(row["start_h"] * 60)) < 1e-6
    for one, other in itertools.pairwise(rows):
        assert other["start_h"] - one["end_h"] >= gap_min / 60 - 1e-6
    turns = dict.fromkeys(minutes, 0)
    for row in rows:
        turns[row["zone"]] += 1
        left = [turns[zone] for zone in turns if turns[zone] < sum(r["zone"] == zone for r in rows)]
        assert turns[row["zone"]] <= min(left, default=turns[row["zone"]]) + 1
    lengths = {zone: {round(r["end_h"] - r["start_h"], 9) for r in rows if r["zone"] == zone} for zone in minutes}
    assert all(len(found) == 1 for found in lengths.values())
    for zone in zones:
        assert minutes[zone["id"]] == pytest.approx(zone["minutes"], abs=1e-6)
    usable = store["capacity_l"] * store.get("usable_frac", 0.7)
    level, made, lowest = usable, found.recovery_lph / 60, usable
    for minute in range(24 * 60):
        hour = (minute + 0.5) / 60
        out = sum(litres / (b - a) / 60 for a, b, litres in house if a <= hour < b)
        for row in rows:
            inside = max(0.0, min(minute + 1, row["end_h"] * 60) - max(minute, row["start_h"] * 60))
            out += flow[row["zone"]] * found.hot_share_frac * inside / 60
        level = min(usable, level + made - out)
        lowest = min(lowest, level)
    assert lowest >= reserve - made - 0.5
    return lowest


def test_a_day_is_sound_when_replayed():
    zones = [{"id": n, "flow_lph": 300 + 120 * n, "minutes": 14 + 3 * n} for n in range(5)]
    house = [(6.5, 7.5, 40), (18, 19, 60)]
    windows = [(0, 6), (9, 12)]
    found = timetable(zones=zones, windows_h=windows, store=STORE, house=house, reserve_l=25, gap_min=3)
    assert found.feasible
    assert replayed(found, zones, windows, house, 25, 3) == pytest.approx(found.min_l, abs=3)


def exhausted(zones, window_min, longest, hot_share, recovery, usable, reserve):
    """Fewest starts and the earliest finish, of every row of pulses at every minute."""
    for starts in range(len(zones), len(zones) + 3):
        best = None
        for counts in itertools.product(range(1, starts + 1), repeat=len(zones)):
            if sum(counts) != starts or any(
                z["minutes"] / n > longest + 1e-9 for z, n in zip(zones, counts, strict=True)
            ):
                continue
            for order in itertools.permutations(range(len(zones))):
                pulses = [i for turn in range(max(counts)) for i in order if turn < counts[i]]
                best = earliest(pulses, counts, zones, window_min, hot_share, recovery, usable, reserve, best)
        if best is not None:
            return starts, best
    return None


def earliest(pulses, counts, zones, window_min, hot_share, recovery, usable, reserve, best):
    def go(at, level, left):
        nonlocal best
        if not left:
            best = at - 1 if best is None else min(best, at - 1)
            return
        zone = zones[left[0]]
        long = zone["minutes"] / counts[left[0]]
        for begin in range(at, int(window_min - long) + 1):
            if best is not None and begin + long >= best:
                return
            full = min(usable, level + recovery / 60 * (begin - at))
            after = full + (recovery - zone["flow_lph"] * hot_share) / 60 * long
            if after >= reserve - 1e-9:
                go(begin + int(long) + 1, min(usable, after + recovery / 60), left[1:])

    go(0, usable, pulses)
    return best


@pytest.mark.parametrize(
    ("zones", "longest"),
    [
        ([{"id": "a", "flow_lph": 900, "minutes": 12}, {"id": "b", "flow_lph": 500, "minutes": 12}], 100),
        ([{"id": "a", "flow_lph": 1200, "minutes": 12}, {"id": "b", "flow_lph": 700, "minutes": 6}], 100),
        ([{"id": "a", "flow_lph": 600, "minutes": 12}, {"id": "b", "flow_lph": 600, "minutes": 12}], 6),
    ],
)
def test_no_search_beats_it_on_small_days(zones, longest):
    store = {"capacity_l": 100, "hot_c": 60, "cold_c": 10, "mix_c": 25, "power_w": 6000}
    found = timetable(
        zones=zones, windows_h=[(0, 1.5)], store=store, reserve_l=10, gap_min=1, longest_pulse_min=longest
    )
    assert found.feasible
    starts, finish = exhausted(zones, 90, longest, found.hot_share_frac, found.recovery_lph, found.usable_l, 10)
    assert found.starts <= starts
    assert found.finish_h * 60 <= finish + 1 + 1e-6


@pytest.mark.parametrize(
    ("reason", "more"),
    [
        ("not_enough_hours", {"windows_h": [(0, 0.3)]}),
        ("not_enough_heat", {"store": {**STORE, "power_w": 500}, "windows_h": [(0, 3)]}),
        ("house_alone_empties", {"house": [(1, 2, 400)]}),
        ("mix_hotter_than_store", {"store": {**STORE, "mix_c": 65}}),
        ("no_room_for_pulses", {"longest_pulse_min": 3, "shortest_pulse_min": 2.9, "gap_min": 170}),
    ],
)
def test_a_day_that_can_not_be_says_why(reason, more):
    day = {
        "zones": [{"id": n, "flow_lph": 600, "minutes": 20} for n in range(3)],
        "windows_h": [(0, 8)],
        "store": STORE,
        "reserve_l": 20,
    }
    found = timetable(**{**day, **more})
    assert not found.feasible
    assert found.reason == reason
    assert found.schedule == []
    assert 0 <= found.share_that_fits <= 1


def test_heat_that_is_short_says_what_fits():
    found = timetable(
        zones=[{"id": 1, "flow_lph": 1000, "minutes": 60}],
        windows_h=[(0, 2)],
        store={**STORE, "power_w": 1000},
        reserve_l=33,
    )
    # 133 L to begin with less 33, and 1000 W for two hours: 31.85 L, for 351.9 L wanted.
    assert found.share_that_fits == pytest.approx((100 + 2 * 3600 * 1000 / (4186 * 54)) / 351.85, rel=1e-3)


def test_a_store_of_purified_water_over_a_week():
    week = {
        "membranes": 1,
        "rated_l_d": 360,
        "feed_kpa": 300,
        "tds_mg_l": 350,
        "temp_c": 10,
        "waste_ratio": 3,
        "rejection_frac": 0.95,
        "store_l": 200,
    }
    fits = osmosis_week(**week, demand=[{"day": 5, "hour": 10, "minutes": 60, "litres": 190}])
    assert fits.permeate_lph == pytest.approx(8.10, abs=5e-3)
    assert fits.fill_h == pytest.approx(200 / 8.0992, rel=1e-4)
    assert fits.holds_for_good
    assert fits.first_short_week is None
    assert fits.made_l_wk == pytest.approx(190)
    assert fits.waste_l_wk == pytest.approx(570)
    two = [{"day": day, "hour": 18, "minutes": 30, "litres": 190} for day in (2, 2)]
    short = osmosis_week(**week, demand=two)
    assert short.first_short_week == 1
    assert short.first_short_h == pytest.approx(24 * 2 + 18, abs=0.5)
    assert not short.holds_for_good
    sinking = osmosis_week(
        **week, demand=[{"day": day, "hour": 9, "minutes": 60, "litres": 205} for day in range(7)]
    )
    # 8.1 L/h make 194 L a day: ten litres a day are missing.
    assert sinking.first_short_week == 1
    slowly = osmosis_week(
        **{**week, "store_l": 400},
        demand=[{"day": day, "hour": 9, "minutes": 60, "litres": 198} for day in range(7)],
    )
    assert slowly.short_l == 0
    assert slowly.first_short_week > 1


def test_a_draw_over_the_weeks_end_is_drawn_once():
    common = {"membranes": 1, "rated_l_d": 100, "feed_kpa": 345, "tds_mg_l": 250, "temp_c": 25, "waste_ratio": 2}
    over = osmosis_week(
        **common, rejection_frac=0.9, store_l=50, demand=[{"day": 6, "hour": 23.5, "minutes": 60, "litres": 40}]
    )
    assert over.holds_for_good
    assert over.demand_l_wk == 40
    assert over.end_l == pytest.approx(50 - 20 + over.permeate_lph * 0.5, abs=1e-6)


def test_softener_and_cartridges():
    assert softener_litres(capacity_grains=30_000, removed_dgh=15) == pytest.approx(7261, abs=1)
    assert softener_sodium_mg_l(removed_dgh=15) == pytest.approx(123, abs=0.5)
    week = [400, 0, 400, 0, 400, 0, 0]
    begins = date(2026, 3, 2)
    assert cartridge_change_date(start=begins, capacity_l=5000, litres_by_weekday=week) == date(2026, 3, 30)
    assert cartridge_change_date(start=begins, capacity_l=4800, litres_by_weekday=week) == date(2026, 3, 30)
    assert cartridge_change_date(start=begins, capacity_l=4799, litres_by_weekday=week) == date(2026, 3, 27)
    soon = cartridge_change_date(start=begins, capacity_l=5000, litres_by_weekday=week, calendar_d=10)
    assert soon == date(2026, 3, 12)
    assert cartridge_change_date(start=begins, capacity_l=100, litres_by_weekday=[0] * 7) is None
    assert cartridge_change_date(start=begins, capacity_l=100, litres_by_weekday=[200] * 7) == begins
    with pytest.raises(OutOfRange):
        cartridge_change_date(start=begins, capacity_l=100, litres_by_weekday=[1, 2])


DRAIN = {
    "zones": [{"flow_lph": 500}, {"flow_lph": 800}, {"flow_lph": 300}],
    "collector_mm": 50,
    "slope_frac": 0.01,
    "rack_drain_mm": 38.1,
    "rack_lph": 800,
    "bulkhead_mm": 20,
    "head_over_invert_mm": 10,
    "tank_inflow_lph": 40,
    "floor_drain_l_s": 0.8,
    "accident_l": 200,
    "hand_lph": 600,
    "other_lph": 30,
}


def test_drains_of_a_room():
    found = room_drains(**DRAIN)
    assert found.ordinary_lph == 800 + 630
    assert found.worst_lph == 1300 + 630
    assert found.collector_half_lph == pytest.approx(2115, abs=1)
    assert found.collector_most_lph == pytest.approx(4550, abs=5)
    assert found.collector_holds_half
    assert found.collector_passes
    assert found.rack_drain_lph == pytest.approx(1847, abs=1)
    assert found.rack_drain_holds
    assert found.bulkhead_lph == pytest.approx(85.9, abs=0.1)
    assert found.bulkhead_holds
    assert found.floor_drain_lph == 2880
    assert found.floor_drain_holds
    assert found.accident_min == pytest.approx(200 / (2880 - 1930) * 60)
    assert drain_depth_frac(flow_lph=1500, bore_mm=50, slope_frac=0.01) == pytest.approx(0.411, abs=5e-4)


def test_drains_that_do_not_hold():
    found = room_drains(
        **{
            **DRAIN,
            "collector_mm": 32,
            "floor_drain_l_s": 0.5,
            "tank_inflow_lph": 90,
            "rack_lph": 1900,
            "hand_lph": 1000,
        }
    )
    assert not found.collector_holds_half
    assert not found.collector_passes
    assert found.depth_frac_worst is None
    assert not found.floor_drain_holds
    assert found.accident_min is None
    assert not found.bulkhead_holds
    assert not found.rack_drain_holds
    with pytest.raises(NamedCase, match="drain_full"):
        drain_depth_frac(flow_lph=5000, bore_mm=50, slope_frac=0.01)


def test_labour_of_a_week():
    found = labour_week(
        tasks=[
            {"task": "change", "minutes": (1.5, 2.5, 4.0), "per_week": 2, "count": 24, "share_saved": 0.9},
            {"task": "feed", "minutes": (0.15, 0.25, 0.4), "per_week": 14, "count": 24, "share_saved": 0.0},
        ],
        upkeep_min_per_week=(5, 10, 20),
        running_money_per_week=(1, 2, 4),
        money_per_h=(5, 10, 20),
        cost_money=(300, 500, 800),
    )
    assert found.hours_before == pytest.approx(((72 + 50.4) / 60, (120 + 84) / 60, (192 + 134.4) / 60))
    assert found.hours_saved == pytest.approx(((64.8 - 20) / 60, (108 - 10) / 60, (172.8 - 5) / 60))
    assert found.hours_after[1] == pytest.approx((12 + 84 + 10) / 60)
    assert found.gain_per_week == pytest.approx((44.8 / 60 * 5 - 4, 98 / 60 * 10 - 2, 167.8 / 60 * 20 - 1))
    assert found.payback_weeks["worst"] is None
    assert found.payback_weeks["likely"] == pytest.approx(500 / (98 / 6 - 2))
    assert found.payback_weeks["best"] == pytest.approx(300 / (167.8 / 3 - 1))


def test_odds_of_a_blocked_emitter_as_integrated_by_hand():
    """Two runs at 92 and 94 % in a zone of ten, one at 101 % in another: Bayes' rule, each fault's level spread evenly."""
    seen = [(1, 0.92), (1, 0.94), (2, 1.01)]

    def density(ratio, level):
        spread = 0.03 * max(level, 0.1)
        return math.exp(-0.5 * ((ratio - level) / spread) ** 2) / spread

    def evidence(level_in):
        return math.prod(density(ratio, level_in(zone)) for zone, ratio in seen)

    def over(low, high, level_in):
        value = quad(lambda x: evidence(lambda zone: level_in(zone, x)), low, high, limit=200)[0]
        return value / (high - low)

    weights = {
        ("well", 0): 0.90 * evidence(lambda _: 1.0),
        ("meter", 0): 0.012 * over(0.7, 1.3, lambda _, x: x),
        ("pressure", 0): 0.016 * over(0.5, 0.97, lambda _, x: x),
    }
    for mine in (1, 2):
        weights["blocked", mine] = 0.02 * over(0.3, 1, lambda z, x, m=mine: 1 - x / 10 if z == m else 1.0)
        weights["stuck_open", mine] = 0.006 * over(1.2, 3, lambda z, x, m=mine: x if z == m else 1.0)
        weights["stuck_closed", mine] = 0.006 * evidence(lambda z, m=mine: 0.0 if z == m else 1.0)
    whole = sum(weights.values())
    found = suspects(
        [RunSeen(zone, 50.0, 50.0 * ratio, "timetable") for zone, ratio in seen],
        [ZoneKnown(1, "One", 10), ZoneKnown(2, "Two", 10)],
    )
    assert {(row.key, row.zone) for row in found} == {what for what, w in weights.items() if w / whole >= 0.02}
    for row in found:
        assert row.odds == pytest.approx(weights[row.key, row.zone] / whole, rel=0.05)
    with pytest.raises(NamedCase, match="nothing_run"):
        suspects([], [])
