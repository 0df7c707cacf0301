"""Whether a function means anything on the original, by what it wants of the functions that the family names in `matters_if`."""

from collections.abc import Mapping

from twincore.profile import FunctionDef
from twincore.profile.values import same
from twincore.settings.decode import Decoded


def matters(definition: FunctionDef, wanted: Mapping[str, Decoded]) -> bool:
    """Whether a function can matter where the functions stand as they are wanted.

    It does where each function that it depends on may still have one of the values given. One that is reserved, or of which
    nothing is known, may have any.
    """
    return all(
        name not in wanted
        or wanted[name].reserved
        or any(same(value, one) for value in wanted[name].values for one in values)
        for name, values in definition.matters_if
    )
