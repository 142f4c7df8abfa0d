"""What nobody sees until it fails: drains, the breaker, seals."""

from collections.abc import Iterator

from loquen.core.data.tables import constants
from loquen.core.events.kinds.keeping import Noted
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import of, say
from loquen.core.model.roots.plan import Plan
from loquen.core.routine.duty import Duty
from loquen.core.routine.recurring import Rhythm

DAYS_PER_MONTH = 365.25 / 12


def duties(sheet: Sheet[Plan]) -> Iterator[Duty]:
    table = constants("routine.toml")
    minutes = table["care_min"].value
    if sheet.root.flow.way != "none":
        months = round(table["drains_months"].value)
        yield Duty(
            key="drains",
            kind="safety",
            words=say(
                "Switch the pump off and watch: the sump ends at {off}. Then the emergency drain alone.",
                off=of(sheet.value("power_off_cm"), "power_off_cm"),
            ),
            why=say("A drain in use narrows; snails and plants find the emergency drain first."),
            rhythm=Rhythm(every_months=months),
            minutes=minutes,
            event=Noted("drains tested with the pump off"),
            offset_d=round(months * DAYS_PER_MONTH),
        )
    if sheet.root.heat.heated and sheet.root.heat.cut_out:
        months = round(table["probe_months"].value)
        yield Duty(
            key="probe",
            kind="safety",
            words=say("Hold the controller's probe beside a second thermometer, in the same glass of water."),
            why=say("A probe that reads low lets the heaters go on: it stands between them and the animals."),
            rhythm=Rhythm(every_months=months),
            minutes=minutes,
            event=Noted("controller's probe compared"),
            offset_d=round(months * DAYS_PER_MONTH),
        )
    months = round(table["seals_months"].value)
    yield Duty(
        key="seals",
        kind="safety",
        words=say("Look at silicone, hoses, gaskets, suction cups and cables, with a lamp and a dry hand."),
        why=say("What lets go at night has mostly shown it for weeks."),
        rhythm=Rhythm(every_months=months),
        minutes=minutes,
        event=Noted("seals and cables looked over"),
        offset_d=round(months * DAYS_PER_MONTH),
        caution="Unplug what is in the water first. A glazier or a licensed electrician decides where something is amiss.",
    )
    months = round(table["breaker_months"].value)
    yield Duty(
        key="breaker",
        kind="safety",
        words=say("Press the test button of the residual-current device, and see everything start again."),
        why=say("It is the one thing between water, current and you; its maker says how often."),
        rhythm=Rhythm(every_months=months),
        minutes=1.0,
        event=Noted("residual-current device tested"),
        offset_d=round(months * DAYS_PER_MONTH),
        caution="If it does not trip, use nothing on that circuit: a licensed electrician decides.",
    )
