"""What a use case refuses: one small tree, turned into problem documents in one place."""

from collections.abc import Sequence
from typing import Any

from twincore.errors import Fault


class Refused(Exception):
    """A request that is not carried out; `detail` says what, where and what to do."""

    status = 400
    title = "This cannot be done"

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

    status, title = 422, "There is something wrong in it"

    def __init__(self, detail: str, faults: Sequence[Fault] = ()) -> None:
        super().__init__(detail, faults=[{"place": fault.place, "expected": fault.expected} for fault in faults])
