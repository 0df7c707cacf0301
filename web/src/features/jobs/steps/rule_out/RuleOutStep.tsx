import { Suspicion } from "@/drawing/Suspicion";
import { Button } from "@/ui/Button";
import { Loading, ProblemNotice } from "@/ui/notices";
import { useFamilies, useRuleOut } from "../../api";
import type { StepProps } from "../../stepProps";
import { Causes } from "./Causes";
import { Chain } from "./Chain";
import { EndPanel, hasDraft } from "./EndPanel";
import { Reported } from "./Reported";
import { TestPanel } from "./TestPanel";

/** Is it the board? What it does, the next best test, who is suspected, and the end. */
export function RuleOutStep({ job, put }: StepProps) {
  const ruleOut = useRuleOut(job);
  if (job.family === null) return <WhichKind job={job} put={put} />;
  if (ruleOut.isPending) return <Loading what="Weighing the suspects" />;
  if (!ruleOut.data)
    return (
      <div className="flex flex-col gap-4">
        <ProblemNotice problem={ruleOut.error} />
        <EndPanel job={job} put={put} conclusion="open" causesMissing={false} />
      </div>
    );
  const data = ruleOut.data;
  const props = { job, put, data };
  const done = job.steps.some((step) => step.id === "rule_out" && step.state === "done");
  const leading = data.suspects[0];
  return (
    <div className="flex flex-col gap-7">
      <Reported {...props} />
      {!job.closed && !done && <TestPanel {...props} />}
      <section aria-labelledby="suspects" className="flex flex-col gap-2">
        <h3 id="suspects">Who is suspected</h3>
        <p className="text-sm text-faint">
          The bar is what weighs against each now, the thin mark where it began. By the depot’s policy: {data.school}.
        </p>
        <Suspicion suspects={data.suspects} own="board" />
      </section>
      <Chain job={job} data={data} />
      {data.chain.some((link) => link.kind === "test") && <Causes {...props} />}
      {data.to_restore.length > 0 && (
        <p className="border-l-4 border-text pl-3 font-semibold">Still to be put back: {data.to_restore.join(", ")}.</p>
      )}
      <EndPanel
        job={job}
        put={put}
        conclusion={data.conclusion}
        leading={leading && leading.weight > 0.5 ? `${leading.title}, ${leading.words}` : undefined}
        causesMissing={Object.keys(job.causes).length === 0}
      />
    </div>
  );
}

/** The family is needed first: the tests and the key hang on it. */
function WhichKind({ job, put }: StepProps) {
  const families = useFamilies();
  return (
    <div className="flex flex-col gap-5">
      <section aria-labelledby="kind" className="flex flex-col gap-3">
        <h3 id="kind">What kind of machine is it?</h3>
        <ProblemNotice problem={families.error} />
        <ul className="flex flex-col gap-2">
          {families.data?.items.map((family) => (
            <li key={family.id}>
              <Button
                className="w-full"
                disabled={job.closed}
                onClick={() => void put({ target: "family", after: family.id })}
              >
                {family.title}
              </Button>
            </li>
          ))}
        </ul>
      </section>
      <details open={hasDraft(job.id) || job.steps.some((step) => step.id === "rule_out" && step.state === "done")}>
        <summary className="min-h-11 py-2">It was tested already, or the kind is not in the list</summary>
        <EndPanel job={job} put={put} conclusion="open" causesMissing={false} />
      </details>
    </div>
  );
}
