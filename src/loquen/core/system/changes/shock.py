"""The shock of a change: its steps in temperature, dissolved solids and hardness against what they bear."""

import math
from dataclasses import dataclass

from loquen.core.data.bodies import body_shapes
from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most, between
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.library.rows.animals import ShockClass, Species
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Term, of, say
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
def shock_classes(animal: tuple[Species, ...], library: Library) -> tuple[ShockClass, ...]:
    require_animals(animal)
    return tuple(library.shock_classes[kind.shock_class] for kind in animal)


@figure("Step in temperature they bear", formula="least of {shock_classes}", source="practice")
def borne_k(shock_classes: tuple[ShockClass, ...]) -> float:
    return min(row.temp_k for row in shock_classes)


@figure(
    "Step in dissolved solids they bear",
    formula="least of {shock_classes}, downwards when {new_us_cm} is under {settled_us_cm}",
    source="practice",
)
def borne_solids_frac(shock_classes: tuple[ShockClass, ...], new_us_cm: float, settled_us_cm: float) -> float:
    down = new_us_cm < settled_us_cm
    return min(row.down_frac if down else row.conductivity_frac for row in shock_classes)


@figure("Step in carbonate hardness they bear", formula="least of {shock_classes}", source="practice")
def borne_dkh(shock_classes: tuple[ShockClass, ...]) -> float:
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
    animal: tuple[Species, ...],
    new_c: float,
    water_c: float,
    new_us_cm: float,
    tank_us_cm: float | None,
    library: Library,
) -> ShockCaps:
    if not animal:
        return ShockCaps(NO_CAP, NO_CAP)
    rows = [library.shock_classes[kind.shock_class] for kind in animal]
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
    mends=("changes.change_frac", "water.source_c"),
)
def no_shock(
    shock_frac: float,
    step_k: float,
    step_solids_frac: float,
    step_dkh: float,
    shock_classes: tuple[ShockClass, ...],
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


DRAINED = ("weekdays", "every", "trigger")
"""Regimes that drain before they fill."""


@figure(
    "Water left over the bed at a change",
    formula="({water_height_cm} − {bed_depth_cm}) × (1 − {passed_frac}), where it is drained first ({regime})",
    source="balance",
)
def left_cm(water_height_cm: float, bed_depth_cm: float, passed_frac: float, regime: str) -> float:
    if regime not in DRAINED:
        raise NamedCase("not_needed")
    return max(0.0, water_height_cm - bed_depth_cm) * (1 - passed_frac)


@figure(
    "Height of the tallest aboard",
    formula="largest of {length_then_cm} × its body's depth: {animal}; those that breathe air left out",
    source="practice",
)
def tallest_cm(animal: tuple[Species, ...], length_then_cm: tuple[float, ...]) -> float:
    shapes = body_shapes()
    rows = [
        length * shapes[kind.shape].depth_frac
        for kind, length in zip(animal, length_then_cm, strict=True)
        if kind.shape in shapes and not kind.breathes_air
    ]
    if not rows:
        raise NamedCase("not_needed")
    return max(rows)


@check("A change leaves them under water", stage="changes", judges="left_cm", mends=("changes.change_frac",))
def stays_covered(
    left_cm: float,
    tallest_cm: float,
    bed_depth_cm: float,
    draws_at_cm: tuple[float, ...],
    passed_frac: float,
    heated: bool,
) -> Verdict:
    terms = {
        "share": Term(passed_frac, "share"),
        "left": of(left_cm, "left_cm"),
        "tall": of(tallest_cm, "tallest_cm"),
    }
    text = "A change of {share} leaves {left} over the bed; the tallest aboard stands {tall}."
    bare = any(left_cm + bed_depth_cm <= intake for intake in draws_at_cm)
    if bare:
        text += " It falls under an intake: switch filters off before, and on again after."
    if heated and passed_frac > HEATER_OUT_FRAC:
        text += " Switch heaters off before they stand dry, and on when they are covered."
    verdict = at_least(left_cm, tallest_cm, "length", say(text, **terms))
    return between(verdict, bare)


HEATER_OUT_FRAC = 0.25
"""A change of so much may lay a heater dry."""
