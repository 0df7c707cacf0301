import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { useTypedForm } from "@/ui/typed";
import type { StepProps } from "../../stepProps";
import { Looks } from "./Looks";

/** A learning run: what must be true before, whether it can be stopped, how many cycles, what is shown at the end. */
export function LearningPart({ job, put, fitting }: StepProps & { fitting: Schemas["FittingShown"] }) {
  const learning = fitting.learning;
  const { fields, set, forget } = useTypedForm("learning run", { cycles: String(learning?.cycles ?? 1), shown: "" });
  const { cycles, shown } = fields;
  if (!learning) return null;
  const needs = fitting.looks.filter((each) => each.group === "learning");
  const open = needs.filter((each) => !job.looks[each.key]).length;
  return (
    <>
      {learning.told_by && <p>{learning.told_by}</p>}
      <p className="font-semibold">
        {learning.can_be_stopped
          ? "It can be stopped at any time."
          : "Once begun it cannot be stopped: look at everything first."}
      </p>
      <Looks job={job} put={put} looks={needs} />
      <p>
        {learning.cycles !== null && `${learning.cycles} ${learning.cycles === 1 ? "cycle" : "cycles"}. `}
        {learning.shows && `Shows: ${learning.shows}.`}
      </p>
      {job.learned ? (
        <p>
          Made: {String(job.learned.cycles)} cycles, then shown {String(job.learned.shown)}.{" "}
          {!job.closed && (
            <Button kind="quiet" onClick={() => void put({ target: "learned", after: null })}>
              Undo
            </Button>
          )}
        </p>
      ) : (
        !job.closed && (
          <div className="grid items-end gap-3 sm:grid-cols-3">
            <TextField
              label="Cycles run"
              inputMode="numeric"
              value={cycles}
              onChange={(event) => set({ cycles: event.target.value })}
            />
            <TextField
              label="Shown at the end"
              maxLength={200}
              value={shown}
              onChange={(event) => set({ shown: event.target.value })}
            />
            <Button
              needs={lacking({
                "what must be true before it": open > 0,
                "how many cycles": !/^\d+$/.test(cycles.trim()),
                "what was shown at the end": !shown.trim(),
              })}
              onClick={() => {
                void put({ target: "learned", after: { cycles: Number(cycles), shown: shown.trim() } });
                forget();
              }}
            >
              The run is made
            </Button>
          </div>
        )
      )}
    </>
  );
}
