"""Two programs say it: a verdict that two boards never show anything different is checked by one that shares nothing with the search."""

import json
from typing import Any

from twincore.certificate import NotShown, check_twin
from twincore.chain import DOCUMENTS, Package
from twincore.errors import DocumentError, Fault, TwinError
from twincore.job.case import Case
from twincore.job.record.document import CERTIFICATE, folder_of
from twincore.job.record.reading import current
from twincore.job.rules.boards import names_of, turned
from twincore.job.shared.comparison import comparison_of
from twincore.job.shared.left import left_record
from twincore.job.shared.meanings import with_meanings
from twincore.profile import open_document, parse_board, parse_family

ALIKE = ("identical", "within tolerance")
"""The verdicts that a certificate can show."""


def checked_again(package: Package) -> tuple[dict[str, str], list[Fault]]:
    """What an independent checker says of the verdicts in a package, board by board, and the certificates that it refuses.

    A certificate is not believed, so no seal need cover it: it is held against the boards and settings of the record itself.
    """
    state = current(package.job.get("state") or {})
    told, faults = {}, []
    for board in names_of(state):
        folder = folder_of(board)
        verdict = turned(state, board)["verdict"]
        if folder + CERTIFICATE not in package.files:
            if verdict in ALIKE:
                told[board] = "not checked a second time: no certificate"
            continue
        wrong = _refused(package, folder, state, board)
        told[board] = f"refused: {wrong}" if wrong else "checked by a second program"
        if wrong:
            faults.append(Fault(folder + CERTIFICATE, f"expected a certificate of these boards, so set: {wrong}"))
    return told, faults


def _refused(package: Package, folder: str, state: Any, board: str) -> str:
    """Why a certificate of a package shows nothing; empty where it is accepted."""
    try:
        given = open_document(package.files[folder + CERTIFICATE], "certificate").root
        family, original, replacement = (package.files.get(folder + name) for name in DOCUMENTS)
        if family is None or original is None or replacement is None:
            return "the package has not both boards"
        case = Case(
            turned(state, board), 0, parse_family(family), parse_board(original), parse_board(replacement)
        )  # fmt: skip
        case = with_meanings(case)
        check_twin(comparison_of(case).twin(left_record(case)), given)
    except (NotShown, DocumentError, TwinError, json.JSONDecodeError) as error:
        return str(error)
    return ""
