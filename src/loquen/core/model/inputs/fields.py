"""What a model's dataclass says of its fields: which can be entered, and of which type."""

import types
import typing
from dataclasses import fields, is_dataclass
from functools import cache
from typing import Any

from loquen.core.model.inputs.quantity import Choice, Most, Quantity


@cache
def entries(model: type) -> dict[str, Quantity | Choice]:
    """The enterable fields of one dataclass, by name."""
    return {
        name: extra
        for name, extras in metadata(model).items()
        for extra in extras
        if isinstance(extra, Quantity | Choice)
    }


@cache
def most(model: type) -> dict[str, int]:
    """How many each list of one dataclass may have, by name."""
    return {
        name: extra.count for name, extras in metadata(model).items() for extra in extras if isinstance(extra, Most)
    }


def metadata(model: type) -> dict[str, tuple[Any, ...]]:
    """What stands beside each field's type."""
    annotated = typing.get_type_hints(model, include_extras=True)
    return {name: getattr(hint, "__metadata__", ()) for name, hint in annotated.items()}


@cache
def hints(model: type) -> dict[str, Any]:
    """Field types of a dataclass."""
    return typing.get_type_hints(model)


def row_type(hint: Any) -> type | None:
    """The dataclass of a tuple-of-rows field or of a section field, else None."""
    candidate = typing.get_args(hint)[0] if is_tuple(hint) else hint
    return candidate if is_dataclass(candidate) and isinstance(candidate, type) else None


def inner_type(hint: Any) -> Any:
    """What an optional type may be besides None; any other type as it is."""
    if isinstance(hint, types.UnionType):
        return next(option for option in hint.__args__ if option is not types.NoneType)
    return hint


def is_tuple(hint: Any) -> bool:
    """Whether a type is a tuple, or an optional one."""
    options = hint.__args__ if isinstance(hint, types.UnionType) else (hint,)
    return any(typing.get_origin(option) is tuple for option in options)


def optional(model: type, name: str) -> bool:
    """Whether a field may be left empty."""
    hint = hints(model)[name]
    return isinstance(hint, types.UnionType) and type(None) in hint.__args__


@cache
def names(model: type) -> tuple[str, ...]:
    """The field names of a dataclass."""
    return tuple(item.name for item in fields(model))
