"""Documents of the product: families, boards, settings records and scenarios, parsed and checked."""

from twincore.profile.board import Board, Chart, parse_board
from twincore.profile.document import LARGEST_BYTES, MOST_VALUES, Document, dump, open_document, parse_facts
from twincore.profile.elements import Coding, Element, Point
from twincore.profile.extras import register_words
from twincore.profile.facts import ORIGINAL
from twincore.profile.family import Family, parse_family
from twincore.profile.fit import check_board_in_family, check_layouts_agree, warnings_of
from twincore.profile.function_def import FunctionDef
from twincore.profile.functions import FunctionMap, Row
from twincore.profile.hanging import Hanging, hanging_of
from twincore.profile.kinds import KINDS, WHEEL_MASK, Kind
from twincore.profile.record import Record, as_shipped, factory_record, parse_record, written_positions
from twincore.profile.scenario import Scenario, Step, parse_scenario
from twincore.profile.standing import Worth, doubtful_elements, weakest_worth, worth_of
from twincore.profile.trace import Seen, Trace, build_trace, parse_trace
from twincore.profile.values import Number, Value

__all__ = [
    "KINDS",
    "LARGEST_BYTES",
    "MOST_VALUES",
    "ORIGINAL",
    "WHEEL_MASK",
    "Board",
    "Chart",
    "Coding",
    "Document",
    "Element",
    "Family",
    "FunctionDef",
    "FunctionMap",
    "Hanging",
    "Kind",
    "Number",
    "Point",
    "Record",
    "Row",
    "Scenario",
    "Seen",
    "Step",
    "Trace",
    "Value",
    "Worth",
    "as_shipped",
    "build_trace",
    "check_board_in_family",
    "check_layouts_agree",
    "doubtful_elements",
    "dump",
    "factory_record",
    "hanging_of",
    "open_document",
    "parse_board",
    "parse_facts",
    "parse_family",
    "parse_record",
    "parse_scenario",
    "parse_trace",
    "register_words",
    "warnings_of",
    "weakest_worth",
    "worth_of",
    "written_positions",
]
