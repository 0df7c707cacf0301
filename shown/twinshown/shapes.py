"""What the API takes and shows: pydantic's models, without what the API library adds for rows of a database handed out as they are."""

from typing import Any

from pydantic import BaseModel, ConfigDict


class Schema(BaseModel):
    """A shape of a request or an answer."""

    model_config = ConfigDict(from_attributes=True)

    def dict(self, **given: Any) -> dict[str, Any]:
        """Its values by their names."""
        return self.model_dump(**given)
