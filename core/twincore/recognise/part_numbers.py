"""Part numbers as they are read off a board: one form for all ways of writing one."""

import re
import unicodedata

LOOK_ALIKES = str.maketrans("OQDILSBZG", "000115826")
"""Letters that a burnt or worn label makes look like digits (common practice, no source)."""


def normal_form(marking: str) -> str:
    """A marking without separators, case and leading zeros of its groups: "tvh 02210/b" gives "TVH2210B"."""
    text = unicodedata.normalize("NFKC", marking).upper()
    groups = re.findall(r"[A-Z]+|[0-9]+", text)
    return "".join(group.lstrip("0") or "0" for group in groups)


def without_look_alikes(marking: str) -> str:
    """A marking with every letter that may be a misread digit as that digit: "TVH-221O-8" equals "TVH-2210-B".

    Leading zeros stay, for a worn letter may be one of them.
    """
    text = unicodedata.normalize("NFKC", marking).upper()
    return re.sub(r"[^A-Z0-9]", "", text).translate(LOOK_ALIKES)
