"""The call that judges one reading: measure."""

import argparse
from collections.abc import Callable
from math import isinf
from typing import Any

from twincore import measure
from twincore.cli.wrong import InputError
from twincore.measure import Band, Curve

OPTIONS: dict[str, tuple[str, ...]] = {
    "band": ("low", "high"),
    "ntc-beta": ("r25", "beta", "at"),
    "ntc-steinhart-hart": ("a", "b", "c", "at"),
    "platinum": ("r0", "at"),
    "supply": ("nominal",),
    "control": ("rated",),
    "fuse": (),
    "insulation": (),
    "bus": (),
    "stored-energy": ("capacitance_uf", "volts", "bleed_kohm"),
    "drop": ("current_a", "one_way_m", "gauge"),
    "contact": ("designation", "volts"),
}
"""What each kind needs besides the reading."""
WITHOUT_READING = ("stored-energy", "drop", "contact")


def add_calls(calls: Any) -> None:
    """Add this call to the command line."""
    sub = calls.add_parser("measure")
    sub.add_argument("kind", choices=list(OPTIONS), metavar="KIND", help=", ".join(OPTIONS))
    for name in sorted({name for names in OPTIONS.values() for name in names} - {"designation"}):
        sub.add_argument(f"--{name.replace('_', '-')}", type=float, metavar="NUMBER")
    sub.add_argument("--designation", metavar="TEXT", help="a contact's rating, such as B300")
    sub.add_argument("--reading", type=float, metavar="NUMBER")
    sub.add_argument("--uncertainty", type=float, default=0.0, metavar="NUMBER")
    sub.add_argument("--within-c", type=float, default=0.0, metavar="NUMBER", help="how well the temperature is known")
    sub.add_argument("--within", type=float, default=0.0, metavar="SHARE", help="how well the sensor is known")
    sub.add_argument("--maker-wait-s", type=float, metavar="NUMBER", help="the maker's time for stored energy")
    sub.set_defaults(call=_measure)


def _measure(args: argparse.Namespace) -> dict[str, Any]:
    missing = [name for name in OPTIONS[args.kind] if getattr(args, name) is None]
    if args.kind not in WITHOUT_READING and args.reading is None:
        missing.append("reading")
    if missing:
        raise InputError("; ".join(f"--{name.replace('_', '-')}: expected for {args.kind}" for name in missing))
    try:
        return ANSWERS[args.kind](args)
    except (ValueError, OverflowError, ZeroDivisionError) as error:
        raise InputError(f"measure {args.kind}: {error}") from error


def _judged(args: argparse.Namespace, band: Band) -> dict[str, Any]:
    found = measure.judge(args.reading, band, args.uncertainty)
    ends = {"low": band.low, "high": band.high}
    return {
        "verdict": found.verdict,
        "side": found.side or None,
        "margin": found.margin,
        "band": {name: None if isinf(value) else value for name, value in ends.items()},
    }


def _on_curve(args: argparse.Namespace, curve: Curve) -> dict[str, Any]:
    try:
        shown: float | None = round(curve.temperature_c(args.reading), 3)
    except ValueError:
        shown = None
    expected = {"expected_ohm": curve.resistance_ohm(args.at), "reads_as_c": shown}
    return _judged(args, curve.band_at(args.at, args.within_c, args.within)) | expected


def _bus(args: argparse.Namespace) -> dict[str, Any]:
    found = measure.count_terminators(args.reading, args.uncertainty)
    return _judged(args, found.judgement.band) | {"terminators": found.terminators}


def _stored_energy(args: argparse.Namespace) -> dict[str, Any]:
    found = measure.stored_energy(args.capacitance_uf, args.volts, args.bleed_kohm, args.maker_wait_s)
    return {
        "wait_s": found.wait_s, "decay_s": found.decay_s, "energy_j": found.energy_j, "charge_uc": found.charge_uc,
        "exempt": found.exempt, "within_limit": found.within_limit,
    }  # fmt: skip


def _drop(args: argparse.Namespace) -> dict[str, Any]:
    ohm = measure.gauge_ohm_per_km(int(args.gauge))
    return {"drop_v": measure.voltage_drop_v(args.current_a, args.one_way_m, ohm), "ohm_per_km": ohm}


def _contact(args: argparse.Namespace) -> dict[str, Any]:
    found = measure.designated_rating(args.designation, args.volts)
    return {"thermal_a": found.thermal_a, "make_a": found.make_a, "break_a": found.break_a}


ANSWERS: dict[str, Callable[[argparse.Namespace], dict[str, Any]]] = {
    "band": lambda args: _judged(args, Band(args.low, args.high)),
    "ntc-beta": lambda args: _on_curve(args, measure.beta_curve(args.r25, args.beta)),
    "ntc-steinhart-hart": lambda args: _on_curve(args, measure.steinhart_hart_curve(args.a, args.b, args.c)),
    "platinum": lambda args: _on_curve(args, measure.platinum_curve(args.r0)),
    "supply": lambda args: _judged(args, measure.supply_band(args.nominal)),
    "control": lambda args: _judged(args, measure.control_band(args.rated)),
    "fuse": lambda args: _judged(args, measure.closed_band()),
    "insulation": lambda args: _judged(args, measure.insulation_band()),
    "bus": _bus,
    "stored-energy": _stored_energy,
    "drop": _drop,
    "contact": _contact,
}
