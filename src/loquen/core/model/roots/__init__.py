"""What a document describes: a plan, a room, a venture; what contradicts itself in one, and old ones brought forward."""
