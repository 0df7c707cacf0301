import { inputOf } from "@/comparison/inputs";
import { TimeTracks } from "@/drawing/TimeTracks";
import { Button } from "@/ui/Button";
import { VerdictMark } from "@/ui/inks";
import { timeWords } from "@/ui/numbers";
import { Link } from "@tanstack/react-router";
import type { ReactNode } from "react";
import type { Laid, Task } from "./task";

type Props = { laid: Laid; task: Task; kept: string; onAgain: () => void; onNext: ReactNode };

/** The two sheets laid on each other: what should have come of it, what did, and where they part first. */
export function LaidView({ laid, task, kept, onAgain, onNext }: Props) {
  return (
    <>
      <div role="status" className="border-y-2 border-text py-3">
        <p className="text-lg font-semibold">{laid.words}</p>
        {laid.verdict && (
          <p>
            <VerdictMark verdict={laid.verdict} />
          </p>
        )}
        {laid.told.map((each) => (
          <p key={each} className="mt-2">
            {each}
          </p>
        ))}
      </div>
      {laid.parting && <PartingView parting={laid.parting} task={task} />}
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="The two sheets">
        <table className="w-full text-left">
          <thead>
            <tr className="text-sm text-faint">
              <th className="py-1 font-normal">what</th>
              <th className="py-1 font-normal">should be</th>
              <th className="py-1 font-normal">was</th>
            </tr>
          </thead>
          <tbody>
            {laid.rows.map((row, place) => (
              <tr
                key={place}
                className={`border-t border-rule align-top ${place === laid.first ? "font-semibold" : ""}`}
              >
                <th scope="row" className="py-2 pr-3 font-[inherit]">
                  {row.what}
                  {place === laid.first && <span className="block text-sm">here they part first</span>}
                </th>
                {row.right ? (
                  <td colSpan={2} className="py-2 font-mono">
                    {row.did}
                  </td>
                ) : (
                  <>
                    <td className="py-2 pr-3 font-mono text-original">{row.should}</td>
                    <td className="py-2 font-mono text-replacement">{row.did}</td>
                  </>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p role="status" className="text-faint">
        {kept}
      </p>
      <div className="flex flex-wrap gap-3">
        {onNext}
        <Button onClick={onAgain}>The same again</Button>
        <Link to="/practice" className="min-h-12 py-3">
          To practice
        </Link>
      </div>
    </>
  );
}

function PartingView({ parting, task }: { parting: NonNullable<Laid["parting"]>; task: Task }) {
  const outputs = task.outputs as { id: string; title?: string; compare?: boolean }[];
  return (
    <section aria-label={parting.title} className="flex flex-col gap-2">
      <h2>{parting.title}</h2>
      <p>The machine as it was in the one ink, as it is now in the other. They part at {timeWords(parting.at)}.</p>
      <TimeTracks
        inputs={(task.inputs as { id: string; title?: string }[]).map(inputOf(task.rest))}
        outputs={outputs.map((each) => ({ id: each.id, title: each.title ?? each.id }))}
        compared={outputs.filter((each) => each.compare !== false).map((each) => each.id)}
        steps={parting.steps}
        original={parting.tracks.original}
        replacement={parting.tracks.replacement}
        thresholds={parting.tracks.thresholds}
        rounds={parting.tracks.rounds}
        until={parting.tracks.until}
        parting={parting.at}
      />
    </section>
  );
}
