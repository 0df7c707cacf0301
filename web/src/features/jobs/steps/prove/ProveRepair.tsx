import { Loading, ProblemNotice } from "@/ui/notices";
import { useProving } from "../../endApi";
import type { StepProps } from "../../stepProps";
import { goTo, Next } from "../Next";
import { NoteAndConfirm } from "../NoteAndConfirm";
import { Parts, placeOf, nextOf, type PartOfStep } from "../Parts";
import { CheckList } from "./CheckList";
import { Doubts } from "./Doubts";
import { Overrides } from "./Overrides";
import { Readings } from "./Readings";

/** A machine whose board was not the matter: it is looked at until it is seen to work. */
export function ProveRepair({ job, put }: StepProps) {
  const proving = useProving(job);
  if (proving.error) return <ProblemNotice problem={proving.error} />;
  if (!proving.data) return <Loading what="Reading what to look at" />;
  const plan = proving.data;
  const looked = plan.checks.filter((each) => each.ok !== null).length;
  const parts: PartOfStep[] = [
    {
      id: "checks",
      title: "Check list",
      status: `${looked} of ${plan.checks.length} looked at`,
      done: looked === plan.checks.length,
      open: true,
      body: <CheckList job={job} put={put} lines={plan.checks} />,
    },
    ...(plan.readings.length > 0
      ? [
          {
            id: "readings",
            title: "Readings",
            status: `${plan.readings.filter((each) => each.value !== null).length} of ${plan.readings.length} taken`,
            done: false,
            asks: false,
            body: <Readings job={job} put={put} readings={plan.readings} />,
          },
        ]
      : []),
    {
      id: "overrides",
      title: "Overrides",
      status: plan.forced.length ? `${plan.forced.length} still on` : "none on",
      done: plan.forced.length === 0,
      body: <Overrides job={job} put={put} plan={plan} />,
    },
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
      <p className="hatched px-3 py-1">
        <strong>Guards on, people clear, by those who are qualified</strong>; local codes and licensed practice come
        first.
      </p>
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
