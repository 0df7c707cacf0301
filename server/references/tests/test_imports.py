import csv
import io
import json
from pathlib import Path
from tempfile import mkdtemp
from typing import Any
from unittest.mock import patch
from uuid import UUID, uuid4

from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import override_settings

from jobs.tests.world import NOW, WorldTestCase
from people.models import Person
from references import actions, importing
from references.models import Import, Statement
from twincore.choose import COLUMNS

GOOD = "id,original,replacement,relation,if,needs\nx-1,A-1,B-1,supersedes,stages=1; made>=2001,lead; knob\nx-2,A-1,B-2 + B-3,universal,,\n"
BAD = (
    "id,original,replacement,relation,date\nx-3,A-1,,same,\nx-4,A-1,B-4,cousin,2024-13-01\nx-5,A-1,B-5,kit,2024-01-02\n"
)


class Imports(WorldTestCase):
    def setUp(self) -> None:
        self.sign_in("corm")
        folder = Path(mkdtemp())
        self.enterContext(override_settings(UPLOADS=folder))
        self.folder = folder

    def send(self, text: str | bytes, id: UUID | None = None, status: int = 200) -> Any:
        data = text.encode() if isinstance(text, str) else text
        file = SimpleUploadedFile("list.csv", data, "text/csv")
        return self.answer(self.client.post("/api/imports", {"id": str(id or uuid4()), "file": file}), status)

    def run_it(self, text: str | bytes) -> Import:
        return importing.run_import(UUID(self.send(text)["id"]), NOW)

    def test_good_rows_are_kept_with_everything_in_them(self) -> None:
        done = self.run_it(GOOD)
        self.assertEqual((done.state, done.rows, done.refused, done.new), ("done", 2, 0, 2))
        first = Statement.objects.get(code="x-1")
        self.assertEqual((first.conditions, first.needs), ({"stages": 1, "made": {"from": 2001}}, ["lead", "knob"]))
        self.assertEqual(Statement.objects.get(code="x-2").replacement, "B-2 + B-3")
        self.assertEqual(list(self.folder.glob("*.upload")), [])

    def test_sent_several_times_at_once_it_is_one_import(self) -> None:
        """Defect: of one import sent four times three were answered as if the server had failed."""
        id = uuid4()
        first = self.send(GOOD, id)
        self.assertEqual(self.send(GOOD, id)["sent_at"], first["sent_at"])
        with patch("references.actions._sent_already", side_effect=[None, Import.objects.get(pk=id)]):
            self.assertEqual(self.send(GOOD, id)["sent_at"], first["sent_at"])
        self.assertEqual([each.name for each in self.folder.iterdir()], [f"{id}.upload"])

    def test_what_a_depot_sent_is_seen_by_that_depot_alone(self) -> None:
        done = self.run_it(BAD)
        self.assertEqual(self.get("imports")["total"], 1)
        Person.objects.filter(username="ildro").update(role=Person.Role.PARTS_LEAD)
        self.sign_in("ildro")
        self.assertEqual(self.get("imports")["total"], 0)
        for path in (f"imports/{done.pk}", f"imports/{done.pk}/refused.csv"):
            self.get(path, 404)
        self.post(f"imports/{done.pk}/cancel", {}, 404)
        self.send(GOOD, done.pk, 400)
        # what it brought counts for everybody
        self.assertEqual(self.get("statements?board=A-1")["items"][0]["id"], "x-5")

    def test_refused_rows_come_back_with_their_faults_and_can_be_sent_again_repaired(self) -> None:
        done = self.run_it(BAD)
        self.assertEqual((done.state, done.rows, done.refused, done.new), ("done", 3, 2, 1))
        report = b"".join(self.client.get(f"/api/imports/{done.pk}/refused.csv").streaming_content)  # type: ignore[attr-defined]
        rows = list(csv.DictReader(io.StringIO(report.decode())))
        self.assertEqual([(row["id"], row["line"]) for row in rows], [("x-3", "2"), ("x-4", "3")])
        self.assertIn("relation: expected one of", rows[1]["fault"])
        self.assertIn("date: expected a day", rows[1]["fault"])
        rows[0]["replacement"], rows[1]["relation"], rows[1]["date"] = "B-3", "kit", "2024-12-01"
        out = io.StringIO()
        writer = csv.DictWriter(out, [*COLUMNS, "line", "fault"])
        writer.writeheader()
        writer.writerows(rows)
        again = self.run_it(out.getvalue())
        self.assertEqual((again.refused, again.new), (0, 2))

    def test_a_file_as_a_whole_that_cannot_be_read_says_why_and_keeps_nothing(self) -> None:
        count = Statement.objects.count()
        for text, told in (
            ("id,original\n1,2\n", "missing: replacement, relation"),
            ("id,original,replacement,relation,colour\n", "unknown: colour"),
            (GOOD.encode() + b"x-9,\xff\xfe,B,kit,,\n", "expected UTF-8 text"),
        ):
            done = self.run_it(text)
            self.assertEqual(done.state, "failed")
            self.assertIn(told, done.fault)
        self.assertEqual(Statement.objects.count(), count)

    def test_a_document_comes_in_by_the_same_way_and_a_faulty_one_is_refused_whole(self) -> None:
        document = json.loads((settings.ROOT / "demo/statements/deck-oven.statements.json").read_text())
        count = Statement.objects.count()
        done = self.run_it(json.dumps(document))
        self.assertEqual((done.state, done.rows, done.new), ("done", len(document["statements"]), 0))
        document["statements"][3]["relation"] = "cousin"
        done = self.run_it(json.dumps(document))
        self.assertEqual((done.state, Statement.objects.count()), ("failed", count))
        self.assertIn("statements[3].relation", done.fault)

    def test_an_import_that_breaks_off_says_so_and_keeps_nothing(self) -> None:
        with (
            patch.object(importing, "_keep", side_effect=RuntimeError("disk full")),
            self.assertLogs("references.importing"),
        ):
            done = self.run_it(GOOD)
        self.assertEqual(done.state, "failed")
        self.assertIn("broke off", done.fault)
        self.assertFalse(Statement.objects.filter(code__startswith="x-").exists())
        many = self.run_it("id,original,replacement,relation,worked\ny-1,A,B,kit,99999999999\n")
        self.assertEqual((many.state, many.refused), ("done", 1))

    def test_a_statement_whose_id_is_there_takes_its_place_and_the_last_of_two_counts(self) -> None:
        self.run_it(GOOD)
        again = self.run_it(GOOD + "x-1,A-1,B-9,kit,,\n")
        self.assertEqual((again.rows, again.new), (3, 0))
        self.assertEqual(Statement.objects.get(code="x-1").replacement, "B-9")

    def test_stopping_keeps_nothing_whenever_it_comes(self) -> None:
        waiting = self.send(GOOD)
        self.assertEqual(self.post(f"imports/{waiting['id']}/cancel", {})["state"], "cancelled")
        self.post(f"imports/{waiting['id']}/cancel", {}, 400)
        self.assertEqual(importing.run_import(UUID(waiting["id"]), NOW).state, "cancelled")

        running = UUID(self.send(GOOD)["id"])
        with patch.object(importing, "CHUNK", 1), patch.object(importing, "_keep") as keep:
            stage = importing._tell

            def stop(id: UUID, counts: Any, at: int) -> None:
                Import.objects.filter(pk=id).update(cancel_wanted=True)
                stage(id, counts, at)

            with patch.object(importing, "_tell", stop):
                self.assertEqual(importing.run_import(running, NOW).state, "cancelled")
            keep.assert_not_called()
        self.assertFalse(Statement.objects.filter(code__startswith="x-").exists())

    def test_what_comes_twice_is_one_import_and_what_is_empty_is_none(self) -> None:
        id = uuid4()
        self.send(GOOD, id)
        self.send(GOOD, id)
        self.assertEqual(Import.objects.count(), 1)
        self.assertIn("empty", self.send("", status=422)["detail"])
        with patch("references.actions.LARGEST_FILE", 10):
            self.assertIn("at most", self.send(GOOD, status=422)["detail"])
        self.assertEqual(len(list(self.folder.iterdir())), 1)
        self.get(f"imports/{id}/refused.csv", 404)
        self.get(f"imports/{uuid4()}", 404)

    def test_what_a_stopped_worker_left_in_the_middle_begins_anew(self) -> None:
        id = UUID(self.send(GOOD)["id"])
        Import.objects.filter(pk=id).update(state="reading", rows=1)
        self.assertEqual(actions.take_up_again(), 1)
        done = importing.run_import(id, NOW)
        self.assertEqual((done.state, done.rows, done.new), ("done", 2, 2))

    def test_only_a_parts_lead_sends(self) -> None:
        self.sign_in("wennick")
        self.send(GOOD, status=403)
        self.assertEqual((Import.objects.count(), list(self.folder.iterdir())), (0, []))
