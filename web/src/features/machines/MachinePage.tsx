import { InkMark, VerdictMark } from "@/ui/inks";
import { Loading, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useMachineJobs, useMachineNow } from "./api";

/** One machine: the board that is in it now, how it was left, what is open, and every job on it. */
export function MachinePage() {
  const { name, page } = useSearch({ from: "/machine" });
  const navigate = useNavigate({ from: "/machine" });
  const now = useMachineNow(name);
  const jobs = useMachineJobs(name, page);
  if (now.error)
    return (
      <main className="mx-auto max-w-3xl px-4 py-6">
        <ProblemNotice problem={now.error} />
      </main>
    );
  if (!now.data)
    return (
      <main className="mx-auto max-w-3xl px-4 py-6">
        <Loading what="Reading the machine" />
      </main>
    );
  const machine = now.data;
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
      <header>
        <h1>{machine.machine}</h1>
        {machine.serial && <p className="font-mono text-faint">serial {machine.serial}</p>}
      </header>
      <section aria-label="In it now">
        <h2>In it now</h2>
        {machine.board ? (
          <>
            <p className="my-2">
              <InkMark side="replacement">{machine.board}</InkMark> since{" "}
              {machine.since && new Date(machine.since).toLocaleDateString([], { dateStyle: "medium" })}, by{" "}
              {machine.by_job}
            </p>
            <p className="font-mono text-2xl">
              {Object.entries(machine.left ?? {})
                .map(([element, value]) => `${element} ${value}`)
                .join("  ")}
            </p>
          </>
        ) : (
          <p className="text-faint">No closed job has put a board into it; what is in it is what was found.</p>
        )}
        {machine.others.map((each) => (
          <p key={each.title} className="my-2">
            {each.title}: <InkMark side="replacement">{each.board}</InkMark>{" "}
            <span className="font-mono">
              {Object.entries(each.left)
                .map(([element, value]) => `${element} ${value}`)
                .join("  ")}
            </span>
          </p>
        ))}
      </section>
      {machine.defects.length > 0 && (
        <section aria-label="Left for later">
          <h2>Left for later</h2>
          <ul className="list-disc pl-5">
            {machine.defects.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        </section>
      )}
      {machine.corrections.length > 0 && (
        <section aria-label="Corrections">
          <h2>Corrections</h2>
          <ul className="list-disc pl-5">
            {machine.corrections.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        </section>
      )}
      <section aria-label="Jobs on it">
        <h2>Jobs on it</h2>
        <ul className="border-t border-rule">
          {jobs.data?.items.map((job) => (
            <li key={job.id} className="border-b border-rule">
              <Link
                to="/jobs/$id"
                params={{ id: job.id }}
                className="flex flex-wrap items-center gap-x-3 gap-y-1 py-3 no-underline hover:bg-raised"
              >
                <span className="font-mono text-sm text-faint">{job.code}</span>
                <span className="grow">
                  {job.complaint || "no complaint written down"}{" "}
                  <span className="text-faint">
                    {new Date(job.opened_at).toLocaleDateString()}
                    {job.closed_at ? "" : ", open"}
                  </span>
                </span>
                {job.original && <InkMark side="original">{job.original}</InkMark>}
                {job.replacement && <InkMark side="replacement">{job.replacement}</InkMark>}
                {job.verdict && <VerdictMark verdict={job.verdict} />}
              </Link>
            </li>
          ))}
        </ul>
        {jobs.data && <Pager {...jobs.data} onPage={(next) => void navigate({ search: { name, page: next } })} />}
      </section>
    </main>
  );
}
