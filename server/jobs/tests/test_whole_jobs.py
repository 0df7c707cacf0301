"""Whole jobs of every kind, each to its closed papers, which a second program reads: the PDFs' text, the entries and the boards' own
documents, nothing else. It finds nothing missing, wrong or contradicting.

What it compares, of every job:
- each wire that was recorded: its old place, tag and colour; a new place that carries the same signal by the new board's document,
  and that no other tag claims; or that it was tied back, on the cabinet label too;
- each plug that went across complete; each part that was moved; each piece of the kit that was counted;
- each setting as it was read back, on sheet and label; each element of the old board as it was read;
- what the old board knew, with its value or as not known;
- how the new board was listed, with the source; where the old board went; each line that was looked at, and none that this machine
  does not have;
- what is called the same or different, and what the twin check says, as in the other test of papers.
"""

import json
import os
import re
from collections import Counter
from itertools import groupby, pairwise
from random import Random
from typing import Any
from uuid import uuid4

from catalogue.models import Board
from jobs.models import Entry, Job
from jobs.tests.test_papers_true import Reader, pages
from jobs.tests.whole import Technician
from jobs.tests.world import WorldTestCase

OF_EACH_KIND = 20 if os.environ.get("TWIN_LONG") else 1
WITH_PROFILE = Board.objects.filter(current__isnull=False, depot__isnull=True)


class WholeJobs(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in()

    def test_every_kind_of_job_ends_in_papers_in_which_nothing_is_missing_or_wrong(self) -> None:
        met: Counter[str] = Counter()
        numbers = sorted(WITH_PROFILE.values_list("family__code", "part_number"))
        for family, rows in groupby(numbers, key=lambda row: row[0]):
            boards = [number for _, number in rows]
            for turn in range(OF_EACH_KIND):
                rng = Random(f"{family} {turn}")
                rich = [each for each in boards if self.rich(each)] or boards
                for kind, among in (("rich", rich), ("any", boards), ("same", boards)):
                    if kind == "same" and turn == 0 and family[0] > "m":
                        continue  # half of them are enough where there is little time
                    with self.subTest(family=family, turn=turn, kind=kind):
                        met += self.held(self.closed(rng, rng.choice(among), kind == "same"))
        # the second program read something of every kind
        for kind in ("wire", "tied back", "complete", "setting", "listed", "kept", "absent"):
            self.assertTrue(met[kind], (kind, met))

    def rich(self, number: str) -> bool:
        """Whether a board remembers something, or parts of it move."""
        document = WITH_PROFILE.get(part_number=number).current.document  # type: ignore[union-attr] # filtered
        return bool({"remembers", "moves"} & set(json.loads(document)))

    def closed(self, rng: Random, original: str, same: bool) -> Job:
        opened = self.post("jobs", {"id": str(uuid4()), "machine": f"Machine {rng.randrange(9999)}"})
        worker = Technician(self, Job.objects.get(pk=opened["id"]), rng)
        worker.must("confirmed.rule_out", {"note": "scorched", "end": "condemned"})
        worker.must("original", original)
        if same:
            worker.must("replacement", original, reason="the same again")
        worker.finish()
        if worker.brought:
            # nothing else may go in: the same again
            worker.brought = None
            worker.must("replacement", original, reason="the same again")
            worker.finish()
        self.assertIsNotNone(worker.job.closed_at)
        return worker.job

    def held(self, job: Job) -> Counter[str]:
        """Every paper of a closed job against its entries and documents."""
        papers = Papers(self, job)
        for check in (papers.wires, papers.plugs, papers.settings, papers.choice, papers.known, papers.looked_at):
            check()
        for each in papers.hold():
            papers.met[each] += 1
        return papers.met


class Papers(Reader):
    """The papers of one job, and what was said on it, read from the entries one by one."""

    def __init__(self, test: WorldTestCase, job: Job) -> None:
        super().__init__(test, job)
        self.met: Counter[str] = Counter()
        self.pages = {
            name: ["".join(page.split()) for page in pages(self.printed(name))]
            for name in ("sheet", "label", "customer")
        }
        self.said: dict[str, Any] = {}
        for entry in Entry.objects.filter(job=job).order_by("number"):
            self.said[entry.target] = entry.after
        self.signals = [
            {
                f"{plug['id']}.{pin['pin']}": pin.get("signal")
                for plug in document.get("connectors", ())
                for pin in plug["pins"]
            }
            for document in (self.old, self.new)
        ]

    def of(self, kind: str) -> dict[str, Any]:
        """What was said last of everything of a kind, and not taken back."""
        named = {
            target.partition(".")[2]: after for target, after in self.said.items() if target.startswith(f"{kind}.")
        }
        return {name: after for name, after in named.items() if after is not None}

    def told(self, words: str, paper: str = "sheet") -> None:
        sought = "".join(words.split())
        printed = self.pages[paper]
        # a sentence may go on over the page; what is drawn on a page, and its number, come last
        over = any(
            sought[:cut] in one and other.startswith(sought[cut:])
            for one, other in pairwise(printed)
            for cut in range(1, len(sought))
        )
        self.test.assertTrue(over or any(sought in each for each in printed), (self.job.number, paper, words, printed))

    def wires(self) -> None:
        old, new = self.signals
        lines = {line["was"].split()[0]: line for line in self.sheet["work"]["wires"]}
        for wire in self.of("wire").values():
            place = f"{wire['connector']}.{wire['pin']}"
            line = lines[place]
            self.told(place)
            self.told(wire["tag"])
            if not line["now"]:
                self.told(place, "label")
                self.met["tied back"] += 1
                continue
            now = line["now"].split()[0]
            if old[place] is not None and self.old["part_number"] != self.new["part_number"]:
                self.test.assertEqual(new[now], old[place], (self.job.number, line))
            self.told(now)
            self.met["wire"] += 1

    def plugs(self) -> None:
        for name, way in self.of("plug").items():
            if way == "whole":
                self.told(f"{name} complete")
                self.met["complete"] += 1
        for item, count in self.of("kit").items():
            if count:
                self.told(item)
        for part in self.old.get("moves", ()):
            self.told(part["what"])

    def settings(self) -> None:
        left = self.left
        for name, read in self.of("readback").items():
            self.test.assertEqual(left[name], read["value"], (self.job.number, name))
            self.told(name)
            self.told(name, "label")
            self.met["setting"] += 1
        for name, value in self.of("found").items():
            self.test.assertEqual(self.sheet["original"]["positions"][name], value, (self.job.number, name))

    def choice(self) -> None:
        self.told(self.said["old_board"]["way"])
        entry = Entry.objects.filter(job=self.job, target="replacement").latest("number")
        stood = next(
            (each for each in entry.adds["choice"]["alternatives"] if each["part_number"] == entry.after), None
        )
        if stood is None or entry.after == self.old["part_number"]:
            return
        for source in stood["listed"]["sources"] if stood["listed"] else ():
            self.told(source)
            self.met["listed"] += 1
        facts = {name: said["value"] for name, said in self.job.state["facts"].items()}
        for fact, wanted in stood["listed"]["conditions"] if stood["listed"] else ():
            if fact not in facts:
                self.told("condition not checked")
            elif not isinstance(wanted, dict | list) and wanted != facts[fact]:
                self.told("condition not met")
            self.met["condition"] += 1

    def known(self) -> None:
        said = self.of("kept")
        for each in self.old.get("remembers", ()):
            self.told(each["what"])
            self.told(said.get(each["id"], "not known"))
            self.met["kept"] += each["id"] in said

    def looked_at(self) -> None:
        for check in self.test.get(f"jobs/{self.job.pk}/proving")["checks"]:
            said = self.of("check").get(check["id"])
            if said and said.get("absent"):
                self.told(f"{check['words']}: not on this machine")
                found_good = "".join(self.pages["customer"]).lower()
                self.test.assertNotRegex(found_good, f"[:;]{re.escape(''.join(check['words'].lower().split()))}")
                self.met["absent"] += 1
            elif said:
                self.told(f"{check['words']}: good")
                self.told(check["words"].lower(), "customer")
