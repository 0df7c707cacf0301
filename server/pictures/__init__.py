"""Pictures: checked and kept, and the print in them read."""
