import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import type { StepProps } from "../../stepProps";

type Line = Schemas["KitShown"];
const NEEDED: Record<string, string> = { needed: "needed", perhaps: "perhaps needed", "not needed": "not needed here" };

/** The kit against its list: what is there is counted; what is missing or left over is named. */
export function KitPart({ job, put, kit }: StepProps & { kit: Line[] }) {
  if (kit.length === 0) return <p className="text-faint">This board comes alone, and the wiring takes nothing else.</p>;
  const uncounted = kit.filter((line) => line.needed === "needed" && job.kit[line.item] === undefined);
  return (
    <>
      <ul className="border-t border-rule">
        {kit.map((line) => (
          <li key={line.item} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-2">
            <span className="min-w-44 grow">
              <strong>
                {line.count} × {line.item}
              </strong>{" "}
              <span className="text-faint">
                {NEEDED[line.needed]}
                {line.facts.length > 0 && `: depends on ${line.facts.join(", ")}`}
              </span>
            </span>
            <span className={said(line, job.kit[line.item]).bad ? "font-semibold" : "text-faint"}>
              {said(line, job.kit[line.item]).words}
            </span>
            {!job.closed && (
              <span className="flex gap-1">
                <Button
                  aria-label={`One less: ${line.item}`}
                  onClick={() =>
                    void put({ target: `kit.${line.item}`, after: Math.max(0, (job.kit[line.item] ?? 0) - 1) })
                  }
                >
                  −
                </Button>
                <Button
                  aria-label={`One more: ${line.item}`}
                  onClick={() => void put({ target: `kit.${line.item}`, after: (job.kit[line.item] ?? 0) + 1 })}
                >
                  +
                </Button>
              </span>
            )}
          </li>
        ))}
      </ul>
      {!job.closed && uncounted.length > 0 && (
        <Button
          kind="main"
          className="self-start"
          onClick={() => uncounted.forEach((line) => void put({ target: `kit.${line.item}`, after: line.count }))}
        >
          All of it is there
        </Button>
      )}
    </>
  );
}

function said(line: Line, there: number | undefined): { words: string; bad: boolean } {
  if (there === undefined) return { words: "not counted", bad: false };
  const over = there - (line.needed === "not needed" ? 0 : line.count);
  if (over < 0) return { words: `${-over} missing`, bad: true };
  if (over > 0 && line.needed !== "perhaps") return { words: `${there} there, ${over} left over`, bad: false };
  return { words: `${there} there`, bad: false };
}
