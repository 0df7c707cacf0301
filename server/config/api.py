"""The typed API: one document, one place for sign-in and errors."""

from ninja import NinjaAPI
from ninja.security import SessionAuth

from bench.api import router as bench
from catalogue.api import router as catalogue
from catalogue.guides_api import router as guides
from config import problems
from jobs.api import router as jobs
from jobs.finish.api import router as finish
from jobs.front.api import router as front
from jobs.work.api import router as work
from people.api import router as people
from references.api import router as references

api = NinjaAPI(title="Worthy Twin", version="1", auth=SessionAuth(csrf=True), docs_url=None, openapi_url=None)
problems.register(api)
api.add_router("", people)
api.add_router("", catalogue)
api.add_router("", guides)
api.add_router("", references)
api.add_router("", jobs)
api.add_router("", front)
api.add_router("", work)
api.add_router("", finish)
api.add_router("", bench)
