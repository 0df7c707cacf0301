"""Pictures of a job: checked, turned upright, freed of where they were taken, and kept outside the database."""

from datetime import datetime
from uuid import UUID

from django.db import transaction
from PIL import Image

from jobs.models import Job, Picture
from people.models import Person
from pictures.files import MOST_BYTES, opened, size_of
from twincore.chain import LARGEST_PICTURES
from twincore.profile import Element, Hanging
from twincore.recognise.bank_picture import read_bank
from twincore.recognise.picture import PlacesRead
from twincore.recognise.wheel_picture import read_wheels
from twinshown.refusals import Faulty, NotThere, Refused

MOST_PICTURES = 200


@transaction.atomic
def add_picture(person: Person, job_id: UUID, picture_id: UUID, data: bytes, now: datetime) -> Picture:
    """Keep a picture; sending it twice keeps one. Refuses what is none, too large, or of another kind."""
    job = Job.objects.select_for_update(of=("self",)).filter(pk=job_id, depot=person.depot_id).first()
    if job is None:
        raise NotThere("Your depot has no such job.")
    if there := job.pictures.filter(name=picture_id).first():
        return there
    if job.closed_at is not None or job.origin is not None:
        raise Refused("This job is closed; nothing in it changes any more.")
    if job.pictures.count() >= MOST_PICTURES:
        raise Refused(f"A job keeps at most {MOST_PICTURES} pictures.")
    if sum(size_of(there.file) for there in job.pictures.all()) > LARGEST_PICTURES - MOST_BYTES:
        raise Refused(
            f"The pictures of a job have at most {LARGEST_PICTURES // 1_000_000} MB. Open another job for more."
        )
    picture = Picture(name=picture_id, job=job, added_at=now, added_by=person)
    picture.keep(data, f"{job.pk}/{picture_id}")
    return picture


def picture_of(job: Job, picture_id: UUID) -> Picture:
    """One picture of a job."""
    found = job.pictures.filter(name=picture_id).first()
    if found is None:
        raise NotThere("There is no such picture in this job.")
    return found


def read_element_from(
    picture: Picture, corners: list[tuple[float, float]], element: Element, hanging: Hanging, sliders: str
) -> PlacesRead:
    """A bank's sliders or thumbwheels' digits in a picture, place 1 first; proposed, never taken.

    `corners` are shares of width and height, clockwise from the upper left as seen, or, where the places run down, as the
    picture is turned so that they run from left to right.
    """
    with opened(picture.file) as file:
        image = Image.open(file)
        image.load()
    points = [(x * image.width, y * image.height) for x, y in corners]
    try:
        if element.rules.spells_number:
            read = read_wheels(image, points, len(element.points), sliders)
        else:
            # turned so that what runs down runs from left to right, left lies below and right above
            on_side = "bottom" if hanging.on in ("down", "left") else "top"
            read = read_bank(image, points, len(element.points), on_side, sliders)
    except ValueError as error:
        raise Faulty(f"{error}. Set the four corners again, clockwise from the upper left one.") from error
    return PlacesRead(tuple(hanging.seen(read.places)), read.rectified)
