"""What is kept and can not be read: shown where it belongs, put right or set aside, so that it hides nothing else."""
