"""Pictures made worse as hands and years make them: turned, in perspective, unevenly lit, blurred, noisy, burnt in a spot."""

from dataclasses import dataclass
from random import Random

import numpy
from PIL import Image, ImageDraw, ImageFilter


@dataclass(frozen=True, slots=True)
class Wear:
    """How much of each; degrees, pixels, and shares of full brightness."""

    turned: float = 0.0
    lean: float = 0.0
    """How far the upper corners move together, as a share of the width."""
    blur: float = 0.0
    noise: float = 0.0
    shade: float = 0.0
    burnt: float = 0.0
    """The radius of a burnt spot, as a share of the width."""


def some_wear(seed: int, worst: float = 1.0) -> Wear:
    """Wear drawn by a seed; `worst` scales all of it."""
    dice = Random(seed)
    return Wear(
        turned=dice.uniform(-5, 5) * worst, lean=dice.uniform(0, 0.03) * worst, blur=dice.uniform(0.3, 1.6) * worst,
        noise=dice.uniform(0.01, 0.06) * worst, shade=dice.uniform(0, 0.45) * worst,
        burnt=dice.choice((0, 0, 0.04, 0.07)) * worst,
    )  # fmt: skip


def worn(image: Image.Image, wear: Wear, seed: int = 0) -> Image.Image:
    """The picture after that wear; the same for the same seed."""
    dice = Random(seed)
    colour = image.convert("RGB")
    width, height = colour.size
    paper = colour.getpixel((2, 2))
    if wear.burnt:
        radius = wear.burnt * width
        x, y = dice.uniform(0.1, 0.9) * width, dice.uniform(0.1, 0.9) * height
        spot = Image.new("L", colour.size, 0)
        ImageDraw.Draw(spot).ellipse((x - radius, y - radius, x + radius, y + radius), 235)
        spot = spot.filter(ImageFilter.GaussianBlur(radius / 4))
        colour.paste((44, 30, 18), mask=spot)
    if wear.lean:
        inset = wear.lean * width
        corners = (-inset, 0, 0, height, width, height, width + inset, 0)
        colour = colour.transform(colour.size, Image.Transform.QUAD, corners, Image.Resampling.BICUBIC, fillcolor=paper)
    if wear.turned:
        colour = colour.rotate(wear.turned, Image.Resampling.BICUBIC, expand=True, fillcolor=paper)
    if wear.blur:
        colour = colour.filter(ImageFilter.GaussianBlur(wear.blur * max(1, width / 1000)))
    pixels = numpy.asarray(colour, dtype=float)
    if wear.shade:
        slope = numpy.linspace(1, 1 - wear.shade, pixels.shape[1])[None, :, None]
        pixels = pixels * (slope if dice.random() < 0.5 else slope[:, ::-1])
    if wear.noise:
        grain = numpy.random.default_rng(seed).normal(0, wear.noise * 255, pixels.shape[:2])
        pixels = pixels + grain[..., None]
    return Image.fromarray(numpy.clip(pixels, 0, 255).astype("uint8"))
