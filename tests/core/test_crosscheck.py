"""Our relations against other people's implementations, each with the difference that is allowed."""

import math

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.optimize import brentq, fsolve

from loquen.core.errors import NamedCase, OutOfRange
from loquen.core.physics import chemistry, gases, hydraulics
from loquen.core.physics.hydraulics import pipes


@pytest.fixture(scope="module")
def speciation():
    import phreeqpython

    return phreeqpython.PhreeqPython(database="phreeqc.dat")


@pytest.mark.parametrize("kh", [0.5, 2, 4, 8, 14])
@pytest.mark.parametrize("temp_c", [10, 25])
@pytest.mark.parametrize("ppm", [420, 1000])
def test_aerated_ph_against_a_speciation_code(speciation, kh, temp_c, ppm):
    water = speciation.add_solution_simple({"NaHCO3": kh * 0.35665}, temperature=temp_c)
    water.equalize(["CO2(g)"], [math.log10(ppm * 1e-6)])
    # 0.02 of a pH unit: activity models differ, and so do the two constants for CO2's solubility.
    assert chemistry.aerated_ph(kh, temp_c, ppm) == pytest.approx(water.pH, abs=0.02)


@pytest.mark.parametrize("kh", [2, 6, 10])
@pytest.mark.parametrize("calcium_mmol", [0.2, 1.0, 2.0])
def test_saturation_against_a_speciation_code(speciation, kh, calcium_mmol):
    water = speciation.add_solution_simple(
        {"NaHCO3": kh * 0.35665, "CaCl2": calcium_mmol, "CO2": 0.05}, temperature=20
    )
    index = chemistry.saturation_index(water.pH, kh, calcium_mmol * 40.078, 20)
    # Ion pairs, which we leave out, hold back a few hundredths.
    assert index == pytest.approx(water.si("Calcite"), abs=0.08)


def test_conductivity_against_a_speciation_code(speciation):
    mmol = {"Ca(HCO3)2": 1.5, "CaSO4": 0.3, "MgSO4": 0.2, "NaCl": 1.2}
    water = speciation.add_solution_simple(mmol, temperature=25)
    ions = {
        "calcium": 1.8 * 40.078,
        "magnesium": 0.2 * 24.305,
        "sodium": 1.2 * 22.990,
        "chloride": 1.2 * 35.453,
        "sulfate": 0.5 * 96.06,
        "bicarbonate": 3.0 * 61.017,
    }
    assert chemistry.conductivity_us_cm(ions) == pytest.approx(water.sc, rel=0.10)


@pytest.mark.parametrize(("salinity", "temp_c"), [(0, 4), (2, 25), (5, 25), (15, 20), (35, 15)])
def test_density_against_eos80(salinity, temp_c):
    # UNESCO 1981, Technical Papers in Marine Science 36, one-atmosphere equation of state.
    t, s = temp_c, salinity
    pure = 999.842594 + 6.793952e-2 * t - 9.095290e-3 * t**2 + 1.001685e-4 * t**3
    pure += -1.120083e-6 * t**4 + 6.536332e-9 * t**5
    linear = 8.24493e-1 - 4.0899e-3 * t + 7.6438e-5 * t**2 - 8.2467e-7 * t**3 + 5.3875e-9 * t**4
    salty = pure + linear * s + (-5.72466e-3 + 1.0227e-4 * t - 1.6546e-6 * t**2) * s**1.5 + 4.8314e-4 * s**2
    assert chemistry.density_kg_m3(salinity, temp_c) == pytest.approx(salty, rel=2e-5)


@settings(max_examples=60, deadline=None)
@given(flow=st.floats(50, 30_000), bore=st.floats(8, 110), temp_c=st.floats(2, 40))
def test_friction_against_colebrook_by_a_root_finder(flow, bore, temp_c):
    speed = flow / 3.6e6 / (math.pi / 4 * (bore / 1000) ** 2)
    reynolds = speed * bore / 1000 / hydraulics.viscosity_m2_s(temp_c)
    assume(not 2000 < reynolds < 4000)
    if reynolds <= 2000:
        factor = 64 / reynolds
    else:

        def colebrook(f):
            return 1 / math.sqrt(f) + 2 * math.log10(0.0015 / bore / 3.7 + 2.51 / (reynolds * math.sqrt(f)))

        factor = brentq(colebrook, 1e-4, 1)
    expected = factor * 5 / (bore / 1000) * speed**2 / (2 * 9.80665)
    assert hydraulics.pipe_loss_m(flow, bore, 5, temp_c) == pytest.approx(expected, rel=5e-3)


@pytest.mark.parametrize("reynolds", [2000, 2300, 2700, 3200, 3700, 4000])
@pytest.mark.parametrize("rough", [0.0, 1e-4, 2e-3])
def test_friction_between_laminar_and_turbulent_against_dunlop(reynolds, rough):
    # Dunlop 1991 with Swamee and Jain's form in place of Colebrook's, as water networks have it.
    y2 = rough / 3.7 + 5.74 / reynolds**0.9
    y3 = -0.86859 * math.log(rough / 3.7 + 5.74 / 4000**0.9)
    fa = y3**-2
    fb = fa * (2 - 0.00514215 / (y2 * y3))
    r = reynolds / 2000
    x = (7 * fa - fb, 0.128 - 17 * fa + 2.5 * fb, -0.128 + 13 * fa - 2 * fb, r * (0.032 - 3 * fa + 0.5 * fb))
    assert pipes.friction_of(reynolds, rough) == pytest.approx(x[0] + r * (x[1] + r * (x[2] + x[3])), rel=0.025)


@pytest.mark.parametrize("join", [2000.0, 4000.0])
def test_friction_has_no_step_and_no_corner_where_its_forms_meet(join):
    def slope(at):
        return (pipes.friction_of(at + 0.5, 1e-4) - pipes.friction_of(at - 0.5, 1e-4)) / 1.0

    assert pipes.friction_of(join - 1e-6, 1e-4) == pytest.approx(pipes.friction_of(join + 1e-6, 1e-4), rel=1e-9)
    assert slope(join - 1) == pytest.approx(slope(join + 1), rel=0.02)


def test_fitting_loss_against_fluids():
    from fluids.core import head_from_P

    speed = hydraulics.velocity_m_s(2000, 27.2)
    pascals = 1.8 * 1000 * speed**2 / 2
    assert hydraulics.fitting_loss_m(2000, 27.2, 1.8) == pytest.approx(head_from_P(pascals, 1000), rel=1e-4)


# Pumps against their systems --------------------------------------------------------------------


def square_law(per_lph2):
    return lambda flow: per_lph2 * flow**2


def test_operating_point_by_hand():
    # 3 (1 - (Q/3000)^2) = 1 + 2e-7 Q^2  =>  Q = sqrt(2/(3/9e6 + 2e-7)).
    flow = hydraulics.operating_flow_lph((3.0, 3000.0), 1.0, square_law(2e-7))
    assert flow == pytest.approx(1936.49, rel=1e-5)


def test_a_curve_by_points_passes_its_points():
    points = [(0, 4.2), (2000, 3.4), (4000, 1.5), (5000, 0.0)]
    for flow, head in points[1:3]:
        met = hydraulics.operating_flow_lph(points, head, lambda _: 0.0)
        assert met == pytest.approx(flow, rel=1e-4)


def test_a_curve_cut_short_goes_on_straight():
    flow = hydraulics.operating_flow_lph([(0, 3.0), (1000, 2.5), (2000, 1.5)], 1.0, lambda _: 0.0)
    assert 2000 < flow < 3500


@pytest.mark.parametrize("points", [[(0, 3.0)], [(100, 3.0), (200, 2.0)], [(0, 2.0), (100, 3.0)]])
def test_points_that_are_no_pump_are_refused(points):
    with pytest.raises(OutOfRange):
        hydraulics.operating_flow_lph(points, 1.0, lambda _: 0.0)


@pytest.mark.parametrize("static", [3.0, 5.0])
def test_a_lift_at_or_above_shut_off_gives_no_flow(static):
    with pytest.raises(NamedCase) as caught:
        hydraulics.operating_flow_lph((3.0, 3000.0), static, square_law(1e-7))
    assert caught.value.code == "no_flow"


def test_two_equal_returns_share_evenly_and_pass_more_than_one():
    one = hydraulics.split_flow_lph((3.0, 3000.0), square_law(1e-8), [1.0], [square_law(4e-7)])
    two = hydraulics.split_flow_lph((3.0, 3000.0), square_law(1e-8), [1.0, 1.0], [square_law(4e-7)] * 2)
    assert two[0] == pytest.approx(two[1])
    assert sum(two) > sum(one)


def test_uneven_returns_against_three_equations_at_once():
    def equations(unknown):
        head, q1, q2 = unknown
        total = q1 + q2
        return (
            3 * (1 - (total / 3000) ** 2) - 1e-8 * total**2 - head,
            1.0 + 4e-7 * q1**2 - head,
            1.2 + 9e-7 * q2**2 - head,
        )

    _, first, second = fsolve(equations, (2.0, 900, 700))
    found = hydraulics.split_flow_lph(
        (3.0, 3000.0), square_law(1e-8), [1.0, 1.2], [square_law(4e-7), square_law(9e-7)]
    )
    assert found == pytest.approx((first, second), rel=1e-4)


def test_returns_that_run_downhill_pass_more_than_the_pump_alone():
    # By hand: 3 - 3 (2q/3000)^2 = -1 + q^2/25e6, so q^2 = 4/(12/9e6 + 1/25e6).
    found = hydraulics.split_flow_lph((3.0, 3000.0), square_law(0), [-1.0, -1.0], [square_law(4e-8)] * 2)
    assert found == pytest.approx([(4 / (12 / 9e6 + 4e-8)) ** 0.5] * 2)
    assert sum(found) > 3000


def test_a_return_out_of_reach_gets_nothing():
    found = hydraulics.split_flow_lph((3.0, 3000.0), square_law(0), [1.0, 3.5], [square_law(4e-7)] * 2)
    assert found[1] == 0
    assert found[0] > 0


# Laws -------------------------------------------------------------------------------------------

levels = st.floats(0, 500)


@given(st.lists(st.tuples(st.floats(0.01, 500), levels), min_size=1, max_size=6))
def test_a_blend_conserves_what_is_in_it(waters):
    litres, values = zip(*waters, strict=True)
    mixed = chemistry.blended(litres, values)
    assert mixed * sum(litres) == pytest.approx(sum(a * b for a, b in waters), rel=1e-9, abs=1e-9)
    assert min(values) - 1e-9 <= mixed <= max(values) + 1e-9


@given(length=st.floats(1, 500), head=st.floats(0.1, 200))
def test_a_weir_and_its_inverse_agree(length, head):
    flow = hydraulics.weir_flow_lph(length, head)
    if flow <= 1e7:
        assert hydraulics.weir_head_mm(flow, length) == pytest.approx(head, rel=1e-9)


@given(salinity=st.floats(0, 40), temp_c=st.floats(5, 35), reference=st.sampled_from([None, 15.0, 25.0]))
@settings(max_examples=40, deadline=None)
def test_salinity_and_gravity_are_inverse(salinity, temp_c, reference):
    reading = chemistry.specific_gravity(salinity, temp_c, reference)
    assert chemistry.salinity_from_sg_ppt(reading, temp_c, reference) == pytest.approx(salinity, abs=1e-5)


@given(use=st.floats(0.1, 3000), volume=st.floats(10, 2000), k=st.floats(0.01, 3), hours=st.floats(0.1, 48))
def test_oxygen_reaches_its_floor_when_it_says(use, volume, k, hours):
    steady = 8.2 - use / (k * volume)
    level = steady + (8.0 - steady) * math.exp(-k * hours)
    if not 0 <= level < 7.999 or steady > level - 1e-6:
        return
    assert gases.oxygen_after_mg_l(hours, 8.0, use, volume, k, 8.2) == pytest.approx(level)
    assert gases.hours_to_oxygen_floor(8.0, use, volume, k, 8.2, level) == pytest.approx(hours, rel=1e-3)


@given(st.floats(1, 400), st.floats(0, 400))
def test_more_use_never_leaves_more_oxygen(use, more):
    def level(amount):
        try:
            return gases.steady_oxygen_mg_l(amount, 100, 0.6, 8.2)
        except NamedCase:
            return -1.0

    assert level(use + more) <= level(use)
