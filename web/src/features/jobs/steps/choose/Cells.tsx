import { Choice } from "@/ui/fields";
import { FitMark } from "@/ui/FitMark";
import { InkMark } from "@/ui/inks";
import { useState } from "react";
import type { Candidate } from "./candidate";
import { CRITERIA, nameOf } from "./words";

type Props = { candidate: Candidate; others: Candidate[]; at?: string };

/** Every criterion with its reasons; beside another candidate where one is picked. */
export function Cells({ candidate, others, at }: Props) {
  const [picked, setPicked] = useState("");
  const beside = others.find((each) => each.part_number === picked);
  return (
    <div className="flex flex-col gap-2">
      {others.length > 0 && (
        <div className="max-w-sm">
          <Choice label="Beside another one" value={picked} onChange={(event) => setPicked(event.target.value)}>
            <option value="">by itself</option>
            {others.map((each) => (
              <option key={each.part_number}>{each.part_number}</option>
            ))}
          </Choice>
        </div>
      )}
      {beside && (
        <p className="grid grid-cols-2 gap-x-4">
          {[candidate, beside].map((each) => (
            <span key={each.part_number}>
              <InkMark side="replacement">{each.part_number}</InkMark> <strong>{each.verdict}</strong>
            </span>
          ))}
        </p>
      )}
      <ul className="border-t border-rule">
        {CRITERIA.map(([id]) => (
          <li
            key={id}
            data-criterion={id}
            className={`scroll-mt-24 border-b border-rule py-1.5 ${id === at ? "bg-raised" : ""}`}
          >
            <div className={beside ? "grid grid-cols-2 gap-x-4" : ""}>
              <Cell candidate={candidate} criterion={id} />
              {beside && <Cell candidate={beside} criterion={id} />}
            </div>
          </li>
        ))}
      </ul>
    </div>
  );
}

function Cell({ candidate, criterion }: { candidate: Candidate; criterion: string }) {
  const cell = candidate.cells.find((each) => each.criterion === criterion);
  const told = criterion === "behaviour" ? (candidate.proof?.told ?? []) : [];
  const verdict = cell?.verdict ?? "to check";
  return (
    <div className="grid min-w-0 grid-cols-[1.75rem_1fr] gap-x-2">
      <FitMark verdict={verdict} />
      <div className="min-w-0">
        <strong>{nameOf(criterion)}</strong> <span className="text-faint">{verdict}</span>
        <ul>
          {cell?.reasons.map((each) => (
            <li key={each.words} className={each.verdict === "no" ? "font-semibold" : ""}>
              {each.words}
            </li>
          ))}
        </ul>
        {told.length > 0 && (
          <ol className="mt-1 list-decimal pl-6">
            {told.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
        )}
      </div>
    </div>
  );
}
