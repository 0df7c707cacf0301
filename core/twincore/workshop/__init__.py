"""The workshop: boards entered by people, from values as they are written to what a new revision changes."""

from twincore.workshop.borrowing import meanings_from, usual_behaviour
from twincore.workshop.boxes import Box, Packed, box_document, open_box
from twincore.workshop.changes import Changes, FunctionChange, Moved, changes_between, traces_against
from twincore.workshop.chart_checks import Finding, check_chart
from twincore.workshop.charts import (
    Column,
    Role,
    cells_of,
    chart_node,
    columns_of,
    guessed_columns,
    new_fact,
    read_condition,
)
from twincore.workshop.checks import findings
from twincore.workshop.draft import (
    Draft,
    document_bytes,
    edited,
    elements_of,
    on_ways,
    opened,
    same_json,
)
from twincore.workshop.grids import Cell, Grid, combinations_of, filled_by_rule, grid_of, node_of
from twincore.workshop.joining import Apart, apart
from twincore.workshop.merging import merged_family
from twincore.workshop.sentences import Arrow, Names, StateCells, names_of, renamed, state_cells, state_node
from twincore.workshop.uses import Taught, found_record, taught_by
from twincore.workshop.values import read_position, read_seconds, read_value, value_text

__all__ = [
    "Apart",
    "Arrow",
    "Box",
    "Cell",
    "Changes",
    "Column",
    "Draft",
    "Finding",
    "FunctionChange",
    "Grid",
    "Moved",
    "Names",
    "Packed",
    "Role",
    "StateCells",
    "Taught",
    "apart",
    "box_document",
    "cells_of",
    "changes_between",
    "chart_node",
    "check_chart",
    "columns_of",
    "combinations_of",
    "document_bytes",
    "edited",
    "elements_of",
    "filled_by_rule",
    "findings",
    "found_record",
    "grid_of",
    "guessed_columns",
    "meanings_from",
    "merged_family",
    "names_of",
    "new_fact",
    "node_of",
    "on_ways",
    "open_box",
    "opened",
    "read_condition",
    "read_position",
    "read_seconds",
    "read_value",
    "renamed",
    "same_json",
    "state_cells",
    "state_node",
    "taught_by",
    "traces_against",
    "usual_behaviour",
    "value_text",
]
