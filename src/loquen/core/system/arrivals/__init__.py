"""Bags, introductions and quarantine."""
