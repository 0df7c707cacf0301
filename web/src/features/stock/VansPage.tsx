import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { useVans, type Van } from "./api";
import { StockLinks } from "./StockLinks";
import { VanSheet } from "./VanSheet";
import { vanWords } from "./words";

/** The depot's vans, one's own first. */
export function VansPage() {
  const vans = useVans();
  const session = useSession().data;
  const [adding, setAdding] = useState(false);
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
      <h1>Van stock</h1>
      <StockLinks />
      <ProblemNotice problem={vans.error} />
      {vans.isPending && <Loading what="Reading the vans" />}
      {vans.data?.total === 0 && (
        <Empty>
          {session?.keeps_catalogue
            ? "No van is listed yet. Add the first one; then bring in the machines that it looks after."
            : "No van is listed yet. The parts lead adds them."}
        </Empty>
      )}
      <ul className="border-t border-rule">
        {vans.data?.items.map((van) => (
          <VanLine key={van.id} van={van} mine={van.driver === session?.username} />
        ))}
      </ul>
      {session?.keeps_catalogue && (
        <Button className="self-start" onClick={() => setAdding(true)}>
          Add a van
        </Button>
      )}
      {adding && <VanSheet vans={vans.data?.items ?? []} onClose={() => setAdding(false)} />}
    </main>
  );
}

function VanLine({ van, mine }: { van: Van; mine: boolean }) {
  return (
    <li className="border-b border-rule">
      <Link
        to="/stock/van/$id"
        params={{ id: van.id }}
        search={{ page: 1 }}
        className="flex min-h-14 flex-col py-3 no-underline hover:bg-raised"
      >
        <strong>
          {van.name}
          {mine && ", yours"}
        </strong>
        <span className="text-faint">
          {van.driver && !mine && `${van.driver_name}; `}
          {vanWords(van)}
        </span>
      </Link>
    </li>
  );
}
