"""Variants of a system: kept, called something else, let go. One that can not be read says why."""

from dataclasses import dataclass
from datetime import datetime

from fastapi import APIRouter, Response
from pydantic import Field

from loquen.api.dependencies import FAULTS, Asked
from loquen.api.wire.answers import sent
from loquen.checked.documents import A_PLAN
from loquen.checked.plan import PlanSchema, Strict
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.model.roots.documents import Unreadable, document
from loquen.house.systems.root import SYSTEMS
from loquen.house.systems.schema import NamedPlan
from loquen.store.documents import variants
from loquen.store.documents.variants import Variant

router = APIRouter(prefix="/api/systems/{system_id}/variants", tags=["variants"], responses=dict(FAULTS))


class VariantName(Strict):
    name: str = Field(min_length=1, max_length=80)


@dataclass(frozen=True, slots=True)
class VariantOut:
    """A variant with its plan; or why it can not be read."""

    id: int
    name: str
    saved: datetime
    plan: PlanSchema | None
    why: Sentence | None


@dataclass(frozen=True, slots=True)
class VariantsOut:
    rows: tuple[VariantOut, ...]


def variant_out(row: Variant) -> VariantOut:
    try:
        return VariantOut(row.id, row.name, row.saved, A_PLAN.to_wire(A_PLAN.read(row.document)), None)
    except Unreadable as fault:
        return VariantOut(row.id, row.name, row.saved, None, fault.why)


@router.get("", response_model=VariantsOut)
def list_variants(system_id: int, visit: Asked) -> Response:
    """The variants of a system, in the order in which they were kept."""
    with visit.reading() as session:
        return sent(VariantsOut(tuple(variant_out(row) for row in variants.list_of(session, system_id))))


@router.post("", status_code=201, response_model=VariantsOut)
def keep_variant(system_id: int, kept: NamedPlan, visit: Asked) -> Response:
    """Keep a plan beside a system; 409 where it has as many as it keeps."""
    text = document(SYSTEMS.sensible(kept.plan, visit.library))
    with visit.writing() as session:
        variants.add(session, system_id, kept.name, text)
    answer = list_variants(system_id, visit)
    answer.status_code = 201
    return answer


@router.put("/{variant_id}", response_model=VariantsOut)
def rename_variant(system_id: int, variant_id: int, named: VariantName, visit: Asked) -> Response:
    with visit.writing() as session:
        variants.rename(session, system_id, variant_id, named.name)
    return list_variants(system_id, visit)


@router.delete("/{variant_id}", response_model=VariantsOut)
def let_variant_go(system_id: int, variant_id: int, visit: Asked) -> Response:
    with visit.writing() as session:
        variants.delete(session, system_id, variant_id)
    return list_variants(system_id, visit)
