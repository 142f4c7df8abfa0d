"""Waters on the wire."""

from typing import Any

from pydantic import BaseModel, Field

from loquen.api.schemas.plan import SourceSchema, Strict
from loquen.api.schemas.sheet import FigureOut, FindingOut


class WaterIn(Strict):
    """One water. It stands in a list, so that a fault is told at the path that it has in a plan."""

    sources: list[SourceSchema] = Field(min_length=1, max_length=1)


class WaterOut(BaseModel):
    """A water with what follows from it, and what does not fit together."""

    id: int
    water: SourceSchema
    figures: list[FigureOut]
    questions: list[FindingOut]


class ReportIn(Strict):
    """A report's text in the open layout."""

    text: str = Field(min_length=1, max_length=50_000)


class AreaOut(BaseModel):
    key: str
    label: str


def plain(water: Any) -> dict[str, Any]:
    """A water as it is stored."""
    document: dict[str, Any] = water.model_dump(mode="json")
    return document
