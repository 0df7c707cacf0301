import { newId } from "@/api/ids";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { Choice, TextField } from "@/ui/fields";
import { oneOf } from "@/ui/oneOf";
import { useKeptState } from "@/ui/typed";
import type { StepProps } from "../../stepProps";
import { Segments } from "@/ui/Segments";

const SIDES = ["old", "new"] as const;
const WAYS = [
  ["scrap", "scrap"],
  ["core return", "core return"],
  ["kept for parts", "kept for parts"],
  ["repaired", "to be repaired"],
] as const;

/** Part and serial numbers, old and new, remote parts too; and where the old board goes. */
export function Numbers({ job, put }: StepProps) {
  const rows = Object.entries(job.numbered);
  const has = (side: string) => rows.some(([, each]) => each.side === side);
  const side: (typeof SIDES)[number] = has("old") ? "new" : "old";
  const [draft, setDraft] = useKeptState("number to write down", { what: "control board", side, serial: "" });
  const [number, setNumber] = useKeptState<string | null>("part number to write down", null);
  const known = draft.what === "control board" ? ((draft.side === "old" ? job.original : job.replacement) ?? "") : "";
  const part = number ?? known;
  const add = () => {
    void put({ target: `numbered.${newId()}`, after: { ...draft, part_number: part.trim() } });
    setDraft({ what: "control board", side: draft.side === "old" ? "new" : "old", serial: "" });
    setNumber(null);
  };
  return (
    <>
      <ul>
        {rows.map(([id, each]) => (
          <li key={id} className="flex flex-wrap items-center gap-3 border-b border-rule py-2">
            <span className="w-10 font-semibold">{each.side}</span>
            <span className="grow">
              {each.what} <span className="font-mono">{each.part_number}</span>{" "}
              {each.serial && (
                <>
                  serial <span className="font-mono text-lg">{each.serial}</span>
                </>
              )}
            </span>
            {!job.closed && (
              <Button
                kind="quiet"
                aria-label={`Strike out: ${each.side} ${each.what}`}
                onClick={() => void put({ target: `numbered.${id}`, after: null })}
              >
                Strike out
              </Button>
            )}
          </li>
        ))}
      </ul>
      {!job.closed && (
        <div className="grid items-end gap-3 sm:grid-cols-5">
          <Choice
            label="Side"
            value={draft.side}
            onChange={(event) => setDraft({ ...draft, side: oneOf(event.target.value, SIDES, draft.side) })}
          >
            {SIDES.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </Choice>
          <TextField
            label="Part"
            maxLength={120}
            value={draft.what}
            onChange={(event) => setDraft({ ...draft, what: event.target.value })}
          />
          <TextField
            label="Part number"
            maxLength={120}
            className="font-mono"
            value={part}
            onChange={(event) => setNumber(event.target.value)}
          />
          <TextField
            label="Serial number"
            maxLength={120}
            className="font-mono"
            value={draft.serial}
            onChange={(event) => setDraft({ ...draft, serial: event.target.value })}
          />
          <Button
            needs={lacking({
              "which part": !draft.what.trim(),
              "its part number or serial number": !(part.trim() || draft.serial.trim()),
            })}
            onClick={add}
          >
            Write it down
          </Button>
        </div>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <span>The old board:</span>
        <div className="max-w-full overflow-x-auto" tabIndex={0} role="region" aria-label="Where it goes">
          <Segments
            label="The old board"
            choices={WAYS}
            value={job.old_board?.way ?? ""}
            disabled={job.closed}
            onChange={(way) => void put({ target: "old_board", after: { way, note: "" } })}
          />
        </div>
      </div>
    </>
  );
}
