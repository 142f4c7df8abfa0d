"""What happened: the ledger of events, and the views of it that the register and a changer have."""
