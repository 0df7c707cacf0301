"""The client's own unit tests, started from here so that there is one count of tests."""

import json
import subprocess
from pathlib import Path
from tempfile import TemporaryDirectory

from django.conf import settings
from django.test import SimpleTestCase


class WebClient(SimpleTestCase):
    def test_every_unit_test_of_the_client(self) -> None:
        with TemporaryDirectory() as folder:
            report = f"{folder}/report.json"
            run = subprocess.run(
                ["npx", "vitest", "run", "--reporter=json", f"--outputFile={report}"],
                cwd=settings.ROOT / "web", capture_output=True, text=True, stdin=subprocess.DEVNULL, check=False,
            )  # fmt: skip
            try:
                found = json.loads(Path(report).read_text("utf-8"))
            except OSError:
                self.fail(f"the client's tests did not run: {run.stdout[-2000:]}{run.stderr[-2000:]}")
        count = 0
        for suite in found["testResults"]:
            with self.subTest(suite["name"]):
                self.assertEqual(suite["status"], "passed", suite.get("message"))
            for each in suite["assertionResults"]:
                count += 1
                with self.subTest(each["fullName"]):
                    self.assertEqual(each["status"], "passed", "\n".join(each["failureMessages"]))
        self.assertEqual(count, found["numTotalTests"])
        self.assertGreater(count, 70)
