"""The job itself: physics, plans, figures and checks. Knows no web and no database."""
