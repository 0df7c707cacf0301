import { Sheet } from "@/ui/Sheet";
import { useState } from "react";
import type { Job } from "../../api";
import { JobPicture } from "../../JobPicture";

const MOST = 4;

/** The pictures of this job, small, to be held beside a drawing; one comes up large at a touch. */
export function KeptPictures({ job }: { job: Job }) {
  const [large, setLarge] = useState<string | null>(null);
  const kept = Object.entries(job.pictures);
  const words = (id: string) => job.pictures[id]?.caption || "a picture without words yet";
  if (kept.length === 0) return null;
  return (
    <div className="mt-2">
      <ul aria-label="Pictures of this job" className="flex flex-wrap gap-2">
        {kept.slice(0, MOST).map(([id]) => (
          <li key={id}>
            <button type="button" onClick={() => setLarge(id)} className="block border border-edge">
              <JobPicture
                job={job.id}
                picture={id}
                alt={`Larger: ${words(id)}`}
                loading="lazy"
                className="size-24 object-cover"
              />
            </button>
          </li>
        ))}
      </ul>
      {kept.length > MOST && <p className="text-sm text-faint">and {kept.length - MOST} more under Pictures</p>}
      {large && (
        <Sheet open onClose={() => setLarge(null)} title={words(large)}>
          <JobPicture
            job={job.id}
            picture={large}
            alt={words(large)}
            className="mx-auto block max-h-[72vh] max-w-full"
          />
        </Sheet>
      )}
    </div>
  );
}
