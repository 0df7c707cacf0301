import type { Schemas } from "@/api/client";
import { WhereOnBoard } from "@/drawing/WhereOnBoard";
import type { BoardDocument } from "@/drawing/types";
import { Button } from "@/ui/Button";
import { Caution, Loading } from "@/ui/notices";
import { useKeys } from "@/ui/useKeys";
import { useJobBoard, useWiring } from "../../api";
import type { StepProps } from "../../stepProps";

type Props = StepProps & { fitting: Schemas["FittingShown"] };
type Wiring = Schemas["WiringShown"];
type StepLine = Wiring["steps"][number];

/** The wiring plan for one hand: one wire or plug at a time, large; D says done, B goes back a step. */
export function RunSheet({ job, put, fitting }: Props) {
  const wiring = useWiring(job);
  const original = useJobBoard(job, "original");
  const replacement = useJobBoard(job, "replacement");
  const steps = wiring.data?.steps ?? [];
  const next = steps.find((step) => !job.ticked[step.key]);
  const done = steps.filter((step) => job.ticked[step.key]);
  const last = done.at(-1);
  const noPlug = fitting.no_plugs.find((each) => each.step === next?.key);
  const looked = noPlug !== undefined && job.looks[noPlug.look] === true;
  const mayTick = next !== undefined && (!noPlug || looked) && !job.closed && job.energised === null;
  const tick = () => next && mayTick && void put({ target: `ticked.${next.key}`, after: true });
  const back = () =>
    last && !job.closed && job.energised === null && void put({ target: `ticked.${last.key}`, after: null });

  useKeys({ d: tick, b: back });

  if (!wiring.data) return wiring.isPending ? <Loading what="Reading the wiring plan" /> : null;
  if (steps.length === 0) return <p className="text-faint">No wire is in the plan.</p>;
  const places = next ? placesOf(next, wiring.data) : null;
  return (
    <>
      {next && (
        <section aria-label="Next wire" className="border-2 border-text p-4">
          <p className="text-faint">
            {done.length + 1} of {steps.length}
          </p>
          <p className="my-1 text-2xl font-semibold">{next.words}</p>
          {next.minded.map((each) => (
            <p key={each} className="font-semibold">
              Mind: {each}
            </p>
          ))}
          {places && original.data && replacement.data && (
            <div className="my-3 grid grid-cols-2 gap-3">
              <WhereOnBoard
                document={original.data.document as BoardDocument}
                side="original"
                place={places.from}
                what="From the old board"
              />
              <WhereOnBoard
                document={replacement.data.document as BoardDocument}
                side="replacement"
                place={places.to}
                what="To the new board"
              />
            </div>
          )}
          {noPlug && !looked && (
            <Caution title="A last look: is there no plug that fits?">
              <p>What comes next cuts, strips or crimps, and cannot be taken back.</p>
              <ul className="list-disc pl-5">
                {noPlug.words.map((each) => (
                  <li key={each}>{each}.</li>
                ))}
              </ul>
              {!job.closed && (
                <Button className="mt-2" onClick={() => void put({ target: `look.${noPlug.look}`, after: true })}>
                  I looked: no plug fits
                </Button>
              )}
            </Caution>
          )}
          {!job.closed && (
            <div className="mt-3 flex flex-wrap gap-2">
              <Button kind="main" className="min-h-14 grow text-center! text-lg" disabled={!mayTick} onClick={tick}>
                Done
              </Button>
              <Button className="min-h-14" disabled={!last || job.energised !== null} onClick={back}>
                Back a step
              </Button>
            </div>
          )}
        </section>
      )}
      {!next && <p className="font-semibold">Every wire, plug and link is where it belongs.</p>}
      {!next && !job.closed && job.energised === null && last && (
        <Button className="self-start" onClick={back}>
          Back a step
        </Button>
      )}
      <details>
        <summary className="min-h-11 py-2 font-semibold">What is where at this moment</summary>
        <table className="w-full text-left">
          <thead>
            <tr className="border-b border-text">
              <th scope="col">Wire</th>
              <th scope="col">Is now</th>
            </tr>
          </thead>
          <tbody>
            {wiring.data?.wires.map((wire) => (
              <tr key={wire.id} className="border-b border-rule">
                <td className="py-1">
                  {wire.tag || wire.from_place} <span className="text-faint">{wire.carries}</span>
                </td>
                <td>
                  {moved(wire.id, steps, job.ticked) ? (
                    <span className="text-replacement">
                      {wire.to_place ? `on ${wire.to_place}, new board` : wire.treatment}
                    </span>
                  ) : (
                    <span className="text-original">on {wire.from_place}, old board</span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </>
  );
}

function placesOf(step: StepLine, wiring: Wiring | undefined) {
  const wire = wiring?.wires.find((each) => each.id === step.wires[0]);
  return wire ? { from: wire.from_place, to: wire.to_place } : null;
}

function moved(wire: string, steps: StepLine[], ticked: Record<string, boolean>) {
  return steps.some((step) => step.wires.includes(wire) && ticked[step.key] === true);
}
