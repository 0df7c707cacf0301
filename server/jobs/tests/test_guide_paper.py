"""Whoever follows the page on papers to the letter has one: what it has written is run, and the paper read."""

import importlib.util
import io
import sys
import tempfile
from pathlib import Path
from types import ModuleType
from unittest.mock import patch

from django.conf import settings
from django.test import override_settings
from django.urls import path as route
from ninja import NinjaAPI
from ninja.security import SessionAuth
from pypdf import PdfReader

from jobs.tests.world import WorldTestCase
from tests.guides import written

PAGE = "add-a-paper.md"


class APaper(WorldTestCase):
    def test_what_the_page_has_written_prints_a_paper(self) -> None:
        pieces = {(each.file, each.after): each.code for each in written(PAGE)}
        files = {file: code for (file, after), code in pieces.items() if after is None}
        self.assertEqual(len(files), 2)
        with tempfile.TemporaryDirectory() as folder:
            for file, code in files.items():
                path = Path(folder, file)
                path.parent.mkdir(parents=True, exist_ok=True)
                path.write_text(code)
            templates = [{**settings.TEMPLATES[0], "DIRS": [Path(folder, "server/jobs/templates")]}]
            paper = module("jobs.papers.old_board", Path(folder, "server/jobs/papers/old_board.py").read_text())
            with patch.dict(sys.modules, {paper.__name__: paper}), override_settings(TEMPLATES=templates):
                addresses = self.api_with(pieces)
                urls = ModuleType("urls_of_the_page")
                urls.urlpatterns = addresses  # type: ignore[attr-defined]
                with patch.dict(sys.modules, {urls.__name__: urls}), override_settings(ROOT_URLCONF=urls.__name__):
                    self.sign_in()
                    job = self.job(3)
                    answer = self.client.get(f"/api/jobs/{job.pk}/old-board.pdf")
                    self.assertEqual((answer.status_code, answer["Content-Type"]), (200, "application/pdf"))
                    pages = PdfReader(io.BytesIO(answer.content)).pages
                    text = "".join("".join(page.extract_text() for page in pages).split())
        for told in (job.state["original"], job.machine.split()[0], job.code):
            self.assertIn(told, text)

    def api_with(self, pieces: dict[tuple[str, str | None], str]) -> list[object]:
        """The addresses of the papers, those of the page among them."""
        source = (settings.ROOT / "server/jobs/papers/api.py").read_text()
        for (file, after), code in pieces.items():
            if file.endswith("papers/api.py") and after is not None:
                self.assertIn(after, source)
                source = source.replace(after, after + "\n" + code, 1)
        papers = module("papers_api_of_the_page", source)
        api = NinjaAPI(urls_namespace="page", auth=SessionAuth())
        api.add_router("", papers.router)

        return [route("api/", api.urls)]


def module(name: str, source: str) -> ModuleType:
    """A module of this source."""
    found = importlib.util.module_from_spec(importlib.util.spec_from_loader(name, loader=None))  # type: ignore[arg-type]
    exec(compile(source, f"<{name}>", "exec"), found.__dict__)
    return found
