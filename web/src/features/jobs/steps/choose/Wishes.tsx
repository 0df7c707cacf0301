import { numberFrom } from "@/ui/numbers";
import { Button } from "@/ui/Button";
import { Choice, TextField } from "@/ui/fields";
import { useState } from "react";
import { useFamily } from "../../api";
import type { StepProps } from "../../stepProps";

type FunctionNode = { id: string; title?: string; type: string; unit?: string; choices?: string[] };

/** Upgrades that the owner wants: wanted differences are not off register. */
export function Wishes({ job, put }: StepProps) {
  const family = useFamily(job.family);
  const functions = (family.data?.document.functions ?? []) as FunctionNode[];
  const [id, setId] = useState("");
  const [text, setText] = useState("");
  const chosen = functions.find((each) => each.id === id);
  const wishes = Object.entries(job.wishes);
  const title = (name: string) => functions.find((each) => each.id === name)?.title ?? name;
  const number = numberFrom(text);
  const numeric = chosen !== undefined && chosen.type !== "flag" && chosen.type !== "choice";
  const wrong = numeric && text.trim() !== "" && !Number.isFinite(number);
  const keep = () => {
    if (!chosen) return;
    const value = numeric ? number : chosen.type === "flag" ? text === "yes" : text;
    void put({ target: `wish.${chosen.id}`, after: value });
    setId("");
    setText("");
  };
  return (
    <details open={wishes.length > 0}>
      <summary className="min-h-11 py-2 font-semibold">Something is wanted otherwise than before</summary>
      <ul>
        {wishes.map(([name, value]) => (
          <li key={name} className="flex flex-wrap items-center gap-3">
            {title(name)}: <strong>{typeof value === "boolean" ? (value ? "yes" : "no") : value}</strong>
            {!job.closed && (
              <Button kind="quiet" onClick={() => void put({ target: `wish.${name}`, after: null })}>
                No longer wanted
              </Button>
            )}
          </li>
        ))}
      </ul>
      {!job.closed && (
        <div className="flex flex-wrap items-end gap-3">
          <div className="grow">
            <Choice
              label="What should be otherwise"
              value={id}
              onChange={(event) => (setId(event.target.value), setText(""))}
            >
              <option value="">choose</option>
              {functions.map((each) => (
                <option key={each.id} value={each.id}>
                  {each.title ?? each.id}
                </option>
              ))}
            </Choice>
          </div>
          {chosen && !numeric && (
            <Choice label="Wanted" value={text} onChange={(event) => setText(event.target.value)}>
              <option value="">choose</option>
              {(chosen.type === "flag" ? ["yes", "no"] : (chosen.choices ?? [])).map((each) => (
                <option key={each}>{each}</option>
              ))}
            </Choice>
          )}
          {chosen && numeric && (
            <TextField
              label={`Wanted${chosen.unit ? `, in ${chosen.unit}` : chosen.type === "duration" ? ", in s" : ""}`}
              inputMode="decimal"
              hint={wrong ? "A number is needed here." : undefined}
              aria-invalid={wrong}
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
          )}
          <Button disabled={!text.trim() || wrong} onClick={keep}>
            It is wanted
          </Button>
        </div>
      )}
    </details>
  );
}
