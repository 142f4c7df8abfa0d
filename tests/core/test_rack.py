"""Kinds on a rack: the optimiser against every assignment there is, what an offer is made of, and the reasons told."""

from dataclasses import replace
from itertools import product

import numpy as np
import pytest

from loquen.core.graph.asking import number
from loquen.core.growout.assign import EMPTY, Bounds, Offer, Outlet, alike, assigned
from loquen.core.growout.rack import least_tanks, offer_of, offers_of, rack_plan
from loquen.core.library.whole import shipped
from loquen.core.model.inputs.quantity import as_text, say
from loquen.core.model.roots.venture import Broods, Colony, Costs, Sale, Stand
from tests.core.ventures import home, told, venture


def best_of_all(offers, least, bounds, most):
    """The most that any assignment leaves, each sold as well as it can be: every one of them is tried."""
    keys = list(offers)
    tanks = len(next(iter(offers.values())))
    found = 0.0
    for chosen in product([EMPTY, *keys], repeat=tanks):
        counts = {key: chosen.count(key) for key in keys}
        if any(0 < counts[key] < least[key] or counts[key] > most.get(key, tanks) for key in keys):
            continue
        used = [(key, offers[key][tank]) for tank, key in enumerate(chosen) if key != EMPTY]
        if any(offer.against is not None for _, offer in used):
            continue
        if bounds.kwh is not None and sum(offer.kwh for _, offer in used) > bounds.kwh + 1e-9:
            continue
        minutes = sum(offer.minutes for _, offer in used)
        left = np.inf if bounds.hours is None else bounds.hours * 60 - minutes
        if left < -1e-9:
            continue
        margin = sum(offer.left for _, offer in used)
        ways = []
        for key in keys:
            here = [offer for owner, offer in used if owner == key]
            for way in range(len(here[0].outlets) if here else 0):
                outlet = here[0].outlets[way]
                could = sum(offer.outlets[way].sellable for offer in here)
                ways.append((outlet.brings - outlet.unsold, min(could, np.inf if outlet.most is None else outlet.most),
                             outlet.minutes))  # fmt: skip
        # What brings most for a minute of packing is sold first.
        for gain, count, each in sorted(ways, key=lambda way: -way[0] / max(way[2], 1e-9)):
            if gain <= 0:
                continue
            sold = min(count, left / each if each else count)
            margin += gain * sold
            left -= sold * each
        found = max(found, margin)
    return found


def random_offers(seed, kinds=3, tanks=5):
    rng = np.random.default_rng(seed)
    offers = {}
    for key in range(1, kinds + 1):
        price, unsold, most = rng.uniform(1, 6), rng.uniform(-0.3, 0.5), rng.choice([None, 3.0, 8.0])
        packing = rng.uniform(0.5, 2)
        row = []
        for _ in range(tanks):
            raised = rng.uniform(0.5, 4)
            outlet = Outlet(raised, raised * 0.9, most, price, unsold, packing)
            against = say("no") if rng.random() < 0.2 else None
            row.append(Offer(rng.uniform(1, 5), rng.uniform(5, 30), rng.uniform(1, 12), (outlet,), against))
        offers[key] = row
    return offers


@pytest.mark.parametrize("seed", range(24))
def test_the_optimiser_finds_what_trying_everything_finds(seed):
    rng = np.random.default_rng(seed + 1000)
    offers = random_offers(seed)
    least = {key: int(rng.integers(1, 4)) for key in offers}
    most = {1: 2} if seed % 3 == 0 else {}
    bounds = Bounds(1.2 if seed % 2 else None, 20.0 if seed % 4 == 1 else None)
    found = assigned(offers, least, bounds, most)
    assert found.proved
    assert found.margin == pytest.approx(best_of_all(offers, least, bounds, most), abs=1e-6)
    assert len(found.ventures) == 5
    for key in offers:
        count = found.ventures.count(key)
        assert count == 0 or least[key] <= count <= most.get(key, 5)
        assert all(offers[key][tank].against is None for tank, who in enumerate(found.ventures) if who == key)
    if bounds.hours is not None:
        assert found.minutes <= 72 + 1e-6
    if bounds.kwh is not None:
        assert found.kwh <= 20 + 1e-6


def test_tanks_alike_are_one_number():
    one, other = random_offers(1, kinds=1)[1][:2]
    assert alike({1: [one, other, one]}) == [[0, 2], [1]]


def test_buyers_spread_the_rack_over_kinds():
    dear = Outlet(4.0, 4.0, 5.0, 5.0, 0.0, 0.0)
    cheap = Outlet(4.0, 4.0, None, 2.0, 0.0, 0.0)
    offers = {1: [Offer(1, 0, 0, (dear,))] * 4, 2: [Offer(1, 0, 0, (cheap,))] * 4}
    found = assigned(offers, {1: 1, 2: 1}, Bounds())
    # Two tanks of the first sell five at 5 = 25 − 2, where one sells four at 5 = 20 − 1 and a cheap one 8 − 1.
    assert sorted(found.ventures) == [1, 2, 2, 2]
    assert found.margin == pytest.approx(20 - 1 + 3 * 7)
    uncapped = {1: [Offer(1, 0, 0, (replace(dear, most=None),))] * 4, 2: offers[2]}
    assert assigned(uncapped, {1: 1, 2: 1}, Bounds()).ventures == (1, 1, 1, 1)


def test_nothing_to_assign_is_nothing():
    assert assigned({}, {}, Bounds()).ventures == ()
    against = {1: [Offer(0, 0, 0, (), say("no"))] * 2}
    assert assigned(against, {1: 1}, Bounds()).ventures == (EMPTY, EMPTY)
    # A tank that costs more than it brings is left empty.
    dear = {1: [Offer(9, 0, 0, (Outlet(1, 1, None, 2, 0, 0),))] * 2}
    assert assigned(dear, {1: 1}, Bounds()).ventures == (EMPTY, EMPTY)


# What an offer is made of.
def test_an_offer_is_a_tanks_share_of_the_ventures_own_sheet():
    given = venture(costs=Costs(hour_money=6.0))
    sheet = told(given)
    place = home()
    offer = offer_of(sheet, place, None)
    here = sheet.changed({"asked.home": place})
    tanks = 1 + number(here, "raising_mean") + number(here, "growing_mean")
    assert offer.outlets[0].raised == pytest.approx(number(here, "sales.0.raised_per_wk") / tanks)
    assert offer.outlets[0].sellable == pytest.approx(offer.outlets[0].raised * 0.9)
    # 4 less one and a half minutes of packing at 6 an hour.
    assert offer.outlets[0].brings == pytest.approx(4 - 0.15)
    assert offer.minutes == pytest.approx(15.25)
    assert offer.kwh == pytest.approx(7.0)
    shared = offer.cost - 0.2 - 2.1 - 15.25 / 60 * 6
    assert shared * tanks == pytest.approx(number(here, "renewed_money") + number(here, "fed_money"), rel=0.05)
    # An hour that counts otherwise moves the work alone.
    assert offer_of(sheet, place, 12.0).cost - offer.cost == pytest.approx(15.25 / 60 * 6)


def test_a_kind_that_does_not_fit_makes_no_offer():
    assert offer_of(told(), home(water_c=10.0), None).against is not None
    nowhere = told(venture(colony=Colony("common_musk_turtle", females=1, males=1), sales=()))
    assert offer_of(nowhere, home(length_cm=200, kh_dkh=8), None).against is not None


def test_a_venture_wants_a_tank_to_breed_and_one_to_grow_in():
    assert least_tanks(venture()) == 2
    # A colony that lives elsewhere asks for none of these tanks.
    assert least_tanks(venture(stand=Stand(1, 2, 0, 8))) == 1
    assert least_tanks(venture(stand=Stand(1, 0, 3, 8))) == 4


# A rack, and why.
SHARED = Costs(hour_money=0.0)
WELL_SOLD = (Sale("All", "any", "shop", 1.0, 3.0, 0.0, 20.0, 1.0),)
FEW = Broods(taken_month=1, most_of_batch=20, move_cm=1.5)


def two_kinds(**of_the_first):
    first = venture(name="Platies", sales=WELL_SOLD, costs=SHARED, broods=FEW, **of_the_first)
    second = venture(
        name="Guppies",
        colony=Colony("guppy", females=6, males=2),
        sales=(Sale("All", "any", "shop", 1.0, 2.8, 0.0, 8.0, 1.0),),
        costs=SHARED,
        broods=FEW,
    )
    return {1: first, 2: second}


def test_one_kind_capped_by_demand_leaves_tanks_to_the_other():
    homes = [home(name=f"T{i}") for i in range(6)]
    free = rack_plan(two_kinds(), homes, {}, Bounds(), None, shipped())
    assert [row.venture for row in free.placed] == [1] * 6
    kinds = two_kinds()
    capped = {**kinds, 1: replace(kinds[1], sales=(replace(WELL_SOLD[0], buyers_wk=2.0),))}
    plan = rack_plan(capped, homes, {}, Bounds(), None, shipped())
    counts = [row.venture for row in plan.placed]
    assert counts.count(1) == 2
    assert counts.count(2) == 4
    share = next(row for row in plan.shares if row.venture == 1)
    assert share.capped
    assert share.sold_wk == pytest.approx(2.0)
    told_of = {row.venture: as_text(row.reason, {}) for row in plan.placed}
    assert "its buyers are met" in told_of[2]


def test_a_bound_of_tanks_hours_or_power_is_kept_and_its_price_told():
    homes = [home(name=f"T{i}") for i in range(4)]
    most = rack_plan(two_kinds(), homes, {}, Bounds(), None, shipped(), {1: 2})
    assert [row.venture for row in most.placed].count(1) == 2
    assert any("is to have 2 tanks at most" in as_text(row.reason, {}) for row in most.placed)
    bound = rack_plan(two_kinds(), homes, {}, Bounds(0.8), None, shipped())
    assert bound.hours <= 0.8 + 1e-9
    free = rack_plan(two_kinds(), homes, {}, Bounds(), None, shipped())
    assert bound.gains[0].terms["more"].value == pytest.approx(free.margin_money - bound.margin_money)
    assert bound.gains[0].terms["hours"].value == pytest.approx(free.hours)
    dark = rack_plan(two_kinds(), homes, {}, Bounds(None, 15.0), None, shipped())
    assert dark.kwh <= 15 + 1e-9
    assert sum(row.venture != EMPTY for row in dark.placed) == 2
    assert dark.gains[0].terms["more"].value == pytest.approx(free.margin_money - dark.margin_money)
    assert dark.gains[0].terms["kwh"].value == pytest.approx(28.0)


def test_who_has_no_tank_is_told_why():
    homes = [home(name="Cool", water_c=12.0, coldest_c=12.0)]
    plan = rack_plan(two_kinds(), homes, {}, Bounds(), None, shipped())
    assert as_text(plan.placed[0].reason, {}).startswith("Nothing fits: Platies")
    assert all("no tank fits" in as_text(sentence, {}) for sentence in plan.left_out)
    poor = {1: venture(sales=(Sale("All", sale_cm=3.0, price_money=0.01),))}
    plan = rack_plan(poor, [home(), home()], {}, Bounds(), None, shipped())
    assert "brings less than it costs" in as_text(plan.left_out[0], {})
    assert as_text(plan.result, {}).startswith("0 of 2")


def test_buyers_too_few_to_pay_for_its_tanks_leave_a_kind_out():
    kinds = {1: two_kinds()[1]}
    few = {1: replace(kinds[1], sales=(replace(WELL_SOLD[0], buyers_wk=0.05),))}
    plan = rack_plan(few, [home(name=f"T{i}") for i in range(3)], {}, Bounds(), None, shipped())
    assert [row.venture for row in plan.placed] == [EMPTY] * 3
    assert "do not pay for its 2 tanks" in as_text(plan.placed[0].reason, {})
    assert "its buyers do not pay" in as_text(plan.left_out[0], {})


def test_alike_tanks_are_reckoned_once():
    row = offers_of(
        two_kinds(), [home(name="A"), home(name="B"), home(name="C", litres=50.0)], {}, None, shipped()
    )[1]
    assert row[0] is row[1]
    assert row[0] is not row[2]
