"""References: statements about which board may stand in for which."""
