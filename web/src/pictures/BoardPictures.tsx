import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { addressOf, useAddPicture, useBoardPictures, useLayUnder, useTakeOutPicture, type Of } from "./api";
import { PictureButton } from "./PictureButton";

const OF: [Of, string][] = [
  ["board", "Picture of the board"],
  ["leaflet", "Page of the leaflet"],
  ["plate", "Nameplate"],
];

/** A board’s own pictures: of itself, its plate and its leaflet; one of them large, to read from. */
export function BoardPictures({ partNumber, canAdd }: { partNumber: string; canAdd: boolean }) {
  const pictures = useBoardPictures(partNumber);
  const add = useAddPicture();
  const out = useTakeOutPicture();
  const lay = useLayUnder();
  const [large, setLarge] = useState<string | null>(null);
  const items = pictures.data?.items ?? [];
  const shown = items.find((each) => each.id === large);
  if (!canAdd && items.length === 0) return null;
  return (
    <section aria-label="Pictures" className="flex flex-col gap-3">
      {items.length > 0 && (
        <ul className="flex flex-wrap gap-2">
          {items.map((each) => (
            <li key={each.id}>
              <button
                type="button"
                aria-pressed={each.id === large}
                onClick={() => setLarge(each.id === large ? null : each.id)}
                className={`block border-2 ${each.id === large ? "border-text" : "border-edge"}`}
              >
                <img
                  src={addressOf(each.id)}
                  alt={`${each.of}, taken by ${each.added_by}`}
                  className="h-16 w-auto"
                  loading="lazy"
                />
              </button>
            </li>
          ))}
        </ul>
      )}
      {shown && (
        <figure className="flex flex-col gap-1">
          <div
            className="max-h-[70vh] overflow-auto border border-edge"
            tabIndex={0}
            role="region"
            aria-label="The picture, large"
          >
            <img src={addressOf(shown.id)} alt={`The ${shown.of}, large`} className="w-full max-w-none min-w-[32rem]" />
          </div>
          <figcaption className="flex flex-wrap items-center gap-3 text-sm text-faint">
            {shown.of}, {shown.added_by}, {new Date(shown.added_at).toLocaleDateString([], { dateStyle: "medium" })}
            {canAdd && (
              <>
                {shown.of === "board" && (
                  <Button kind="quiet" onClick={() => lay.mutate({ picture: shown.id, under: !shown.under })}>
                    {shown.under ? "Take it from under the drawing" : "Lay it under the drawing"}
                  </Button>
                )}
                <Button kind="quiet" onClick={() => out.mutate(shown.id)}>
                  Take it out
                </Button>
              </>
            )}
          </figcaption>
        </figure>
      )}
      <ProblemNotice problem={add.error ?? out.error ?? lay.error ?? pictures.error} />
      {canAdd && (
        <p className="flex flex-wrap gap-2">
          {OF.map(([of, words]) => (
            <PictureButton
              key={of}
              words={words}
              disabled={add.isPending}
              onPicture={(file) => add.mutate({ partNumber, file, of })}
            />
          ))}
        </p>
      )}
    </section>
  );
}
