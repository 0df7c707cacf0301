import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import type { StepProps } from "../../stepProps";

/** Things to look at, each with its own tick. */
export function Looks({ job, put, looks }: StepProps & { looks: Schemas["LookShown"][] }) {
  if (looks.length === 0) return <p className="text-faint">Nothing to look at here.</p>;
  return (
    <ul className="border-t border-rule">
      {looks.map((look) => {
        const done = job.looks[look.key] === true;
        return (
          <li key={look.key} className="flex items-center gap-4 border-b border-rule py-2">
            <span className="grow">
              <span className={done ? "text-faint" : "font-semibold"}>
                {done && "✓ "}
                {look.words}
              </span>
              {look.detail && <span className="block text-sm text-faint">{look.detail}</span>}
            </span>
            {job.closed ? (
              <span>{done ? "✓" : "not ticked"}</span>
            ) : (
              <Button
                aria-label={done ? `Undo: ${look.words}` : `Checked - OK: ${look.words}`}
                kind={done ? "quiet" : "plain"}
                className="shrink-0"
                onClick={() => void put({ target: `look.${look.key}`, after: done ? null : true })}
              >
                {done ? "Undo" : "Checked - OK"}
              </Button>
            )}
          </li>
        );
      })}
    </ul>
  );
}
