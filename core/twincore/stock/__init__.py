"""Van stock: which boards to carry, so that as many failures as possible are put right at the first visit."""

from twincore.stock.changing import Change, changes
from twincore.stock.demand import expected_served
from twincore.stock.failures import Beta, drawn, prior_of
from twincore.stock.judging import Considered, pieces_that_serve
from twincore.stock.ordering import staircase
from twincore.stock.planning import Plan, curve, next_pieces, plan
from twincore.stock.served import Held, Priced, Served, parse_pieces, parse_served, parse_stock
from twincore.stock.serving import GRADES, Grade, failures_of, grade_of, kinds_of
from twincore.stock.wanted import Kind, Piece, Van, Wanted

__all__ = [
    "GRADES", "Beta", "Change", "Considered", "Grade", "Held", "Kind", "Piece", "Plan", "Priced", "Served", "Van", "Wanted", "changes",
    "curve", "drawn", "expected_served", "failures_of", "grade_of", "kinds_of", "next_pieces", "parse_pieces",
    "parse_served", "parse_stock", "pieces_that_serve", "plan", "prior_of", "staircase",
]  # fmt: skip
