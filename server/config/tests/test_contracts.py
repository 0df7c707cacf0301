import json
from collections import Counter
from collections.abc import Iterator
from runpy import run_path

from django.conf import settings
from django.core.management import call_command
from django.test import TestCase

from config.api import api
from twinshown.shapes import Schema

APPS = {path.name for path in (settings.ROOT / "server").iterdir() if path.is_dir()}


def _below(kind: type) -> Iterator[type]:
    for each in kind.__subclasses__():
        yield each
        yield from _below(each)


class Contracts(TestCase):
    def test_the_openapi_document_in_the_repository_is_the_servers(self) -> None:
        kept = json.loads((settings.ROOT / "docs" / "openapi.json").read_text())
        served = json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/"), default=str))
        self.assertEqual(kept, served)

    def test_no_two_things_of_the_api_share_a_name(self) -> None:
        # the document names them by it alone, so that one would stand for both
        names = Counter(each.__name__ for each in _below(Schema) if each.__module__.split(".")[0] in APPS)
        self.assertEqual([name for name, count in names.items() if count > 1], [])

    def test_no_migration_is_missing(self) -> None:
        call_command("makemigrations", check=True, dry_run=True, verbosity=0)

    def test_the_readmes_figures_are_those_that_were_measured(self) -> None:
        figures = run_path(str(settings.ROOT / "script/lib/figures.py"))
        known = json.loads(figures["DATA"].read_text())
        self.assertEqual(set(known), set(figures["PARTS"]))
        readme = figures["README"].read_text()
        self.assertEqual(figures["with_table"](readme, known), readme)
        with self.assertRaisesMessage(ValueError, "in the README"):
            figures["with_table"]("no marks", known)
