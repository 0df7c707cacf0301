"""Choose: what its page shows of the board that was chosen."""
