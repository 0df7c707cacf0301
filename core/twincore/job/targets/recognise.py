"""Recognise: what the plate, the display and the board say."""

from typing import Annotated, Literal, NotRequired, get_args

from pydantic import Field
from typing_extensions import TypedDict

from twincore.job.target import Signed, Target, signed
from twincore.job.values import Line, RevisionTaken, Scalar, Text, Word, closed

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


@closed
class Asked(TypedDict):
    """What the job asks of the depot, or what the depot answers."""

    what: Text


class AskedKept(Asked, Signed):
    """What was asked or answered, by whom and when."""


@closed
class BoardSaid(TypedDict):
    """One of several boards that a job is about: what it is called, and why it is changed along."""

    title: Annotated[Word, Field(min_length=1)]
    why: NotRequired[Line]


BoardName = Literal["1", "2", "3", "4", "5", "6"]
"""The boards of a job, in the order in which they come to it."""


TARGETS = (
    Target("board", "recognise", BoardSaid, "board_names", "machine", names=get_args(BoardName), waits_for=()),
    Target("boards_order", "recognise", list[BoardName], "boards_order", "machine", named=False, waits_for=()),
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
    Target("asked", "recognise", Asked, "asked", "machine", named=False, waits_for=(), keep=signed),
    Target("answered", "recognise", Asked, "answered", "machine", named=False, waits_for=(), keep=signed),
    Target("revision", "recognise", Word, "revisions", "kind", names=get_args(Revision)),
    Target("feature", "recognise", Line, "features", "kind"),
)
