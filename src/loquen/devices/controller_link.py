"""Talking to a changer's controller on this machine: every answer is looked at, and a late or odd one is named."""

import json
import urllib.error
import urllib.request
from typing import Any

PATIENCE_S = 4.0
MOST_ANSWER = 4_000_000


class ControllerTrouble(Exception):
    """The controller can not be talked to; `code` says how, `sentence` what to do."""

    def __init__(self, code: str, sentence: str) -> None:
        super().__init__(sentence)
        self.code = code
        self.sentence = sentence


RUNS_ON = "It goes on with its last timetable by itself; its valves are shut without power."
AWAY = ("controller_away", f"The controller does not answer. {RUNS_ON}")
LATE = ("controller_late", f"The controller took longer than {PATIENCE_S:g} seconds. {RUNS_ON}")
NONSENSE = (
    "controller_nonsense",
    "The controller answered with something that is none of its answers: nothing was taken from it.",
)


class ControllerLink:
    """A controller on a port of this machine; None where there is none."""

    def __init__(self, port: int | None) -> None:
        self.port = port

    def asked(self, method: str, path: str, body: dict[str, Any] | None = None) -> dict[str, Any]:
        """An answer of the controller; raise ControllerTrouble."""
        if self.port is None:
            raise ControllerTrouble(
                "no_controller", "No controller is set up for this server: ./run demo starts the simulated one."
            )
        data = None if body is None else json.dumps(body).encode()
        request = urllib.request.Request(
            f"http://127.0.0.1:{self.port}{path}", data, {"Content-Type": "application/json"}, method=method
        )
        try:
            with direct.open(request, timeout=PATIENCE_S) as answer:
                text = answer.read(MOST_ANSWER)
        except urllib.error.HTTPError as fault:
            raise ControllerTrouble("controller_refused", f"The controller refused it: {refusal(fault)}.") from None
        except TimeoutError:
            raise ControllerTrouble(*LATE) from None
        except OSError as fault:
            late = isinstance(getattr(fault, "reason", None), TimeoutError)
            raise ControllerTrouble(*(LATE if late else AWAY)) from None
        try:
            found = json.loads(text)
        except ValueError:
            raise ControllerTrouble(*NONSENSE) from None
        if not isinstance(found, dict):
            raise ControllerTrouble(*NONSENSE)
        return found


direct = urllib.request.build_opener(urllib.request.ProxyHandler({}))
"""A proxy of the house has no business between this machine and itself."""


def refusal(fault: urllib.error.HTTPError) -> str:
    try:
        return str(json.loads(fault.read(2000)).get("error", "no reason"))[:120]
    except (ValueError, AttributeError, OSError):
        return "no reason"
