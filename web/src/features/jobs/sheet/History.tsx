import { Pager } from "@/ui/Pager";
import { ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { useEntriesPage, type Job } from "../api";
import { entryLine } from "../entries/entryWords";

/** Every entry of the job, newest first: who, when, what, from, to, read how. */
export function History({ job }: { job: Job }) {
  const [open, setOpen] = useState(false);
  return (
    <details className="mt-2 border-t border-text" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-11 py-2 font-semibold">Everything that was entered ({job.entry_count})</summary>
      {open && <Entries job={job} />}
    </details>
  );
}

function Entries({ job }: { job: Job }) {
  const [page, setPage] = useState(1);
  const entries = useEntriesPage(job.id, page, job.entry_count);
  return (
    <>
      <ProblemNotice problem={entries.error} />
      <ol className="border-t border-rule">
        {entries.data?.items.map((entry) => (
          <li key={entry.id} className="border-b border-rule py-2">
            <span className="text-sm text-faint">
              {new Date(entry.at).toLocaleString([], { dateStyle: "short", timeStyle: "short" })}, {entry.by}
              {entry.board && `, ${entry.board}`}
              {entry.read_how && `, ${entry.read_how}`}
            </span>
            <br />
            {entryLine(entry.words)}
            {entry.reason && <span className="block">Reason: {entry.reason}</span>}
          </li>
        ))}
      </ol>
      {entries.data && <Pager {...entries.data} onPage={setPage} />}
    </>
  );
}
