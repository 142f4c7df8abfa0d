"""Documents of any root: how a house keeps, reads, judges and computes them."""
