import { Choice, TextField } from "@/ui/fields";
import { InkMark } from "@/ui/inks";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useBoards, type BoardsWanted } from "./api";

/** The boards of the catalogue. */
export function CataloguePage() {
  const wanted = useSearch({ from: "/catalogue" });
  const navigate = useNavigate({ from: "/catalogue" });
  const boards = useBoards(wanted);
  const look = (change: Partial<BoardsWanted>) =>
    void navigate({ search: { ...wanted, page: 1, ...change }, replace: true });
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
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
      <div className="flex flex-wrap items-end gap-3">
        <div className="grow">
          <TextField
            label="Part number, marking, maker or title"
            type="search"
            defaultValue={wanted.search}
            maxLength={80}
            onChange={(event) => look({ search: event.target.value })}
          />
        </div>
        <Choice
          label="Made"
          value={wanted.status}
          onChange={(event) => look({ status: event.target.value as BoardsWanted["status"] })}
        >
          <option value="">all</option>
          <option value="current">still made</option>
          <option value="discontinued">discontinued</option>
        </Choice>
      </div>
      <ProblemNotice problem={boards.error} />
      {boards.isPending && <Loading what="Reading the catalogue" />}
      {boards.data?.total === 0 && <Empty>No board matches. Try fewer letters.</Empty>}
      <ul className="border-t border-rule">
        {boards.data?.items.map((board) => (
          <li key={board.part_number} className="border-b border-rule">
            <Link
              to="/catalogue/$partNumber"
              params={{ partNumber: board.part_number }}
              className="block py-3 no-underline hover:bg-raised"
            >
              <span className="font-mono font-semibold">{board.part_number}</span> {board.maker}, {board.title}
              <span className="block text-sm text-faint">
                {board.status === "current" ? "still made" : "discontinued"}, revision {board.revision}
              </span>
            </Link>
          </li>
        ))}
      </ul>
      {boards.data && <Pager {...boards.data} onPage={(page) => look({ page })} />}
      {boards.data && boards.data.items.length > 0 && (
        <p className="text-sm text-faint">
          To set two boards side by side, use the{" "}
          <Link to="/bench" search={{}}>
            bench
          </Link>
          . The ink of an original looks like <InkMark side="original">this</InkMark>, that of a replacement like{" "}
          <InkMark side="replacement">this</InkMark>.
        </p>
      )}
    </main>
  );
}
