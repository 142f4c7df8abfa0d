"""The application's own command line, its clock moved by so many seconds: the process that browser tests talk to."""

import sys
from datetime import timedelta

from loquen.cli import app
from tests import noon

if __name__ == "__main__":
    noon.begin(timedelta(seconds=float(sys.argv.pop(1))))
    app()
