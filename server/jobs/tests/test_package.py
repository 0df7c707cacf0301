"""A whole job as one file: verified by the command line, brought into another depot with nothing lost, or refused whole."""

import io
import json
import subprocess
import tempfile
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import Any
from unittest.mock import patch
from uuid import uuid4

from django.conf import settings
from django.core.cache import caches
from django.test import override_settings
from PIL import Image
from pypdf import PdfReader

from catalogue.models import Board, BoardRevision
from jobs.models import Entry, Job, Picture
from jobs.tasks import check_again
from jobs.tests.world import WorldTestCase
from people.bodies import UPLOADS
from people.models import Depot, Person
from pictures.files import MOST_BYTES
from references.actions import LARGEST_FILE
from twincore.chain import LARGEST_PACKAGE, chained
from twincore.job.record.document import HEAD
from twincore.job.record.sealed import LATE


def changed(data: bytes, name: str, change: Callable[[Any], None]) -> bytes:
    """A package with one JSON file edited, and the list of contents made to agree, as a careful forger would."""
    from hashlib import sha256

    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as old, zipfile.ZipFile(out, "w") as new:
        files = {each: old.read(each) for each in old.namelist()}
        node = json.loads(files[name])
        change(node)
        files[name] = json.dumps(node).encode()
        contents = json.loads(files["contents.json"])
        for each in contents["files"]:
            each |= {"sha256": sha256(files[each["name"]]).hexdigest(), "bytes": len(files[each["name"]])}
        files["contents.json"] = json.dumps(contents).encode()
        for each, content in files.items():
            new.writestr(each, content)
    return out.getvalue()


def without(data: bytes, name: str) -> bytes:
    """A package without one of its files, and without a word of it in the list of contents."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as old, zipfile.ZipFile(out, "w") as new:
        for each in old.namelist():
            if each == "contents.json":
                contents = json.loads(old.read(each))
                contents["files"] = [file for file in contents["files"] if file["name"] != name]
                new.writestr(each, json.dumps(contents))
            elif each != name:
                new.writestr(each, old.read(each))
    return out.getvalue()


class Packages(WorldTestCase):
    def setUp(self) -> None:
        self.enterContext(override_settings(MEDIA_ROOT=self.enterContext(tempfile.TemporaryDirectory())))
        self.sign_in()
        self.source = self.job(3)
        out = io.BytesIO()
        Image.new("RGB", (64, 48), "brown").save(out, "JPEG")
        self.picture = uuid4()
        path = f"/api/jobs/{self.source.pk}/pictures/{self.picture}"
        self.answer(self.client.post(path, out.getvalue(), content_type="image/jpeg"), 200)
        self.entry(self.source, f"picture.{self.picture}", {"caption": "as found", "of": "board", "marks": []})
        Person.objects.filter(username="ildro").update(role=Person.Role.PARTS_LEAD)

    def package(self, job: Job) -> bytes:
        response = self.client.get(f"/api/jobs/{job.pk}/package.zip")
        self.assertEqual((response.status_code, response["Content-Type"]), (200, "application/zip"))
        return b"".join(response.streaming_content)

    def bring(self, data: bytes, status: int = 200) -> Any:
        return self.answer(self.client.post("/api/packages", data, content_type="application/zip"), status)

    def verify(self, data: bytes, *more: str) -> tuple[int, Any, str]:
        with tempfile.NamedTemporaryFile(suffix=".zip") as file:
            Path(file.name).write_bytes(data)
            done = subprocess.run(
                [settings.ROOT / "script/twin", "verify", file.name, *more], capture_output=True, text=True, check=False
            )
        return done.returncode, json.loads(done.stdout) if done.stdout else None, done.stderr

    def test_the_command_line_verifies_it_and_finds_a_change_wherever_it_is(self) -> None:
        data = self.package(self.job(1))
        code, answer, _ = self.verify(data)
        self.assertEqual((code, answer["intact"], answer["job"]), (0, True, "SQ-0001"))
        self.assertEqual(answer["entries"], self.job(1).entry_count)
        seal = self.get(f"jobs/{self.job(1).pk}/hand-over")["seal"]
        self.assertEqual(self.verify(data, "--seal", seal)[1]["sealed_at"], self.job(1).entry_count)
        self.assertEqual(self.verify(data, "--seal", "0000 0000")[0], 2)

        def reading(node: Any) -> None:
            node["state"]["readings"]["supply"]["value"] = 229

        def entry(node: Any) -> None:
            node["entries"][7]["reason"] = "another reason"

        def when(node: Any) -> None:
            node["entries"][0]["at"] = "2026-01-01T00:00:00.000+00:00"

        def dropped(node: Any) -> None:
            del node["entries"][4]

        for name, change, place in (("job.json", reading, "state"), ("job.json", entry, "entries[7]"), ("job.json", when, "entries[0]"),
                                    ("job.json", dropped, "entries[4]")):  # fmt: skip
            code, _, told = self.verify(changed(data, name, change))
            self.assertEqual(code, 2)
            self.assertIn(place, told)
        code, _, told = self.verify(changed(data, "original.board.json", lambda node: node.update(title="Other")))
        self.assertIn("original.board.json: expected the profile that the board was chosen with", told)
        # a defect: with the closing time out, and the seal never looked at, a forged profile and another machine were intact
        reopened = changed(data, "job.json", lambda node: node.update(closed_at=None, machine="Another oven"))
        self.assertIn("entries[0]", self.verify(reopened, "--seal", seal)[2])
        self.assertIn(
            "closed_at",
            self.verify(changed(data, "job.json", lambda node: node.update(closed_at=None)), "--seal", seal)[2],
        )
        self.assertEqual(
            (answer["not_under_the_seal"], answer["head"][:8]), (["certificate.json"], seal.replace(" ", "")[:8])
        )
        self.assertEqual(self.verify(b"nothing")[0], 2)

    def test_a_verdict_that_is_printed_says_whether_a_second_program_agrees(self) -> None:
        def said(number: int) -> tuple[Any, str]:
            job = self.job(number)
            sheet = json.loads(self.client.get(f"/api/jobs/{job.pk}/sheet.json").content)["twin_check"]
            pages = PdfReader(io.BytesIO(self.client.get(f"/api/jobs/{job.pk}/sheet.pdf").content)).pages
            return sheet, " ".join(" ".join(page.extract_text() for page in pages).split())

        sheet, text = said(1)
        self.assertIn(sheet["verdict"], ("identical", "within tolerance"))
        self.assertEqual(sheet["second_check"], "checked by a second program")
        self.assertIn("(checked by a second program)", text)
        for name in ("default", "answers"):
            caches[name].clear()
            self.addCleanup(caches[name].clear)
        with patch("twincore.certificate.certificate", return_value=None):
            sheet, text = said(1)
            self.assertEqual(sheet["second_check"], "being checked by a second program")
            check_again(str(self.job(1).pk))
            sheet, text = said(1)
        self.assertEqual(sheet["second_check"], "not checked a second time")
        self.assertIn("(not checked a second time)", text)

    def test_a_package_carries_its_certificate_which_is_held_against_the_record(self) -> None:
        data = self.package(self.job(1))
        self.assertEqual(self.verify(data)[1]["twin_check"], {"1": "checked by a second program"})
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            self.assertIn("certificate.json", packed.namelist())

        def of_other_switches(node: Any) -> None:
            node["digests"]["original_settings"] = node["digests"]["original_settings"][::-1]

        def with_a_hole(node: Any) -> None:
            del node["places"][0]

        for change in (of_other_switches, with_a_hole):
            self.assertIn(
                "certificate.json: expected a certificate of these boards, so set",
                self.verify(changed(data, "certificate.json", change))[2],
            )
        bare = without(data, "certificate.json")
        self.assertEqual(self.verify(bare)[1]["twin_check"], {"1": "not checked a second time: no certificate"})

    def test_who_is_called_otherwise_later_changes_nothing_in_a_closed_record(self) -> None:
        before = self.package(self.job(1))
        Person.objects.filter(username="wennick").update(last_name="Tarl-Haddle")
        Depot.objects.filter(code="SQ").update(name="Saltmarsh Quay Bakery Plant, Service")
        after = self.package(self.job(1))
        self.assertEqual(self.verify(after)[0], 0)
        self.assertEqual(after, before)

    def test_a_record_of_before_a_part_was_thought_of_stays_true_when_it_is_corrected_and_taken_along(self) -> None:
        """A version knows parts of the state that an earlier one, which closed the job, did not."""
        closed = self.job(1)
        for name in LATE:
            del closed.state[name]
        closed.save()
        self.entry(closed, f"correction.{uuid4()}", {"what": "It was 231 V"})
        closed.refresh_from_db()
        self.assertEqual(closed.state["placed"], {})
        data = self.package(closed)
        self.assertEqual(self.verify(data)[:2][0], 0, self.verify(data))
        forged = changed(data, "job.json", lambda node: node["state"].update(placed={}))
        self.assertIn("state.placed", self.verify(forged)[2])

    def test_a_wire_put_by_hand_is_under_the_seal_like_everything_else(self) -> None:
        plug = "C1"
        self.entry(self.source, f"plug_put.{plug}", {"to": plug}, reason="It is the same plug")
        data = self.package(self.source)
        self.assertEqual(self.verify(data)[0], 0)
        forged = changed(data, "job.json", lambda node: node["state"]["plugs_put"][plug].update(because="none"))
        self.assertIn(f"state.plugs_put.{plug}", self.verify(forged)[2])
        forged = changed(data, "job.json", lambda node: node["state"].pop("plugs_put"))
        self.assertIn("state.plugs_put", self.verify(forged)[2])

    def test_another_depot_gets_it_with_nothing_lost(self) -> None:
        data = self.package(self.source)
        before = self.get(f"jobs/{self.source.pk}")
        sheet = json.loads(self.client.get(f"/api/jobs/{self.source.pk}/sheet.json").content)
        self.sign_in("ildro")
        brought = self.bring(data)
        self.assertEqual((brought["new"], brought["entries"], brought["pictures"]), (True, self.job(3).entry_count, 1))
        copy = Job.objects.get(pk=brought["id"])
        self.assertEqual((copy.depot.code, copy.code), ("NH", "NH-0001"))
        mine = self.get(f"jobs/{copy.pk}")
        own = {"id", "code", "changed_at", "opened_by", "origin"}
        self.assertEqual(
            {k: v for k, v in mine.items() if k not in own}, {k: v for k, v in before.items() if k not in own}
        )
        again = json.loads(self.client.get(f"/api/jobs/{copy.pk}/sheet.json").content)
        self.assertEqual(again, sheet)
        self.assertEqual(self.package(copy), data)
        shown = self.client.get(f"/api/jobs/{copy.pk}/pictures/{self.picture}")
        self.assertEqual(b"".join(shown.streaming_content)[:2], b"\xff\xd8")
        self.assertEqual(self.bring(data)["new"], False)
        self.assertEqual(Job.objects.filter(depot__code="NH").count(), 1)
        self.assertIn("another depot", self.entry(copy, "found.S1", "010110", status=400, read_how="by eye")["detail"])
        paper = PdfReader(io.BytesIO(self.client.get(f"/api/jobs/{copy.pk}/sheet.pdf").content))
        # a page lists every picture of the document
        self.assertEqual({i.image.size for page in paper.pages for i in page.images if i.image}, {(64, 48)})
        self.assertIn("as found", " ".join(page.extract_text() for page in paper.pages))

    def test_a_closed_one_too_with_its_runs_and_papers(self) -> None:
        data = self.package(self.job(1))
        runs = self.get(f"jobs/{self.job(1).pk}/runs")
        self.sign_in("ildro")
        copy = self.bring(data)
        self.assertEqual(self.get(f"jobs/{copy['id']}/runs"), runs)
        label = PdfReader(io.BytesIO(self.client.get(f"/api/jobs/{copy['id']}/label.pdf").content))
        self.assertIn("SQ-0001", label.pages[0].extract_text())
        self.assertEqual(self.verify(self.package(Job.objects.get(pk=copy["id"])))[0], 0)

    def test_where_the_profiles_are_not_known_they_come_with_it_and_leave_the_catalogue_as_it_is(self) -> None:
        self.sign_in("corm")
        text = self.client.get("/api/board-file/TVH-2210-B").content.decode()
        data = self.package(self.source)
        newer = text.replace('"Burner board, one stage"', '"Burner board, revised"')
        self.answer(self.client.post("/api/documents", newer, content_type="application/json"), 200)
        old = BoardRevision.objects.get(board__part_number="TVH-2210-B", number=1)
        Job.objects.filter(original_revision=old).update(original_revision=old.board.current)
        old.delete()
        self.sign_in("ildro")
        brought = self.bring(data)
        self.assertEqual(brought["profiles"], ["TVH-2210-B"])
        self.assertEqual(
            self.get(f"jobs/{brought['id']}")["original_board"]["title"], self.get("board/TVH-2210-B")["title"]
        )
        self.assertEqual(Board.objects.get(part_number="TVH-2210-B").current.number, 2)  # type: ignore[union-attr]
        self.assertEqual(
            self.get(f"jobs/{brought['id']}/boards/original")["document"]["title"], "Burner board, one stage"
        )

    def test_what_was_changed_or_is_no_record_is_refused_whole(self) -> None:
        data = self.package(self.source)
        self.sign_in("ildro")

        def state(value: Any) -> Callable[[Any], None]:
            return lambda node: node.update(state=value)

        entries, jobs, pictures = Entry.objects.count(), Job.objects.count(), Picture.objects.count()
        for change in (lambda node: node["entries"][3].update(after="x"), state(None), state([]), state({}), state({"found": 3}),
                       state({"found": {"S9": "01"}}), lambda node: node.update(opened={"by": "x"}),
                       lambda node: node.update(id="not an id"), lambda node: node.update(opened={"at": "today", "by": "x"})):  # fmt: skip
            self.assertTrue(self.bring(changed(data, "job.json", change), 422)["faults"])
        self.bring(changed(data, "original.board.json", lambda node: node.update(functions={})), 422)
        # a defect: one without its profile came in, and eleven pages of its job failed
        self.assertTrue(self.bring(without(data, "replacement.board.json"), 422)["faults"])
        self.bring(b"PK nothing", 422)
        self.assertEqual(
            (Entry.objects.count(), Job.objects.count(), Picture.objects.count()), (entries, jobs, pictures)
        )
        self.assertEqual([*Path(settings.MEDIA_ROOT).rglob("*.jpg")].__len__(), 1)

    def test_a_chain_made_anew_around_what_is_no_entry_is_refused(self) -> None:
        """Defects: such packages came in, and the depot's lists could not be read any more."""
        data = self.package(self.source)
        self.sign_in("ildro")

        def forged(change: Callable[[Any], None]) -> Callable[[Any], None]:
            def made(node: Any) -> None:
                change(node)
                node["entries"] = [{**each, "number": n} for n, each in enumerate(node["entries"], 1)]
                for each, digest in zip(
                    node["entries"],
                    chained(node["id"], node["entries"], {name: node[name] for name in HEAD}),
                    strict=True,
                ):
                    each["digest"] = digest
                node["entry_count"] = len(node["entries"])

            return made

        def said(target: str, after: Any, **more: Any) -> Callable[[Any], None]:
            entry = {
                "id": str(uuid4()),
                "at": "2026-03-02T03:00:00.000+00:00",
                "by": "X",
                "target": target,
                "after": after,
                **more,
            }
            key = target.partition(".")

            def change(node: Any) -> None:
                node["entries"].append(entry)
                part = {"serial": "serial", "original": "original", "family": "family"}.get(key[0])
                node["state"].update({part: after} if part else {})

            return forged(change)

        name = str(uuid4())
        for change in (
            said("original", 123), said("serial", [1]), said(f"defect.{name}", {"what": 1}), said("family", {"a": 1}),
            said("test.fuse", {"restored": {"value": 1}}), said("confirmed.record", {"note": 5}), said("found.S1", {"a": 1}),
            said("board.9", {"title": "x"}), said("found.S1", "01", board="2"),
            forged(lambda node: node["state"].update(confirmed={"record": 5})),
            forged(lambda node: node["state"].update(boards={"2": {}})),
        ):  # fmt: skip
            self.assertTrue(self.bring(changed(data, "job.json", change), 422)["faults"])
        self.get("jobs?show=all")
        self.get("machines")

    def test_only_a_parts_lead_brings_jobs_in_and_never_its_own(self) -> None:
        data = self.package(self.source)
        self.bring(data, 403)
        self.sign_in("corm")
        self.assertIn("your own depot", self.bring(data, 400)["detail"])

    def test_bodies_are_limited_to_what_their_readers_take(self) -> None:
        packages, imports, _chunks, pictures = (kind.most for kind in UPLOADS)
        self.assertEqual((packages, pictures), (LARGEST_PACKAGE, MOST_BYTES))
        # a form has its parts' heads besides the file
        self.assertEqual(imports, LARGEST_FILE + 1_000_000)

    def test_entries_are_chained_as_they_are_made(self) -> None:
        before = self.verify(self.package(self.source))[1]["head"]
        self.entry(self.source, "found.S1", "010110", read_how="by eye")
        after = self.verify(self.package(self.source))[1]
        self.assertNotEqual(after["head"], before)
        Entry.objects.filter(job=self.source, number=2).update(reason="quietly")
        self.assertIn("entries[1]", self.verify(self.package(self.source))[2])
        self.assertEqual(Depot.objects.count(), 2)
