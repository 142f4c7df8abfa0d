"""A sheet on the wire: figures, checks, glasses, stages and the lists beside them."""

from typing import Any, Literal

from pydantic import BaseModel

from loquen.core.model.quantity import Sentence
from loquen.core.sheet.nodes import Gauge

State = Literal["holds", "tight", "short", "unknown"]


class TermOut(BaseModel):
    value: float | str
    kind: str
    figure: str


class SentenceOut(BaseModel):
    text: str
    terms: dict[str, TermOut]

    @classmethod
    def of(cls, sentence: Sentence) -> "SentenceOut":
        terms = {
            name: TermOut(value=term.value, kind=term.kind, figure=term.figure)
            for name, term in sentence.terms.items()
        }
        return cls(text=sentence.text, terms=terms)


class FigureOut(BaseModel):
    """A figure's value, or why there is none."""

    key: str
    label: str
    kind: str
    value: float | None
    low: float | None = None
    high: float | None = None
    missing: SentenceOut | None = None


class GaugeOut(BaseModel):
    value: float
    top: float
    kind: str
    low: float | None
    high: float | None

    @classmethod
    def of(cls, gauge: Gauge) -> "GaugeOut":
        return cls(value=gauge.value, top=gauge.top, kind=gauge.kind, low=gauge.low, high=gauge.high)


class RemedyOut(BaseModel):
    sentence: SentenceOut
    changes: dict[str, Any]


class CheckOut(BaseModel):
    key: str
    label: str
    stage: str
    state: State
    headline: SentenceOut
    reason: SentenceOut
    figure: str
    gauge: GaugeOut | None
    remedies: list[RemedyOut]
    caution: str


class GlassOut(BaseModel):
    key: str
    label: str
    state: State
    check: str
    stage: str
    headline: SentenceOut
    gauge: GaugeOut | None


class StageOut(BaseModel):
    key: str
    label: str
    state: State
    result: SentenceOut


class FindingOut(BaseModel):
    who: list[str]
    what: str
    state: State
    sentence: SentenceOut


class SchoolOut(BaseModel):
    key: str
    label: str
    state: State
    share: float | None
    allows: SentenceOut
    why: str
    applies: bool
    binds: bool
    picked: bool


class RegimeOut(BaseModel):
    weekdays: list[str]
    change_frac: float
    peak_nitrate_mg_l: float
    change_l_wk: float
    work_min: float


class Corner(BaseModel):
    day: float
    nitrate: float


class SawToothOut(BaseModel):
    """Settled nitrate (mg/L N) over eight weeks, corner by corner, with the feed's range."""

    likely: list[Corner]
    low: list[Corner]
    high: list[Corner]
    source: float
    target: float


class AnimalDrawn(BaseModel):
    label: str
    shape: str
    length_cm: float
    number: int
    level: str


class SectionOut(BaseModel):
    """What the section drawing is drawn from, in cm of the real tank."""

    shape: str
    length_cm: float
    width_cm: float
    height_cm: float
    water_cm: float
    pane_cm: float
    bed: str
    bed_front_cm: float
    bed_back_cm: float
    rock_l: float
    wood_l: float
    plants: str
    plant_cover_frac: float
    closed: bool
    heated: bool
    filters: list[str]
    animals: list[AnimalDrawn]


class OutgrownOut(BaseModel):
    """A check that holds today and falls short as the animals grow."""

    check: str
    label: str
    months: float


class SheetOut(BaseModel):
    figures: dict[str, FigureOut]
    checks: list[CheckOut]
    glasses: list[GlassOut]
    stages: list[StageOut]
    schools: list[SchoolOut]
    pairs: list[FindingOut]
    company: list[FindingOut]
    suited: list[FindingOut]
    outgrown: list[OutgrownOut]
    outage: SentenceOut
    least_regime: RegimeOut | None
    saw_tooth: SawToothOut | None
    section: SectionOut


class WorkingNode(BaseModel):
    """One step of a working: the formula, and the keys its names stand for."""

    key: str
    label: str
    kind: str
    value: float | None
    words: str
    formula: str
    source: str
    parts: dict[str, list[str]]
    editable: bool


class MoverOut(BaseModel):
    path: str
    label: str
    nudge: TermOut
    change: float


class AnswerOut(BaseModel):
    path: str
    label: str
    kind: str
    present: float | None
    needed: float | None


class WorkingOut(BaseModel):
    figure: str
    nodes: dict[str, WorkingNode]
    low: float | None
    high: float | None
    movers: list[MoverOut]
    target: float | None
    answers: list[AnswerOut]
