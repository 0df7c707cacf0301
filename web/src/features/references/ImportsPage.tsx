import { Button } from "@/ui/Button";
import { Empty, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useRef, useState } from "react";
import { isRunning, useCancelImport, useImports, useSendImport, type Import } from "./api";

/** Send a file of statements, see how far it is, stop it, and take the refused rows back. */
export function ImportsPage() {
  const { page } = useSearch({ from: "/references/imports" });
  const navigate = useNavigate({ from: "/references/imports" });
  const imports = useImports(page);
  const send = useSendImport();
  const [file, setFile] = useState<File>();
  const field = useRef<HTMLInputElement>(null);
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
      <p className="text-faint">
        <Link to="/references" search={{ board: "", relation: "", withdrawn: false, page: 1 }}>
          Cross-references
        </Link>
      </p>
      <h1>Import statements</h1>
      <p>
        A CSV file, or a statements document (JSON, at most 2 MB). The columns are id, original, replacement, relation,
        and as many of if, needs, companions, words, source, date, valid_from, valid_to, cost, days, worked, failed as
        are known. A statement whose id is there already takes its place. Rows that break a rule are refused and can be
        taken back, repaired and sent again; the others count once all of them are in.
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <div className="flex grow flex-col gap-1">
          <label htmlFor="file" className="font-semibold">
            File
          </label>
          <input
            ref={field}
            id="file"
            type="file"
            accept=".csv,text/csv,.json,application/json"
            className="min-h-12 w-full min-w-0 border border-edge bg-raised p-2"
            onChange={(event) => setFile(event.target.files?.[0])}
          />
        </div>
        <Button
          kind="main"
          disabled={!file || send.isPending}
          onClick={() =>
            file &&
            send.mutate(file, {
              onSuccess: () => {
                setFile(undefined);
                if (field.current) field.current.value = "";
              },
            })
          }
        >
          {send.isPending ? "Sending …" : "Send it"}
        </Button>
      </div>
      <ProblemNotice problem={send.error ?? imports.error} />
      {imports.data?.total === 0 && <Empty>Nothing was imported yet.</Empty>}
      <ul className="border-t border-rule">
        {imports.data?.items.map((each) => (
          <ImportRow key={each.id} job={each} />
        ))}
      </ul>
      {imports.data && <Pager {...imports.data} onPage={(next) => void navigate({ search: { page: next } })} />}
    </main>
  );
}

const STATES: Record<string, string> = {
  waiting: "waits for its turn",
  reading: "is being read",
  keeping: "is being kept",
  done: "is done",
  cancelled: "was stopped; nothing of it was kept",
  failed: "could not be read; nothing of it was kept",
};

function ImportRow({ job }: { job: Import }) {
  const cancel = useCancelImport();
  return (
    <li className="flex flex-col gap-2 border-b border-rule py-3">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <p>
          <strong>{job.name}</strong> {STATES[job.state] ?? job.state}
          <span className="block text-sm text-faint">
            {new Date(job.sent_at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" })}, {job.sent_by}
            {job.rows > 0 &&
              `; ${job.rows.toLocaleString("en-GB")} rows read, ${job.refused.toLocaleString("en-GB")} refused`}
            {job.state === "done" && `, ${job.new.toLocaleString("en-GB")} new`}
          </span>
        </p>
        {isRunning(job) && (
          <Button disabled={cancel.isPending} onClick={() => cancel.mutate(job.id)}>
            Stop it
          </Button>
        )}
      </div>
      {isRunning(job) && (
        <progress
          className="h-3 w-full"
          max={1}
          value={job.state === "keeping" ? undefined : job.share}
          aria-label={`${job.name}: ${Math.round(job.share * 100)} % read`}
        />
      )}
      {job.fault && <p>{job.fault}</p>}
      {job.refused > 0 && !isRunning(job) && (
        <a href={`/api/imports/${job.id}/refused.csv`} className="inline-block min-h-11 self-start py-2">
          The refused rows, with what is wrong in each (CSV)
        </a>
      )}
      <ProblemNotice problem={cancel.error} />
    </li>
  );
}
