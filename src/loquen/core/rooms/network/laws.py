"""What each link of a network loses, in m of water, at a flow in L/h, and how steeply: every law strictly rising."""

import math
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from loquen.core.physics.geometry import GRAVITY_M_S2
from loquen.core.physics.hydraulics.pipes import LPH_PER_M3_S, friction_and_slope

Floats = NDArray[np.float64]
SHUT_M_PER_LPH = 1e7
"""What flows back through a shut check is nothing: a loss so steep that ten metres pass a millionth of a litre an hour."""
DRY_M_PER_LPH = 1e13
"""The same for a dry emitter, steeper, so that it does not hold a shut check's level up."""
FULL_M = 1e8
"""What a compensating emitter loses more when its flow doubles over its nominal: it holds it."""
SEEPS_LPH = 1e-9
LEAST_SLOPE = 1e-7
"""m per L/h: a law flat at no flow counts as this steep, which bounds a step and moves no answer."""
FLAT_RE = 1e-6


@dataclass(frozen=True)
class Laws:
    """Coefficients of all links, pipes first: h = linear·Q + square·Q|Q|, pipes with friction, emitters with a power.

    `one_way` is the slope against the arrow, 0 where water may run both ways; `most_lph` where a link holds its flow.
    """

    linear: Floats
    square: Floats
    one_way: Floats
    most_lph: Floats
    pipe_reynolds: Floats
    pipe_rough: Floats
    pipe_friction: Floats
    power_at: NDArray[np.intp]
    power_nominal: Floats
    power_head: Floats
    power: Floats

    @cached_property
    def seeps_lph(self) -> Floats:
        """What may run backwards before a link shuts: far less than counts, but more than what dry emitters draw."""
        shuts = np.where(self.one_way >= DRY_M_PER_LPH, 0.0, SEEPS_LPH)
        return np.where(self.one_way > 0, shuts, np.inf)

    def loss(self, flow: Floats) -> tuple[Floats, Floats]:
        """Head lost and its slope, link by link."""
        size = np.abs(flow)
        head = (self.linear + self.square * size) * flow
        slope = self.linear + 2 * self.square * size
        n = len(self.pipe_reynolds)
        if n:
            moving = np.maximum(size[:n], 1e-9)
            reynolds = np.maximum(moving * self.pipe_reynolds, FLAT_RE)
            factor, rise = friction_and_slope(reynolds, self.pipe_rough)
            squared = self.pipe_friction * moving
            head[:n] += factor * squared * flow[:n]
            slope[:n] += squared * (2 * factor + rise * reynolds)
        if len(self.power_at):
            part = size[self.power_at] / self.power_nominal
            raised = self.power_head * part ** (self.power - 1)
            head[self.power_at] += raised * part * np.sign(flow[self.power_at])
            slope[self.power_at] += raised * self.power / self.power_nominal
        over = size > self.most_lph
        if over.any():
            held = self.most_lph[over]
            at_most, steep = (self.linear[over] + self.square[over] * held) * held, FULL_M / held
            head[over] = at_most + steep * (size[over] - held)
            slope[over] = steep
        back = flow < -self.seeps_lph
        if back.any():
            head[back] = self.one_way[back] * (flow[back] + self.seeps_lph[back])
            slope[back] = self.one_way[back]
        return head, np.maximum(slope, LEAST_SLOPE)

    def with_at(self, name: str, at: int, value: float) -> "Laws":
        """The laws with one coefficient changed."""
        column = getattr(self, name).copy()
        column[at] = value
        return replace(self, **{name: column})


def per_lph(bore_mm: Floats) -> Floats:
    """m/s for a litre an hour in each pipe."""
    return 1 / LPH_PER_M3_S / (math.pi / 4 * (bore_mm / 1000) ** 2)


def pipe_terms(
    length_m: Floats, bore_mm: Floats, rough_mm: Floats, minor_k: Floats, viscosity: float
) -> tuple[Floats, Floats, Floats, Floats]:
    """Square coefficient of the fittings, Re for a litre an hour, relative roughness, friction's coefficient."""
    speed = per_lph(bore_mm)
    velocity_head = speed**2 / (2 * GRAVITY_M_S2)
    bore_m = bore_mm / 1000
    return (
        minor_k * velocity_head,
        speed * bore_m / viscosity,
        rough_mm / bore_mm,
        length_m / bore_m * velocity_head,
    )
