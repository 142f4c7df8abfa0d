"""The server's own port, opened before anything slow is loaded."""

import socket


class PortInUse(Exception):
    """Somebody else listens on the port."""

    def __init__(self, port: int) -> None:
        super().__init__(
            f"Port {port} is in use, perhaps by another Loquen. Give another one with --port, or stop that."
        )


def bound(port: int) -> socket.socket:
    """A listening socket on this machine's port; raise PortInUse."""
    ours = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    ours.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        ours.bind(("127.0.0.1", port))
        ours.listen(128)
    except OSError as fault:
        ours.close()
        raise PortInUse(port) from fault
    return ours
