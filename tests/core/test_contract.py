"""The shape of docstrings, names and sources, walked over all public relations and figures."""

import doctest
import importlib
import inspect
import pkgutil
import re
from pathlib import Path

import pytest

from loquen.core import physics
from loquen.core.data.tables import constants, sources
from loquen.core.model.inputs.quantity import kinds
from loquen.core.system.book import STAGES, system_book

HEADS = ["Equation:", "Parameters:", "Returns:", "Raises:", "Source:"]


def relations():
    for info in pkgutil.walk_packages(physics.__path__, "loquen.core.physics."):
        module = importlib.import_module(info.name)
        for name, function in inspect.getmembers(module, inspect.isfunction):
            if function.__module__ == module.__name__ and "Equation:" in (function.__doc__ or ""):
                yield pytest.param(function, id=f"{info.name.removeprefix('loquen.core.physics.')}.{name}")


@pytest.mark.parametrize("function", list(relations()))
def test_docstring_has_every_part_in_order(function):
    text = inspect.getdoc(function)
    places = [text.index(head) for head in HEADS]
    assert places == sorted(places)
    described = re.findall(r"^    (\w+): ", text, flags=re.M)
    assert described == list(inspect.signature(function).parameters)
    source = re.search(r"^Source: (\w+)$", text, flags=re.M)
    assert source
    assert source.group(1) in sources()


def test_examples_in_docstrings_come_out():
    modules = [
        importlib.import_module(i.name) for i in pkgutil.walk_packages(physics.__path__, f"{physics.__name__}.")
    ]
    found = {module.__name__: doctest.testmod(module) for module in modules}
    assert not [name for name, result in found.items() if result.failed]
    shown = {name for name, result in found.items() if result.attempted}
    tools = tuple(f"{physics.__name__}.{name}" for name in ("ranges", "elementwise"))
    packages_and_tools = {m.__name__ for m in modules if hasattr(m, "__path__") or m.__name__ in tools}
    assert shown >= {module.__name__ for module in modules} - packages_and_tools


# What a relation is given by a sheet, and what its own definition has when nothing is given: one number.
SAME = {
    "heat.wall_u_w_m2k": {"outside_w_m2k": "outside_film_w_m2k", "inside_w_m2k": "inside_film_w_m2k"},
    "heat.evaporation_l_d": {"calm_frac": "calm_surface", "cover_effect": "cover_effect"},
    "gases.air_stone_transfer_l_h": {"stone_l_h": "stone_transfer_l_h"},
    "nitrogen.nitrification_rate_g_m2_d": {
        "half_mg_l": "nitrify_half_mg_l",
        "rate_g_m2_d": "nitrify_rate_g_m2_d",
        "warmth": "nitrify_warmth",
    },
    "nitrogen.ammonia_from_feed_mg_d": {"kept_frac": "kept_growing", "removed_frac": "removed_growing"},
    "animals.feed_g_d": {"warmth_10k": "feed_q10"},
    "animals.oxygen_use_mg_h": {"warmth_10k": "oxygen_q10"},
    "chemistry.ammonia.nitrite_limit_mg_l": {
        "chloride_per_nitrite": "chloride_per_nitrite",
        "least_mg_l": "nitrite_limit_mg_l",
        "most_mg_l": "nitrite_most_mg_l",
    },
}


@pytest.mark.parametrize(("relation", "names"), SAME.items(), ids=SAME)
def test_a_relations_own_numbers_are_those_of_the_table(relation, names):
    module, _, name = relation.rpartition(".")
    parameters = inspect.signature(
        getattr(importlib.import_module(f"{physics.__name__}.{module}"), name)
    ).parameters
    for parameter, constant in names.items():
        assert parameters[parameter].default == constants()[constant].value


NODES = system_book().nodes.values()


@pytest.mark.parametrize("node", [n for n in NODES if n.formula], ids=lambda n: n.name)
def test_a_figure_shows_all_it_is_made_of(node):
    named = set(re.findall(r"\{(\w+)\}", node.formula))
    assert named <= set(node.parameters)
    # What decides about a case without a number of its own need not stand in the formula.
    silent = {"animal", "heated", "animals_low_c", "library"}
    assert set(node.parameters) - named <= silent
    assert node.source in sources()
    assert node.kind in kinds()


@pytest.mark.parametrize("node", [n for n in NODES if n.check], ids=lambda n: n.name)
def test_a_check_belongs_to_a_stage_and_judges_a_figure(node):
    assert node.check.stage in STAGES
    if node.check.judges and node.check.judges not in system_book().inputs:
        assert system_book().nodes[node.check.judges].formula


def test_every_stage_has_its_result():
    assert all(f"{stage}_result" in system_book().nodes for stage in STAGES)


def test_every_constant_has_unit_and_source():
    for name, constant in [
        *constants().items(),
        *constants("cycle.toml").items(),
        *constants("course.toml").items(),
        *constants("planning.toml").items(),
    ]:
        assert constant.unit, name
        assert constant.source in sources(), name
        if constant.low is not None:
            assert constant.low <= constant.value <= constant.high, name


# Relations of the textbook that no figure of a system asks for: what will, or why they stand all the same.
AWAITED = {
    "drills: oxygen and levels over the hours": {
        "nitrite_limit_mg_l",
        "oxygen_after_mg_l",
        "after_batch",
        "dripped_level",
    },
    "rooms: supply, softener, osmosis, emitters, drains": {
        "flow_through_efficiency",
        "share_for_target",
        "softener_days",
        "emitter_flow_lph",
        "valve_loss_m",
        "cooling_h",
        "settle_temperature_c",
    },
    "a simpler form that a figure's own, more general one is tested against": {
        "ammonia_at_load_mg_l",
        "hours_to_oxygen_floor",
        "ammonia_removal_mg_d",
        "ammonia_nh3_mg",
        "nitrate_ion_mg",
        "nitrite_ion_mg",
        "settled_peak",
        "sloped_bed_volume_l",
        "dissolved_solids_mg_l",
        "pipe_loss_m",
        "fitting_loss_m",
        "pump_head_m",
        "weir_flow_lph",
    },
}


def test_relations_that_nobody_asks_for_are_marked():
    root = Path(physics.__path__[0]).parents[1]
    outside = "".join(
        path.read_text(encoding="utf-8") for path in root.rglob("*.py") if "physics" not in path.parts
    )
    inside = "".join(path.read_text(encoding="utf-8") for path in Path(physics.__path__[0]).rglob("*.py"))
    inside = re.sub(r">>>.*", "", inside)
    names = {parameter.values[0].__name__ for parameter in relations()}
    unasked = {
        name
        for name in names
        if not re.search(rf"\b{name}\b(?=[(,)])", outside) and not re.search(rf"(?<!def ){name}\(", inside)
    }
    assert unasked == set().union(*AWAITED.values())


WITHIN = re.compile(r'within\(\s*"(\w+)",\s*\w+,\s*(-?[\d._e]+),\s*(-?[\d._e]+),')
TOLD = re.compile(r"^    (\w+): .*?(?:^|[ (])(-?[\d.e]+) to (-?[\d.e]+)[.);,]", re.M)


@pytest.mark.parametrize("function", list(relations()))
def test_what_is_refused_is_what_the_docstring_says(function):
    told = {name: (float(low), float(high)) for name, low, high in TOLD.findall(inspect.getdoc(function))}
    for name, low, high in WITHIN.findall(inspect.getsource(function)):
        if name in told:
            assert (float(low), float(high)) == told[name], name
