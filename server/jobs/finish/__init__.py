"""The end of a job: fit, prove, hand over, and what is known of it afterwards."""
