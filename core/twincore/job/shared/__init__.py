"""What the rules of several steps need of a job."""
