"""Serving on this machine: the port, the guard at the door, the pages' files, and the API behind them."""
