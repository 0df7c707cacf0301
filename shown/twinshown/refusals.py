"""What a use case refuses: one small tree, turned into problem documents in one place."""

from collections.abc import Sequence
from typing import Any

from twincore.errors import DocumentError, Fault, Refusal, TwinError, WrongValue


class Refused(Exception):
    """A request that is not carried out; `detail` says what, where and what to do."""

    status = 400
    title = "Not done"

    def __init__(self, detail: str, **extra: Any) -> None:
        self.detail, self.extra = detail, extra
        super().__init__(detail)


class NotThere(Refused):
    """What was asked for does not exist, or is another depot's."""

    status, title = 404, "Not found"


class NotAllowed(Refused):
    """The person's role does not allow it."""

    status, title = 403, "Not allowed"


class Changed(Refused):
    """Somebody else was faster; `extra["changes"]` says who changed what."""

    status, title = 409, "Changed by somebody else meanwhile"


class Faulty(Refused):
    """A document or value breaks a rule; `faults` has places and expectations."""

    status, title = 422, "Check what you entered"

    def __init__(self, detail: str, faults: Sequence[Fault] = ()) -> None:
        super().__init__(detail, faults=[{"place": fault.place, "expected": fault.expected} for fault in faults])


class NotAnswered(Refused):
    """A question that has no answer here, or none within its limits."""

    status, title = 422, "This cannot be answered"


def refused_as(error: TwinError) -> Refused:
    """What the core raised, as it is answered."""
    match error:
        case DocumentError():
            return Faulty("The document breaks a rule of its format; nothing of it was kept.", error.faults)
        case Refusal():
            return Refused(error.detail, **error.extra)
        case WrongValue():
            return Faulty(error.detail, error.faults)
    return NotAnswered(str(error))


def problem_body(error: Refused) -> dict[str, Any]:
    """A refusal as a problem document (RFC 9457)."""
    told = {"type": "about:blank", "title": error.title, "status": error.status, "detail": error.detail}
    return {**told, **error.extra}
