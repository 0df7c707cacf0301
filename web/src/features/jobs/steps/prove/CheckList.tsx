import type { Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { useState } from "react";
import type { StepProps } from "../../stepProps";

type Line = Schemas["CheckShown"];

/** What is said of a line that speaks of something this machine does not have: nothing was seen, and nothing is wrong. */
export const ABSENT = { ok: true, absent: true };

/** Whether something was said of a line. */
export function isAnswered(line: Line): boolean {
  return line.ok !== null || line.absent;
}

/** What is looked at in seconds, in any order; lines of one's own are added. */
export function CheckList({ job, put, lines }: StepProps & { lines: Line[] }) {
  const [own, setOwn] = useState("");
  const say = (line: Line, after: object | null) =>
    void put({
      target: `check.${line.id}`,
      after: after && (line.own ? { ...after, what: line.words } : after),
    } as never);
  return (
    <div className="flex flex-col gap-3">
      <ul className="border-t border-rule" aria-label="Check list">
        {lines.map((line) => (
          <li key={line.id} className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-rule py-2">
            <span className={`grow basis-56 ${isAnswered(line) ? "text-faint" : ""}`}>
              {line.ok === true && "✓ "}
              {line.ok === false && "✗ "}
              {line.words}
              {line.ok === false && <strong className="block text-text">not as it should be</strong>}
              {line.absent && <span className="block">not on this machine</span>}
              {line.by && <span className="block text-sm">{line.by}</span>}
            </span>
            {!job.closed &&
              (!isAnswered(line) ? (
                <span className="flex flex-wrap gap-2">
                  <Button aria-label={`Good: ${line.words}`} onClick={() => say(line, { ok: true })}>
                    Good
                  </Button>
                  <Button kind="quiet" aria-label={`Not so: ${line.words}`} onClick={() => say(line, { ok: false })}>
                    Not so
                  </Button>
                  {!line.own && (
                    <Button
                      kind="quiet"
                      aria-label={`Not on this machine: ${line.words}`}
                      onClick={() => say(line, ABSENT)}
                    >
                      Not on this machine
                    </Button>
                  )}
                </span>
              ) : (
                <Button kind="quiet" aria-label={`Undo: ${line.words}`} onClick={() => say(line, null)}>
                  Undo
                </Button>
              ))}
          </li>
        ))}
      </ul>
      {!job.closed && (
        <form
          className="grid items-end gap-3 sm:grid-cols-[1fr_auto]"
          onSubmit={(event) => {
            event.preventDefault();
            if (!own.trim()) return;
            void put({ target: `check.own/${newId()}`, after: { ok: true, what: own.trim() } });
            setOwn("");
          }}
        >
          <TextField
            label="Something else that was seen to be good"
            hint="such as: the door's lamp, on between two positions"
            maxLength={200}
            value={own}
            onChange={(event) => setOwn(event.target.value)}
          />
          <Button type="submit" needs={lacking({ "what was seen": !own.trim() })}>
            Add it
          </Button>
        </form>
      )}
      <p className="text-sm text-faint">
        A check list shows that it works. That it works as the original did is shown by timed runs, and by the twin
        check.
      </p>
    </div>
  );
}
