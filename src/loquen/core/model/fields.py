"""Walking a plan by path: what can be entered where, and what was."""

import types
import typing
from collections.abc import Iterator, Mapping
from dataclasses import fields, is_dataclass, replace
from functools import cache
from typing import Any

from loquen.core.model.plan import Plan
from loquen.core.model.quantity import Choice, Most, Quantity

ROWS = ("animals", "filters", "run", "returns", "chambers", "sources", "bags")


@cache
def entries(model: type) -> dict[str, Quantity | Choice]:
    """The enterable fields of one plan dataclass, by name."""
    found = {}
    for name, hint in typing.get_type_hints(model, include_extras=True).items():
        for extra in getattr(hint, "__metadata__", ()):
            if isinstance(extra, Quantity | Choice):
                found[name] = extra
    return found


@cache
def hints(model: type) -> dict[str, Any]:
    """Field types of a plan dataclass."""
    return typing.get_type_hints(model)


def row_type(hint: Any) -> type | None:
    """The dataclass of a tuple-of-rows field or of a section field, else None."""
    candidate = typing.get_args(hint)[0] if typing.get_origin(hint) is tuple else hint
    return candidate if is_dataclass(candidate) and isinstance(candidate, type) else None


def optional(model: type, name: str) -> bool:
    """Whether a field may be left empty."""
    hint = hints(model)[name]
    return isinstance(hint, types.UnionType) and type(None) in hint.__args__


@cache
def sections() -> dict[str, type]:
    """The parts of a plan and their dataclasses."""
    return {name: model for name, hint in hints(Plan).items() if (model := row_type(hint))}


def entry_at(path: str) -> Quantity | Choice | None:
    """What may be entered at a path such as tank.tank_length_cm, animals.0.number or heat.room_months_c.3."""
    section, *rest = path.split(".", 4)
    model = sections().get(section)
    names = [part for part in rest if not part.isdigit()]
    return entries(model).get(names[0]) if model and len(names) == 1 else None


def is_list(path: str) -> bool:
    """Whether the field at a path holds a list, such as heat.room_months_c."""
    section, _, name = path.rpartition(".")
    model = sections().get(section.split(".")[0])
    hint = hints(model).get(name) if model else None
    options = hint.__args__ if isinstance(hint, types.UnionType) else (hint,)
    return any(typing.get_origin(option) is tuple for option in options)


@cache
def limits() -> dict[str, int]:
    """How many each list of a plan may have, by its path: its rows, and the lists in its sections."""
    found = {}
    for prefix, model in [("", Plan), *((f"{name}.", model) for name, model in sections().items())]:
        for name, hint in typing.get_type_hints(model, include_extras=True).items():
            for extra in getattr(hint, "__metadata__", ()):
                if isinstance(extra, Most):
                    found[prefix + name] = extra.count
    return found


@cache
def names(model: type) -> tuple[str, ...]:
    """The field names of a plan dataclass."""
    return tuple(item.name for item in fields(model))


def leaves(plan: Plan) -> Iterator[tuple[str, Any]]:
    """Every entered value of a plan with its path."""
    for section, model in sections().items():
        part = getattr(plan, section)
        rows = (
            [(f"{section}.{i}.", row) for i, row in enumerate(part)] if section in ROWS else [(f"{section}.", part)]
        )
        for prefix, row in rows:
            for name in names(model):
                yield prefix + name, getattr(row, name)


def changed_plan(plan: Plan, changes: Mapping[str, Any]) -> Plan:
    """The plan with some entered values changed, by path."""
    for path, value in changes.items():
        section, *rest, name = path.split(".")
        part = getattr(plan, section)
        if rest:
            at = int(rest[0])
            part = (*part[:at], replace(part[at], **{name: value}), *part[at + 1 :])
        else:
            part = replace(part, **{name: value})
        plan = replace(plan, **{section: part})
    return plan
