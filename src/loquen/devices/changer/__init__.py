"""A changer's controller: the simulated machine, the door it answers at, and Loquen's side of the wire."""
