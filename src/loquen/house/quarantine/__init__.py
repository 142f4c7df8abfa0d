"""Newcomers: who waits for which tub, what each tub asks, courses of treatment, and waivers."""
