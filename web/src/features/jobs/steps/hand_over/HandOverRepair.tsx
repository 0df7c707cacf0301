import { Loading, ProblemNotice } from "@/ui/notices";
import { useHandOver } from "../../endApi";
import type { StepProps } from "../../stepProps";
import { goTo, Next } from "../Next";
import { Parts, type PartOfStep } from "../Parts";
import { Closing } from "./Closing";
import { Defects } from "./Defects";
import { Papers } from "./Papers";
import { Spent } from "./Spent";

/** The end of a job in which it was not the board: what was put right, what it cost, the papers. */
export function HandOverRepair({ job, put }: StepProps) {
  const over = useHandOver(job);
  if (over.error) return <ProblemNotice problem={over.error} />;
  if (!over.data) return <Loading what="Gathering the record" />;
  const data = over.data;
  const open = Object.values(job.defects).filter((each) => each.done !== true).length;
  const parts: PartOfStep[] = [
    {
      id: "defects",
      title: "Defects left for later",
      status: open ? `${open} open` : "none",
      done: false,
      asks: false,
      body: <Defects job={job} put={put} />,
    },
    {
      id: "spent",
      title: "Time and cost",
      status: `${data.spent.own_total.toFixed(2)} against ${data.spent.service_total.toFixed(2)}`,
      done: false,
      asks: false,
      body: <Spent job={job} put={put} spent={data.spent} />,
    },
    {
      id: "papers",
      title: "Papers",
      status: "job sheet, customer’s page, package",
      done: false,
      asks: false,
      open: job.closed,
      body: <Papers job={job} seal={data.seal} />,
    },
  ];
  return (
    <div className="flex flex-col gap-4">
      <Next job={job} step="hand_over" words="hand it over." button="Show me" onGo={() => goTo("closing")} />
      <ul aria-label="What was put right">
        {Object.entries(job.repairs).map(([id, each]) => (
          <li key={id} className="border-b border-rule py-2">
            <strong>{each.kind}</strong>: {each.what} {each.part && <span className="font-mono">{each.part}</span>}
          </li>
        ))}
      </ul>
      <Parts parts={parts} keep still={job.closed} />
      <div id="closing" tabIndex={-1} className="flex scroll-mt-24 flex-col gap-3">
        <Closing job={job} put={put} over={data} />
      </div>
    </div>
  );
}
