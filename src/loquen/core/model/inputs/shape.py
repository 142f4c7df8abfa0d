"""The shape of any root dataclass, by its type hints: sections, rows, and what lies at a path."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, TypeVar

from loquen.core.model.inputs.fields import entries, hints, is_tuple, most, names, row_type
from loquen.core.model.inputs.quantity import Choice, Quantity

Root = TypeVar("Root")
DEEPEST = 4
"""Steps of a path that are looked at: no root goes deeper."""


@dataclass(frozen=True)
class Shape:
    """Sections are a root's fields that are dataclasses or lists of them; a path is section, row, field and place."""

    root: type

    @cached_property
    def sections(self) -> dict[str, type]:
        """The parts of a root and their dataclasses."""
        return {name: model for name, hint in hints(self.root).items() if (model := row_type(hint))}

    @cached_property
    def rows(self) -> tuple[str, ...]:
        """The sections that are lists of rows."""
        return tuple(name for name in self.sections if is_tuple(hints(self.root)[name]))

    @cached_property
    def limits(self) -> dict[str, int]:
        """How many each list may have, by its path: the rows, and the lists in the sections."""
        inner = {f"{name}.{field}": n for name, model in self.sections.items() for field, n in most(model).items()}
        return most(self.root) | inner

    def entry_at(self, path: str) -> Quantity | Choice | None:
        """What may be entered at a path such as tank.tank_length_cm, animals.0.number or heat.room_months_c.3."""
        section, *rest = path.split(".", DEEPEST)
        model = self.sections.get(section)
        fields = [part for part in rest if not part.isdigit()]
        return entries(model).get(fields[0]) if model and len(fields) == 1 else None

    def is_list(self, path: str) -> bool:
        """Whether the field at a path holds a list, such as heat.room_months_c."""
        section, _, name = path.rpartition(".")
        model = self.sections.get(section.split(".")[0])
        return model is not None and is_tuple(hints(model).get(name))

    def counts(self, root: Any) -> tuple[tuple[str, int], ...]:
        """How many rows each list of a root has."""
        return tuple((section, len(getattr(root, section))) for section in self.rows)

    def leaves(self, root: Any) -> Iterator[tuple[str, Any]]:
        """Every entered value of a root with its path."""
        for section, model in self.sections.items():
            part = getattr(root, section)
            placed = [(f"{section}.{i}.", row) for i, row in enumerate(part)] if section in self.rows else None
            for prefix, row in placed if placed is not None else [(f"{section}.", part)]:
                for name in names(model):
                    yield prefix + name, getattr(row, name)

    def changed(self, root: Root, changes: Mapping[str, Any]) -> Root:
        """The root with some entered values changed, by path."""
        for path, value in changes.items():
            section, *rest, name = path.split(".")
            part = getattr(root, section)
            if rest:
                at = int(rest[0])
                part = (*part[:at], replace(part[at], **{name: value}), *part[at + 1 :])
            else:
                part = replace(part, **{name: value})
            root = replace(root, **{section: part})  # type: ignore[type-var]
        return root
