"""Newcomers: turns against every order there is, stays, what a tub asks against hand-worked balances, courses."""

import itertools
import math
import random
from dataclasses import replace
from datetime import date

import pytest

from loquen.core.graph.asking import number
from loquen.core.library.whole import shipped
from loquen.core.model.inputs.quantity import as_text
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.running import Filter
from loquen.core.model.parts.water import Water
from loquen.core.model.records.quarantine import Arriving, TreatmentCourse, arriving_faults, course_faults
from loquen.core.model.records.register import Resident
from loquen.core.quarantine.courses import days_of_course, endangered, held_copper, label_dose, rinses
from loquen.core.quarantine.duties import tub_duties
from loquen.core.quarantine.order import Job, in_order
from loquen.core.quarantine.stays import stay
from loquen.core.quarantine.tubs import asks, new_tub, takes, with_in_it
from loquen.core.quarantine.watching import signs_of
from loquen.core.register.lives import life_of
from loquen.core.routine.due import Done, coming, due
from loquen.core.system.book import sheet_of
from tests.core.lives import happened

DAY = date(2026, 11, 26)
TUB, HALL = 8, 1


# Whose turn it is ---------------------------------------------------------------------------------


def cheapest(jobs, free):
    """The least sum of days at which they leave, by trying every split over the tubs and every order in each."""
    best = (math.inf, math.inf)
    for tubs in itertools.product([None, *free], repeat=len(jobs)):
        if any(tub is not None and tub not in job.wait_d for tub, job in zip(tubs, jobs, strict=True)):
            continue
        total, without = 0, tubs.count(None)
        for tub, free_d in free.items():
            here = [job for job, mine in zip(jobs, tubs, strict=True) if mine == tub]
            sums = [leaving(order, tub, free_d) for order in itertools.permutations(here)]
            total += min(sums)
        if total < math.inf:
            best = min(best, (without, total))
    return best


def leaving(order, tub, free_d):
    total, day = 0, free_d
    for job in order:
        if not job.can_wait and day > job.ready_d:
            return math.inf
        day = max(day, job.ready_d) + job.wait_d[tub]
        total += day
    return total


def seeded(seed, count, tubs):
    """Arrivals and tubs as a seed has them: each fits some tubs, some can not wait."""
    pick = random.Random(seed)
    free = {tub: pick.choice((0, 0, 5, 20)) for tub in range(tubs)}
    jobs = []
    for key in range(count):
        fits = [tub for tub in free if pick.random() < 0.75]
        wait = pick.choice((14, 28, 28, 42))
        jobs.append(Job(key, pick.randrange(0, 40), dict.fromkeys(fits, wait), pick.random() < 0.8))
    return jobs, free


@pytest.mark.parametrize("seed", range(24))
def test_turns_are_the_best_of_all_orders(seed):
    jobs, free = seeded(seed, 5, 2 + seed % 2)
    turns = in_order(jobs, free)
    without = sum(turn.tub is None for turn in turns)
    total = sum(turn.leaves_d for turn in turns if turn.tub is not None)
    assert (without, total) == cheapest(jobs, free)
    assert sorted(turn.key for turn in turns) == list(range(5))


def test_eight_arrivals_for_one_tub_are_as_good_as_the_best_of_40320_orders():
    jobs, free = seeded(3, 8, 1)
    jobs = [Job(job.key, job.ready_d, {0: 7 * (job.key + 1)}) for job in jobs]
    turns = in_order(jobs, free)
    assert sum(turn.leaves_d for turn in turns) == min(
        leaving(order, 0, free[0]) for order in itertools.permutations(jobs)
    )


def test_turns_in_a_tub_do_not_overlap_and_none_begins_before_its_day():
    jobs, free = seeded(7, 20, 3)
    turns = in_order(jobs, free)
    ready = {job.key: job.ready_d for job in jobs}
    for tub, free_d in free.items():
        mine = sorted((turn.enters_d, turn.leaves_d) for turn in turns if turn.tub == tub)
        assert all(before[1] <= after[0] for before, after in itertools.pairwise(mine))
        assert all(enters >= free_d for enters, _ in mine)
    assert all(turn.enters_d >= ready[turn.key] for turn in turns)


def test_who_can_not_wait_goes_first_and_who_fits_nowhere_has_no_tub():
    jobs = [Job(1, 0, {0: 28}), Job(2, 0, {0: 28}, can_wait=False), Job(3, 0, {})]
    turns = {turn.key: turn for turn in in_order(jobs, {0: 0})}
    assert (turns[2].enters_d, turns[1].enters_d, turns[3].tub) == (0, 28, None)


# Stays --------------------------------------------------------------------------------------------


def life(*events, species="neon_tetra"):
    return life_of(Resident(species), events)


def came(day, count=5, system=TUB):
    return happened("arrival", day, count, system)


def test_a_wait_is_counted_from_the_last_newcomer_of_the_tub():
    first = life(came("2026-11-01"))
    assert stay([first], TUB, 28).release == date(2026, 11, 29)
    later = life(came("2026-10-01", system=HALL), happened("move", "2026-11-10", 2, HALL, TUB))
    both = stay([first, later], TUB, 28)
    assert (both.release, both.because) == (date(2026, 12, 8), "newcomer")
    assert stay([first], HALL, 28) is None


@pytest.mark.parametrize("kind", ["signs", "death"])
def test_signs_and_deaths_in_the_tub_begin_it_anew_and_elsewhere_do_not(kind):
    ill = life(came("2026-11-01"), happened(kind, "2026-11-20", 1, TUB, signs="white grains"))
    found = stay([ill], TUB, 28)
    assert (found.release, found.because) == (date(2026, 12, 18), kind)
    before = life(
        came("2026-10-01", system=HALL),
        happened(kind, "2026-10-09", 1, HALL, signs="white grains"),
        happened("move", "2026-11-01", 2, HALL, TUB),
    )
    assert stay([before], TUB, 28).because == "newcomer"


def test_nobody_leaves_in_a_course_that_is_longer_than_the_wait():
    here = life(came("2026-11-01"))
    long = TreatmentCourse(TUB, "Drops", "2026-11-20", dose_days=(1,), lasts_d=21)
    found = stay([here], TUB, 28, [long])
    assert (found.release, found.because) == (date(2026, 12, 11), "course")
    assert "it ends on 10 December" in as_text(found.words(DAY), {})
    short = TreatmentCourse(TUB, "Drops", "2026-11-20", dose_days=(1,), lasts_d=5)
    assert stay([here], TUB, 28, [short]).because == "newcomer"
    before = TreatmentCourse(TUB, "Drops", "2026-09-20", dose_days=(1,), lasts_d=5)
    assert stay([here], TUB, 28, [before]).because == "newcomer"


# What a tub asks ----------------------------------------------------------------------------------


def bare(litres=18.0, sponge=0.0):
    """On a well: nothing that new water brings is in the way of the sums."""
    tub = new_tub("Tub", litres, sponge, None)
    return replace(tub, water=replace(tub.water, disinfectant="none"))


def sheet_with(groups, tub):
    return sheet_of(with_in_it(tub, groups), shipped(), 0.0)


def test_a_new_tub_holds_the_litres_that_were_asked_for():
    for litres in (6.0, 18.0, 60.0):
        assert sheet_of(bare(litres), shipped(), 0.0).value("real_volume_l") == pytest.approx(litres, rel=0.01)


def test_what_a_bare_tub_asks_is_the_balance_by_hand():
    sheet = sheet_with([Group("neon_tetra", 4)], bare())
    found = asks(sheet)
    # Food 0.030 g × mass^0.75 at 25 °C; grown they are fed half of that at half of what growth takes: as the sheet says.
    made = number(sheet, "animals.0.waste_now_mg_d")
    limit, litres = number(sheet, "allowed_ammonia_mg_l"), number(sheet, "real_volume_l")
    assert (found.made_mg_d, found.taken_mg_d) == (pytest.approx(made), 0.0)
    assert found.hours == pytest.approx(24 * limit * litres / made)
    assert found.change_frac == pytest.approx(made / litres / limit)
    assert found.told_frac == pytest.approx(math.ceil(found.change_frac * 20) / 20)
    assert found.peak_mg_l == pytest.approx(made / litres / found.told_frac)
    assert found.peak_mg_l <= limit


def test_a_day_with_food_is_judged_where_some_days_have_none():
    daily = asks(sheet_with([Group("neon_tetra", 4)], bare()))
    fasting = asks(sheet_with([Group("neon_tetra", 4, fasting_d_wk=3)], bare()))
    assert fasting.made_mg_d == pytest.approx(daily.made_mg_d)


def test_a_seeded_sponge_takes_it_and_a_course_that_harms_it_does_not():
    groups = [Group("neon_tetra", 10)]
    seeded_tub = sheet_with(groups, bare(sponge=0.4))
    assert (asks(seeded_tub).told_frac, asks(seeded_tub).hours) == (0.0, None)
    assert (asks(seeded_tub).peak_mg_l, asks(seeded_tub).change_l) == (0.0, 0.0)
    dead = asks(seeded_tub, filter_dead=True)
    assert dead.taken_mg_d == 0
    assert dead.change_frac == pytest.approx(asks(sheet_with(groups, bare())).change_frac)


def test_states_follow_what_can_be_changed_and_what_harms():
    assert asks(sheet_with([Group("neon_tetra", 3)], bare())).state == "holds"
    tight = asks(sheet_with([Group("neon_tetra", 10)], bare()))
    assert (tight.state, tight.told_frac) == ("tight", 0.9)
    short = asks(sheet_with([Group("boeseman_rainbowfish", 6)], bare()))
    assert short.state == "short"
    # 0.05 mg/L un-ionised harms: the peak passes it.
    share = number(sheet_with([Group("boeseman_rainbowfish", 6)], bare()), "unionised_frac")
    assert short.peak_mg_l * share > 0.05 >= tight.peak_mg_l * share


def test_soft_acid_water_does_not_make_a_crowd_harmless():
    acid = replace(bare(), water=Water(tank_ph=5.8, source_kh_dkh=0.2, tank_gh_dgh=3, disinfectant="none"))
    crowd = asks(sheet_with([Group("neon_tetra", 60)], acid))
    # Hardly any of it is un-ionised there; at 1 mg/L in all it harms at any pH.
    assert crowd.peak_mg_l > 1.0
    assert crowd.state == "short"


def test_foul_water_is_no_poison_to_a_turtle():
    found = asks(sheet_with([Group("common_musk_turtle", 1)], bare(60)))
    assert found.peak_mg_l > 0.5
    assert found.state == "tight"


def test_a_hot_summer_warns_and_does_not_refuse_a_stay_in_winter():
    cool = new_tub("Tub", 18, 0.5, None)
    heat = replace(cool.heat, heated=False, target_c=16.0, room_cold_c=10.0, room_warm_c=20.0, room_mean_c=15.0)
    found = asks(sheet_with([Group("stickleback", 5)], replace(cool, heat=heat)))
    assert found.state == "tight"
    assert "these animals bear 18" in as_text(found.against[0], {})


def test_every_way_out_makes_it_an_easy_change():
    groups = [Group("neon_tetra", 10)]
    tub = bare()
    words = [as_text(way, {}) for way in asks(sheet_with(groups, tub)).ways]
    assert len(words) == 3
    litres = float(words[1].split("In a tub of ")[1].split(" L")[0])
    assert asks(sheet_with(groups, bare(litres))).change_frac <= 0.501
    sponge = float(words[0].split(" mL of sponge")[0]) / 1000
    # The sheet's sponge is driven by its flow, the way out reckons one that water passes freely: a tenth apart.
    assert asks(sheet_with(groups, bare(sponge=sponge))).change_frac <= 0.6
    part = float(words[2].split("Fed ")[1].split(" %")[0]) / 100
    fed = asks(sheet_with(groups, tub)).made_mg_d * part
    lean = asks(sheet_with(groups, tub))
    assert fed / lean.litres / lean.limit_mg_l <= 0.5


def test_chloramine_in_the_new_water_counts():
    plan = bare()

    chlorinated = replace(plan, water=replace(plan.water, disinfectant="chloramine", disinfectant_mg_l=0.8))
    groups = [Group("neon_tetra", 3)]
    clean, town = asks(sheet_with(groups, plan)), asks(sheet_with(groups, chlorinated))
    # Breaking 0.8 mg/L of chloramine frees 0.1975 mg N each, and a tenth more: a conditioner is taken to bind half.
    assert town.new_mg_l == pytest.approx(0.8 * 0.1975 / 2, rel=0.25)
    assert town.change_frac == pytest.approx(
        clean.change_frac * clean.limit_mg_l / (clean.limit_mg_l - town.new_mg_l), rel=0.05
    )
    assert any("without ammonia" in way.text for way in town.ways)


def test_a_tub_refuses_water_that_does_not_suit_and_too_many():
    assert takes(bare(), [Group("neon_tetra", 4)], shipped())[0]
    good, why = takes(bare(), [Group("axolotl", 1, size_by="length", length_cm=6)], shipped())
    assert not good
    assert "temperature" in as_text(why, {})
    # Nine grown rainbowfish in 18 L have nothing left to breathe at dawn.
    good, why = takes(bare(), [Group("boeseman_rainbowfish", 9)], shipped())
    assert not good
    assert "oxygen is used" in as_text(why, {})
    good, why = takes(bare(), [Group("boeseman_rainbowfish", 3)], shipped())
    assert not good
    assert "Even 90 %" in as_text(why, {})


def test_a_tub_has_the_water_and_the_sponge_that_it_was_given():
    like = new_tub("Other", 40, 0.0, None)

    like = replace(like, water=Water(tank_ph=6.2), heat=replace(like.heat, target_c=22.0, fan_fitted=True))
    tub = new_tub("Tub", 18, 0.4, like)
    assert (tub.water.tank_ph, tub.heat.target_c, tub.heat.lid) == (6.2, 22.0, "mesh")
    assert not tub.heat.fan_fitted
    assert tub.filters == (Filter("sponge", "sponge_30", 0.4, 1.0, 200.0, None, 0.0, 3.0),)


# Courses ------------------------------------------------------------------------------------------

DROPS = TreatmentCourse(TUB, "Drops", "2026-11-26", 1.5, "mL", 10.0, (1, 3, 5), 6)


def test_doses_by_the_label_in_real_litres_and_what_a_change_takes_is_made_good():
    assert label_dose(DROPS, 18.0) == pytest.approx(2.7)
    days = days_of_course(DROPS, 18.0, 0.25)
    assert [round(day.level, 4) for day in days] == [1, 1, 2, 2, 3, 3]
    # A quarter of one dose on days 2 and 3, of two on 4 and 5, of three on 6; a whole dose on 1, 3 and 5.
    assert [round(day.given, 4) for day in days] == [2.7, 0.675, 3.375, 1.35, 4.05, 2.025]
    assert [round(day.untended, 4) for day in days] == [1, 0.75, 1.5625, 1.1719, 1.8789, 1.4092]
    assert [day.change_l for day in days] == [0, 4.5, 4.5, 4.5, 4.5, 4.5]


def test_where_the_label_says_so_nothing_is_made_good():

    days = days_of_course(replace(DROPS, redosed=False), 18.0, 0.25)
    assert [day.level for day in days] == [day.untended for day in days]
    assert [round(day.given, 3) for day in days] == [2.7, 0, 2.7, 0, 2.7, 0]


def test_a_stopped_course_ends_the_day_before():

    stopped = replace(DROPS, stopped="2026-11-28")
    assert (stopped.last, len(days_of_course(stopped, 18.0, 0.0))) == (date(2026, 11, 27), 2)
    assert DROPS.last == date(2026, 12, 1)


def test_changes_until_it_is_out_again():
    # 0.5^4 = 0.0625 of one dose is left, 0.5^5 = 0.031: five halves go under a twentieth.
    assert rinses(1.0, 0.5) == 5
    assert rinses(2.0, 0.5) == 6
    assert (rinses(0.04, 0.5), rinses(1.0, 0.0), rinses(1.0, 1.0)) == (0, 0, 1)


def test_who_must_not_be_in_it():

    kinds = [shipped().species[key] for key in ("crystal_shrimp", "kuhli_loach", "neon_tetra")]
    assert endangered(DROPS, kinds, planted=True, library=shipped()) == []
    copper = endangered(replace(DROPS, copper=True), kinds, planted=False, library=shipped())
    assert [as_text(row, {}) for row in copper] == [
        "Crystal red shrimp, Kuhli loach die of it: take them out first."
    ]
    bare_fish = endangered(replace(DROPS, harms_bare_skin=True), kinds, planted=False, library=shipped())
    assert "Kuhli loach have little or no scale" in as_text(bare_fish[0], {})
    plants = replace(DROPS, harms_plants=True)
    assert len(endangered(plants, kinds, planted=True, library=shipped())) == 1
    assert endangered(plants, kinds, planted=False, library=shipped()) == []


def test_copper_stays_with_a_tub_until_it_is_renewed():

    copper = replace(DROPS, copper=True)
    assert held_copper([DROPS], "", DAY) is None
    assert held_copper([copper], "", DAY) is copper
    assert held_copper([copper], "", date(2026, 11, 25)) is None
    assert held_copper([copper], "2026-12-01", DAY) is copper
    assert held_copper([copper], "2026-12-02", DAY) is None


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"product": " "}, "which_label"),
        ({"dose_days": ()}, "no_dose_day"),
        ({"dose_days": (1, 9)}, "dosed_after_its_end"),
        ({"stopped": "2026-11-20"}, "stopped_before"),
        ({"begun": ""}, "from_when"),
    ],
)
def test_a_course_that_can_not_be(change, code):

    assert course_faults(DROPS) == []
    assert [fault.code for fault in course_faults(replace(DROPS, **change))] == [code]


def test_an_arrival_is_for_a_system_from_a_day_on():
    assert [fault.code for fault in arriving_faults(Arriving("neon_tetra"))] == ["for_whom", "from_when"]
    assert arriving_faults(Arriving("neon_tetra", 6, HALL, "2026-12-01")) == []


# The round ----------------------------------------------------------------------------------------


def duties_of(groups, course=None, sponge=0.0):
    sheet = sheet_with(groups, bare(sponge=sponge))
    here = stay([life(came("2026-11-20"))], TUB, 28)
    courses = {4: course} if course else {}
    return {duty.key: duty for duty in tub_duties(sheet, asks(sheet), here, courses, DAY, DAY)}


def test_a_tub_is_looked_over_fed_changed_and_let_go():
    duties = duties_of([Group("neon_tetra", 4)])
    assert {"look", "feed.0", "change", "read.ammonia", "release.2026-12-18"} <= set(duties)
    change = duties["change"]
    assert change.event.litres == pytest.approx(
        asks(sheet_with([Group("neon_tetra", 4)], bare())).change_l, abs=0.06
    )
    assert (change.rhythm.every_d, change.until) == (1, date(2026, 12, 18))
    release = duties["release.2026-12-18"]
    assert due(release, DAY, Done(), date(2026, 12, 17)) is None
    assert due(release, DAY, Done(), date(2026, 12, 20)).late_d == 2
    assert due(release, DAY, Done(last=date(2026, 12, 20), seen=date(2026, 12, 20)), date(2026, 12, 21)) is None
    assert coming(change, DAY, Done(), DAY, date(2027, 1, 20))[-1] == date(2026, 12, 18)
    assert "change" not in duties_of([Group("neon_tetra", 4)], sponge=0.4)


def test_each_dose_waits_on_its_day_with_what_it_writes():
    duties = duties_of([Group("neon_tetra", 4)], DROPS, sponge=0.4)
    doses = {key: duty for key, duty in duties.items() if key.startswith("dose.")}
    assert list(doses) == ["dose.4.1", "dose.4.3", "dose.4.5"]
    third = doses["dose.4.3"]
    assert (third.event.what, third.event.product, third.event.unit) == ("medicine", "Drops", "mL")
    assert third.event.amount == pytest.approx(2.7, rel=0.01)
    assert due(third, DAY, Done(), date(2026, 11, 27)) is None
    assert due(third, DAY, Done(), date(2026, 11, 28)).day == date(2026, 11, 28)


# Data ---------------------------------------------------------------------------------------------


def test_families_without_scales_are_families_of_the_library():
    families = {kind.family for kind in shipped().species.values()}
    assert set(shipped().bare_skinned) <= families
    # Loaches, bare catfish, puffers and amphibians; never a cichlid or a tetra.
    assert {"Cobitidae", "Pimelodidae", "Tetraodontidae", "Salamandridae"} <= set(shipped().bare_skinned)
    assert not {"Cichlidae", "Characidae"} & set(shipped().bare_skinned)


def test_every_kind_has_signs_to_watch_for():
    assert "Does not eat" in signs_of(shipped().species["axolotl"])
    assert any("shell" in sign for sign in signs_of(shipped().species["crystal_shrimp"]))
    assert any("grains" in sign for sign in signs_of(shipped().species["neon_tetra"]))
    assert all(signs_of(kind) for kind in shipped().species.values())
