"""Several boards of one machine in one job."""
