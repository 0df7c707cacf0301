import type { StepProps } from "../../stepProps";
import { DraftField } from "../DraftField";

/** Hardware and firmware revisions are read apart from the number. */
export function Revisions({ job, put }: StepProps) {
  return (
    <section aria-labelledby="revisions" className="flex flex-col gap-3">
      <h3 id="revisions">Revisions, read apart from the number</h3>
      <div className="grid gap-3 sm:grid-cols-2">
        {(["hardware", "firmware"] as const).map((kind) => (
          <DraftField
            key={kind}
            label={kind === "hardware" ? "Hardware, printed on the board" : "Firmware, on a sticker or the display"}
            className="font-mono"
            value={job.revisions[kind] ?? ""}
            disabled={job.closed}
            onSave={(text) => void put({ target: `revision.${kind}`, after: text || null })}
          />
        ))}
      </div>
    </section>
  );
}
