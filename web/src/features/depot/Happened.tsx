import { Loading, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { clock } from "@/ui/times";
import { useState } from "react";
import { useHappened } from "./api";

/** Who signed in, who could not, and which files were taken away: for the depot’s lead. */
export function Happened() {
  const [page, setPage] = useState(1);
  const happened = useHappened(page);
  return (
    <section className="flex flex-col gap-3">
      <h2>Sign-ins and files taken away</h2>
      {happened.isPending && <Loading what="Reading what happened" />}
      <ProblemNotice problem={happened.error} />
      {happened.data?.total === 0 && <p className="text-faint">Nothing yet.</p>}
      <ul className="border-t border-rule" aria-label="Sign-ins and files taken away">
        {happened.data?.items.map((each, index) => (
          <li key={index} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-2">
            <span className="font-mono">{each.who}</span>
            <span className={each.what === "could not sign in" ? "font-semibold" : ""}>
              {each.what}
              {each.file && <span className="font-mono break-all"> {each.file}</span>}
            </span>
            <span className="ml-auto text-sm text-faint">
              {clock(each.moment)}
              {each.came_from && `, from ${each.came_from}`}
            </span>
          </li>
        ))}
      </ul>
      {happened.data && <Pager {...happened.data} onPage={setPage} />}
    </section>
  );
}
