"""What more than one step shows, in words and data."""
