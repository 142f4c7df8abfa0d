"""The demo room: Sluice Street, built through the same services as a person's own."""
