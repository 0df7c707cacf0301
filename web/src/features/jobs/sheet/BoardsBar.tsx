import { Button } from "@/ui/Button";
import { Link, useNavigate } from "@tanstack/react-router";
import type { Schemas } from "@/api/client";
import { jobOf } from "@/api/outbox";
import type { StepProps } from "../stepProps";
import { STEP_NAMES } from "@/ui/stepNames";

type Line = Schemas["SheetLine"];

/** The boards of a job that is about several: one sheet each, how far each is, and which to go on with. */
export function BoardsBar({ job, put }: StepProps) {
  const together = job.together;
  if (!together) return null;
  const next = together.sheets.find((each) => each.board === together.next);
  return (
    <nav aria-label="Boards of this job" className="mb-2">
      <ol className="flex flex-wrap gap-x-5 border-b border-rule">
        {together.sheets.map((each) => (
          <li key={each.id}>
            <Link
              to="/jobs/$id"
              params={{ id: each.id }}
              aria-current={each.id === job.id ? "page" : undefined}
              className={`flex min-h-12 flex-col justify-center py-1 no-underline ${
                each.id === job.id ? "border-b-4 border-text font-bold" : "border-b-4 border-transparent text-faint"
              }`}
            >
              <span>{each.title}</span>
              <span className="text-sm font-normal">{farWords(each)}</span>
            </Link>
          </li>
        ))}
      </ol>
      {next && next.id !== job.id && !job.closed && (
        <p className="flex flex-wrap items-center gap-x-4 border-b border-text py-2">
          <span className="min-w-0 grow">
            <strong>{next.title}</strong> comes first: {STEP_NAMES[next.step]?.toLowerCase()}.
          </span>
          <Link
            to="/jobs/$id"
            params={{ id: next.id }}
            className="flex min-h-12 items-center rounded-sm border border-both bg-both px-4 font-semibold text-ground no-underline"
          >
            Go on there
          </Link>
        </p>
      )}
      <details>
        <summary className="min-h-11 py-2.5 text-sm">{orderWords(together)}</summary>
        <Order job={job} put={put} />
      </details>
    </nav>
  );
}

function farWords({ original, step, proved }: Line): string {
  return [original, proved ? "ready to hand over" : STEP_NAMES[step]].filter(Boolean).join(" · ");
}

function orderWords({ sheets, said }: Schemas["BoardsOfJob"]): string {
  return `First ${sheets.map((each) => each.title).join(", then ")}${said ? ", as chosen here" : ""}`;
}

/** Which board before which, by hand; names; and a board that was put down by mistake goes. */
function Order({ job, put }: StepProps) {
  const sheets = job.together?.sheets ?? [];
  const names = sheets.map((each) => each.board);
  const moved = (at: number) => [...names.slice(0, at - 1), names[at], names[at - 1], ...names.slice(at + 1)];
  const last = [...names].sort().at(-1);
  const navigate = useNavigate();
  const takeOut = async (each: Line) => {
    const taken = await put({ target: `board.${each.board}` as "board.2", after: null });
    if (taken && each.id === job.id) await navigate({ to: "/jobs/$id", params: { id: jobOf(job.id) } });
  };
  return (
    <div className="flex flex-col gap-2 pb-3">
      {job.together?.because.map((each) => (
        <p key={each}>{each}.</p>
      ))}
      <ol className="flex flex-col gap-1">
        {sheets.map((each, at) => (
          <li key={each.id} className="flex flex-wrap items-center gap-x-3">
            <span className="min-w-64 grow basis-0">
              <span className="mr-3 font-mono">{at + 1}</span>
              {each.title}
              {each.why && <span className="text-faint">: {each.why}</span>}
            </span>
            {at > 0 && !job.closed && (
              <Button
                onClick={() => void put({ target: "boards_order", after: moved(at) as Schemas["EndSaid"]["board"][] })}
              >
                {each.title} earlier
              </Button>
            )}
            {each.board === last && each.board !== "1" && !job.closed && (
              <Button kind="quiet" onClick={() => void takeOut(each)}>
                Take {each.title} out of this job
              </Button>
            )}
          </li>
        ))}
      </ol>
      {job.together?.said && !job.closed && (
        <Button kind="quiet" className="self-start" onClick={() => void put({ target: "boards_order", after: null })}>
          Back to the order that follows from the wires
        </Button>
      )}
      <p className="text-sm text-faint">
        All are known before the machine is opened, and all recorded before a wire comes off. There is one lock-off,
        with the longest wait of all, and one hand-over.
      </p>
    </div>
  );
}
