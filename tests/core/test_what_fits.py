"""What fits a system: every proposal holds as it stands, and one more does not."""

from dataclasses import replace

import pytest

from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.heat import Heat
from loquen.core.model.parts.running import RunIn
from loquen.core.model.parts.water import Water
from loquen.core.system.book import sheet_of
from loquen.core.system.propose.what_fits import what_fits
from loquen.core.system.told import is_short
from tests.core.plans import plan

SHORT_LISTED = 12


def shorts(start):
    sheet = sheet_of(start, shipped())
    return {key for key, node in sheet.wiring.nodes.items() if node.check and is_short(sheet, key)}


@pytest.fixture(scope="module")
def start():
    return plan(heat=Heat(cut_out=True, fitted_heaters=2, fitted_w=150, room_warm_c=25))


@pytest.fixture(scope="module")
def found(start):
    return what_fits(start, shipped())


def test_what_is_proposed_holds_and_one_more_does_not(start, found):
    before = shorts(start)
    assert len(found.fits) > 20
    for fit in found.fits[:: max(1, len(found.fits) // SHORT_LISTED)]:
        for number in (fit.least, fit.most):
            with_them = replace(start, animals=(*start.animals, Group(fit.species, number)))
            assert shorts(with_them) <= before, (fit, number)
        if fit.binds and not shipped().species[fit.species].alone:
            more = replace(start, animals=(*start.animals, Group(fit.species, fit.most + 1)))
            assert shorts(more) - before, fit


def test_every_kind_fits_or_is_kept_out_by_one_check(found):
    assert len(found.fits) + sum(row.count for row in found.kept_out) == len(shipped().species)


def test_an_expert_would_agree(found):
    # 250 L of 25 C at pH 7.4 over ten danios.
    kinds = {fit.species: fit for fit in found.fits}
    assert "neon_tetra" in kinds
    assert kinds["neon_tetra"].most >= 20
    for unfit in ("oscar", "axolotl", "mono", "esox_lucius", "goldfish_common"):
        assert unfit not in kinds


def test_a_new_filter_keeps_all_out():
    empty = plan(animals=(), run_in=RunIn("set_up", age_weeks=0), heat=Heat(cut_out=True))
    found = what_fits(empty, shipped())
    assert not found.fits
    assert "The media carry the waste" in {row.check for row in found.kept_out}


def test_salt_water_is_for_few(start):
    salty = replace(start, animals=(), water=Water(salinity_ppt=10, tank_ph=8, tank_gh_dgh=16, source_kh_dkh=9))
    kinds = {fit.species for fit in what_fits(salty, shipped()).fits}
    assert kinds
    assert all(shipped().species[key].salinity_high_ppt >= 10 for key in kinds)


def test_a_full_list_takes_no_more(start):
    full = replace(start, animals=(Group("zebra_danio", 1),) * 24)
    assert what_fits(full, shipped()).fits == ()
