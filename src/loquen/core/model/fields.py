"""Walking a plan by path: what can be entered where, and a plan with one value changed."""

import types
import typing
from collections.abc import Iterator
from dataclasses import fields, is_dataclass, replace
from functools import cache
from typing import Any

from loquen.core.errors import UnknownKey
from loquen.core.model.plan import Plan
from loquen.core.model.quantity import Choice, Quantity

ROWS = ("animals", "filters")


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


def sections() -> dict[str, type]:
    """The parts of a plan and their dataclasses."""
    return {name: model for name, hint in hints(Plan).items() if (model := row_type(hint))}


def entry_at(path: str) -> Quantity | Choice | None:
    """What may be entered at a path such as tank.tank_length_cm or animals.0.number."""
    parts = path.split(".")
    model = sections().get(parts[0])
    return entries(model).get(parts[-1]) if model and len(parts) > 1 else None


def leaves(plan: Plan) -> Iterator[tuple[str, Any]]:
    """Every entered value of a plan with its path."""
    for section in sections():
        part = getattr(plan, section)
        rows = [(f"{section}.{i}", row) for i, row in enumerate(part)] if section in ROWS else [(section, part)]
        for prefix, row in rows:
            for item in fields(row):
                yield f"{prefix}.{item.name}", getattr(row, item.name)


def with_value(plan: Plan, path: str, value: Any) -> Plan:
    """The plan with one entered value changed; raise UnknownKey when the path is not one."""
    section, *rest = path.split(".")
    change: dict[str, Any]
    if section not in sections() or entry_at(path) is None:
        raise UnknownKey("plan", path)
    part = getattr(plan, section)
    if section in ROWS:
        index = int(rest[0])
        if index >= len(part):
            raise UnknownKey("plan", path)
        change = {section: (*part[:index], replace(part[index], **{rest[1]: value}), *part[index + 1 :])}
    else:
        change = {section: replace(part, **{rest[0]: value})}
    return replace(plan, **change)
