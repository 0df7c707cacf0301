"""What the pages of a job ask for, answered without the depot's server, in the same bytes."""

import json
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from urllib.parse import parse_qsl

from pydantic import ValidationError

from twincore.errors import TwinError
from twincore.job import FIRST
from twincore.job.case import Case
from twincore.job.shared.comparison import comparison_of
from twincore.job.steps.prove import runs_in_order
from twinshown.boards.view import between_shown
from twinshown.comparison.playing import play
from twinshown.comparison.scenarios import checked_scenario
from twinshown.comparison.schemas import ScenarioGiven
from twinshown.paging import Paging, page_of
from twinshown.refusals import Faulty, NotThere, Refused, problem_body, refused_as
from twinshown.rendering import rendered
from twinshown.sheet import needs
from twinshown.sheet.compared import comparison_shown
from twinshown.sheet.view import entry_shown, sheet_shown
from twinshown.steps.carry_over.view import leaflet_shown, presses_shown, wiring_shown
from twinshown.steps.choose.view import alternatives_shown, take_along
from twinshown.steps.fit.panels import panel_now, slips_of
from twinshown.steps.fit.schemas import ActionsGiven, SlipGiven
from twinshown.steps.fit.view import fitting_shown
from twinshown.steps.hand_over.view import Handing, hand_over_shown
from twinshown.steps.make_safe.view import make_safe_shown
from twinshown.steps.prove.view import measured_shown, proving_shown
from twinshown.steps.recognise.view import machine_shown
from twinshown.steps.record.view import record_shown, traces_shown
from twinshown.steps.rule_out.view import rule_out_shown
from twinshown.with_you.taken import TakenJob, entry_id
from twinshown.words.costs import costs_shown
from twinshown.words.entries import changes_words
from twinshown.words.schemas import ChangesGiven


class NotAlong(Refused):
    """What only the depot's server knows or does."""

    status, title = 503, "Not without a connection"


@dataclass(frozen=True, slots=True)
class Asked:
    """A question: about which sheet, with what in its address and its body."""

    taken: TakenJob
    board: str
    query: Mapping[str, str]
    body: Any
    now: datetime

    @property
    def case(self) -> Case:
        """The sheet asked about."""
        return self.taken.case(self.board)

    def case_where(self, need: Callable[[Any], None]) -> Case:
        """The sheet asked about, as far as the job must have come."""
        case = self.case
        need(case.state)
        return case

    @property
    def looked_up(self) -> Mapping[str, Any]:
        """What was looked up when the job was taken along."""
        found: Mapping[str, Any] = self.taken.document["looked_up"]
        return found

    def paging(self) -> Paging:
        """Which page of a list."""
        return Paging(**{name: self.query[name] for name in ("page", "size") if name in self.query})  # type: ignore[arg-type] # read as numbers


@dataclass(frozen=True, slots=True)
class Answer:
    """An answer of a status, as JSON."""

    status: int
    body: str


ADDRESS = re.compile(r"/api/jobs/(?P<job>[0-9a-f-]{36})(\.(?P<board>[1-6]))?(/(?P<part>.*))?")


def answer(taken: TakenJob, method: str, address: str, body: str, now: datetime) -> Answer:
    """What an address of a job answers; `body` is the JSON that is sent along, `now` the time by the depot's clock."""
    return told(lambda: _answered(taken, method, address, body, now))


def told(work: Callable[[], Any]) -> Answer:
    """What came of some work, or why it was refused, as the depot's server answers."""
    try:
        return Answer(200, rendered(work()))
    except ValidationError as error:
        faults = [{"place": ".".join(map(str, each["loc"])), "expected": each["msg"]} for each in error.errors()]
        refused: Refused = Faulty("The request does not have the form expected.")
        refused.extra = {"faults": faults}
    except TwinError as error:
        refused = refused_as(error)
    except Refused as error:
        refused = error
    return Answer(refused.status, rendered(problem_body(refused)))


def _answered(taken: TakenJob, method: str, address: str, body: str, now: datetime) -> Any:
    path, _, query = address.partition("?")
    found = ADDRESS.fullmatch(path)
    if found is None or found["job"] != taken.id:
        raise NotThere("This is not a part of the job that was taken along.")
    part, board = found["part"] or "", found["board"] or FIRST
    asked = Asked(taken, board, dict(parse_qsl(query)), json.loads(body) if body else None, now)
    if (how := PARTS.get((method, part))) is not None:
        return how(asked)
    then = taken.document["answers"].get(address.removeprefix(f"/api/jobs/{taken.id}"))
    if method == "GET" and then is not None:
        return then
    raise NotAlong("This is looked up at the depot. Ask again once there is a connection.")


def _sheet(asked: Asked) -> Any:
    return sheet_shown(asked.case, asked.taken.head(asked.board))


def _entries(asked: Asked) -> Any:
    nodes, paging = asked.taken.entries[::-1], asked.paging()
    page = nodes[paging.start : paging.start + paging.size]
    shown = [entry_shown(each, entry_id(each), datetime.fromisoformat(each["at"]), asked.case) for each in page]
    return page_of(shown, len(nodes), paging)


def _board(side: str) -> Callable[[Asked], Any]:
    def shown(asked: Asked) -> Any:
        key = asked.taken.holds(asked.board)[side]
        if key is None:
            raise Refused(f"This job has no {side} yet.")
        return asked.taken.document["boards"][key]["shown"]

    return shown


def _rule_out(asked: Asked) -> Any:
    return rule_out_shown(asked.case_where(needs.kind_known))


def _record(asked: Asked) -> Any:
    return record_shown(asked.case_where(needs.original_known), asked.looked_up["ports"]["original"])


def _fitting(asked: Asked) -> Any:
    case, looked_up = asked.case_where(needs.planned), asked.looked_up
    name = case.state["replacement"]
    alike = looked_up["alike"].get(name, [])
    return fitting_shown(case, looked_up["ports"]["replacement"], alike, lambda: looked_up["leaflets"].get(name, []))


def _panel(asked: Asked) -> Any:
    given = ActionsGiven.model_validate(asked.body)
    return panel_now(asked.case_where(needs.planned), given.panel, given.actions)


def _slips(asked: Asked) -> Any:
    given = SlipGiven.model_validate(asked.body)
    return slips_of(asked.case_where(needs.planned), given.panel, given.actions, given.seen)


def _runs(asked: Asked) -> Any:
    case, paging = asked.case_where(needs.planned), asked.paging()
    names = runs_in_order(case)[::-1]
    return page_of(measured_shown(case, names[paging.start : paging.start + paging.size]), len(names), paging)


def _costs(asked: Asked) -> Any:
    name = asked.query.get("part_number") or None
    return costs_shown(asked.case.state, asked.taken.head().rules.assumptions, asked.looked_up["offers"], name)


def _hand_over(asked: Asked) -> Any:
    case, taken = asked.case_where(needs.ending), asked.taken
    since = len(taken.entries) > len(taken.document["entries"])
    # the seal is made of entries as the depot chains them: what waits here is in none yet
    digest = "" if since else taken.document["digest"]
    closed = taken.closed_at is not None
    handing = Handing(taken.head().rules, closed, asked.looked_up["offers"], taken.reasons(), digest)
    return hand_over_shown(case, handing, taken.person["id"])


def _play(asked: Asked) -> Any:
    comparison = comparison_of(asked.case_where(needs.both_chosen))
    given = ScenarioGiven.model_validate(asked.body)
    return play(comparison, checked_scenario(given, comparison.family))


PARTS: Mapping[tuple[str, str], Callable[[Asked], Any]] = {
    ("GET", ""): _sheet,
    ("GET", "entries"): _entries,
    ("POST", "entries/words"): lambda asked: changes_words(asked.case, ChangesGiven.model_validate(asked.body)),
    ("GET", "boards/original"): _board("original"),
    ("GET", "boards/replacement"): _board("replacement"),
    ("GET", "between"): lambda asked: between_shown(asked.case),
    ("GET", "comparison"): lambda asked: comparison_shown(
        asked.case_where(needs.both_chosen), asked.taken.head().rules
    ),
    ("POST", "play"): _play,
    ("GET", "rule-out"): _rule_out,
    ("GET", "machine"): lambda asked: machine_shown(asked.case),
    ("GET", "alternatives"): lambda asked: alternatives_shown(asked.case),
    ("GET", "take-along"): lambda asked: take_along(asked.case_where(needs.both_known)),
    ("GET", "costs"): _costs,
    ("GET", "make-safe"): lambda asked: make_safe_shown(asked.case, asked.looked_up["as_before"], asked.now),
    ("GET", "record"): _record,
    ("GET", "traces"): lambda asked: traces_shown(asked.case_where(needs.original_known)),
    ("GET", "wiring"): lambda asked: wiring_shown(asked.case_where(needs.both_known)),
    ("GET", "leaflet"): lambda asked: leaflet_shown(asked.case_where(needs.both_known)),
    ("GET", "presses"): lambda asked: presses_shown(asked.case_where(needs.both_known)),
    ("GET", "fitting"): _fitting,
    ("POST", "panel"): _panel,
    ("POST", "panel/slips"): _slips,
    ("GET", "proving"): lambda asked: proving_shown(
        asked.case_where(needs.ending), asked.looked_up["ports"]["replacement"]
    ),
    ("GET", "runs"): _runs,
    ("GET", "hand-over"): _hand_over,
}
"""What is worked out of a job's entries and boards, by method and part of the address."""
