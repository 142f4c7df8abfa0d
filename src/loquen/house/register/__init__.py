"""The register: who lives where, what happened to them, what that changes, and what to look at before buying."""
