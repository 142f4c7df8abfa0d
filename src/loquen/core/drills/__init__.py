"""Failures tried before they happen: what breaks, and what the water does in the hours after it."""
