"""The hash chain and the package: every change shows, and hostile zips are refused before they are unpacked."""

import json
import zipfile
from hashlib import sha256
from io import BytesIO
from typing import Any

from django.test import SimpleTestCase

from twincore.chain import (
    PackageFile,
    chained,
    first_link,
    open_package,
    seal_of,
    sealed_part,
    verify_package,
    write_package,
)
from twincore.errors import DocumentError

JOB = "1b4e28ba-2fa1-11d2-883f-0016d3cca427"


def entry(number: int, target: str = "found.S1", after: Any = "01", **more: Any) -> dict[str, Any]:
    return {
        "id": f"e{number}", "number": number, "at": "2026-03-02T03:00:00.000+00:00", "by": "Wennick Tarl", "target": target,
        "before": None, "after": after, "reason": "", "read_how": "", "attachment": "", **more,
    }  # fmt: skip


def with_digests(entries: list[dict[str, Any]], job: str = JOB) -> list[dict[str, Any]]:
    return [{**e, "digest": digest} for e, digest in zip(entries, chained(job, entries), strict=True)]


def document(entries: list[dict[str, Any]], **more: Any) -> dict[str, Any]:
    return {
        "format": "worthy-twin/job", "version": 1, "id": JOB, "number": "SQ-0001", "depot": "Saltmarsh Quay", "machine": "Oven",
        "complaint": "", "opened": {"by": "Wennick Tarl"}, "closed_at": None, "state": {"found": {"S1": "01"}, "confirmed": {}},
        "entry_count": len(entries), "entries": entries, **more,
    }  # fmt: skip


def package(job: dict[str, Any], *files: PackageFile) -> bytes:
    out = BytesIO()
    write_package([PackageFile("job.json", json.dumps(job).encode()), *files], out)
    return out.getvalue()


class Chain(SimpleTestCase):
    def test_a_digest_is_sha_256_over_the_published_form(self) -> None:
        # by hand, with Python's hashlib alone, from the rule in docs/formats
        start = sha256(f'["worthy-twin/job","{JOB}"]'.encode()).hexdigest()
        self.assertEqual(first_link(JOB), start)
        text = f'["{start}","e1",1,"2026-03-02T03:00:00.000+00:00","Wennick Tarl","found.S1",null,"01","","",""]'
        self.assertEqual(chained(JOB, [entry(1)]), [sha256(text.encode()).hexdigest()])

    def test_whole_numbers_are_the_same_however_storage_writes_them(self) -> None:
        self.assertEqual(chained(JOB, [entry(1, after=5.0)]), chained(JOB, [entry(1, after=5)]))
        self.assertNotEqual(chained(JOB, [entry(1, after=5.5)]), chained(JOB, [entry(1, after=5)]))
        self.assertEqual(chained(JOB, [entry(1, after=1e22)]), chained(JOB, [entry(1, after=10**22)]))

    def test_every_single_change_of_any_part_of_any_entry_shows(self) -> None:
        entries = [entry(1), entry(2, after="10"), entry(3, "reading.fan", {"value": 1.2})]
        kept = with_digests(entries)
        for index in range(3):
            for key, value in (("after", "11"), ("by", "Corm"), ("at", "2026-03-02T03:00:00.001+00:00"), ("reason", "x"),
                               ("target", "found.S2"), ("before", 0), ("attachment", "0" * 64), ("read_how", "by eye")):  # fmt: skip
                changed = [{**e, **({key: value} if i == index else {})} for i, e in enumerate(kept)]
                faults = open_package(package(document(changed))).faults
                self.assertEqual([f.place for f in faults], [f"entries[{index}]"], (index, key))

    def test_what_is_taken_out_put_in_or_moved_shows(self) -> None:
        kept = with_digests([entry(1), entry(2, after="10"), entry(3, after="11")])
        for entries in (kept[1:], kept[:1] + kept[2:], [kept[1], kept[0], kept[2]], [*kept, kept[2]]):
            self.assertTrue(open_package(package(document(entries))).faults)
        cut = verify_package(open_package(package({**document(kept[:2]), "entry_count": 3})))
        self.assertFalse(cut["intact"])

    def test_a_record_that_was_rewritten_whole_does_not_carry_the_labels_seal(self) -> None:
        kept = with_digests([entry(1), entry(2, after="10")])
        forged = with_digests([entry(1, after="11"), entry(2, after="10")])
        seal = " ".join(kept[1]["digest"][i : i + 4] for i in range(0, 16, 4))
        self.assertEqual(verify_package(open_package(package(document(kept))), seal)["sealed_at"], 2)
        answer = verify_package(open_package(package(document(forged))), seal)
        self.assertEqual((answer["intact"], answer["faults"][0]["place"]), (False, "seal"))
        self.assertFalse(verify_package(open_package(package(document(kept))), "ab")["intact"])

    def test_another_jobs_chain_does_not_pass_for_this_one(self) -> None:
        self.assertTrue(open_package(package(document(with_digests([entry(1)], job="another")))).faults)


class Closed(SimpleTestCase):
    def closed(self, **change: Any) -> dict[str, Any]:
        first = [entry(1)]
        job = document(first, closed_at="2026-03-02T05:00:00.000+00:00")
        seal = seal_of(sealed_part(job), {"family.json": sha256(b"{}").hexdigest()})
        return {**job, "entry_count": 2, "entries": with_digests([entry(1), entry(2, "signed", {"ok": True}, attachment=seal)]),
                **change}  # fmt: skip

    def test_what_a_closed_job_adds_up_to_cannot_be_changed(self) -> None:
        family = PackageFile("family.json", b"{}")
        self.assertEqual(open_package(package(self.closed(), family)).faults, ())
        later = {"found": {"S1": "01"}, "confirmed": {}, "corrections": {"a": {"what": "x"}}, "signed": {"ok": True}}
        self.assertEqual(open_package(package(self.closed(state=later), family)).faults, ())
        for change in (
            {"state": {"found": {"S1": "11"}, "confirmed": {}}},
            {"machine": "Other"},
            {"number": "SQ-0002"},
        ):
            faults = open_package(package(self.closed(**change), family)).faults
            self.assertEqual([f.place for f in faults], ["state"], change)
        self.assertTrue(open_package(package(self.closed(), PackageFile("family.json", b"{ }"))).faults)


class Pictures(SimpleTestCase):
    def test_a_picture_is_the_one_that_its_entry_was_made_with(self) -> None:
        digest = sha256(b"grey").hexdigest()
        kept = with_digests([entry(1, "picture.p1", {"caption": ""}, attachment=digest)])
        node = {"id": "p1", "digest": digest, "width": 1, "height": 1, "file": "pictures/p1.png"}
        good = package(document(kept, pictures=[node]), PackageFile("pictures/p1.png", b"grey"))
        self.assertEqual(open_package(good).faults, ())
        other = {**node, "digest": sha256(b"other").hexdigest()}
        swapped = package(document(kept, pictures=[other]), PackageFile("pictures/p1.png", b"other"))
        self.assertEqual([f.place for f in open_package(swapped).faults], ["pictures/p1.png"])
        self.assertTrue(open_package(package(document(kept, pictures=[node]))).faults)


class Hostile(SimpleTestCase):
    def zipped(self, **files: bytes) -> bytes:
        out = BytesIO()
        with zipfile.ZipFile(out, "w") as packed:
            for name, data in files.items():
                packed.writestr(name.replace("_", "."), data, zipfile.ZIP_DEFLATED)
        return out.getvalue()

    def test_what_is_no_package_is_refused_with_what_was_expected(self) -> None:
        manifest = b'{"format": "worthy-twin/package", "version": 1, "files": []}'
        for data, word in (
            (b"no zip", "a zip"), (self.zipped(), "list of what is in"), (self.zipped(contents_json=manifest), "the job's document"),
            (self.zipped(contents_json=b"{}", job_json=b"{}"), "worthy-twin/package"),
            (self.zipped(contents_json=manifest, job_json=b"[]"), "a JSON object"),
            (self.zipped(contents_json=manifest, job_json=b" " * 30_000_000), "at most"),
            # a defect: many such files grew to half a gigabyte before they were refused
            (self.zipped(contents_json=manifest, job_json=b" " * 3_000_000), "folded to no less than"),
        ):  # fmt: skip
            with self.assertRaises(DocumentError) as caught:
                open_package(data)
            self.assertIn(word, str(caught.exception), data[:60])

    def test_a_zip_cut_off_or_with_a_byte_turned_is_never_taken_for_whole(self) -> None:
        whole = package(document(with_digests([entry(1)])), PackageFile("pictures/p.png", bytes(range(200))))
        self.assertEqual(open_package(whole).faults, ())
        for cut in range(0, len(whole), 37):
            with self.assertRaises(DocumentError):
                open_package(whole[:cut])
        meant = whole.index(bytes(range(100, 120)))
        turned = whole[:meant] + b"\xff" + whole[meant + 1 :]
        with self.assertRaises(DocumentError):
            open_package(turned)

    def test_files_beside_the_list_are_named(self) -> None:
        out = BytesIO(package(document(with_digests([entry(1)]))))
        with zipfile.ZipFile(out, "a") as packed:
            packed.writestr("more.txt", "x")
        self.assertEqual([f.place for f in open_package(out.getvalue()).faults], ["more.txt"])
