"""What several steps say alike, in words."""
