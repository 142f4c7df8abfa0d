"""Flow: pipes, pumps, overflows and drains, one phenomenon a file."""

from loquen.core.physics.hydraulics.overflows import (
    bulkhead_flow_lph,
    emitter_flow_lph,
    orifice_flow_lph,
    partly_covered_frac,
    siphon_flow_lph,
    sloped_drain_flow_lph,
    stack_capacity_lph,
    uv_flow_lph,
    weir_flow_lph,
    weir_head_mm,
)
from loquen.core.physics.hydraulics.pipes import (
    Loss,
    fitting_loss_m,
    line_loss,
    pipe_loss_m,
    valve_loss_m,
    velocity_m_s,
    viscosity_m2_s,
)
from loquen.core.physics.hydraulics.pumps import (
    PumpCurve,
    branch_flow_lph,
    operating_flow_lph,
    pump_head_m,
    pump_of,
    split_flow_lph,
)

__all__ = [
    "Loss",
    "PumpCurve",
    "branch_flow_lph",
    "bulkhead_flow_lph",
    "emitter_flow_lph",
    "fitting_loss_m",
    "line_loss",
    "operating_flow_lph",
    "orifice_flow_lph",
    "partly_covered_frac",
    "pipe_loss_m",
    "pump_head_m",
    "pump_of",
    "siphon_flow_lph",
    "sloped_drain_flow_lph",
    "split_flow_lph",
    "stack_capacity_lph",
    "uv_flow_lph",
    "valve_loss_m",
    "velocity_m_s",
    "viscosity_m2_s",
    "weir_flow_lph",
    "weir_head_mm",
]
