"""What every picture that is kept has, whatever it belongs to."""

from hashlib import sha256

from django.core.files.base import ContentFile
from django.db import models, transaction

from people.models import Person
from pictures.files import encoded, upright


class KeptPicture(models.Model):
    """A picture: its file lies outside the database, checked, turned upright and without its place."""

    file = models.FileField(max_length=200)
    digest = models.CharField(max_length=64)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    added_at = models.DateTimeField()
    added_by = models.ForeignKey(Person, on_delete=models.PROTECT, null=True, related_name="+")

    class Meta:
        abstract = True
        ordering = ["added_at", "id"]

    def keep(self, data: bytes, name: str) -> None:
        """Save the picture with its file under a name without a suffix. Raises Faulty for what is no picture."""
        image, suffix = upright(data)
        kept = encoded(image, suffix)
        self.digest, self.width, self.height = sha256(kept).hexdigest(), image.width, image.height
        # the file first: a row never names a picture that is not there; a file without a row is swept by nobody's mistake
        self.file.save(f"{name}.{suffix}", ContentFile(kept), save=False)
        try:
            with transaction.atomic():
                self.save(force_insert=True)
        except BaseException:
            self.file.delete(save=False)
            raise
