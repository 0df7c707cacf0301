"""The front of the job: rule out, recognise, choose."""
