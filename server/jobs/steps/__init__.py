"""The nine steps as the API shows them: each in a room of its own, none reaching into another."""
