"""Everything backed up and restored into an empty cluster: every row and every picture is there again."""

import io
import json
import os
import re
import shutil
import subprocess
import tempfile
from pathlib import Path
from typing import Any
from uuid import uuid4

import psycopg
from django.conf import settings
from django.db import connection
from django.test import Client, TransactionTestCase, override_settings
from PIL import Image

from jobs.demo import load_demo_world
from jobs.models import Entry, Job
from jobs.tests.world import NOW
from people.models import Person

CLUSTER = """
. script/lib/common.sh; . script/lib/postgres.sh
folder=$(pg_folder "restored-$$-test"); pg_start "$folder" fast; printf '%s\\n%s\\n' "$folder" "$TWIN_DATABASE_URL"
"""


class BackedUp(TransactionTestCase):
    def setUp(self) -> None:
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.enterContext(override_settings(MEDIA_ROOT=self.folder / "pictures"))
        load_demo_world(settings.ROOT / "demo", NOW, lambda _: None)
        client = self.client = Client()
        client.force_login(Person.objects.get(username="wennick"), "django.contrib.auth.backends.ModelBackend")
        job = self.job = Job.objects.get(depot__code="SQ", number=3)
        for shade in range(3):
            out = io.BytesIO()
            Image.new("RGB", (50, 40), (shade * 80, 90, 30)).save(out, "PNG")
            sent = client.post(f"/api/jobs/{job.pk}/pictures/{uuid4()}", out.getvalue(), content_type="image/png")
            self.assertEqual(sent.status_code, 200)
        given = connection.settings_dict
        self.url = f"postgres://{given['USER']}:{given['PASSWORD']}@{given['HOST']}:{given['PORT']}/{given['NAME']}"

    def run_script(self, *command: str, url: str, pictures: Path) -> subprocess.CompletedProcess[str]:
        environment = {**os.environ, "TWIN_DATABASE_URL": url, "TWIN_PICTURE_STORE": str(pictures)}
        return subprocess.run(
            command,
            cwd=settings.ROOT,
            env=environment,
            capture_output=True,
            text=True,
            check=False,
            stdin=subprocess.DEVNULL,
        )

    def nobody_else_reads(self, folder: Path) -> None:
        """Defect: names, password hashes and pictures could be read by everybody on the machine."""
        for each in (folder, *folder.iterdir()):
            self.assertEqual(each.stat().st_mode & 0o077, 0, each)

    def empty_cluster(self) -> str:
        environment = {name: value for name, value in os.environ.items() if name != "TWIN_DATABASE_URL"}
        # what the server writes later does not go to this pipe
        log = self.folder / "cluster.log"
        with log.open("w") as out:
            subprocess.run(["bash", "-c", CLUSTER], cwd=settings.ROOT, env=environment, stdout=out, stdin=subprocess.DEVNULL,
                           check=True)  # fmt: skip
        folder, url = log.read_text().split()[-2:]
        stop = f". script/lib/common.sh; . script/lib/postgres.sh; pg_stop {folder}"
        self.addCleanup(lambda: shutil.rmtree(folder))
        self.addCleanup(lambda: subprocess.run(["bash", "-c", stop], cwd=settings.ROOT, check=True))
        return url

    def rows(self, url: str) -> dict[str, list[Any]]:
        with psycopg.connect(url) as there:
            tables = there.execute(
                "select table_name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'"
            ).fetchall()
            # what is kept only to be quick is worked out anew
            tables = [(name,) for (name,) in tables if name != "jobs_keptanswer"]
            return {name: there.execute(f'select t::text from "{name}" t order by 1').fetchall() for (name,) in tables}

    def test_an_encrypted_one_is_found_by_the_end_of_a_chain_and_opened_with_its_key_alone(self) -> None:
        pictures, key, other = self.folder / "pictures", self.folder / "key", self.folder / "other"
        made = [
            subprocess.run(["age-keygen", "-o", str(each)], capture_output=True, text=True, check=True)
            for each in (key, other)
        ]
        recipient = made[0].stderr.split()[-1]
        backups = self.folder / "backups"
        heads = []
        for day in ("2031-02-03", "2031-02-04"):
            done = self.run_script(
                "script/backup", "--for", recipient, str(backups / day), url=self.url, pictures=pictures
            )
            self.assertEqual(done.returncode, 0, done.stderr)
            heads.append(Entry.objects.filter(job=self.job).order_by("-number").values_list("digest", flat=True)[0])
            points = re.findall("Its point: ([0-9a-f ]+),", done.stdout)
            self.say_something()
        self.nobody_else_reads(backups / "2031-02-03")
        self.assertNotIn(b"wennick", (backups / "2031-02-03/database.dump.age").read_bytes())
        url = self.empty_cluster()

        def restore(*options: str) -> subprocess.CompletedProcess[str]:
            return self.run_script("script/restore", str(backups), *options, url=url, pictures=self.folder / "restored")

        for options, word in (
            (("--point", "0123 4567 89ab"), "no backup"), (("--point", "zz"), "at least eight digits"), (("--point", heads[0][:16]), "is encrypted"),
            (("--point", heads[0][:16], "--identity", str(other)), "does not open"), ((), "expected the folder"),
        ):  # fmt: skip
            refused = restore(*options)
            self.assertEqual((refused.returncode, word in refused.stderr), (1, True), (options, refused.stderr))
        # the seal of the earlier day, though the later one is newer
        done = restore("--point", heads[0][:16], "--identity", str(key))
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertIn("2031-02-03", done.stdout)
        with psycopg.connect(url) as there:
            last = there.execute(
                "select digest from jobs_entry where job_id = %s order by number desc limit 1", [self.job.pk]
            ).fetchone()
        self.assertEqual(last, (heads[0],))
        self.assertEqual(len(list((self.folder / "restored").rglob("*.png"))), 3)
        found = restore("--point", points[0], "--identity", str(key))
        self.assertIn("not empty", found.stderr)

    def say_something(self) -> None:
        said = {"what": "gasket hard", "until": "2026-06-30", "who": "Corm"}
        body = {"id": str(uuid4()), "target": f"defect.{uuid4()}", "before": None, "after": said}
        sent = self.client.post(f"/api/jobs/{self.job.pk}/entries", json.dumps(body), content_type="application/json")
        self.assertEqual(sent.status_code, 200, sent.content)

    def test_every_row_and_picture_is_there_again_and_nothing_is_written_over(self) -> None:
        backup, restored = self.folder / "backup", self.folder / "restored"
        done = self.run_script("script/backup", str(backup), url=self.url, pictures=self.folder / "pictures")
        self.assertEqual(done.returncode, 0, done.stderr)
        self.nobody_else_reads(backup)
        url = self.empty_cluster()
        done = self.run_script("script/restore", str(backup), url=url, pictures=restored)
        self.assertEqual(done.returncode, 0, done.stderr)
        before, after = self.rows(self.url), self.rows(url)
        self.assertEqual(set(before), set(after))
        self.assertGreater(len(before["jobs_entry"]), 50)
        for name, rows in before.items():
            self.assertEqual(rows, after[name], name)
        files = {
            p.relative_to(self.folder / "pictures"): p.read_bytes() for p in (self.folder / "pictures").rglob("*.png")
        }
        self.assertEqual(len(files), 3)
        self.assertEqual({p.relative_to(restored): p.read_bytes() for p in restored.rglob("*.png")}, files)
        again = self.run_script("script/restore", str(backup), url=url, pictures=self.folder / "third")
        self.assertEqual((again.returncode, "not empty" in again.stderr), (1, True))
        again = self.run_script("script/backup", str(backup), url=self.url, pictures=restored)
        self.assertEqual((again.returncode, "already" in again.stderr), (1, True))
        with (backup / "pictures.tar").open("ab") as file:
            file.write(b"x")
        spoiled = self.run_script("script/restore", str(backup), url=url, pictures=self.folder / "third")
        self.assertEqual((spoiled.returncode, "not whole" in spoiled.stderr), (1, True))
