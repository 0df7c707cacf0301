import { Button } from "@/ui/Button";
import { Loading, ProblemNotice } from "@/ui/notices";
import { isWide } from "@/ui/isWide";
import { Part } from "@/ui/Part";
import { useFamilies } from "@/api/families";
import { useRuleOut } from "../../api";
import type { StepProps } from "../../stepProps";
import { isCleared } from "../../cleared";
import { MarkingSearch } from "../MarkingSearch";
import { goTo, Next } from "../Next";
import { Causes } from "./Causes";
import { Chain } from "./Chain";
import { EndPanel, hasDraft } from "./EndPanel";
import { Repairs } from "./Repairs";
import { Reported } from "./Reported";
import { Suspects } from "./Suspects";
import { TestPanel } from "./TestPanel";

/** Is it the board? What it does, the next best test, who is suspected, and the end; where it was not, what was put right. */
export function RuleOutStep({ job, put }: StepProps) {
  if (!isCleared(job)) return <Suspicion job={job} put={put} />;
  return (
    <div className="flex flex-col gap-5">
      <Repairs job={job} put={put} />
      <Part title="How it was cleared" status="symptoms, tests, the end">
        <Suspicion job={job} put={put} />
      </Part>
    </div>
  );
}

function Suspicion({ job, put }: StepProps) {
  const ruleOut = useRuleOut(job);
  if (job.family === null) return <WhichKind job={job} put={put} />;
  if (ruleOut.isPending) return <Loading what="Weighing the suspects" />;
  if (!ruleOut.data)
    return (
      <div className="flex flex-col gap-4">
        {ruleOut.error ? (
          <ProblemNotice problem={ruleOut.error} />
        ) : (
          <p>
            Nobody has written down yet what is tested on this kind of machine. Look at the fuse, the supply at the
            board, the sensors and the plugs, and say below what was found.
          </p>
        )}
        <EndPanel job={job} put={put} conclusion="open" />
      </div>
    );
  const data = ruleOut.data;
  const props = { job, put, data };
  const done = job.steps.some((step) => step.id === "rule_out" && step.state === "done");
  const leading = data.suspects[0];
  const best = data.tests.find((test) => test.id === data.next[0]);
  const said = Object.keys(job.symptoms).length + Object.keys(job.report).length;
  const ends = data.conclusion !== "open" || !best;
  return (
    <div className="grid gap-x-12 gap-y-5 desk:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
      <div className="flex flex-col gap-5 desk:sticky desk:top-20 desk:order-2 desk:max-h-[calc(100vh-6rem)] desk:self-start desk:overflow-y-auto">
        <Suspects data={data} />
        {data.chain.length > 0 && (
          <Part title="How we got here" status={`${data.chain.length} said or tested`} open={isWide()}>
            <Chain job={job} data={data} />
          </Part>
        )}
      </div>
      <div className="flex min-w-0 flex-col gap-5">
        {!done && (
          <Next
            job={job}
            step="rule_out"
            words={ends ? "say how it ends." : `${best.title.toLowerCase()}, ${best.minutes} minutes.`}
            button={ends ? "To the end" : "To the test"}
            onGo={() => goTo(ends ? "ruling-out-end" : "ruling-out-test")}
          />
        )}
        <Part
          title="What it does, and does not do"
          status={said ? `${said} said` : "nothing said yet"}
          open={said === 0}
        >
          <Reported {...props} />
        </Part>
        {!job.closed && !done && (
          <div id="ruling-out-test" tabIndex={-1} className="scroll-mt-24">
            <TestPanel {...props} />
          </div>
        )}
        <Causes {...props} />
        <div id="ruling-out-end" tabIndex={-1} className="scroll-mt-24">
          <EndPanel
            job={job}
            put={put}
            conclusion={data.conclusion}
            leading={leading && leading.weight > 0.5 ? `${leading.title}, ${leading.words}` : undefined}
            causes={data.causes}
          />
        </div>
      </div>
    </div>
  );
}

/** The family is needed first: the tests and the key hang on it. */
function WhichKind({ job, put }: StepProps) {
  const families = useFamilies();
  if (families.isPending) return <Loading what="Reading the kinds of machine" />;
  return (
    <div className="flex flex-col gap-5">
      <Next
        job={job}
        step="rule_out"
        words="say what kind of machine it is."
        button="To the kinds"
        onGo={() => goTo("kinds")}
      />
      <section aria-labelledby="kind" id="kinds" tabIndex={-1} className="flex flex-col gap-3">
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
      {!job.closed && (
        <div>
          <p className="text-faint">Or read the board’s number: the kind comes with it.</p>
          <MarkingSearch
            job={job}
            onChoose={(partNumber, how) => void put({ target: "original", after: partNumber, reason: how })}
          />
        </div>
      )}
      <details open={hasDraft() || job.steps.some((step) => step.id === "rule_out" && step.state === "done")}>
        <summary className="min-h-11 py-2">It was tested already, or the kind is not in the list</summary>
        <EndPanel job={job} put={put} conclusion="open" />
      </details>
    </div>
  );
}
