"""The shock of a change: its steps in temperature, dissolved solids and hardness against what they bear."""

import math
from dataclasses import dataclass

from loquen.core.data import library
from loquen.core.data.library import Species
from loquen.core.graph.judging import at_most
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.quantity import Term, of, say
from loquen.core.system.animals.food import require_animals
from loquen.core.system.changes.regime import NO_CAP


@figure(
    "Step in temperature at a change",
    formula="{swapped_frac} × |{new_c} − {water_c}|",
    source="balance",
)
def step_k(swapped_frac: float, new_c: float, water_c: float) -> float:
    return swapped_frac * abs(new_c - water_c)


@figure(
    "Step in dissolved solids at a change",
    formula="{swapped_frac} × |{new_us_cm} − {settled_us_cm}| ÷ {settled_us_cm}",
    source="balance",
)
def step_solids_frac(swapped_frac: float, new_us_cm: float, settled_us_cm: float) -> float:
    return swapped_frac * abs(new_us_cm - settled_us_cm) / settled_us_cm


@figure(
    "Step in carbonate hardness at a change",
    formula="{swapped_frac} × |{new_kh_dkh} − {settled_kh_dkh}|",
    source="balance",
)
def step_dkh(swapped_frac: float, new_kh_dkh: float, settled_kh_dkh: float) -> float:
    return swapped_frac * abs(new_kh_dkh - settled_kh_dkh)


@step()
def shock_classes(animal: tuple[Species, ...]) -> tuple[library.ShockClass, ...]:
    require_animals(animal)
    return tuple(library.shock_classes()[kind.shock_class] for kind in animal)


@figure("Step in temperature they bear", formula="least of {shock_classes}", source="practice")
def borne_k(shock_classes: tuple[library.ShockClass, ...]) -> float:
    return min(row.temp_k for row in shock_classes)


@figure(
    "Step in dissolved solids they bear",
    formula="least of {shock_classes}, downwards when {new_us_cm} is under {settled_us_cm}",
    source="practice",
)
def borne_solids_frac(
    shock_classes: tuple[library.ShockClass, ...], new_us_cm: float, settled_us_cm: float
) -> float:
    down = new_us_cm < settled_us_cm
    return min(row.down_frac if down else row.conductivity_frac for row in shock_classes)


@figure("Step in carbonate hardness they bear", formula="least of {shock_classes}", source="practice")
def borne_dkh(shock_classes: tuple[library.ShockClass, ...]) -> float:
    return min(row.kh_dkh for row in shock_classes)


@dataclass(frozen=True, slots=True)
class ShockCaps:
    """The largest exchanges whose step in temperature, and in dissolved solids, is borne; NO_CAP where any is."""

    warm_frac: float
    solids_frac: float

    @property
    def label(self) -> str:
        return f"{self.warm_frac:.0%} by temperature, {self.solids_frac:.0%} by dissolved solids"

    @property
    def frac(self) -> float:
        return min(self.warm_frac, self.solids_frac)

    def shocks(self, share: float) -> str:
        """What a change of a share shocks them by, if by anything."""
        if share <= self.frac:
            return ""
        return "warm" if self.warm_frac <= self.solids_frac else "solids"


def cap_frac(whole: float) -> float:
    """The share at which a step of so many times what is borne, were all exchanged, is borne."""
    return 1 / whole if whole > 1 / NO_CAP else NO_CAP


@step()
def shock_caps(
    animal: tuple[Species, ...], new_c: float, water_c: float, new_us_cm: float, tank_us_cm: float | None
) -> ShockCaps:
    if not animal:
        return ShockCaps(NO_CAP, NO_CAP)
    rows = [library.shock_classes()[kind.shock_class] for kind in animal]
    tank = new_us_cm if tank_us_cm is None else tank_us_cm
    solids = min(row.down_frac if new_us_cm < tank else row.conductivity_frac for row in rows)
    return ShockCaps(
        cap_frac(abs(new_c - water_c) / min(row.temp_k for row in rows)),
        cap_frac(abs(new_us_cm - tank) / tank / solids),
    )


@figure(
    "Largest step as a share of what they bear",
    formula="largest of {step_k} ÷ {borne_k}, {step_solids_frac} ÷ {borne_solids_frac}, {step_dkh} ÷ {borne_dkh}",
    source="practice",
)
def shock_frac(
    step_k: float,
    borne_k: float,
    step_solids_frac: float,
    borne_solids_frac: float,
    step_dkh: float,
    borne_dkh: float,
) -> float:
    return max(step_k / borne_k, step_solids_frac / borne_solids_frac, step_dkh / borne_dkh)


@check(
    "No change shocks them",
    stage="changes",
    judges="shock_frac",
    mends=("changes.change_frac", "water.source_c", "water.source_us_cm"),
)
def no_shock(
    shock_frac: float,
    step_k: float,
    step_solids_frac: float,
    step_dkh: float,
    shock_classes: tuple[library.ShockClass, ...],
) -> Verdict:
    delicate = min(shock_classes, key=lambda row: row.conductivity_frac)
    text = (
        "One change moves temperature by {warm}, dissolved solids by {solids} and carbonate hardness by {kh}; "
        "the most delicate aboard are {kind}."
    )
    if shock_frac > 1:
        text += " Split into {parts} smaller ones, a day apart, no step is too large."
    reason = say(
        text,
        parts=Term(math.ceil(shock_frac), "count"),
        warm=of(step_k, "step_k"),
        solids=of(step_solids_frac, "step_solids_frac"),
        kh=of(step_dkh, "step_dkh"),
        kind=delicate.label,
    )
    return at_most(shock_frac, 1.0, "share", reason)
