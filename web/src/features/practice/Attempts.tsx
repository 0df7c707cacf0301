import { Empty, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { clock } from "@/ui/times";
import { useState } from "react";
import { useAttempts } from "./api";
import { LEVEL_WORDS, minutesWords } from "./words";

/** What one did, newest first. */
export function Attempts() {
  const [page, setPage] = useState(1);
  const attempts = useAttempts(page);
  return (
    <>
      <ProblemNotice problem={attempts.error} />
      {attempts.data?.total === 0 && <Empty>Nothing yet.</Empty>}
      <ul className="border-t border-rule">
        {attempts.data?.items.map((each) => (
          <li key={each.id} className="border-b border-rule py-2">
            {LEVEL_WORDS[each.level].title}: <span className="font-mono">{each.title}</span>,{" "}
            {each.right ? "all as it should be" : `${each.wrong_rows} of ${each.rows} otherwise`}
            <span className="block text-sm text-faint">
              {minutesWords(each.seconds)}; {clock(each.at)}
            </span>
          </li>
        ))}
      </ul>
      {attempts.data && <Pager {...attempts.data} onPage={setPage} />}
    </>
  );
}
