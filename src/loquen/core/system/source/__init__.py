"""The water that comes in, what is made of it, and where the tank settles."""
