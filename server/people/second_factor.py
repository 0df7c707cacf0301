"""A second factor at sign-in: a code from a device that counts with the clock (TOTP, RFC 6238), or one of ten written down."""

from base64 import b32encode
from dataclasses import dataclass

import segno
from django.db import transaction
from django.db.models import Exists, OuterRef
from django_otp import match_token
from django_otp.plugins.otp_static.models import StaticDevice, StaticToken
from django_otp.plugins.otp_totp.models import TOTPDevice

from people.models import Person
from twincore.errors import Fault
from twinshown.refusals import Faulty, NotThere, Refused

WRITTEN_DOWN = 10


@dataclass(frozen=True, slots=True)
class Offer:
    """What a device needs to count along: its secret as text, and in a picture (SVG) that it reads."""

    secret: str
    picture: str


def is_asked_of(person: Person) -> bool:
    """Whether somebody signs in with a second factor."""
    return TOTPDevice.objects.filter(user=person, confirmed=True).exists()


IS_ASKED = Exists(TOTPDevice.objects.filter(user=OuterRef("pk"), confirmed=True))
"""The same in a query of people."""


def begin(person: Person) -> Offer:
    """A new secret, which counts once a code of it was given. Raises Refused where there is a second factor already."""
    if is_asked_of(person):
        raise Refused("You sign in with a second factor already. Take it away first.")
    TOTPDevice.objects.filter(user=person).delete()
    device = TOTPDevice.objects.create(user=person, name="device", confirmed=False)
    picture = segno.make(device.config_url, error="m").svg_data_uri(scale=4, border=4, dark="#000", light="#fff")
    return Offer(b32encode(device.bin_key).decode().rstrip("="), picture)


@transaction.atomic
def confirm(person: Person, code: str) -> list[str]:
    """Take the second factor into use with a first code of it; the codes to write down, each good once. Raises Faulty."""
    device = TOTPDevice.objects.select_for_update().filter(user=person, confirmed=False).first()
    if device is None:
        raise NotThere("Begin with a new secret.")
    if not device.verify_token(_plain(code)):
        raise Faulty(
            "This code is none of it. Check the clock of the device, wait for the next code, and enter it.",
            [Fault("code", "expected the six digits that the device shows now")],
        )
    device.confirmed = True
    device.save(update_fields=["confirmed"])
    StaticDevice.objects.filter(user=person).delete()
    written = StaticDevice.objects.create(user=person, name="written down")
    codes = [StaticToken.random_token() for _ in range(WRITTEN_DOWN)]
    StaticToken.objects.bulk_create(StaticToken(device=written, token=each) for each in codes)
    return codes


def is_right(person: Person, code: str) -> bool:
    """Whether a code is one that counts now; of two tries with it one counts, and wrong ones slow down the next."""
    return match_token(person, _plain(code)) is not None


@transaction.atomic
def take_away(person: Person) -> None:
    """Sign in with the password alone again."""
    TOTPDevice.objects.filter(user=person).delete()
    StaticDevice.objects.filter(user=person).delete()


def _plain(code: str) -> str:
    return "".join(code.split()).lower()
