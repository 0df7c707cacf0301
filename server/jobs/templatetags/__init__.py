"""What the printed pages need beyond the template language."""
