"""Figures and checks of one system: the engine and one file per stage of the job."""
