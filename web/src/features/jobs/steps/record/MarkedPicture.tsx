import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { useState, type MouseEvent } from "react";
import { JobPicture } from "../../JobPicture";

export type Mark = { x: number; y: number; text: string };
type Props = {
  job: string;
  picture: string;
  caption: string;
  marks: Mark[];
  disabled: boolean;
  onMarks: (marks: Mark[]) => void;
};

/** A picture with numbered marks; tap it to set one, and write what is there. */
export function MarkedPicture({ job, picture, caption, marks, disabled, onMarks }: Props) {
  const [draft, setDraft] = useState<Mark | null>(null);
  const tap = (event: MouseEvent<HTMLDivElement>) => {
    if (!disabled) setDraft({ ...shareAt(event), text: "" });
  };
  return (
    <div className="flex flex-col gap-2">
      {/* the marks can also be set and read as the list below */}
      <div className="relative self-start" onClick={tap}>
        <JobPicture
          job={job}
          picture={picture}
          alt={caption || "A picture of this job, without words yet"}
          className="block max-h-[70vh] max-w-full"
        />
        {[...marks, ...(draft ? [draft] : [])].map((mark, index) => (
          <span
            key={index}
            aria-hidden="true"
            className="absolute grid size-7 -translate-1/2 place-items-center rounded-full border-2 border-[#fffdf8] bg-[#1d1b19] font-mono text-sm text-[#fffdf8]"
            style={{ left: `${mark.x * 100}%`, top: `${mark.y * 100}%` }}
          >
            {index + 1}
          </span>
        ))}
      </div>
      {draft && (
        <div className="flex flex-wrap items-end gap-2">
          <div className="w-64 max-w-full">
            <TextField
              label={`Mark ${marks.length + 1}: what is there`}
              maxLength={120}
              value={draft.text}
              onChange={(event) => setDraft({ ...draft, text: event.target.value })}
            />
          </div>
          <Button onClick={() => (onMarks([...marks, draft]), setDraft(null))}>Keep the mark</Button>
          <Button kind="quiet" onClick={() => setDraft(null)}>
            No mark
          </Button>
        </div>
      )}
      {marks.length > 0 && (
        <ol className="list-decimal pl-6">
          {marks.map((mark, index) => (
            <li key={index}>
              {mark.text || "a mark"}
              {!disabled && (
                <Button
                  kind="quiet"
                  aria-label={`Remove mark ${index + 1}`}
                  onClick={() => onMarks(marks.filter((_, place) => place !== index))}
                >
                  Remove
                </Button>
              )}
            </li>
          ))}
        </ol>
      )}
    </div>
  );
}

/** Where in an element somebody tapped, as shares of its width and height. */
export function shareAt(event: MouseEvent<HTMLElement>): { x: number; y: number } {
  const box = event.currentTarget.getBoundingClientRect();
  return {
    x: Math.min(Math.max((event.clientX - box.left) / box.width, 0), 1),
    y: Math.min(Math.max((event.clientY - box.top) / box.height, 0), 1),
  };
}
