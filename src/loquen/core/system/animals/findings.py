"""What is found about an animal or a pair, and one verdict over many findings."""

from dataclasses import dataclass

from loquen.core.graph.nodes import State, Verdict, worst
from loquen.core.model.inputs.quantity import Sentence, Term, joined, say


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing found about an animal or a pair: what was compared, how it stands, and why."""

    who: tuple[str, ...]
    what: str
    state: State
    sentence: Sentence
    near: bool = False
    """Inside its range, though close to the edge."""


DEADLY = ("mouth", "temper")
"""What kills at once, in this order."""
MOST_TOLD = 6


def dies_first(finding: Finding) -> tuple[bool, int]:
    """Who dies first comes first; what is only near comes last."""
    return finding.near, DEADLY.index(finding.what) if finding.what in DEADLY else len(DEADLY)


def told(finding: Finding) -> Sentence:
    """A finding as one sentence: who, in what, and how."""
    text = "{who}, {what}: " + finding.sentence.text + "."
    terms = {"who": Term(" and ".join(finding.who)), "what": Term(finding.what)}
    return Sentence(text, {**finding.sentence.terms, **terms})


def verdict_over(findings: list[Finding], fine: str) -> Verdict:
    """One verdict over many findings: the worst decide, and all of these are told, who dies first on top."""
    state = worst([finding.state for finding in findings] or ["holds"])
    bad = [finding for finding in findings if finding.state in ("short", "tight", "measure")]
    short = sum(finding.state == "short" for finding in bad)
    if not bad:
        return Verdict("holds", 0.0, say("all agree"), say(fine))
    worst_ones = sorted((finding for finding in bad if finding.state == state), key=dies_first)
    said = [told(finding) for finding in worst_ones[:MOST_TOLD]]
    if len(worst_ones) > MOST_TOLD:
        said.append(say("And {more} more.", more=Term(len(worst_ones) - MOST_TOLD, "count")))
    headline = say("{count} to settle", count=Term(len(bad), "count"))
    return Verdict(state, -float(short) if short else 0.0, headline, joined(said, " "))
