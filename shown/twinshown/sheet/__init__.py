"""The sheet of a job: what stands on every page of it."""
