"""What is printed, and written out to be read elsewhere."""
