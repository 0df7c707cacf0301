"""Measure: what a reading should be, and whether it is."""

from twincore.measure.bus import Termination, count_terminators, terminated_band
from twincore.measure.contacts import ContactRating, designated_rating, is_designation
from twincore.measure.judging import Band, Judgement, Side, judge, judge_beyond, reading_words
from twincore.measure.quantities import closed_band, heater_ohm, insulation_band, resistance_ohm
from twincore.measure.sensors import (
    Curve,
    beta_curve,
    platinum_curve,
    platinum_tolerance_c,
    steinhart_hart_curve,
    table_curve,
)
from twincore.measure.stored_energy import StoredEnergy, discharge_s, largest_bleed_kohm, stored_energy
from twincore.measure.supply import control_band, is_class_2, supply_band
from twincore.measure.wire import (
    WireJudged,
    ampacity_a,
    area_ohm_per_km,
    gauge_ampacity_a,
    gauge_area_mm2,
    gauge_diameter_mm,
    gauge_ohm_per_km,
    judge_wire,
    voltage_drop_v,
)

__all__ = [
    "Band",
    "ContactRating",
    "Curve",
    "Judgement",
    "Side",
    "StoredEnergy",
    "Termination",
    "WireJudged",
    "ampacity_a",
    "area_ohm_per_km",
    "beta_curve",
    "closed_band",
    "control_band",
    "count_terminators",
    "designated_rating",
    "discharge_s",
    "gauge_ampacity_a",
    "gauge_area_mm2",
    "gauge_diameter_mm",
    "gauge_ohm_per_km",
    "heater_ohm",
    "insulation_band",
    "is_class_2",
    "is_designation",
    "judge",
    "judge_beyond",
    "judge_wire",
    "largest_bleed_kohm",
    "platinum_curve",
    "platinum_tolerance_c",
    "reading_words",
    "resistance_ohm",
    "steinhart_hart_curve",
    "stored_energy",
    "supply_band",
    "table_curve",
    "terminated_band",
    "voltage_drop_v",
]
