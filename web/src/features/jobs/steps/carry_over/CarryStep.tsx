import { CarryView } from "@/comparison/CarryView";
import { Button } from "@/ui/Button";
import { Loading, ProblemNotice } from "@/ui/notices";
import { Part } from "@/ui/Part";
import { useComparison, useJobBoard, usePresses, useWiring } from "../../api";
import type { StepProps } from "../../stepProps";
import { Notes } from "./Notes";
import { PressesPanel } from "./PressesPanel";
import { SchoolsPanel } from "./SchoolsPanel";
import { WiringPanel } from "./WiringPanel";

/** The heart: what the old positions mean, what the new board must be set to, where every wire goes, what is keyed in. */
export function CarryStep({ job, put }: StepProps) {
  const comparison = useComparison(job);
  const original = useJobBoard(job, "original");
  const replacement = useJobBoard(job, "replacement");
  const wiring = useWiring(job);
  const presses = usePresses(job);
  const problem = comparison.error ?? original.error ?? replacement.error;
  if (problem) return <ProblemNotice problem={problem} />;
  if (!comparison.data || !original.data || !replacement.data) return <Loading what="Carrying the settings over" />;
  const { rows, disagreements } = comparison.data;
  const unreasoned = rows.filter((row) => (row.missed || row.verdict === "open") && !job.reasons[row.id]);
  const undecided = job.school ? [] : disagreements.filter((each) => !job.decisions[each.id]);
  const done = job.steps.find((each) => each.id === "carry_over")?.state === "done";
  return (
    <div className="flex flex-col gap-5">
      <Notes comparison={comparison.data} />
      <CarryView
        comparison={comparison.data}
        original={original.data}
        replacement={replacement.data}
        overrides={job.overrides}
        onOverride={
          job.closed ? undefined : (element, value) => void put({ target: `override.${element}`, after: value })
        }
        copying={false}
        reasons={job.reasons}
        onReason={job.closed ? undefined : (id, reason) => void put({ target: `reason.${id}`, after: reason || null })}
      />
      <div>
        <Part
          title="The schools side by side"
          status={
            undecided.length ? `${undecided.length} to decide` : disagreements.length ? "decided" : "no disagreement"
          }
          open={disagreements.length > 0}
        >
          <SchoolsPanel job={job} put={put} comparison={comparison.data} />
        </Part>
        <Part title="Wires" status={wiringStatus(wiring.data?.wire_sums)} open={false}>
          {wiring.error && <ProblemNotice problem={wiring.error} />}
          {wiring.data && <WiringPanel job={job} put={put} wiring={wiring.data} />}
        </Part>
        <Part title="Keys" status={presses.data?.count ? `${presses.data.count} presses` : "nothing to key in"}>
          {presses.data && <PressesPanel presses={presses.data} />}
        </Part>
      </div>
      <p className="flex flex-wrap gap-4">
        <a href={`/api/jobs/${job.id}/plan.pdf`} className="min-h-11 py-2">
          The plan as one sheet (PDF)
        </a>
        <a href={`/api/jobs/${job.id}/plan.json`} className="min-h-11 py-2">
          Plan (JSON)
        </a>
        {wiring.data && (
          <a href={`/api/jobs/${job.id}/plan.csv`} className="min-h-11 py-2">
            Wires (CSV)
          </a>
        )}
      </p>
      {!job.closed && !done && comparison.data.plan && (
        <>
          {undecided.length > 0 && (
            <p>The schools disagree. Decide first: {undecided.map((each) => each.title).join(", ")}.</p>
          )}
          {unreasoned.length > 0 && (
            <p>Before the plan is confirmed, give a reason for: {unreasoned.map((row) => row.title).join(", ")}.</p>
          )}
          <Button
            kind="main"
            className="self-start"
            disabled={unreasoned.length > 0 || undecided.length > 0}
            onClick={() => void put({ target: "confirmed.carry_over", after: { note: "" } })}
          >
            Confirm this plan
          </Button>
        </>
      )}
      {done && <p className="text-faint">The plan is confirmed. A change opens it again.</p>}
    </div>
  );
}

function wiringStatus(sums: Record<string, number> | undefined): string {
  if (!sums) return "";
  const told = Object.entries(sums).filter(([, count]) => count > 0);
  return told.map(([name, count]) => `${count} ${name}`).join(", ") || "no wire recorded";
}
