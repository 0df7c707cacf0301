"""The hash chain and the package: every change shows, and hostile zips are refused before they are unpacked."""

import json
import zipfile
from collections.abc import Iterator
from hashlib import sha256
from io import BytesIO
from pathlib import Path
from typing import Any

from django.test import SimpleTestCase

from tests.cost import rounds
from twincore.chain import (
    Package,
    PackageFile,
    chained,
    first_link,
    open_package,
    seal_of,
    write_package,
)
from twincore.errors import DocumentError
from twincore.job import record_faults, record_of, replay, uncovered, verify_package
from twincore.job.record.sealed import sealed_part

PACKAGES = Path(__file__).parent / "packages"
JOB = "1b4e28ba-2fa1-11d2-883f-0016d3cca427"


def entry(number: int, target: str = "found.S1", after: Any = "01", **more: Any) -> dict[str, Any]:
    return {
        "id": f"e{number}", "number": number, "at": "2026-03-02T03:00:00.000+00:00", "by": "Wennick Tarl", "target": target,
        "before": None, "after": after, "reason": "", "read_how": "", "attachment": "", **more,
    }  # fmt: skip


HEAD: dict[str, Any] = {
    "number": "SQ-0001", "depot": "Saltmarsh Quay", "machine": "Oven", "complaint": "",
    "opened": {"at": "2026-03-02T02:00:00.000+00:00", "by": "Wennick Tarl", "clock": "depot"},
}  # fmt: skip


def with_digests(entries: list[dict[str, Any]], job: str = JOB, head: Any = HEAD) -> list[dict[str, Any]]:
    return [{**e, "digest": digest} for e, digest in zip(entries, chained(job, entries, head), strict=True)]


def document(entries: list[dict[str, Any]], state: Any = None, **more: Any) -> dict[str, Any]:
    """The record of a job with these entries, as it is written."""
    state = replay(entries).state if state is None else state
    return {**record_of(JOB, HEAD, entries, state, {}, {}, True), **more}


def faults_of(job: dict[str, Any], *files: PackageFile) -> list[str]:
    """The places at which a package of this record is not as it was written."""
    return [fault.place for fault in record_faults(open_package(package(job, *files)))]


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
        entries = [entry(1), entry(2, after="10"), entry(3, "serial", "4471")]
        kept = with_digests(entries)
        self.assertEqual(faults_of(document(kept)), [])
        for index in range(3):
            for key, value in (("after", "11"), ("by", "Corm"), ("at", "2026-03-02T03:00:00.001+00:00"), ("reason", "x"),
                               ("target", "found.S2"), ("before", 0), ("attachment", "0" * 64), ("read_how", "by eye")):  # fmt: skip
                changed = [{**e, **({key: value} if i == index else {})} for i, e in enumerate(kept)]
                self.assertEqual(faults_of(document(changed)), [f"entries[{index}]"], (index, key))

    def test_what_is_taken_out_put_in_or_moved_shows(self) -> None:
        kept = with_digests([entry(1), entry(2, after="10"), entry(3, after="11")])
        for entries in (kept[1:], kept[:1] + kept[2:], [kept[1], kept[0], kept[2]], [*kept, kept[2]]):
            self.assertTrue(faults_of(document(entries)))
        self.assertEqual(faults_of(document(kept[:2], entry_count=3)), ["entry_count"])

    def test_a_record_that_was_rewritten_whole_does_not_carry_the_labels_seal(self) -> None:
        kept = with_digests([entry(1), entry(2, after="10")])
        forged = with_digests([entry(1, after="11"), entry(2, after="10")])
        seal = " ".join(kept[0]["digest"][i : i + 4] for i in range(0, 16, 4))
        answer = verify_package(open_package(package(document(kept))), seal)
        self.assertEqual((answer["intact"], answer["sealed_at"], answer["after_the_seal"]), (True, 1, 1))
        answer = verify_package(open_package(package(document(forged))), seal)
        self.assertEqual((answer["intact"], answer["faults"][0]["place"]), (False, "seal"))
        self.assertFalse(verify_package(open_package(package(document(kept))), "ab")["intact"])

    def test_another_jobs_chain_does_not_pass_for_this_one_nor_another_head(self) -> None:
        self.assertEqual(faults_of(document(with_digests([entry(1)], job="another"))), ["entries[0]"])
        for name in HEAD:
            for value in ("other", {**HEAD["opened"], "by": "Corm"}):
                if isinstance(value, str) != (name == "opened"):
                    self.assertEqual(
                        faults_of(document(with_digests([entry(1)]), **{name: value})), ["entries[0]"], name
                    )
        self.assertEqual(faults_of(document([], machine="Other")), ["start"])

    def test_an_entry_without_its_number_is_told_and_not_stumbled_over(self) -> None:
        [kept] = with_digests([entry(1)])
        without = {name: value for name, value in kept.items() if name != "number"}
        self.assertEqual(faults_of({**document([kept]), "entries": [without]}), ["entries[0].number"])

    def test_a_lone_surrogate_is_no_text(self) -> None:
        text = json.dumps(document(with_digests([entry(1)]))).replace("Oven", "\\ud800")
        out = BytesIO()
        write_package([PackageFile("job.json", text.encode())], out)
        with self.assertRaises(DocumentError) as refused:
            open_package(out.getvalue())
        self.assertIn("machine", str(refused.exception))


class Closed(SimpleTestCase):
    def closed(self, *later: dict[str, Any], **change: Any) -> dict[str, Any]:
        first = [entry(1)]
        seal = seal_of(sealed_part(document(with_digests(first))), {})
        closing = entry(2, "confirmed.hand_over", {"note": ""}, attachment=seal, adds={"closed_as": {
            name: HEAD[name] for name in ("number", "depot", "opened")}})  # fmt: skip
        # what it is closed as stands in its state, and is sealed with it
        state = replay([*first, closing]).state
        closing["attachment"] = seal_of(sealed_part({**HEAD, "state": state}), {})
        return document(with_digests([*first, closing, *later]), **change)

    def test_what_a_closed_job_adds_up_to_cannot_be_changed(self) -> None:
        self.assertEqual(faults_of(self.closed()), [])
        self.assertEqual(self.closed()["closed_at"], "2026-03-02T03:00:00.000+00:00")
        for change, place in (
            ({"state": {"found": {"S1": "11"}, "confirmed": {}}}, "state"), ({"machine": "Other"}, "entries[0]"),
            ({"number": "SQ-0002"}, "entries[0]"), ({"closed_at": None}, "closed_at"),
            ({"closed_at": "2026-03-03T03:00:00.000+00:00"}, "closed_at"), ({"serial": "1"}, "serial"),
            ({"original": {"part_number": "X", "positions": {}}}, "original"), ({"twin_check": {"verdict": "identical"}}, "twin_check"),
        ):  # fmt: skip
            self.assertTrue(any(each.startswith(place) for each in faults_of(self.closed(**change))), change)
        self.assertEqual(faults_of(self.closed(), PackageFile("family.json", b"{ }")), ["family.json", "state"])

    def test_what_came_after_the_closing_is_told_and_may_only_correct(self) -> None:
        correction = entry(3, "correction.1b4e28ba-2fa1-41d2-883f-0016d3cca427", {"what": "The serial was read wrong."})
        answer = verify_package(open_package(package(self.closed(correction))))
        self.assertEqual((answer["intact"], answer["after_closing"], answer["not_under_the_seal"]), (True, [3], []))
        self.assertEqual(faults_of(self.closed(entry(3, "serial", "4471"))), ["state", "entries[2]"])


class Pictures(SimpleTestCase):
    def test_a_picture_is_the_one_that_its_entry_was_made_with(self) -> None:
        digest = sha256(b"grey").hexdigest()
        name = "1b4e28ba-2fa1-41d2-883f-0016d3cca427"
        file = f"pictures/{name}.png"
        carries = {"file": file, "width": 1, "height": 1}
        kept = with_digests(
            [entry(1, f"picture.{name}", {"caption": "", "of": "board", "marks": []}, attachment=digest, adds=carries)]
        )
        self.assertEqual(faults_of(document(kept), PackageFile(file, b"grey")), [])
        self.assertEqual(faults_of(document(kept), PackageFile(file, b"other")), [file])
        self.assertEqual(faults_of(document(kept)), [f"pictures.{name}"])
        self.assertIn("pictures", faults_of(document(kept, pictures=[]), PackageFile(file, b"grey")))
        unnamed = faults_of(document(with_digests([entry(1)])), PackageFile(file, b"grey"))
        self.assertEqual(unnamed, [file])


Path_ = tuple[str | int, ...]


def mutations(node: Any, at: Path_ = ()) -> Iterator[tuple[Path_, str]]:
    """Everything that can be done to one place of a document: a leaf changed, anything taken out, something put in."""
    if at:
        yield at, "taken out"
    if isinstance(node, dict | list):
        yield at, "put in"
        for key, child in node.items() if isinstance(node, dict) else enumerate(node):
            yield from mutations(child, (*at, key))
    else:
        yield at, "changed"


def mutated(text: str, at: Path_, how: str) -> Any:
    """A document with one such thing done to it."""
    root = json.loads(text)
    within = root
    for key in at[:-1]:
        within = within[key]
    if how == "taken out":
        del within[at[-1]]
    elif how == "changed":
        old = within[at[-1]]
        within[at[-1]] = (
            not old
            if isinstance(old, bool)
            else old + 1
            if isinstance(old, int | float)
            else "other"
            if old is None
            else old + "x"
        )
    else:
        place = within[at[-1]] if at else root
        if isinstance(place, dict):
            place["added"] = 1
        else:
            place.append(place[-1] if place else 1)
    return root


ADDED = (
    "pictures/more.jpg", "boards/3/family.json", "boards/1/family.json", "2/original.board.json", "boards/boards/2/family.json",
    "boards/family.json", "boards/3/certificate.json", "boards/1/certificate.json", "more/certificate.json", "more.json",
)  # fmt: skip
"""Files that no job of these packages has: defects, a profile or a certificate in a folder of no board was taken for the job's."""


class EveryLeaf(SimpleTestCase):
    """Whole packages as the depot writes them: whatever single thing is changed, put in or taken out of them shows."""

    PACKAGES = ("0.5.0-open.zip", "0.5.0-closed.zip", "0.5.0-boards.zip")

    def opened(self, name: str) -> Package:
        found = open_package((PACKAGES / name).read_bytes())
        self.assertEqual(record_faults(found), [], name)
        self.assertEqual(uncovered(found), [])
        return found

    def test_of_the_record(self) -> None:
        for name in self.PACKAGES:
            whole = self.opened(name)
            text = json.dumps(whole.job)
            every = list(mutations(whole.job))
            self.assertGreater(len(every), 1_000)
            for at, how in every[:: rounds(3, 1)]:
                job = mutated(text, at, how)
                self.assertTrue(record_faults(Package(job, whole.files, ())), (name, at, how))

    def test_of_every_other_file_though_the_list_of_contents_agrees_with_it(self) -> None:
        for name in self.PACKAGES:
            whole = self.opened(name)
            for file in whole.files:
                if file in ("job.json", "contents.json"):
                    continue
                data = whole.files[file]
                texts = [data + b" ", data[:-1]]
                if file.endswith(".json"):
                    every = list(mutations(json.loads(data)))
                    texts += [
                        json.dumps(mutated(data.decode(), *each)).encode()
                        for each in every[:: max(1, len(every) // rounds(40, 4_000))]
                    ]
                for other in texts:
                    self.assertTrue(record_faults(Package(whole.job, {**whole.files, file: other}, ())), (name, file))
                rest = {each: whole.files[each] for each in whole.files if each != file}
                self.assertTrue(record_faults(Package(whole.job, rest, ())), (name, file))
            for more in ADDED:
                data = whole.files.get(more.rpartition("/")[2], b"x")
                self.assertTrue(record_faults(Package(whole.job, {**whole.files, more: data}, ())), (name, more))

    def test_of_the_list_of_contents(self) -> None:
        for name in self.PACKAGES:
            whole = self.opened(name)
            text = whole.files["contents.json"].decode()
            for at, how in mutations(json.loads(text)):
                out = BytesIO()
                with zipfile.ZipFile(out, "w") as packed:
                    for each in whole.files:
                        packed.writestr(
                            each, whole.files[each] if each != "contents.json" else json.dumps(mutated(text, at, how))
                        )
                try:
                    found = record_faults(open_package(out.getvalue()))
                except DocumentError as error:
                    found = list(error.faults)
                self.assertTrue(found, (name, at, how))

    def test_packages_of_an_earlier_version_open_and_say_what_their_seal_did_not_cover(self) -> None:
        closed = open_package((PACKAGES / "0.4.0-closed.zip").read_bytes())
        self.assertEqual(record_faults(closed), [])
        self.assertEqual(uncovered(closed), ["state.confirmed.hand_over", "original.revision", "replacement.revision"])
        still = open_package((PACKAGES / "0.4.0-open.zip").read_bytes())
        self.assertEqual(record_faults(still), [])
        told = uncovered(still)
        for place in ("machine", "opened", "family.json", "original.board.json", "replacement.board.json"):
            self.assertIn(place, told)

    def test_of_a_closed_package_of_an_earlier_version_too(self) -> None:
        whole = open_package((PACKAGES / "0.4.0-closed.zip").read_bytes())
        text, told = json.dumps(whole.job), uncovered(whole)
        # what entries of that time did not tell, the seal told; a default that is left out says the same
        for at, how in list(mutations(whole.job))[:: rounds(9, 1)]:
            job = mutated(text, at, how)
            left_out = len(at) == 2 and at[0] == "state" and how == "taken out" and not whole.job["state"][at[1]]
            if left_out or any(".".join(map(str, at)).startswith(each) for each in told):
                continue
            self.assertTrue(record_faults(Package(job, whole.files, ())), (at, how))


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
