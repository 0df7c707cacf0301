"""Match: which boards may take the original's place, and what stands between each and the original.

`match.contradictions` and `match.credence` are imported by themselves: they load large libraries.
"""

from twincore.choose.costs import ASSUMPTIONS, CostSum, Line, cost_sum
from twincore.choose.criteria import CRITERIA, Context, Criterion, Listed, listed_as
from twincore.choose.fitting import AdapterLead, Fitting, Pin, fitting_of, merged, traits_of
from twincore.choose.judged import VERDICTS, Judged, Question, Reason
from twincore.choose.kit import KitLine, devices_changed, kit_lines
from twincore.choose.matching import QUICK_LIMIT, Machine, TwinChecked, check_twin, judge_candidate, with_twin
from twincore.choose.mounting import Hole, Mounting, NewHole, Plate, best_mounting, slack_mm
from twincore.choose.ranking import Candidate, ranked
from twincore.choose.statements import (
    CHAINED,
    COLUMNS,
    RELATIONS,
    TOGETHER,
    Statement,
    as_json,
    as_row,
    from_row,
    parse_statements,
)
from twincore.choose.ways import LONGEST_CHAIN, Link, Way, Ways, find_ways

__all__ = [
    "ASSUMPTIONS",
    "CHAINED",
    "COLUMNS",
    "CRITERIA",
    "LONGEST_CHAIN",
    "QUICK_LIMIT",
    "RELATIONS",
    "TOGETHER",
    "VERDICTS",
    "AdapterLead",
    "Candidate",
    "Context",
    "CostSum",
    "Criterion",
    "Fitting",
    "Hole",
    "Judged",
    "KitLine",
    "Line",
    "Link",
    "Listed",
    "Machine",
    "Mounting",
    "NewHole",
    "Pin",
    "Plate",
    "Question",
    "Reason",
    "Statement",
    "TwinChecked",
    "Way",
    "Ways",
    "as_json",
    "as_row",
    "best_mounting",
    "check_twin",
    "cost_sum",
    "devices_changed",
    "find_ways",
    "fitting_of",
    "from_row",
    "judge_candidate",
    "kit_lines",
    "listed_as",
    "merged",
    "parse_statements",
    "ranked",
    "slack_mm",
    "traits_of",
    "with_twin",
]
