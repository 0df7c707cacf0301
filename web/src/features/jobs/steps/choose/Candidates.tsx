import { FitMark } from "@/ui/FitMark";
import { InkMark } from "@/ui/inks";
import { isWide } from "@/ui/isWide";
import { useState } from "react";
import type { Candidate } from "./candidate";
import { thereWords, type There } from "./whereabouts";
import { CRITERIA, haveWords, nameOf, reasonsInOrder } from "./words";

const SAID = 2;
/** Candidates in sight at once where there is little room; the others wait behind one line. */
const FIRST_SEEN = 6;

type Props = {
  candidates: Candidate[];
  /** In which vans each is, the nearest first. */
  there?: Map<string, There[]>;
  chosen: string | null;
  open: string | undefined;
  onOpen: (partNumber: string, criterion?: string) => void;
};

/** Every candidate in a line: what speaks against it, worst first, when it is here and what it costs; marks under it. */
export function Candidates({ candidates, ...props }: Props) {
  // where there is little room, boards that do not fit wait behind one line
  const folded = isWide() ? [] : candidates.filter((each) => each.verdict === "no");
  const fitting = candidates.filter((each) => !folded.includes(each));
  const lines = isWide() ? fitting : fitting.slice(0, FIRST_SEEN);
  const more = fitting.slice(lines.length);
  if (candidates.length === 0) return null;
  return (
    <>
      <ol aria-label="Candidates" className="border-t-2 border-text">
        {lines.map((each) => (
          <Line key={each.part_number} candidate={each} {...props} />
        ))}
      </ol>
      {more.length > 0 && (
        <details>
          <summary className="min-h-12 py-2.5">More that may do: {more.length}</summary>
          <ol aria-label="More candidates" className="border-t border-rule">
            {more.map((each) => (
              <Line key={each.part_number} candidate={each} {...props} />
            ))}
          </ol>
        </details>
      )}
      {folded.length > 0 && (
        <details>
          <summary className="min-h-12 py-2.5">Do not fit: {folded.length}</summary>
          <ol aria-label="Boards that do not fit" className="border-t border-rule">
            {folded.map((each) => (
              <Line key={each.part_number} candidate={each} {...props} />
            ))}
          </ol>
        </details>
      )}
    </>
  );
}

function Line({ candidate, there, chosen, open, onOpen }: Omit<Props, "candidates"> & { candidate: Candidate }) {
  const { part_number: partNumber, verdict, offer } = candidate;
  const near = thereWords(there?.get(partNumber));
  return (
    <li className={`border-b border-rule py-1 ${open === partNumber ? "bg-raised" : ""}`}>
      <button
        type="button"
        aria-expanded={open === partNumber}
        onClick={() => onOpen(partNumber)}
        className="grid min-h-12 w-full grid-cols-[1fr_auto] gap-x-4 gap-y-0.5 py-1 text-left sm:grid-cols-[11rem_1fr_auto]"
      >
        <span>
          <InkMark side="replacement">{partNumber}</InkMark>
          <span className="block text-sm font-semibold">
            {verdict}
            {chosen === partNumber && ", chosen"}
          </span>
        </span>
        <span className="order-last col-span-2 text-[0.95rem] leading-snug sm:order-none sm:col-span-1">
          <Reasons candidate={candidate} />
        </span>
        <span className="text-right text-sm">
          {near && <strong className="block sm:whitespace-nowrap">{near}</strong>}
          <span className="block sm:whitespace-nowrap">{near ? `desk: ${haveWords(offer)}` : haveWords(offer)}</span>
          <span className="block font-mono sm:whitespace-nowrap">
            {offer?.price == null ? "no price" : offer.price.toFixed(0)}
          </span>
        </span>
      </button>
      <Marks candidate={candidate} onOpen={(criterion) => onOpen(partNumber, criterion)} />
    </li>
  );
}

function Reasons({ candidate }: { candidate: Candidate }) {
  const reasons = reasonsInOrder(candidate);
  if (reasons.length === 0) {
    const listed = candidate.cells.find((cell) => cell.criterion === "listing")?.reasons[0]?.words;
    return <>Nothing speaks against it.{listed && <span className="block text-faint">{listed}</span>}</>;
  }
  // where there is little room, a board that does not fit says the one thing that rules it out
  if (candidate.verdict === "no" && !isWide())
    return <span className="line-clamp-1 font-semibold">{reasons[0]?.words}</span>;
  const more = reasons.length - SAID;
  return (
    <>
      {reasons.slice(0, SAID).map((each) => (
        <span key={each.words} className={`block ${each.verdict === "no" ? "font-semibold" : ""}`}>
          {each.words}
        </span>
      ))}
      {more > 0 && <span className="text-faint">and {more} more</span>}
    </>
  );
}

/** A mark for each criterion; touched or focused, it says its whole name and opens there. */
function Marks({ candidate, onOpen }: { candidate: Candidate; onOpen: (criterion: string) => void }) {
  const [told, setTold] = useState<string>();
  const verdictOf = (id: string) => candidate.cells.find((cell) => cell.criterion === id)?.verdict ?? "to check";
  return (
    <div className="hidden flex-wrap items-center desk:flex">
      {CRITERIA.map(([id, name]) => (
        <button
          key={id}
          type="button"
          aria-label={`${candidate.part_number}, ${name}: ${verdictOf(id)}`}
          onClick={() => onOpen(id)}
          onFocus={() => setTold(id)}
          onBlur={() => setTold(undefined)}
          onPointerEnter={() => setTold(id)}
          onPointerLeave={() => setTold(undefined)}
          className="inline-flex min-h-9 min-w-9 items-center justify-center"
        >
          <FitMark verdict={verdictOf(id)} />
        </button>
      ))}
      <span aria-hidden="true" className="ml-2 text-sm">
        {told && `${nameOf(told)}: ${verdictOf(told)}`}
      </span>
    </div>
  );
}

/** What the marks mean. */
export function Legend() {
  return (
    <ul className="hidden flex-wrap gap-x-4 gap-y-1 text-sm desk:flex" aria-label="What the marks mean">
      {["fits", "with work", "to check", "no"].map((verdict) => (
        <li key={verdict} className="flex items-center gap-1.5">
          <FitMark verdict={verdict} /> {verdict}
        </li>
      ))}
    </ul>
  );
}
