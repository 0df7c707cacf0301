import { newId } from "@/api/ids";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextArea, TextField } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import type { StepProps } from "../../stepProps";

const RESULTS = ["worked", "worked with a change", "did not"] as const;

/** After closing: how the new board does, at once and after a month; and corrections, each a new entry beside the old. */
export function Afterwards({ job, put }: StepProps) {
  const kept = job.origin !== null;
  return (
    <>
      <section aria-label="How the new board does" className="flex flex-col gap-3">
        <h3>How the new board does</h3>
        <p className="text-sm text-faint">
          Counted into the cross-references: the next one who takes this pairing sees it.
        </p>
        <How job={job} put={put} name="now" title="At once" kept={kept} />
        <How job={job} put={put} name="later" title="After a month" kept={kept} />
      </section>
      <Corrections job={job} put={put} kept={kept} />
    </>
  );
}

function How({ job, put, name, title, kept }: StepProps & { name: string; title: string; kept: boolean }) {
  const said = job.feedback[name];
  const [note, setNote] = useKeptState(`feedback ${name}`, "");
  if (kept && !said) return null;
  return (
    <div className="border-t border-rule pt-2">
      <p>
        <strong>{title}:</strong>{" "}
        {said ? `${said.result}${said.note ? `, ${said.note}` : ""} (${said.by})` : "nobody has said yet"}
      </p>
      {!kept && (
        <div className="mt-2 flex flex-wrap gap-2">
          <div className="w-full">
            <TextField
              label={`What was changed, or did not work (${title.toLowerCase()})`}
              maxLength={2000}
              value={note}
              onChange={(event) => setNote(event.target.value)}
            />
          </div>
          {RESULTS.map((result) => (
            <Button
              key={result}
              aria-label={`${title}: it ${result}${result === "did not" ? " work" : ""}`}
              needs={lacking({ "what did not work": result !== "worked" && !note.trim() })}
              onClick={() => {
                void put({ target: `feedback.${name}`, after: { result, note: note.trim() } });
                setNote("");
              }}
            >
              {result === "did not" ? "did not work" : result}
            </Button>
          ))}
        </div>
      )}
    </div>
  );
}

function Corrections({ job, put, kept }: StepProps & { kept: boolean }) {
  const [what, setWhat] = useKeptState("correction", "");
  const [entry, setEntry] = useKeptState("correction entry", "");
  const rows = Object.entries(job.corrections);
  const number = entry.trim() === "" ? null : Number(entry);
  const usable = number === null || (Number.isInteger(number) && number >= 1 && number <= job.entry_count);
  return (
    <section aria-label="Corrections" className="flex flex-col gap-3">
      <h3>Corrections</h3>
      {rows.length === 0 && <p className="text-faint">None. What is wrong is not changed; it is said beside it.</p>}
      <ul>
        {rows.map(([id, each]) => (
          <li key={id} className="border-b border-rule py-2">
            {each.what}{" "}
            <span className="text-faint">
              ({each.entry !== null && `about entry ${each.entry}, `}
              {each.by}, {new Date(each.at).toLocaleDateString()})
            </span>
          </li>
        ))}
      </ul>
      {!kept && (
        <div className="flex flex-col gap-2">
          <TextArea
            label="What is wrong, and what it should say"
            maxLength={2000}
            value={what}
            onChange={(event) => setWhat(event.target.value)}
          />
          <div className="flex flex-wrap items-end gap-2">
            <div className="w-40">
              <TextField
                label="About entry"
                hint="its number in the history"
                inputMode="numeric"
                value={entry}
                aria-invalid={!usable}
                onChange={(event) => setEntry(event.target.value)}
              />
            </div>
            <Button
              needs={lacking({ "what is wrong": !what.trim(), "a number from the history": !usable })}
              onClick={() => {
                void put({ target: `correction.${newId()}`, after: { what: what.trim(), entry: number } });
                setWhat("");
                setEntry("");
              }}
            >
              Add the correction
            </Button>
          </div>
        </div>
      )}
    </section>
  );
}
