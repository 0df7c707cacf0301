"""The typed API: one document, one place for sign-in and errors."""

from bench.api import router as bench
from catalogue.api import router as catalogue
from jobs.api import router as jobs
from ninja import NinjaAPI
from ninja.security import SessionAuth
from people.api import router as people

from config import problems

api = NinjaAPI(title="Worthy Twin", version="1", auth=SessionAuth(csrf=True), docs_url=None, openapi_url=None)
problems.register(api)
api.add_router("", people)
api.add_router("", catalogue)
api.add_router("", jobs)
api.add_router("", bench)
