import { Choice, TextField } from "@/ui/fields";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { RELATIONS, useStatements, type Relation, type StatementsWanted } from "./api";
import { StatementRow } from "./StatementRow";

/** Cross-references: which board may, or may not, stand in for which. */
export function ReferencesPage() {
  const wanted = useSearch({ from: "/references" });
  const navigate = useNavigate({ from: "/references" });
  const statements = useStatements(wanted);
  const look = (change: Partial<StatementsWanted>) =>
    void navigate({ search: { ...wanted, page: 1, ...change }, replace: true });
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h1>Cross-references</h1>
        <p className="flex flex-wrap gap-4">
          <Link to="/references/contradictions" search={{ page: 1 }} className="min-h-11 py-2">
            Contradictions
          </Link>
          <Link to="/references/imports" search={{ page: 1 }} className="min-h-11 py-2">
            Import
          </Link>
        </p>
      </div>
      <div className="grid gap-3 sm:grid-cols-[1fr_auto_auto]">
        <TextField
          label="Board, or id of a statement"
          hint="The beginning of a part number is enough."
          type="search"
          className="font-mono"
          defaultValue={wanted.board}
          maxLength={80}
          onChange={(event) => look({ board: event.target.value })}
        />
        <Choice
          label="Relation"
          value={wanted.relation}
          onChange={(event) => look({ relation: event.target.value as Relation })}
        >
          <option value="">all</option>
          {RELATIONS.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </Choice>
        <Choice
          label="Show"
          value={wanted.withdrawn ? "withdrawn" : "counting"}
          onChange={(event) => look({ withdrawn: event.target.value === "withdrawn" })}
        >
          <option value="counting">those that count</option>
          <option value="withdrawn">withdrawn ones</option>
        </Choice>
      </div>
      <ProblemNotice problem={statements.error} />
      {statements.isPending && <Loading what="Reading the statements" />}
      {statements.data?.total === 0 && <Empty>No statement matches.</Empty>}
      <ul className="border-t border-rule">
        {statements.data?.items.map((each) => (
          <StatementRow key={each.id} statement={each} />
        ))}
      </ul>
      {statements.data && <Pager {...statements.data} onPage={(page) => look({ page })} />}
      <p className="flex flex-wrap gap-4">
        <a href="/api/statements.csv" className="min-h-11 py-2">
          All of them as CSV
        </a>
        <a href="/api/statements.json" className="min-h-11 py-2">
          All of them as JSON
        </a>
      </p>
    </main>
  );
}
