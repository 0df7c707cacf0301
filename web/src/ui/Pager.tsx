import { Button } from "./Button";

type Props = { page: number; size: number; total: number; onPage: (page: number) => void };

/** Which part of a list is shown, and the way to the rest. */
export function Pager({ page, size, total, onPage }: Props) {
  if (total <= size && page === 1) return null;
  const first = (page - 1) * size + 1;
  return (
    <nav aria-label="Pages" className="flex flex-wrap items-center gap-3 py-3">
      <Button disabled={page <= 1} onClick={() => onPage(page - 1)}>
        Before
      </Button>
      <span className="text-faint">
        {Math.min(first, total)} to {Math.min(page * size, total)} of {total}
      </span>
      <Button disabled={page * size >= total} onClick={() => onPage(page + 1)}>
        After
      </Button>
    </nav>
  );
}
