import { useSession } from "@/api/session";
import { Choice, TextField } from "@/ui/fields";
import { InkMark } from "@/ui/inks";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { Part } from "@/ui/Part";
import { useNavigate, useSearch } from "@tanstack/react-router";
import { useServed, useVans, type ServedWanted } from "./api";
import { ListFile } from "./ListFile";
import { StockLinks } from "./StockLinks";
import { factWords } from "./words";

/** The machines that the vans look after, and how many pieces serve each. */
export function ServedPage() {
  const wanted = useSearch({ from: "/stock/machines" });
  const navigate = useNavigate({ from: "/stock/machines" });
  const served = useServed(wanted);
  const vans = useVans();
  const keeps = useSession().data?.keeps_catalogue === true;
  const look = (change: Partial<ServedWanted>) =>
    void navigate({ search: { ...wanted, page: 1, ...change }, replace: true });
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
      <h1>Machines served</h1>
      <StockLinks />
      <div className="grid gap-3 sm:grid-cols-2">
        <Choice label="Van" value={wanted.van} onChange={(event) => look({ van: event.target.value })}>
          <option value="">all of them</option>
          {vans.data?.items.map((each) => (
            <option key={each.id} value={each.id}>
              {each.name}
            </option>
          ))}
        </Choice>
        <TextField
          label="Board in them"
          type="search"
          className="font-mono"
          defaultValue={wanted.board}
          maxLength={80}
          onChange={(event) => look({ board: event.target.value })}
        />
      </div>
      <ProblemNotice problem={served.error} />
      {served.isPending && <Loading what="Reading the machines" />}
      {served.data?.total === 0 && (
        <Empty>
          {wanted.van || wanted.board ? "No machine matches." : "No machines are listed yet. Bring in the list below."}
        </Empty>
      )}
      <ul className="border-t border-rule">
        {served.data?.items.map((each, index) => (
          <li key={index} className="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-2.5">
            <strong className="w-10 text-right font-mono">{each.machines}</strong>
            <div className="min-w-0 grow">
              <InkMark side="original">{each.board}</InkMark> {each.title}
              <span className="block text-sm text-faint">
                {each.van_name}
                {each.years > 0 && `; ${each.failed} failed in ${each.years} machine-years`}
                {Object.keys(each.facts).length > 0 && `; ${factWords(each.facts)}`}
              </span>
            </div>
            <span className="text-sm">
              {!each.known
                ? "not in the catalogue"
                : each.proved + each.work + each.listed === 0
                  ? "nothing known serves it"
                  : `${each.proved} proved, ${each.work} with work, ${each.listed} listed`}
            </span>
          </li>
        ))}
      </ul>
      {served.data && <Pager {...served.data} onPage={(page) => look({ page })} />}
      {keeps && (
        <Part title="Lists as files" status="machines, prices, shelves" open={served.data?.total === 0}>
          <ListFile
            list="served"
            what="Machines served"
            columns="van, board, machines, failed, years, fact.NAME …"
            replaces
          />
          <ListFile list="pieces" what="What pieces cost" columns="piece, cost, size, most" replaces={false} />
          <ListFile list="held" what="What is on the shelves" columns="van, piece, count" replaces />
        </Part>
      )}
    </main>
  );
}
