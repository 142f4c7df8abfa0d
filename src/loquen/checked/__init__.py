"""What was stored or sent, checked against the shapes of its root before the core sees it; and in words what is wrong with it."""
