import type { Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import { useState } from "react";
import { useTraces } from "../../api";
import type { StepProps } from "../../stepProps";
import { DraftEditor } from "./DraftEditor";
import { OverPort } from "../OverPort";
import { Taps } from "../Taps";
import { useTiming } from "../useTiming";

/** Where the original still runs: chosen scenarios timed by tapping or over the port, and kept as traces. */
export function ObservedPart({ job, put, record }: StepProps & { record: Schemas["RecordShown"] }) {
  const timer = useTiming(job.id, "original");
  const [title, setTitle, forgetTitle] = useKeptState("run observed", "");
  const atRest = Object.fromEntries(record.at_rest.map((name) => [name, true]));
  const [on, setOn] = useState<Record<string, boolean>>(atRest);
  const keep = () => {
    const until = timer.end();
    const { steps, seen } = timer.timing;
    const timed = timer.overPort ? "over the port" : "by hand";
    void put({ target: `trace.${newId()}`, after: { title: title.trim() || "A run", steps, seen, until, timed } });
    setOn(atRest);
    forgetTitle();
  };
  const flip = (name: string, kind: "input" | "output") => {
    timer[kind](name, !on[name]);
    setOn({ ...on, [name]: !on[name] });
  };
  return (
    <>
      {!job.closed && !timer.running && (
        <div className="flex flex-wrap items-end gap-2">
          <div className="w-72 max-w-full">
            <TextField
              label="What is run"
              maxLength={200}
              value={title}
              onChange={(event) => setTitle(event.target.value)}
            />
          </div>
          <Button onClick={() => timer.begin(false)}>Time it by tapping</Button>
          {record.port && (
            <OverPort instead="Time it by tapping.">
              <Button onClick={() => timer.begin(true)}>Time it over the port</Button>
            </OverPort>
          )}
        </div>
      )}
      {timer.running && (
        <div className="flex flex-col gap-3 border-2 border-text p-3">
          <p role="timer" className="font-mono text-3xl">
            {timer.timing.at.toFixed(1)} s
          </p>
          {timer.lost && (
            <p role="status" className="font-semibold">
              The port is silent: {timer.lost}. It is asked again; or go on by tapping.
            </p>
          )}
          <Taps label="You make happen" names={record.inputs} on={on} onTap={(name) => flip(name, "input")} />
          <Taps label="You see" names={record.outputs} on={on} onTap={(name) => flip(name, "output")} />
          <p className="text-sm text-faint">
            {timer.timing.steps.length} made, {timer.timing.seen.length} seen
            {timer.overPort && (timer.watching ? ", watched over the port" : ", asking the port how things stand")}
          </p>
          <div className="flex gap-2">
            <Button kind="main" needs={lacking({ "what was seen": timer.timing.seen.length === 0 })} onClick={keep}>
              Keep this run
            </Button>
            <Button onClick={() => timer.end()}>Throw it away</Button>
          </div>
        </div>
      )}
      <Kept job={job} put={put} record={record} />
    </>
  );
}

/** The runs that were kept, each held against the replacement as planned: evidence, not a proof. */
function Kept({ job, put, record }: StepProps & { record: Schemas["RecordShown"] }) {
  const traces = useTraces(job, Object.keys(job.traces).length > 0);
  const leads = useSession().data?.keeps_catalogue === true;
  if (Object.keys(job.traces).length === 0)
    return (
      <p className="text-faint">No run was timed. Without one, and without a known behaviour, nothing can be shown.</p>
    );
  return (
    <>
      <ul className="border-t border-rule">
        {traces.data?.map((trace) => (
          <li key={trace.id} className="border-b border-rule py-2">
            <p>
              <strong>{trace.title}</strong>{" "}
              {trace.agrees === null
                ? trace.fault
                : trace.agrees
                  ? "the replacement would do the same: evidence for this run, not a proof"
                  : "the replacement would do otherwise"}
            </p>
            {trace.agrees === false && (
              <ul className="list-disc pl-5">
                {trace.events
                  .filter((event) => event.verdict !== "in time")
                  .map((event, index) => (
                    <li key={index}>
                      {event.output} {event.on ? "on" : "off"}: {event.verdict}
                      {event.seen_at !== null && `, seen at ${event.seen_at.toFixed(1)} s`}
                      {event.at !== null && `, the replacement at ${event.at.toFixed(1)} s`}
                    </li>
                  ))}
              </ul>
            )}
            {!job.closed && (
              <Button
                kind="quiet"
                aria-label={`Leave it out: ${trace.title}`}
                onClick={() => void put({ target: `trace.${trace.id}`, after: null })}
              >
                Leave it out
              </Button>
            )}
          </li>
        ))}
      </ul>
      {leads && !job.closed && <DraftEditor job={job} record={record} />}
    </>
  );
}
