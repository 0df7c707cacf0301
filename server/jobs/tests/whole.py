"""A technician who knows nothing but what the pages say: does a job from where it stands to its end, and remembers what was said."""

from random import Random
from types import SimpleNamespace
from typing import Any, cast
from uuid import uuid4

from django.test import Client

from jobs.models import Job
from jobs.tests.world import Calls
from twincore.job import FIRST

POWERED = ("program", "parameter", "code")
"""Kinds of elements that only a board that answers shows."""
PLACED = ("dip", "code", "thumbwheel")
"""Kinds that are written as one text, a place each."""
MOST_TURNS = 60
"""A job that is not at its end by then goes round."""


class Stuck(AssertionError):
    """Nothing that the pages name leads any further."""


class Technician:
    """Does what the step in hand asks for, over the API; `colour` and `tag` of every wire are its own."""

    def __init__(self, test: Calls, job: Job, rng: Random, client: Client | None = None) -> None:
        self.test, self.rng, self.pk = test, rng, job.pk
        self.id = str(job.pk)
        """Of the sheet at hand: a machine may have several boards, a sheet each."""
        self.client = client or test.client
        self.brought: str | None = None
        """What a person has to bring before the job goes on, in the words of the page."""

    @property
    def job(self) -> Job:
        """As it is stored now."""
        return Job.objects.get(pk=self.pk)

    @property
    def sheet(self) -> Job:
        """The sheet at hand, for what a test says of a job."""
        return cast(Job, SimpleNamespace(pk=self.id))

    def get(self, path: str) -> Any:
        """A page of this job."""
        return self.test.get(f"jobs/{self.id}/{path}".rstrip("/"))

    def say(self, target: str, after: Any, before: Any = None, **more: Any) -> dict[str, Any]:
        """An entry; what the answer says, refused or not. What stands there already is what it is said on top of."""
        body = {"id": str(uuid4()), "target": target, "before": before, "after": after, **more}
        answer = self.client.post(f"/api/jobs/{self.id}/entries", body, content_type="application/json")
        told: dict[str, Any] = answer.json()
        self.test.assertLess(answer.status_code, 500, answer.content[:300])
        if answer.status_code == 409 and before is None and told.get("now") is not None:
            return self.say(target, after, told["now"], **more)
        return told | {"taken": answer.status_code == 200}

    def must(self, target: str, after: Any, **more: Any) -> None:
        """An entry that the pages ask for: it is taken."""
        told = self.say(target, after, **more)
        if not told["taken"]:
            raise Stuck(f"{target} = {after!r}: {told.get('detail')}")

    def finish(self) -> None:
        """To the closed job, or to a sentence that says what a person has to bring."""
        for _ in range(MOST_TURNS):
            shown = self.get("")
            if shown["closed"] or self.brought:
                return
            beside = (shown["together"] or {}).get("next")
            if beside and self._turn_to(beside):
                continue
            getattr(self, f"_{shown['step']}")(shown)
        raise Stuck(f"round and round at {shown['step']}")

    def _turn_to(self, board: str) -> bool:
        """To the sheet of the board that comes next; whether that is another one."""
        was, self.id = self.id, str(self.pk) if board == FIRST else f"{self.pk}.{board}"
        return self.id != was

    def confirm(self, step: str, note: str = "") -> dict[str, Any]:
        """The step's end, with a reason where one is asked for."""
        told = self.say(f"confirmed.{step}", {"note": note})
        return (
            told
            if told["taken"] or note
            else self.say(f"confirmed.{step}", {"note": "seen at the machine, to be settled later"})
        )

    def _rule_out(self, shown: dict[str, Any]) -> None:
        told = self.say("confirmed.rule_out", {"note": "scorched", "end": "condemned"})
        if not told["taken"] and "why the board died" in told["detail"]:
            cause = self.get("rule-out")["causes"][0]["id"]
            self.must(f"cause.{cause}", {"note": "scorched", "cleared": True})
            self.must("confirmed.rule_out", {"note": "scorched", "end": "condemned"})

    def _recognise(self, shown: dict[str, Any]) -> None:
        self.brought = "which board it is"

    def _choose(self, shown: dict[str, Any]) -> None:
        found = [each for each in self.get("candidates")["items"] if each["part_number"] != shown["original"]]
        if not found:
            self.brought = "another board"
            return
        self.must("replacement", self.rng.choice(found)["part_number"], reason="it is on the van")

    def _make_safe(self, shown: dict[str, Any]) -> None:
        self.test.make_dead(self.sheet)

    def _record(self, shown: dict[str, Any]) -> None:
        board = self.get("boards/original")
        dead = next(each["state"] == "done" for each in shown["steps"] if each["id"] == "make_safe")
        powered = [each for each in board["elements"] if each["kind"] in POWERED]
        for element in board["elements"] if dead else powered:
            if element["id"] not in shown["found"]:
                self.must(f"found.{element['id']}", self._position(element), read_how="by eye")
        record = self.get("record")
        for each in record["remembered"]:
            if each["id"] not in shown["kept"] and self.rng.random() < 0.7:
                self.must(f"kept.{each['id']}", "0417 at night")
        for each in record["differing"]:
            self.must(f"found.{each['element']}", each["second"], before=each["first"], read_how="by eye")
        if not dead:
            self.test.make_dead(self.sheet)
            return
        self._plugs(record)
        for finding in self.get("record")["findings"]:
            if not finding["settled"]:
                self.must(
                    f"settled.{finding['place']}",
                    {"as": "no wire was there" if finding["missing"] else "machine was modified"},
                )
        if not shown["removed"]:
            for what in ("cover", "tray"):
                self.must(f"removed.{uuid4()}", {"what": what, "kind": "panel", "count": 1, "place": "front"})
        if not self.say("confirmed.record", {"note": ""})["taken"]:
            # it does not answer any more: what it knew is not known
            self.must("answers", "no")
            self.must("confirmed.record", {"note": ""})

    def _plugs(self, record: dict[str, Any]) -> None:
        for plug in record["plugs"]:
            if plug["way"] or any(pin["wires"] for pin in plug["pins"]):
                continue
            if plug["complete"] or (plug["one_by_one"] and self.rng.random() < 0.5):
                self.must(f"plug.{plug['id']}", "whole" if plug["complete"] else "one by one")
                continue
            for pin in plug["pins"]:
                wire = {
                    "connector": plug["id"],
                    "pin": pin["pin"],
                    "tag": f"{plug['id']}{pin['pin']}",
                    "colour": "brown",
                }
                self.must(f"wire.{plug['id']}-{pin['pin']}", wire)

    def _position(self, element: dict[str, Any]) -> Any:
        """How an element stands: any way that it can, here and there a place that cannot be read."""
        if element["range"]:
            steps = round((element["range"]["high"] - element["range"]["low"]) / (element["range"]["step"] or 1))
            return element["range"]["low"] + self.rng.randint(0, steps) * element["range"]["step"]
        if element["kind"] not in PLACED:
            return self.rng.choice(element["values"])
        factory = str(element["factory"])
        locked = {int(name.rpartition(".")[2]) - 1 for name in element["locked"]}
        marks = [self.rng.choice([*map(str, {"0", "1"})]) if element["kind"] == "dip" else mark for mark in factory]
        marks = [factory[n] if n in locked else mark for n, mark in enumerate(marks)]
        if self.rng.random() < 0.1:
            marks[self.rng.randrange(len(marks))] = "?"
        return "".join(marks)

    def _carry_over(self, shown: dict[str, Any]) -> None:
        for code in self.get("comparison")["codes_to_read"]:
            self.must(f"fact.{code['fact']}", {"value": code.get("example") or "A", "source": "plate"})
        for each in self.get("comparison")["disagreements"]:
            if each["id"] not in shown["decisions"]:
                self.must(f"decision.{each['id']}", self.rng.choice(self._schools()), reason="as the maker says")
        for code in self.get("comparison")["codes_to_read"]:
            read = "7" * code["places"]
            if code["fact"] == "serial":
                self.must("serial", read, reason="stands so on the plate")
            else:
                self.must(f"fact.{code['fact']}", {"value": read, "source": "plate"})
        for _ in range(5):
            told = self.say("confirmed.carry_over", {"note": ""})
            if told["taken"]:
                return
            detail = str(told["detail"])
            titles = {each["title"]: each["id"] for each in self.get("comparison")["rows"]}
            asked = [name for title, name in titles.items() if title in detail]
            if "Give a reason" in detail and asked:
                for name in asked:
                    self.must(f"reason.{name}", "the owner knows of it")
            elif "set each of them by hand" in detail or "no positions that mean" in detail:
                for element in self.get("boards/replacement")["elements"]:
                    self.must(f"override.{element['id']}", element["factory"])
            elif "Record the wires of each" in detail:
                for name, way in self.get("")["plugs"].items():
                    if way == "whole":
                        self.must(f"plug.{name}", None, before=way)
                self._plugs(self.get("record"))
                return
            else:
                raise Stuck(detail)
        raise Stuck(detail)

    def _schools(self) -> list[str]:
        return [each["id"] for each in self.get("comparison")["schools"] if each["positions"]] or ["functions"]

    def _fit(self, shown: dict[str, Any]) -> None:
        if shown["energised"] is None:
            if shown["power"] == "on":
                self.test.make_dead(self.sheet)
            self.test.put_back_on(self.sheet, "looked at, and left")
            return
        fitting = self.get("fitting")
        for look in fitting["looks"]:
            if look["key"].startswith("on ") and look["key"] not in shown["looks"]:
                self.must(f"look.{look['key']}", True)
        if fitting["learning"]:
            self.must("learned", {"cycles": 1, "shown": "End"})
        for name in fitting["by_panel"]:
            self.must(f"readback.{name}", {"value": fitting["planned"][name]}, read_how="by eye")
        for each in fitting["reenter"]:
            self.must(f"reentered.{each['id']}", each["value"] or "set anew")
        told = self.confirm("fit")
        if not told["taken"]:
            raise Stuck(str(told["detail"]))

    def _prove(self, shown: dict[str, Any]) -> None:
        plan = self.get("proving")
        for line in plan["checks"]:
            absent = self.rng.random() < 0.1
            self.must(f"check.{line['id']}", {"ok": True, **({"absent": True} if absent else {})})
        for run in plan["runs"][:1]:
            if not run["cannot"] and run["replacement"]:
                self.must(f"run.{uuid4()}", self.test.measured(self.sheet, run))
        for name, each in shown["forced"].items():
            if not each["off"]:
                said = {key: each[key] for key in ("what", "of", "time_out_s", "read") if each.get(key) is not None}
                self.must(f"forced.{name}", said | {"off": True})
        told = self.confirm("prove")
        if not told["taken"]:
            raise Stuck(str(told["detail"]))

    def _hand_over(self, shown: dict[str, Any]) -> None:
        removed = {name: each for name, each in shown["removed"].items() if not each["back"]}
        for name, each in removed.items():
            self.must(
                f"removed.{name}", {key: each[key] for key in ("what", "kind", "count", "place")} | {"back": True}
            )
        self.must("old_board", {"way": self.rng.choice(["scrap", "core return", "kept for parts"]), "note": ""})
        told = self.say("confirmed.hand_over", {"note": ""})
        if not told["taken"]:
            raise Stuck(str(told["detail"]))
