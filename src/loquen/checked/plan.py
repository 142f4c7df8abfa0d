"""Plan and room on the wire: Pydantic models derived field by field from the core's dataclasses.

They are derived, not written again, so that a field or a limit has one home.
"""

import typing
from dataclasses import MISSING, asdict, fields, is_dataclass, replace
from functools import cache
from typing import Annotated, Any

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field, create_model
from pydantic_core import PydanticCustomError

from loquen.checked.days import known_day
from loquen.core.model.inputs.fields import entries, hints, inner_type
from loquen.core.model.inputs.quantity import Choice, Quantity
from loquen.core.model.inputs.told import is_row
from loquen.core.model.inputs.typed import Ambiguous, NotANumber, read_number
from loquen.core.model.parts.tank import Tank
from loquen.core.model.parts.water import Source
from loquen.core.model.records.log import Entry
from loquen.core.model.roots.documents import plain_data, rebuilt
from loquen.core.model.roots.plan import Plan
from loquen.core.model.roots.room import Room
from loquen.core.model.roots.venture import Venture

MOST_NOTES = 4000
A_DATE = r"^(\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01]))?$"
"""Year, month and day, or nothing."""
MOST_READ = 200
"""Rows that a list is read with: more than a plan may have, so that an older, longer one opens and says so."""


class Strict(BaseModel):
    """Nothing that was not asked for."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


def as_number(value: Any) -> Any:
    """A typed number as one, None for an empty field; raise for what is none, or may be two.

    Which of two was meant only the page can tell, which knows the unit that it was typed in.
    """
    if not isinstance(value, str):
        return value
    try:
        return read_number(value) if value.strip() else None
    except (NotANumber, Ambiguous):
        raise PydanticCustomError("float_parsing", "is not a number") from None


READ_NUMBER = BeforeValidator(as_number)


def told_row(row: str) -> str:
    """An input that was told, and its day; raise for what names none."""
    if not is_row(row):
        raise PydanticCustomError("told_row", "names no input with a day")
    return row


@cache
def mirror(model: type) -> type[Strict]:
    """The Pydantic model of one plan dataclass."""
    definitions: dict[str, Any] = {}
    types_of = hints(model)
    for item in fields(model):
        entry = entries(model).get(item.name)
        annotation = wire_type(types_of[item.name], entry)
        if item.name == "version":
            version = typing.cast(int, item.default)
            annotation = Annotated[int, Field(ge=version, le=version)]
        if item.default is not MISSING:
            default = plain_data(item.default)
            if default != item.default and default:
                annotation = Annotated[annotation, Field(validate_default=True)]
        elif item.default_factory is not MISSING:
            default = mirror(types_of[item.name])()
        else:
            default = ...
        definitions[item.name] = (annotation, default)
    return create_model(model.__name__, __base__=Strict, **definitions)


def wire_type(hint: Any, entry: Any) -> Any:
    """The type of one field: its limits applied to the number, its rows mirrored."""
    if is_dataclass(hint):
        return mirror(typing.cast(type, hint))
    if inner_type(hint) is not hint:
        return Annotated[wire_type(inner_type(hint), entry) | None, READ_NUMBER]
    if typing.get_origin(hint) is tuple:
        rows: Any = list[wire_type(typing.get_args(hint)[0], entry)]  # type: ignore[misc]
        return Annotated[rows, Field(max_length=MOST_READ)]
    if isinstance(entry, Quantity):
        return Annotated[hint, READ_NUMBER, Field(ge=entry.low, le=entry.high)]
    if hint is str and isinstance(entry, Choice) and entry.table == "text":
        return Annotated[str, Field(max_length=MOST_NOTES)]
    if hint is str and isinstance(entry, Choice) and entry.table == "told":
        return Annotated[str, Field(max_length=80), AfterValidator(told_row)]
    if hint is str and isinstance(entry, Choice) and entry.table == "date":
        return Annotated[str, Field(pattern=A_DATE), AfterValidator(known_day)]
    if hint is str:
        return Annotated[str, Field(min_length=1, max_length=80)]
    return hint


if typing.TYPE_CHECKING:

    class PlanSchema(Strict): ...

    class TankSchema(Strict): ...

    class SourceSchema(Strict): ...

    class EntrySchema(Strict):
        resident: int | None

    class RoomSchema(Strict): ...

    class VentureSchema(Strict): ...

else:
    PlanSchema = mirror(Plan)
    TankSchema = mirror(Tank)
    SourceSchema = mirror(Source)
    EntrySchema = mirror(Entry)
    RoomSchema = mirror(Room)
    VentureSchema = mirror(Venture)


def tank_there_is(schema: BaseModel) -> Tank:
    """A tank that somebody has, as the core's dataclass: its pane is its maker's, unless it was told."""
    tank: Tank = rebuilt(Tank, schema.model_dump())
    return tank if "pane_mm" in schema.model_fields_set else replace(tank, factory_built=True)


def water_to_core(schema: BaseModel) -> Source:
    """A validated water as the core's dataclass."""
    water: Source = rebuilt(Source, schema.model_dump())
    return water


def water_from_core(water: Source) -> SourceSchema:
    """A water of the core for the wire."""
    return SourceSchema.model_validate(plain_data(asdict(water)))
