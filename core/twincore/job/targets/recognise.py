"""Recognise: what the plate, the display and the board say."""

from typing import Literal, get_args

from typing_extensions import TypedDict

from twincore.job.target import Target
from twincore.job.values import Line, RevisionTaken, Scalar, Word, closed

Plate = Literal["plate", "display"]
Revision = Literal["hardware", "firmware"]
FactSource = Literal["plate", "display", "measured", "seen", "told"]


@closed
class PlateSaid(TypedDict):
    """A number as it stands on the plate or the display, and the scheme it is read by."""

    text: Word
    scheme: Word


@closed
class FactSaid(TypedDict):
    """A fact of the machine and where it is known from."""

    value: Scalar
    source: FactSource


TARGETS = (
    Target(
        "plate",
        "recognise",
        PlateSaid,
        "plates",
        "machine",
        names=get_args(Plate),
        takes_back=("carry_over", "fit", "prove"),
    ),
    Target("serial", "recognise", Word, "serial", "machine", named=False),
    Target("original", "recognise", Word, "original", "original", named=False),
    Target(
        "original_profile",
        "recognise",
        RevisionTaken,
        "original_profile",
        "original",
        named=False,
        takes_back=("carry_over", "fit", "prove"),
    ),
    Target(
        "original_joined",
        "recognise",
        Word,
        "original_joined",
        "original",
        named=False,
        takes_back=("carry_over", "fit", "prove"),
    ),
    Target("fact", "recognise", FactSaid, "facts", "machine", takes_back=("carry_over", "fit", "prove")),
    Target("revision", "recognise", Word, "revisions", "kind", names=get_args(Revision)),
    Target("feature", "recognise", Line, "features", "kind"),
)
