"""What broke in somebody's browser, told to whoever looks at the server's log."""

import logging

from django.http import HttpRequest
from ninja import Router
from pydantic import Field

from people.access import person_of
from twinshown.shapes import Schema

router = Router(tags=["people"])
browsers = logging.getLogger("worthy_twin.browsers")


class FaultGiven(Schema):
    """A part of a page that could not be drawn; nothing of what anybody entered."""

    place: str = Field(max_length=200, description="The part of the page.")
    message: str = Field(max_length=500)
    trace: str = Field("", max_length=4000)
    version: str = Field("", max_length=40)


@router.post("/faults", response={204: None})
def tell_fault(request: HttpRequest, given: FaultGiven) -> tuple[int, None]:
    """Write a fault into the server's log, with the name of whoever saw it."""
    browsers.error("a page broke", extra={"more": {"person": person_of(request).username, **given.dict()}})
    return 204, None
