import { newId } from "@/api/ids";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { Segments } from "@/ui/Segments";
import { useKeptState } from "@/ui/typed";
import { useState } from "react";
import type { Job } from "../../api";
import type { StepProps } from "../../stepProps";
import { Next } from "../Next";

type Kind = Job["repairs"][string]["kind"];
const KINDS: [Kind, string][] = [
  ["fuse", "Fuse"],
  ["sensor", "Sensor"],
  ["setting", "Setting"],
  ["wire", "Wire"],
  ["switch", "Switch"],
  ["other", "Something else"],
];

/** What was put right where it was not the board: the job goes on to power, to looking at the machine, and to its papers. */
export function Repairs({ job, put }: StepProps) {
  const [kind, setKind] = useState<Kind>("fuse");
  const [what, setWhat] = useKeptState("repair what", "");
  const [part, setPart] = useKeptState("repair part", "");
  const rows = Object.entries(job.repairs);
  const add = () => {
    void put({
      target: `repair.${newId()}`,
      after: { kind, what: what.trim(), ...(part.trim() ? { part: part.trim() } : {}) },
    });
    setWhat("");
    setPart("");
  };
  return (
    <section id="repairs" aria-labelledby="repairs-title" tabIndex={-1} className="flex scroll-mt-24 flex-col gap-3">
      <h3 id="repairs-title">What was put right</h3>
      {rows.length === 0 && (
        <Next
          job={job}
          step="rule_out"
          words="say what was put right."
          button="Show me"
          onGo={() => document.getElementById("repair-what")?.focus()}
        />
      )}
      <ul>
        {rows.map(([id, each]) => (
          <li key={id} className="flex flex-wrap items-center gap-3 border-b border-rule py-2">
            <span className="grow">
              <strong>{each.kind}</strong>: {each.what} {each.part && <span className="font-mono">{each.part}</span>}
              <span className="text-faint"> ({each.by})</span>
            </span>
            {!job.closed && (
              <Button
                kind="quiet"
                aria-label={`Strike out: ${each.kind}, ${each.what}`}
                onClick={() => void put({ target: `repair.${id}`, after: null })}
              >
                Strike out
              </Button>
            )}
          </li>
        ))}
      </ul>
      {!job.closed && (
        <>
          <Segments label="What it was" choices={KINDS} value={kind} onChange={setKind} />
          <div className="grid items-end gap-3 sm:grid-cols-[2fr_1fr_auto]">
            <TextField
              id="repair-what"
              label="What was done"
              maxLength={200}
              value={what}
              onChange={(event) => setWhat(event.target.value)}
            />
            <TextField
              label="Part number, if a part went in"
              maxLength={80}
              className="font-mono"
              value={part}
              onChange={(event) => setPart(event.target.value)}
            />
            <Button kind="main" needs={lacking({ "what was put right": !what.trim() })} onClick={add}>
              Put right
            </Button>
          </div>
        </>
      )}
    </section>
  );
}
