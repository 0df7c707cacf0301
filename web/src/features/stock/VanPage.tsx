import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { useAway } from "@/with_you/useAway";
import { Link, useNavigate, useParams, useSearch } from "@tanstack/react-router";
import { useState } from "react";
import { useMove, useShelf, useVans, type PieceHeld } from "./api";
import { CountShelf } from "./CountShelf";
import { keptCount } from "./counting";
import { Moves } from "./Moves";
import { VanSheet } from "./VanSheet";
import { lackWords, vanWords } from "./words";

/** What is in a van, and what should be: a list to stand before the shelf with. */
export function VanPage() {
  const { id } = useParams({ from: "/stock/van/$id" });
  const { page } = useSearch({ from: "/stock/van/$id" });
  const navigate = useNavigate({ from: "/stock/van/$id" });
  const shelf = useShelf(id, page);
  const away = useAway();
  const keeps = useSession().data?.keeps_catalogue === true;
  const [counting, setCounting] = useState(() => keptCount(id) !== null);
  const [changing, setChanging] = useState(false);
  const vans = useVans();
  const van = shelf.data?.van;
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
      <p className="text-faint">
        <Link to="/stock">Van stock</Link>
      </p>
      <ProblemNotice problem={shelf.error} />
      {shelf.isPending && <Loading what="Reading the shelf" />}
      {van && shelf.data && (
        <>
          <div>
            <h1>{van.name}</h1>
            <p className="text-faint">
              {van.driver_name && `${van.driver_name}; `}
              {vanWords(van)}
            </p>
          </div>
          {away && (
            <p role="status">Without a connection: the list as it was said last. Changes wait until you have one.</p>
          )}
          {counting ? (
            <CountShelf
              van={id}
              held={shelf.data.items}
              whole={shelf.data.total <= shelf.data.size}
              onEnd={() => setCounting(false)}
            />
          ) : (
            <>
              {shelf.data.total === 0 && <Empty>Nothing is in it by the list. Count the shelf.</Empty>}
              <ul aria-label="On the shelf" className="border-t border-rule">
                {shelf.data.items.map((each) => (
                  <Line key={each.piece} van={id} held={each} away={away} />
                ))}
              </ul>
              <Pager {...shelf.data} onPage={(next) => void navigate({ search: { page: next } })} />
              <div className="flex flex-wrap gap-3">
                <Button kind="main" onClick={() => setCounting(true)}>
                  Count the shelf
                </Button>
                {keeps && <Button onClick={() => setChanging(true)}>Change the van</Button>}
              </div>
              <Moves van={id} />
            </>
          )}
          {changing && (
            <VanSheet
              van={van}
              vans={vans.data?.items ?? []}
              onClose={() => setChanging(false)}
              onRemoved={() => void navigate({ to: "/stock" })}
            />
          )}
        </>
      )}
    </main>
  );
}

function Line({ van, held, away }: { van: string; held: PieceHeld; away: boolean }) {
  const move = useMove(van);
  const lack = lackWords(held);
  const go = (change: number) => move.mutate({ piece: held.piece, change });
  return (
    <li className="border-b border-rule py-2">
      <div className="flex items-center gap-3">
        <div className="min-w-0 grow">
          <span className="font-mono text-[1.05rem] font-semibold wrap-anywhere">{held.piece}</span>
          <span className="block text-sm text-faint">
            {held.title}
            {held.machines > 0 && `${held.title ? "; " : ""}serves ${held.machines} of its machines`}
          </span>
          {lack && <span className="block text-sm font-semibold">{lack}</span>}
        </div>
        <div className="flex shrink-0 items-center gap-1">
          <Button
            aria-label={`Take one ${held.piece} out`}
            disabled={away || held.count === 0 || move.isPending}
            onClick={() => go(-1)}
          >
            −
          </Button>
          <output aria-label={`${held.piece} in the van`} className="min-w-8 text-center font-mono text-2xl">
            {held.count}
          </output>
          <Button aria-label={`Put one ${held.piece} in`} disabled={away || move.isPending} onClick={() => go(1)}>
            +
          </Button>
        </div>
      </div>
      <ProblemNotice problem={move.error} />
    </li>
  );
}
