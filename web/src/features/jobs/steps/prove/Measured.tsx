import type { Schemas } from "@/api/client";
import { signalsOf, type FamilyDocument } from "@/comparison/Player";
import { TimeTracks } from "@/drawing/TimeTracks";
import { SideName } from "@/ui/inks";
import { Loading, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { useState } from "react";
import { type Job } from "../../api";
import { useRuns } from "../../endApi";
import { apartWords, inTime, LAST_WORDS, span } from "./words";

type Run = Schemas["MeasuredShown"];

/** Every run that was measured: its track over the two inks, each event judged, the off ones with likely reasons. */
export function Measured({ job, family }: { job: Job; family: FamilyDocument }) {
  const [page, setPage] = useState(1);
  const runs = useRuns(job, page);
  if (runs.error) return <ProblemNotice problem={runs.error} />;
  if (!runs.data) return <Loading what="Laying the runs over the boards" />;
  return (
    <>
      <p className="flex flex-wrap gap-x-5 text-sm">
        <SideName side="original" />
        <SideName side="replacement" />
        <span className="inline-flex items-center gap-2">
          <span aria-hidden="true" className="w-6 border-t-[3px] border-dotted border-text" /> measured
        </span>
      </p>
      <ol className="flex flex-col gap-5">
        {runs.data.items.map((run) => (
          <li key={run.id}>
            <RunShown run={run} family={family} current={job.replacement} />
          </li>
        ))}
      </ol>
      <Pager page={page} size={5} total={runs.data.total} onPage={setPage} />
    </>
  );
}

function RunShown({ run, family, current }: { run: Run; family: FamilyDocument; current: string | null }) {
  const signals = signalsOf(family);
  const inputs = signals.inputs;
  const outputs = signals.outputs.filter((each) => signals.compared.includes(each.id));
  const off = inTime(run.events.filter((event) => event.verdict !== "in time"));
  return (
    <article aria-label={`Run: ${run.title}`} className="flex flex-col gap-2">
      <p>
        <strong>{run.title}</strong>{" "}
        <span className={run.verdict === "off" ? "font-semibold" : ""}>{LAST_WORDS[run.verdict] ?? run.verdict}</span>{" "}
        <span className="text-faint">
          ({run.timed}, {run.by}, {new Date(run.at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" })}
          {run.board !== current && `, with ${run.board}`})
        </span>
      </p>
      <TimeTracks
        inputs={inputs}
        outputs={outputs}
        steps={run.steps as Schemas["StepShown"][]}
        original={run.original}
        replacement={run.replacement}
        measured={run.measured}
        until={run.until}
      />
      {off.length > 0 && (
        <ul className="list-disc pl-5">
          {off.map((event, index) => (
            <li key={index}>
              <strong>
                {event.title} {event.on ? "on" : "off"}: {event.verdict}
              </strong>
              {apartWords(event) && ` ${apartWords(event)}`}
              {event.seen_at !== null && `, seen at ${event.seen_at.toFixed(1)} ± ${event.uncertainty.toFixed(1)} s`}
              {event.low !== null && event.high !== null && `, allowed ${span(event.low, event.high)}`}
              {event.reasons.length > 0 && (
                <span className="block text-faint">Perhaps: {event.reasons.join("; ")}.</span>
              )}
            </li>
          ))}
        </ul>
      )}
      <details>
        <summary className="min-h-11 py-2">Every event</summary>
        <table className="w-full max-w-2xl text-left">
          <thead>
            <tr className="border-b border-text">
              <th scope="col">Event</th>
              <th scope="col">Seen</th>
              <th scope="col">Allowed</th>
              <th scope="col">Verdict</th>
            </tr>
          </thead>
          <tbody>
            {run.events.map((event, index) => (
              <tr key={index} className="border-b border-rule">
                <td className="py-1">
                  {event.title} {event.on ? "on" : "off"}
                </td>
                <td className="font-mono">{event.seen_at === null ? "–" : `${event.seen_at.toFixed(1)} s`}</td>
                <td className="font-mono">
                  {event.low === null || event.high === null ? "–" : span(event.low, event.high)}
                </td>
                <td>{event.verdict}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </article>
  );
}
