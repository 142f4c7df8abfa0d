"""Rooms: kept as documents, computed as drafts with the systems that stand in them."""
