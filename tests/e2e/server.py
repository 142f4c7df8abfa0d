"""The application as a process of its own on a free port, as a person would start it."""

import os
import socket
import subprocess
import sys
import time

import httpx

from tests import noon

NONE_KEPT = httpx.Limits(max_keepalive_connections=0)
"""A connection that is kept may be closed by the server in the moment in which it is used again."""


ENVIRONMENT = {**os.environ, "PYTHONPATH": "src:."}


class Server:
    def __init__(self, database, nursery=None):
        self.database = database
        self.nursery = nursery
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"
        self.http = httpx.Client(base_url=self.url, trust_env=False, timeout=60, limits=NONE_KEPT)
        self.process = None
        self.shift = str(noon.SHIFT.total_seconds())
        self.command = [sys.executable, "-m", "tests.e2e.begun_at_noon", self.shift]

    def begin(self, verb="demo"):
        """Start the process; it may not answer yet."""
        arguments = [verb, "--db", str(self.database), "--port", str(self.port)]
        if self.nursery is not None:
            self.process = self.nursery.born([self.shift, *arguments])
        else:
            self.process = subprocess.Popen([*self.command, *arguments], stdout=subprocess.DEVNULL, env=ENVIRONMENT)
        return self.process

    def start(self):
        self.begin()
        deadline = time.monotonic() + 60
        while time.monotonic() < deadline:
            try:
                if self.http.get("/api/library", timeout=60).status_code == 200:
                    return self
            except httpx.TransportError:
                time.sleep(0.1)
        raise TimeoutError("the server did not start")

    def kill(self):
        """End it at once, as a power cut would."""
        self.process.kill()
        self.process.wait()

    def copy_of(self, system_id):
        """A fresh copy of a demo system, for one test to work on."""
        return self.http.post(f"/api/systems/{system_id}/copy").json()["id"]

    def plan(self, system_id):
        return self.http.get(f"/api/systems/{system_id}").json()["plan"]
