"""The log on the wire."""

from datetime import datetime
from typing import Literal

from pydantic import AwareDatetime, BaseModel, Field

from loquen.api.wire.plan import EntrySchema, Strict
from loquen.store.systems import MOST_ID

MOST_AT_ONCE = 500
MOST_TEXT = 4_000_000


class EntryIn(Strict):
    """An entry and its moment."""

    at: AwareDatetime
    entry: EntrySchema


class EntriesIn(Strict):
    """Entries made together: tests of one evening, a change and what was dosed with it."""

    now: AwareDatetime
    entries: list[EntryIn] = Field(min_length=1, max_length=MOST_AT_ONCE)


class EntryUpdate(EntryIn):
    """What an entry is now, and the revision that it was changed from."""

    now: AwareDatetime
    base: int = Field(ge=0, le=MOST_ID)


class Numbers(Strict):
    """Entries by their numbers."""

    ids: list[int] = Field(min_length=1, max_length=MOST_AT_ONCE)


class LoggedOut(BaseModel):
    """An entry; of a reading where the level lay, in the core's unit, without an upper end at the top of a chart."""

    id: int
    system_id: int
    at: datetime
    revision: int
    entry: EntrySchema
    low: float | None
    high: float | None


class EntryWas(BaseModel):
    """What an entry was at one of its revisions."""

    number: int
    saved: datetime
    at: datetime
    entry: EntrySchema


class MeasureOut(BaseModel):
    key: str
    label: str
    kind: str
    ion: float


class KitOut(BaseModel):
    key: str
    label: str
    measure: str
    steps: list[str]
    reads: str
    interferes: str
    expires: str


class Known(BaseModel):
    """What can be read and with what, and what can be done, each by key with its words."""

    measures: list[MeasureOut]
    kits: list[KitOut]
    kinds: dict[str, str]
    doses: dict[str, str]
    cleaned: dict[str, str]


class TableIn(Strict):
    """A table as text; `order` where its dates could be read either way; `zone_min` minutes ahead of UTC."""

    text: str = Field(min_length=1, max_length=MOST_TEXT)
    order: Literal["day first", "month first"] | None = None
    zone_min: int = Field(default=0, ge=-900, le=900)
    now: AwareDatetime


class ColumnOut(BaseModel):
    heading: str
    taken_for: str


class CellOut(BaseModel):
    line: int
    column: str
    what: str


class TableOut(BaseModel):
    """What a table is taken for: its columns, what would be new, what is there already, what can not be read."""

    columns: list[ColumnOut]
    new: int
    there: int
    faults: list[CellOut]
    either_order: bool
    kept: bool
