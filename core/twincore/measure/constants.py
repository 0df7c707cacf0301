"""Constants with their units and published sources, read from `constants.json`."""

import json
from importlib import resources
from typing import Any

CONSTANTS: dict[str, Any] = json.loads(resources.files(__package__).joinpath("constants.json").read_text())
