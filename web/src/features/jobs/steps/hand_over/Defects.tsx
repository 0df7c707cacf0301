import { newId } from "@/api/ids";
import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { useTypedForm } from "@/ui/typed";
import type { StepProps } from "../../stepProps";

/** What was seen and is left for later: with a date, and somebody who sees to it. */
export function Defects({ job, put }: StepProps) {
  const me = useSession().data?.name ?? "";
  const { fields: draft, set: setDraft, done } = useTypedForm("defect", { what: "", until: "", who: "" });
  const rows = Object.entries(job.defects);
  const who = draft.who || me;
  return (
    <>
      {rows.length === 0 && <p className="text-faint">Nothing is left for later.</p>}
      <ul>
        {rows.map(([id, each]) => (
          <li key={id} className="flex flex-wrap items-center gap-3 border-b border-rule py-2">
            <label className="flex min-h-11 grow items-center gap-3">
              <input
                type="checkbox"
                className="size-6"
                checked={each.done}
                disabled={job.closed}
                onChange={(event) =>
                  void put({
                    target: `defect.${id}`,
                    after: { what: each.what, until: each.until, who: each.who, done: event.target.checked },
                  })
                }
              />
              <span className={each.done ? "text-faint line-through" : ""}>{each.what}</span>
            </label>
            <span className="text-faint">
              until {each.until}, {each.who}
            </span>
          </li>
        ))}
      </ul>
      {!job.closed && (
        <div className="grid items-end gap-3 sm:grid-cols-4">
          <TextField
            label="What is wrong"
            maxLength={500}
            value={draft.what}
            onChange={(event) => setDraft({ what: event.target.value })}
          />
          <TextField
            label="Put right until"
            type="date"
            value={draft.until}
            onChange={(event) => setDraft({ until: event.target.value })}
          />
          <TextField
            label="By whom"
            maxLength={120}
            value={who}
            onChange={(event) => setDraft({ who: event.target.value })}
          />
          <Button
            needs={lacking({
              "what is wrong": !draft.what.trim(),
              "a date": !draft.until,
              "who sees to it": !who.trim(),
            })}
            onClick={() => {
              void put({ target: `defect.${newId()}`, after: { ...draft, who, done: false } });
              done();
            }}
          >
            Leave it for later
          </Button>
        </div>
      )}
    </>
  );
}
