"""Two boards side by side: carry-over, copying, twin check, scenarios."""
