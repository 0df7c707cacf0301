"""What is read in pictures, as it is shown."""

from twinshown.shapes import Schema


class TableRead(Schema):
    """The cells of a table in a picture, the headings first; no rows where no table is seen."""

    rows: list[list[str]]
