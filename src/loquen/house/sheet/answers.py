"""What a system's page is told: figures, checks, glasses and stages, and the core's own lists beside them."""

from dataclasses import dataclass
from typing import Any

from loquen.core.graph.nodes import Gauge, Remedy, State
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.model.roots.phase import Phase
from loquen.core.system.animals.findings import Finding
from loquen.core.system.animals.schools import School
from loquen.core.system.arrivals.tubs import Batch
from loquen.core.system.assumed import Assumed
from loquen.core.system.changes.regime import Regime
from loquen.core.system.changes.side_by_side import RegimeRow
from loquen.core.system.heat.failures import Failure, Settling
from loquen.core.system.propose.growth import Outgrown
from loquen.core.system.source.salt import SaltDay
from loquen.house.sheet.drawing import FlowDrawn, SawTooth, Section


@dataclass(frozen=True, slots=True)
class Figure:
    """A figure's value, or why there is none."""

    key: str
    label: str
    kind: str
    value: float | None
    low: float | None
    high: float | None
    missing: Sentence | None


@dataclass(frozen=True, slots=True)
class Check:
    """A check that applies: how it stands, by how much, why, and what mends it."""

    key: str
    label: str
    stage: str
    state: State
    headline: Sentence
    reason: Sentence
    figure: str
    gauge: Gauge | None
    remedies: list[Remedy]
    caution: str


@dataclass(frozen=True, slots=True)
class Glass:
    """A sight glass, filled by the worst of its checks."""

    key: str
    label: str
    state: State
    check: str
    stage: str
    headline: Sentence
    gauge: Gauge | None


@dataclass(frozen=True, slots=True)
class Stage:
    """A stage of the job: how it stands, and its result in a sentence."""

    key: str
    label: str
    state: State
    result: Sentence


@dataclass(frozen=True, slots=True)
class Ends:
    """The range of a figure."""

    low: float
    high: float


@dataclass(frozen=True, slots=True)
class More:
    """What follows an answer: remedies and longer reasons by check, ranges by figure, what is outgrown, what charts draw."""

    remedies: dict[str, list[Remedy]]
    reasons: dict[str, Sentence]
    ranges: dict[str, Ends]
    outgrown: tuple[Outgrown, ...]
    settlings: tuple[Settling, ...]
    failures: tuple[Failure, ...]
    least_regime: Regime | None
    regimes: tuple[RegimeRow, ...]
    salt_days: tuple[SaltDay, ...]
    saw_tooth: SawTooth | None
    assumed: tuple[Assumed, ...]


@dataclass(frozen=True, slots=True)
class Edited:
    """The answer to an edit: a version for the next to name, and the whole of it, or what differs from the version named."""

    version: str
    whole: "SheetAnswer | None"
    patch: Any


@dataclass(frozen=True, slots=True)
class SheetAnswer:
    """Everything a system's page shows."""

    figures: dict[str, Figure]
    checks: list[Check]
    glasses: list[Glass]
    stages: list[Stage]
    schools: tuple[School, ...]
    pairs: tuple[Finding, ...]
    company: tuple[Finding, ...]
    suited: list[Finding]
    growing: list[tuple[Finding, ...]]
    outgrown: tuple[Outgrown, ...]
    outage: Sentence
    flow: FlowDrawn | None
    settlings: tuple[Settling, ...]
    failures: tuple[Failure, ...]
    least_regime: Regime | None
    regimes: tuple[RegimeRow, ...]
    questions: list[Finding]
    disinfectant: str
    tap_untold: bool
    assumed: tuple[Assumed, ...]
    phase: Phase
    card: tuple[Sentence, ...]
    salt_days: tuple[SaltDay, ...]
    bags: list[Sentence]
    batches: tuple[Batch, ...]
    saw_tooth: SawTooth | None
    section: Section
