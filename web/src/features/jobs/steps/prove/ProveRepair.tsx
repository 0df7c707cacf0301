import { Loading, ProblemNotice } from "@/ui/notices";
import { useProving } from "../../endApi";
import type { StepProps } from "../../stepProps";
import { goTo, Next } from "../Next";
import { NoteAndConfirm } from "../NoteAndConfirm";
import { Parts, placeOf, nextOf } from "../Parts";
import { Doubts } from "./Doubts";
import { checksPart, Guards, overridesPart, readingsPart } from "./proveParts";

/** A machine whose board was not the matter: it is looked at until it is seen to work. */
export function ProveRepair({ job, put }: StepProps) {
  const proving = useProving(job);
  if (proving.error) return <ProblemNotice problem={proving.error} />;
  if (!proving.data) return <Loading what="Reading what to look at" />;
  const plan = proving.data;
  const looked = plan.checks.filter((each) => each.ok !== null).length;
  const parts = [
    { ...checksPart({ job, put }, plan, true), open: true },
    ...readingsPart({ job, put }, plan).map((each) => ({ ...each, asks: false })),
    overridesPart({ job, put }, plan),
  ];
  const next = job.closed ? undefined : nextOf(parts);
  return (
    <div className="flex flex-col gap-3">
      <Next
        job={job}
        step="prove"
        words={next && looked === 0 ? `${next.title.toLowerCase()}: ${next.status}.` : "say that it works again."}
        button="Show me"
        onGo={() => goTo(next && looked === 0 ? placeOf(next.id) : "proved")}
      />
      <Guards />
      <Parts parts={parts} keep still={job.closed} />
      <Doubts job={job} doubts={plan.doubts} />
      <div id="proved" tabIndex={-1} className="flex scroll-mt-24 flex-col gap-3">
        <NoteAndConfirm
          job={job}
          put={put}
          step="prove"
          label={plan.doubts.length ? "Why is it enough all the same?" : "What was seen"}
          confirm={plan.doubts.length ? "Go on with this reason" : "It works again"}
          needed={plan.doubts.length > 0}
        />
      </div>
    </div>
  );
}
