"""HTTP on one socket, with a limit to how long a request may take to arrive: no socket may hold the server up."""

import socket
from asyncio import TimerHandle, Transport
from typing import Any, cast

import h11
from uvicorn.protocols.http.h11_impl import H11Protocol

SLOWEST_REQUEST_S = 15.0
"""From a connection's (or a following request's) first moment until the request is there whole."""


class TimedProtocol(H11Protocol):
    """HTTP on one socket; a request that does not come to its end in time ends the connection."""

    deadline: TimerHandle | None = None

    def connection_made(self, transport: Any) -> None:
        super().connection_made(cast(Transport, transport))
        # Head and body go out as two: without this the second waits for the first to be confirmed, forty milliseconds.
        if (own := transport.get_extra_info("socket")) is not None:
            own.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
        self.deadline = self.loop.call_later(SLOWEST_REQUEST_S, self.transport.abort)

    def data_received(self, data: bytes) -> None:
        if self.deadline is None:
            self.deadline = self.loop.call_later(SLOWEST_REQUEST_S, self.transport.abort)
        super().data_received(data)
        if self.conn.their_state is not h11.SEND_BODY and not self.conn.trailing_data[0]:
            self.in_time()

    def connection_lost(self, exc: Exception | None) -> None:
        self.in_time()
        super().connection_lost(exc)

    def in_time(self) -> None:
        if self.deadline is not None:
            self.deadline.cancel()
            self.deadline = None
