import { Overlay } from "@/drawing/Overlay";
import type { BoardDocument } from "@/drawing/types";
import { ProblemNotice } from "@/ui/notices";
import { SideName } from "@/ui/inks";
import { useState } from "react";
import { useBeside, type Job } from "../../api";

/** Outlines and holes laid on each other, and the plugs pin by pin. */
export function Beside({ job, partNumber }: { job: Job; partNumber: string }) {
  const [open, setOpen] = useState(false);
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-11 py-2 font-semibold">Laid on the original: holes, plugs, contacts</summary>
      {open && <Laid job={job} partNumber={partNumber} />}
    </details>
  );
}

function Laid({ job, partNumber }: { job: Job; partNumber: string }) {
  const beside = useBeside(job, partNumber);
  const data = beside.data;
  if (!data) return <ProblemNotice problem={beside.error} />;
  return (
    <div className="flex flex-col gap-5">
      <p className="flex flex-wrap gap-5">
        <SideName side="original">{job.original}, full line</SideName>
        <SideName side="replacement">{partNumber}, broken line</SideName>
      </p>
      {data.turn !== null ? (
        <>
          <Overlay
            original={data.original as BoardDocument}
            replacement={data.replacement as BoardDocument}
            turn={data.turn}
            shift={[data.right_mm, data.up_mm]}
            newHoles={data.new_holes}
          />
          <p>
            {data.serving} hole{data.serving === 1 ? " serves" : "s serve"}
            {data.turn !== 0 && `, the board turned ${data.turn}° anticlockwise`}.
          </p>
          {data.new_holes.length > 0 && (
            <ol className="list-decimal pl-6 font-mono">
              {data.new_holes.map((hole, index) => (
                <li key={index}>
                  {hole.diameter_mm} mm: {hole.from_left_mm} mm from the left edge of the old board,{" "}
                  {hole.from_bottom_mm} mm from its lower edge
                </li>
              ))}
            </ol>
          )}
        </>
      ) : (
        <p>The outline of one of the two is not in its profile.</p>
      )}
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Pins side by side">
        <table className="w-full border-collapse text-[0.95rem]">
          <thead>
            <tr className="border-b-2 border-text text-left">
              <th scope="col">Pin there</th>
              <th scope="col">Carries</th>
              <th scope="col">Pin here</th>
            </tr>
          </thead>
          <tbody>
            {data.pins.map((pin) => (
              <tr key={`${pin.connector}-${pin.pin}`} className="border-b border-rule">
                <td className="py-1 font-mono text-original">
                  {pin.connector} {pin.pin}
                </td>
                <td className="py-1">{pin.signal}</td>
                <td className="py-1 font-mono text-replacement">
                  {pin.to}
                  {pin.trap && <strong className="font-sans text-text"> other pin, though the plug fits</strong>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <ul>
        {data.contacts.map((row) => (
          <li key={row.words}>
            {row.words}: <strong>{row.verdict}</strong>
          </li>
        ))}
      </ul>
    </div>
  );
}
