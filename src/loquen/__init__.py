"""Loquen: planning, checking and keeping freshwater animal systems."""
