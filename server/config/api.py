"""The typed API: one document, one place for sign-in and errors."""

from typing import Any

from ninja import NinjaAPI
from ninja.openapi.schema import OpenAPISchema
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
from twincore import VERSION
from twincore.job.schema import value_schemas


class Api(NinjaAPI):
    """The API; its document also says, target by target, what an entry may hold, as the core declares it."""

    def get_openapi_schema(self, **given: Any) -> OpenAPISchema:
        """The OpenAPI document with the values of entries."""
        document = super().get_openapi_schema(**given)
        document["components"]["schemas"].update(value_schemas("#/components/schemas/{model}"))
        return document


api = Api(title="Worthy Twin", version=VERSION, auth=SessionAuth(csrf=True), docs_url=None, openapi_url=None)
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
