"""Print in pictures over HTTP. Nothing of it is kept: what was read is proposed to whoever looks."""

from django.http import HttpRequest
from ninja import Router

from pictures.files import body_of, upright
from pictures.reading import read_table
from pictures.schemas import TableRead

router = Router(tags=["pictures"])


@router.post("/pictures/table", response=TableRead)
def read_table_in_picture(request: HttpRequest) -> TableRead:
    """The cells of a ruled table; the body is the picture itself."""
    return TableRead(rows=read_table(upright(body_of(request))[0]))
