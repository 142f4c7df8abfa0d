"""The log on the wire."""

from datetime import datetime
from typing import Literal

from pydantic import BaseModel, Field

from loquen.checked.days import Moment
from loquen.checked.plan import EntrySchema, Strict
from loquen.store.documents.systems import MOST_ID

MOST_AT_ONCE = 500
MOST_TEXT = 4_000_000
"""Fifty thousand lines of eighty letters; the pages say the same before they send."""


class EntryIn(Strict):
    """An entry and its moment."""

    at: Moment
    entry: EntrySchema


class EntriesIn(Strict):
    """Entries made together: tests of one evening, a change and what was dosed with it."""

    now: Moment
    entries: list[EntryIn] = Field(min_length=1, max_length=MOST_AT_ONCE)


class EntryUpdate(EntryIn):
    """What an entry is now, and the revision that it was changed from."""

    now: Moment
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
    who: str
    """What the animals are called that it tells of."""
    length_cm: float | None
    left: str
    """Of a move the system that they left, and the one that they went to."""
    went_to: str
    whole_day: bool
    """Whether its day is all that is known of when it was."""


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
    unit: str
    """What a reading without a kit is told in."""


class KitOut(BaseModel):
    key: str
    label: str
    measure: str
    steps: list[str]
    reads: str
    unit: str
    """What it shows."""
    interferes: str
    expires: str


class Known(BaseModel):
    """What can be read and with what, and what can be done, each by key with its words."""

    measures: list[MeasureOut]
    kits: list[KitOut]
    kinds: dict[str, str]
    not_here: list[str]
    """Kinds that are written down in the register alone, and shown here."""
    units: dict[str, str]
    doses: dict[str, str]
    cleaned: dict[str, str]


class LivesHere(BaseModel):
    """Some of the register that live in a system."""

    id: int
    name: str
    here: int


class About(BaseModel):
    """What a line of one system's log can be about: animals, filters by key, and what its doses of ammonia are."""

    animals: list[LivesHere]
    filters: dict[str, str]
    ammonia_unit: str
    ammonia_product: str


class TableIn(Strict):
    """A table as text; `order` where its dates could be read either way, `changes` where its changes could; `zone_min` minutes
    ahead of UTC; `watch` a word of the page's own, by which it may ask how far it is."""

    text: str = Field(min_length=1, max_length=MOST_TEXT)
    order: Literal["day first", "month first"] | None = None
    changes: Literal["percent", "share"] | None = None
    zone_min: int = Field(default=0, ge=-900, le=900)
    watch: str = Field(default="", max_length=64)
    now: Moment


class HowFar(BaseModel):
    """The share that is done."""

    share: float


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
    either_change: bool
    kept: bool
