import { Loading, ProblemNotice } from "@/ui/notices";
import { Link, useParams } from "@tanstack/react-router";
import { useDeferredValue } from "react";
import { useJob } from "../api";
import { JobSheet } from "./JobSheet";

/** A job by its address. */
export function JobPage() {
  const { id } = useParams({ from: "/jobs/$id" });
  const job = useJob(id);
  // a tap is answered by what was touched; the sheet follows as soon as it is drawn
  const shown = useDeferredValue(job.data);
  return (
    <main className="mx-auto max-w-3xl px-4 pt-1 pb-20 desk:max-w-6xl desk:pb-10">
      {shown?.id === id ? (
        <JobSheet key={id} job={shown} />
      ) : job.isPending ? (
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
