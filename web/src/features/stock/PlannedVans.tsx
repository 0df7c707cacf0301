import { Link } from "@tanstack/react-router";
import type { PlanFound } from "./api";
import { lackWords, moneyWords } from "./words";

/** What each van carries by a plan, beside what is in it. */
export function PlannedVans({ vans }: { vans: PlanFound["vans"] }) {
  return (
    <div className="grid gap-6 sm:grid-cols-2">
      {vans.map((van) => (
        <section key={van.van} aria-label={van.name} className="border-t-2 border-text pt-2">
          <h2 className="text-lg">
            <Link to="/stock/van/$id" params={{ id: van.van }} search={{ page: 1 }}>
              {van.name}
            </Link>
          </h2>
          <p className="text-sm text-faint">
            {van.failures > 0 &&
              `${Math.round((100 * van.planned) / van.failures)} % of ${van.failures.toFixed(2)} failures planned for; `}
            {moneyWords(van.cost)}, {van.size.toFixed(0)} places
          </p>
          {van.pieces.length === 0 && <p>carries nothing</p>}
          <ul>
            {van.pieces.map((each) => (
              <li key={each.piece} className="flex gap-3 border-b border-rule py-1.5">
                <strong className="w-8 text-right font-mono text-lg">{each.count}</strong>
                <span className="grow font-mono">{each.piece}</span>
                <span className="text-sm text-faint">
                  {lackWords({ count: each.held, wanted: each.count }) || "is there"}
                </span>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
