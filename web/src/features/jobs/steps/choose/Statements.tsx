import type { Schemas } from "@/api/client";

/** Statements with their source and what happened in the field, as counts. */
export function Statements({ statements }: { statements: Schemas["StatementShown"][] }) {
  return (
    <ul className="border-t border-rule">
      {statements.map((each) => (
        <li key={each.id} className="border-b border-rule py-1.5">
          <span className="font-mono">{each.original}</span> → <span className="font-mono">{each.replacement}</span>:{" "}
          {each.relation}
          {each.words && `, “${each.words}”`}
          <span className="block text-sm text-faint">
            {each.source || "no source"}
            {each.dated && `, ${each.dated}`}; {triedWords(each)}
            {each.cost !== null && each.cost !== undefined && `; costs ${each.cost.toFixed(2)}`}
            {each.days !== null && each.days !== undefined && `; ${each.days} days`}
          </span>
        </li>
      ))}
    </ul>
  );
}

function triedWords(each: Schemas["StatementShown"]) {
  if (!each.worked && !each.failed) return "nobody has reported yet whether it works";
  const [low, high] = [Math.round(each.likely_low * 10), Math.round(each.likely_high * 10)];
  return `worked ${each.worked} times, did not ${each.failed} times (of ten, ${low === high ? low : `${low} to ${high}`} would work)`;
}
