import { Link } from "@tanstack/react-router";

const LINK = "min-h-11 py-2.5 [&.active]:font-bold [&.active]:no-underline";

/** The rooms of van stock. */
export function StockLinks() {
  return (
    <nav aria-label="Van stock" className="flex flex-wrap gap-x-5 border-b border-rule">
      <Link to="/stock" activeOptions={{ exact: true }} className={LINK}>
        Vans
      </Link>
      <Link
        to="/stock/machines"
        search={{ van: "", board: "", page: 1 }}
        activeOptions={{ includeSearch: false }}
        className={LINK}
      >
        Machines served
      </Link>
      <Link to="/stock/cover" className={LINK}>
        Who serves whom
      </Link>
      <Link to="/stock/plans" search={{ page: 1 }} activeOptions={{ includeSearch: false }} className={LINK}>
        Plans
      </Link>
    </nav>
  );
}
