"""What a controller may answer, with the bounds of each number: an answer is hostile until it was read here."""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

MOST_RUNS = 10_000
Text = Annotated[str, Field(max_length=60, pattern=r"^[\x20-\x7e\u00a0-\uffff]*$")]
Count = Annotated[int, Field(ge=0, le=10**9)]
Minutes = Annotated[float, Field(ge=0, le=100 * 366 * 1440, allow_inf_nan=False)]
Litres = Annotated[float, Field(ge=0, le=200_000, allow_inf_nan=False)]
Degrees = Annotated[float, Field(ge=-10, le=100, allow_inf_nan=False)]
Zone = Annotated[int, Field(ge=0, le=24)]


class Answer(BaseModel):
    """Strict: a number is a number and a switch a switch; what is not known is left where it is."""

    model_config = ConfigDict(strict=True, frozen=True, extra="ignore")


class FaultTold(Answer):
    fault: Text
    zone: Zone


class State(Answer):
    """How a controller stands."""

    begun: Annotated[Text, Field(min_length=1)]
    clock_min: Minutes
    timetable: Text | None
    master_open: bool
    meter_l: Annotated[float, Field(ge=0, le=1e12, allow_inf_nan=False)]
    store_full: bool
    leak: bool
    power: bool
    faults: list[FaultTold] = Field(default=[], max_length=100)
    knows: dict[Text, Text] = Field(default={}, max_length=100)


class RunTold(Answer):
    """One run as the controller numbers and times it."""

    n: Annotated[int, Field(ge=1, le=10**9)]
    zone: Annotated[int, Field(ge=1, le=24)]
    start_min: Minutes
    end_min: Minutes
    planned_l: Litres
    metered_l: Litres
    mixed_c: Degrees
    ended_by: Literal["timetable", "litres limit", "mix too cold", "leak"]

    @model_validator(mode="after")
    def runs_forward(self) -> "RunTold":
        if self.end_min < self.start_min:
            raise ValueError("it ends before it starts")
        return self


class Runs(Answer):
    """Runs, each once."""

    runs: list[RunTold] = Field(max_length=MOST_RUNS)

    @model_validator(mode="after")
    def each_once(self) -> "Runs":
        if len({run.n for run in self.runs}) < len(self.runs):
            raise ValueError("a run is told twice")
        return self


class Held(Answer):
    """The timetable as a controller holds it."""

    timetable: dict[str, Any] | None
