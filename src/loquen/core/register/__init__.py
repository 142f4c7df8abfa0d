"""Who lives where: counts replayed, growth against what is expected, survival, and how many to buy."""
