"""Rule out."""
