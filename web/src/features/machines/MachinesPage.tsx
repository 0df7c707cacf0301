import { TextField } from "@/ui/fields";
import { InkMark } from "@/ui/inks";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useMachines } from "./api";

/** The depot's machines, and which board is in each by its records. */
export function MachinesPage() {
  const wanted = useSearch({ from: "/machines" });
  const navigate = useNavigate({ from: "/machines" });
  const machines = useMachines(wanted.search, wanted.page);
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
      <h1>Machines</h1>
      <TextField
        label="Machine"
        type="search"
        defaultValue={wanted.search}
        onChange={(event) => void navigate({ search: { search: event.target.value, page: 1 }, replace: true })}
      />
      <ProblemNotice problem={machines.error} />
      {machines.isPending && <Loading what="Reading the machines" />}
      {machines.data?.total === 0 && (
        <Empty>{wanted.search ? "No machine matches. Clear the search." : "A machine comes with its first job."}</Empty>
      )}
      <ul className="border-t border-rule">
        {machines.data?.items.map((each) => (
          <li key={each.machine} className="border-b border-rule">
            <Link
              to="/machine"
              search={{ name: each.machine, page: 1 }}
              className="flex flex-wrap items-center gap-x-3 py-3 no-underline hover:bg-raised"
            >
              <strong className="grow">{each.machine}</strong>
              {each.board && <InkMark side="replacement">{each.board}</InkMark>}
              <span className="text-faint">
                {each.jobs} {each.jobs === 1 ? "job" : "jobs"}
              </span>
            </Link>
          </li>
        ))}
      </ul>
      {machines.data && <Pager {...machines.data} onPage={(page) => void navigate({ search: { ...wanted, page } })} />}
    </main>
  );
}
