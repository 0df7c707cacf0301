import { Part } from "@/ui/Part";
import { Pager } from "@/ui/Pager";
import { Empty, ProblemNotice } from "@/ui/notices";
import { clock } from "@/ui/times";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { useMoves } from "./api";

/** What came onto the shelf and off it. */
export function Moves({ van }: { van: string }) {
  return (
    <Part title="What came and went" status="who, when, and in which job">
      <MoveList van={van} />
    </Part>
  );
}

function MoveList({ van }: { van: string }) {
  const [page, setPage] = useState(1);
  const moves = useMoves(van, page);
  return (
    <>
      <ProblemNotice problem={moves.error} />
      {moves.data?.total === 0 && <Empty>Nothing came or went yet.</Empty>}
      <ul className="border-t border-rule">
        {moves.data?.items.map((each) => (
          <li key={each.id} className="border-b border-rule py-2">
            <span className="font-mono">{each.piece}</span>{" "}
            <strong>{each.change > 0 ? `+${each.change}` : each.change}</strong>, {each.why}
            {each.job && (
              <>
                {" in "}
                <Link to="/jobs/$id" params={{ id: each.job }}>
                  {each.job_code}
                </Link>
              </>
            )}
            <span className="block text-sm text-faint">
              {each.left} left; {each.by}, {clock(each.at)}
            </span>
          </li>
        ))}
      </ul>
      {moves.data && <Pager {...moves.data} onPage={setPage} />}
    </>
  );
}
