"""The middle of a job: make safe, record, carry over."""
