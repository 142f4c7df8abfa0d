"""Talking to a changer's controller on this machine: a deadline for the whole answer, bounds for all that it says."""

import json
import socket
from pathlib import Path
from time import monotonic
from typing import Any, TypeVar

import h11
from pydantic import BaseModel, ValidationError

from loquen.devices.changer import secret
from loquen.devices.changer.answers import Held, Runs, RunTold, State

PATIENCE_S = 4.0
MOST_ANSWER = 4_000_000
PART = 65_536
Read = TypeVar("Read", bound=BaseModel)


class ControllerTrouble(Exception):
    """The controller can not be talked to; `code` says how, `sentence` what to do."""

    def __init__(self, code: str, sentence: str) -> None:
        super().__init__(sentence)
        self.code = code
        self.sentence = sentence


RUNS_ON = "It goes on with its last timetable by itself; its valves are shut without power."
NONE_SET_UP = (
    "no_controller",
    "No controller is set up for this server: ./run demo starts the simulated one, ./run serve --controller takes a port.",
)
AWAY = ("controller_away", f"The controller does not answer. {RUNS_ON}")
LATE = ("controller_late", f"The controller took longer than {PATIENCE_S:g} seconds. {RUNS_ON}")
NONSENSE = (
    "controller_nonsense",
    "The controller answered with something that is none of its answers: nothing was taken from it.",
)


class ControllerLink:
    """A controller on a port of this machine, and the file with the token for it; no port where there is none."""

    def __init__(self, port: int | None = None, token: Path | None = None) -> None:
        self.port = port
        self.token = token

    def state(self) -> State:
        """How it stands; raise ControllerTrouble, as all of these do."""
        return read(State, self.asked("GET", "/state"))

    def runs(self, since: int) -> list[RunTold]:
        """The runs after the one of a number."""
        return read(Runs, self.asked("GET", f"/runs?since={since}")).runs

    def held(self) -> dict[str, Any] | None:
        """The timetable as it reads it back."""
        return read(Held, self.asked("GET", "/timetable")).timetable

    def hold(self, timetable: dict[str, Any]) -> None:
        self.asked("PUT", "/timetable", timetable)

    def told(self, path: str, body: dict[str, Any]) -> None:
        self.asked("POST", path, body)

    def asked(self, method: str, path: str, body: dict[str, Any] | None = None) -> bytes:
        """What it answers, within the whole patience; never where it points elsewhere."""
        if self.port is None:
            raise ControllerTrouble(*NONE_SET_UP)
        try:
            status, text = exchanged(self.port, method, path, body, secret.read(self.token))
        except TimeoutError:
            raise ControllerTrouble(*LATE) from None
        except OSError:
            raise ControllerTrouble(*AWAY) from None
        except (h11.ProtocolError, OverflowError):
            raise ControllerTrouble(*NONSENSE) from None
        if 400 <= status < 500:
            raise ControllerTrouble("controller_refused", f"The controller refused it: {refusal(text)}.")
        if status != 200:
            raise ControllerTrouble(*NONSENSE)
        return text


def read(answer: type[Read], text: bytes) -> Read:
    """An answer by its bounds; raise ControllerTrouble for one that is none."""
    try:
        return answer.model_validate_json(text)
    except (ValidationError, RecursionError):
        raise ControllerTrouble(*NONSENSE) from None


def exchanged(port: int, method: str, path: str, body: dict[str, Any] | None, token: str) -> tuple[int, bytes]:
    """Status and body of one request; raise TimeoutError, OSError, OverflowError, or a ProtocolError of h11."""
    until = monotonic() + PATIENCE_S
    sent = b"" if body is None else json.dumps(body).encode()
    headers = [
        ("Host", f"127.0.0.1:{port}"),
        ("Content-Type", "application/json"),
        ("Content-Length", str(len(sent))),
        ("Authorization", f"Bearer {token}"),
        ("Connection", "close"),
    ]
    wire = h11.Connection(h11.CLIENT)
    with socket.create_connection(("127.0.0.1", port), PATIENCE_S) as line:
        events = (h11.Request(method=method, target=path, headers=headers), h11.Data(data=sent), h11.EndOfMessage())
        line.sendall(b"".join(wire.send(event) or b"" for event in events))
        status, text = 0, bytearray()
        while True:
            event = wire.next_event()
            if event is h11.NEED_DATA:
                line.settimeout(max(0.001, until - monotonic()))
                wire.receive_data(line.recv(PART))
                if monotonic() > until:
                    raise TimeoutError
            elif isinstance(event, h11.Response):
                status = event.status_code
            elif isinstance(event, h11.Data):
                text += event.data
                if len(text) > MOST_ANSWER:
                    raise OverflowError(len(text))
            elif not isinstance(event, h11.InformationalResponse):
                return status, bytes(text)


def refusal(text: bytes) -> str:
    """Why a controller refused, in its own words."""
    try:
        why = str(json.loads(text[:2000])["error"])
    except (ValueError, KeyError, TypeError, RecursionError):
        return "no reason"
    return "".join(letter for letter in why if letter.isprintable())[:120]
