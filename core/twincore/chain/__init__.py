"""The hash chain of a job's entries, and the package that carries a whole job from depot to depot."""

from twincore.chain.links import chained, first_link, link, seal_of
from twincore.chain.package import (
    DOCUMENTS,
    LARGEST_FILE,
    LARGEST_PACKAGE,
    Package,
    PackageFile,
    open_package,
    sealed_part,
    verify_package,
    write_package,
)

__all__ = [
    "DOCUMENTS",
    "LARGEST_FILE",
    "LARGEST_PACKAGE",
    "Package",
    "PackageFile",
    "chained",
    "first_link",
    "link",
    "open_package",
    "seal_of",
    "sealed_part",
    "verify_package",
    "write_package",
]
