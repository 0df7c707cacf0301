import type { Schemas } from "@/api/client";
import { FitMark } from "@/ui/FitMark";
import { InkMark } from "@/ui/inks";
import { CRITERIA } from "./words";

export type Candidate = Schemas["CandidateShown"];
type Props = {
  candidates: Candidate[];
  chosen: string | null;
  open: string | undefined;
  onOpen: (partNumber: string, criterion?: string) => void;
};

/** Candidates down, criteria across; each row and each cell opens to its reasons. */
export function Matrix({ candidates, chosen, open, onOpen }: Props) {
  if (candidates.length === 0) return null;
  return (
    <div className="flex flex-col gap-2">
      <Legend />
      <div
        className="relative -mx-4 overflow-x-auto px-4"
        tabIndex={0}
        role="region"
        aria-label="Matrix of candidates and criteria"
      >
        <table className="w-full border-collapse text-[0.95rem]">
          <thead>
            <tr className="border-b-2 border-text text-left align-bottom">
              <th scope="col" className="py-1 pr-3">
                Candidate
              </th>
              {CRITERIA.map(([id, name, short]) => (
                <th
                  key={id}
                  scope="col"
                  className="px-0.5 py-1 text-center text-xs font-normal"
                  abbr={name}
                  title={name}
                >
                  {short}
                </th>
              ))}
              <th scope="col" className="py-1 pl-2 text-right text-xs font-normal">
                Price
              </th>
            </tr>
          </thead>
          <tbody>
            {candidates.map((each) => (
              <tr
                key={each.part_number}
                className={`border-b border-rule ${open === each.part_number ? "bg-raised" : ""}`}
              >
                <th scope="row" className="py-1 pr-3 text-left font-normal">
                  <button
                    type="button"
                    aria-expanded={open === each.part_number}
                    onClick={() => onOpen(each.part_number)}
                    className="min-h-11 text-left"
                  >
                    <InkMark side="replacement">{each.part_number}</InkMark>
                    <span className="block text-xs text-faint">
                      {each.verdict}
                      {chosen === each.part_number && <strong>, chosen</strong>}
                    </span>
                  </button>
                </th>
                {CRITERIA.map(([id, name]) => {
                  const verdict = each.cells.find((cell) => cell.criterion === id)?.verdict ?? "to check";
                  return (
                    <td key={id} className="p-0 text-center">
                      <button
                        type="button"
                        title={`${name}: ${verdict}`}
                        aria-label={`${each.part_number}, ${name}: ${verdict}`}
                        onClick={() => onOpen(each.part_number, id)}
                        className="inline-flex min-h-11 min-w-9 items-center justify-center"
                      >
                        <FitMark verdict={verdict} />
                      </button>
                    </td>
                  );
                })}
                <td className="py-1 pl-2 text-right font-mono whitespace-nowrap">
                  {each.offer?.price == null ? "–" : each.offer.price.toFixed(0)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}

function Legend() {
  return (
    <ul className="flex flex-wrap gap-x-4 gap-y-1 text-sm" aria-label="What the marks mean">
      {["fits", "with work", "to check", "no"].map((verdict) => (
        <li key={verdict} className="flex items-center gap-1.5">
          <FitMark verdict={verdict} /> {verdict}
        </li>
      ))}
    </ul>
  );
}
