import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { useSlips } from "../../endApi";
import type { StepProps } from "../../stepProps";
import { TryPanel } from "./TryPanel";
import { usePresses as useLivePresses } from "./usePresses";

type Props = StepProps & { panel: Schemas["PanelShown"]; index: number };

/** The key-press plan live: one press at a time with what must be seen; "I see something else" finds the slip. */
export function LivePanel({ job, put, panel, index }: Props) {
  const live = useLivePresses(job, panel, index);
  const slips = useSlips(job);
  const [other, setOther] = useState(false);
  const [seen, setSeen] = useState("");
  const finished = job.looks[`on panel ${index}`] === true;
  const press = live.next;
  return (
    <section aria-label={panel.title} className="flex flex-col gap-3 border-b border-rule pb-4">
      <h4 className="font-semibold">
        {panel.title}{" "}
        <span className="font-normal text-faint">
          sets {panel.sets.join(", ")} in {panel.count} presses
        </span>
      </h4>
      {finished ? (
        <p>
          Keyed in.{" "}
          {!job.closed && (
            <Button
              kind="quiet"
              onClick={() => {
                live.restart();
                void put({ target: `look.on panel ${index}`, after: null });
              }}
            >
              Key it in again
            </Button>
          )}
        </p>
      ) : (
        <>
          {press ? (
            <div className="flex flex-col gap-3 border-2 border-text p-4">
              <p className="text-faint">
                {live.done + 1} of {live.total}
              </p>
              {press.asks && <p className="text-xl font-semibold">{press.asks}</p>}
              {press.do && <p className="text-xl font-semibold">{press.do}</p>}
              {press.key && (
                <p className="flex flex-wrap items-center gap-x-4 gap-y-1 text-xl">
                  {press.do ? "Key" : "Press"}{" "}
                  <span className="border border-edge bg-raised px-3 py-1 font-mono text-3xl">{press.key}</span>
                  {press.times > 1 && <strong>{press.times} times</strong>}
                  {press.hold_s > 0 && <span>hold {press.hold_s} s</span>}
                </p>
              )}
              {press.shows && (
                <p className="text-xl">
                  {press.do ? "until you see" : "must then show"}{" "}
                  <span className={press.do ? "font-semibold" : "font-mono text-4xl"}>{press.shows}</span>
                </p>
              )}
              <div className="flex flex-wrap gap-2">
                <Button kind="main" className="min-h-14 grow text-center!" onClick={live.seen}>
                  That is what I see
                </Button>
                <Button className="min-h-14" onClick={() => (setOther(true), setSeen(""))}>
                  I see something else
                </Button>
                <Button className="min-h-14" disabled={live.done === 0} onClick={live.back}>
                  Back
                </Button>
              </div>
            </div>
          ) : (
            <Button
              kind="main"
              className="self-start"
              onClick={() => void put({ target: `look.on panel ${index}`, after: true })}
            >
              All presses made, every display seen
            </Button>
          )}
          {other && (
            <form
              className="flex flex-col gap-2"
              onSubmit={(event) => {
                event.preventDefault();
                slips.mutate({ panel: index, actions: live.actions(true), seen });
              }}
            >
              <TextField
                label="What does it show?"
                className="font-mono text-2xl"
                autoComplete="off"
                maxLength={80}
                value={seen}
                onChange={(event) => setSeen(event.target.value)}
              />
              <Button type="submit" className="self-start" disabled={!seen.trim() || slips.isPending}>
                Where was the slip?
              </Button>
              <ProblemNotice problem={slips.error} />
              {slips.data?.length === 0 && (
                <p role="status">
                  One slip does not explain it. Leave the panel without storing, open it anew and start over.{" "}
                  <Button onClick={() => (live.restart(), setOther(false))}>Start over</Button>
                </p>
              )}
              <ul>
                {slips.data?.map((slip) => (
                  <li key={slip.words} className="flex flex-wrap items-center gap-3 border-t border-rule py-2">
                    <span className="grow">
                      {slip.words}{" "}
                      <span className="text-faint">
                        {slip.back
                          ? `On from here in ${slip.back.reduce((sum, each) => sum + each.times, 0)} presses.`
                          : "No key leads back: open the panel anew."}
                      </span>
                    </span>
                    <Button
                      onClick={() => {
                        if (slip.back) live.goOn(slip.actions, slip.back);
                        else live.restart();
                        setOther(false);
                      }}
                    >
                      Go on so
                    </Button>
                  </li>
                ))}
              </ul>
            </form>
          )}
        </>
      )}
      <TryPanel job={job} index={index} />
    </section>
  );
}
