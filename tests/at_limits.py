"""Plans at the limits of every field: what a person may enter, however odd."""

from dataclasses import fields, replace
from types import UnionType
from typing import get_args, get_origin

from loquen.core.library.whole import shipped
from loquen.core.model.inputs.fields import entries, hints
from loquen.core.model.inputs.options import options_of
from loquen.core.model.inputs.quantity import Quantity
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.plan import PLAN, Plan

TRIES = 60


def odd_number(rng, entry):
    """A value at a limit, beside it, very small, or anywhere between."""
    span = entry.high - entry.low
    tiny = [value for value in (1e-320, 1e-12) if entry.low <= value <= entry.high]
    value = rng.choice(
        [
            entry.low,
            entry.high,
            entry.low + 1e-9 * span,
            entry.high - 1e-9 * span,
            rng.uniform(entry.low, entry.high),
        ]
        + [entry.low + span * rng.random() ** 6] * 3
        + tiny
    )
    return round(value) if entry.whole else float(value)


def odd_choice(rng, entry, hint):
    if entry.table == "species":
        return rng.choice(list(shipped().species))
    if entry.table == "date":
        return rng.choice(["", "2028-02-29", "1999-12-31"])
    if entry.table == "told":
        return rng.choice(["water.tank_ph 2026-06-17", "sources.7.src_kh_dkh", "heat.room_cold_c"])
    if entry.table == "text" or (hint is str and not options_of(entry, shipped())):
        return rng.choice(["x", "Ärger 🐟", "=1+1", "a" * 80])
    return rng.choice(list(options_of(entry, shipped())))


def odd_value(rng, model, name, entry):
    """A value for one field, empty where it may be."""
    hint = hints(model)[name]
    if isinstance(hint, UnionType):
        if rng.random() < 0.5:
            return None
        hint = next(option for option in get_args(hint) if option is not type(None))
    if hint is bool:
        return rng.random() < 0.5
    if get_origin(hint) is tuple:
        return odd_list(rng, model, name, entry, get_args(hint)[0])
    return odd_number(rng, entry) if isinstance(entry, Quantity) else odd_choice(rng, entry, hint)


def odd_list(rng, model, name, entry, inner):
    section = next(key for key, part in PLAN.sections.items() if part is model)
    most = PLAN.limits[f"{section}.{name}"]
    if not isinstance(entry, Quantity):
        days = list(get_args(inner))
        return tuple(day for day in days if rng.random() < 0.5)
    count = 12 if name == "room_months_c" else rng.randint(2, most)
    return tuple(sorted((odd_number(rng, entry) for _ in range(count)), reverse=name.endswith("head_m")))


def odd_part(rng, model, share):
    """One section or row: each field odd with this chance, else as it starts."""
    values = {}
    for item in fields(model):
        entry = entries(model).get(item.name)
        needed = item.name in ("species", "number")
        if entry is not None and (needed or rng.random() < share):
            values[item.name] = odd_value(rng, model, item.name, entry)
    return model(**values)


def odd_plan(rng):
    """A plan that makes sense and is odd anywhere. Fields that contradict each other go back to how they start."""
    share = rng.choice([0.03, 0.1, 0.3, 1.0])
    parts = {}
    for name, model in PLAN.sections.items():
        if name in PLAN.rows:
            most = rng.choice([0, 1, 2, 3, PLAN.limits[name]])
            parts[name] = tuple(odd_part(rng, model, share) for _ in range(most))
        else:
            parts[name] = odd_part(rng, model, share)
    return sensible(Plan(name="odd", **parts))


def sensible(plan):
    """The plan with whatever contradicts itself mended, one after the other."""
    for _ in range(TRIES):
        found = conflicts(plan, shipped())
        if not found:
            return plan
        plan = mended(plan, found[0].path, found[0].nearest)
    return Plan(name="plain")


def mended(plan, path, nearest):
    """The plan with what contradicts at a path put right, or back to how it starts."""
    section, _, rest = path.partition(".")
    if nearest is not None:
        return PLAN.changed(plan, {path: nearest})
    start = Plan(name="start")
    if section in ("sump", "chambers"):
        # Chambers and the sump around them contradict each other in many ways: without a sump they do not count.
        return PLAN.changed(plan, {"flow.way": "none"})
    if rest and section in PLAN.rows:
        at = int(rest.split(".")[0])
        rows = getattr(plan, section)
        return replace(plan, **{section: (*rows[:at], *rows[at + 1 :])})
    if not rest:
        return replace(plan, **{section: getattr(start, section)})
    ended = {
        f"{section}.{name}": getattr(getattr(start, section), name) for name in entries(PLAN.sections[section])
    }
    return PLAN.changed(plan, ended)


def odd_change(rng, base):
    """A plan with a few fields at their limits; what contradicts itself goes back to how it starts."""
    plan = base
    for _ in range(rng.choice([1, 1, 2, 4, 12])):
        section = rng.choice([name for name in PLAN.sections if name not in PLAN.rows or getattr(plan, name)])
        model = PLAN.sections[section]
        name = rng.choice(list(entries(model)))
        row = f"{rng.randrange(len(getattr(plan, section)))}." if section in PLAN.rows else ""
        plan = PLAN.changed(plan, {f"{section}.{row}{name}": odd_value(rng, model, name, entries(model)[name])})
    return sensible(plan)
