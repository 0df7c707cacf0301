"""Service ports of boards: read, written, watched."""
