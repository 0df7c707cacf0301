"""The catalogue: families and boards, with revisions that never change."""
