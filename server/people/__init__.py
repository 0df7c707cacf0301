"""People, depots, sign-in."""
