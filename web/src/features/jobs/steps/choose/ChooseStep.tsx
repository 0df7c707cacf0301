import { SketchSheet } from "@/sketching/SketchSheet";
import { Pager } from "@/ui/Pager";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { Part } from "@/ui/Part";
import { useCandidates, type Job } from "../../api";
import type { StepProps } from "../../stepProps";
import { MachineFacts } from "../MachineFacts";
import { Nameplate } from "../Nameplate";
import { Next } from "../Next";
import { Candidates, Legend } from "./Candidates";
import { useWhereabouts } from "./whereabouts";
import { CandidateSheet } from "./CandidateSheet";
import { Chosen } from "./Chosen";
import { InHand } from "./InHand";
import { OtherWays } from "./OtherWays";
import { Reopened } from "./Reopened";
import { SameAgain } from "./SameAgain";
import { SameBoard } from "./SameBoard";
import { TakeAlong } from "./TakeAlong";
import { Wishes } from "./Wishes";

/** Every board that may take the original's place, best first, on every criterion. */
export function ChooseStep({ job, put }: StepProps) {
  const [page, setPage] = useState(1);
  const [open, setOpen] = useState<{ partNumber: string; criterion?: string }>();
  const candidates = useCandidates(job, page);
  const there = useWhereabouts((candidates.data?.items ?? []).map((each) => each.part_number));
  if (candidates.isPending) return <Loading what="Judging every board of the family" />;
  const data = candidates.data;
  const shown = data?.items.find((each) => each.part_number === open?.partNumber);
  const best = data?.items[0];
  return (
    <div className="flex flex-col gap-5">
      <ProblemNotice problem={candidates.error} />
      {best && (
        <Next
          job={job}
          step="choose"
          words={`look at ${best.part_number} first: ${best.verdict}.`}
          button="Show me"
          onGo={() => setOpen({ partNumber: best.part_number })}
        />
      )}
      {!job.closed && (
        <Part title="The machine’s plate and facts" status={plateStatus(job)}>
          <Nameplate job={job} put={put} />
          <MachineFacts job={job} put={put} />
        </Part>
      )}
      <SameAgain job={job} put={put} again={data?.items.find((each) => each.part_number === job.original)} />
      <Reopened job={job} put={put} />
      <Chosen job={job} />
      <TakeAlong job={job} put={put} />
      <SameBoard job={job} put={put} />
      <InHand job={job} put={put} />
      {data && (
        <>
          <p className="text-faint">
            Judged on {data.judged_on}
            {data.judged_on === "factory settings" &&
              ", for the old board’s positions are not recorded yet; the choice is judged again afterwards"}
            {data.judged_on === "no setting" &&
              ": the old board is not read yet, and its factory settings are not known; the choice is judged again once it is read"}
            .{data.desk && ` The parts desk is away (${data.desk}); what it said last is shown with its age.`}
          </p>
          {data.items.length === 0 && <Empty>No other board of this family is in the catalogue.</Empty>}
          <div className="grid gap-x-10 gap-y-5 desk:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
            <div className={`flex min-w-0 flex-col gap-2 ${shown ? "" : "desk:col-span-2"}`}>
              <Legend />
              <Candidates
                candidates={data.items}
                there={there}
                chosen={job.replacement}
                open={open?.partNumber}
                onOpen={(partNumber, criterion) => setOpen({ partNumber, criterion })}
              />
              <Pager {...data} onPage={setPage} />
            </div>
            {shown && (
              <CandidateSheet
                key={`${shown.part_number} ${open?.criterion ?? ""}`}
                at={open?.criterion}
                job={job}
                put={put}
                candidate={shown}
                others={data.items.filter((each) => each !== shown)}
                best={data.items[0]?.part_number ?? ""}
                onClose={() => setOpen(undefined)}
              />
            )}
          </div>
          {!job.closed && (
            <SketchSheet
              start={{ marking: "", family: job.family }}
              words="Another board is here: sketch it"
              onKept={(board) =>
                void put({ target: "replacement", after: board.part_number, reason: "sketched: it is here" })
              }
            />
          )}
          <Wishes job={job} put={put} />
          <OtherWays data={data} />
        </>
      )}
    </div>
  );
}

/** Whether the plate was read: much hangs on it, and it is outside the board. */
function plateStatus(job: Job): string {
  const facts = Object.keys(job.known_facts).length;
  if (facts === 0) return "not read yet: candidates may hang on them";
  return `${facts} ${facts === 1 ? "fact" : "facts"} known`;
}
