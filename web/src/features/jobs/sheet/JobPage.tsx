import { Loading, ProblemNotice } from "@/ui/notices";
import { Link, useParams } from "@tanstack/react-router";
import { useJob } from "../api";
import { JobSheet } from "./JobSheet";

/** A job by its address. */
export function JobPage() {
  const { id } = useParams({ from: "/jobs/$id" });
  const job = useJob(id);
  return (
    <main className="mx-auto max-w-3xl px-4 pt-1 pb-20 desk:max-w-6xl desk:pb-10">
      {job.data ? (
        <JobSheet key={id} job={job.data} />
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
