import { Loading, ProblemNotice } from "@/ui/notices";
import { Link, useParams } from "@tanstack/react-router";
import { useDeferredValue } from "react";
import { useStepsDone } from "../api";
import { useSheet } from "../entries/pending";
import { STEP_NAMES } from "@/ui/stepNames";
import { JobSheet } from "./JobSheet";

/** Where it cannot be asked which steps somebody knows, nothing is explained. */
const EVERY_STEP = Object.keys(STEP_NAMES);

/** A job by its address. */
export function JobPage() {
  const { id } = useParams({ from: "/jobs/$id" });
  const job = useSheet(id);
  const known = useStepsDone();
  // a tap is answered by what was touched; the sheet follows as soon as it is drawn
  const shown = useDeferredValue(job.data);
  return (
    <main className="mx-auto max-w-3xl px-4 pt-1 pb-20 desk:max-w-6xl desk:pb-10">
      {shown?.id === id && !known.isPending ? (
        <JobSheet key={id} job={shown} known={known.data ?? EVERY_STEP} />
      ) : !job.error ? (
        <Loading what="Reading the job" />
      ) : (
        <>
          <ProblemNotice problem={job.error} />
          <Link to="/jobs" search={{ show: "open", search: "", page: 1 }}>
            Back to the jobs
          </Link>
        </>
      )}
    </main>
  );
}
