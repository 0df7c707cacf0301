"""The typed API: one document, one place for sign-in and errors."""

from typing import Any

from django.http import HttpRequest
from ninja import NinjaAPI
from ninja.openapi.schema import OpenAPISchema
from ninja.renderers import BaseRenderer
from ninja.security import SessionAuth

from bench.api import router as bench
from catalogue.api import router as catalogue
from catalogue.guides_api import router as guides
from catalogue.pictures_api import router as board_pictures
from config import problems
from config.parsing import StrictParser
from jobs.api import router as jobs
from jobs.boards.api import router as boards_of_job
from jobs.machines.api import router as machines
from jobs.packages.api import router as packages
from jobs.papers.api import router as papers
from jobs.ports.api import router as ports
from jobs.steps.carry_over.api import router as carry_over
from jobs.steps.choose.api import router as choose
from jobs.steps.fit.api import router as fit
from jobs.steps.hand_over.api import router as hand_over
from jobs.steps.make_safe.api import router as make_safe
from jobs.steps.prove.api import router as prove
from jobs.steps.recognise.api import router as recognise
from jobs.steps.record.api import router as record
from jobs.steps.record.chunks_api import router as chunks
from jobs.steps.rule_out.api import router as rule_out
from jobs.with_you.api import router as with_you
from people.account_api import router as account
from people.api import router as people
from people.faults_api import router as faults
from people.staff_api import router as staff
from pictures.api import router as pictures
from practice.api import router as practice
from practice.groups_api import router as groups
from references.api import router as references
from stock.lists_api import router as stock_lists
from stock.plans_api import router as plans
from stock.vans_api import router as vans
from twincore import VERSION
from twincore.job.record.schema import value_schemas
from twinshown.rendering import rendered
from workshop.api import router as workshop
from workshop.asking_api import router as asking
from workshop.drafts_api import router as drafts
from workshop.giving_api import router as giving


class Rendered(BaseRenderer):
    """Answers written as they are written in the browser as well."""

    media_type = "application/json"

    def render(self, request: HttpRequest, data: Any, *, response_status: int) -> str:
        """The body of an answer."""
        return rendered(data)


class Api(NinjaAPI):
    """The API; its document also says, target by target, what an entry may hold, as the core declares it, and
    what every refusal looks like."""

    def get_openapi_schema(self, **given: Any) -> OpenAPISchema:
        """The OpenAPI document with the values of entries."""
        document = super().get_openapi_schema(**given)
        schemas = document["components"]["schemas"]
        schemas.update(value_schemas("#/components/schemas/{model}"))
        schemas["Problem"] = problems.SCHEMA
        for operations in document["paths"].values():
            for operation in operations.values():
                operation["responses"]["4XX"] = problems.RESPONSE
        return document


api = Api(
    title="Worthy Twin",
    version=VERSION,
    auth=SessionAuth(csrf=True),
    docs_url=None,
    openapi_url=None,
    parser=StrictParser(),
    renderer=Rendered(),
)
problems.register(api)
for router in (
    people,
    account,
    staff,
    faults,
    catalogue,
    guides,
    board_pictures,
    pictures,
    references,
    jobs,
    boards_of_job,
    rule_out,
    recognise,
    choose,
    make_safe,
    record,
    chunks,
    carry_over,
    fit,
    prove,
    hand_over,
    ports,
    papers,
    packages,
    with_you,
    machines,
    bench,
    vans,
    stock_lists,
    plans,
    practice,
    groups,
    workshop,
    asking,
    drafts,
    giving,
):
    api.add_router("", router)
