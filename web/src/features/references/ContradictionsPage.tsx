import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useContradictions } from "./api";
import { StatementRow } from "./StatementRow";

const WORDS: Record<string, string> = {
  "both ways": "One says yes, the other says no",
  cycle: "They supersede each other in a ring",
  "two successors": "Two successors, and nothing decides between them",
};

/** Statements that cannot all be true; settled by withdrawing one of them. */
export function ContradictionsPage() {
  const { page } = useSearch({ from: "/references/contradictions" });
  const navigate = useNavigate({ from: "/references/contradictions" });
  const found = useContradictions(page);
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
      <p className="text-faint">
        <Link to="/references" search={{ board: "", relation: "", withdrawn: false, page: 1 }}>
          Cross-references
        </Link>
      </p>
      <h1>Contradictions</h1>
      <p>
        These statements cannot all be meant for the same machine. Withdraw the one that is wrong; it stays to be read,
        and counts no more.
      </p>
      <ProblemNotice problem={found.error} />
      {found.isPending && <Loading what="Reading the contradictions" />}
      {found.data?.total === 0 && <Empty>Nothing contradicts anything.</Empty>}
      {found.data?.items.map((each) => (
        <section
          key={each.kind + each.boards.join()}
          aria-label={each.boards.join(", ")}
          className="border-t-2 border-text pt-2"
        >
          <h2>{WORDS[each.kind] ?? each.kind}</h2>
          <p className="font-mono wrap-anywhere">{each.boards.join(" → ")}</p>
          <ul className="border-t border-rule">
            {each.statements.map((statement) => (
              <StatementRow key={statement.id} statement={statement} />
            ))}
          </ul>
        </section>
      ))}
      {found.data && <Pager {...found.data} onPage={(next) => void navigate({ search: { page: next } })} />}
    </main>
  );
}
