"""Newcomers before they join: whose turn it is in which tub, what a tub asks each day, courses of treatment, waivers."""
