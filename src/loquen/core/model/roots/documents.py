"""Documents as they are stored: JSON text, a version, and the steps that bring an old one forward."""

import json
import re
from collections.abc import Callable, Mapping
from dataclasses import asdict, is_dataclass
from functools import cache
from typing import Any, cast, get_args, get_origin

from loquen.core.model.inputs.fields import hints, inner_type
from loquen.core.model.inputs.quantity import UNKNOWN, Sentence, as_text, quoted, say
from loquen.core.model.parts.water import Source, Water
from loquen.core.model.roots.plan import PLAN_VERSION, Plan

MATURE_UNTIL_THEN_WEEKS = 52.0
Step = Callable[[dict[str, Any]], dict[str, Any]]


def with_named_lids(found: dict[str, Any]) -> dict[str, Any]:
    """A plan whose lids that were called closed are what they were reckoned as: tight, without a gap."""
    heat, sump = found.get("heat") or {}, found.get("sump") or {}
    lids = {"open": "open", "part": "part", "closed": "tight"}
    heat = {**heat, "lid": lids.get(heat.get("lid", "closed"), "tight")}
    return {**found, "heat": heat, "sump": {**sump, "sump_lid": lids.get(sump.get("sump_lid", "open"), "open")}}


OLD_UVB = {
    "uvb_near_cm": "near_cm",
    "uvb_near_uvi": "near_uvi",
    "uvb_far_cm": "far_cm",
    "uvb_far_uvi": "far_uvi",
    "uvb_screen_frac": "screen_frac",
    "uvb_cm": "lamp_cm",
    "uvb_age_months": "lamp_age_months",
    "uvb_life_months": "lamp_life_months",
}
OLD_PLANTS = {
    "slow": "slow_rooted",
    "stems": "fast_stems",
    "floating": "floating_plants",
    "emergent": "roots_in_water",
}


def with_lamps(found: dict[str, Any]) -> dict[str, Any]:
    """A plan whose lamp and ultraviolet-B lamp are rows; the latter burned as long as the former."""
    heat, light = dict(found.get("heat") or {}), dict(found.get("light") or {})
    hours = heat.pop("light_h", 8.0)
    lamps = [{"lamp_kind": "display", "lamp_w": heat.pop("light_w", 20.0), "lamp_h": hours}]
    uvb = {new: light.pop(old) for old, new in OLD_UVB.items() if old in light}
    if light.pop("uvb_fitted", False):
        lamps.append({"lamp_kind": "uvb", "lamp_w": 0.0, "lamp_h": hours, **uvb})
    return {**found, "heat": heat, "light": light, "lamps": lamps}


def with_plants(found: dict[str, Any]) -> dict[str, Any]:
    """A plan whose plants of one kind are a row."""
    tank = dict(found.get("tank") or {})
    kind, cover = tank.pop("plants", "none"), tank.pop("plant_cover_frac", 0.3)
    rows = [{"plant": OLD_PLANTS[kind], "plant_cover_frac": cover}] if kind in OLD_PLANTS else []
    return {**found, "tank": tank, "planting": rows}


def with_tap_asked(water: dict[str, Any]) -> dict[str, Any]:
    """A water that was written before anybody was asked, with a strength of 0: a tap that carried none is not known."""
    if water.get("src_chlorine_mg_l", 0.0) is None:
        return water
    strength = water.get("src_chlorine_mg_l") or None
    told = water.get("src_disinfectant", "none")
    clean = told == "none" and water.get("src_kind", "tap") in ASKED_KINDS
    return {**water, "src_disinfectant": UNKNOWN if clean else told, "src_chlorine_mg_l": strength}


ASKED_KINDS = ("tap", "stored")
WRITTEN_BASKING_C = 33.0
"""What first plans wrote as measured where nobody had measured: it is asked for again."""
READ_BEFORE = {
    "water": ("tank_ph", "tank_gh_dgh", "source_kh_dkh", "source_nitrate_mg_l", "source_us_cm"),
    "sources": ("src_gh_dgh", "src_kh_dkh", "src_us_cm", "src_nitrate_mg_l"),
}
"""What was entered as a number that could not be left out; where it differs from what stood there, a keeper told it."""


def with_what_was_told(found: dict[str, Any]) -> dict[str, Any]:
    """A plan that says what its keeper told, and that it is set up; dose and bag as they were meant."""
    water = dict(found.get("water") or {})
    sources = [dict(row) for row in found.get("sources") or []]
    if water.get("disinfectant", "none") == "none" and not sources:
        water["disinfectant"] = UNKNOWN
    if water.get("disinfectant", UNKNOWN) in (UNKNOWN, "none") or not water.get("disinfectant_mg_l", 1.0):
        water["disinfectant_mg_l"] = None
    else:
        water["disinfectant_mg_l"] = water.get("disinfectant_mg_l", 1.0)
    if water.get("dose_margin", 1.0) == 1.0:
        water["dose_margin"] = None
    usual = {"water": Water(), "sources": Source()}
    parts = [("water", "water.", water), *(("sources", f"sources.{i}.", row) for i, row in enumerate(sources))]
    told = [
        prefix + name
        for section, prefix, part in parts
        for name in READ_BEFORE[section]
        if name in part and part[name] != getattr(usual[section], name)
    ]
    light = dict(found.get("light") or {})
    if light.get("basking_c") == WRITTEN_BASKING_C:
        light["basking_c"] = None
    bags = [{"bag_us_cm": 400.0, **row} for row in found.get("bags") or []]
    run_in = {**(found.get("run_in") or {}), "stands": "set_up"}
    sources = [with_tap_asked(row) for row in sources]
    parts_of = {"water": water, "sources": sources, "bags": bags, "run_in": run_in, "light": light}
    return {**found, **parts_of, "told": {"told_on": told}}


PLAN_STEPS: dict[int, Step] = {
    # Version 0: documents written before plans carried a version; nothing else differs.
    0: lambda found: {**found, "version": 1},
    # Version 1: every surface but a filter's own counted as mature, and a filter's as entered.
    1: lambda found: {**found, "run_in": {"age_weeks": MATURE_UNTIL_THEN_WEEKS}, "version": 2},
    # Version 2: a lid was open, half or closed; one lamp, one ultraviolet-B lamp and one kind of plants stood in fields.
    2: lambda found: {**with_plants(with_lamps(with_named_lids(found))), "version": 3},
    # Version 3: a tap that nobody was asked about carried none, every number counted as told, every system as set up.
    3: lambda found: {**with_what_was_told(found), "version": 4},
}


ROOM_STEPS: dict[int, Step] = {
    # Version 1: prices stood in the room; they are the house's, and have been taken over there.
    1: lambda found: {**{name: rows for name, rows in found.items() if name != "prices"}, "version": 2},
}


class Unreadable(Exception):
    """A stored document that can not be read, and why."""

    def __init__(self, why: Sentence) -> None:
        super().__init__(why.text)
        self.why = why

    @property
    def sentence(self) -> str:
        """What a person reads, in the units that values are stored in."""
        return as_text(self.why, {})


def document(part: Any) -> str:
    """A plan, a water, any dataclass of the model as it is stored."""
    return json.dumps(plain_data(asdict(part)))


def parsed(stored: str | None) -> dict[str, Any]:
    """What a stored text says; raise Unreadable."""
    if stored is None:
        raise Unreadable(say("Its current revision is missing from the data file."))
    try:
        found = json.loads(stored)
    except ValueError as fault:
        raise Unreadable(say("What is stored is no JSON: {what}.", what=quoted(fault, 120))) from None
    if not isinstance(found, dict):
        raise Unreadable(say("What is stored is JSON, but not a document."))
    return found


def upgraded(
    found: dict[str, Any], newest: int = PLAN_VERSION, steps: Mapping[int, Step] = PLAN_STEPS
) -> dict[str, Any]:
    """A stored plan brought forward, version by version; raise Unreadable for a version that is none."""
    version = found.get("version", 0)
    if not isinstance(version, int) or isinstance(version, bool) or version < 0:
        raise Unreadable(say("Its version is “{version}”, which is none.", version=quoted(version)))
    if version > newest:
        text = "A newer Loquen wrote it: version {found}, this one reads up to {known}."
        raise Unreadable(say(text, found=quoted(version), known=str(newest)))
    for step in range(version, newest):
        found = steps[step](found)
    return found


def name_of(stored: str | None, number: int) -> str:
    """What a stored plan is called, even where the rest of it can not be read."""
    try:
        name = parsed(stored).get("name")
    except Unreadable:
        name = named(stored or "")
    return quoted(name, 80) if isinstance(name, str) and name else f"System {number}"


def named(damaged: str) -> str | None:
    """The name that a text which is no JSON (any more) still says."""
    found = re.search(r'"name"\s*:\s*("(?:[^"\\]|\\.)*")', damaged)
    try:
        return str(json.loads(found[1])) if found else None
    except ValueError:
        return None


def plan_of(data: dict[str, Any]) -> Plan:
    """A plan from plain data that was checked."""
    plan: Plan = rebuilt(Plan, data)
    return plan


def rebuilt(hint: Any, value: Any) -> Any:
    """Plain data as what the hint says: dataclasses and tuples, all the way down."""
    builder = builder_of(hint)
    return builder(value) if builder else value


@cache
def builder_of(hint: Any) -> Callable[[Any], Any] | None:
    """What makes a value of a type from plain data; None where plain data is such a value."""
    if is_dataclass(hint):
        model = cast(type, hint)
        needed = [(name, builder) for name, inner in hints(model).items() if (builder := builder_of(inner))]

        def built(held: dict[str, Any]) -> Any:
            made = {name: builder(held[name]) for name, builder in needed if name in held}
            return model(**{**held, **made})

        return built
    inner = inner_type(hint)
    if inner is not hint:
        within = builder_of(inner)
        return within and (lambda held: None if held is None else within(held))
    if get_origin(hint) is tuple:
        each = builder_of(get_args(hint)[0])
        return (lambda held: tuple([each(row) for row in held])) if each else tuple
    return None


def plain_data(value: Any) -> Any:
    """The same data with lists where the core has tuples."""
    if is_dataclass(value) and not isinstance(value, type):
        value = asdict(value)
    if isinstance(value, dict):
        return {name: plain_data(inner) for name, inner in value.items()}
    return [plain_data(inner) for inner in value] if isinstance(value, list | tuple) else value
