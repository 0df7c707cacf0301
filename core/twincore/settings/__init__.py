"""Settings: what positions mean, and which positions of another board mean the same."""

from twincore.settings.acting import Act, acting, acts_of, at_rest, resting
from twincore.settings.alternatives import same_functions
from twincore.settings.carry import Carried, CarriedFunction, carry, judge, met_wishes, wanted_functions
from twincore.settings.decode import Decoded, decode, decode_function
from twincore.settings.mattering import matters
from twincore.settings.schools import (
    SCHOOLS,
    ByLearning,
    ByTable,
    ChartRow,
    Copied,
    School,
    chart_points,
    chart_rows,
    copy_positions,
    off_own_table,
    set_by_learning,
    set_by_table,
)
from twincore.settings.trimmer import Interpolated, TrimmerReading, interpolate, read_angle
from twincore.settings.unreadable import UnreadablePoint, unreadable_points

__all__ = [
    "SCHOOLS",
    "Act",
    "ByLearning",
    "ByTable",
    "Carried",
    "CarriedFunction",
    "ChartRow",
    "Copied",
    "Decoded",
    "Interpolated",
    "School",
    "TrimmerReading",
    "UnreadablePoint",
    "acting",
    "acts_of",
    "at_rest",
    "carry",
    "chart_points",
    "chart_rows",
    "copy_positions",
    "decode",
    "decode_function",
    "interpolate",
    "judge",
    "matters",
    "met_wishes",
    "off_own_table",
    "read_angle",
    "resting",
    "same_functions",
    "set_by_learning",
    "set_by_table",
    "unreadable_points",
    "wanted_functions",
]
