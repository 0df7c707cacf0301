"""What stands in a job, in which order its work goes, and what one entry does to it."""
