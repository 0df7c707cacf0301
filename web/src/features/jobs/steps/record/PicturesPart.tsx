import type { Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import type { Element } from "@/drawing/types";
import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { personHere } from "@/api/kept";
import { keepPicture, sendPicture } from "@/with_you/pictures";
import { shrunk } from "@/with_you/shrinking";
import type { StepProps } from "../../stepProps";
import { DraftField } from "../DraftField";
import { ElementFromPicture } from "./ElementFromPicture";
import { MarkedPicture, type Mark } from "./MarkedPicture";

/** A picture waits on this device before it is sent with its entry; a device without room for it sends it at once. */
async function keepOrSend(job: string, id: string, file: Blob) {
  try {
    await keepPicture(personHere() ?? "", job, id, file);
  } catch {
    await sendPicture(job, id, file);
  }
}

type Kept = { caption: string; of: string; marks: Mark[] };
type Props = StepProps & { record: Schemas["RecordShown"]; elements: Element[] };

/** Pictures with marks. A picture shows how it was wired, which is not always how it should be. */
export function PicturesPart({ job, put, elements }: Props) {
  const [problem, setProblem] = useState<unknown>(null);
  const [sending, setSending] = useState(0);
  const [bank, setBank] = useState<string | null>(null);
  const add = async (files: FileList | null) => {
    setProblem(null);
    for (const file of files ?? []) {
      const id = newId();
      setSending((now) => now + 1);
      try {
        await keepOrSend(job.id, id, await shrunk(file));
        await put({ target: `picture.${id}`, after: { caption: "", of: "", marks: [] } });
      } catch (error) {
        setProblem(error);
      } finally {
        setSending((now) => now - 1);
      }
    }
  };
  const readable = elements.filter((each) => each.kind === "dip" || each.kind === "thumbwheel");
  const pictures = Object.entries(job.pictures);
  return (
    <>
      {!job.closed && (
        <label className="inline-flex min-h-11 cursor-pointer items-center self-start rounded-sm border border-edge bg-raised px-4 focus-within:outline-2 focus-within:outline-focus">
          <input
            type="file"
            accept="image/jpeg,image/png,image/webp"
            multiple
            className="sr-only"
            onChange={(event) => {
              void add(event.target.files).then(() => (event.target.value = ""));
            }}
          />
          Add pictures
        </label>
      )}
      {sending > 0 && <p role="status">Sending {sending} …</p>}
      {problem !== null && <ProblemNotice problem={problem} />}
      {pictures.length === 0 && <p className="text-faint">No pictures yet. Where they were taken is not kept.</p>}
      {pictures.map(([id, kept]) => (
        <div key={id} className="flex flex-col gap-2">
          <MarkedPicture
            job={job.id}
            picture={id}
            caption={kept.caption}
            marks={kept.marks}
            disabled={job.closed}
            onMarks={(marks) => void put({ target: `picture.${id}`, after: { ...bare(kept), marks } })}
          />
          <DraftField
            label="What it shows"
            value={kept.caption}
            disabled={job.closed}
            onSave={(caption) => void put({ target: `picture.${id}`, after: { ...bare(kept), caption } })}
          />
          {!job.closed && (
            <div className="flex flex-wrap gap-2">
              {readable.length > 0 && (
                <Button onClick={() => setBank(id)}>Read {readable.map((each) => each.id).join(", ")} from it</Button>
              )}
              <Button kind="quiet" onClick={() => void put({ target: `picture.${id}`, after: null })}>
                Leave it out
              </Button>
            </div>
          )}
        </div>
      ))}
      {bank && (
        <ElementFromPicture
          job={job}
          picture={bank}
          elements={readable}
          onClose={() => setBank(null)}
          onTake={(element, value) => {
            void put({ target: `found.${element}`, after: value, read_how: "from a picture" });
            setBank(null);
          }}
        />
      )}
    </>
  );
}

function bare({ caption, of, marks }: Kept): Kept {
  return { caption, of, marks };
}
