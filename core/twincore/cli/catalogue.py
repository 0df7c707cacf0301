"""The calls on a folder of documents: recognise and choose."""

import argparse
from collections.abc import Collection
from dataclasses import asdict
from functools import partial
from pathlib import Path
from typing import Any

from twincore import choose, profile, recognise
from twincore.choose import Statement
from twincore.cli.files import named, read, read_facts, read_record
from twincore.cli.wrong import InputError
from twincore.profile import Board, Family
from twincore.recognise import Scheme


class Catalogue:
    """Every family, board, statement and nameplate scheme in a folder and the folders below it."""

    def __init__(self, folder: str) -> None:
        self.families: dict[str, Family] = {}
        self.boards: dict[str, Board] = {}
        self.statements: list[Statement] = []
        self.schemes: list[Scheme] = []
        files: dict[str, str] = {}
        for name in _documents(folder):
            data = read(name)
            match named(name, partial(profile.open_document, data)).kind:
                case "family":
                    family = named(name, partial(profile.parse_family, data))
                    self.families[family.id] = family
                case "board":
                    board = named(name, partial(profile.parse_board, data))
                    self.boards[board.part_number], files[board.part_number] = board, name
                case "statements":
                    self.statements += named(name, partial(choose.parse_statements, data))
                case "nameplates":
                    self.schemes += named(name, partial(recognise.parse_nameplates, data))
        for number, board in self.boards.items():
            if board.family in self.families:
                named(files[number], partial(profile.check_board_in_family, board, self.families[board.family]))

    def about(self, boards: Collection[str]) -> list[Statement]:
        """The statements that name one of these boards."""
        wanted = set(boards)
        return [
            s for s in self.statements
            if wanted & {*s.originals, s.original, s.replacement}
        ]  # fmt: skip


def _documents(folder: str) -> list[str]:
    """The documents in a folder and the folders below it."""
    if not Path(folder).is_dir():
        raise InputError(f"{folder}: expected a folder of documents")
    try:
        return [str(path) for path in sorted(Path(folder).rglob("*.json"))]
    except OSError as error:
        raise InputError(
            f"{folder}: expected a folder that stays as it is while it is read: {error.strerror}"
        ) from error


def add_calls(calls: Any) -> None:
    """Add these calls to the command line."""
    sub = calls.add_parser("recognise")
    sub.add_argument("--catalogue", required=True, metavar="DIR")
    sub.add_argument("--marking", default="", metavar="TEXT", help="what was read; several with , between them")
    sub.add_argument("--plate", default="", metavar="TEXT", help="a machine's number, decoded by every scheme")
    sub.set_defaults(call=_recognise)
    sub = calls.add_parser("choose")
    sub.add_argument("--catalogue", required=True, metavar="DIR")
    sub.add_argument("--original", required=True, metavar="PN")
    sub.add_argument("--found", metavar="FILE", help="settings record of the original; factory settings without it")
    sub.add_argument("--facts", metavar="FILE", help="facts about the machine")
    sub.set_defaults(call=_choose)


def _recognise(args: argparse.Namespace) -> dict[str, Any]:
    catalogue = Catalogue(args.catalogue)
    if not args.marking.strip() and not args.plate.strip():
        raise InputError("--marking: expected what is printed on the board, or --plate with the machine's number")
    printed = [(b.part_number, text) for b in catalogue.boards.values() for text in (b.part_number, *b.also_marked)]
    hits = recognise.hits(args.marking, printed)
    plates = recognise.read_plates(args.plate, catalogue.schemes) if args.plate.strip() else []
    return {
        "hits": [{"part_number": hit.part_number, "readings": [asdict(each) for each in hit.readings]} for hit in hits],
        "plates": [{**asdict(plate), "ok": plate.ok} for _, plate in plates],
    }


def _choose(args: argparse.Namespace) -> dict[str, Any]:
    catalogue = Catalogue(args.catalogue)
    original = catalogue.boards.get(args.original)
    if original is None:
        raise InputError(f"{args.catalogue}: expected a board {args.original}")
    family = catalogue.families.get(original.family)
    if family is None:
        raise InputError(f"{args.catalogue}: expected a family {original.family}")
    facts = read_facts(args.facts) if args.facts else {}
    found = read_record(args.found, original) if args.found else profile.as_shipped(original)
    ways = choose.find_ways(original.part_number, catalogue.about, facts)
    machine = choose.Machine(choose.fitting_of(original.document), family, facts)
    candidates = [
        choose.judge_candidate(
            machine, choose.fitting_of(board.document), ways.to.get(number),
            choose.check_twin(original, found, board, family, {}), None,
        )
        for number, board in catalogue.boards.items()
        if board.family == family.id and number != original.part_number
    ]  # fmt: skip
    return {
        "candidates": [_candidate(each) for each in choose.ranked(candidates)],
        "without_profile": sorted(set(ways.to) - set(catalogue.boards)),
        "other_ways": [choose.as_json(each) for each in ways.others],
    }


def _candidate(candidate: choose.Candidate) -> dict[str, Any]:
    return {
        "part_number": candidate.part_number,
        "verdict": candidate.verdict,
        "closeness": candidate.closeness,
        "minutes": candidate.minutes,
        "criteria": {
            cell.criterion: {
                "verdict": cell.verdict,
                "reasons": [{"code": r.code, "verdict": r.verdict, **r.data} for r in cell.reasons],
            }
            for cell in candidate.cells
        },
        "questions": [{"fact": q.fact, "wanted": q.wanted, "unit": q.unit} for q in candidate.questions],
    }
