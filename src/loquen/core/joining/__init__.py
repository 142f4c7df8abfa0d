"""Joining those who live there: who goes in when, how large newcomers may be, what is done on the day."""
