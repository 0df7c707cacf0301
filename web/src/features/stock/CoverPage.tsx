import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { Part } from "@/ui/Part";
import { when } from "@/ui/times";
import { useMatrix, type Matrix } from "./api";
import { Cover } from "./Cover";
import { StockLinks } from "./StockLinks";

/** Who serves whom, and how well, over all machines that the vans look after. */
export function CoverPage() {
  const matrix = useMatrix();
  const found = matrix.data;
  return (
    <main className="mx-auto flex max-w-6xl flex-col gap-5 px-4 py-6">
      <h1>Who serves whom</h1>
      <StockLinks />
      <ProblemNotice problem={matrix.error} />
      {matrix.isPending && <Loading what="Reading who serves whom" />}
      {found?.kinds.length === 0 && <Empty>No machines are listed yet. Bring in the list of machines served.</Empty>}
      {found && found.kinds.length > 0 && (
        <>
          <p className="text-faint">
            {found.judged_at
              ? `Judged last ${when(found.judged_at)}, from factory settings and what is known of each machine.`
              : ""}
            {found.unjudged > 0 &&
              ` ${found.unjudged} kinds of machine were not judged yet: ask for a plan, which judges them first.`}
          </p>
          <Cover matrix={found} />
          <Part title="The same as a list" status={`${found.pieces.length} pieces`}>
            <PieceList matrix={found} />
          </Part>
        </>
      )}
    </main>
  );
}

function PieceList({ matrix }: { matrix: Matrix }) {
  const names = (piece: number) =>
    matrix.grades.filter((each) => each.piece === piece).map((each) => matrix.kinds[each.kind]?.board ?? "");
  return (
    <ul className="border-t border-rule">
      {matrix.pieces.map((each, place) => (
        <li key={each.piece} className="border-b border-rule py-2">
          <span className="font-mono font-semibold">{each.piece}</span> serves {each.machines} machines
          {each.held > 0 && `; ${each.held} in the vans`}
          <span className="block font-mono text-sm text-faint">{[...new Set(names(place))].join(", ")}</span>
        </li>
      ))}
    </ul>
  );
}
