import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { PictureButton } from "@/pictures/PictureButton";
import { placeIn, shapeOf, type Place } from "./lines";

/** A picture that was taken, and where this page shows it. */
export type Shown = { file: File; url: string };

type Props = {
  picture: Shown | null;
  places: Schemas["TappedPlace"][];
  /** Where the next thing is. */
  at: Place | null;
  onPicture: (picture: Shown | null, shape: string) => void;
  onTap: (at: Place) => void;
};

/** A picture of the board, on which one taps where each thing is. */
export function SketchPicture({ picture, places, at, onPicture, onTap }: Props) {
  if (!picture)
    return (
      <p>
        <PictureButton
          words="Tap it on a picture"
          onPicture={(file) =>
            void shapeOf(file).then((shape) => onPicture({ file, url: URL.createObjectURL(file) }, shape))
          }
        />
      </p>
    );
  return (
    <div className="flex flex-col gap-2">
      <p className="text-sm">
        {at ? "Now say what is there." : "Tap where a bank, dial, plug or lamp is, then say what it is."}
      </p>
      <div className="relative w-full max-w-xl">
        <button
          type="button"
          aria-label="The board: tap where something is"
          className="block w-full cursor-crosshair border border-edge"
          onClick={(event) => onTap(placeIn(event.currentTarget.getBoundingClientRect(), event))}
        >
          <img src={picture.url} alt="" className="block w-full" />
        </button>
        {[...places, ...(at ? [{ ref: "?", ...at }] : [])].map((each) => (
          <span
            key={each.ref}
            className="pointer-events-none absolute -translate-x-1/2 -translate-y-1/2 rounded-sm border-2 border-text bg-raised px-1 font-mono text-sm font-semibold"
            style={{ left: `${each.x}%`, top: `${each.y}%` }}
          >
            {each.ref}
          </span>
        ))}
      </div>
      <Button kind="quiet" className="self-start" onClick={() => onPicture(null, "")}>
        Go on without the picture
      </Button>
    </div>
  );
}
