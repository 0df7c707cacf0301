import { ProblemNotice } from "@/ui/notices";
import { Link } from "@tanstack/react-router";
import { AddStatement } from "./AddStatement";
import { EVERY_BOARD, useStatementsOf } from "./api";

/** Which boards this one may stand in for, and which may stand in for it, by what the cross-references say. */
export function StandsFor({ partNumber }: { partNumber: string }) {
  const said = useStatementsOf(partNumber);
  const items = (said.data?.items ?? []).filter((each) => [each.original, each.replacement].includes(partNumber));
  const never = items.filter((each) => each.relation === "not exchangeable");
  const may = items.filter((each) => each.relation !== "not exchangeable");
  const instead = may.filter((each) => each.original === partNumber);
  const replaces = may.filter((each) => each.replacement === partNumber);
  return (
    <section aria-label="Cross-references">
      <h2>What stands in for what</h2>
      <ProblemNotice problem={said.error} />
      {said.data && items.length === 0 && <p className="text-faint">No cross-reference names this board.</p>}
      <Lines title="May go in instead of it" of={partNumber} lines={instead.map(replacement)} />
      <Lines title="It may go in instead of" of={partNumber} lines={replaces.map(original)} replacing />
      <Lines
        title="Must not be exchanged with"
        of={partNumber}
        lines={never.map((each) => (each.original === partNumber ? replacement(each) : original(each)))}
      />
      <AddStatement partNumber={partNumber} />
      {instead.length > 0 && (
        <p>
          <Link to="/catalogue" search={{ ...EVERY_BOARD, instead: partNumber }} className="inline-block min-h-11 py-2">
            Everything that may stand in for it, over several boards too
          </Link>
        </p>
      )}
    </section>
  );
}

/** Whether several boards go in together: a set has no page and no place on the bench. */
const isSet = (board: string) => board.includes(" + ");

type Said = { id: string; original: string; replacement: string; relation: string };
type Line = { id: string; board: string; relation: string };
const replacement = (each: Said): Line => ({ ...each, board: each.replacement });
const original = (each: Said): Line => ({ ...each, board: each.original });

function Lines({
  title,
  of,
  lines,
  replacing = false,
}: {
  title: string;
  of: string;
  lines: Line[];
  replacing?: boolean;
}) {
  if (lines.length === 0) return null;
  return (
    <>
      <h3 className="mt-2 text-base font-semibold">{title}</h3>
      <ul>
        {lines.map((line) => (
          <li key={line.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule">
            {isSet(line.board) ? (
              <span className="min-h-11 py-2 font-mono">{line.board}</span>
            ) : (
              <Link
                to="/catalogue/$partNumber"
                params={{ partNumber: line.board }}
                search={{}}
                className="min-h-11 py-2 font-mono"
              >
                {line.board}
              </Link>
            )}
            <span className={line.relation === "not exchangeable" ? "font-semibold" : ""}>{line.relation}</span>
            {line.relation !== "not exchangeable" && !isSet(line.board) && (
              <Link
                to="/bench"
                search={
                  replacing ? { original: line.board, replacement: of } : { original: of, replacement: line.board }
                }
                className="ml-auto min-h-11 py-2"
                aria-label={`${replacing ? line.board : of} and ${replacing ? of : line.board} on the bench`}
              >
                On the bench
              </Link>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
