"""What every aggregate's answers have in common: plans, documents, words, faults."""
