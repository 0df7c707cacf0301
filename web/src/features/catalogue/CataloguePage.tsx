import { SketchSheet } from "@/sketching/SketchSheet";
import { Choice, TextField } from "@/ui/fields";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useFamilies } from "@/api/families";
import { useBoards, useMakers, type BoardsWanted } from "./api";
import { BoardCard } from "./BoardCard";

/** The boards of the catalogue: by what is printed on them, by kind, by maker, by what they may stand in for. */
export function CataloguePage() {
  const wanted = useSearch({ from: "/catalogue" });
  const navigate = useNavigate({ from: "/catalogue" });
  const boards = useBoards(wanted);
  const families = useFamilies();
  const makers = useMakers();
  const look = (change: Partial<BoardsWanted>) =>
    void navigate({ search: { ...wanted, page: 1, ...change }, replace: true });
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6 desk:max-w-6xl">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h1>Catalogue</h1>
        <p className="flex flex-wrap gap-4">
          <Link
            to="/references"
            search={{ board: "", relation: "", withdrawn: false, page: 1 }}
            className="min-h-11 py-2"
          >
            Cross-references
          </Link>
          <Link to="/catalogue/load" className="min-h-11 py-2">
            Load a file
          </Link>
        </p>
      </div>
      <form
        role="search"
        onSubmit={(event) => event.preventDefault()}
        className="grid grid-cols-2 gap-3 desk:grid-cols-[2fr_1.4fr_1fr_1fr_1.2fr]"
      >
        <div className="col-span-2 desk:col-span-1">
          <TextField
            label="Part number, marking, maker or title"
            type="search"
            defaultValue={wanted.search}
            maxLength={80}
            onChange={(event) => look({ search: event.target.value })}
          />
        </div>
        <Choice
          label="Kind of machine"
          value={wanted.family}
          onChange={(event) => look({ family: event.target.value })}
        >
          <option value="">all</option>
          {families.data?.items.map((family) => (
            <option key={family.id} value={family.id}>
              {family.title}
            </option>
          ))}
        </Choice>
        <Choice label="Maker" value={wanted.maker} onChange={(event) => look({ maker: event.target.value })}>
          <option value="">all</option>
          {makers.data?.items.map(({ maker }) => (
            <option key={maker}>{maker}</option>
          ))}
        </Choice>
        <Choice
          label="Made"
          value={wanted.status}
          onChange={(event) => look({ status: event.target.value as BoardsWanted["status"] })}
        >
          <option value="">all</option>
          <option value="current">still made</option>
          <option value="discontinued">discontinued</option>
        </Choice>
        <TextField
          label="Can replace"
          type="search"
          className="font-mono"
          spellCheck={false}
          key={wanted.instead}
          defaultValue={wanted.instead}
          maxLength={80}
          onKeyDown={(event) => event.key === "Enter" && look({ instead: event.currentTarget.value.trim() })}
          onBlur={(event) => look({ instead: event.target.value.trim() })}
        />
      </form>
      {wanted.instead && (
        <p>
          What the cross-references name for <span className="font-mono">{wanted.instead}</span>, of no machine in
          particular; a job asks for the rest and judges the fit.
        </p>
      )}
      <ProblemNotice problem={boards.error} />
      {boards.isPending && <Loading what="Reading the catalogue" />}
      {boards.data?.total === 0 && <Nothing wanted={wanted} />}
      {boards.data?.total === 0 && !wanted.instead && (
        <SketchSheet
          key={wanted.search}
          start={{ marking: wanted.search, family: wanted.family || null }}
          onKept={(board) =>
            void navigate({ to: "/catalogue/$partNumber", params: { partNumber: board.part_number }, search: {} })
          }
        />
      )}
      {boards.data && boards.data.total > 0 && (
        <ul className="grid gap-x-10 border-t border-rule desk:grid-cols-2" aria-label="Boards">
          {boards.data.items.map((board) => (
            <BoardCard key={board.part_number} board={board} />
          ))}
        </ul>
      )}
      {boards.data && <Pager {...boards.data} onPage={(page) => look({ page })} />}
    </main>
  );
}

function Nothing({ wanted }: { wanted: BoardsWanted }) {
  const narrowed = wanted.family || wanted.maker || wanted.status;
  if (wanted.instead && !narrowed && !wanted.search)
    return <Empty>No cross-reference names a board for {wanted.instead}.</Empty>;
  return <Empty>No board matches. Try fewer letters{narrowed ? ", or “all” in a list" : ""}.</Empty>;
}
