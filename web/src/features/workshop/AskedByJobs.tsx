import { useSession } from "@/api/session";
import { addressOf } from "@/pictures/api";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { Link } from "@tanstack/react-router";
import { useKeptState } from "@/ui/typed";
import { useState } from "react";
import { useAnswer, useAsked, type Asked } from "./api";

/** What open jobs ask of the depot: who stands at a machine waits for it. */
export function AskedByJobs() {
  const [page, setPage] = useState(1);
  const asked = useAsked(page);
  if (!asked.data?.total) return <ProblemNotice problem={asked.error} />;
  return (
    <section className="flex flex-col gap-3">
      <h2>Asked by jobs</h2>
      <ul className="border-t border-rule" aria-label="Asked by jobs">
        {asked.data.items.map((each) => (
          <li key={each.job} className="border-b border-rule py-3">
            <One asked={each} />
          </li>
        ))}
      </ul>
      <Pager {...asked.data} onPage={setPage} />
    </section>
  );
}

function One({ asked }: { asked: Asked }) {
  const leads = useSession().data?.keeps_catalogue;
  const answer = useAnswer();
  const [what, setWhat, forget] = useKeptState(`answer to ${asked.job}`, "");
  return (
    <div className="flex flex-col gap-2">
      <p className="flex flex-wrap items-baseline gap-x-4">
        <Link to="/jobs/$id" params={{ id: asked.job }} className="font-mono">
          {asked.code}
        </Link>
        <span>{asked.machine}</span>
        {asked.original && (
          <Link to="/workshop" search={{ take: asked.original }} className="font-mono">
            {asked.original}
          </Link>
        )}
        <span className="ml-auto text-sm text-faint">
          {asked.by}, {new Date(asked.at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" })}
        </span>
      </p>
      <p className="font-semibold">{asked.what}</p>
      {asked.pictures.length > 0 && (
        <p className="flex flex-wrap gap-2">
          {asked.pictures.map((picture) => (
            <a key={picture} href={addressOf(picture)} target="_blank" rel="noreferrer">
              <img
                src={addressOf(picture)}
                alt={`Picture of ${asked.original ?? "the board"}`}
                className="h-24 w-auto"
              />
            </a>
          ))}
        </p>
      )}
      {leads && (
        <form
          className="grid items-end gap-3 sm:grid-cols-[1fr_auto]"
          onSubmit={(event) => {
            event.preventDefault();
            if (what.trim()) answer.mutate({ job: asked.job, what: what.trim() }, { onSuccess: forget });
          }}
        >
          <TextField
            label={`Answer to ${asked.code}`}
            maxLength={2000}
            value={what}
            onChange={(event) => setWhat(event.target.value)}
          />
          <Button type="submit" needs={lacking({ "the answer": !what.trim() })} disabled={answer.isPending}>
            Answer
          </Button>
        </form>
      )}
      <ProblemNotice problem={answer.error} />
    </div>
  );
}
