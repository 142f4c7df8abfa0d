"""Every relation against sourced values, and every refusal, read from cases/<module>.toml."""

import importlib
import inspect
import math
import pkgutil
import tomllib
from pathlib import Path

import numpy as np
import pytest

from loquen.core import physics
from loquen.core.errors import CoreError
from loquen.core.physics import dilution, heat, hydraulics

CASES = Path(__file__).parent / "cases"
MODULES = sorted(
    info.name for info in pkgutil.iter_modules(physics.__path__) if info.name not in ("ranges", "elementwise")
)


def listed(kind):
    for module in MODULES:
        for n, case in enumerate(tomllib.loads((CASES / f"{module}.toml").read_text()).get(kind, [])):
            yield pytest.param(module, case, id=f"{module}.{case['call']}-{n}")


def called(module, case):
    function = getattr(importlib.import_module(f"loquen.core.physics.{module}"), case["call"])
    return function(**case["args"])


@pytest.mark.parametrize(("module", "case"), list(listed("case")))
def test_value(module, case):
    assert case["source"]
    assert called(module, case) == pytest.approx(case["expected"], rel=case["rtol"], abs=1e-12)


@pytest.mark.parametrize(("module", "case"), list(listed("refused")))
def test_refusal_names_the_parameter(module, case):
    with pytest.raises(CoreError) as caught:
        called(module, case)
    assert caught.value.code == case["code"]
    if "names" in case:
        assert caught.value.values["name"] == case["names"]
        assert {"value", "low", "high", "unit"} <= set(caught.value.values)


@pytest.mark.parametrize("module", MODULES)
def test_every_public_relation_has_a_sourced_value(module):
    loaded = importlib.import_module(f"loquen.core.physics.{module}")
    public = {
        name
        for name, function in inspect.getmembers(loaded, inspect.isfunction)
        if function.__module__.startswith(loaded.__name__) and "Equation:" in (function.__doc__ or "")
    }
    cases = tomllib.loads((CASES / f"{module}.toml").read_text())["case"]
    # What takes a function or gives several values has tests of its own below.
    of_their_own = {"settled_cycle", "line_loss", "operating_flow_lph", "split_flow_lph"}
    assert public - {case["call"] for case in cases} <= of_their_own


def test_nan_and_infinity_are_refused():
    for value in (math.nan, math.inf):
        with pytest.raises(CoreError):
            heat.vapour_pressure_kpa(temp_c=value)


def test_arrays_pass_through_elementwise():
    temps = np.array([5.0, 15.0, 25.0])
    assert heat.vapour_pressure_kpa(temps) == pytest.approx([heat.vapour_pressure_kpa(t) for t in temps])
    ratios = np.array([0.0, 0.25, 2.0])
    each = [dilution.flow_through_efficiency(r) for r in ratios]
    assert dilution.flow_through_efficiency(ratios) == pytest.approx(each)


def test_a_line_loses_what_its_pipe_and_its_fittings_lose():
    # 10 m of 34.4 mm at 5 m3/h by Colebrook solved apart (0.693 m), and K 2 by hand: 2 x 1.4944^2/2g = 0.2277 m.
    loss = hydraulics.line_loss(34.4, 10, 2.0, 20.0)
    assert loss(5000) == pytest.approx(0.693 + 0.2277, rel=5e-3)
    assert loss(0) == 0
    with pytest.raises(CoreError):
        hydraulics.line_loss(34.4, -1, 2.0)


def test_an_uneven_week_settles_by_hand():
    # Changes of half on two days, gaps of two and five days, one unit made a day, pure source:
    # before the second change p2 = p1/2 + 5, before the first p1 = p2/2 + 2, so p1 = 6, p2 = 8.
    peaks, troughs = dilution.settled_cycle(rise_per_d=1, source=0, gaps_d=(2, 5), fracs=(0.5, 0.5))
    assert peaks == pytest.approx((6, 8))
    assert troughs == pytest.approx((3, 4))


def test_an_even_regime_equals_the_closed_form():
    peaks, _ = dilution.settled_cycle(rise_per_d=2, source=5, gaps_d=(7,), fracs=(0.25,))
    assert peaks[0] == pytest.approx(dilution.settled_peak(rise=14, source=5, frac=0.25))
