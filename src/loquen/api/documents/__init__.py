"""Documents of any root, and what each root asks beside that."""
