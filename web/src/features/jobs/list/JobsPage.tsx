import { newId } from "@/api/ids";
import { Button } from "@/ui/Button";
import { Choice, TextArea, TextField } from "@/ui/fields";
import { InkMark } from "@/ui/inks";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useState } from "react";
import { useJobs, useOpenJob } from "../api";
import { TakeJobs } from "./TakeJobs";
import { useAway } from "@/with_you/useAway";
import { BringIn } from "./BringIn";
import { Calls } from "./Calls";
import { STEP_NAMES } from "@/ui/stepNames";
import { useKeptState } from "@/ui/typed";

/** Today's jobs: what is open, and what each waits for. */
export function JobsPage() {
  const wanted = useSearch({ from: "/jobs" });
  const navigate = useNavigate({ from: "/jobs" });
  const jobs = useJobs(wanted);
  const away = useAway();
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
      <h1>Jobs</h1>
      {away && <p role="status">No connection: these are the jobs that you have with you.</p>}
      <NewJob />
      <Calls />
      <BringIn />
      <div className="flex flex-wrap items-end gap-3">
        <Choice
          label="Show"
          value={wanted.show}
          onChange={(event) =>
            void navigate({ search: { ...wanted, page: 1, show: event.target.value as typeof wanted.show } })
          }
        >
          <option value="open">open</option>
          <option value="closed">closed</option>
          <option value="all">all</option>
        </Choice>
        <div className="grow">
          <TextField
            label="Machine, number or board"
            type="search"
            defaultValue={wanted.search}
            onChange={(event) =>
              void navigate({ search: { ...wanted, page: 1, search: event.target.value }, replace: true })
            }
          />
        </div>
      </div>
      <ProblemNotice problem={jobs.error} />
      {jobs.isPending && <Loading what="Reading the jobs" />}
      {jobs.data?.total === 0 && (
        <Empty>
          {wanted.search ? "No job matches. Clear the search, or show all." : "No job here. Open one above."}
        </Empty>
      )}
      <ul className="border-t border-rule">
        {jobs.data?.items.map((job) => (
          <li key={job.id} className="border-b border-rule">
            <Link to="/jobs/$id" params={{ id: job.id }} className="block py-3 no-underline hover:bg-raised">
              <span className="flex flex-wrap items-baseline gap-x-3">
                <span className="font-mono text-sm text-faint">{job.code}</span>
                <strong>{job.machine}</strong>
              </span>
              <span className="block text-faint">{job.complaint}</span>
              <span className="mt-1 flex flex-wrap items-center gap-2">
                {job.original && <InkMark side="original">{job.original}</InkMark>}
                {job.replacement && <InkMark side="replacement">{job.replacement}</InkMark>}
                {job.more_boards > 0 && (
                  <span>
                    and {job.more_boards} more board{job.more_boards > 1 && "s"}
                  </span>
                )}
                <span className="font-semibold">
                  {job.closed ? "closed" : `waits for: ${STEP_NAMES[job.step] ?? job.step}`}
                </span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
      {jobs.data && !away && <TakeJobs jobs={jobs.data.items} />}
      {jobs.data && <Pager {...jobs.data} onPage={(page) => void navigate({ search: { ...wanted, page } })} />}
    </main>
  );
}

function NewJob() {
  const open = useOpenJob();
  const navigate = useNavigate();
  const [id] = useState(newId);
  const [machine, setMachine] = useKeptState("new job machine", "");
  const [complaint, setComplaint] = useKeptState("new job complaint", "");
  return (
    <details className="border-y border-rule">
      <summary className="min-h-12 py-3 text-lg font-semibold">Open a new job</summary>
      <form
        className="flex flex-col gap-3 pb-4"
        onSubmit={(event) => {
          event.preventDefault();
          open.mutate(
            { id, machine, complaint },
            {
              onSuccess: (job) => {
                setMachine("");
                setComplaint("");
                void navigate({ to: "/jobs/$id", params: { id: job.id } });
              },
            },
          );
        }}
      >
        <TextField
          label="Machine"
          hint="What it is and where it stands"
          required
          maxLength={200}
          value={machine}
          onChange={(event) => setMachine(event.target.value)}
        />
        <TextArea
          label="What is it doing, what is it not doing?"
          maxLength={2000}
          value={complaint}
          onChange={(event) => setComplaint(event.target.value)}
        />
        <ProblemNotice problem={open.error} />
        <Button kind="main" type="submit" className="self-start" disabled={open.isPending}>
          Open job
        </Button>
      </form>
    </details>
  );
}
