"""Feeding: foods and mixes, whose mouth they fit, a week's rota for a system, cultures, what is left uneaten."""
