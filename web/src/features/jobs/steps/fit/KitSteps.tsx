import type { Schemas } from "@/api/client";
import { numberFrom } from "@/ui/numbers";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import { addressOf } from "@/pictures/api";
import { RefusalAt } from "../../entries/Refusal";
import type { StepProps } from "../../stepProps";

type Step = Schemas["KitStepShown"];

/** How the kit is fitted: one step at a time, with its measure, its way, what to mind and how to look at it. */
export function KitSteps({ job, put, steps, leaflet = [] }: StepProps & { steps: Step[]; leaflet?: string[] }) {
  return (
    <>
      {leaflet.length > 0 && (
        <p className="flex flex-wrap gap-2">
          {leaflet.map((id, at) => (
            <a key={id} href={addressOf(id) ?? ""} className="block">
              <img
                src={addressOf(id) ?? ""}
                alt={`The kit’s leaflet, picture ${at + 1}`}
                className="h-32 border border-rule"
              />
            </a>
          ))}
        </p>
      )}
      <ol className="flex flex-col">
        {steps.map((step, at) => (
          <li key={step.id} className="flex flex-col gap-2 border-b border-rule py-3">
            <p className="flex gap-3">
              <span className="font-mono text-xl">{at + 1}</span>
              <span className="font-semibold">{step.what}</span>
            </p>
            <Told step={step} />
            <Said job={job} put={put} step={step} />
          </li>
        ))}
      </ol>
    </>
  );
}

function Told({ step }: { step: Step }) {
  return (
    <>
      {step.facts.length > 0 && <p className="text-faint">Only where it is so: {step.facts.join(", ")}.</p>}
      {step.measure && <p className="text-xl">{step.measure}</p>}
      {step.route && <p>{step.route}.</p>}
      {step.caution && <strong>Mind: {step.caution}.</strong>}
      {step.check && <p>Then look: {step.check}.</p>}
      {step.picture && <p className="text-sm text-faint">See {step.picture}.</p>}
    </>
  );
}

function Said({ job, put, step }: StepProps & { step: Step }) {
  const [measured, setMeasured] = useKeptState(`measured ${step.id}`, "");
  const [reason, setReason] = useKeptState(`reason ${step.id}`, "");
  const said = job.kit_steps[step.id];
  const target = `kit_step.${step.id}` as const;
  const value = numberFrom(measured);
  const wrong = measured.trim() !== "" && !(value >= 0);
  if (said)
    return (
      <p className="flex flex-wrap items-center gap-x-4">
        <span>
          {said.done ? "✓ Done" : "Left out"}
          {said.measured_mm != null && `, ${said.measured_mm} mm`} <span className="text-faint">({said.by})</span>
        </span>
        {!job.closed && (
          <Button kind="quiet" aria-label={`Take back: ${step.what}`} onClick={() => void put({ target, after: null })}>
            Take back
          </Button>
        )}
      </p>
    );
  if (job.closed) return <p>Not said.</p>;
  const done = { done: true, ...(step.measure && value >= 0 ? { measured_mm: value } : {}) };
  const unmeasured = wrong || (step.measure !== "" && measured.trim() === "");
  const say = async (after: { done: boolean; measured_mm?: number }) => {
    if (!(await put({ target, after, reason: reason.trim(), again: true }))) return;
    setMeasured("");
    setReason("");
  };
  return (
    <>
      <div className="flex flex-wrap items-end gap-3">
        {step.measure && (
          <div className="w-40">
            <TextField
              label="Measured, mm"
              inputMode="decimal"
              value={measured}
              aria-invalid={wrong}
              hint={wrong && <strong role="alert">A number is needed here.</strong>}
              onChange={(event) => setMeasured(event.target.value)}
            />
          </div>
        )}
        <Button
          kind="main"
          aria-label={`Done: ${step.what}`}
          needs={lacking({ "the measure": unmeasured })}
          onClick={() => void say(done)}
        >
          Done
        </Button>
        {step.facts.length > 0 && (
          <Button aria-label={`Not needed here: ${step.what}`} onClick={() => void say({ done: false })}>
            Not needed here
          </Button>
        )}
      </div>
      <RefusalAt target={target} />
      <details>
        <summary className="min-h-11 py-2.5 text-sm">Otherwise</summary>
        <div className="flex flex-col gap-3">
          <TextField
            label="Why it is left out, or stays otherwise"
            maxLength={2000}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
          <p className="flex flex-wrap gap-2">
            <Button
              aria-label={`Left out: ${step.what}`}
              needs={lacking({ "the reason": !reason.trim() })}
              onClick={() => void say({ done: false })}
            >
              Left out
            </Button>
            <Button
              aria-label={`Otherwise: ${step.what}`}
              needs={lacking({ "the reason": !reason.trim(), "the measure": unmeasured })}
              onClick={() => void say(done)}
            >
              Done, otherwise
            </Button>
          </p>
        </div>
      </details>
    </>
  );
}
