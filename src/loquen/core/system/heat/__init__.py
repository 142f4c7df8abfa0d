"""Losses, heaters, failures, energy and light."""
