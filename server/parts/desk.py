"""The parts desk over HTTP: one question at a time, with a time-out; whatever comes back is checked before it counts."""

from decimal import Decimal
from typing import Annotated

import httpx
from django.conf import settings
from pydantic import BaseModel, ConfigDict, Field, ValidationError

TIME_OUT_S = 3.0


class DeskAway(Exception):
    """The desk did not answer, or answered nonsense; says which."""


class Answer(BaseModel):
    """What the desk says about a part."""

    model_config = ConfigDict(extra="ignore", strict=False)

    part_number: Annotated[str, Field(max_length=700)]
    price: Annotated[Decimal, Field(ge=0, le=1_000_000, decimal_places=2)]
    stock: Annotated[int, Field(ge=0, le=1_000_000)]
    on_van: bool = False
    days: Annotated[float, Field(ge=0, le=1_000)] | None = None


def ask(part_number: str, client: httpx.Client | None = None) -> Answer | None:
    """Price, stock and days of a part; None where the desk does not know it. Raises DeskAway."""
    if not settings.PARTS_DESK_URL:
        raise DeskAway("no parts desk is set up")
    own = client or httpx.Client(timeout=TIME_OUT_S)
    try:
        response = own.get(f"{settings.PARTS_DESK_URL}/parts", params={"part_number": part_number})
        if response.status_code == 404:
            return None
        response.raise_for_status()
        answer = Answer.model_validate(response.json())
    except httpx.TimeoutException as error:
        raise DeskAway("it took too long to answer") from error
    except httpx.HTTPStatusError as error:
        raise DeskAway(f"it answered with error {error.response.status_code}") from error
    except httpx.HTTPError as error:
        raise DeskAway("it cannot be reached") from error
    except (ValidationError, ValueError) as error:
        raise DeskAway("its answer made no sense") from error
    finally:
        if client is None:
            own.close()
    if answer.part_number != part_number:
        raise DeskAway("its answer was about another part")
    return answer
