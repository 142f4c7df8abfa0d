"""A sheet on the wire: figures, checks, glasses, stages and the lists beside them."""

from typing import Any, Literal

from pydantic import BaseModel

from loquen.core.graph.nodes import Gauge, Remedy
from loquen.core.model.quantity import Sentence

State = Literal["holds", "tight", "short", "unknown"]


class TermOut(BaseModel):
    value: float | str
    kind: str
    figure: str
    bare: bool = False


class SentenceOut(BaseModel):
    text: str
    terms: dict[str, TermOut]

    @classmethod
    def of(cls, sentence: Sentence) -> "SentenceOut":
        # Made thousands of times for a large company of animals, and of values that the core has typed.
        terms = {
            name: TermOut.model_construct(
                value=term.value if isinstance(term.value, str) else float(term.value),
                kind=term.kind,
                figure=term.figure,
                bare=term.bare,
            )
            for name, term in sentence.terms.items()
        }
        return cls.model_construct(text=sentence.text, terms=terms)


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

    @classmethod
    def of(cls, remedy: Remedy) -> "RemedyOut":
        return cls(sentence=SentenceOut.of(remedy.sentence), changes=dict(remedy.changes))


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


class ChamberDrawn(BaseModel):
    kind: str
    length_cm: float
    level_cm: float
    baffle_cm: float


class SumpDrawn(BaseModel):
    """The sump under its display, from its own inside lower left corner; levels above its base."""

    length_cm: float
    height_cm: float
    pane_cm: float
    below_cm: float
    room_cm: float
    power_off_cm: float
    clogged_off_cm: float
    fits: bool
    intake_cm: float
    media_l: float
    chambers: list[ChamberDrawn]


class RunDrawn(BaseModel):
    """A part along the return's run, and how often it comes there."""

    part: str
    label: str
    count: int


class OutletDrawn(BaseModel):
    """A return into the display: how deep it ends, how far its valve is open, what it passes."""

    depth_cm: float
    open_frac: float
    flow_lph: float


class OverflowDrawn(BaseModel):
    """The way out of the display and back: its crest, drains, run and returns."""

    way: str
    crest_cm: float
    drop_cm: float
    box_cm: float
    hole_cm: float
    hole_count: int
    drain_passes: bool
    emergency: bool
    blocked_cm: float
    reaches: bool
    return_lph: float
    run: list[RunDrawn]
    outlets: list[OutletDrawn]


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
    tank_count: int
    heaters_in: str
    overflow: OverflowDrawn | None
    sump: SumpDrawn | None
    animals: list[AnimalDrawn]


class OutgrownOut(BaseModel):
    """A check that holds today and falls short as the animals grow."""

    check: str
    label: str
    months: float


class FlowPoint(BaseModel):
    """A point of a curve: L/h and m."""

    flow: float
    head: float


class FlowCaseOut(BaseModel):
    label: str
    flow_lph: float
    head_mm: float
    drain_frac: float
    emergency_frac: float | None


class FlowOut(BaseModel):
    """What the Flow stage shows beside its figures."""

    pump: list[FlowPoint]
    system: list[FlowPoint]
    outlets_lph: list[float]
    cases: list[FlowCaseOut]
    sump: SentenceOut


class FailureOut(BaseModel):
    """Temperature hour by hour after something failed."""

    label: str
    temps_c: list[float]


class RegimeRowOut(BaseModel):
    """One regime beside the others, settled; nitrate as mg/L of N."""

    label: str
    now: bool
    weekdays: list[str]
    regime: str
    change_frac: float
    gap_d: float
    peak: float
    mean: float
    trough: float
    change_l_wk: float
    work_min: float
    heat_kwh_wk: float
    shock_frac: float | None
    age_d: float
    settles_d: float | None
    saw: list[Corner]


class SaltDayOut(BaseModel):
    day: int
    salinity_ppt: float
    salt_g: float
    fresh_l: float
    gravity: float


class BatchOut(BaseModel):
    """One arrival in quarantine: its tub, and the weeks it enters and leaves."""

    name: str
    tub: int
    enters: float
    leaves: float


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
    flow: FlowOut | None
    failures: list[FailureOut]
    least_regime: RegimeOut | None
    regimes: list[RegimeRowOut]
    questions: list[FindingOut]
    card: list[SentenceOut]
    salt_days: list[SaltDayOut]
    bags: list[SentenceOut]
    batches: list[BatchOut]
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
