"""What a tub with animals wants each day: looked over, fed, changed, dosed, and let go."""

from collections.abc import Iterable, Mapping
from dataclasses import replace
from datetime import date

from loquen.core.data.tables import constants
from loquen.core.events.kinds.keeping import Noted
from loquen.core.events.kinds.water import Changed, Dosed
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Term, say
from loquen.core.model.records.quarantine import TreatmentCourse
from loquen.core.model.roots.plan import Plan
from loquen.core.quarantine.courses import days_of_course
from loquen.core.quarantine.stays import Stay
from loquen.core.quarantine.tubs import Asks
from loquen.core.routine.care import feeding
from loquen.core.routine.duty import Duty
from loquen.core.routine.recurring import LONGEST_D, Rhythm
from loquen.core.system.source.treating import with_treatment

ONE_WAY = "Nets, hoses and hands go from the displays to the tub, never back; wash and dry them after it."
VET = "The label and a vet decide; what may be sold and used is the law's."


def tub_duties(
    sheet: Sheet[Plan], asked: Asks, stay: Stay, courses: Mapping[int, TreatmentCourse], began: date, today: date
) -> tuple[Duty, ...]:
    """The duties of a tub as it is lived in, counted from the day on which its system began."""
    minutes = constants("routine.toml")
    found = [
        Duty(
            key="look",
            kind="safety",
            words=say("Look each over: eating, breathing, fins, spots, fluff, droppings."),
            why=stay.words(today),
            rhythm=Rhythm(every_d=1),
            minutes=minutes["reading_min"].value,
            event=Noted("looked over: nothing seen"),
            caution="Signs seen belong into the register: the wait begins anew.",
        ),
        *feeding.duties(sheet),
    ]
    if asked.told_frac > 0:
        found.append(
            Duty(
                key="change",
                kind="change",
                words=with_treatment(
                    sheet,
                    say(
                        "Siphon the bottom and change {litres}, {share} of it.",
                        litres=Term(asked.change_l, "volume"),
                        share=Term(asked.told_frac, "share"),
                    ),
                    asked.change_l,
                ),
                why=asked.words,
                rhythm=Rhythm(every_d=1),
                minutes=minutes["care_min"].value,
                event=Changed(round(asked.change_l, 1)),
                caution=ONE_WAY,
            )
        )
    found.append(
        Duty(
            key="read.ammonia",
            kind="read",
            words=say("Read ammonia, before the change."),
            why=asked.words,
            rhythm=Rhythm(every_d=round(minutes["young_filter_d"].value)),
            minutes=minutes["reading_min"].value,
            measure="ammonia",
        )
    )
    for number, course in courses.items():
        found += doses(number, course, asked, began)
    found.append(
        Duty(
            key=f"release.{stay.release.isoformat()}",
            kind="safety",
            words=say("Their wait is over: bring them across, and let the tub dry."),
            why=stay.words(today),
            rhythm=Rhythm(every_d=LONGEST_D),
            minutes=minutes["care_min"].value,
            event=Noted("wait over"),
            offset_d=(stay.release - began).days,
            caution="The tub's water never goes along.",
        )
    )
    last = max(today, stay.release)
    return tuple(replace(duty, until=last) for duty in found)


def doses(number: int, course: TreatmentCourse, asked: Asks, began: date) -> Iterable[Duty]:
    """One duty for each day on which something is dosed: it waits until it is done."""
    for place, day in enumerate(days_of_course(course, asked.litres, asked.told_frac), 1):
        if day.given <= 0:
            continue
        yield Duty(
            key=f"dose.{number}.{place}",
            kind="supply",
            words=say(
                "Dose {amount} {unit} of {product}, day {place} of its course.",
                amount=Term(day.given, "ratio"),
                unit=course.dose_unit,
                product=course.product,
                place=str(place),
            ),
            why=say(
                "{dose} {unit} to {per} by its label, in {litres} of real water; {made_good} {unit} of it make good the change.",
                dose=Term(course.dose, "ratio"),
                unit=course.dose_unit,
                per=Term(course.per_l, "volume"),
                litres=Term(asked.litres, "volume"),
                made_good=Term(day.made_good, "ratio"),
            ),
            rhythm=Rhythm(every_d=LONGEST_D),
            minutes=constants("routine.toml")["reading_min"].value,
            event=Dosed("medicine", round(day.given, 3), course.dose_unit, course.product),
            offset_d=(day.day - began).days,
            caution=VET,
        )
