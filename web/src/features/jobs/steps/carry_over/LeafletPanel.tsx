import type { Schemas } from "@/api/client";
import { SetPositions } from "@/comparison/SetPositions";
import type { Board } from "@/comparison/Standing";
import type { Positions } from "@/drawing/types";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { useState } from "react";
import type { StepProps } from "../../stepProps";
import { Questions } from "../Questions";

type Leaflet = Schemas["LeafletShown"];
type Props = StepProps & { leaflet: Leaflet; proposed: string; board: Board };

/** What the new board’s leaflet says for this machine: its row as a plan, all of it at once, and what would decide. */
export function LeafletPanel({ job, put, leaflet, proposed, board }: Props) {
  const followed = job.school === "table" || (!job.school && proposed === "table");
  return (
    <>
      {leaflet.rows.map((row) => (
        <p key={`${row.chart} ${row.row}`}>
          {row.chart}
          {row.page && `, page ${row.page}`}, row {row.row} holds for this machine.
          {row.use.length > 0 && ` With it: ${row.use.join(", ")}.`}
          {row.notes.length > 0 && ` It notes: ${row.notes.join("; ")}.`}
        </p>
      ))}
      {leaflet.clash.length > 0 && (
        <p role="alert" className="border-l-4 border-text pl-3">
          <strong>Its rows contradict each other at {leaflet.clash.join(", ")}.</strong> None of them is taken. Correct
          the table in the workshop, or follow another school.
        </p>
      )}
      {leaflet.rows.length === 0 && leaflet.possible === 0 && (
        <p role="status">
          <strong>No row fits this machine{leaflet.against.length > 0 && `: ${leaflet.against.join(", ")}`}.</strong>{" "}
          {leaflet.against.length > 0
            ? "If one of these is wrong, change it in Recognise; then its row shows here."
            : "Set it by its functions, or by hand."}
        </p>
      )}
      {leaflet.sets && (
        <SetByRow
          job={job}
          put={put}
          board={board}
          sets={leaflet.sets}
          followed={followed}
          needsReason={proposed !== "table"}
        />
      )}
      {leaflet.asks.length > 0 && (
        <>
          <p>
            {leaflet.possible} {leaflet.possible === 1 ? "row" : "rows"} could {leaflet.rows.length ? "also " : ""}hold.
            {!leaflet.whole && " Half a row is never taken: answer first."}
          </p>
          <Questions job={job} put={put} questions={leaflet.asks} />
        </>
      )}
    </>
  );
}

type RowProps = StepProps & { board: Board; sets: Positions; followed: boolean; needsReason: boolean };

function SetByRow({ job, put, board, sets, followed, needsReason }: RowProps) {
  const [reason, setReason] = useState("");
  const follow = () =>
    void put({ target: "school", after: "table", reason: reason.trim() || "the leaflet’s row holds" });
  return (
    <div className="flex flex-col gap-3 border-l-4 border-replacement pl-3">
      <p className="flex flex-wrap items-center gap-2">
        {followed ? "The plan is this row:" : "It sets:"}
        <SetPositions board={board} positions={sets} />
      </p>
      {!job.closed && !followed && needsReason && (
        <div className="max-w-md">
          <TextField
            label="Why by this row, and not by the functions"
            maxLength={2000}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </div>
      )}
      {!job.closed && !followed && (
        <Button
          kind="main"
          className="self-start"
          needs={lacking({ "the reason": needsReason && !reason.trim() })}
          onClick={follow}
        >
          Set by this row
        </Button>
      )}
      {!job.closed && job.school === "table" && (
        <Button className="self-start" onClick={() => void put({ target: "school", after: null })}>
          Not by this row
        </Button>
      )}
    </div>
  );
}
