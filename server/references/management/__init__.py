"""Commands that run on the server."""
