import { useDepotClock } from "@/with_you/clock";
import { useKeptState } from "@/ui/typed";
import type { Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { timeWords } from "@/ui/numbers";
import type { StepProps } from "../../stepProps";
import { Does } from "../Does";

type Forced = Schemas["ForcedKept"];

/** What is overridden for a test: it must be off, and said to be off, before the machine is handed over. */
export function Overrides({ job, put, plan }: StepProps & { plan: Schemas["ProvingShown"] }) {
  const [own, setOwn] = useKeptState("something else overridden", "");
  const forced = Object.entries(job.forced);
  const on = forced.filter(([, each]) => !each.off);
  const switchOn = (what: string, more: Partial<Forced>) =>
    void put({ target: `forced.${newId()}`, after: { what, off: false, ...more } });
  return (
    <>
      {on.length === 0 ? (
        <p>Nothing is overridden.</p>
      ) : (
        <ul className="flex flex-col gap-2">
          {on.map(([id, each]) => (
            <li key={id} className="hatched flex flex-wrap items-center gap-x-4 gap-y-2 px-3 py-2">
              <strong className="grow">{each.what}</strong>
              <TimeLeft forced={each} />
              {!job.closed && (
                <SwitchedOff
                  element={elementOf(plan, each)}
                  onOff={(read) => void put({ target: `forced.${id}`, after: { ...bare(each), ...read } })}
                />
              )}
              <span className="basis-full text-sm">{plan.overrides.find((known) => known.id === each.of)?.undo}</span>
            </li>
          ))}
        </ul>
      )}
      {!job.closed && (
        <>
          <ul className="border-t border-rule">
            {plan.overrides.map((each) => (
              <li key={each.id} className="flex flex-wrap items-center gap-3 border-b border-rule py-2">
                <span className="grow">
                  {each.what}{" "}
                  <span className="text-faint">
                    {each.how}
                    {each.time_out_s !== null && `, at most ${timeWords(each.time_out_s)}`}
                  </span>
                  <Does does={each.does} />
                </span>
                <Button
                  aria-label={`Switched on: ${each.what}`}
                  onClick={() =>
                    switchOn(each.what, {
                      of: each.id,
                      ...(each.time_out_s === null ? {} : { time_out_s: each.time_out_s }),
                    })
                  }
                >
                  Switched on
                </Button>
              </li>
            ))}
          </ul>
          <div className="flex flex-wrap items-end gap-2">
            <div className="w-72 max-w-full">
              <TextField
                label="Something else is overridden"
                maxLength={200}
                value={own}
                onChange={(event) => setOwn(event.target.value)}
              />
            </div>
            <Button
              needs={lacking({ "what is overridden": !own.trim() })}
              onClick={() => (switchOn(own.trim(), {}), setOwn(""))}
            >
              Switched on
            </Button>
          </div>
        </>
      )}
    </>
  );
}

/** The element of a switch of the board itself, which is read back once it is off; empty for anything else. */
function elementOf(plan: Schemas["ProvingShown"], forced: Forced): string {
  return (plan.overrides.find((known) => known.id === forced.of)?.point ?? "").split(".")[0] ?? "";
}

function SwitchedOff({ element, onOff }: { element: string; onOff: (read: { read?: string }) => void }) {
  const [read, setRead] = useKeptState(`${element} after an override`, "");
  if (!element) return <Button onClick={() => onOff({})}>It is off again</Button>;
  return (
    <span className="flex items-end gap-2">
      <span className="w-40">
        <TextField
          label={`${element} reads now`}
          className="font-mono"
          maxLength={80}
          value={read}
          onChange={(event) => setRead(event.target.value)}
        />
      </span>
      <Button
        needs={lacking({ "how it reads now": !read.trim() })}
        onClick={() => (onOff({ read: read.trim() }), setRead(""))}
      >
        It is off again
      </Button>
    </span>
  );
}

function bare({ what, time_out_s, of }: Forced) {
  return { what, off: true, ...(time_out_s === undefined ? {} : { time_out_s }), ...(of === undefined ? {} : { of }) };
}

function TimeLeft({ forced }: { forced: Forced }) {
  const now = useDepotClock();
  if (forced.time_out_s === undefined) return <span>no time-out: switch it off by hand</span>;
  const left = forced.time_out_s - (now - new Date(forced.began).getTime()) / 1000;
  return (
    <span className="font-mono">
      {left > 0 ? `ends by itself in ${Math.ceil(left)} s` : "past its time: make sure that it is off"}
    </span>
  );
}
