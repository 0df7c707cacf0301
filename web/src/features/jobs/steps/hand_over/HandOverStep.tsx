import { Standing } from "@/comparison/Standing";
import { VerdictMark } from "@/ui/inks";
import { Loading, ProblemNotice } from "@/ui/notices";
import { useJobBoard } from "../../api";
import { useHandOver } from "../../endApi";
import type { StepProps } from "../../stepProps";
import { isCleared } from "../../cleared";
import { goTo, Next } from "../Next";
import { nextOf, Parts, placeOf, type PartOfStep } from "../Parts";
import { Afterwards } from "./Afterwards";
import { Closing } from "./Closing";
import { defectsPart, papersPart, spentPart } from "./endParts";
import { HandOverRepair } from "./HandOverRepair";
import { Numbers } from "./Numbers";
import { Papers } from "./Papers";
import { Codes, Lines } from "./Told";

/** As found against as left in full, what is left for later, numbers, time and money, the papers; and the end of the job. */
export function HandOverStep({ job, put }: StepProps) {
  return isCleared(job) ? <HandOverRepair job={job} put={put} /> : <HandOverExchange job={job} put={put} />;
}

function HandOverExchange({ job, put }: StepProps) {
  const over = useHandOver(job);
  const original = useJobBoard(job, "original");
  const replacement = useJobBoard(job, "replacement");
  const problem = over.error ?? original.error ?? replacement.error;
  if (problem) return <ProblemNotice problem={problem} />;
  if (!over.data || !original.data || !replacement.data) return <Loading what="Gathering the record" />;
  const boards = { original: original.data, replacement: replacement.data };
  const data = over.data;
  const numbered = Object.keys(job.numbered).length;
  const parts: PartOfStep[] = [
    {
      id: "decisions",
      title: "Decisions and findings",
      status: `${data.decisions.length + data.findings.length}`,
      done: false,
      asks: false,
      body: (
        <>
          <Lines title="Decisions" lines={data.decisions} />
          <Lines title="Wiring findings" lines={data.findings} />
          <Lines title="Notes" lines={data.notes} />
          <Lines
            title="Stays unproved on the machine"
            lines={data.unproved.map((each) => `${each.what}: ${each.why}`)}
          />
        </>
      ),
    },
    {
      id: "numbers",
      title: "Parts and numbers",
      status: numbered ? `${numbered} written down` : "none written down",
      done: numbered > 0,
      body: <Numbers job={job} put={put} />,
    },
    defectsPart({ job, put }),
    spentPart({ job, put }, data),
    ...(data.codes.length > 0
      ? [
          {
            id: "codes",
            title: "What the new board may show",
            status: `${data.codes.length} codes`,
            done: false,
            asks: false,
            body: <Codes codes={data.codes} />,
          },
        ]
      : []),
    ...(job.closed ? [] : [papersPart({ job, put }, data, "job sheet, cabinet label, customer’s page, package")]),
  ];
  const next = nextOf(parts);
  return (
    <div className="flex flex-col gap-4">
      <Next
        job={job}
        step="hand_over"
        words={next ? `${next.title.toLowerCase()}: ${next.status}.` : "hand it over."}
        button="Show me"
        onGo={() => goTo(next ? placeOf(next.id) : "closing")}
      />
      <div className="grid gap-4 sm:grid-cols-2">
        <Standing side="original" title="As found" board={boards.original} positions={job.found} />
        <Standing side="replacement" title="As left" board={boards.replacement} positions={job.left ?? {}} />
      </div>
      {job.verdict && (
        <p>
          Twin check: <VerdictMark verdict={job.verdict} />
        </p>
      )}
      {data.temporary.length > 0 && (
        <p className="font-semibold">
          Found on the old board and not said to be undone: {data.temporary.join(", ")}. Look whether it is still in the
          machine.
        </p>
      )}
      <Parts parts={parts} keep still={job.closed} />
      {job.closed && <Papers job={job} seal={data.seal} />}
      <div id="closing" tabIndex={-1} className="flex scroll-mt-24 flex-col gap-3">
        <Closing job={job} put={put} over={data} />
      </div>
      {job.closed && <Afterwards job={job} put={put} />}
    </div>
  );
}
