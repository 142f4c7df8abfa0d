"""Feeding: the larder, a week's rota of every system, cultures, and what the log says was fed."""
