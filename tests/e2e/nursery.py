"""Servers of tests, forked off one process that has loaded the program already: each is born in a moment, and is a process of
its own, as a person would start one. How long a start takes is looked at elsewhere."""

import gc
import json
import os
import select
import signal
import subprocess
import sys
from contextlib import suppress
from datetime import timedelta


class Nursery:
    """The process that servers are forked off."""

    def __init__(self, environment):
        pipes = {"stdin": subprocess.PIPE, "stdout": subprocess.PIPE, "text": True}
        self.process = subprocess.Popen([sys.executable, "-m", "tests.e2e.nursery"], env=environment, **pipes)

    def born(self, arguments):
        """A process of the command line with these arguments, its clock moved by the first of them."""
        print(json.dumps(arguments), file=self.process.stdin, flush=True)
        return Child(int(self.process.stdout.readline()))

    def end(self):
        self.process.stdin.close()
        self.process.wait()


class Child:
    """A process that another one has started: what tests do to one of their own."""

    def __init__(self, pid):
        self.pid = pid
        self.seen = os.pidfd_open(pid)

    def kill(self):
        with suppress(ProcessLookupError):
            signal.pidfd_send_signal(self.seen, signal.SIGKILL)

    def wait(self, timeout=None):
        if not select.select([self.seen], [], [], timeout)[0]:
            raise subprocess.TimeoutExpired("server", timeout)


def live(arguments):
    """What a child does: it runs the command line, and nothing of this file."""
    from loquen.cli import app
    from tests import noon

    signal.signal(signal.SIGCHLD, signal.SIG_DFL)
    nothing = os.open(os.devnull, os.O_RDWR)
    os.dup2(nothing, 0)
    os.dup2(nothing, 1)
    shift, *command = arguments
    noon.begin(timedelta(seconds=float(shift)))
    app(command)


def main():
    from loquen.core.library.whole import shipped
    from loquen.demo import sluice_street
    from loquen.house.sheet import view

    view.view(sluice_street.long_hall(), shipped())
    gc.freeze()
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)
    for line in sys.stdin:
        pid = os.fork()
        if pid == 0:
            live(json.loads(line))
            os._exit(0)
        print(pid, flush=True)


if __name__ == "__main__":
    main()
