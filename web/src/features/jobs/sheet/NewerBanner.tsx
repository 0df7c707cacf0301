import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { InkMark, type Side } from "@/ui/inks";
import { Link } from "@tanstack/react-router";
import type { StepProps } from "../stepProps";

/** A board of this job was completed meanwhile: the job stays with what it began with until somebody takes the new one. */
export function NewerBanner({ job, put }: StepProps) {
  if (job.closed) return null;
  return (
    <>
      {(["original", "replacement"] as const).map((side) => (
        <Newer key={side} job={job} put={put} side={side} />
      ))}
    </>
  );
}

function Newer({ job, put, side }: StepProps & { side: Side }) {
  const board = side === "original" ? job.original_board : job.replacement_board;
  if (board?.joined) return <Joined board={board} joined={board.joined} put={put} side={side} />;
  if (!board?.newer) return null;
  const newer = board.newer;
  return (
    <section
      aria-label={`Newer profile of the ${side}`}
      className="mb-4 flex flex-wrap items-center gap-x-4 gap-y-2 border-y border-rule py-3"
    >
      <p>
        <InkMark side={side}>{board.part_number}</InkMark> has revision {newer} now; this job works with revision{" "}
        {board.revision}. What was recorded stays.
      </p>
      <Link to="/catalogue/$partNumber" params={{ partNumber: board.part_number }} search={{ revision: newer }}>
        Look at it
      </Link>
      <Button onClick={() => void put({ target: `${side}_profile`, after: newer })}>Take revision {newer} here</Button>
    </section>
  );
}

type JoinedProps = Pick<StepProps, "put"> & { board: Schemas["BoardRef"]; joined: string; side: Side };

/** The sketch that this job works with is a board that was there: the parts lead said so. */
function Joined({ board, joined, put, side }: JoinedProps) {
  return (
    <section
      aria-label={`The ${side} is known`}
      className="mb-4 flex flex-wrap items-center gap-x-4 gap-y-2 border-y border-rule py-3"
    >
      <p>
        <InkMark side={side}>{board.part_number}</InkMark> is the same board as <b className="font-mono">{joined}</b>,
        by the parts lead’s word. What was recorded stays.
      </p>
      <Link to="/catalogue/$partNumber" params={{ partNumber: joined }} search={{}}>
        Look at it
      </Link>
      <Button onClick={() => void put({ target: `${side}_joined`, after: joined })}>Go on with {joined}</Button>
    </section>
  );
}
