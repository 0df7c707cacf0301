"""What a row of a setting table says besides its positions, in words."""

from twincore.settings import ChartRow


def row_notes(row: ChartRow) -> list[str]:
    """What a row notes, each under its heading."""
    return [f"{heading}: {text}" for heading, text in row.notes.items()]
