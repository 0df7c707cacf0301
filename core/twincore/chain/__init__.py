"""The hash chain of a job's entries, and the package that carries a whole job from depot to depot."""

from twincore.chain.bounds import (
    LARGEST_FILE,
    LARGEST_PACKAGE,
    LARGEST_PICTURES,
    LARGEST_RECORD,
    MOST_ENTRIES,
    MOST_SAID,
)
from twincore.chain.links import canonical, chained, first_link, link, seal_of
from twincore.chain.package import (
    DOCUMENTS,
    Package,
    PackageFile,
    open_package,
    open_record,
    write_package,
)

__all__ = [
    "DOCUMENTS",
    "LARGEST_FILE",
    "LARGEST_PACKAGE",
    "LARGEST_PICTURES",
    "LARGEST_RECORD",
    "MOST_ENTRIES",
    "MOST_SAID",
    "Package",
    "PackageFile",
    "canonical",
    "chained",
    "first_link",
    "link",
    "open_package",
    "open_record",
    "seal_of",
    "write_package",
]
