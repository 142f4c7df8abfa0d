"""Breeding: ventures kept and computed, compared in a tank, assigned to a rack."""
