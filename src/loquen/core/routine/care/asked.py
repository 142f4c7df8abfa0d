"""What was never measured or asked, and decides: a duty until it is told."""

from collections.abc import Iterator

from loquen.core.data.tables import constants
from loquen.core.events.kinds.keeping import Noted
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import say
from loquen.core.model.roots.plan import Plan
from loquen.core.routine.duty import Duty
from loquen.core.routine.recurring import Rhythm
from loquen.core.system.told import asks_of

EVERY_D = 3


def page_of(sheet: Sheet[Plan], path: str) -> str:
    """The stage of the first check that waits for an input: there it is entered."""
    for _, node in sheet.wiring.checks:
        if node.label in asks_of(sheet)[path] and node.check:
            return node.check.stage
    return ""


def asked(sheet: Sheet[Plan]) -> Iterator[Duty]:
    """One duty for each input that checks wait for; it goes when the page is told."""
    for path, labels in asks_of(sheet).items():
        entry = sheet.book.shape.entry_at(path)
        if entry is None or entry.untold is None:
            continue
        yield Duty(
            key=f"tell.{path}",
            kind="read",
            words=say(entry.untold.how),
            why=say("Until then nobody knows: {checks}.", checks=", ".join(labels)),
            rhythm=Rhythm(every_d=EVERY_D),
            minutes=constants("routine.toml")["reading_min"].value,
            event=Noted(f"{entry.label}: not known yet"),
            page=page_of(sheet, path),
        )
