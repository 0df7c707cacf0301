"""Write the pictures of the demo world's board that nobody entered: python -m standins.printed FOLDER."""

import sys
from pathlib import Path

from standins.printed import leaflet, things
from standins.printed.worn import Wear, worn

LONGEST = 1500
WEAR = Wear(turned=1.8, lean=0.01, blur=0.6, noise=0.03, shade=0.25)


def main(folder: Path) -> None:
    """One JPEG for each thing in hand."""
    folder.mkdir(parents=True, exist_ok=True)
    pictures = {
        "board": things.board(), "plate": things.plate(), "leaflet-1": leaflet.first_page(),
        "leaflet-2": leaflet.second_page(),
    }  # fmt: skip
    for seed, (name, picture) in enumerate(pictures.items(), 1):
        taken = worn(picture, WEAR, seed)
        taken.thumbnail((LONGEST, LONGEST))
        taken.save(folder / f"{name}.jpg", quality=72)


if __name__ == "__main__":
    main(Path(sys.argv[1]))
