"""Settings: what positions mean, and which positions of another board mean the same."""

from twincore.settings.carry import Carried, CarriedFunction, carry, judge, met_wishes, wanted_functions
from twincore.settings.decode import Decoded, decode
from twincore.settings.schools import Copied, chart_rows, copy_positions
from twincore.settings.unreadable import UnreadablePoint, unreadable_points

__all__ = [
    "Carried",
    "CarriedFunction",
    "Copied",
    "Decoded",
    "UnreadablePoint",
    "carry",
    "chart_rows",
    "copy_positions",
    "decode",
    "judge",
    "met_wishes",
    "unreadable_points",
    "wanted_functions",
]
