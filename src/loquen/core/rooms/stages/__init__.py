"""The stages of a room: where tanks stand, what zones give, when they run, what that does, how it drains, what it costs."""
