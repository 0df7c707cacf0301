import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import type { StepProps } from "../../stepProps";
import { DraftField } from "../DraftField";

type Props = StepProps & { fitting: Schemas["FittingShown"] };
type Item = Schemas["RememberedShown"];

/** What the old board knew and the new one has to be told: entered, then compared with what the new board shows. */
export function Reenter({ job, put, fitting }: Props) {
  return (
    <ul className="border-t border-rule">
      {fitting.reenter.map((each) => (
        <li key={each.id} className="grid gap-2 border-b border-rule py-3 sm:grid-cols-2">
          <div>
            <p className="font-semibold">{each.what}</p>
            {each.value === null && (
              <p>
                <strong>Not known:</strong> the old board could not be asked. Ask the owner, enter it on the new board,
                and write down what it then shows; or write down who will do it.
              </p>
            )}
            {!each.rows && <p className="font-mono text-xl text-original">{each.value}</p>}
            {each.enter && <p className="text-sm text-faint">{each.enter}</p>}
          </div>
          {each.rows && each.value !== null ? (
            <Rows job={job} put={put} item={each} />
          ) : (
            <div>
              <DraftField
                label={`The new board shows now: ${each.what}`}
                value={job.reentered[each.id] ?? ""}
                disabled={job.closed}
                onSave={(text) => void put({ target: `reentered.${each.id}`, after: text || null })}
              />
              {fitting.otherwise.includes(each.id) && (
                <p role="alert" className="font-semibold">
                  It shows otherwise than <span className="font-mono">{each.value}</span>. Enter it again, or say why
                  below.
                </p>
              )}
            </div>
          )}
        </li>
      ))}
    </ul>
  );
}

/** A list, item and value a row, ticked as it is entered. */
function Rows({ job, put, item }: StepProps & { item: Item }) {
  const rows = lines(item.value);
  const entered = lines(job.reentered[item.id]);
  const flip = (row: string) => {
    const now = rows.filter((each) => (each === row ? !entered.includes(row) : entered.includes(each)));
    void put({ target: `reentered.${item.id}`, after: now.length ? now.join("\n") : null });
  };
  return (
    <ul aria-label={`${item.what}, row by row`} className="border-t border-rule">
      {rows.map((row) => {
        const done = entered.includes(row);
        return (
          <li key={row} className="flex items-center gap-3 border-b border-rule py-1">
            <span className={`grow font-mono text-xl ${done ? "text-faint" : ""}`}>{row}</span>
            {!job.closed && (
              <Button
                aria-pressed={done}
                aria-label={`${done ? "✓ entered" : "Entered"}: ${row}`}
                onClick={() => flip(row)}
              >
                {done ? "✓ entered" : "Entered"}
              </Button>
            )}
          </li>
        );
      })}
    </ul>
  );
}

function lines(text: string | null | undefined): string[] {
  return [...new Set((text ?? "").split("\n").map((each) => each.trim()))].filter(Boolean);
}
